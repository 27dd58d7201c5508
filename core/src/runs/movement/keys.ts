import type { ChannelId } from '../../basics/channel';
import type { Easing } from '../../basics/easing';
import type { Ticks } from '../../basics/time';

/** A key of a movement: its time from where the preset begins, and its slot. */
export interface MovementKey {
  readonly after: Ticks;
  readonly value: number;
  readonly ease: Easing;
  readonly slot: string;
}

/** The keys of one channel, in order of time. */
export interface MovementTrack {
  readonly channel: ChannelId;
  readonly keys: readonly MovementKey[];
}

/** What a movement knows of one layer. */
export interface MovementLayer {
  /** Value of one of its numbers. */
  readonly number: (field: string) => number;
  /** Value of a name of the preset, such as `frame.width`. */
  readonly name: (name: string) => number;
  readonly rest: (channel: ChannelId) => number;
  readonly place: number;
  /** Times from the preset's beginning. Where a movement ends by itself, `to` is where it begins. */
  readonly from: Ticks;
  readonly to: Ticks;
  /** By how much the preset is stretched. */
  readonly factor: number;
  readonly frame: Ticks;
  /** A time where keys may stand: on a frame, where the preset wants that. */
  readonly snap: (at: Ticks) => Ticks;
  readonly ease: Easing;
  /** What layers share that have all of these in common, made once for them. */
  readonly shared: <T extends object>(alike: readonly (number | Easing)[], make: () => T) => T;
}

/** Keys without those that came to stand no later than the one before. */
export function ascending(keys: readonly MovementKey[]): MovementKey[] {
  const kept: MovementKey[] = [];
  for (const key of keys) {
    const last = kept.at(-1);
    if (last && key.after <= last.after) kept[kept.length - 1] = { ...key, after: last.after };
    else kept.push(key);
  }
  return kept;
}
