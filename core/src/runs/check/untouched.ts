import type { ChannelId } from '../../basics/channel';
import type { Layer } from '../../scene/layer';
import type { Finding } from '../finding';

function ids(layers: readonly Layer[], isIdle: (layer: Layer) => boolean): string[] {
  return layers.filter(isIdle).map(({ id }) => id);
}

/** Layers on which some of the channels change nothing, as they have no path to go along, no words, or no number in them. */
export function findUntouched(channels: readonly ChannelId[], layers: readonly Layer[]): Finding[] {
  const pathless = channels.includes('path.distance') ? ids(layers, ({ path }) => !path) : [];
  const wordless = channels.includes('words.shown') ? ids(layers, ({ source }) => source.type !== 'text') : [];
  const countless = channels.includes('words.number')
    ? ids(layers, ({ source }) => source.type !== 'text' || source.number === undefined)
    : [];
  return [
    ...(pathless.length > 0 ? [{ code: 'no-path' as const, layers: pathless }] : []),
    ...(wordless.length > 0 ? [{ code: 'no-words' as const, layers: wordless }] : []),
    ...(countless.length > 0 ? [{ code: 'no-number-shown' as const, layers: countless }] : []),
  ];
}
