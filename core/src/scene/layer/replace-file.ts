import type { Layer, LayerBase, LayerSource } from './layer';
import type { Mask } from './mask';

/** What takes the place of a kept file: another picture or clip, or a font by its name and its address. */
export type FileInPlace =
  | { readonly kind: 'shown'; readonly source: Extract<LayerSource, { type: 'picture' | 'clip' }> }
  | { readonly kind: 'font'; readonly font: string; readonly fontFile: string };

/** The fields of a layer that another file changes. */
export type ReplacedFields = Partial<Pick<Layer, 'source' | 'look' | 'split'>>;

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

/** A look whose masks use another file; the same look where none did. */
function replacedLook<L extends { readonly masks?: readonly Mask[] | null }>(
  look: L,
  address: string,
  file: FileInPlace,
): L {
  const masks = look.masks?.map((mask) => replacedMask(mask, address, file));
  return masks?.some((mask, i) => mask !== look.masks?.[i]) ? { ...look, masks } : look;
}

/** What words were before they were split, in another font or with another mask, so that joining gives them so. */
function replacedSplit(split: NonNullable<Layer['split']>, address: string, file: FileInPlace): Layer['split'] {
  const source = replacedSource(split.source, address, file) as typeof split.source;
  const look = replacedLook(split.look, address, file);
  return source === split.source && look === split.look ? split : { ...split, source, look };
}

/** What of a layer changes when another file takes the place of the one at an address; null where it does not use it. */
export function withFileReplaced(
  { source, look, split }: Pick<Layer, 'source' | 'look' | 'split'>,
  address: string,
  file: FileInPlace,
): ReplacedFields | null {
  const after = {
    source: replacedSource(source, address, file),
    look: replacedLook(look, address, file),
    split: split ? replacedSplit(split, address, file) : split,
  };
  const fields: ReplacedFields = {
    ...(after.source === source ? {} : { source: after.source }),
    ...(after.look === look ? {} : { look: after.look }),
    ...(after.split === split ? {} : { split: after.split }),
  };
  return Object.keys(fields).length === 0 ? null : fields;
}

/** What a layer is without its runs, after another file took the place of one; null where that does not use it. */
export function baseWithFileReplaced(
  base: LayerBase | undefined,
  address: string,
  file: FileInPlace,
): LayerBase | null {
  if (!base?.look) return null;
  const look = replacedLook(base.look, address, file);
  return look === base.look ? null : { ...base, look };
}
