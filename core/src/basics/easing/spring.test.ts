import { describe, expect, test } from '@jest/globals';
import * as d3 from 'd3-ease';
import fc from 'fast-check';
import {
  createCubicBezier,
  createLinearFunction,
  createProgress,
  createSpring,
  EASED_ENDS,
  EASING_FAMILIES,
  easingOfFamily,
  easingSchema,
  easingText,
  familyProgress,
  formatEasing,
  parseEasing,
  polylineOf,
  reverseEasing,
  springPoints,
  springRemainder,
  springSettleTime,
  type EasedEnd,
  type Easing,
  type EasingFamily,
} from '.';
import { springPath, springSwings } from './spring';

/** Fourth-order Runge–Kutta of x'' = −x − 2ζx' from x = 1 at rest; an independent way to the same motion. */
function integrated(damping: number, until: number): number {
  const steps = 4_000;
  const h = until / steps;
  const force = (x: number, v: number): number => -x - 2 * damping * v;
  let [x, v] = [1, 0];
  for (let i = 0; i < steps; i++) {
    const [k1x, k1v] = [v, force(x, v)];
    const [k2x, k2v] = [v + (h / 2) * k1v, force(x + (h / 2) * k1x, v + (h / 2) * k1v)];
    const [k3x, k3v] = [v + (h / 2) * k2v, force(x + (h / 2) * k2x, v + (h / 2) * k2v)];
    const [k4x, k4v] = [v + h * k3v, force(x + h * k3x, v + h * k3v)];
    x += (h / 6) * (k1x + 2 * k2x + 2 * k3x + k4x);
    v += (h / 6) * (k1v + 2 * k2v + 2 * k3v + k4v);
  }
  return x;
}

describe('a spring', () => {
  test.each([0.1, 0.5, 0.999, 1, 1.001, 2, 4])(
    'with damping ratio %d moves as its differential equation says (damped oscillator of any mechanics handbook)',
    (damping) => {
      for (const t of [0.3, 1, 2.5, 6, 12]) {
        expect(springRemainder(damping, t)).toBeCloseTo(integrated(damping, t), 8);
      }
    },
  );

  test('settles when it is said to: outside just before, inside for good after', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 5, noNaN: true }),
        fc.constantFrom(0.0001, 0.001, 0.01, 0.1),
        (damping, within) => {
          const end = springSettleTime({ damping, within });
          expect(Math.abs(springRemainder(damping, end * (1 - 1e-6)))).toBeGreaterThan(within * 0.99);
          for (const later of [1.0001, 1.1, 1.5, 3]) {
            expect(Math.abs(springRemainder(damping, end * later))).toBeLessThanOrEqual(within * 1.001);
          }
        },
      ),
    );
  });

  test('critically damped, settles to 1 % after 6.638 radians (solution of (1 + t)·e^−t = 0.01, handbook)', () => {
    expect(springSettleTime({ damping: 1, within: 0.01 })).toBeCloseTo(6.638352, 5);
  });

  test('has exact ends, and passes its place as far as its damping says: e^(−πζ/√(1−ζ²))', () => {
    const spring = createSpring({ damping: 0.35, within: 0.001 });
    expect([spring(0), spring(1), spring(-1), spring(2)]).toEqual([0, 1, 0, 1]);
    const highest = Math.max(...Array.from({ length: 20_001 }, (_, i) => spring(i / 20_000)));
    expect(highest).toBeCloseTo(1 + Math.exp((-Math.PI * 0.35) / Math.sqrt(1 - 0.35 ** 2)), 6);
  });

  test('as text reads back, and as CSS is a linear() within 0.1 % of the way', () => {
    const easing: Easing = { type: 'spring', damping: 0.35, within: 0.002 };
    expect(easingText(easing)).toBe('spring(0.35, 0.2%)');
    expect(parseEasing('spring(0.35, 0.2%)')).toEqual({ ok: true, easing });
    expect(parseEasing('spring(0.5)')).toMatchObject({ easing: { within: 0.001 } });
    const css = parseEasing(formatEasing(easing) ?? '');
    if (!css.ok) throw new Error(css.message);
    const [exact, written] = [createProgress(easing), createProgress(css.easing as never)];
    for (let u = 0; u <= 1; u += 0.003) expect(Math.abs(exact(u) - written(u))).toBeLessThan(0.001);
  });

  test.each(['spring()', 'spring(a)', 'spring(0.5, 1%, 2)', 'spring(9)'])('%s is refused with a sentence', (text) => {
    expect(parseEasing(text)).toMatchObject({ ok: false, message: expect.stringMatching(/^(spring|The easing)/) });
  });
});

const D3: Readonly<Record<EasingFamily, readonly [string, string, string]>> = {
  sine: ['easeSinIn', 'easeSinOut', 'easeSinInOut'],
  quadratic: ['easeQuadIn', 'easeQuadOut', 'easeQuadInOut'],
  cubic: ['easeCubicIn', 'easeCubicOut', 'easeCubicInOut'],
  quartic: ['easePolyIn', 'easePolyOut', 'easePolyInOut'],
  quintic: ['easePolyIn', 'easePolyOut', 'easePolyInOut'],
  exponential: ['easeExpIn', 'easeExpOut', 'easeExpInOut'],
  circular: ['easeCircleIn', 'easeCircleOut', 'easeCircleInOut'],
  back: ['easeBackIn', 'easeBackOut', 'easeBackInOut'],
  elastic: ['easeElasticIn', 'easeElasticOut', 'easeElasticInOut'],
  bounce: ['easeBounceIn', 'easeBounceOut', 'easeBounceInOut'],
};
const EXPONENTS: Partial<Record<EasingFamily, number>> = { quartic: 4, quintic: 5 };

