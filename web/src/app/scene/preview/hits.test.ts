import { describe, expect, test } from '@jest/globals';
import { compileScene, frameAt, programmeBoard, type Layer, type Scene } from '@wexikine/core';
import { isInSelection, layersAt, layersTouching, outermost, topmostAt, type Sampled } from './hits';

const [model] = programmeBoard().layers;
const layer = (id: string, x: number, y: number, more: Partial<Layer> = {}): Layer => ({
  ...model,
  id,
  name: id,
  kind: 'card',
  parent: null,
  locked: false,
  hidden: false,
  span: { in: 0, out: 1_000 },
  rest: { 'position.x': x, 'position.y': y, 'size.x': 100, 'size.y': 60 },
  tracks: {},
  ...more,
});
const layers = [
  layer('ground', 500, 300, {
    locked: true,
    rest: { 'position.x': 500, 'position.y': 300, 'size.x': 1_000, 'size.y': 600 },
  }),
  layer('under', 200, 200),
  layer('over', 230, 210),
  layer('unseen', 230, 210, { hidden: true }),
  layer('later', 230, 210, { span: { in: 500, out: 1_000 } }),
  layer('group', 600, 400, { kind: 'group', source: { type: 'none' } }),
  layer('part', 40, 30, { parent: 'group' }),
  layer('deep', 0, 0, { parent: 'part' }),
];
const scene: Scene = { ...programmeBoard(), width: 1_000, height: 600, layers, runs: [] };

function sampled(): Sampled {
  const compiled = compileScene(scene);
  return { compiled, frame: frameAt(compiled, 100) };
}

describe('layers under the pointer', () => {
  test('are listed from the topmost to the one at the back, locked ones too, but none that is not seen now', () => {
    expect(layersAt(sampled(), { x: 220, y: 205 }).map(({ id }) => id)).toEqual(['over', 'under', 'ground']);
    expect(layersAt(sampled(), { x: -50, y: 0 })).toEqual([]);
  });

  test('a press means the topmost that is not locked, and of what is in a group, the group', () => {
    expect(topmostAt(sampled(), { x: 220, y: 205 })).toBe('over');
    expect(topmostAt(sampled(), { x: 160, y: 190 })).toBe('under');
    expect(topmostAt(sampled(), { x: 900, y: 50 })).toBeNull();
    expect(topmostAt(sampled(), { x: 590, y: 400 })).toBe('group');
  });

  test('a band takes what it touches, and no backdrop', () => {
    expect(layersTouching(sampled(), { left: 0, right: 190, top: 0, bottom: 190 })).toEqual(['under', 'over']);
    expect(layersTouching(sampled(), { left: 700, right: 720, top: 0, bottom: 20 })).toEqual([]);
  });

  test('what is in a selected group is selected with it, however deep', () => {
    const deep = layers[layers.length - 1];
    expect(isInSelection(layers, deep, new Set(['group']))).toBe(true);
    expect(isInSelection(layers, deep, new Set(['over']))).toBe(false);
    expect(outermost(layers, deep)).toBe('group');
    expect(outermost(layers, layers[1])).toBe('under');
  });
});
