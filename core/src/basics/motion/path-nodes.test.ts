import { describe, expect, test } from '@jest/globals';
import {
  createEvenPath,
  movedNode,
  nodesOfPath,
  pathOfNodes,
  pathPoint,
  READY_PATHS,
  withHandle,
  withNodeAfter,
  withoutNode,
  withTurnedCorner,
} from '.';

function placesOn(d: string): number[] {
  const path = createEvenPath(d);
  if (!path) throw new Error('no path');
  return Array.from({ length: 21 }, (_, i) => pathPoint(path, (path.length * i) / 20)).flatMap(({ x, y }) => [x, y]);
}

function close(a: readonly number[], b: readonly number[], digits = 1): void {
  a.forEach((value, i) => expect(value).toBeCloseTo(b[i], digits));
}

describe('a path by its points', () => {
  test.each(READY_PATHS.map(({ name, d }) => [name, d] as const))('%s is the same line when written again', (_, d) => {
    close(placesOn(pathOfNodes(nodesOfPath(d))), placesOn(d));
  });

  test('a point added in between changes nothing of the line', () => {
    const path = nodesOfPath('M0 0 C100 0 100 100 200 100 L300 50');
    for (const index of [0, 1]) {
      const more = withNodeAfter(path, index);
      expect(more.nodes).toHaveLength(4);
      close(placesOn(pathOfNodes(more)), placesOn(pathOfNodes(path)));
    }
    expect(withNodeAfter(path, 2)).toEqual(path);
  });

  test('handles turn together unless they are split, and move with their point', () => {
    const [, node] = nodesOfPath('M0 0 C30 0 70 0 100 0 C130 0 170 20 200 0').nodes;
    const turned = withHandle(node, 'before', { x: 100, y: 40 }, false);
    expect(turned.after).toEqual({ x: 100, y: -30 });
    expect(withHandle(node, 'before', { x: 100, y: 40 }, true).after).toEqual(node.after);
    expect(movedNode(node, 5, -5)).toMatchObject({ x: 105, y: -5, after: { x: 135, y: -5 } });
  });

  test('a corner becomes round and a corner again; two points are always left', () => {
    const path = nodesOfPath('M0 0 L60 0 L60 60');
    const round = withTurnedCorner(path, 1);
    expect(round.nodes[1].before).toEqual({ x: 50, y: -10 });
    expect(withTurnedCorner(round, 1)).toEqual(path);
    const line = withoutNode(path, 1);
    expect(pathOfNodes(line)).toBe('M0 0 L60 60');
    expect(withoutNode(line, 0)).toEqual(line);
  });

  test('a closed line stays closed, and what is no path has no points', () => {
    const square = nodesOfPath('M0 0 H10 V10 H0 Z');
    expect([square.nodes.length, square.isClosed]).toEqual([4, true]);
    expect(pathOfNodes(square)).toBe('M0 0 L10 0 L10 10 L0 10 L0 0 Z');
    expect(nodesOfPath('nonsense').nodes).toEqual([]);
    expect(pathOfNodes({ nodes: [], isClosed: false })).toBe('');
  });
});
