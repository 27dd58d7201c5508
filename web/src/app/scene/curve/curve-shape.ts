import {
  channelOf,
  createTrackSampler,
  formatChannelValue,
  handlesBetween,
  TICKS_PER_SECOND,
  trackSpeed,
  type ChannelId,
  type Side,
  type Ticks,
  type Track,
} from '@wexikine/core';
import { xIn, type TimeWindow } from '../sheet/time-window';
import type { CurveLine } from './curve-lines';

/** Room for curves, px; the names of the grid lines stand to the left of it. */
export interface CurveRoom {
  readonly width: number;
  readonly height: number;
  readonly window: TimeWindow;
}

/** A range of values across the height. */
export interface ValueRange {
  readonly low: number;
  readonly high: number;
}

/** Values up or down the height of a room. */
export interface ValueScale extends ValueRange {
  /** Greater values stand lower: as on screen. */
  readonly isDown: boolean;
  readonly yOf: (value: number) => number;
  readonly valueAt: (y: number) => number;
}

/** Share of the height that is left free above and below what is fitted. */
const AIR = 0.1;
const EDGE = 6;
/** Px at the top that are free of lines at least, as words stand there; speeds come a little nearer, apart from values. */
const [WORDS, SPEED_WORDS] = [20, 17];
/** How far speeds stay below what there is room for. */
const SPEED_AIR = 1.1;
const SAMPLES_OWN = 260;
/** Points of all other lines together, and of each at least and at most. */
const OTHER_POINTS = 4000;
const FEWEST_POINTS = 24;
const MOST_POINTS = 90;

/** The share of the height that so many px at the top take; a quarter at most, so that curves have some, too. */
function shareOf(px: number, height: number): number {
  return Math.min(0.25, (px - EDGE) / Math.max(1, height - 2 * EDGE));
}

/** The range of speeds up to the greatest, about 0. */
export function speedRange(greatest: number, { height }: Pick<CurveRoom, 'height'>): ValueRange {
  const most = greatest * Math.max(SPEED_AIR, 1 / (1 - 2 * shareOf(SPEED_WORDS, height)));
  return { low: -most, high: most };
}

/** A scale of a range across a height. */
export function createScale({ low, high }: ValueRange, height: number, isDown: boolean): ValueScale {
  const room = Math.max(1, height - 2 * EDGE);
  const span = Math.max(high - low, 1e-9);
  return {
    low,
    high,
    isDown,
    yOf: (value) => {
      const share = (value - low) / span;
      return EDGE + room * (isDown ? share : 1 - share);
    },
    valueAt: (y) => {
      const share = (y - EDGE) / room;
      return low + span * (isDown ? share : 1 - share);
    },
  };
}

function sampleTimes({ window }: CurveRoom, count: number): Ticks[] {
  return Array.from({ length: count + 1 }, (_, i) => window.from + (window.span * i) / count);
}

/** How many points each of so many lines has. */
function pointsOf({ isOwn }: CurveLine, lines: number): number {
  return isOwn ? SAMPLES_OWN : Math.min(MOST_POINTS, Math.max(FEWEST_POINTS, Math.floor(OTHER_POINTS / lines)));
}

type Points = readonly (readonly [at: Ticks, value: number])[];

const sampled = new WeakMap<Track, { readonly window: TimeWindow; readonly count: number; readonly points: Points }>();

/** Values of a line over what is seen; keys are met exactly, so that corners and holds are not cut. */
function linePoints({ drawn }: CurveLine, room: CurveRoom, count: number): Points {
  const known = sampled.get(drawn);
  const { window } = room;
  if (known?.window === window && known.count === count) return known.points;
  const own = drawn.map(({ at }) => at).filter((at) => at > window.from && at < window.from + window.span);
  const times = [...sampleTimes(room, count), ...own, ...own.map((at) => at - 1)].sort((a, b) => a - b);
  const valueAt = createTrackSampler(drawn);
  const points = times.map((at) => [at, valueAt(at)] as const);
  sampled.set(drawn, { window, count, points });
  return points;
}

