import { describe, expect, test } from '@jest/globals';
import type { Key, Layer } from '../../scene/layer';
import { card, key } from '../../testing/scenes';
import { findUnheld } from './held';

const whatOf = (more: Partial<Layer>): string | null => {
  const found = findUnheld([card('fine'), card('a', more)]);
  if (found === null) return null;
  expect(found).toMatchObject({ code: 'cannot-hold', layers: ['a'] });
  return found.code === 'cannot-hold' ? found.what : null;
};
const valued = (value: number): Partial<Layer> => ({ tracks: { 'position.x': [key(0, value)] } });
const swung = (leave: number, arrive: number): Partial<Layer> => {
  const ease: Key['ease'] = {
    type: 'handles',
    leave: { time: 0.3, value: leave },
    arrive: { time: 0.3, value: arrive },
  };
  return { tracks: { 'position.x': [{ ...key(0, 1), ease }, key(9, 1)] } };
};

describe('what a scene can hold', () => {
  test('are values up to a million million to either side, at rest and of handles a thousand million', () => {
    for (const sign of [1, -1]) {
      expect([whatOf(valued(sign * 1e12)), whatOf(valued(sign * 1.001e12))]).toEqual([null, 'value']);
      expect([whatOf({ rest: { rotation: sign * 1e9 } }), whatOf({ rest: { rotation: sign * 1.1e9 } })]).toEqual([
        null,
        'value',
      ]);
      expect([whatOf(swung(sign * 1e9, 0)), whatOf(swung(sign * 1.1e9, 0)), whatOf(swung(0, sign * 1.1e9))]).toEqual([
        null,
        'value',
        'value',
      ]);
    }
  });

  test('no number that is none, no time that is not held exactly, and no more keys than a track may have', () => {
    expect(whatOf(valued(NaN))).toBe('value');
    expect(whatOf({ span: { in: 0, out: 2 ** 53 } })).toBe('time');
    expect(whatOf({ tracks: { rotation: [{ ...key(0, 1), at: 0.5 }] } })).toBe('time');
    const keys = Array.from({ length: 100_001 }, (_, at) => ({ ...key(0, 1), at }));
    expect([whatOf({ tracks: { rotation: keys.slice(1) } }), whatOf({ tracks: { rotation: keys } })]).toEqual([
      null,
      'keys',
    ]);
  });
});
