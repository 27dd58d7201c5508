import * as z from '../schema';
import { idSchema, nameSchema } from '../ids';
import { createCubicBezier } from './bezier';
import { createLinearFunction } from './linear';
import { MOST_POINTS, polylineOf } from './polyline';
import { createSpring, springPath, springSwings } from './spring';
import { createSteps } from './steps';

const share = z.number().min(0).max(1);
const finite = z.number().min(-1e6).max(1e6);

/** The curve of the library that an easing on a key was taken from: which revision of it, and whether backwards. */
const curveLinkSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  revision: z.int().min(0),
  reversed: z.literal(true).optional(),
});
/** The curve of the library that an easing was taken from. */
export type CurveLink = Readonly<z.infer<typeof curveLinkSchema>>;
const link = { curve: curveLinkSchema.optional() };

/** The value stays until the next key. */
const holdSchema = z.strictObject({ type: z.literal('hold'), ...link });
const linearSchema = z.strictObject({ type: z.literal('linear'), ...link });
/** CSS `cubic-bezier(x1, y1, x2, y2)`; x within [0, 1], y may overshoot. */
const bezierSchema = z.strictObject({
  type: z.literal('bezier'),
  x1: share,
  y1: finite,
  x2: share,
  y2: finite,
  ...link,
});
/** CSS `linear()`: a polyline of input and output shares, inputs never going back. */
const pointsSchema = z.strictObject({
  type: z.literal('points'),
  ...link,
  points: z
    .array(z.strictObject({ input: finite, output: finite }))
    .min(1)
    .max(MOST_POINTS)
    .refine((points) => points.every((point, i) => i === 0 || point.input >= points[i - 1].input), {
      error: 'The inputs of a linear() easing must not go back.',
    }),
});
/** CSS `steps(count, jump)`. */
const stepsSchema = z
  .strictObject({
    type: z.literal('steps'),
    count: z.int().min(1).max(1000),
    jump: z.enum(['start', 'end', 'none', 'both']),
    ...link,
  })
  .refine((steps) => steps.jump !== 'none' || steps.count > 1, {
    error: 'steps(…, jump-none) needs at least 2 steps.',
  });
/**
 * Free handles: two control points of a cubic Bézier in time and value. `leave` and `arrive` give, from the key they
 * belong to, a share of the segment's length (≥ 0) and a difference in the channel's own unit, so that two keys of
 * equal value can still swing between them.
 */
const handle = z.strictObject({ time: share, value: z.number().min(-1e9).max(1e9) });
const handlesSchema = z.strictObject({ type: z.literal('handles'), leave: handle, arrive: handle });

/** A spring that settles as the segment ends; see `createSpring`. */
const springSchema = z.strictObject({
  type: z.literal('spring'),
  damping: z.number().min(0.05).max(5),
  within: z.number().min(0.0001).max(0.1),
  ...link,
});

/** How a channel goes from one key to the next. */
export const easingSchema = z
  .discriminatedUnion('type', [
    holdSchema,
    linearSchema,
    bezierSchema,
    pointsSchema,
    stepsSchema,
    handlesSchema,
    springSchema,
  ])
  .describe('The easing from a key to the next one.');

/** How a value goes from one key to the next. */
export type Easing = Readonly<z.infer<typeof easingSchema>>;
/** A cubic Bézier from (0, 0) to (1, 1) with two control points, x1 and x2 in [0, 1]. */
export type BezierEasing = Extract<Easing, { type: 'bezier' }>;
/** A cubic, its two control points given as shares of the way or as free handles. */
export type CurvedEasing = Extract<Easing, { type: 'bezier' | 'handles' }>;
/** A polyline of inputs and outputs, as CSS `linear()`. */
export type PointsEasing = Extract<Easing, { type: 'points' }>;
/** So many equal steps, as CSS `steps()`. */
export type StepsEasing = Extract<Easing, { type: 'steps' }>;
/** A damped spring that lands at 1. */
export type SpringEasing = Extract<Easing, { type: 'spring' }>;

/** The value stays until the next key. */
export const HOLD: Easing = { type: 'hold' };
/** The value goes evenly to the next key. */
export const LINEAR: Easing = { type: 'linear' };

/** A bezier written by its strengths: departure a and arrival b, both in [0, 1], give (a, 0, 1−b, 1). */
export function easingFromStrengths(departure: number, arrival: number): BezierEasing {
  return { type: 'bezier', x1: departure, y1: 0, x2: 1 - arrival, y2: 1 };
}

/**
 * Progress of an easing: a function of the share of the segment's time, [0, 1] → share of the way, may overshoot.
 * `handles` have values of their own and no progress; between distinct values use `asBezier` first.
 */
export function createProgress(easing: Exclude<Easing, { type: 'handles' }>): (u: number) => number {
  switch (easing.type) {
    case 'hold':
      return (u) => (u < 1 ? 0 : 1);
    case 'linear':
      return (u) => u;
    case 'bezier':
      return createCubicBezier(easing);
    case 'points':
      return createLinearFunction(easing.points);
    case 'steps':
      return createSteps(easing.count, easing.jump);
    case 'spring':
      return createSpring(easing);
  }
}

/** The greatest difference, as a share of the way, between a spring and the points that stand for it. */
const SPRING_ERROR = 0.00048;

/** Stretches for each half swing of a spring; within one of them it bends one way. */
const CUTS_A_SWING = 4;
const FEWEST_CUTS = 8;

/** A spring as a `linear()`, within 0.05 % of the way; what is left of the way at its end is a jump, as in the spring. */
export function springPoints(spring: SpringEasing): PointsEasing {
  const cuts = Math.max(FEWEST_CUTS, Math.ceil(springSwings(spring) * CUTS_A_SWING));
  return { type: 'points', points: [...polylineOf(springPath(spring), SPRING_ERROR, cuts), { input: 1, output: 1 }] };
}

/** Progress of an easing that may be absent or have free handles; those go evenly. */
export function progressOf(easing: Easing | undefined): (u: number) => number {
  if (easing === undefined) return (u) => u;
  const plain = asBezier(easing, 0, 1) ?? easing;
  return plain.type === 'handles' ? (u) => u : createProgress(plain);
}

/** A free-handle easing between two different values as a plain bezier; null where they are equal or all but equal. */
export function asBezier(easing: Easing, from: number, to: number): BezierEasing | null {
  if (easing.type === 'bezier') return easing;
  if (easing.type !== 'handles' || from === to) return null;
  const way = to - from;
  const [y1, y2] = [easing.leave.value / way, 1 + easing.arrive.value / way];
  if (!Number.isFinite(y1) || !Number.isFinite(y2)) return null;
  return { type: 'bezier', x1: easing.leave.time, y1, x2: 1 - easing.arrive.time, y2 };
}
