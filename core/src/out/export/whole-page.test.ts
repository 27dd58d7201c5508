import { describe, expect, test } from '@jest/globals';
import type { Easing } from '../../basics/easing';
import { ticksFromSeconds } from '../../basics/time';
import type { Layer, Mask } from '../../scene/layer';
import { sceneSchema } from '../../scene/scene';
import { card, key, sceneOf } from '../../testing/scenes';
import { exportPage, exportSceneJson } from '.';

/**
 * What stands in pages, held as it is: that the browser draws such layers as the painter does is tried in
 * `e2e/tests/export-page.spec.ts` and `mixing.spec.ts`. What is written otherwise is to be looked at there before it is taken
 * over with `npm run unit -- whole-page -u`.
 */
const PICTURE = `files/${'a'.repeat(64)}.png`;
const SOUND = `files/${'b'.repeat(64)}.mp3`;
const CLIP = `files/${'d'.repeat(64)}.mp4`;
const FONT = `files/${'c'.repeat(64)}.woff2`;

const EASES: readonly Easing[] = [
  { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 },
  { type: 'hold' },
  { type: 'steps', count: 4, jump: 'end' },
  { type: 'spring', damping: 0.4, within: 0.01 },
  { type: 'linear' },
];

const mask = (more: Partial<Mask>): Mask => ({
  ...{ shape: 'rectangle', how: 'add', x: 0.5, y: 0.5, width: 0.8, height: 0.6, turn: 20, soft: 0 },
  ...more,
});

const word = {
  type: 'text',
  text: 'Tide & moon\n<two>',
  font: 'Spline Sans',
  weight: 600,
  size: 36,
  align: 'middle',
} as const;

