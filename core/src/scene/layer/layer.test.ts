import { describe, expect, test } from '@jest/globals';
import { card, key } from '../../testing/scenes';
import { isSame, keyTimes, layerSchema, restValue, restValues, shiftLayer, trackSchema, withKeys } from '.';
import { CHANNEL_COUNT, channelOf } from '../../basics/channel';

const layer = card('a', {
  rest: { 'position.x': 7, opacity: 0 },
  look: { fill: { from: '#ff0000', to: '#0000ff', angle: 0 } },
  tracks: { opacity: [key(0, 0), key(5, 1)], rotation: [key(5, 3)] },
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
    const all = restValues(layer);
    expect(all).toHaveLength(CHANNEL_COUNT);
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
