import { describe, expect, test } from '@jest/globals';
import { easingText } from '../../basics/easing';
import { frameTicks } from '../../basics/time';
import { STARTER_LIBRARY } from '../../library/starter';
import type { Key, Layer } from '../../scene/layer';
import { createRecipe, type PresetRecipe } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import { planOn } from '../../testing/planning';
import { card, inFrames, key, PAL, sceneOf } from '../../testing/scenes';
import { describeFinding } from '../finding';
import { operationFor } from './plan-preset';

/**
 * What runs make, as it was when laws, closed forms and the screens said that it is right: what comes out otherwise is to be
 * understood before it is taken over with `npm run unit -- whole-plans -u`.
 */
const FRAME = frameTicks(PAL);
const rest = (x: number, y: number, more: object = {}): Layer['rest'] => ({
  'position.x': x,
  'position.y': y,
  'size.x': 200,
  'size.y': 80,
  ...more,
});

const SCENE: Scene = {
  ...sceneOf([
    card('a', { rest: rest(150, 100), data: { row: 'one', weight: 3, start: '1:00' } }),
    card('b', {
      rest: rest(520, 240, { rotation: 10, 'scale.x': 1.5, opacity: 0.6 }),
      data: { row: 'two', weight: 1 },
    }),
    card('c', {
      rest: rest(860, 380, { 'size.x': 60 }),
      span: { in: 20 * FRAME, out: 140 * FRAME },
      look: { fill: '#30418f', stroke: '#ffffff' },
      tracks: { 'position.x': [key(30, 860), key(60, 900)], opacity: [key(30, 1), key(60, 0.5)] },
      data: { row: 'one', weight: 'much' },
    }),
  ]),
  cues: [
    { id: 'cue-1', name: 'One', at: 12 * FRAME },
    { id: 'cue-2', name: 'Two', at: 40 * FRAME },
  ] as never,
};

const WORDS: Partial<Layer> = {
  kind: 'word',
  source: {
    type: 'text',
    text: 'Tide # moon',
    font: 'Spline Sans',
    weight: 500,
    size: 40,
    align: 'left',
    number: { decimals: 0, point: '.', group: '' },
  },
};

function keyText({ at, value, ease, by }: Key): string {
  return `${inFrames(at)}: ${Number(value.toFixed(4))} ${easingText(ease)} ${by?.slot ?? 'standing'}`;
}

/** A plan in lines: what was found, when each layer moves, and its keys. */
function linesOf(scene: Scene, recipe: Partial<PresetRecipe>): string[] {
  const { layers, findings, edits } = planOn(scene, recipe);
  const tracks = edits.flatMap((edit) => (edit.type === 'set-track' ? [edit] : []));
  return [
    ...findings.map((finding) => `! ${describeFinding(finding, scene)}`),
    ...layers.flatMap(({ layer, place, starts, lasts, moments }) => [
      `${layer}, place ${place}: ${inFrames(starts)} f, lasts ${Number(inFrames(lasts).toFixed(3))} f, ${moments.map((at) => Number(inFrames(at).toFixed(3))).join(' ')}`,
      ...tracks
        .filter((edit) => edit.layer === layer)
        .flatMap(({ channel, keys }) => [
          `  ${channel}`,
          ...(keys ?? []).slice(0, 12).map((one) => `    ${keyText(one)}`),
        ]),
    ]),
  ];
}

describe('every preset that comes with the application', () => {
  const presets = STARTER_LIBRARY.flatMap((item) => (item.kind === 'preset' ? [item] : []));
  test.each(presets.map((item) => [item.id, item] as const))('%s', (id, { body }) => {
    const isOfWords = /type|count|letters/.test(id);
    const scene = isOfWords ? { ...SCENE, layers: SCENE.layers.map((layer) => ({ ...layer, ...WORDS })) } : SCENE;
    const recipe = createRecipe(operationFor(body.phase), id, { by: 'rule', kind: isOfWords ? 'word' : 'card' });
    expect(linesOf(scene, recipe)).toMatchSnapshot();
  });
});

