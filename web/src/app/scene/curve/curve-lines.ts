import {
  CHANNEL_IDS,
  channelOf,
  isDialLayer,
  drivenTrack,
  frameTicks,
  type ChannelId,
  type CompiledRigs,
  type HandPicks,
  type Layer,
  type Scene,
  type Track,
} from '@wexikine/core';

/** One channel of one layer in the curve view. */
export interface CurveLine {
  readonly id: string;
  readonly layer: Layer;
  readonly channel: ChannelId;
  /** What is drawn: the keys, or what rigs give with them. */
  readonly drawn: Track;
  /** Empty where a rig drives a channel without keys. */
  readonly keys: Track;
  /** Of the selected layer: with its keys and handles. */
  readonly isOwn: boolean;
}

/** What a line is called: a channel of its layer, or a dial. */
export function lineWords({ layer, channel }: Pick<CurveLine, 'layer' | 'channel'>): string {
  return isDialLayer(layer.id) ? layer.name : `${channelOf(channel).label} of “${layer.name}”`;
}

/** Other layers that are drawn behind the selected one at most, where there is room for any. */
export const MOST_OTHERS = 60;
/** Points of a driven curve at most; a layer may be very long. */
const MOST_POINTS = 600;

/** Channels of a layer that have a curve. */
export function curveChannels(layer: Layer | null, index: number, rigs: CompiledRigs | null): ChannelId[] {
  if (!layer) return [];
  return CHANNEL_IDS.filter((id) => layer.tracks[id] !== undefined || (index >= 0 && rigs?.drives(index, id) === true));
}

function drawnTrack(scene: Scene, index: number, channel: ChannelId, rigs: CompiledRigs | null): Track | null {
  const layer = scene.layers[index];
  if (!rigs?.drives(index, channel)) return layer.tracks[channel] ?? null;
  const step = Math.max(frameTicks(scene.rate), (layer.span.out - layer.span.in) / MOST_POINTS);
  return drivenTrack(rigs, index, channel, [layer.span.in, layer.span.out], step);
}

/** The curves that are shown: of the selected layer, and behind it of other layers that have picked keys. */
export function curveLines(
  scene: Scene,
  selected: string | null,
  picks: HandPicks,
  channels: readonly ChannelId[],
  rigs: CompiledRigs | null,
  most = MOST_OTHERS,
): CurveLine[] {
  const others: CurveLine[] = [];
  const own: CurveLine[] = [];
  let count = 0;
  scene.layers.forEach((layer, index) => {
    const isOwn = layer.id === selected;
    if (!isOwn && (!picks.has(layer.id) || count >= most)) return;
    if (!isOwn) count++;
    for (const channel of channels) {
      const drawn = drawnTrack(scene, index, channel, rigs);
      if (!drawn || drawn.length === 0) continue;
      const keys = layer.tracks[channel] ?? [];
      (isOwn ? own : others).push({ id: `${layer.id} ${channel}`, layer, channel, drawn, keys, isOwn });
    }
  });
  return [...others, ...own];
}
