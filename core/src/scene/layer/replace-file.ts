import type { Layer, LayerSource } from './layer';
import type { Mask } from './mask';

/** What takes the place of a kept file: another picture or clip, or a font by its name and its address. */
export type FileInPlace =
  | { readonly kind: 'shown'; readonly source: Extract<LayerSource, { type: 'picture' | 'clip' }> }
  | { readonly kind: 'font'; readonly font: string; readonly fontFile: string };

/** The fields of a layer that another file changes. */
export type ReplacedFields = Partial<Pick<Layer, 'source' | 'look'>>;

/** What takes the place of another source: a clip is played as the one before it was, from where its own length allows. */
export function inPlaceOf(before: LayerSource | undefined, source: LayerSource): LayerSource {
  if (before?.type !== 'clip' || source.type !== 'clip') return source;
  const { pace, loops, from } = before;
  return { ...source, pace, from: Math.min(from, source.length - 1), ...(loops === true ? { loops } : {}) };
}

/** Words in another font; where they stood on the axes of the one before is not known of it. */
function inFont<W extends { readonly axes?: unknown }>(words: W, font: string, fontFile: string): W {
  const { axes: _axes, ...plain } = words;
  return { ...plain, font, fontFile } as unknown as W;
}

function replacedSource(source: LayerSource, address: string, file: FileInPlace): LayerSource {
  switch (source.type) {
    case 'picture':
    case 'clip':
      return source.href === address && file.kind === 'shown' ? inPlaceOf(source, file.source) : source;
    case 'text':
      return source.fontFile === address && file.kind === 'font' ? inFont(source, file.font, file.fontFile) : source;
    case 'sound':
    case 'rectangle':
    case 'ellipse':
    case 'path':
    case 'none':
      return source;
  }
}

/** A clip is no mask: where one takes a picture's place, masks by it stay. */
function replacedMask(mask: Mask, address: string, file: FileInPlace): Mask {
  const { picture, words } = mask;
  if (picture?.href === address && file.kind === 'shown' && file.source.type === 'picture')
    return { ...mask, picture: { ...picture, href: file.source.href } };
  if (words?.fontFile === address && file.kind === 'font')
    return { ...mask, words: inFont(words, file.font, file.fontFile) };
  return mask;
}

/** What of a layer changes when another file takes the place of the one at an address; null where it does not use it. */
export function withFileReplaced(
  { source, look }: Pick<Layer, 'source' | 'look'>,
  address: string,
  file: FileInPlace,
): ReplacedFields | null {
  const next = replacedSource(source, address, file);
  const masks = look.masks?.map((mask) => replacedMask(mask, address, file));
  const fields: ReplacedFields = {
    ...(next === source ? {} : { source: next }),
    ...(masks?.some((mask, i) => mask !== look.masks?.[i]) ? { look: { ...look, masks } } : {}),
  };
  return Object.keys(fields).length === 0 ? null : fields;
}
