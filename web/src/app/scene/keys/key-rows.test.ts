import { describe, expect, test } from '@jest/globals';
import { programmeBoard, type HandPicks, type Layer, type Scene } from '@wexikine/core';
import { allKeys, inverted, keyRows, keysIn, nearest, pickedTimes, reached, withKeys } from './key-rows';

const board = programmeBoard();

function keyed(name: string, start: number): Layer {
  const key = (at: number, value: number) => ({ at, value, ease: { type: 'linear' as const } });
  return {
    ...board.layers[0],
    id: name,
    name,
    tracks: { opacity: [key(start, 0), key(start + 10, 1)], rotation: [key(start, 5)] },
  };
}

const scene: Scene = {
  ...board,
  layers: [keyed('a', 0), { ...board.layers[0], id: 'bare', tracks: {} }, keyed('b', 4)],
};
const rows = keyRows(scene, null, new Set());

function count(picks: HandPicks): number {
  return [...picks.values()].flatMap((own) => [...own.values()].flatMap((times) => [...times])).length;
}

describe('rows of keys', () => {
  test('layers without keys are left out, closed ones have one row, and only those that take part may be shown', () => {
    expect(rows.map(({ id }) => id)).toEqual(['a', 'a rotation', 'a opacity', 'b', 'b rotation', 'b opacity']);
    expect(keyRows(scene, null, new Set(['a'])).map(({ id }) => id)).toEqual(['a', 'b', 'b rotation', 'b opacity']);
    expect(keyRows(scene, new Set(['b']), new Set()).every(({ layer }) => layer.id === 'b')).toBe(true);
  });

  test('a press means a key, its moment on all layers, or that and everything later', () => {
    const [head, rotation] = rows;
    expect(reached(rotation, 0, 'key', rows)).toEqual([['a', 'rotation', 0]]);
    expect(reached(head, 0, 'moment', rows)).toHaveLength(4);
    expect(reached(head, 0, 'later', rows)).toHaveLength(6);
    expect(reached(head, 10, 'moment', rows)).toEqual([
      ['a', 'opacity', 10],
      ['b', 'opacity', 14],
    ]);
  });

  test('keys are picked, taken out again, and turned round', () => {
    const one = withKeys(new Map(), keysIn(rows[0], 0, 0));
    expect(count(one)).toBe(2);
    expect([...pickedTimes(rows[0], one)]).toEqual([0]);
    expect(count(withKeys(one, keysIn(rows[1], 0, 0), true))).toBe(1);
    expect(count(inverted(one, rows))).toBe(allKeys(rows).length - 2);
    expect(withKeys(one, keysIn(rows[0], 0, 0), true).size).toBe(0);
  });

  test('the nearest time counts within reach only', () => {
    expect(nearest([3, 9, 20], 11, 5)).toBe(9);
    expect(nearest([3, 9, 20], 15, 4)).toBeNull();
  });
});
