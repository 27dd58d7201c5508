import { describe, expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import type { Key, Layer } from '../../scene/layer';
import { createMultiply, type MultiplyRecipe } from '../../scene/recipe';
import { edited, SHELF } from '../../testing/planning';
import { card, CONTEXT, inFrames, key, PAL, sceneOf } from '../../testing/scenes';
import { describeFinding } from '../finding';
import { plan } from '../plan';
import { copyPlaceWords } from './words';

/**
 * What copies come to, as it was when laws and the screens said that it is right: what comes out otherwise is to be
 * understood before it is taken over with `npm run unit -- whole-copies -u`.
 */
const at = (x: number, y: number, more: object = {}): Layer['rest'] => ({
  'position.x': x,
  'position.y': y,
  'size.x': 40,
  'size.y': 30,
  ...more,
});

const FRAME = frameTicks(PAL);
const SCENE = sceneOf([
  card('kite', { tags: ['shape'], rest: at(400, 250, { opacity: 0.8 }), look: { fill: '#cc3311' } }),
  card('ring', {
    tags: ['shape'],
    rest: at(600, 120, { rotation: 20 }),
    source: { type: 'ellipse' },
    look: { stroke: '#113355' },
    tracks: { rotation: [key(0, 20), key(20, 60)] },
  }),
  card('note', {
    tags: ['shape'],
    rest: at(200, 400),
    source: { type: 'text', text: 'la', font: 'Spline Sans', weight: 500, size: 20, align: 'left' },
  }),
  card('ground'),
  card('lamp', {
    kind: 'group',
    tags: ['group'],
    source: { type: 'none' },
    look: {},
    rest: at(700, 300),
    span: { in: 5 * FRAME, out: 45 * FRAME },
  }),
  // One that begins later, one that outlasts its group, and one that ends before it.
  card('glow', { parent: 'lamp', rest: at(20, 15), span: { in: 15 * FRAME, out: 45 * FRAME } }),
  card('post', { parent: 'lamp', rest: at(20, 15), span: { in: 5 * FRAME, out: 90 * FRAME } }),
  card('flash', { parent: 'lamp', rest: at(20, 15), span: { in: 6 * FRAME, out: 9 * FRAME } }),
]);

const rounded = (value: number): number => Number(value.toFixed(3));

function keysText(keys: readonly Key[]): string {
  return keys
    .map((one) => `${rounded(inFrames(one.at))}: ${rounded(one.value)} (${one.by?.slot ?? 'by hand'})`)
    .join(', ');
}

/** The plan in lines: what was found, each layer that comes with its life, look, rest and keys, and what is used. */
function linesOf(more: Partial<MultiplyRecipe>): string[] {
  const recipe = { ...createMultiply({ by: 'rule', tag: 'shape' }), copies: 5, ...more };
  const planned = plan(SCENE, SHELF, recipe, CONTEXT);
  const known = new Set(SCENE.layers.map(({ id }) => id));
  const after = edited(SCENE, planned.edits);
  return [
    ...planned.findings.map((finding) => `! ${describeFinding(finding, SCENE)}`),
    ...planned.layers.map(
      ({ layer, place, starts, lasts }) => `${layer}, place ${place}: ${inFrames(starts)} f, ${inFrames(lasts)} f`,
    ),
    ...after.layers
      .filter(({ id }) => !known.has(id))
      .flatMap(({ id, name, parent, span, look, rest, tracks }) => [
        `${id} “${name}” in ${parent}, ${rounded(inFrames(span.in))} to ${rounded(inFrames(span.out))} f, ${JSON.stringify(look)}`,
        `  ${Object.entries(rest)
          .map(([channel, value]) => `${channel} ${rounded(value)}`)
          .join(', ')}`,
        ...Object.entries(tracks).map(([channel, keys]) => `  ${channel} ${keysText(keys ?? [])}`),
      ]),
    JSON.stringify(planned.counts),
    `${'uses' in (after.runs[0] ?? {}) ? 'uses' : 'uses nothing'} ${(after.runs[0]?.uses ?? []).map(({ kind, id, revision }) => `${kind} ${id} r${revision}`).join(', ')}`,
  ];
}

const whole = { x: 0.5, y: 0.5, width: 1, height: 1 };

const WAYS: Readonly<Record<string, Partial<MultiplyRecipe>>> = {
  'as they begin': {},
  'from their own places along a direction that strays': {
    begin: { by: 'own' },
    end: { by: 'direction', degrees: 30, distance: 0.25, stray: 20 },
  },
  'from a grid to an ellipse, drawn at random': {
    begin: { by: 'grid', columns: 2, ...whole },
    end: { by: 'spread', shape: 'ellipse', x: 0.25, y: 0.5, width: 0.5, height: 1 },
    sources: 'random',
    starts: 'random',
    life: { by: 'random', least: '10f', most: '30f' },
  },
  'a spread that leads on along a direction': {
    begin: { by: 'spread', shape: 'box', ...whole },
    end: { by: 'direction', degrees: 90, distance: 0.1, stray: 0 },
  },
  'places apart, until the scene’s end': {
    begin: { by: 'apart', gap: 120, ...whole },
    life: { by: 'rest' },
    from: { by: 'time', at: '10f' },
    to: { by: 'time', at: '60f' },
  },
  'along a line, larger, turned and fainter': {
    begin: { by: 'line', d: 'M100 100 L900 100 L900 400' },
    scale: { begin: [0.5, 1], end: [1, 2] },
    turn: { begin: [-45, 45], end: [90, 180] },
    opacity: { begin: [1, 1], end: [0, 0.5] },
    seeds: { place: 3, time: 4, look: 5 },
  },
  'in a ramp of colours': {
    colours: { colours: ['#000000', '#ffffff'].map((colour) => ({ colour, weight: 1 })), how: 'ramp', outlined: 0 },
  },
  'in colours by weight, half as outlines': {
    copies: 8,
    colours: {
      colours: ['#ff0000', '#00ff00', '#0000ff'].map((colour, i) => ({ colour, weight: i + 1 })),
      how: 'random',
      outlined: 0.5,
    },
  },
  'brought in and sent out by presets': {
    copies: 4,
    life: { by: 'fixed', length: '40f' },
    in: {
      presets: [
        { id: 'fade-in', weight: 1 },
        { id: 'rise-and-settle', weight: 2 },
      ],
      length: '8f',
    },
    out: { presets: [{ id: 'fade-out', weight: 1 }], length: '6f' },
  },
  'of a group with layers that live otherwise than it does': {
    pick: { by: 'rule', tag: 'group' },
    copies: 3,
    from: { by: 'time', at: '20f' },
    life: { by: 'random', least: '5f', most: '20f' },
  },
  'lives that are too short for both': {
    life: { by: 'fixed', length: '10f' },
    in: { presets: [{ id: 'fade-in', weight: 1 }], length: '8f' },
    out: { presets: [{ id: 'fade-out', weight: 1 }], length: '6f' },
  },
};

describe('copies', () => {
  test.each(Object.entries(WAYS))('%s', (_, more) => expect(linesOf(more)).toMatchSnapshot());
});

test('where copies begin and end is said by the part of the frame', () => {
  const spread = (x: number, y: number, width: number, height: number): string =>
    copyPlaceWords({ by: 'spread', shape: 'box', x, y, width, height });
  expect(spread(0.5, 0.5, 1, 1)).toBe('a spread over the whole frame');
  expect(spread(0.25, 0.5, 0.5, 1)).toBe('a spread over the left half');
  expect(spread(0.75, 0.5, 0.5, 1)).toBe('a spread over the right half');
  expect(spread(0.5, 0.25, 1, 0.5)).toBe('a spread over the upper half');
  expect(spread(0.5, 0.75, 1, 0.5)).toBe('a spread over the lower half');
  // As high as a half, yet not as wide as the frame, or beside its middle.
  expect(spread(0.5, 0.25, 0.6, 0.5)).toBe('a spread over 60 % by 50 % of the frame around 50 %, 25 %');
  expect(spread(0.4, 0.25, 1, 0.5)).toBe('a spread over 100 % by 50 % of the frame around 40 %, 25 %');
  expect(spread(0.25, 0.5, 0.5, 0.9)).toBe('a spread over 50 % by 90 % of the frame around 25 %, 50 %');
  expect(spread(0.25, 0.4, 0.5, 1)).toBe('a spread over 50 % by 100 % of the frame around 25 %, 40 %');
});
