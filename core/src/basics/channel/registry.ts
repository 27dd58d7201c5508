import * as z from '../schema';

/** Unit of a channel's numbers. `share` is shown as per cent: 1 is 100 %. */
export type ChannelUnit = 'px' | 'deg' | 'share' | 'number';

/** What a channel is about; facets, colours and the matrix of a preset group by it. */
export type ChannelFamily =
  | 'position'
  | 'scale'
  | 'rotation'
  | 'opacity'
  | 'size'
  | 'colour'
  | 'stroke'
  | 'letter spacing'
  | 'words'
  | 'blur'
  | 'crop'
  | 'clip'
  | 'shadow'
  | 'border'
  | 'mask';

interface ChannelFacts {
  readonly label: string;
  readonly family: ChannelFamily;
  readonly unit: ChannelUnit;
  /** Value of a layer that says nothing about this channel. */
  readonly default: number;
  /** Values below or above are clamped when drawn. */
  readonly min: number;
  readonly max: number;
}

function channel(
  label: string,
  family: ChannelFamily,
  unit: ChannelUnit,
  standard: number,
  min = -1e9,
  max = 1e9,
): ChannelFacts {
  return { label, family, unit, default: standard, min, max };
}

/** Every animatable number of a layer. To add a channel, add a line here and draw it in the `paint` workspace. */
const REGISTRY = {
  'position.x': channel('position x', 'position', 'px', 0),
  'position.y': channel('position y', 'position', 'px', 0),
  'path.distance': channel('way along the path', 'position', 'share', 0),
  'anchor.x': channel('anchor x', 'position', 'share', 0.5),
  'anchor.y': channel('anchor y', 'position', 'share', 0.5),
  'scale.x': channel('scale x', 'scale', 'share', 1),
  'scale.y': channel('scale y', 'scale', 'share', 1),
  rotation: channel('rotation', 'rotation', 'deg', 0),
  skew: channel('skew', 'rotation', 'deg', 0, -89, 89),
  opacity: channel('opacity', 'opacity', 'share', 1, 0, 1),
  'size.x': channel('width', 'size', 'px', 100, 0),
  'size.y': channel('height', 'size', 'px', 100, 0),
  corner: channel('corner', 'size', 'px', 0, 0),
  'fill.l': channel('fill lightness', 'colour', 'number', 0, 0, 1),
  'fill.a': channel('fill green–red', 'colour', 'number', 0, -0.5, 0.5),
  'fill.b': channel('fill blue–yellow', 'colour', 'number', 0, -0.5, 0.5),
  'fill.turn': channel('gradient turn', 'colour', 'deg', 0),
  'stroke.l': channel('stroke lightness', 'colour', 'number', 0, 0, 1),
  'stroke.a': channel('stroke green–red', 'colour', 'number', 0, -0.5, 0.5),
  'stroke.b': channel('stroke blue–yellow', 'colour', 'number', 0, -0.5, 0.5),
  'stroke.width': channel('stroke width', 'stroke', 'px', 0, 0),
  'stroke.start': channel('stroke start', 'stroke', 'share', 0, 0, 1),
  'stroke.end': channel('stroke end', 'stroke', 'share', 1, 0, 1),
  'stroke.shift': channel('stroke shift', 'stroke', 'share', 0),
  letterSpacing: channel('letter spacing', 'letter spacing', 'px', 0),
  'words.shown': channel('letters shown', 'words', 'share', 1, 0, 1),
  'words.number': channel('number in words', 'words', 'number', 0),
  blur: channel('blur', 'blur', 'px', 0, 0, 500),
  'crop.x': channel('crop centre x', 'crop', 'share', 0.5, 0, 1),
  'crop.y': channel('crop centre y', 'crop', 'share', 0.5, 0, 1),
  'crop.zoom': channel('crop zoom', 'crop', 'share', 1, 0.01, 100),
  'clip.time': channel('time in the clip', 'clip', 'number', 0, 0, 1e6),
  'shadow.x': channel('shadow x', 'shadow', 'px', 0),
  'shadow.y': channel('shadow y', 'shadow', 'px', 0),
  'shadow.blur': channel('shadow blur', 'shadow', 'px', 0, 0, 500),
  'shadow.spread': channel('shadow spread', 'shadow', 'px', 0, 0, 500),
  'shadow.opacity': channel('shadow opacity', 'shadow', 'share', 0, 0, 1),
  // Further shadows: what is added to their own numbers, and how much of each is seen.
  'shadow2.x': channel('second shadow x', 'shadow', 'px', 0),
  'shadow2.y': channel('second shadow y', 'shadow', 'px', 0),
  'shadow2.blur': channel('second shadow blur', 'shadow', 'px', 0, -500, 500),
  'shadow2.spread': channel('second shadow spread', 'shadow', 'px', 0, -500, 500),
  'shadow2.opacity': channel('second shadow opacity', 'shadow', 'share', 1, 0, 1),
  'shadow3.x': channel('third shadow x', 'shadow', 'px', 0),
  'shadow3.y': channel('third shadow y', 'shadow', 'px', 0),
  'shadow3.blur': channel('third shadow blur', 'shadow', 'px', 0, -500, 500),
  'shadow3.spread': channel('third shadow spread', 'shadow', 'px', 0, -500, 500),
  'shadow3.opacity': channel('third shadow opacity', 'shadow', 'share', 1, 0, 1),
  'inner.x': channel('inner shadow x', 'shadow', 'px', 0),
  'inner.y': channel('inner shadow y', 'shadow', 'px', 0),
  'inner.blur': channel('inner shadow blur', 'shadow', 'px', 0, 0, 500),
  'inner.spread': channel('inner shadow spread', 'shadow', 'px', 0, 0, 500),
  'inner.opacity': channel('inner shadow opacity', 'shadow', 'share', 0, 0, 1),
  'glow.size': channel('glow size', 'shadow', 'px', 0, 0, 500),
  'glow.opacity': channel('glow opacity', 'shadow', 'share', 0, 0, 1),
  'border.width': channel('border width', 'border', 'px', 0, 0),
  'border.turn': channel('border gradient turn', 'border', 'deg', 0),
  'streak.length': channel('streak length', 'blur', 'px', 0, 0, 2_000),
  'streak.angle': channel('streak angle', 'blur', 'deg', 0),
  'motion.blur': channel('motion blur', 'blur', 'share', 1, 0, 2),
  'colour.brightness': channel('brightness', 'colour', 'share', 1, 0, 10),
  'colour.contrast': channel('contrast', 'colour', 'share', 1, 0, 10),
  'colour.saturation': channel('saturation', 'colour', 'share', 1, 0, 10),
  'colour.hue': channel('hue turn', 'colour', 'deg', 0),
  'colour.grey': channel('to greys', 'colour', 'share', 0, 0, 1),
  'colour.two': channel('to two colours', 'colour', 'share', 0, 0, 1),
  'tint.amount': channel('tint', 'colour', 'share', 0, 0, 1),
  'cutout.tolerance': channel('cut-out tolerance', 'mask', 'share', 0.1, 0, 2),
  'cutout.softness': channel('cut-out softness', 'mask', 'share', 0.1, 0, 2),
  'cutout.spill': channel('cut-out spill', 'mask', 'share', 0, 0, 1),
  'mask.x': channel('mask x', 'mask', 'share', 0),
  'mask.y': channel('mask y', 'mask', 'share', 0),
  'mask.scale': channel('mask scale', 'mask', 'share', 1, 0),
  'mask.rotation': channel('mask rotation', 'mask', 'deg', 0),
  'mask.soft': channel('mask softness', 'mask', 'px', 0, 0, 500),
  // Single masks, before all are moved together: what is added to their own numbers, and shares of their width and height.
  'mask1.x': channel('mask 1 x', 'mask', 'share', 0),
  'mask1.y': channel('mask 1 y', 'mask', 'share', 0),
  'mask1.width': channel('mask 1 width', 'mask', 'share', 1, 0),
  'mask1.height': channel('mask 1 height', 'mask', 'share', 1, 0),
  'mask1.rotation': channel('mask 1 rotation', 'mask', 'deg', 0),
  'mask1.soft': channel('mask 1 softness', 'mask', 'px', 0, -500, 500),
  'mask2.x': channel('mask 2 x', 'mask', 'share', 0),
  'mask2.y': channel('mask 2 y', 'mask', 'share', 0),
  'mask2.width': channel('mask 2 width', 'mask', 'share', 1, 0),
  'mask2.height': channel('mask 2 height', 'mask', 'share', 1, 0),
  'mask2.rotation': channel('mask 2 rotation', 'mask', 'deg', 0),
  'mask2.soft': channel('mask 2 softness', 'mask', 'px', 0, -500, 500),
  'mask3.x': channel('mask 3 x', 'mask', 'share', 0),
  'mask3.y': channel('mask 3 y', 'mask', 'share', 0),
  'mask3.width': channel('mask 3 width', 'mask', 'share', 1, 0),
  'mask3.height': channel('mask 3 height', 'mask', 'share', 1, 0),
  'mask3.rotation': channel('mask 3 rotation', 'mask', 'deg', 0),
  'mask3.soft': channel('mask 3 softness', 'mask', 'px', 0, -500, 500),
} as const satisfies Record<string, ChannelFacts>;

