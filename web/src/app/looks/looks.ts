import {
  FONTS,
  restValue,
  type ChannelId,
  type Edit,
  type Layer,
  type LayerLook,
  type LayerSource,
} from '@wexikine/core';

/** Words that a layer shows. */
export type WordSource = Extract<LayerSource, { type: 'text' }>;
/** A gradient across a layer. */
export type Gradient = Extract<LayerLook['fill'], { from: string }>;
/** A gradient of many stops. */
export type ManyStops = Extract<LayerLook['fill'], { stops: unknown }>;

/** What all of some layers have alike; null where they differ. */
export function common<T>(layers: readonly Layer[], of: (layer: Layer) => T): T | null {
  const [first] = layers;
  if (!first) return null;
  const value = of(first);
  const text = JSON.stringify(value) ?? '';
  return layers.every((layer) => (JSON.stringify(of(layer)) ?? '') === text) ? value : null;
}

/** Layers that show words. */
export function wordLayers(layers: readonly Layer[]): Layer[] {
  return layers.filter(({ source }) => source.type === 'text');
}

/** Layers that have a fill and a stroke: shapes and words. */
export function paintedLayers(layers: readonly Layer[]): Layer[] {
  return layers.filter(({ source }) => source.type !== 'none' && source.type !== 'picture');
}

/** The colour that was typed; undefined for none of it. */
export function colourIn(text: string): string | undefined {
  const colour = text.trim();
  return colour === 'none' ? undefined : colour;
}

/** Edits that change parts of layers' looks; a part that is undefined is taken away. */
export function lookEdits(
  layers: readonly Layer[],
  change: (look: LayerLook) => { readonly [Part in keyof LayerLook]: LayerLook[Part] | undefined },
): Edit[] {
  return layers.map(({ id, look }) => {
    const parts = Object.entries({ ...look, ...change(look) }).filter(([, part]) => part !== undefined);
    return { type: 'set-layer', layer: id, fields: { look: Object.fromEntries(parts) as LayerLook } };
  });
}

/** Edits that change what words say or how they are set. */
export function wordEdits(layers: readonly Layer[], change: Partial<Omit<WordSource, 'type'>>): Edit[] {
  return wordLayers(layers).map(({ id, source }) => ({
    type: 'set-layer',
    layer: id,
    fields: { source: { ...(source as WordSource), ...change } },
  }));
}

/** Edits that set words in a font of the application, or in one's own, which has a file. */
export function fontEdits(layers: readonly Layer[], font: string, file: string | undefined): Edit[] {
  return wordLayers(layers).map(({ id, source }) => {
    const { fontFile: _before, axes: _axes, ...words } = source as WordSource;
    return {
      type: 'set-layer',
      layer: id,
      fields: { source: { ...words, font, ...(file ? { fontFile: file } : {}) } },
    };
  });
}

/** Edits that set a rest value. */
export function restEdits(layers: readonly Layer[], channel: ChannelId, valueOf: (value: number) => number): Edit[] {
  return layers.map((layer) => ({
    type: 'set-layer',
    layer: layer.id,
    fields: { rest: { ...layer.rest, [channel]: valueOf(restValue(layer, channel)) } },
  }));
}

/** Fonts that ship with the application. */
export const FONT_NAMES: readonly WordSource['font'][] = FONTS;
