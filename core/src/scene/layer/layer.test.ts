import { describe, expect, test } from '@jest/globals';
import { card, key } from '../../testing/scenes';
import {
  dataPartsBetween,
  filesOf,
  isSame,
  isSeen,
  keyTimes,
  LAYER_KINDS,
  layerSchema,
  restValue,
  shiftLayer,
  trackSchema,
  undrawnMattes,
  withDataParts,
  withKeys,
  writeRestValues,
} from '.';
import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { oklabFromCss } from '../../basics/colour';

const layer = card('a', {
  rest: { 'position.x': 7, opacity: 0 },
  look: { fill: { from: '#ff0000', to: '#0000ff', angle: 0 } },
  tracks: { opacity: [key(0, 0), key(5, 1)], rotation: [key(5, 3)] },
});

test('mattes are not drawn themselves unless it is said', () => {
  const through = (layer: string, isShown: boolean) => ({
    look: { matte: { layer, how: 'reveals', isShown } as const },
  });
  expect([...undrawnMattes([through('a', false), { look: {} }, through('b', true), through('c', false)])]).toEqual([
    'a',
    'c',
  ]);
});

describe('files of a layer', () => {
  test('are those that it shows and those that it is masked by, with its runs and without, each once', () => {
    const file = (letter: string, ending: string): string => `files/${letter.repeat(64)}.${ending}`;
    const mask = { how: 'add', x: 0.5, y: 0.5, width: 1, height: 1, turn: 0, soft: 0 } as const;
    const by = (href: string) => ({ ...mask, shape: 'picture', picture: { href, by: 'brightness' } }) as const;
    const words = { text: 'Hi', font: 'Own', fontFile: file('c', 'woff2'), weight: 400 };
    const masked = card('m', {
      source: { type: 'picture', href: file('a', 'png') },
      look: { masks: [by(file('b', 'png')), { ...mask, shape: 'words', words }, by(file('a', 'png'))] },
      base: { look: { masks: [by(file('d', 'jpg'))] } },
    });
    expect(layerSchema.safeParse(masked).error?.issues ?? []).toEqual([]);
    expect(filesOf(masked).map((name) => `${name[0]}.${name.split('.')[1]}`)).toEqual([
      'a.png',
      'b.png',
      'c.woff2',
      'd.jpg',
    ]);
    expect(filesOf(layer)).toEqual([]);
    expect(layerSchema.safeParse({ ...masked, look: { masks: [{ ...mask, shape: 'words' }] } }).success).toBe(false);
  });
});

describe('a layer', () => {
  test('has stated rest values, also those of nothing; else its colours and the channels’ defaults', () => {
    expect([restValue(layer, 'position.x'), restValue(layer, 'opacity'), restValue(layer, 'scale.x')]).toEqual([
      7, 0, 1,
    ]);
    // Red in OKLab. Source: B. Ottosson, "A perceptual color space for image processing", 2020.
    expect(restValue(layer, 'fill.l')).toBeCloseTo(0.628, 3);
    expect(restValue(layer, 'fill.a')).toBeCloseTo(0.2249, 3);
    expect(restValue(layer, 'stroke.l')).toBe(channelOf('stroke.l').default);
    const all = new Float64Array(CHANNEL_COUNT);
    writeRestValues(layer, oklabFromCss, all, 0);
    for (const id of ['position.x', 'opacity', 'scale.x', 'fill.l', 'fill.b'] as const) {
      expect(all[channelOf(id).slot]).toBe(restValue(layer, id));
    }
  });

  test('is moved in time with all its keys and its span', () => {
    const later = shiftLayer(layer, 10);
    expect([later.span.in, later.span.out]).toEqual([layer.span.in + 10, layer.span.out + 10]);
    expect(keyTimes(later)).toEqual(keyTimes(layer).map((at) => at + 10));
    expect(shiftLayer(layer, 0)).toBe(layer);
  });

  test('has each time of its keys once, in order', () => {
    expect(keyTimes(layer)).toEqual([0, key(5, 0).at]);
  });

  test('loses a channel with its last key', () => {
    expect(Object.keys(withKeys(layer.tracks, 'opacity', []))).toEqual(['rotation']);
  });

  test('is refused with keys out of order, two at one time, or an end before its beginning', () => {
    expect(
      [[key(1, 0), key(1, 1)], [key(2, 0), key(1, 1)], []].some((keys) => trackSchema.safeParse(keys).success),
    ).toBe(false);
    expect(layerSchema.safeParse({ ...layer, span: { in: 5, out: 5 } }).success).toBe(false);
  });
});

test('things are the same in every part or they are not', () => {
  expect(isSame({ a: [1, { b: 2 }] }, { a: [1, { b: 2 }] })).toBe(true);
  expect(isSame({ a: 1 }, { a: 1, b: undefined })).toBe(false);
  expect([isSame([1], [1, 2]), isSame(null, {}), isSame(NaN, 1), isSame('1', 1)]).toEqual([false, false, false, false]);
});

describe('parts of a row of data', () => {
  test('set cells and take them away; without any the row is the same', () => {
    const data = { name: 'Moon', place: 3 };
    expect(withDataParts(data, { place: 4, room: 'B' })).toEqual({ name: 'Moon', place: 4, room: 'B' });
    expect(withDataParts(data, { place: null })).toStrictEqual({ name: 'Moon' });
    expect(withDataParts(data, {})).toBe(data);
    expect(withDataParts(data, undefined)).toBe(data);
    const to = { name: 'Moon', room: 'B' };
    expect(withDataParts(data, dataPartsBetween(data, to))).toEqual(to);
    expect(dataPartsBetween(data, { ...data })).toEqual({});
  });
});

test('all kinds of layers are seen but guides and sounds', () => {
  const seen = LAYER_KINDS.filter((kind) => isSeen({ ...layer, kind }));
  expect(seen).toEqual(LAYER_KINDS.filter((kind) => !['guide', 'sound'].includes(kind)));
  expect(LAYER_KINDS).toEqual(expect.arrayContaining(['guide', 'sound', 'card', 'group']));
});
