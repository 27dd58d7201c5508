import {
  formatChannelValue,
  sampleTrack,
  trackSpeed,
  TICKS_PER_SECOND,
  type ChannelId,
  type Ticks,
  type Track,
} from '@wexikine/core';

/** A plotted curve: its lines, marks and labels. */
export interface CurvePlot {
  readonly value: string;
  readonly speed: string;
  readonly keys: readonly { readonly x: number; readonly y: number; readonly isNew: boolean; readonly at: Ticks }[];
  readonly grid: readonly { readonly y: number; readonly label: string }[];
  readonly fastest: string;
  /** Another track on the same axes, where one was given. */
  readonly behind: string | null;
  /** Place across of a time. */
  readonly xOf: (at: Ticks) => number;
}

/** Room for a plot, in px. */
export interface PlotSize {
  readonly width: number;
  readonly height: number;
}

const LEFT = 64;
const RIGHT = 14;
const TOP = 14;
const BOTTOM = 22;
const SAMPLES = 240;
const LINES = 5;
const LEAD = 0.06;

function pathOf(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
}

/** Value and speed of a track over the time of its keys, ready to draw; with `behind` another one on the same axes. */
export function plotCurve(
  keys: Track,
  channel: ChannelId,
  runId: string | null,
  size: PlotSize,
  behind: Track | null = null,
  marks: Track = keys,
): CurvePlot {
  const ends = [...keys, ...(behind ?? [])].map(({ at }) => at);
  const [first, last] = [Math.min(...ends), Math.max(...ends)];
  const lead = Math.max(1, (last - first) * LEAD);
  const [from, to] = [first - lead, last + lead];
  const times = Array.from({ length: SAMPLES + 1 }, (_, i) => from + ((to - from) * i) / SAMPLES);
  const values = [
    ...[...times, ...keys.map(({ at }) => at)].map((at) => sampleTrack(keys, at)),
    ...(behind ? times.map((at) => sampleTrack(behind, at)) : []),
  ];
  let [low, high] = [Math.min(...values), Math.max(...values)];
  if (low === high) [low, high] = [low - 1, high + 1];
  // A sampled track is straight from key to key; its speed is taken over a few of them.
  const step = ((to - from) / SAMPLES) * 1.5;
  const speedAt = (at: number): number =>
    marks === keys ? trackSpeed(keys, at) : (sampleTrack(keys, at + step) - sampleTrack(keys, at - step)) / (2 * step);
  const speeds = times.map((at) => speedAt(at) * TICKS_PER_SECOND);
  const fastest = Math.max(...speeds.map(Math.abs), 1e-9);
  const [plotWidth, plotHeight] = [size.width - LEFT - RIGHT, size.height - TOP - BOTTOM];
  const down = channel === 'position.y' ? 1 : -1;
  const xOf = (at: number): number => LEFT + ((at - from) / (to - from)) * plotWidth;
  const yOf = (value: number): number => {
    const share = (value - low) / (high - low);
    return TOP + plotHeight * (down > 0 ? share : 1 - share);
  };
  const speedY = (speed: number): number => TOP + plotHeight * (1 - (Math.abs(speed) / fastest) * 0.6);
  const lines = Array.from({ length: LINES }, (_, i) => low + ((high - low) * i) / (LINES - 1));
  return {
    value: pathOf(times.map((at) => [xOf(at), yOf(sampleTrack(keys, at))])),
    speed: pathOf(times.map((at, i) => [xOf(at), speedY(speeds[i])])),
    keys: marks.map(({ at, value, by }) => ({
      at,
      x: xOf(at),
      y: yOf(value),
      isNew: runId !== null && by?.run === runId,
    })),
    grid: lines.map((value) => ({ y: yOf(value), label: formatChannelValue(channel, value) })),
    behind: behind && pathOf(times.map((at) => [xOf(at), yOf(sampleTrack(behind, at))])),
    xOf,
    fastest: `${formatChannelValue(channel, fastest)} a second`,
  };
}
