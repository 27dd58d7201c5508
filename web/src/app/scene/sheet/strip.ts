import {
  channelOf,
  createSegment,
  isSame,
  restValue,
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
import { xIn, type TimeWindow } from './time-window';

/** A key that stands, one that the dry run puts where none stood, or one that it puts in the place of another. */
export type MarkKind = 'standing' | 'added' | 'replaced';

/** A key on a strip: a post with two wings that show the slope at which motion arrives and leaves. */
export interface KeyMark {
  readonly x: number;
  readonly y: number;
  /** Screen slopes, −1 … 1, down positive. */
  readonly arrives: number;
  readonly leaves: number;
  readonly kind: MarkKind;
  readonly at: Ticks;
}

/** What a layer’s strip shows: the curve and the marks of keys. */
export interface Strip {
  readonly channel: ChannelId | null;
  /** Where the layer's span lies. */
  readonly left: number;
  readonly width: number;
  /** SVG path of the value curve; empty without keys. */
  readonly curve: string;
  /** The same channel's curve as it stands, where the dry run changes it; else empty. */
  readonly before: string;
  readonly marks: readonly KeyMark[];
  /** Where keys stand that the dry run takes away. */
  readonly gone: readonly number[];
}

/** Room for a strip, and the stretch of time in it. */
export interface StripSize {
  readonly width: number;
  readonly height: number;
  /** The stretch of time across the width. */
  readonly window: TimeWindow;
}

/** How much movement counts as one, so that channels of different units can be compared. */
const TYPICAL: Readonly<Record<ChannelUnit, number>> = { px: 100, deg: 30, share: 1, number: 1 };
/** A fade says less about a layer than where it goes, so it leads only where little else moves. */
const TYPICAL_OPACITY = 3;
/** Points of a segment at most, and how far apart they are at least, px. */
const SAMPLES = 10;
const SAMPLE_PX = 1.5;
const MARGIN = 5;
const STEEPEST = 1;

interface CurvePoint {
  readonly at: Ticks;
  readonly value: number;
}

/** Points of a value curve from its first to its last key, no closer than can be told apart at so many ticks a pixel. */
function curvePoints(keys: Track, pixel: Ticks): CurvePoint[] {
  const points: CurvePoint[] = [];
  for (let i = 0; i + 1 < keys.length; i++) {
    const [key, next] = [keys[i], keys[i + 1]];
    const segment = createSegment(key.ease, key.value, next.value);
    const samples = Math.max(1, Math.min(SAMPLES, Math.ceil((next.at - key.at) / (pixel * SAMPLE_PX))));
    for (let n = 0; n < samples; n++) {
      const share = n / samples;
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

/** A layer in three states: as it is drawn, as it stands, and as the run of the dry run found it. */
export interface StripLayers {
  readonly layer: Layer;
  readonly standing?: Layer | undefined;
  readonly under?: Layer | undefined;
  /** Channels that rigs drive, and what they give; null where none does. */
  readonly driven?: DrivenLayer | null;
}

/** What rigs do to a layer. */
export interface DrivenLayer {
  readonly channels: readonly ChannelId[];
  readonly valueAt: (channel: ChannelId, at: Ticks) => number;
}

/** Points at which a driven curve is looked at. */
const DRIVEN_SAMPLES = 90;
const FEW_SAMPLES = 24;

/** A channel as its rigs drive it, over the stretch of time that is seen. */
function drivenPoints(
  { valueAt }: DrivenLayer,
  channel: ChannelId,
  { span }: Layer,
  { from, span: seen }: TimeWindow,
  samples = DRIVEN_SAMPLES,
): CurvePoint[] {
  const [first, last] = [Math.max(span.in, from), Math.min(span.out, from + seen)];
  return Array.from({ length: samples + 1 }, (_, i) => {
    const at = Math.round(first + ((last - first) * i) / samples);
    return { at, value: valueAt(channel, at) };
  });
}

/** The driven channel that differs most from what its keys alone give, where it is seen; of equal ones the first. */
export function leadingDriven(driven: DrivenLayer, layer: Layer, window: TimeWindow): ChannelId | null {
  let [best, most] = [null as ChannelId | null, -1];
  for (const channel of driven.channels) {
    const keys = layer.tracks[channel];
    const rest = restValue(layer, channel);
    const typical = channel === 'opacity' ? TYPICAL_OPACITY : TYPICAL[channelOf(channel).unit];
    const apart = drivenPoints(driven, channel, layer, window, FEW_SAMPLES).map(({ at, value }) =>
      Math.abs(value - (keys ? sampleTrack(keys, at) : rest)),
    );
    const far = Math.max(...apart) / typical;
    if (far > most) [best, most] = [channel, far];
  }
  return best;
}

/** The part of a curve that lies in a layer's span, from its beginning to its end. */
function withinSpan(points: readonly CurvePoint[], { span }: Layer, keys: Track): CurvePoint[] {
  return [
    { at: span.in, value: sampleTrack(keys, span.in) },
    ...points.filter(({ at }) => at >= span.in && at <= span.out),
    { at: span.out, value: sampleTrack(keys, span.out) },
  ];
}

function isSameTrack(a: Track, b: Track): boolean {
  return a === b || (a.length === b.length && a.every((key, i) => key.at === b[i].at && key.value === b[i].value));
}

/**
 * What is drawn in a layer's row: its span, the value curve of its leading channel, and all its keys, told apart by
 * what the dry run does to them.
 */
export function createStrip(
  { layer, standing, under = layer, driven = null }: StripLayers,
  runId: string | null,
  size: StripSize,
): Strip {
  const xOf = (at: Ticks): number => xIn(size.window, at, size.width);
  const left = Math.max(0, xOf(layer.span.in));
  const width = Math.max(0, Math.min(size.width, xOf(layer.span.out)) - left);
  const lead = driven && leadingDriven(driven, layer, size.window);
  const channel = lead ?? leadingChannel(layer, runId);
  const gone = goneTimes(under, layer).map(xOf);
  if (channel === null) return { channel, left, width, curve: '', before: '', marks: [], gone };
  const keys: Track = layer.tracks[channel] ?? [];
  const pixel = size.window.span / Math.max(1, size.width);
  const old = standing?.tracks[channel];
  const alone = keys.length > 0 ? withinSpan(curvePoints(keys, pixel), layer, keys) : [];
  const rigged = lead && driven ? drivenPoints(driven, lead, layer, size.window) : null;
  const points = rigged ?? alone;
  // Behind a driven curve what its keys alone give, behind others what stands where the dry run changes it.
  const changed = standing && old && !isSameTrack(old, keys) ? withinSpan(curvePoints(old, pixel), standing, old) : [];
  const before = rigged ? alone : changed;
  const [low, high] = extent([...points, ...before]);
  const room = size.height - 2 * MARGIN;
  const downwards = isPositionDown(channel) ? 1 : -1;
  const yOf = (value: number): number => {
    const share = high === low ? 0.5 : (value - low) / (high - low);
    return MARGIN + room * (downwards > 0 ? share : 1 - share);
  };
  const slopeScale =
    high === low || size.width === 0 ? 0 : ((room / (high - low)) * downwards * size.window.span) / size.width;
  const slope = (speed: number): number => Math.max(-STEEPEST, Math.min(STEEPEST, speed * slopeScale));
  const pathOf = (line: readonly CurvePoint[]): string =>
    line.map(({ at, value }, i) => `${i === 0 ? 'M' : 'L'}${xOf(at).toFixed(1)} ${yOf(value).toFixed(1)}`).join('');
  const marks = markTimes(layer, runId, under).map(([at, kind]): KeyMark => ({
    at,
    kind,
    x: xOf(at),
    y: keys.length === 0 ? size.height / 2 : yOf(sampleTrack(keys, at)),
    arrives: keys.length === 0 ? 0 : slope(trackSpeed(keys, at - 1)),
    leaves: keys.length === 0 ? 0 : slope(trackSpeed(keys, at)),
  }));
  return { channel, left, width, curve: pathOf(points), before: pathOf(before), marks, gone };
}

/** Pixels between posts from which each has its wings whole; nearer ones fold them. */
const AIRY = 10;
/** Posts nearer than this to the one before are left out: they could not be told apart. */
const TOUCHING = 1.6;

/** A mark with how far its wings reach, 0 to 1. */
export interface ThinnedMark extends KeyMark {
  readonly wing: number;
}

/** Marks as they can be told apart at their distance: wings fold where posts come near, and posts that touch become one. */
export function thinned(marks: readonly KeyMark[]): ThinnedMark[] {
  const apart: KeyMark[] = [];
  for (const mark of marks) {
    const last = apart[apart.length - 1];
    if (last && mark.x - last.x < TOUCHING) {
      // What the dry run does is seen before what stands.
      if (last.kind === 'standing' && mark.kind !== 'standing') apart[apart.length - 1] = mark;
      continue;
    }
    apart.push(mark);
  }
  return apart.map((mark, i) => {
    const room = Math.min(mark.x - (apart[i - 1]?.x ?? -Infinity), (apart[i + 1]?.x ?? Infinity) - mark.x);
    return { ...mark, wing: Math.min(1, Math.max(0, room / AIRY)) };
  });
}

/** A strip as words: at how many times keys stand, are added, take the place of others and go. */
export function stripWords({ marks, gone }: Strip): string {
  const count = (kind: MarkKind): number => marks.filter((mark) => mark.kind === kind).length;
  const counted: readonly (readonly [number, string])[] = [
    [count('standing'), 'kept'],
    [count('added'), 'added'],
    [count('replaced'), 'replaced'],
    [gone.length, 'removed'],
  ];
  const said = counted.filter(([number]) => number > 0).map(([number, word]) => `${number} ${word}`);
  return said.length === 0 ? 'No keys' : `Keys: ${said.join(', ')}`;
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

/** True for a key that is as it stood, wherever its layer has moved. */
function isSameKey(before: Key | undefined, { value, ease, by }: Key): boolean {
  return before?.value === value && isSame(before.ease, ease) && isSame(before.by, by);
}

/** Times of all keys of a layer, each once, with the most that the dry run does there on any channel. */
function markTimes(layer: Layer, runId: string | null, under: Layer): (readonly [Ticks, MarkKind])[] {
  const moved = layer.span.in - under.span.in;
  const times = new Map<Ticks, MarkKind>();
  for (const [channel, keys] of tracksOf(layer)) {
    const old = runId === null || layer === under ? [] : (under.tracks[channel] ?? []);
    const stood = new Map(old.map((key) => [key.at + moved, key]));
    for (const key of keys) {
      const { at, by } = key;
      // A run makes keys of its own, or other ones of those that stand.
      const isMade = runId !== null && (by?.run === runId || (layer !== under && !isSameKey(stood.get(at), key)));
      if (isMade && stood.has(at)) times.set(at, 'replaced');
      else if (!times.has(at) || (isMade && times.get(at) === 'standing')) times.set(at, isMade ? 'added' : 'standing');
    }
  }
  return [...times].sort(([a], [b]) => a - b);
}
