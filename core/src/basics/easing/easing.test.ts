import { describe, expect, test } from '@jest/globals';
import bezierEasing from 'bezier-easing';
import { easePolyInOut, easeQuadIn } from 'd3-ease';
import fc from 'fast-check';
import {
  asBezier,
  createCubicBezier,
  createLinearFunction,
  createProgress,
  createSteps,
  easingFromStrengths,
  easingSchema,
  formatEasing,
  LINEAR,
  parseEasing,
  scaledEasing,
  solveBezier,
  unitCubic,
  type Easing,
} from '.';
import { easeOfHandles } from './handles';

const share = fc.double({ min: 0, max: 1, noNaN: true });
const height = fc.double({ min: -2, max: 3, noNaN: true });
const bezier = fc.record({ x1: share, y1: height, x2: share, y2: height });

describe('cubic-bezier', () => {
  test('solves x to 1e-9 and better on any curve', () => {
    fc.assert(
      fc.property(share, share, share, (x, x1, x2) => {
        const u = solveBezier(x, x1, x2);
        expect(u).toBeGreaterThanOrEqual(0);
        expect(u).toBeLessThanOrEqual(1);
        expect(Math.abs(unitCubic(x1, x2, u) - x)).toBeLessThan(1e-9);
      }),
    );
  });

  // CSS Easing Functions 1: beyond its ends it goes on along the line to the first control point that is elsewhere (from memory).
  test.each([
    [{ x1: 0.5, y1: 0.25, x2: 0.6, y2: 0.8 }, -0.5, 1 + 0.5],
    [{ x1: 0, y1: 0, x2: 0.5, y2: 0.75 }, -1.5, 1 + 0.5],
    [{ x1: 0.25, y1: 0.5, x2: 1, y2: 1 }, -2, 1 + 0.5 / 0.75],
    [{ x1: 0, y1: 0, x2: 0, y2: 0 }, -1, 1 + 1],
    [{ x1: 1, y1: 1, x2: 1, y2: 1 }, -1, 1 + 1],
    [{ x1: 0, y1: 0.5, x2: 1, y2: 0.5 }, 0, 1],
    [{ x1: 0, y1: 0.5, x2: 0.5, y2: 0.5 }, 0, 1 + 1],
  ])('%j goes on beyond its ends along its tangents', (points, before, after) => {
    const at = createCubicBezier(points);
    expect(at(-1)).toBeCloseTo(before, 12);
    expect(at(2)).toBeCloseTo(after, 12);
  });

  test('agrees with the package bezier-easing as far as that is exact', () => {
    fc.assert(
      fc.property(bezier, share, (points, x) => {
        fc.pre(points.x1 > 0.05 && points.x2 < 0.95);
        const other = bezierEasing(points.x1, points.y1, points.x2, points.y2);
        expect(Math.abs(createCubicBezier(points)(x) - other(x))).toBeLessThan(5e-4);
      }),
    );
  });

  test('a Bézier with the polynomial’s own control points is the polynomial of d3-ease', () => {
    // x = u for x1 = 1/3, x2 = 2/3, and y = u² for y1 = 0, y2 = 1/3 (Bernstein form, common practice).
    const quad = createCubicBezier({ x1: 1 / 3, y1: 0, x2: 2 / 3, y2: 1 / 3 });
    for (let x = 0; x <= 1; x += 0.05) expect(quad(x)).toBeCloseTo(easeQuadIn(x), 12);
    const straight = createCubicBezier({ x1: 1 / 3, y1: 1 / 3, x2: 2 / 3, y2: 2 / 3 });
    expect(straight(0.3)).toBeCloseTo(easePolyInOut.exponent(1)(0.3), 12);
  });

  test('ends are exact, and beyond them the tangents go on (CSS Easing Functions 1)', () => {
    const ease = createCubicBezier({ x1: 0.25, y1: 0.5, x2: 0.5, y2: 0.9 });
    expect([ease(0), ease(1)]).toEqual([0, 1]);
    expect(ease(-0.5)).toBeCloseTo(-1, 12);
    expect(ease(2)).toBeCloseTo(1 + 0.2, 12);
  });

  test('strengths 0 give a straight line and 1 the strongest swing', () => {
    expect(easingFromStrengths(0, 0)).toEqual({ type: 'bezier', x1: 0, y1: 0, x2: 1, y2: 1 });
    expect(easingFromStrengths(0.4, 0.3)).toEqual({ type: 'bezier', x1: 0.4, y1: 0, x2: 0.7, y2: 1 });
  });
});

