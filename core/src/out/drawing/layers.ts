import type { Box } from '../../basics/transform';
import type { Layer } from '../../scene/layer';
import type { Drawing } from './drawing';
import { groupBox, groupLayer, pictureLayer, type DrawingOptions, type Maker, type Nest } from './maker';
import { addMasked } from './masked-layers';
import { shapeLayer } from './shape-layers';
import { shareOf } from './style';
import { hasEffect, type Part } from './tree';
import { wordLayers } from './word-layers';

/** Parts that are clipped or masked and become layers; a mask of masks counts each time that it is met. */
const MOST_MASKED = 2_000;
/** Letters of fonts that pictures of words carry along altogether. */
const MOST_FONTS = 30_000_000;

/** Layers of a drawing, from back to front, with the group that holds them first; and parts that no layer can hold. */
export function drawingLayers(
  drawing: Drawing,
  options: DrawingOptions,
): { readonly layers: readonly Layer[]; readonly tooLarge: readonly string[] } {
  const maker: Maker = {
    drawing,
    options,
    layers: [],
    tooLarge: [],
    open: [],
    left: { masked: MOST_MASKED, fonts: MOST_FONTS },
  };
  addRoot(maker);
  return { layers: maker.layers, tooLarge: maker.tooLarge };
}

function addRoot(maker: Maker): void {
  const { drawing, options, layers } = maker;
  const { width, height, root } = drawing;
  const box: Box = { left: 0, top: 0, right: width, bottom: height };
  if (options.whole.has(root.id) || root.isFixed)
    return pictureLayer(maker, { ...root, name: options.name }, null, box);
  const parent = groupLayer(maker, options.name, null, box, shareOf(root.style.opacity));
  for (const part of root.parts) addPart(maker, part, { parent, corner: { x: 0, y: 0 } });
  // A group of which no part is seen is no layer.
  if (layers.length === 1) layers.pop();
}

function addPart(maker: Maker, part: Part, nest: Nest): void {
  if (part.isFixed || maker.options.whole.has(part.id)) return pictureLayer(maker, part, nest);
  if (hasEffect(part.style)) {
    if (!addMasked(maker, part, nest, addPart)) pictureLayer(maker, part, nest);
    return;
  }
  switch (part.kind) {
    case 'group': {
      const box = groupBox(maker, part);
      if (!box) return;
      const id = groupLayer(maker, part.name, nest, box, shareOf(part.style.opacity));
      const inner: Nest = { parent: id, corner: { x: box.left, y: box.top } };
      for (const child of part.parts) addPart(maker, child, inner);
      return;
    }
    case 'shape':
      return shapeLayer(maker, part, nest);
    case 'words':
      return wordLayers(maker, part, nest);
    case 'picture':
      return pictureLayer(maker, part, nest);
  }
}
