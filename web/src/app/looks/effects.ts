import type { ChannelId, Layer, LayerLook } from '@wexikine/core';

/** Something that can be added to the look of layers and taken away again. */
export interface Effect {
  readonly id: string;
  readonly label: string;
  /** The colour among the parts of a look that belongs to it; null for one that has none. */
  readonly colour: 'shadow' | 'inner' | 'glow' | 'tint' | 'border' | null;
  readonly channels: readonly { readonly id: ChannelId; readonly label: string; readonly first: number }[];
  /** The part of a look that it is, where it is neither a colour nor channels. */
  readonly part?: 'motionBlur' | 'cutout' | 'two';
  /** It is for pictures alone. */
  readonly isForPictures?: true;
  /** What it begins with in the look. */
  readonly look: Partial<LayerLook>;
}

function effect(
  id: string,
  label: string,
  colour: Effect['colour'],
  look: Partial<LayerLook>,
  channels: readonly (readonly [ChannelId, string, number])[],
): Effect {
  return {
    id,
    label,
    colour,
    look,
    channels: channels.map(([channel, text, first]) => ({ id: channel, label: text, first })),
  };
}

/** Everything that can be added to the look of layers, in the order of the panel. */
export const EFFECTS: readonly Effect[] = [
  effect('border', 'Border', 'border', { border: { colour: '#fdf8ea', side: 'outside' } }, [
    ['border.width', 'Width', 4],
  ]),
  effect('shadow', 'Shadow', 'shadow', { shadow: '#000000' }, [
    ['shadow.x', 'Across', 0],
    ['shadow.y', 'Down', 8],
    ['shadow.blur', 'Softness', 12],
    ['shadow.spread', 'Spread', 0],
    ['shadow.opacity', 'Strength', 0.5],
  ]),
  effect('inner', 'Inner shadow', 'inner', { inner: '#000000' }, [
    ['inner.x', 'Across', 0],
    ['inner.y', 'Down', 6],
    ['inner.blur', 'Softness', 10],
    ['inner.spread', 'Spread', 0],
    ['inner.opacity', 'Strength', 0.5],
  ]),
  effect('glow', 'Glow', 'glow', { glow: '#ffe2a0' }, [
    ['glow.size', 'Size', 18],
    ['glow.opacity', 'Strength', 0.8],
  ]),
  effect('tint', 'Tint', 'tint', { tint: '#c7761b' }, [['tint.amount', 'Amount', 0.3]]),
  effect('blur', 'Blur', null, {}, [['blur', 'Softness', 6]]),
  effect('streak', 'Streak', null, {}, [
    ['streak.length', 'Length', 40],
    ['streak.angle', 'Direction', 0],
  ]),
  {
    ...effect('motion-blur', 'Motion blur', null, { motionBlur: { angle: 180, phase: -90, samples: 12 } }, [
      ['motion.blur', 'Amount', 1],
    ]),
    part: 'motionBlur',
  },
  {
    ...effect('cutout', 'Cut-out', null, { cutout: { by: 'dark' } }, [
      ['cutout.tolerance', 'Tolerance', 0.1],
      ['cutout.softness', 'Softness', 0.1],
      ['cutout.spill', 'Spill removed', 0],
    ]),
    part: 'cutout',
    isForPictures: true,
  },
  {
    ...effect('two', 'Two colours', null, { two: { dark: '#1b2140', light: '#f3c98b' } }, [
      ['colour.two', 'Amount', 1],
    ]),
    part: 'two',
  },
  effect('colour', 'Colours', null, {}, [
    ['colour.brightness', 'Brightness', 1],
    ['colour.contrast', 'Contrast', 1],
    ['colour.saturation', 'Saturation', 1],
    ['colour.hue', 'Hue turn', 0],
    ['colour.grey', 'To greys', 0],
  ]),
];

/** True for a layer that has an effect: its colour, or a rest value or keys of one of its channels. */
export function hasEffect({ look, rest, tracks }: Layer, { colour, part, channels }: Effect): boolean {
  if (part !== undefined) return look[part] !== undefined;
  if (colour !== null) return look[colour] !== undefined;
  return channels.some(({ id }) => rest[id] !== undefined || tracks[id] !== undefined);
}

/** A layer with an effect as it begins; what it has of it already stays. */
export function withEffect(layer: Layer, { look, channels }: Effect): Pick<Layer, 'look' | 'rest'> {
  const first = Object.fromEntries(channels.map(({ id, first: value }) => [id, value]));
  return { look: { ...look, ...layer.look }, rest: { ...first, ...layer.rest } };
}

/** A layer without an effect; keys of its channels stay and are drawn no more, unless it goes by its channels alone. */
export function withoutEffect(layer: Layer, { colour, part, channels }: Effect): Pick<Layer, 'look' | 'rest'> {
  const gone = new Set<string>(channels.map(({ id }) => id));
  const own = colour ?? part ?? null;
  const look =
    own === null ? layer.look : Object.fromEntries(Object.entries(layer.look).filter(([name]) => name !== own));
  return {
    look: look as LayerLook,
    rest: Object.fromEntries(Object.entries(layer.rest).filter(([id]) => !gone.has(id))),
  };
}
