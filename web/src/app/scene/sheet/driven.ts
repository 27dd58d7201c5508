import { CHANNEL_IDS, type CompiledRigs } from '@wexikine/core';
import type { DrivenLayer } from './strip';

/** What rigs do to a layer of a compiled scene; null where they drive none of its channels. */
export function drivenLayer(rigs: CompiledRigs, index: number): DrivenLayer | null {
  const channels = CHANNEL_IDS.filter((channel) => rigs.drives(index, channel));
  return channels.length === 0 ? null : { channels, valueAt: (channel, at) => rigs.valueAt(index, channel, at) };
}
