import { describe, expect, test } from '@jest/globals';
import {
  apply,
  programmeBoard,
  stageMoment,
  type Layer,
  type Point,
  type Scene,
  type StageMoment,
} from '@wexikine/core';
import {
  CORNERS,
  dragStage,
  isWithin,
  pivotOf,
  selectionCorners,
  SIDES,
  type Held,
  type StageGrip,
} from './stage-drag';

const board = programmeBoard();

function card(id: string, x: number, y: number, rotation = 0): Layer {
  const rest = { 'position.x': x, 'position.y': y, 'size.x': 200, 'size.y': 100, rotation };
  return {
    ...board.layers[0],
    id,
    name: id,
    kind: 'card',
    parent: null,
    locked: false,
    hidden: false,
    tracks: {},
    rest,
  };
}

const scene: Scene = {
  ...board,
  width: 1920,
  height: 1080,
  runs: [],
  layers: [card('a', 400, 300), card('b', 900, 700, 90), card('c', 1500, 300)],
};
const moment = stageMoment(scene, 'along', 0);
const NONE: Held = { shiftKey: false, ctrlKey: false, metaKey: false, altKey: false };

function dragged(ids: readonly string[], grip: StageGrip, from: Point, to: Point, held: Partial<Held> = {}) {
  const result = dragStage(moment, new Set(ids), grip, from, to, { ...NONE, ...held }, 8);
  const next = apply(scene, result.edits);
  if (!next.ok) throw new Error(next.problem.code);
  return {
    ...result,
    rest: (id: string) => next.scene.layers.find((layer) => layer.id === id)?.rest ?? {},
    scene: next.scene,
  };
}

function corners(ids: readonly string[], on: StageMoment = moment): Point[] {
  return selectionCorners(on, new Set(ids));
}

describe('what is selected on the stage', () => {
  test('has its own corners, or those of a box around many, and turns about its anchor or their middle', () => {
    const turned = corners(['b']);
    expect(turned[0].x).toBeCloseTo(950, 6);
    expect(turned[0].y).toBeCloseTo(600, 6);
    expect(pivotOf(moment, new Set(['b']))).toMatchObject({ x: 900, y: 700 });
    expect(corners(['a', 'c'])).toEqual([
      { x: 300, y: 250 },
      { x: 1600, y: 250 },
      { x: 1600, y: 350 },
      { x: 300, y: 350 },
    ]);
    expect(pivotOf(moment, new Set(['a', 'c']))).toEqual({ x: 950, y: 300 });
    expect(corners(['nobody'])).toEqual([]);
  });

  test('is taken hold of within its corners, however it is turned', () => {
    expect(isWithin({ x: 900, y: 700 }, corners(['b']))).toBe(true);
    expect(isWithin({ x: 990, y: 700 }, corners(['b']))).toBe(false);
    expect(isWithin({ x: 310, y: 255 }, [...corners(['a'])].reverse())).toBe(true);
    expect(isWithin({ x: 0, y: 0 }, [])).toBe(false);
  });
});

