import { expect, test } from '@jest/globals';
import { TICKS_PER_SECOND, type Layer } from '@wexikine/core';
import { wavePath } from './wave';

const T = TICKS_PER_SECOND;
const sound: Layer = {
  id: 's',
  name: 'Drums',
  kind: 'sound',
  parent: null,
  tags: [],
  locked: false,
  hidden: false,
  span: { in: T, out: 3 * T },
  rest: {},
  tracks: {},
  look: {},
  source: { type: 'sound', href: `files/${'a'.repeat(64)}.wav`, from: T / 2, length: 4 * T, gain: 1 },
  data: {},
};
/** Silent but for one loud hundredth of a second, 0.7 s after the sound's beginning. */
const peaks = new Float32Array(400);
peaks[70] = 1;

/** Places of the upper line of the area, px. */
function upper(path: string): [number, number][] {
  const [line] = path.slice(1).split('Z');
  const points = line.split('L').map((point) => point.split(' ').map(Number) as [number, number]);
  return points.slice(0, points.length / 2);
}

test('a loud moment stands where it is heard: the layer’s in point, less where in the sound that lies', () => {
  const path = wavePath(sound, peaks, { from: 0, span: 4 * T }, 400, 40);
  const loud = upper(path).filter(([, y]) => y < 10);
  // It is heard at 1 s + 0.7 s − 0.5 s = 1.2 s, which is at 120 of 400 px.
  expect(loud.every(([x]) => Math.abs(x - 120) <= 2)).toBe(true);
  expect(loud.length).toBeGreaterThan(0);
  expect(Math.min(...upper(path).map(([x]) => x))).toBe(100);
  expect(Math.max(...upper(path).map(([x]) => x))).toBeLessThanOrEqual(300);
});

test('nothing is drawn of what is not seen, nor of other layers', () => {
  expect(wavePath(sound, peaks, { from: 5 * T, span: T }, 400, 40)).toBe('');
  expect(wavePath(sound, peaks, { from: 0, span: 4 * T }, 0, 40)).toBe('');
  expect(wavePath({ ...sound, source: { type: 'none' } }, peaks, { from: 0, span: T }, 400, 40)).toBe('');
});
