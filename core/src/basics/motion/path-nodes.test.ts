import { describe, expect, test } from '@jest/globals';
import {
  boundsOfNodes,
  createEvenPath,
  mapNodes,
  movedNode,
  nodesOfPath,
  pathFromStart,
  pathOfNodes,
  pathPoint,
  pathScaled,
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

  test('is closed where it says so, not where its ends only meet', () => {
    const there = { x: 0, y: 0 };
    const open = nodesOfPath('M0 0 L90 0 L90 90 L0 0');
    expect([open.isClosed, open.nodes.length]).toEqual([false, 4]);
    expect(open.nodes[3]).toMatchObject(there);
    const closed = nodesOfPath('M0 0 L90 0 L90 90 Z');
    expect([closed.isClosed, closed.nodes.length]).toEqual([true, 3]);
  });

  test('a stretch with a handle on one side alone is a curve, one without any a line', () => {
    const [start, end] = [
      { x: 0, y: 0, before: null, after: null },
      { x: 9, y: 3, before: null, after: null },
    ];
    const text = (a: object, b: object): string =>
      pathOfNodes({
        nodes: [
          { ...start, ...a },
          { ...end, ...b },
        ],
        isClosed: false,
      });
    expect(text({}, {})).toBe('M0 0 L9 3');
    expect(text({ after: { x: 2, y: -0.001 } }, {})).toBe('M0 0 C2 0 9 3 9 3');
    expect(text({}, { before: { x: 1, y: 5.006 } })).toBe('M0 0 C0 0 1 5.01 9 3');
  });

  test('a point added in between changes nothing of the line', () => {
    const path = nodesOfPath('M0 0 C100 0 100 100 200 100 L300 50');
    for (const index of [0, 1]) {
      const more = withNodeAfter(path, index);
      expect(more.nodes).toHaveLength(4);
      close(placesOn(pathOfNodes(more)), placesOn(pathOfNodes(path)));
    }
    // Where only one of its ends has a handle, too.
    const [from, to] = [path.nodes[0], { ...path.nodes[1], before: null, after: null }];
    for (const nodes of [
      [from, to],
      [{ ...from, after: null }, path.nodes[1]],
    ]) {
      const one = { nodes, isClosed: false };
      close(placesOn(pathOfNodes(withNodeAfter(one, 0))), placesOn(pathOfNodes(one)));
    }
    expect(withNodeAfter(path, 2)).toEqual(path);
    for (const nowhere of [-1, 3]) expect(withNodeAfter(path, nowhere)).toEqual(path);
  });

  test('a point added to a straight line has no handles, and one to a closed line lies on its last stretch', () => {
    const square = nodesOfPath('M0 0 H10 V10 H0 Z');
    const more = withNodeAfter(square, 3);
    expect(more.nodes[4]).toEqual({ x: 0, y: 5, before: null, after: null });
    expect(more.isClosed).toBe(true);
    // De Casteljau's division of one cubic in its middle, by hand.
    const [, middle] = withNodeAfter(nodesOfPath('M0 0 C0 80 80 80 80 0'), 0).nodes;
    expect(middle).toEqual({ x: 40, y: 60, before: { x: 20, y: 60 }, after: { x: 60, y: 60 } });
  });

  test('lies in the box that its line reaches, not its handles; none without points', () => {
    expect(boundsOfNodes(nodesOfPath('M0 0 C0 80 80 80 80 0'))).toEqual({ left: 0, top: 0, right: 80, bottom: 60 });
    expect(boundsOfNodes(nodesOfPath('M5 6 L-4 9'))).toEqual({ left: -4, top: 6, right: 5, bottom: 9 });
    const closing = nodesOfPath('M0 0 L10 0 C10 40 0 40 0 0 Z');
    expect(boundsOfNodes(closing)).toEqual({ left: 0, top: 0, right: 10, bottom: 30 });
    expect(boundsOfNodes({ nodes: [], isClosed: true })).toBeNull();
  });

  test('begins where it is told to, and becomes larger about its origin, handles too', () => {
    expect(pathFromStart('M10 20 C10 30 20 30 20 20')).toBe('M0 0 C0 10 10 10 10 0');
    expect(pathScaled('M1 2 C1 3 2 3 2 2', 3)).toBe('M3 6 C3 9 6 9 6 6');
    for (const change of [pathFromStart, (d: string) => pathScaled(d, 2)]) expect(change('nonsense')).toBe('nonsense');
    const flipped = mapNodes(nodesOfPath('M1 2 C1 3 2 3 2 2'), ({ x, y }) => ({ x: y, y: x }));
    expect(pathOfNodes(flipped)).toBe('M2 1 C3 1 3 2 2 2');
  });

  test('handles turn together unless they are split, and move with their point', () => {
    const [, node] = nodesOfPath('M0 0 C30 0 70 0 100 0 C130 0 170 20 200 0').nodes;
    const turned = withHandle(node, 'before', { x: 100, y: 40 }, false);
    expect(turned.after).toEqual({ x: 100, y: -30 });
    expect(withHandle(node, 'before', { x: 100, y: 40 }, true).after).toEqual(node.after);
    expect(withHandle(node, 'after', { x: 100, y: 20 }, false).before).toEqual({ x: 100, y: -30 });
    expect(withHandle(node, 'before', { x: 60, y: 30 }, false).after).toEqual({ x: 124, y: -18 });
    const onIt = withHandle(node, 'before', { x: 100, y: 0 }, false);
    expect(onIt).toEqual({ ...node, before: { x: 100, y: 0 } });
    const [first] = nodesOfPath('M0 0 C30 0 70 0 100 20').nodes;
    expect(withHandle(first, 'after', { x: 5, y: 5 }, false)).toEqual({ ...first, after: { x: 5, y: 5 } });
    expect(movedNode(node, 5, -5)).toMatchObject({ x: 105, y: -5, before: { x: 75, y: -5 }, after: { x: 135, y: -5 } });
  });

  test('a corner becomes round and a corner again; two points are always left', () => {
    const path = nodesOfPath('M0 0 L60 0 L60 60');
    const round = withTurnedCorner(path, 1);
    expect(round.nodes[1].before).toEqual({ x: 50, y: -10 });
    expect(withTurnedCorner(round, 1)).toEqual(path);
    expect(withTurnedCorner(path, 0).nodes[0].after).toEqual({ x: 10, y: 0 });
    expect(withTurnedCorner(path, 2).nodes[2]).toMatchObject({ before: { x: 60, y: 50 }, after: { x: 60, y: 70 } });
    expect(withTurnedCorner(path, 3)).toEqual(path);
    // A point with a handle on one side alone is round, too.
    for (const side of ['before', 'after'] as const) {
      const nodes = path.nodes.with(1, { ...path.nodes[1], [side]: { x: 1, y: 2 } });
      expect(withTurnedCorner({ ...path, nodes }, 1)).toEqual(path);
    }
    const square = nodesOfPath('M0 0 H60 V60 H0 Z');
    expect(withTurnedCorner(square, 0).nodes[0].after).toEqual({ x: 10, y: -10 });
    expect(withTurnedCorner(square, 3).nodes[3].after).toEqual({ x: -10, y: 50 });
    expect(withoutNode(withoutNode(square, 0), 0)).toMatchObject({ isClosed: false });
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
