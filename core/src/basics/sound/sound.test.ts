import { describe, expect, test } from '@jest/globals';
import { randomAt } from '../random';
import { findBeats, LOOKS_A_SECOND, onsetStrength, peaksOf } from '.';
import { beatPeriod } from './tempo';

const RATE = 22_050;

/** A drum of noise that dies away at each time; loud and soft ones by turns, over a steady tone and noise. */
function drums(times: readonly number[], seconds: number, noise = 0.02): Float32Array {
  const samples = new Float32Array(Math.round(seconds * RATE));
  let drawn = 0;
  const random = (): number => randomAt(5, drawn++);
  for (let i = 0; i < samples.length; i++) {
    samples[i] = 0.05 * Math.sin((2 * Math.PI * 220 * i) / RATE) + noise * (random() * 2 - 1);
  }
  times.forEach((at, n) => {
    const first = Math.round(at * RATE);
    for (let i = 0; i < RATE * 0.12 && first + i < samples.length; i++) {
      samples[first + i] += (n % 2 === 0 ? 0.6 : 0.35) * (random() * 2 - 1) * Math.exp(-i / (RATE * 0.03));
    }
  });
  return samples;
}

const every = (seconds: number, from: number, to: number): number[] =>
  Array.from({ length: Math.floor((to - from) / seconds) + 1 }, (_, i) => from + i * seconds);

describe('beats of a sound', () => {
  // Known answers of made sounds; within one and a half hundredths of a second, less than a frame at 60 a second (from memory).
  test.each([76, 120, 150])('at %i a minute are found where they were put', (tempo) => {
    const step = 60 / tempo;
    const put = every(step, 0.4, 11.5);
    const found = findBeats(drums(put, 12), RATE);
    expect(found?.perMinute).toBeCloseTo(tempo, 0);
    const near = (at: number): number => Math.min(...(found?.times ?? []).map((time) => Math.abs(time - at)));
    expect(Math.max(...put.slice(1, -1).map(near))).toBeLessThan(0.015);
    expect(found?.times.length).toBeGreaterThanOrEqual(put.length - 2);
    expect(found?.times.length).toBeLessThanOrEqual(put.length + 1);
  });

  // Known answer: bumps at a period between whole numbers of looks, which one lag alone gives to within half a look.
  test.each([88.65, 95.09, 101.27])('the period is exact to a hundredth of a look: %d', (period) => {
    const onsets = Float64Array.from({ length: 3_000 }, (_, i) => {
      const off = i - Math.round(i / period) * period;
      return Math.exp(-0.5 * (off / 2) ** 2);
    });
    expect(Math.abs((beatPeriod(onsets) ?? 0) - period)).toBeLessThan(0.01);
  });

  test('four beats are enough, three are too few', () => {
    const found = (count: number) =>
      findBeats(drums(every(0.5, 0.4, 0.4 + (count - 1) * 0.5), 4, 0), RATE)?.times.length;
    expect([found(5), found(4), found(3)]).toEqual([5, 4, undefined]);
  });

  test('a beat that is left out is found all the same, and a break at the end has none', () => {
    const put = every(0.5, 0.25, 7);
    const found = findBeats(drums(put.toSpliced(8, 1), 10), RATE);
    expect(found?.times.some((at) => Math.abs(at - put[8]) < 0.03)).toBe(true);
    expect(Math.max(...(found?.times ?? []))).toBeLessThan(7.6);
  });

  test('a sound that begins with a beat has it at its beginning, and nowhere else', () => {
    const strength = onsetStrength(drums([0], 1, 0), RATE);
    expect(strength.indexOf(Math.max(...strength))).toBeLessThan(4);
    // While it dies away nothing begins.
    expect(Math.max(...strength.slice(8))).toBeLessThan(0.2 * Math.max(...strength));
  });

  test('silence, a steady tone and less than two seconds have none', () => {
    expect(findBeats(new Float32Array(RATE * 5), RATE)).toBeNull();
    expect(findBeats(new Float32Array(RATE), RATE)).toBeNull();
    expect(findBeats(new Float32Array(0), RATE)).toBeNull();
  });

  test('loudness is the largest amplitude in each hundredth of a second', () => {
    const samples = new Float32Array(1_000);
    samples[255] = -0.5;
    samples[999] = 3;
    const peaks = peaksOf(samples, 10_000);
    expect([...peaks]).toEqual([0, 0, 0.5, 0, 0, 0, 0, 0, 0, 1]);
    expect(peaksOf(new Float32Array(0), 44_100)).toHaveLength(0);
  });
});

test('strengths are standard scores: of mean 0 and deviation 1, those below the mean being 0', () => {
  const samples = new Float32Array(6 * RATE);
  for (const at of [1, 2.3, 4]) {
    for (let i = 0; i < RATE * 0.05; i++) samples[Math.round(at * RATE) + i] = 0.5 * (randomAt(7, i) * 2 - 1);
  }
  const strengths = onsetStrength(samples, RATE);
  expect(strengths).toHaveLength(6 * LOOKS_A_SECOND);
  // Silence has one score, which makes up for the sum of all others; then their squares sum up to their number.
  const loud = [...strengths].filter((one) => one > 0);
  const sum = loud.reduce((total, one) => total + one, 0);
  const silent = strengths.length - loud.length;
  const squares = loud.reduce((total, one) => total + one * one, 0) + (sum * sum) / silent;
  expect(squares / strengths.length).toBeCloseTo(1, 1);
});
