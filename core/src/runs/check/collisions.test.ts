import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Box } from '../../basics/transform';
import { Collisions } from './collisions';

const always = (): boolean => true;

function box(left: number, top: number, width: number, height: number): Box {
  return { left, top, right: left + width, bottom: top + height };
}

/** The share of the smaller box by which two reach into each other, from what the word means. */
function into(a: Box, b: Box): number {
  const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
  const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
  if (across <= 0 || down <= 0) return 0;
  const [wide, high] = [(of: Box) => of.right - of.left, (of: Box) => of.bottom - of.top];
  return Math.min(across / Math.min(wide(a), wide(b)), down / Math.min(high(a), high(b)));
}

/** Every pair in every frame, and nothing left out. */
function slowly(rests: readonly Box[], frames: readonly (readonly (Box | null)[])[], apart: readonly number[]) {
  const found = new Set<number>();
  let first: number | null = null;
  frames.forEach((boxes, time) =>
    boxes.forEach((a, i) =>
      boxes.forEach((b, j) => {
        if (j <= i || !a || !b || into(a, b) < 0.15 || into(rests[i], rests[j]) > 0) return;
        if (apart.includes(i) && apart.includes(j)) return;
        found.add(i).add(j);
        first ??= time;
      }),
    ),
  );
  return { found: [...found].sort((a, b) => a - b), first };
}

function swept(rests: readonly Box[], frames: readonly (readonly (Box | null)[])[], apart: readonly number[]) {
  const collisions = new Collisions(rests, (a, b) => !(apart.includes(a) && apart.includes(b)));
  let first: number | null = null;
  frames.forEach((boxes, time) => {
    boxes.forEach((one, index) => collisions.place(index, one));
    if (collisions.look()) first ??= time;
  });
  return { found: collisions.found, first };
}

const place = fc.integer({ min: 0, max: 60 });
const side = fc.integer({ min: 1, max: 20 });
const boxes = fc.tuple(place, place, side, side).map((sides) => box(...sides));

describe('layers that run into each other', () => {
  test('are those that comparing every pair in every frame finds, from the same frame on', () => {
    const count = fc.integer({ min: 2, max: 9 });
    const run = count.chain((n) =>
      fc.record({
        rests: fc.array(boxes, { minLength: n, maxLength: n }),
        frames: fc.array(fc.array(fc.option(boxes), { minLength: n, maxLength: n }), { minLength: 1, maxLength: 6 }),
        apart: fc.subarray(Array.from({ length: n }, (_, i) => i)),
      }),
    );
    fc.assert(
      fc.property(run, ({ rests, frames, apart }) => {
        expect(swept(rests, frames, apart)).toEqual(slowly(rests, frames, apart));
      }),
      { numRuns: 600 },
    );
  });

  test('count from 15 % of the smaller one on, and not where they lie on each other at rest', () => {
    const rests = [box(0, 0, 20, 20), box(100, 0, 20, 20), box(10, 0, 20, 20)];
    const met = (...now: Box[]) => {
      const collisions = new Collisions(rests, always);
      now.forEach((one, index) => collisions.place(index, one));
      return [collisions.look(), collisions.found];
    };
    expect(met(box(0, 0, 20, 20), box(17.1, 0, 20, 20))).toEqual([false, []]);
    expect(met(box(0, 0, 20, 20), box(17, 0, 20, 20))).toEqual([true, [0, 1]]);
    expect(met(box(0, 0, 20, 20), box(100, 0, 20, 20), box(0, 0, 20, 20))).toEqual([false, []]);
  });

  test('are told as new once', () => {
    const collisions = new Collisions([box(0, 0, 20, 20), box(100, 0, 20, 20)], always);
    const at = [0, 1].map((index) => () => collisions.place(index, box(0, 0, 20, 20)));
    at.forEach((put) => put());
    expect([collisions.look(), collisions.look()]).toEqual([true, false]);
    expect(collisions.found).toEqual([0, 1]);
  });
});
