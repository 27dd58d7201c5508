import { formatEasing, stepProgress, type CurvedEasing, type Easing } from '../../basics/easing';
import { controlTimes, controlValues, cubicValue } from '../../scene/sample';
import { unitCubic } from '../../basics/easing';
import type { Track } from '../../scene/layer';
import { secondsFromTicks } from '../../basics/time';

/** A plain decimal number: CSS takes no exponents in every place. */
export function decimal(value: number, digits = 9): string {
  return String(Number(value.toFixed(digits)));
}

/** Digits of the share of an animation's time, in per cent. */
const SHARE_DIGITS = 9;

/**
 * A share of an animation's time in per cent, rounded down: what happens on a frame has then begun on it, whatever the
 * browser rounds on its way there.
 */
export function percentOf(share: number): string {
  const scale = 10 ** SHARE_DIGITS;
  return decimal(Math.floor(share * 100 * scale) / scale, SHARE_DIGITS);
}

/** A key of a CSS animation: share of its time, value, and the timing function to the next. */
interface Stop {
  readonly share: number;
  readonly value: number;
  readonly timing: string;
}

/** Cuts a cubic at u into the part before: its four control values. */
function firstPart([a, b, c, d]: readonly number[], u: number): number[] {
  const ab = a + (b - a) * u;
  const bc = b + (c - b) * u;
  const abc = ab + (bc - ab) * u;
  return [a, ab, abc, cubicValue(a, b, c, d, u)];
}

function lastPart(points: readonly number[], u: number): number[] {
  return firstPart([...points].reverse(), 1 - u).reverse();
}

/** A Bézier between two different values as CSS text; x and y are its four control times and values. */
function bezierText(x: readonly number[], y: readonly number[]): string {
  const across = (value: number): string => decimal(Math.min(1, Math.max(0, (value - x[0]) / (x[3] - x[0]))));
  const up = (value: number): string => decimal((value - y[0]) / (y[3] - y[0]));
  return `cubic-bezier(${across(x[1])}, ${up(y[1])}, ${across(x[2])}, ${up(y[2])})`;
}

/**
 * Free handles between two equal values cannot be one CSS timing function, which has no way to go; cut in two at a
 * place where the value differs from the ends, each part can.
 */
function swingStops(ease: CurvedEasing, from: number, to: number, start: number, end: number): Stop[] {
  const [x1, x2] = controlTimes(ease);
  const [v1, v2] = controlValues(ease, from, to);
  const [x, y] = [
    [0, x1, x2, 1],
    [from, v1, v2, to],
  ];
  const cut = [0.5, 0.3, 0.7].find((u) => Math.abs(cubicValue(from, v1, v2, to, u) - from) > 1e-9);
  if (cut === undefined) return [{ share: start, value: from, timing: 'linear' }];
  const [xa, xb] = [firstPart(x, cut), lastPart(x, cut)];
  const [ya, yb] = [firstPart(y, cut), lastPart(y, cut)];
  const middle = start + (end - start) * unitCubic(x1, x2, cut);
  return [
    { share: start, value: from, timing: bezierText(xa, ya) },
    { share: middle, value: ya[3], timing: bezierText(xb, yb) },
  ];
}

/** So many steps are written one by one, so that each begins on its own time; more are left to the browser. */
const MOST_STEPS = 200;

function stepStops(
  ease: Extract<Easing, { type: 'steps' }>,
  from: number,
  to: number,
  start: number,
  end: number,
): Stop[] {
  const { count, jump } = ease;
  return Array.from({ length: count }, (_, i) => ({
    share: start + ((end - start) * i) / count,
    value: from + (to - from) * stepProgress(count, jump, i, count),
    timing: 'steps(1, jump-end)',
  }));
}

function segmentStops(ease: Easing, from: number, to: number, start: number, end: number): Stop[] {
  if (ease.type === 'steps' && ease.count <= MOST_STEPS) return stepStops(ease, from, to, start, end);
  if (ease.type !== 'handles') return [{ share: start, value: from, timing: formatEasing(ease) ?? 'linear' }];
  if (from === to) return swingStops(ease, from, to, start, end);
  const [x1, x2] = controlTimes(ease);
  const [v1, v2] = controlValues(ease, from, to);
  return [{ share: start, value: from, timing: bezierText([0, x1, x2, 1], [from, v1, v2, to]) }];
}

/** A track as CSS: the text of its keyframes for a property, and when they play. */
export interface CssTrack {
  readonly keyframes: string;
  /** Seconds from the scene's first frame to the first key. */
  readonly delay: number;
  /** Seconds from the first key to the last; 0 for a single key. */
  readonly duration: number;
}

/** Writes a track as the body of an `@keyframes` rule for a number-valued custom property. */
export function cssTrack(keys: Track, property: string): CssTrack {
  const [first, last] = [keys[0], keys[keys.length - 1]];
  const length = last.at - first.at;
  const delay = secondsFromTicks(first.at);
  if (length === 0) return { keyframes: `from, to { ${property}: ${decimal(first.value)} }`, delay, duration: 0 };
  const shareOf = (at: number): number => (at - first.at) / length;
  const stops = keys
    .slice(0, -1)
    .flatMap((key, i) =>
      segmentStops(key.ease, key.value, keys[i + 1].value, shareOf(key.at), shareOf(keys[i + 1].at)),
    );
  const end: Stop = { share: 1, value: last.value, timing: 'linear' };
  const keyframes = [...stops, end]
    .map(
      ({ share, value, timing }) =>
        `${percentOf(share)}% { ${property}: ${decimal(value)}; animation-timing-function: ${timing} }`,
    )
    .join('\n  ');
  return { keyframes, delay, duration: secondsFromTicks(length) };
}