describe('steps and linear()', () => {
  // Values from the definition in CSS Easing Functions 1, section 2.4.
  test.each([
    [4, 'end', 0.3, 0.25],
    [4, 'start', 0.3, 0.5],
    [3, 'none', 0.5, 0.5],
    [3, 'both', 0.5, 0.5],
    [4, 'end', 1, 1],
    [4, 'start', 0, 0.25],
  ] as const)('steps(%i, %s) at %d is %d', (count, jump, x, y) => {
    expect(createSteps(count, jump)(x)).toBeCloseTo(y, 12);
  });

  test('linear() goes through its points, also at a jump (CSS Easing Functions 2)', () => {
    const ease = createLinearFunction([
      { input: 0, output: 0 },
      { input: 0.5, output: 1 },
      { input: 0.5, output: 0.2 },
      { input: 1, output: 1 },
    ]);
    expect(ease(0.25)).toBeCloseTo(0.5, 12);
    expect(ease(0.5)).toBeCloseTo(0.2, 12);
    expect(ease(0.75)).toBeCloseTo(0.6, 12);
    expect(ease(1)).toBe(1);
  });
});

describe('easings as CSS text', () => {
  test('inputs that linear() leaves out are filled in (CSS Easing Functions 2, section 2.2)', () => {
    expect(parseEasing('linear(0, 0.25 25% 75%, 1)')).toEqual({
      ok: true,
      easing: {
        type: 'points',
        points: [
          { input: 0, output: 0 },
          { input: 0.25, output: 0.25 },
          { input: 0.75, output: 0.25 },
          { input: 1, output: 1 },
        ],
      },
    });
    const even = parseEasing('linear(0, 0.5, 0.9, 1)');
    expect(even.ok && even.easing.type === 'points' && even.easing.points.map(({ input }) => input)).toEqual([
      0,
      1 / 3,
      2 / 3,
      1,
    ]);
  });

  test('text and back is the same easing', () => {
    const any: fc.Arbitrary<Easing> = fc.oneof(
      fc.record({ type: fc.constant('bezier' as const), x1: share, y1: height, x2: share, y2: height }),
      fc.record({
        type: fc.constant('steps' as const),
        count: fc.integer({ min: 2, max: 20 }),
        jump: fc.constantFrom('start', 'end', 'none', 'both'),
      }),
      fc.constant({ type: 'linear' as const }),
    );
    fc.assert(
      fc.property(any, (easing) => {
        const read = parseEasing(formatEasing(easing) ?? '');
        if (!read.ok) throw new Error(read.message);
        if (easing.type !== 'bezier' || read.easing.type !== 'bezier') return expect(read.easing).toEqual(easing);
        expect(read.easing.y1).toBeCloseTo(easing.y1, 11);
        expect(read.easing.x2).toBeCloseTo(easing.x2, 11);
      }),
    );
  });

  test('hold is written as one step at the end, which is the same curve', () => {
    const hold = createProgress({ type: 'hold' });
    const step = createProgress({ type: 'steps', count: 1, jump: 'end' });
    for (const u of [0, 0.3, 0.999, 1]) expect(hold(u)).toBe(step(u));
  });

  test.each([
    'ease-out-bounce',
    'cubic-bezier(1, 2)',
    'cubic-bezier(2, 0, 0, 1)',
    'steps(0)',
    'steps(2, nowhere)',
    'steps(2, end, start)',
    'steps(-2)',
    'steps(2.5)',
    'steps(1, jump-none)',
    'linear(1)',
    'constructor',
  ])('“%s” is refused with a sentence', (text) => {
    const result = parseEasing(text);
    expect(result.ok).toBe(false);
    if (!result.ok) expect(result.message.length).toBeGreaterThan(20);
  });

  test('the schema refuses inputs that go back', () => {
    const points = [
      { input: 0.5, output: 0 },
      { input: 0.2, output: 1 },
    ];
    expect(easingSchema.safeParse({ type: 'points', points }).success).toBe(false);
  });
});

test('free handles between different values are a plain bezier, between equal ones they are not', () => {
  const easing: Easing = { type: 'handles', leave: { time: 0.25, value: 5 }, arrive: { time: 0.5, value: -2 } };
  expect(asBezier(easing, 0, 10)).toEqual({ type: 'bezier', x1: 0.25, y1: 0.5, x2: 0.5, y2: 0.8 });
  expect(asBezier(easing, 3, 3)).toBeNull();
});

test('handles that lie as an even segment has them are even again; elsewhere on its line they are a bezier', () => {
  const [from, to] = [
    { at: 0, value: 10 },
    { at: 300, value: 40 },
  ];
  expect(easeOfHandles(from, to, { leave: { at: 100, value: 20 }, arrive: { at: 200, value: 30 } })).toBe(LINEAR);
  for (const [one, other] of [
    [150, 200],
    [100, 250],
  ])
    expect(
      easeOfHandles(from, to, {
        leave: { at: one, value: 10 + one / 10 },
        arrive: { at: other, value: 10 + other / 10 },
      }),
    ).toMatchObject({ type: 'bezier', x1: one / 300, x2: other / 300 });
});

test('an easing with values grows with them, and any other stays', () => {
  const free = { type: 'handles', leave: { time: 0.3, value: 40 }, arrive: { time: 0.2, value: -10 } } as const;
  expect(scaledEasing(free, -2)).toEqual({
    type: 'handles',
    leave: { time: 0.3, value: -80 },
    arrive: { time: 0.2, value: 20 },
  });
  expect(scaledEasing(LINEAR, 3)).toBe(LINEAR);
});
