import {
  easeOfHandles,
  HANDLE_SHARE,
  handlesBetween,
  linkOf,
  reverseEasing,
  unlinked,
  type CurveLink,
  type CurvePoint,
  type Easing,
  type SegmentHandles,
} from '../../basics/easing';
import type { ChannelId } from '../../basics/channel';
import { TICKS_PER_SECOND } from '../../basics/time';
import { isSame } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { changeOf, type HandChange, type HandPicks } from './by-hand';
import { mapPicked, type Entries, type Entry } from './picked';

/** The side of a key on which its curve is changed. */
export type Side = 'arrive' | 'leave';

/** A slope of a curve, in the channel's unit a tick. */
type Slope = number;

/** How far in time the handles of turned slopes reach. */
type Reach = 'as it is' | 'a third';

/** What is to become of the slopes at a picked key; `null` leaves a side as it is. */
type Slopes = Readonly<Record<Side, Slope | null>>;

function evenHandles(from: CurvePoint, to: CurvePoint): SegmentHandles {
  return handlesBetween(from, to, { type: 'linear' }) as SegmentHandles;
}

function slopeOf(from: CurvePoint, to: CurvePoint): Slope {
  return to.at === from.at ? 0 : (to.value - from.value) / (to.at - from.at);
}

/** The slope at which a segment leaves its first key and reaches its second; of no single cubic, that of an even one. */
function slopesOf(from: Entry, to: Entry): Readonly<Record<Side, Slope>> {
  const { leave, arrive } = handlesBetween(from.key, to.key, from.key.ease) ?? evenHandles(from.key, to.key);
  return {
    leave: leave.at === from.key.at ? slopeOf(from.key, arrive) : slopeOf(from.key, leave),
    arrive: arrive.at === to.key.at ? slopeOf(leave, to.key) : slopeOf(arrive, to.key),
  };
}

/** A segment's easing with other slopes at its ends; its handles reach as far in time as they did, or a third each. */
function withSlopes(
  from: Entry,
  to: Entry,
  { leave, arrive }: Readonly<Record<Side, Slope | null>>,
  reach: Reach = 'as it is',
): Easing {
  if (leave === null && arrive === null) return from.key.ease;
  const [a, b] = [from.key, to.key];
  const now = handlesBetween(a, b, a.ease) ?? evenHandles(a, b);
  const third = (b.at - a.at) * HANDLE_SHARE;
  // A handle of no length has no direction to turn: it is drawn out first.
  const isThird = reach === 'a third';
  const out = isThird || now.leave.at <= a.at ? third : now.leave.at - a.at;
  const back = isThird || now.arrive.at >= b.at ? third : b.at - now.arrive.at;
  return easeOfHandles(a, b, {
    leave: leave === null ? now.leave : { at: a.at + out, value: a.value + leave * out },
    arrive: arrive === null ? now.arrive : { at: b.at - back, value: b.value - arrive * back },
  });
}

/** Changes slopes at picked keys; both segments that meet at one are written anew where its sides ask for it. */
function turnSlopes(
  scene: Scene,
  picks: HandPicks,
  slopesAt: (before: Entry | undefined, entry: Entry, after: Entry | undefined) => Slopes,
  reach: Reach = 'as it is',
): HandChange {
  return changeOf(
    scene,
    picks,
    (entries): Entries =>
      new Map(
        [...entries].map(([channel, list]) => {
          const wanted = list.map((entry, i) =>
            entry.isPicked ? slopesAt(list[i - 1], entry, list[i + 1]) : { arrive: null, leave: null },
          );
          const turned = list.map((entry, i): Entry => {
            const next = list[i + 1];
            if (!next) return entry;
            const ends = { leave: wanted[i].leave, arrive: wanted[i + 1].arrive };
            const ease = withSlopes(entry, next, ends, reach);
            return ease === entry.key.ease ? entry : { ...entry, key: { ...entry.key, ease } };
          });
          return [channel, turned];
        }),
      ),
  );
}

/** Motion comes to rest at every picked key, and leaves it from rest. */
export function flattenPicks(scene: Scene, picks: HandPicks): HandChange {
  return turnSlopes(scene, picks, () => ({ arrive: 0, leave: 0 }));
}