/** The name of a channel, such as `position.x`. */
export type ChannelId = keyof typeof REGISTRY;

/** A channel with its name and its slot. */
export interface Channel extends ChannelFacts {
  readonly id: ChannelId;
  /** Place in the flat arrays of a compiled scene. */
  readonly slot: number;
}

/** All channels in the order of their slots. */
export const CHANNELS: readonly Channel[] = (Object.keys(REGISTRY) as ChannelId[]).map((id, slot) => ({
  id,
  slot,
  ...REGISTRY[id],
}));

/** How many channels there are: numbers a layer takes in a sampled frame. */
export const CHANNEL_COUNT = CHANNELS.length;

/** The names of all channels in the order of their slots. */
export const CHANNEL_IDS: readonly ChannelId[] = CHANNELS.map(({ id }) => id);

const BY_ID = new Map<string, Channel>(CHANNELS.map((entry) => [entry.id, entry]));

/** The name of a channel as data. */
export const channelIdSchema = z.enum(Object.keys(REGISTRY) as [ChannelId, ...ChannelId[]]);

/** Facts of a channel. */
export function channelOf(id: ChannelId): Channel {
  return BY_ID.get(id) as Channel;
}

/** Facts of a channel by a name that may be wrong; null for an unknown one. */
export function maybeChannel(name: string): Channel | null {
  return BY_ID.get(name) ?? null;
}

/** A value limited to what the channel can draw. */
export function clampToChannel(id: ChannelId, value: number): number {
  const { min, max } = channelOf(id);
  return Math.min(max, Math.max(min, value));
}

/** How many of a channel's units a number that people type is: shares are typed as per cent. */
export function perUnit(id: ChannelId): number {
  return channelOf(id).unit === 'share' ? 100 : 1;
}

/** A channel's value for people: "120 %", "−6°", "40 px". */
export function formatChannelValue(id: ChannelId, value: number): string {
  const round = (number: number, digits: number): string => String(Number(number.toFixed(digits))).replace('-', '−');
  switch (channelOf(id).unit) {
    case 'share':
      return `${round(value * 100, 1)} %`;
    case 'deg':
      return `${round(value, 1)}°`;
    case 'px':
      return `${round(value, 1)} px`;
    case 'number':
      return round(value, 3);
  }
}