/** The function of the package d3-ease for a family. */
function reference(family: EasingFamily, end: EasedEnd): (u: number) => number {
  const ease = (d3 as unknown as Record<string, unknown>)[D3[family][EASED_ENDS.indexOf(end)]];
  const exponent = EXPONENTS[family];
  if (exponent === undefined) return ease as (u: number) => number;
  return (ease as { exponent: (e: number) => (u: number) => number }).exponent(exponent);
}

const PAIRS = EASING_FAMILIES.flatMap((family) => EASED_ENDS.map((end) => [family, end] as const));

describe('the easing families', () => {
  test.each(PAIRS)('%s, eased at %s, is that of d3-ease, with exact ends', (family, end) => {
    const [ours, theirs] = [familyProgress(family, end), reference(family, end)];
    expect([ours(0), ours(1)]).toEqual([0, 1]);
    for (let i = 1; i < 200; i++) expect(ours(i / 200)).toBeCloseTo(theirs(i / 200), 9);
  });

  test.each(PAIRS)('%s, eased at %s, as an easing is valid and within 0.2 %% of the family', (family, end) => {
    const easing = easingOfFamily(family, end);
    expect(easingSchema.safeParse(easing).success).toBe(true);
    const [written, exact] = [createProgress(easing as never), familyProgress(family, end)];
    for (let u = 0; u <= 1; u += 0.0013) expect(Math.abs(written(u) - exact(u))).toBeLessThan(0.002);
  });

  test('a cubic family is one Bézier exactly', () => {
    const easing = easingOfFamily('back', 'arrival');
    if (easing.type !== 'bezier') throw new Error(easing.type);
    const bezier = createCubicBezier(easing);
    for (let u = 0; u <= 1; u += 0.01) expect(bezier(u)).toBeCloseTo(familyProgress('back', 'arrival')(u), 9);
  });
});

describe('a polyline', () => {
  test('of a straight line is straight, of a wave within its error, never more than 4096 points', () => {
    expect(polylineOf((u) => u).every(({ input, output }) => input === output)).toBe(true);
    const wave = (u: number): number => Math.sin(u * 200);
    expect(polylineOf(wave, 1e-5).length).toBeLessThanOrEqual(4096);
    const slow = (u: number): number => Math.sin(u * 9);
    const line = createLinearFunction(polylineOf(slow, 0.001));
    for (let u = 0; u <= 1; u += 0.0011) expect(Math.abs(line(u) - slow(u))).toBeLessThan(0.002);
  });
});

describe('an easing played backwards', () => {
  const share = fc.double({ min: 0.02, max: 0.98, noNaN: true });
  const easings = fc.oneof(
    fc.constant<Easing>({ type: 'linear' }),
    fc.record({ type: fc.constant('bezier' as const), x1: share, y1: share, x2: share, y2: share }),
    fc.record({
      type: fc.constant('spring' as const),
      damping: fc.double({ min: 0.1, max: 3, noNaN: true }),
      within: fc.constant(0.001),
    }),
    fc.constant<Easing>({
      type: 'points',
      points: [
        { input: 0, output: 0 },
        { input: 0.2, output: 0.9 },
        { input: 1, output: 1 },
      ],
    }),
  );

  test('is 1 − p(1 − u)', () => {
    fc.assert(
      fc.property(easings, share, (easing, u) => {
        const [forward, back] = [createProgress(easing as never), createProgress(reverseEasing(easing) as never)];
        expect(Math.abs(back(u) - (1 - forward(1 - u)))).toBeLessThan(easing.type === 'spring' ? 0.005 : 1e-6);
      }),
    );
  });

  test('twice is the easing itself, of holds and steps too', () => {
    for (const easing of [
      { type: 'hold' },
      { type: 'steps', count: 4, jump: 'none' },
      { type: 'bezier', x1: 0.25, y1: 0.5, x2: 0.75, y2: 1 },
      { type: 'handles', leave: { time: 0.2, value: 5 }, arrive: { time: 0.4, value: -2 } },
    ] as const) {
      expect(reverseEasing(reverseEasing(easing))).toEqual(easing);
    }
    expect(reverseEasing({ type: 'hold' })).toEqual({ type: 'steps', count: 1, jump: 'start' });
  });
});

test.each(
  [0.05, 0.08, 0.2, 0.5, 1, 2, 5].flatMap((damping) =>
    [0.0001, 0.001, 0.01, 0.1].map((within) => [damping, within] as const),
  ),
)('a spring of damping %s that settles within %s is a linear() within 0.05 %% of the way', (damping, within) => {
  const spring = { type: 'spring', damping, within } as const;
  const [curve, line] = [createSpring(spring), createLinearFunction(springPoints(spring).points)];
  let worst = 0;
  for (let i = 0; i <= 20_000; i++) worst = Math.max(worst, Math.abs(curve(i / 20_000) - line(i / 20_000)));
  expect(worst).toBeLessThanOrEqual(0.0005);
  expect(easingSchema.safeParse(springPoints(spring)).success).toBe(true);
});

test('a spring makes as many half turns as its path passes its goal, to one (damped oscillator, any mechanics handbook)', () => {
  for (const damping of [0.05, 0.1, 0.2, 0.35, 0.5]) {
    const shape = { damping, within: 0.001 };
    const path = springPath(shape);
    let [passes, side] = [0, -1];
    for (let i = 1; i <= 20_000; i++) {
      const now = Math.sign(path(i / 20_000) - 1);
      if (now !== 0 && now !== side) [passes, side] = [passes + 1, now];
    }
    expect(passes).toBeGreaterThan(0);
    expect(Math.abs(springSwings(shape) - passes)).toBeLessThanOrEqual(1);
  }
  for (const damping of [1, 1.5]) expect(springSwings({ damping, within: 0.01 })).toBe(0);
});
