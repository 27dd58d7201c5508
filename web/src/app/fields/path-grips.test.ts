import { describe, expect, test } from '@jest/globals';
import { nodesOfPath, pathOfNodes, type NodePath } from '@wexikine/core';
import { addsAfter, frameOf, gripName, gripsOf, moveGrip, placeOfGrip, ticksAlong, type PathGrip } from './path-grips';

/** A corner, a round point and a corner. */
const open: NodePath = nodesOfPath('M0 0 C20 0 80 -40 100 0 C120 40 180 60 200 60');
const closed: NodePath = { ...open, isClosed: true };
const names = (grips: readonly PathGrip[]): string[] => grips.map(({ kind, index }) => `${kind} ${index}`);

describe('what can be taken hold of on a line', () => {
  test('is every point, and the handles of the one that is selected', () => {
    expect(names(gripsOf(open, null))).toEqual(['node 0', 'node 1', 'node 2']);
    const grips = gripsOf(open, 1);
    expect(names(grips)).toEqual(['node 0', 'node 1', 'node 2', 'before 1', 'after 1']);
    expect(grips.slice(3).map(({ x, y }) => [x, y])).toEqual([
      [80, -40],
      [120, 40],
    ]);
    // An end has a handle to one side only; a point that is gone has none.
    expect(names(gripsOf(open, 0)).slice(3)).toEqual(['after 0']);
    expect(names(gripsOf(open, 7))).toEqual(['node 0', 'node 1', 'node 2']);
  });

  test('is called by its place on the line', () => {
    expect(gripsOf(open, 1).map((grip) => gripName(grip, open))).toEqual([
      'Point 1 of 3',
      'Point 2 of 3',
      'Point 3 of 3',
      'Handle before point 2',
      'Handle after point 2',
    ]);
  });

  test('stands where the line has it now, though it was drawn before', () => {
    const drawn: PathGrip = { kind: 'node', index: 1, x: 7, y: 7 };
    expect(placeOfGrip(open, drawn)).toMatchObject({ x: 100, y: 0 });
    expect(placeOfGrip(open, { ...drawn, kind: 'before' })).toEqual({ x: 80, y: -40 });
    expect(placeOfGrip(open, { ...drawn, kind: 'before', index: 0 })).toMatchObject({ x: 7, y: 7 });
    expect(placeOfGrip(open, { ...drawn, index: 9 })).toMatchObject({ x: 7, y: 7 });
  });
});

describe('a line with something of it moved', () => {
  test('takes the handles of a point along, and leaves the others', () => {
    const [, grip] = gripsOf(open, null);
    expect(pathOfNodes(moveGrip(open, grip, { x: 110, y: 5 }, false))).toBe(
      'M0 0 C20 0 90 -35 110 5 C130 45 180 60 200 60',
    );
    expect(moveGrip(open, { ...grip, index: 9 }, { x: 1, y: 1 }, false)).toBe(open);
  });

  test('turns the handle across along, and not where the two are split', () => {
    const after: PathGrip = { kind: 'after', index: 1, x: 120, y: 40 };
    const split = moveGrip(open, after, { x: 150, y: 0 }, true).nodes[1];
    expect(split).toMatchObject({ before: { x: 80, y: -40 }, after: { x: 150, y: 0 } });
    const joined = moveGrip(open, after, { x: 150, y: 0 }, false).nodes[1];
    expect(joined.after).toEqual({ x: 150, y: 0 });
    expect(joined.before?.y).toBeCloseTo(0, 9);
    expect(joined.before?.x).toBeLessThan(100);
  });

  test('gets a new point after the selected one; an open line before its last', () => {
    expect([null, 0, 1, 2].map((selected) => addsAfter(open, selected))).toEqual([0, 0, 1, 1]);
    expect([null, 0, 1, 2].map((selected) => addsAfter(closed, selected))).toEqual([0, 0, 1, 2]);
  });
});

describe('the picture of a line', () => {
  test('has marks at even distances', () => {
    expect(ticksAlong('M0 0 L90 0 L90 30', 4).map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([
      [0, 0],
      [30, 0],
      [60, 0],
      [90, 0],
      [90, 30],
    ]);
    expect(ticksAlong('M5 5 L105 5')).toHaveLength(13);
    expect(ticksAlong('M5 5')).toEqual([]);
  });

  test('shows all of it, its handles and its place of rest, with room around', () => {
    // 0 to 400 across, −100 to 300 down, a sixth and a little less of it to every side.
    const wide = frameOf(nodesOfPath('M100 -100 L400 -100 L400 300'));
    expect([wide.left, wide.top, wide.width, wide.height].map(Math.round)).toEqual([-64, -164, 528, 528]);
    const swung = frameOf(nodesOfPath('M0 0 C0 -500 200 0 200 0'));
    expect(swung.top).toBeLessThan(-500);
    expect(frameOf(nodesOfPath('M0 0 L10 0'))).toEqual({
      left: expect.closeTo(-25.6, 9),
      top: expect.closeTo(-15.36, 9),
      width: expect.closeTo(211.2, 9),
      height: expect.closeTo(126.72, 9),
    });
  });
});