describe('dragging on the stage', () => {
  test('moves by whole pixels, straight with Shift, and says where it comes to', () => {
    const free = dragged(['a'], { does: 'move' }, { x: 400, y: 300 }, { x: 471.4, y: 323.6 });
    expect([free.rest('a')['position.x'], free.rest('a')['position.y']]).toEqual([471, 324]);
    expect(free.words).toBe('x 471  y 324');
    expect(free.label).toBe('Move “a”');
    const straight = dragged(['a'], { does: 'move' }, { x: 0, y: 0 }, { x: 71, y: 23 }, { shiftKey: true });
    expect(straight.rest('a')['position.y']).toBe(300);
  });

  test('snaps to the lines of other layers and the frame, and not with Ctrl', () => {
    const to = { x: 400, y: 396 };
    const near = dragged(['a'], { does: 'move' }, { x: 400, y: 0 }, { ...to, y: 397 - 300 - 94 });
    expect(near.lines).toContainEqual({ way: 'y', at: 300, of: 'layer' });
    expect(near.rest('a')['position.y']).toBe(300);
    const middle = dragged(['a'], { does: 'move' }, { x: 400, y: 0 }, { x: 957, y: 40 });
    expect(middle.rest('a')['position.x']).toBe(960);
    const free = dragged(['a'], { does: 'move' }, { x: 400, y: 0 }, { x: 955, y: 40 }, { ctrlKey: true });
    expect([free.rest('a')['position.x'], free.lines]).toEqual([955, []]);
  });

  test('several move together, told by how far', () => {
    const both = dragged(['a', 'c'], { does: 'move' }, { x: 0, y: 0 }, { x: -30, y: 57 });
    expect(both.words).toBe('−30, +57 px');
    expect([both.rest('a')['position.x'], both.rest('c')['position.x']]).toEqual([370, 1470]);
  });

  test('turns about the anchor, with Shift by steps of 15°, the short way round', () => {
    const turned = dragged(['a'], { does: 'turn' }, { x: 400, y: 200 }, { x: 500, y: 300 });
    expect([turned.rest('a').rotation, turned.words]).toEqual([90, '+90°']);
    const stepped = dragged(['a'], { does: 'turn' }, { x: 400, y: 200 }, { x: 380, y: 203 }, { shiftKey: true });
    expect(stepped.rest('a').rotation).toBe(-15);
    const across = dragged(['a'], { does: 'turn' }, { x: 300, y: 299 }, { x: 300, y: 301 });
    expect(Math.abs(across.rest('a').rotation ?? 0)).toBeLessThan(3);
  });

  test('scales from the other corner, from the anchor with Alt, freely with Shift', () => {
    const grip: StageGrip = { does: 'scale', corner: CORNERS[2] };
    const scaled = dragged(['a'], grip, { x: 500, y: 350 }, { x: 700, y: 450 });
    expect([scaled.rest('a')['scale.x'], scaled.rest('a')['scale.y'], scaled.words]).toEqual([2, 2, '200 %']);
    const kept = corners(['a'], stageMoment(scaled.scene, 'along', 0));
    expect(kept[0]).toEqual({ x: 300, y: 250 });
    const anchored = dragged(['a'], grip, { x: 500, y: 350 }, { x: 600, y: 400 }, { altKey: true });
    expect([anchored.rest('a')['position.x'], anchored.rest('a')['scale.x']]).toEqual([400, 2]);
    const freely = dragged(['a'], grip, { x: 500, y: 350 }, { x: 600, y: 350 }, { shiftKey: true });
    expect([freely.rest('a')['scale.x'], freely.rest('a')['scale.y'], freely.words]).toEqual([1.5, 1, '150 × 100 %']);
    expect(corners(['a'], stageMoment(freely.scene, 'along', 0))[0]).toEqual({ x: 300, y: 250 });
    const both = dragged(['a', 'c'], grip, { x: 1600, y: 350 }, { x: 950, y: 300 });
    expect([both.rest('a')['scale.x'], both.rest('c')['position.x']]).toEqual([0.5, 900]);
  });

  test('a side scales or resizes one way, from the other side or the anchor, both ways with Shift; of many there is none', () => {
    const right: StageGrip = { does: 'side', side: SIDES[1] };
    const wider = dragged(['a'], right, { x: 500, y: 300 }, { x: 600, y: 333 });
    expect([wider.rest('a')['scale.x'], wider.rest('a')['scale.y'], wider.words]).toEqual([1.5, 1, '150 × 100 %']);
    expect(corners(['a'], stageMoment(wider.scene, 'along', 0))).toEqual([
      { x: 300, y: 250 },
      { x: 600, y: 250 },
      { x: 600, y: 350 },
      { x: 300, y: 350 },
    ]);
    const anchored = dragged(['a'], right, { x: 500, y: 300 }, { x: 600, y: 300 }, { altKey: true });
    expect([anchored.rest('a')['position.x'], anchored.rest('a')['scale.x']]).toEqual([400, 2]);
    const lower = dragged(
      ['a'],
      { does: 'side', side: SIDES[2] },
      { x: 400, y: 350 },
      { x: 380, y: 400 },
      { shiftKey: true },
    );
    expect([lower.rest('a')['scale.x'], lower.rest('a')['scale.y']]).toEqual([1.5, 1.5]);
    // The middle of the upper side stays.
    const [a, b] = corners(['a'], stageMoment(lower.scene, 'along', 0));
    expect([(a.x + b.x) / 2, a.y]).toEqual([400, 250]);
    const upper: StageGrip = { does: 'side', side: SIDES[0] };
    const ways = { corners: 'size', grid: null } as const;
    const sized = dragStage(moment, new Set(['a']), upper, { x: 400, y: 250 }, { x: 400, y: 200 }, NONE, 0, ways);
    expect([sized.label, sized.words]).toEqual(['Resize “a”', '200 × 150 px']);
    expect(dragStage(moment, new Set(['a', 'c']), right, { x: 0, y: 0 }, { x: 9, y: 9 }, NONE, 0, ways).edits).toEqual(
      [],
    );
  });
});