/**
 * The slope through a key that joins its neighbours without passing beyond any of the three values.
 * Source: M. Steffen, A simple method for monotonic interpolation in one dimension, A&A 239 (1990), eq. 11.
 */
function smoothSlope(before: CurvePoint, key: CurvePoint, after: CurvePoint): Slope {
  const [h0, h1] = [key.at - before.at, after.at - key.at];
  const [s0, s1] = [slopeOf(before, key), slopeOf(key, after)];
  const p = (s0 * h1 + s1 * h0) / (h0 + h1);
  return (Math.sign(s0) + Math.sign(s1)) * Math.min(Math.abs(s0), Math.abs(s1), 0.5 * Math.abs(p)) || 0;
}

/**
 * Every picked key is passed smoothly, without going beyond its neighbours; a track's first and last one stay at rest.
 * Its handles reach a third of the way, without which the curve could still pass beyond.
 */
export function smoothPicks(scene: Scene, picks: HandPicks): HandChange {
  const slopesAt = (before: Entry | undefined, { key }: Entry, after: Entry | undefined): Slopes => {
    const slope = before && after ? smoothSlope(before.key, key, after.key) : 0;
    return { arrive: slope, leave: slope };
  };
  return turnSlopes(scene, picks, slopesAt, 'a third');
}

/** Motion leaves every picked key at the speed at which it arrived: the mean of the two that it had. */
export function joinPicks(scene: Scene, picks: HandPicks): HandChange {
  return turnSlopes(scene, picks, (before, entry, after) => {
    if (!before || !after) return { arrive: null, leave: null };
    const mean = (slopesOf(before, entry).arrive + slopesOf(entry, after).leave) / 2;
    return { arrive: mean, leave: mean };
  });
}

/** The speed of picked keys on one or both sides, in the channel's unit a tick. */
export function setSpeeds(
  scene: Scene,
  picks: HandPicks,
  sides: readonly Side[],
  speedOf: (before: number) => number,
): HandChange {
  return turnSlopes(scene, picks, (before, entry, after) => ({
    arrive: before && sides.includes('arrive') ? speedOf(slopesOf(before, entry).arrive) : null,
    leave: after && sides.includes('leave') ? speedOf(slopesOf(entry, after).leave) : null,
  }));
}

/** Every picked key leaves by an easing. */
export function easePicks(scene: Scene, picks: HandPicks, ease: Easing): HandChange {
  return changeOf(scene, picks, (entries) => mapPicked(entries, (key) => ({ ...key, ease })));
}

/** The easings of picked keys mirrored between their two values: what left quickly now arrives quickly. */
export function mirrorPicks(scene: Scene, picks: HandPicks): HandChange {
  return changeOf(scene, picks, (entries) => mapPicked(entries, (key) => ({ ...key, ease: mirrored(key.ease) })));
}

/** Free handles are differences of value: mirrored they change places, and their values turn round. */
function mirrored(ease: Easing): Easing {
  if (ease.type !== 'handles') return reverseEasing(ease);
  const turned = ({ time, value }: typeof ease.leave): typeof ease.leave => ({ time, value: -value });
  return { type: 'handles', leave: turned(ease.arrive), arrive: turned(ease.leave) };
}

/** The easings of picked keys lose their link to the library; their shape stays. */
export function unlinkPicks(scene: Scene, picks: HandPicks): HandChange {
  return changeOf(scene, picks, (entries) => mapPicked(entries, (key) => ({ ...key, ease: unlinked(key.ease) })));
}

/** A handle of one key, and where it is drawn to. */
export interface DrawnHandle {
  readonly layer: string;
  readonly channel: ChannelId;
  /** Time of the key, ticks. */
  readonly key: number;
  readonly side: Side;
  readonly to: CurvePoint;
  /** The other side keeps one line with it; its own reach in time stays. */
  readonly isJoined: boolean;
}