/** Layers by what they show of a page. */
const LAYERS: Readonly<Record<string, readonly Layer[]>> = {
  'plain, hidden, of a part of the time and one without a name of its own': [
    card('plain', { name: 'Plain & "quoted"' }),
    card('hidden', { hidden: true }),
    card('late', { span: { in: ticksFromSeconds(1), out: ticksFromSeconds(3.5) } }),
    card('guide', { kind: 'guide' }),
    card('none', { source: { type: 'none' } }),
  ],
  'keys with every easing': [
    card('eased', {
      tracks: {
        'position.x': EASES.map((ease, i) => key(i * 12, i * 40, ease)),
        rotation: [key(0, 0, EASES[0]), key(30, 90)],
        opacity: [
          key(0, 0, {
            type: 'points',
            points: [
              { input: 0, output: 0 },
              { input: 0.4, output: 1.2 },
              { input: 1, output: 1 },
            ],
          }),
          key(9, 1),
        ],
      },
    }),
  ],
  'gradients, borders, shadows, glow and tint': [
    card('angle', {
      look: {
        fill: { from: '#f3c98b', to: '#30418f', angle: 30 },
        border: { colour: '#102030', to: '#ffffff', angle: 45, side: 'outside' },
      },
      rest: { ...card('x').rest, 'border.width': 8, corner: 12 },
    }),
    card('stops', {
      source: { type: 'path', d: 'M0 0 H100 V100 H0 Z M30 20 H70 V80 H30 Z' },
      look: {
        rule: 'evenodd',
        fill: {
          kind: 'radial',
          stops: [
            { at: 0, colour: '#ffffff' },
            { at: 1, colour: '#00000080' },
          ],
          map: [1, 0, 0, 1, 0, 0],
        },
      },
    }),
    card('crossed', {
      source: { type: 'path', d: 'M0 0 L100 100 L0 100 L100 0 Z' },
      look: { rule: 'evenodd', fill: '#123456' },
    }),
    card('deep', {
      look: {
        fill: '#30418f',
        shadow: '#e05577',
        shadows: [{ colour: '#58b79c', x: -20, y: 10, blur: 6 }],
        inner: '#000000',
        glow: '#ffe9a8',
        tint: '#58b79c',
        border: { colour: '#f3c98b', side: 'on', dash: [4, 2] },
      },
      rest: {
        ...card('x').rest,
        'shadow.x': 4,
        'shadow.y': 5,
        'shadow.blur': 6,
        'shadow.opacity': 0.5,
        'inner.x': 1,
        'inner.y': 2,
        'inner.blur': 3,
        'inner.opacity': 0.4,
        'glow.size': 9,
        'glow.opacity': 0.7,
        'tint.amount': 0.3,
        'border.width': 3,
      },
      tracks: { 'shadow.x': [key(0, 0), key(20, 9)], 'glow.size': [key(0, 0), key(20, 9)] },
    }),
    card('round', {
      source: { type: 'ellipse' },
      look: { fill: '#ff0000', border: { colour: '#f3c98b', side: 'inside' } },
      rest: { ...card('x').rest, 'border.width': 2 },
    }),
  ],
  'strokes, drawn in part and dashed': [
    card('drawn', {
      source: { type: 'path', d: 'M0 50 C30 -20 70 120 100 50' },
      look: { stroke: '#58b79c', cap: 'butt', join: 'bevel' },
      rest: { ...card('x').rest, 'stroke.width': 6 },
      tracks: { 'stroke.end': [key(0, 0), key(25, 1)], 'size.x': [key(0, 50), key(25, 100)] },
    }),
    card('dashed', {
      source: { type: 'ellipse' },
      look: { stroke: '#112233', dash: [12, 4, 2], join: 'miter', cap: 'square' },
      rest: { ...card('x').rest, 'stroke.width': 3 },
    }),
  ],
  'words, their number and their caret': [
    card('word', {
      kind: 'word',
      source: word,
      look: { fill: '#f3c98b', shadow: '#e05577' },
      rest: { ...card('x').rest, letterSpacing: 3 },
    }),
    card('right', {
      kind: 'word',
      source: { ...word, align: 'right', lineHeight: 1.5, wordSpacing: 4 },
      look: { fill: { from: '#ffffff', to: '#000000', angle: 0 } },
    }),
    card('own', {
      kind: 'word',
      source: { ...word, font: 'Heron', fontFile: FONT, axes: { wdth: 90 } },
      look: { fill: '#fff' },
    }),
    card('counted', {
      kind: 'word',
      source: { ...word, text: 'up “#”', number: { decimals: 1, point: ',', group: '.' }, caret: '|' },
      tracks: { 'words.number': [key(0, 0), key(25, 1_234.5)], 'words.shown': [key(0, 0), key(25, 1)] },
    }),
  ],
  'pictures, sounds, groups and masks': [
    card('picture', {
      kind: 'picture',
      source: { type: 'picture', href: PICTURE, width: 400, height: 300 },
      look: {},
      rest: { ...card('x').rest, 'crop.x': 0.6, 'crop.zoom': 1.5, corner: 8 },
    }),
    card('half-sized', {
      kind: 'picture',
      source: { type: 'picture', href: `files/${'f'.repeat(64)}.png`, width: 400 },
    }),
    card('sound', {
      kind: 'sound',
      source: { type: 'sound', href: SOUND, from: ticksFromSeconds(0.5), length: ticksFromSeconds(30), gain: 1.5 },
    }),
    card('silent', {
      kind: 'sound',
      hidden: true,
      source: { type: 'sound', href: SOUND, from: 0, length: ticksFromSeconds(30), gain: 0.25 },
    }),
    card('group', {
      kind: 'group',
      source: { type: 'none' },
      look: { blend: 'multiply' },
      rest: { ...card('x').rest, opacity: 0.5, blur: 3 },
    }),
    card('inside', { parent: 'group', look: { fill: '#000000', blend: 'screen' } }),
    card('masked', {
      parent: 'group',
      look: {
        fill: '#ffffff',
        masks: [
          mask({}),
          mask({ shape: 'ellipse', how: 'take', soft: 8 }),
          mask({ shape: 'polygon', corners: 5, how: 'overlap' }),
          mask({ shape: 'path', d: 'M0 0 L100 0 L50 100 Z' }),
        ],
      },
    }),
    card('grown', {
      look: { fill: '#ffffff', masks: [mask({ turn: 0 })] },
      tracks: { 'mask.scale': [key(0, 0), key(20, 1)] },
    }),
  ],
  'clips, outlines that change their shape, and words of many or no colours': [
    card('clip', {
      kind: 'picture',
      span: { in: ticksFromSeconds(1), out: ticksFromSeconds(4) },
      source: {
        type: 'clip',
        href: CLIP,
        width: 640,
        height: 360,
        from: ticksFromSeconds(0.5),
        length: ticksFromSeconds(2),
        pace: 1.5,
        loops: true,
      },
    }),
    card('once', {
      kind: 'picture',
      source: {
        type: 'clip',
        href: `files/${'e'.repeat(64)}.webm`,
        width: 64,
        height: 36,
        from: 0,
        length: ticksFromSeconds(2),
        pace: 1,
      },
    }),
    card('grows', {
      source: { type: 'path', d: 'M0 0 H100 V100 H0 Z M30 20 H70 V80 H30 Z' },
      look: { rule: 'evenodd', fill: { from: '#f3c98b', to: '#30418f', angle: 90 } },
      tracks: { 'size.x': [key(0, 100), key(2, 200)] },
    }),
    card('cut', {
      source: { type: 'path', d: 'M0 0 L100 0 L50 100 Z' },
      look: { fill: { from: '#ffffff', to: '#000000', angle: 0 } },
    }),
    card('filled', {
      source: { type: 'path', d: 'M0 0 L100 0 L50 100 Z' },
      look: { fill: '#123456' },
      tracks: { 'size.y': [key(5, 50), key(7, 100)] },
    }),
    card('many', {
      look: {
        fill: {
          kind: 'linear',
          stops: [
            { at: 0.25, colour: '#ffffff' },
            { at: 1, colour: '#00000080' },
          ],
          map: [2, 0.5, 0, 1, 0.1, 0],
        },
      },
    }),
    card('stopped', {
      kind: 'word',
      source: word,
      look: {
        fill: {
          kind: 'linear',
          stops: [
            { at: 0, colour: '#aabbcc' },
            { at: 1, colour: '#000000' },
          ],
          map: [1, 0, 0, 1, 0, 0],
        },
      },
    }),
    card('black', { kind: 'word', source: word, look: {} }),
    card('bare', { look: {} }),
    card('keyed', { tracks: { rotation: [key(30, 45)] } }),
    card('early', { span: { in: 0, out: ticksFromSeconds(2) } }),
  ],
  'channels of colour, blur and depth': [
    card('coloured', {
      look: { fill: '#aa3355', stroke: '#225588', two: { dark: '#102030', light: '#f0e0d0' } },
      rest: {
        ...card('x').rest,
        'colour.hue': 30,
        'colour.brightness': 1.2,
        'colour.two': 0.5,
        blur: 2,
        skew: 10,
        'scale.x': 1.2,
        'anchor.x': 0.2,
      },
      tracks: {
        'fill.a': [key(0, 0), key(20, 90)],
        'fill.l': [key(0, 0), key(20, 0.1)],
        'colour.grey': [key(0, 0), key(20, 1)],
      },
    }),
    card('along', {
      path: { d: 'M0 0 C50 -80 120 80 200 0', turns: true },
      tracks: { 'path.distance': [key(0, 0), key(40, 1)] },
    }),
  ],
};

const EMPTY = new Set(exportPage(sceneOf([])).split('\n'));

describe('a whole page', () => {
  test('without layers', () => {
    expect([...EMPTY]).toMatchSnapshot();
  });

  test.each(Object.entries(LAYERS))('of %s', (_, layers) => {
    const scene = sceneOf(layers);
    expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
    const page = exportPage(scene, {
      fontFaces: '/* fonts */',
      embedded: new Map([
        [PICTURE, 'data:image/png;base64,AAAA'],
        [CLIP, 'data:video/mp4;base64,CCCC'],
        [FONT, 'data:font/woff2;base64,BBBB'],
      ]),
    });
    // What every page has alike is looked at once, in the empty one.
    expect(page.split('\n').filter((line) => !EMPTY.has(line))).toMatchSnapshot();
  });

  test('as JSON has the names of every object in order', () => {
    expect(exportSceneJson(sceneOf(LAYERS['keys with every easing'])).split('\n')).toMatchSnapshot();
  });
});
