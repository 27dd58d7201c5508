import { CHANNEL_IDS, type ChannelId } from '../../basics/channel';
import { firstColour, type LayerLook, type LookPart, type LookParts } from '../../scene/layer';
import type { ColourPart, StylePart } from '../../scene/recipe';

interface PartFacts {
  readonly label: string;
  readonly look: readonly LookPart[];
  readonly channels: readonly ChannelId[];
}

function family(...names: readonly string[]): ChannelId[] {
  return CHANNEL_IDS.filter((id) => names.includes(id.split('.')[0].replace(/\d$/, '')));
}

/** What each part of a look is made of. */
export const PARTS: Readonly<Record<StylePart, PartFacts>> = {
  fill: { label: 'fill', look: ['fill'], channels: family('fill') },
  stroke: {
    label: 'stroke',
    look: ['stroke', 'cap', 'join', 'dash'],
    channels: ['stroke.width', 'stroke.l', 'stroke.a', 'stroke.b'],
  },
  border: { label: 'border', look: ['border'], channels: family('border') },
  shadow: { label: 'shadows', look: ['shadow', 'shadows'], channels: family('shadow') },
  inner: { label: 'inner shadow', look: ['inner'], channels: family('inner') },
  glow: { label: 'glow', look: ['glow'], channels: family('glow') },
  tint: { label: 'tint', look: ['tint'], channels: family('tint') },
  colours: { label: 'colours', look: [], channels: family('colour').filter((id) => id !== 'colour.two') },
  two: { label: 'two colours', look: ['two'], channels: ['colour.two'] },
  blur: { label: 'blur', look: [], channels: ['blur'] },
  streak: { label: 'streak', look: [], channels: family('streak') },
  'motion-blur': { label: 'motion blur', look: ['motionBlur'], channels: ['motion.blur'] },
  corner: { label: 'corners', look: [], channels: ['corner'] },
  opacity: { label: 'opacity', look: [], channels: ['opacity'] },
  blend: { label: 'blending', look: ['blend'], channels: [] },
  cutout: { label: 'cut-out', look: ['cutout'], channels: family('cutout') },
  masks: { label: 'masks', look: ['masks'], channels: family('mask') },
  matte: { label: 'matte', look: ['matte'], channels: [] },
};

/** The colour that a part of a look has; null where it has none. */
export function colourOfPart(look: LayerLook, part: ColourPart): string | null {
  if (part === 'fill') return firstColour(look.fill) ?? null;
  return (part === 'border' ? look.border?.colour : look[part]) ?? null;
}

/** The colour as a part of a look that has the others of its kind already. */
export function withColour(look: LayerLook, part: ColourPart, colour: string): LookParts {
  if (part !== 'border') return { [part]: colour };
  return { border: { side: 'outside', ...look.border, colour } };
}

/** Numbers that can differ from layer to layer: those of some parts that are no part of a colour. */
export function numbersOf(parts: readonly StylePart[]): ChannelId[] {
  return parts.flatMap((part) => PARTS[part].channels).filter((id) => !/^(fill|stroke)\.[lab]$/.test(id));
}
