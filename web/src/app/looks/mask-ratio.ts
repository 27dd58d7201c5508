import { restValue, type Layer, type Mask } from '@wexikine/core';

/** What a mask's sides are made from: its own picture's, or those of the picture or clip that the layer shows. Null for none. */
export function ownRatio(
  { source }: Pick<Layer, 'source'>,
  size: { width: number; height: number } | null,
): number | null {
  if (size) return size.width / size.height;
  if (source.type !== 'picture' && source.type !== 'clip') return null;
  return source.width && source.height ? source.width / source.height : null;
}

const MOST = 20;

/** A mask as wide as it is and so many times as wide as high on a layer; smaller where it would be higher than a mask can be. */
export function withRatio(mask: Mask, layer: Layer, ratio: number): Mask {
  const [w, h] = [restValue(layer, 'size.x'), restValue(layer, 'size.y')];
  if (!(w > 0) || !(h > 0) || !(ratio > 0) || mask.width <= 0) return mask;
  const height = (mask.width * w) / ratio / h;
  const fit = Math.min(1, MOST / height);
  return { ...mask, width: mask.width * fit, height: height * fit };
}

/** A mask with one side set, the other in proportion; a side of nothing has no proportion. */
export function scaledSide(mask: Mask, part: 'width' | 'height', value: number): Mask {
  const other = part === 'width' ? 'height' : 'width';
  const by = mask[part] > 0 ? value / mask[part] : null;
  return { ...mask, [part]: value, ...(by === null ? {} : { [other]: Math.min(MOST, mask[other] * by) }) };
}
