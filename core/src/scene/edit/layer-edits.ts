import type { ChannelId } from '../../basics/channel';
import { isSame, tracksOf, type Layer } from '../layer';
import type { Edit } from './edit';

/**
 * The edits that lead from a layer to what it becomes: its span, its rest pose, its look, its data and its keys. They share the layer's lists,
 * so that handing both to another thread costs little more than handing over one.
 */
export function layerEdits(before: Layer, after: Layer): Edit[] {
  if (before === after) return [];
  const fields: Partial<Layer> = {
    ...(isSame(before.span, after.span) ? {} : { span: after.span }),
    ...(isSame(before.rest, after.rest) ? {} : { rest: after.rest }),
    ...(isSame(before.look, after.look) ? {} : { look: after.look }),
    ...(isSame(before.data, after.data) ? {} : { data: after.data }),
  };
  const edits: Edit[] = Object.keys(fields).length > 0 ? [{ type: 'set-layer', layer: before.id, fields }] : [];
  const channels = new Set<ChannelId>([...tracksOf(before), ...tracksOf(after)].map(([channel]) => channel));
  for (const channel of channels) {
    const [old, keys] = [before.tracks[channel], after.tracks[channel]];
    if (!isSame(old, keys)) edits.push({ type: 'set-track', layer: before.id, channel, keys: keys ?? null });
  }
  return edits;
}
