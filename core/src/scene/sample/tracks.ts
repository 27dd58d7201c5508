import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import type { Layer, Track } from '../layer';
import { createPresent, type Present } from './present';
import { createSegmentTable, type SegmentTable } from './segment-table';

/**
 * All tracks of a scene, in one order. Their keys are looked at where a time enters the segment after them, so that a scene
 * of a million keys is compiled as soon as one of a thousand.
 */
export interface CompiledTracks {
  /** Where each track writes: layer index · CHANNEL_COUNT + slot. */
  readonly target: Int32Array;
  readonly segments: SegmentTable;
  /** The segments that were last looked at, a memo that makes playing fast; it never changes a result. */
  readonly present: Present;
}

/** Gathers the tracks of layers. */
export function compileTracks(layers: readonly Layer[]): CompiledTracks {
  const target: number[] = [];
  const keys: Track[] = [];
  layers.forEach(({ tracks }, index) => {
    for (const id in tracks) {
      target.push(index * CHANNEL_COUNT + channelOf(id as ChannelId).slot);
      keys.push(tracks[id as ChannelId] as Track);
    }
  });
  return {
    target: Int32Array.from(target),
    segments: createSegmentTable(keys),
    present: createPresent(keys.length),
  };
}
