import type { Key, Track } from '../../scene/layer';
import { cutSegment, keyBefore, sampleTrack } from '../../scene/sample';
import type { Ticks } from '../../basics/time';
import { namedParts, partOf } from './names';

/** What putting new keys over old ones gives on one channel. */
export interface Merged {
  readonly keys: readonly Key[];
  /** Old keys that are no longer there. */
  readonly removed: readonly Key[];
}

function touches(made: readonly Key[]): (key: Key) => boolean {
  const [from, to] = [made[0].at, made[made.length - 1].at];
  return ({ at }) => at >= from && at <= to;
}

const HOLD = { type: 'hold' } as const;
/** Values closer than this, as a share of their size, are one. */
const ALIKE = 1e-9;

function isAlike(a: number, b: number): boolean {
  return Math.abs(a - b) <= ALIKE * (1 + Math.abs(a) + Math.abs(b));
}

/**
 * The old keys before a time, with the motion up to it as it was, however the value goes on from there. Where it goes
 * on from another one, the standing value holds until then: a moving one is kept up to the last tick before. Before its
 * first key a track stands at that key's value; only what is added on top keeps that, a replacing run begins the track.
 */
function keptBefore(old: Track, made: Key, isAdded: boolean): readonly Key[] {
  const { at, value } = made;
  const index = keyBefore(old, at - 1);
  const before = old.slice(0, index + 1);
  const [last, next] = [old[index], old[index + 1]];
  const holdingAt = (time: Ticks, held: number): Key => {
    const by = partOf(made, 'held');
    return { at: time, value: held, ease: HOLD, ...(by ? { by } : {}) };
  };
  if (!last) return isAdded && !isAlike(old[0].value, value) ? [holdingAt(at - 1, old[0].value)] : [];
  const isEven = !next || (last.value === next.value && last.ease.type !== 'handles');
  if (isEven || last.ease.type === 'hold') {
    return isAlike(last.value, value) ? before : [...before.slice(0, -1), { ...last, ease: HOLD }];
  }
  const standing = cutAt(last, next, at);
  if (isAlike(standing.value, value)) return [...before.slice(0, -1), ...namedParts(standing.before, made, 'before')];
  if (at - 1 <= last.at) return [...before.slice(0, -1), { ...last, ease: HOLD }];
  const held = cutAt(last, next, at - 1);
  return [...before.slice(0, -1), ...namedParts(held.before, made, 'before'), holdingAt(at - 1, held.value)];
}

/** A segment cut at a time; at its end it is whole. */
function cutAt(key: Key, next: Key, at: Ticks): { readonly before: readonly Key[]; readonly value: number } {
  return at === next.at ? { before: [key], value: next.value } : cutSegment(key, next, at);
}

/**
 * How the last new key goes on to the old ones after it: where the old motion is met, as that went on; where another
 * value stands there, the new value holds, so that nothing slides slowly from one to the other.
 */
function goesOn(old: Track, end: Key): readonly Key[] {
  const index = keyBefore(old, end.at);
  const [last, next] = [old[index], old[index + 1]];
  if (!next || isAlike(next.value, end.value)) return [end];
  if (!last || !isAlike(sampleTrack(old, end.at), end.value)) return [{ ...end, ease: HOLD }];
  const rest = last.at === end.at ? [last] : cutSegment(last, next, end.at).after;
  const [first, ...others] = namedParts(rest, end, 'after');
  return [{ ...end, ease: first.ease }, ...others];
}

/** New keys over the old ones between the first and the last of them. */
export function replaceTouched(old: Track, made: readonly Key[], isAdded = false): Merged {
  const isTouched = touches(made);
  const end = made[made.length - 1];
  const after = old.filter(({ at }) => at > end.at);
  const ends = goesOn(old, end);
  return {
    keys: [...keptBefore(old, made[0], isAdded), ...made.slice(0, -1), ...ends, ...after],
    removed: old.filter(isTouched),
  };
}
