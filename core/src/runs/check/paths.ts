import type { ChannelId } from '../../basics/channel';
import type { Layer } from '../../scene/layer';
import type { Finding } from '../finding';

/** Layers that shall go along a path and have none; nothing where the channel is not among those given. */
export function findPathless(channels: readonly ChannelId[], layers: readonly Layer[]): Finding[] {
  if (!channels.includes('path.distance')) return [];
  const pathless = layers.filter(({ path }) => !path).map(({ id }) => id);
  return pathless.length > 0 ? [{ code: 'no-path', layers: pathless }] : [];
}
