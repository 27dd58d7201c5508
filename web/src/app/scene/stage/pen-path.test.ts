import { describe, expect, test } from '@jest/globals';
import { boundsOfNodes, pathOfNodes, programmeBoard } from '@wexikine/core';
import { drawnPath } from './new-shapes';
import { closes, penPath, straightened, withCorner, withRound, type PenNodes } from './pen-path';

const at = (x: number, y: number) => ({ x, y });
const corners: PenNodes = [at(100, 100), at(300, 100), at(300, 250)].reduce(withCorner, [] as PenNodes);

describe('a path that is drawn', () => {
  test('has corners where one presses, and round points where one drags', () => {
    expect(pathOfNodes({ nodes: corners, isClosed: true })).toBe('M100 100 L300 100 L300 250 L100 100 Z');
    const round = withRound(corners, at(300, 310));
    expect(round[2]).toEqual({ x: 300, y: 250, before: at(300, 190), after: at(300, 310) });
    expect(withRound([], at(0, 0))).toEqual([]);
  });

  test('is closed at its first point once it has three, and shows its next line meanwhile', () => {
    expect(closes(corners, at(104, 97), 9)).toBe(true);
    expect(closes(corners, at(120, 100), 9)).toBe(false);
    expect(closes(corners.slice(0, 2), at(100, 100), 9)).toBe(false);
    expect(penPath(corners, at(0, 0), false).nodes).toHaveLength(4);
    expect(penPath(corners, at(100, 100), true)).toEqual({ nodes: corners, isClosed: true });
  });

  test('is kept to eighths of a turn with Shift', () => {
    expect(straightened(at(0, 0), at(100, 4))).toEqual({ x: expect.closeTo(100.08, 2), y: expect.closeTo(0, 9) });
    const { x, y } = straightened(at(10, 10), at(70, 60));
    expect(x - 10).toBeCloseTo(y - 10, 9);
  });

  test('becomes a layer that lies where it was drawn: filled where it is closed, else a line', () => {
    const scene = programmeBoard();
    const closed = drawnPath(scene, { nodes: withRound(corners, at(300, 310)), isClosed: true }, 'p');
    const box = boundsOfNodes({ nodes: withRound(corners, at(300, 310)), isClosed: true });
    if (!closed || !box) throw new Error('no layer');
    expect(closed.rest).toMatchObject({
      'position.x': (box.left + box.right) / 2,
      'position.y': (box.top + box.bottom) / 2,
      'size.x': box.right - box.left,
      'size.y': box.bottom - box.top,
    });
    expect(closed).toMatchObject({ name: 'Path 1', look: { fill: expect.any(String) } });
    const open = drawnPath(scene, { nodes: corners.slice(0, 2), isClosed: false }, 'l');
    expect(open).toMatchObject({
      look: { stroke: expect.any(String) },
      rest: { 'size.y': 1, 'stroke.width': 6 },
      source: { d: 'M0 0 L100 0' },
    });
    expect(drawnPath(scene, { nodes: corners.slice(0, 1), isClosed: false }, 'x')).toBeNull();
  });
});