/** The range of values that some lines take in what is seen, their handles too, with air around it. */
export function fittedRange(lines: readonly CurveLine[], room: CurveRoom): ValueRange {
  let [low, high] = [Infinity, -Infinity];
  for (const line of lines) {
    for (const [, value] of linePoints(line, room, pointsOf(line, lines.length))) {
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
  }
  if (low > high) return { low: 0, high: 1 };
  const share = shareOf(WORDS, room.height);
  const free = (high - low) * Math.max(AIR, share / (1 - 2 * share));
  const air = Math.max(free, low === high ? Math.max(Math.abs(low) * AIR, 0.5) : 0);
  return { low: low - air, high: high + air };
}

/** True where values of all lines can be measured on one scale. */
export function hasOneUnit(lines: readonly CurveLine[]): boolean {
  return new Set(lines.map(({ channel }) => channelOf(channel).unit)).size <= 1;
}

/**
 * A scale for each line: one for all, or each on its own range. On a scale of its own, or among lines like itself, the
 * vertical position is drawn as on screen, upwards.
 */
export function scalesFor(
  lines: readonly CurveLine[],
  room: CurveRoom,
  isEach: boolean,
  held: ValueRange | null,
): ReadonlyMap<string, ValueScale> {
  const isVertical = ({ channel }: CurveLine): boolean => channel === 'position.y';
  if (isEach) {
    return new Map(
      lines.map((line) => [line.id, createScale(fittedRange([line], room), room.height, isVertical(line))]),
    );
  }
  const scale = createScale(held ?? fittedRange(lines, room), room.height, lines.every(isVertical));
  return new Map(lines.map(({ id }) => [id, scale]));
}

function pathOf(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
}

/** The value of a line, one of so many, over what is seen. */
export function valuePath(line: CurveLine, scale: ValueScale, room: CurveRoom, lines = 1): string {
  const { window, width } = room;
  return pathOf(
    linePoints(line, room, pointsOf(line, lines)).map(([at, value]) => [xIn(window, at, width), scale.yOf(value)]),
  );
}

/** Speeds of a line over what is seen, in the channel's unit a second. */
export function speedsOf({ drawn, keys }: CurveLine, room: CurveRoom): readonly (readonly [Ticks, number])[] {
  const step = (room.window.span / SAMPLES_OWN) * 1.5;
  // A sampled track is straight from point to point; its speed is taken over a few of them.
  const valueAt = createTrackSampler(drawn);
  const speedAt = (at: Ticks): number =>
    drawn === keys ? trackSpeed(drawn, at) : (valueAt(at + step) - valueAt(at - step)) / (2 * step);
  return sampleTimes(room, SAMPLES_OWN).map((at) => [at, speedAt(at) * TICKS_PER_SECOND] as const);
}

/** The speed of a line over what is seen, on its scale. */
export function speedPath(
  speeds: ReturnType<typeof speedsOf>,
  scale: ValueScale,
  { window, width }: CurveRoom,
): string {
  return pathOf(speeds.map(([at, speed]) => [xIn(window, at, width), scale.yOf(speed)]));
}

/** A handle of a picked key as it stands on screen. */
export interface HandleMark {
  readonly line: CurveLine;
  readonly at: Ticks;
  readonly side: Side;
  readonly x: number;
  readonly y: number;
  readonly keyX: number;
  readonly keyY: number;
}

/** The handles of the picked keys of a line; none where its easing is no single cubic. */
export function handleMarks(
  line: CurveLine,
  picked: ReadonlySet<Ticks>,
  scale: ValueScale,
  { window, width }: CurveRoom,
): HandleMark[] {
  const { keys } = line;
  const xOf = (at: Ticks): number => xIn(window, at, width);
  return keys.flatMap((key, i) => {
    if (!picked.has(key.at)) return [];
    const [before, after] = [keys[i - 1], keys[i + 1]];
    const arrive = before && handlesBetween(before, key, before.ease)?.arrive;
    const leave = after && handlesBetween(key, after, key.ease)?.leave;
    const mark = (side: Side, point: { at: Ticks; value: number } | null | undefined): HandleMark[] =>
      point
        ? [
            {
              line,
              at: key.at,
              side,
              x: xOf(point.at),
              y: scale.yOf(point.value),
              keyX: xOf(key.at),
              keyY: scale.yOf(key.value),
            },
          ]
        : [];
    return [...mark('arrive', arrive), ...mark('leave', leave)];
  });
}

/** Names of grid lines, at most so many, on round values of what people read. */
export function gridLines(
  channel: ChannelId,
  scale: ValueScale,
  wanted: number,
  after = '',
): readonly { readonly y: number; readonly label: string }[] {
  const shown = channelOf(channel).unit === 'share' ? 100 : 1;
  const span = (scale.high - scale.low) * shown;
  const rough = span / Math.max(1, wanted);
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((one) => one * power).find((one) => one >= rough) ?? rough;
  const first = Math.ceil((scale.low * shown) / step);
  const last = Math.floor((scale.high * shown) / step);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => {
    const value = ((first + i) * step) / shown;
    return { y: scale.yOf(value), label: `${formatChannelValue(channel, value)}${after}` };
  });
}

const UP_WORDS: Partial<Readonly<Record<ChannelId, string>>> = {
  'position.x': 'further right',
  'position.y': 'further down',
  rotation: 'clockwise',
  opacity: 'more opaque',
  blur: 'softer',
};

function upWord(channel: ChannelId, isDown: boolean): string {
  if (isDown) return 'up on screen';
  return UP_WORDS[channel] ?? (channelOf(channel).family === 'scale' ? 'larger' : 'more');
}

/** What a way up on the axis means on screen. */
export function upWords(lines: readonly CurveLine[], scales: ReadonlyMap<string, ValueScale>): string {
  const words = lines.map(({ id, channel }) => upWord(channel, scales.get(id)?.isDown === true));
  return `↑ ${[...new Set(words)].slice(0, 3).join(', ')}`;
}
