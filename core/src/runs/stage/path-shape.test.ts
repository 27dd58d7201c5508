import { describe, expect, test } from '@jest/globals';
import { mapNodes } from '../../basics/motion';
import { transformPoint } from '../../basics/transform';
import type { Layer } from '../../scene/layer';
import { compileScene, matrixAt, restFrame } from '../../scene/sample';
import { edited } from '../../testing/planning';
import { card, key, sceneOf } from '../../testing/scenes';
import { pathShape, reshapedPath } from '.';
import { boxedPath } from './path-shape';

const layer = card('p', {
  source: { type: 'path', d: 'M0 0 L100 0 C100 50 60 100 0 100 Z' },
  rest: {
    'position.x': 400,
    'position.y': 300,
    'size.x': 200,
    'size.y': 120,
    rotation: 30,
    'scale.x': 1.5,
    'anchor.x': 0.25,
  },
  tracks: { 'position.x': [key(0, 100), key(10, 400)] },
});

/** Where the points of a layer's outline are on screen. */
function places(of: Layer): (readonly [number, number])[] {
  const matrix = matrixAt(restFrame(compileScene({ layers: [of] })), 0);
  return (pathShape(of)?.nodes ?? []).map((node) => {
    const { x, y } = transformPoint(matrix, node);
    return [x, y];
  });
}

describe('the outline of a layer by its points', () => {
  test('may be a line of two points; one alone is none', () => {
    const line = {
      nodes: [
        { x: 10, y: 20 },
        { x: 60, y: 20 },
      ].map((at) => ({ ...at, before: null, after: null })),
      isClosed: false,
    };
    expect(boxedPath(line)).toEqual({ d: 'M0 0 L100 0', left: 10, top: 20, width: 50, height: 1 });
    expect(boxedPath({ ...line, nodes: line.nodes.slice(0, 1) })).toBeNull();
    expect(boxedPath({ ...line, nodes: [] })).toBeNull();
  });

  test('a point that is moved takes the box along; all others stay where they are on screen', () => {
    const shape = pathShape(layer);
    if (!shape) throw new Error('no shape');
    const moved = { ...shape, nodes: shape.nodes.map((node, i) => (i === 0 ? { ...node, x: -60, y: -35 } : node)) };
    const [after] = edited(sceneOf([layer]), reshapedPath(layer, moved)).layers;
    const [was, is] = [places(layer), places(after)];
    for (const i of [1, 2]) was[i].forEach((value, at) => expect(is[i][at]).toBeCloseTo(value, 2));
    const matrix = matrixAt(restFrame(compileScene({ layers: [layer] })), 0);
    const wanted = transformPoint(matrix, { x: -60, y: -35 });
    expect(is[0][0]).toBeCloseTo(wanted.x, 2);
    expect(is[0][1]).toBeCloseTo(wanted.y, 2);
    expect(after.rest['size.x']).toBeCloseTo(260, 6);
    // Keys go along by as much as the rest pose.
    const by = (after.rest['position.x'] ?? 0) - 400;
    expect(after.tracks['position.x']?.map(({ value }) => value)).toEqual([
      expect.closeTo(100 + by, 6),
      expect.closeTo(400 + by, 6),
    ]);
  });

  test('the same points are no change, and shapes of several lines are not taken apart', () => {
    const shape = pathShape(layer);
    if (!shape) throw new Error('no shape');
    const [after] = edited(
      sceneOf([layer]),
      reshapedPath(
        layer,
        mapNodes(shape, (place) => place),
      ),
    ).layers;
    expect(after.rest['position.x']).toBeCloseTo(400, 6);
    expect(after.rest['size.x']).toBeCloseTo(200, 6);
    expect(pathShape({ ...layer, source: { type: 'path', d: 'M0 0 L9 9 M20 20 L30 30' } })).toBeNull();
    expect(pathShape(card('c'))).toBeNull();
    expect(reshapedPath(layer, { nodes: [], isClosed: false })).toEqual([]);
  });

  test('has two hundred points at most, so that each can be grasped', () => {
    const zigzag = (count: number): Layer['source'] => {
      const points = Array.from({ length: count }, (_, i) => `${i} ${(i % 2) * 10}`);
      return { type: 'path', d: `M${points.join('L')}` };
    };
    expect(pathShape({ ...layer, source: zigzag(200) })?.nodes).toHaveLength(200);
    expect(pathShape({ ...layer, source: zigzag(201) })).toBeNull();
    expect(pathShape({ ...layer, source: zigzag(2) })?.nodes).toHaveLength(2);
  });
});
