import { describe, expect, test } from '@jest/globals';
import { frameTicks, TICKS_PER_SECOND } from '../../basics/time';
import { PAL } from '../../testing/scenes';
import { fitSegments, sampleTrack, type Fit } from '.';

const FRAME = frameTicks(PAL);
const BEGIN = 30 * FRAME;
const END = 80 * FRAME;

/** A swing of 100 px, once in a second: its value, and its speed by the tick. */
const swing = (tolerance: number): Fit => {
  const pace = (2 * Math.PI) / TICKS_PER_SECOND;
  return { value: (at) => 100 * Math.sin(pace * at), speed: (at) => 100 * pace * Math.cos(pace * at), tolerance };
};

const trackOf = (fit: Fit) => [
  ...fitSegments(fit, BEGIN, END).map(({ key }) => key),
  { at: END, value: fit.value(END), ease: { type: 'linear' as const } },
];

describe('segments that follow a moving value', () => {
  test.each([1, 0.1, 0.001])('stay within %s px of it, from its beginning to its end', (tolerance) => {
    const fit = swing(tolerance);
    const track = trackOf(fit);
    for (let at = BEGIN; at <= END; at += FRAME / 8)
      expect(Math.abs(sampleTrack(track, at) - fit.value(at))).toBeLessThan(tolerance * 1.5);
  });

  test('are halves of halves, by which they are named, and no more than needed', () => {
    const halves = fitSegments(swing(1), BEGIN, END);
    const counts = [1, 0.1, 0.001].map((tolerance) => fitSegments(swing(tolerance), BEGIN, END).length);
    expect(counts[0]).toBeLessThanOrEqual(16);
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
    for (const { key, half } of halves) {
      const from = [...half].reduce((sum, side, i) => sum + (side === '1' ? 2 ** -(i + 1) : 0), 0);
      expect(key.at).toBeCloseTo(BEGIN + (END - BEGIN) * from, -1);
    }
    // A cubic is one segment, whatever the tolerance: it is written as it is.
    const along = (at: number): number => (at - BEGIN) / (10 * FRAME);
    const cubic: Fit = {
      value: (at) => along(at) ** 3,
      speed: (at) => (3 * along(at) ** 2) / (10 * FRAME),
      tolerance: 0.01,
    };
    expect(fitSegments(cubic, BEGIN, END).map(({ half }) => half)).toEqual(['']);
  });

  test('halve no further than ticks go, and no further than ten times', () => {
    const jumping: Fit = { value: (at) => (at < BEGIN + 5_000 ? 0 : 100), speed: () => 0, tolerance: 0.001 };
    const made = fitSegments(jumping, BEGIN, END);
    expect(Math.max(...made.map(({ half }) => half.length))).toBe(10);
    expect(fitSegments(jumping, BEGIN, BEGIN + 1)).toHaveLength(1);
  });
});