/** Draws a handle of a key by hand. A segment that was no single cubic becomes one. */
export function drawHandle(scene: Scene, { layer, channel, key: at, side, to, isJoined }: DrawnHandle): HandChange {
  const picks: HandPicks = new Map([[layer, new Map([[channel, new Set([at])]])]]);
  return changeOf(scene, picks, (entries): Entries => {
    const list = [...(entries.get(channel) ?? [])];
    const i = list.findIndex(({ key }) => key.at === at);
    const [a, b] = side === 'leave' ? [i, i + 1] : [i - 1, i];
    const [from, other] = [list[a], list[b]];
    if (i < 0 || !from || !other) return entries;
    const now = handlesBetween(from.key, other.key, from.key.ease) ?? evenHandles(from.key, other.key);
    list[a] = { ...from, key: { ...from.key, ease: easeOfHandles(from.key, other.key, { ...now, [side]: to }) } };
    const { key } = list[i];
    const slope = side === 'leave' ? slopeOf(key, to) : slopeOf(to, key);
    const c = side === 'leave' ? i - 1 : i;
    const [left, right] = [list[c], list[c + 1]];
    if (isJoined && to.at !== key.at && left && right) {
      const ends = side === 'leave' ? { leave: null, arrive: slope } : { leave: slope, arrive: null };
      list[c] = { ...left, key: { ...left.key, ease: withSlopes(left, right, ends) } };
    }
    return new Map([...entries, [channel, list]]);
  });
}

/** What the easings of picked keys are, side by side: alike, or `null` where they differ. */
export interface PickedCurves {
  /** Strengths of departure and arrival, [0, 1]. */
  readonly departure: number | null;
  readonly arrival: number | null;
  /** Speeds with their sign in the channel's unit a tick, of the sides that have one. */
  readonly leave: number | null;
  readonly arrive: number | null;
  readonly ease: Easing | null;
  readonly link: CurveLink | null;
  /** Keys that have a curve after them. */
  readonly segments: number;
}

/** Strengths that differ by no more are alike. */
const ALIKE = 1e-9;
/** Speeds that do, in a channel's unit a tick: a millionth of it a second. */
const ALIKE_SPEED = 1e-6 / TICKS_PER_SECOND;

function alike(values: readonly number[], within: number): number | null {
  const [first] = values;
  return first !== undefined && values.every((value) => Math.abs(value - first) <= within) ? first : null;
}

/** Reads the curves at picked keys, for fields that show one value or that they differ. */
export function readCurves(scene: Scene, picks: HandPicks): PickedCurves {
  const [departures, arrivals, leaving, arriving]: number[][] = [[], [], [], []];
  const eases: Easing[] = [];
  for (const layer of scene.layers) {
    for (const [channel, times] of picks.get(layer.id) ?? []) {
      const keys = layer.tracks[channel] ?? [];
      keys.forEach((key, i) => {
        if (!times.has(key.at)) return;
        const [before, after] = [keys[i - 1], keys[i + 1]];
        const entry = (one: typeof key): Entry => ({ key: one, isPicked: true });
        if (after) {
          const handles = handlesBetween(key, after, key.ease);
          if (handles) departures.push((handles.leave.at - key.at) / (after.at - key.at));
          leaving.push(slopesOf(entry(key), entry(after)).leave);
          eases.push(key.ease);
        }
        if (before) {
          const handles = handlesBetween(before, key, before.ease);
          if (handles) arrivals.push((key.at - handles.arrive.at) / (key.at - before.at));
          arriving.push(slopesOf(entry(before), entry(key)).arrive);
        }
      });
    }
  }
  const [first] = eases;
  const isOneEase = first !== undefined && eases.every((ease) => ease === first || isSame(ease, first));
  const link = first === undefined ? null : linkOf(first);
  const isOneLink = link !== null && eases.every((ease) => isSame(linkOf(ease), link));
  return {
    departure: alike(departures, ALIKE),
    arrival: alike(arrivals, ALIKE),
    leave: alike(leaving, ALIKE_SPEED),
    arrive: alike(arriving, ALIKE_SPEED),
    ease: isOneEase ? first : null,
    link: isOneLink ? link : null,
    segments: eases.length,
  };
}
