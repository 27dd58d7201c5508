import {
  channelOf,
  isOffered,
  STYLE_PARTS,
  STYLED_COLOURS,
  styledNumbers,
  type ChannelId,
  type ColourPart,
  type ColourVariation,
  type LookItem,
  type NumberVariation,
  type PaletteItem,
  type Shelf,
  type StylePart,
  type StyleRecipe,
} from '@wexikine/core';
import { numberWays } from './ways';

/** How a colour differs when it begins to: each a little darker than the one before. */
const FIRST: ColourVariation = { by: 'step', lightness: -0.06, chroma: 0, hue: 0 };

/** Looks that can be chosen now. */
export function looksIn({ items }: Shelf): LookItem[] {
  return [...items.values()].filter((item): item is LookItem => item.kind === 'look' && isOffered(item));
}

/** Palettes that can be chosen now. */
export function palettesIn({ items }: Shelf): PaletteItem[] {
  return [...items.values()].filter((item): item is PaletteItem => item.kind === 'palette' && isOffered(item));
}

/** Colours of a style that do not differ from layer to layer yet. */
export function missingColours({ parts, vary }: StyleRecipe): ColourPart[] {
  return STYLED_COLOURS.filter((part) => parts.includes(part) && vary[part] === undefined);
}

/** Numbers of a style's parts that do not differ from layer to layer yet. */
export function missingNumbers({ parts, numbers = {} }: StyleRecipe): ChannelId[] {
  return styledNumbers(parts).filter((channel) => numbers[channel] === undefined);
}

/** A style whose layers are to look as another one does, followed as before; null lets each keep its own look. */
export function likeLayer(recipe: StyleRecipe, layer: string | null): StyleRecipe {
  const { from } = recipe;
  const isLinked = from.by === 'layer' && from.isLinked === true;
  if (layer === null) return { ...recipe, from: { by: 'own' } };
  return { ...recipe, from: { by: 'layer', layer, ...(isLinked ? { isLinked } : {}) } };
}

/** A style with a look of the library and all of its parts; what differed of parts that it lacks differs no more. */
export function withLook(recipe: StyleRecipe, { id, body }: Pick<LookItem, 'id' | 'body'>): StyleRecipe {
  const parts = [...body.parts];
  const known = new Set<string>(styledNumbers(parts));
  const vary = Object.entries(recipe.vary).filter(([part]) => parts.includes(part as StylePart));
  const numbers = Object.entries(recipe.numbers ?? {}).filter(([channel]) => known.has(channel));
  const { numbers: _before, parameters, ...rest } = recipe;
  const own = new Set((body.parameters ?? []).map(({ name }) => name));
  const settings = Object.entries(parameters ?? {}).filter(([name]) => own.has(name));
  return {
    ...rest,
    from: { by: 'look', id },
    parts,
    vary: Object.fromEntries(vary),
    ...(numbers.length > 0 ? { numbers: Object.fromEntries(numbers) } : {}),
    ...(settings.length > 0 ? { parameters: Object.fromEntries(settings) } : {}),
  };
}

/** The colours of a palette, or of one of its ramps, along which they then go. */
export function withRamp(
  variation: Extract<ColourVariation, { by: 'palette' }>,
  ramp: string,
): Extract<ColourVariation, { by: 'palette' }> {
  const { ramp: _before, ...rest } = variation;
  return ramp === '' ? rest : { ...rest, ramp, how: 'ramp' };
}

/** A style that sets a part of the look, or sets it no more; null where it would then set nothing. */
export function withPartFlipped(recipe: StyleRecipe, part: StylePart): StyleRecipe | null {
  const parts = STYLE_PARTS.filter((one) => recipe.parts.includes(one) !== (one === part));
  return parts.length > 0 ? { ...recipe, parts } : null;
}

/** A style whose layers follow the one that they look like, or follow it no more; as it is where they look like none. */
export function withLinkFlipped(recipe: StyleRecipe): StyleRecipe {
  const { from } = recipe;
  if (from.by !== 'layer') return recipe;
  const { layer } = from;
  return { ...recipe, from: from.isLinked === true ? { by: 'layer', layer } : { by: 'layer', layer, isLinked: true } };
}

/** A style in which a colour differs from layer to layer. */
export function withColour(recipe: StyleRecipe, part: ColourPart, variation: ColourVariation = FIRST): StyleRecipe {
  return { ...recipe, vary: { ...recipe.vary, [part]: variation } };
}

/** A style in which a colour is the same for all again. */
export function withoutColour(recipe: StyleRecipe, part: ColourPart): StyleRecipe {
  const { [part]: _gone, ...vary } = recipe.vary;
  return { ...recipe, vary };
}

/** A style in which a number differs from layer to layer: by steps along the order at first. */
export function withNumber(recipe: StyleRecipe, channel: ChannelId, variation?: NumberVariation): StyleRecipe {
  const [, first] = numberWays(channelOf(channel).unit);
  const begun = variation ?? ({ by: 'step', ...first.begin } as NumberVariation);
  return { ...recipe, numbers: { ...recipe.numbers, [channel]: begun } };
}

/** A style in which a number is as the look has it again. */
export function withoutNumber({ numbers, ...recipe }: StyleRecipe, channel: ChannelId): StyleRecipe {
  const { [channel]: _gone, ...others } = numbers ?? {};
  return Object.keys(others).length > 0 ? { ...recipe, numbers: others } : recipe;
}
