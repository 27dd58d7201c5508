import type { ChannelId } from '../../basics/channel';
import { withKeys, type Key, type Layer, type Track } from '../../scene/layer';
import type { OverExisting } from '../../scene/recipe';
import { addOnTop } from './sum';
import { replaceTouched, type Merged } from './touched';

/** A layer's tracks without the keys of some runs, whose place a new one takes. */
export function withoutRuns(tracks: Layer['tracks'], isGone: (run: string) => boolean): Layer['tracks'] {
  let kept = tracks;
  for (const [channel, keys] of Object.entries(tracks) as [ChannelId, Track][]) {
    const others = keys.filter(({ by }) => !by || !isGone(by.run));
    if (others.length < keys.length) kept = withKeys(kept, channel, others);
  }
  return kept;
}

/**
 * Puts new keys over the old ones of a channel. `made` is not empty and in order of time.
 * Adding on top is exact where the old track stands still; where it moves, the sum is fitted within 0.1 % of the way.
 */
export function mergeKeys(
  old: Track | undefined,
  made: readonly Key[],
  way: OverExisting,
  channel: ChannelId,
  rest: number,
): Merged {
  if (!old || old.length === 0) return { keys: made, removed: [] };
  switch (way) {
    case 'replace':
    case 'take-place':
      return replaceTouched(old, made);
    case 'replace-channels':
      return { keys: made, removed: old };
    case 'add':
      return addOnTop(old, made, channel, rest);
    case 'leave':
      return { keys: old, removed: [] };
  }
}