const soft = { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 } as const;

/** Fields of the sentence, each in other ways. */
const FIELDS: Readonly<Record<string, Partial<PresetRecipe>>> = {
  'from the layer, 3 frames apart': { start: { by: 'layer' }, spacing: { by: 'gap', gap: '3f' } },
  'from a time, spread over a time along a curve': {
    start: { by: 'time', at: '0:10' },
    spacing: { by: 'total', total: '1s', curve: soft },
  },
  'from a cue, one after the other, overlapping': {
    start: { by: 'cue', cue: 'Two' },
    spacing: { by: 'relay', gap: '-4f' },
  },
  'such that the last ends at a time': { start: { by: 'finish', at: '3s' }, spacing: { by: 'gap', gap: '5f' } },
  'with a gap that ends at a time': { start: { by: 'time', at: '0' }, spacing: { by: 'finish', at: '3s' } },
  'on cues, beginning again': { spacing: { by: 'cues', wrap: true } },
  'in rows that take turns': { spacing: { by: 'rows', rows: 2, apart: '4f', hold: '1s' } },
  'a fixed length': { length: { by: 'fixed', length: '1s' } },
  'half as long': { length: { by: 'factor', factor: 0.5 } },
  'fitted into a time': { length: { by: 'fit', window: '2s' }, spacing: { by: 'gap', gap: '3f' } },
  'as long as the way is': { length: { by: 'speed', speed: 90 } },
  'lengths that are drawn': { length: { by: 'random', from: '10f', to: '30f', seed: 5 } },
  'a length that ends at a time': { start: { by: 'time', at: '0' }, length: { by: 'finish', at: '3s' } },
  'by name, reversed': { order: { by: 'name', reversed: true } },
  'across, two as one': { order: { by: 'across', blocks: 2 } },
  'along an angle': { order: { by: 'angle', degrees: 120 } },
  'out from a point': { order: { by: 'out-from', x: 0.9, y: 0.9 } },
  'as a grid, snaking': { order: { by: 'grid', lead: 'columns', snaking: true } },
  'by in point': { order: { by: 'in-point', reversed: true } },
  shuffled: { order: { by: 'shuffled', seed: 3 } },
  'by data, where one has no number': { order: { by: 'data', column: 'weight' } },
  'by hand': { order: { by: 'hand', layers: ['c', 'a'] } },
  'values in turns': { parameters: { rise: { by: 'cycle', values: ['10px', '20px'] } } },
  'values along the order': { parameters: { rise: { by: 'ramp', from: '10px', to: '90px', curve: soft } } },
  'values that are drawn': {
    parameters: { rise: { by: 'random', from: '10px', to: '90px', seed: 4, spread: 'normal' } },
  },
  'values of data, where one has none': { parameters: { rise: { by: 'data', column: 'weight' } } },
  'a formula of what is known of a layer': {
    parameters: { rise: { by: 'fixed', value: 'count × 3px + place × 1px' } },
  },
  'values set by hand': {
    overrides: { b: { start: '0:20', length: '12f', parameters: { rise: '33px' } } },
  },
  'layers that move': { moves: 'layers' },
  'added to what is there': { existing: 'add' },
  'what is there left alone': { existing: 'leave' },
  'what is there replaced': { existing: 'replace' },
  'in place of the channels’ keys': { existing: 'replace-channels' },
};

describe('every field of a sentence', () => {
  test.each(Object.entries(FIELDS))('%s', (_, fields) => {
    const spaced: Partial<PresetRecipe> = { spacing: { by: 'gap', gap: '2f' } };
    const plain = createRecipe('bring-in', 'rise-and-settle', { by: 'rule', kind: 'card' });
    expect(linesOf(SCENE, { ...plain, ...spaced, ...fields })).toMatchSnapshot();
  });
});
