import { describe, expect, test } from '@jest/globals';
import { compileScene, frameAt, programmeBoard, type Layer, type Scene } from '@wexikine/core';
import { isOnLayer, type PathTester } from './shape-hits';
import { isInSelection, layersAt, layersTouching, outermost, topmostAt, type Sampled, type Touches } from './hits';

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

/** A path that is filled below its diagonal, and its line along it. */
const DIAGONAL: PathTester = {
  fills: (_d, { x, y }) => y > x,
  strokes: (_d, { x, y }, width) => Math.abs(x - y) / Math.SQRT2 <= width / 2,
};
const touches: Touches = (one, index, point) => isOnLayer(sampled(), one, index, point, 2, DIAGONAL);

describe('layers under the pointer', () => {
  test('are listed from the topmost to the one at the back, locked ones too, but none that is not seen now', () => {
    expect(layersAt(sampled(), { x: 220, y: 205 }, touches).map(({ id }) => id)).toEqual(['over', 'under', 'ground']);
    expect(layersAt(sampled(), { x: -50, y: 0 }, touches)).toEqual([]);
  });

  test('a press means the topmost that is not locked, and of what is in a group, the group', () => {
    expect(topmostAt(sampled(), { x: 220, y: 205 }, touches)).toBe('over');
    expect(topmostAt(sampled(), { x: 160, y: 190 }, touches)).toBe('under');
    expect(topmostAt(sampled(), { x: 900, y: 50 }, touches)).toBeNull();
    expect(topmostAt(sampled(), { x: 590, y: 400 }, touches)).toBe('group');
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

describe('a point on a layer', () => {
  const on = (more: Partial<Layer>, x: number, y: number): boolean => {
    const one = layer('one', 200, 200, more);
    const compiled = compileScene({ ...scene, layers: [one] });
    return isOnLayer({ frame: frameAt(compiled, 100) }, one, 0, { x, y }, 2, DIAGONAL);
  };
  const turned = { rest: { 'position.x': 200, 'position.y': 200, 'size.x': 100, 'size.y': 60, rotation: 45 } };

  test('is within its box as it is turned, not within what is upright around that', () => {
    expect(on(turned, 200, 200)).toBe(true);
    expect(on(turned, 230, 230)).toBe(true);
    expect(on(turned, 245, 160)).toBe(false);
  });

  test('is within an ellipse, and not in the corners around it', () => {
    const ellipse = { source: { type: 'ellipse' } } as const;
    expect(on(ellipse, 200, 228)).toBe(true);
    expect(on(ellipse, 155, 175)).toBe(false);
  });

  test('is where a path is filled, or on its line and a little beside it', () => {
    const path = { source: { type: 'path', d: 'M0 0 L100 100 L0 100 Z' } } as const;
    expect(on({ ...path, look: { fill: '#fff' } }, 160, 225)).toBe(true);
    expect(on({ ...path, look: { fill: '#fff' } }, 240, 180)).toBe(false);
    expect(on({ ...path, look: { stroke: '#fff' } }, 160, 225)).toBe(false);
    expect(on({ ...path, look: { stroke: '#fff' } }, 162, 183)).toBe(true);
  });
});
