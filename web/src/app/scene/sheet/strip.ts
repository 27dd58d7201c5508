import {
  channelOf,
  createSegment,
  sampleTrack,
  tracksOf,
  trackSpeed,
  type ChannelId,
  type ChannelUnit,
  type Key,
  type Layer,
  type Ticks,
  type Track,
} from '@wexikine/core';

/** A key on a strip: a post with two wings that show the slope at which motion arrives and leaves. */
export interface KeyMark {
  readonly x: number;
  readonly y: number;
  /** Screen slopes, −1 … 1, down positive. */
  readonly arrives: number;
  readonly leaves: number;
  /** Made by the dry run. */
  readonly isNew: boolean;
  readonly at: Ticks;
}

export interface Strip {
  readonly channel: ChannelId | null;
  /** Where the layer's span lies. */
  readonly left: number;
  readonly width: number;
  /** SVG path of the value curve; empty without keys. */
  readonly curve: string;
  readonly marks: readonly KeyMark[];
  /** Where keys stand that the dry run takes away. */
  readonly gone: readonly number[];
}

export interface StripSize {
  readonly width: number;
  readonly height: number;
  /** Ticks across the width. */
  readonly length: Ticks;
}

/** How much movement counts as one, so that channels of different units can be compared. */
const TYPICAL: Readonly<Record<ChannelUnit, number>> = { px: 100, deg: 30, share: 1, number: 1 };
/** A fade says less about a layer than where it goes, so it leads only where little else moves. */
const TYPICAL_OPACITY = 3;
const SAMPLES = 10;
const MARGIN = 5;
const STEEPEST = 1;

interface CurvePoint {
  readonly at: Ticks;
  readonly value: number;
}

/** Points of a value curve from its first to its last key, each segment prepared once. */
function curvePoints(keys: Track): CurvePoint[] {
  const points: CurvePoint[] = [];
  for (let i = 0; i + 1 < keys.length; i++) {
    const [key, next] = [keys[i], keys[i + 1]];
    const segment = createSegment(key.ease, key.value, next.value);
    for (let n = 0; n < SAMPLES; n++) {
      const share = n / SAMPLES;
      points.push({ at: key.at + (next.at - key.at) * share, value: segment.at(share) });
    }
  }
  const { at, value } = keys[keys.length - 1];
  return [...points, { at, value }];
}

function extent(points: readonly CurvePoint[]): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const { value } of points) {
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  return [low, high];
}

/**
 * The channel that moves most among those that the dry run touches, or without one among all; its curve stands for the
 * layer. Null without keys.
 */
export function leadingChannel(layer: Layer, runId: string | null = null): ChannelId | null {
  let [best, most] = [null as ChannelId | null, -1];
  const all = tracksOf(layer);
  const touched = runId === null ? [] : all.filter(([, keys]) => keys.some(({ by }) => by?.run === runId));
  for (const [id, keys] of touched.length > 0 ? touched : all) {
    const values = keys.map(({ value }) => value);
    const moved =
      (Math.max(...values) - Math.min(...values)) / (id === 'opacity' ? TYPICAL_OPACITY : TYPICAL[channelOf(id).unit]);
    if (moved > most) [best, most] = [id, moved];
  }
  return best;
}

function isPositionDown(channel: ChannelId): boolean {
  return channel === 'position.y';
}

/** What is drawn in a layer's row: its span, the value curve of its leading channel, and all its keys. */
export function createStrip(layer: Layer, runId: string | null, size: StripSize, standing: Layer = layer): Strip {
  const xOf = (at: Ticks): number => (at / size.length) * size.width;
  const left = Math.max(0, xOf(layer.span.in));
  const width = Math.max(0, Math.min(size.width, xOf(layer.span.out)) - left);
  const channel = leadingChannel(layer, runId);
  if (channel === null)
    return { channel, left, width, curve: '', marks: [], gone: goneTimes(standing, layer).map(xOf) };
  const keys = layer.tracks[channel] as Track;
  const inner = curvePoints(keys);
  const [low, high] = extent(inner);
  const room = size.height - 2 * MARGIN;
  const downwards = isPositionDown(channel) ? 1 : -1;
  const yOf = (value: number): number => {
    const share = high === low ? 0.5 : (value - low) / (high - low);
    return MARGIN + room * (downwards > 0 ? share : 1 - share);
  };
  const slopeScale =
    high === low || size.width === 0 ? 0 : ((room / (high - low)) * downwards * size.length) / size.width;
  const slope = (speed: number): number => Math.max(-STEEPEST, Math.min(STEEPEST, speed * slopeScale));
  const { in: from, out: to } = layer.span;
  const points = [
    { at: from, value: sampleTrack(keys, from) },
    ...inner.filter(({ at }) => at >= from && at <= to),
    { at: to, value: sampleTrack(keys, to) },
  ];
  const curve = points
    .map(({ at, value }, i) => `${i === 0 ? 'M' : 'L'}${xOf(at).toFixed(1)} ${yOf(value).toFixed(1)}`)
    .join('');
  const marks = markTimes(layer, runId).map(([at, isNew]): KeyMark => ({
    at,
    isNew,
    x: xOf(at),
    y: yOf(sampleTrack(keys, at)),
    arrives: slope(trackSpeed(keys, at - 1)),
    leaves: slope(trackSpeed(keys, at)),
  }));
  return { channel, left, width, curve, marks, gone: goneTimes(standing, layer).map(xOf) };
}

function slotOf({ by }: Key): string {
  return by ? `${by.run}/${by.slot}` : '';
}

/** Times at which a layer had keys that are neither there any more nor moved along with it or with their run. */
function goneTimes(before: Layer, after: Layer): Ticks[] {
  if (before === after) return [];
  const gone = new Set<Ticks>();
  const moved = after.span.in - before.span.in;
  for (const [channel, keys] of tracksOf(before)) {
    const now = new Set(after.tracks[channel]?.map(({ at }) => at - moved));
    const slots = new Set(after.tracks[channel]?.map(slotOf));
    for (const key of keys) if (!now.has(key.at) && (!key.by || !slots.has(slotOf(key)))) gone.add(key.at);
  }
  return [...gone];
}

/** Times of all keys of a layer, each once, and whether the dry run made one there. */
function markTimes(layer: Layer, runId: string | null): (readonly [Ticks, boolean])[] {
  const times = new Map<Ticks, boolean>();
  for (const [, keys] of tracksOf(layer)) {
    for (const { at, by } of keys) times.set(at, (times.get(at) ?? false) || (runId !== null && by?.run === runId));
  }
  return [...times].sort(([a], [b]) => a - b);
}
