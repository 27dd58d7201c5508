import { describe, expect, test } from '@jest/globals';
import { createRecipe, pictureWall, programmeBoard, type Layer, type Recipe, type Scene } from '@wexikine/core';
import { withOperation } from './first-recipe';

const board = programmeBoard();
const [like] = board.layers;
const left = new Map();

function layer(id: string, more: Partial<Layer> = {}): Layer {
  return { ...like, id, name: id, kind: 'card', parent: null, tags: ['one'], locked: false, hidden: false, ...more };
}

function sceneOf(layers: readonly Layer[]): Scene {
  return { ...board, layers: [...layers], runs: [] };
}

function turned(scene: Scene, operation: 'style' | 'multiply', tag = 'one'): Recipe | null {
  const recipe = createRecipe('bring-in', 'fade-in', { by: 'rule', tag });
  return withOperation(recipe, operation, { items: [], rigs: [], scene, playhead: '0:00', left });
}

describe('another verb over the same layers', () => {
  test('a style goes on from a colour that all of them have: the fill, and of pictures the border', () => {
    const filled = sceneOf([layer('a', { look: { fill: '#112233' } }), layer('b', { look: { fill: '#445566' } })]);
    expect(turned(filled, 'style')).toMatchObject({ parts: ['fill'], vary: { fill: { by: 'step' } } });
    expect(turned(pictureWall(), 'style', 'picture')).toMatchObject({
      parts: ['border'],
      vary: { border: { by: 'step' } },
    });
    const mixed = sceneOf([layer('a', { look: { fill: '#112233' } }), layer('b', { look: { tint: '#445566' } })]);
    expect(turned(mixed, 'style')).toMatchObject({ parts: ['fill'] });
  });

  test('copies are not copied again: what they were copied from is multiplied', () => {
    const source = layer('source', { tags: ['seed'] });
    const copies = ['a', 'b'].map((id) => layer(id, { copy: { of: 'source' } }));
    const pick = (scene: Scene, tag?: string) => turned(scene, 'multiply', tag)?.pick;
    expect(pick(sceneOf([source, ...copies]))).toEqual({ by: 'layers', layers: ['source'] });
    expect(pick(sceneOf([source, ...copies]), 'seed')).toEqual({ by: 'rule', tag: 'seed' });
    // A layer that is no copy is meant as it is, and a source that is gone cannot be.
    expect(pick(sceneOf([source, ...copies, layer('c')]))).toEqual({ by: 'rule', tag: 'one' });
    expect(pick(sceneOf(copies))).toEqual({ by: 'rule', tag: 'one' });
  });
});
