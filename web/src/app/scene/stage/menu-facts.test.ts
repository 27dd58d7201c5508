import { describe, expect, test } from '@jest/globals';
import { programmeBoard, type Layer, type Scene } from '@wexikine/core';
import { newShape } from './new-shapes';
import { flipsOf, isOneGroup, splitsOf } from './menu-facts';

const board = programmeBoard();
const group = board.layers.find(({ kind }) => kind === 'group') as Layer;
const inside = board.layers.find(({ parent }) => parent === group.id) as Layer;

function withLayer(change: Partial<Layer>): { scene: Scene; ids: ReadonlySet<string> } {
  const layer: Layer = { ...inside, ...change, id: 'own', parent: null };
  return { scene: { ...board, layers: [...board.layers, layer] }, ids: new Set(['own']) };
}

describe('what the menu of the stage offers', () => {
  test('a group is taken apart where nothing else is selected', () => {
    expect(isOneGroup(board, new Set([group.id]))).toBe(true);
    expect(isOneGroup(board, new Set([inside.id]))).toBe(false);
    expect(isOneGroup(board, new Set([group.id, inside.id]))).toBe(false);
    expect(isOneGroup(board, new Set())).toBe(false);
  });

  test('one layer is split or joined, by what it shows', () => {
    const splits = (change: Partial<Layer>) => {
      const { scene, ids } = withLayer(change);
      return splitsOf(scene, ids);
    };
    expect(splits(newShape(board, 'words', { x: 0, y: 0 }, 'own'))).toBe('words');
    expect(splits({ source: { type: 'rectangle' } })).toBe('box');
    expect(splits({ source: { type: 'ellipse' } })).toBeNull();
    expect(splitsOf(board, new Set(board.layers.map(({ id }) => id)))).toBeNull();
    expect(splitsOf(board, new Set(['gone']))).toBeNull();
  });

  test('what holds other layers is not offered to become a guide; an empty group and all else is', () => {
    const flips = (ids: readonly string[], scene = board) => flipsOf(scene, new Set(ids)).map((one) => one.flips);
    expect(flips([group.id])).toEqual(['locked', 'hidden', 'others']);
    expect(flips([inside.id, group.id])).toEqual(['locked', 'hidden', 'others']);
    expect(flips([inside.id])).toEqual(['locked', 'hidden', 'others', 'guide']);
    const { scene, ids } = withLayer({ kind: 'group' });
    expect(flips([...ids], scene)).toContain('guide');
  });
});
