import {
  STYLED_COLOURS,
  styledNumbers,
  type ChannelId,
  type ColourPart,
  type ColourVariation,
  type LookItem,
  type StylePart,
  type StyleRecipe,
} from '@wexikine/core';

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
