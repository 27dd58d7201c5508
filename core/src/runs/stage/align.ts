import type { Box, Point } from '../../basics/transform';
import { layerEdits, type Edit } from '../../scene/edit';
import { boundsAt, matrixAt } from '../../scene/sample';
import { withAnchor } from '../arrange';
import { channelOf } from '../../basics/channel';
import { movedLayers, moveLayers, type StageMoment } from './drag';
import { unionOf } from './snap';

/** A side or a middle that layers are brought to. */
export const ALIGN_SIDES = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
/** A side or a middle that layers are brought to. */
export type AlignSide = (typeof ALIGN_SIDES)[number];

function wayTo(side: AlignSide, own: Box, to: Box): Point {
  switch (side) {
    case 'left':
      return { x: to.left - own.left, y: 0 };
    case 'centre':
      return { x: (to.left + to.right - own.left - own.right) / 2, y: 0 };
    case 'right':
      return { x: to.right - own.right, y: 0 };
    case 'top':
      return { x: 0, y: to.top - own.top };
    case 'middle':
      return { x: 0, y: (to.top + to.bottom - own.top - own.bottom) / 2 };
    case 'bottom':
      return { x: 0, y: to.bottom - own.bottom };
  }
}

const SIZE_X = channelOf('size.x').slot;
const SIZE_Y = channelOf('size.y').slot;

function boxesOf(moment: StageMoment, ids: ReadonlySet<string>) {
  return movedLayers(moment, ids).map((index) => ({
    id: moment.compiled.layers[index].id,
    box: boundsAt(moment.frame, index),
  }));
}

/** Brings layers to one side or middle: of all of them together, one alone of the frame. */
export function alignLayers(moment: StageMoment, ids: ReadonlySet<string>, side: AlignSide): Edit[] {
  const own = boxesOf(moment, ids);
  const { width, height } = moment.scene;
  const frame: Box = { left: 0, top: 0, right: width, bottom: height };
  const to = own.length === 1 ? frame : unionOf(own.map(({ box }) => box));
  if (!to) return [];
  return own.flatMap(({ id, box }) => moveLayers(moment, new Set([id]), wayTo(side, box, to)));
}

/** Spreads layers so that the gaps between them are alike; the outermost two stay. Needs three. */
export function spreadLayers(moment: StageMoment, ids: ReadonlySet<string>, way: 'across' | 'down'): Edit[] {
  const [from, to] = way === 'across' ? (['left', 'right'] as const) : (['top', 'bottom'] as const);
  const own = boxesOf(moment, ids).sort((a, b) => a.box[from] - b.box[from] || a.box[to] - b.box[to]);
  if (own.length < 3) return [];
  const all = own[own.length - 1].box[to] - own[0].box[from];
  const gap = (all - own.reduce((sum, { box }) => sum + box[to] - box[from], 0)) / (own.length - 1);
  let next = own[0].box[from];
  return own.flatMap(({ id, box }) => {
    const by = next - box[from];
    next += box[to] - box[from] + gap;
    return moveLayers(moment, new Set([id]), way === 'across' ? { x: by, y: 0 } : { x: 0, y: by });
  });
}

/** Moves a layer's anchor to a place of its box (in shares); the picture stays where it is, keyed or not. */
export function anchorTo({ compiled }: StageMoment, index: number, { x, y }: Point): Edit[] {
  const layer = compiled.layers[index];
  return layerEdits(layer, withAnchor(withAnchor(layer, 'anchor.x', x), 'anchor.y', y));
}

/** The place of a layer's box (in shares) that lies at a point of the scene; null for a layer without an area. */
export function shareAt({ compiled, frame }: StageMoment, index: number, at: Point): Point | null {
  const [a, b, c, d, e, f] = matrixAt(frame, index);
  const stride = frame.values.length / compiled.layers.length;
  const area = a * d - b * c;
  if (area === 0) return null;
  const [dx, dy] = [at.x - e, at.y - f];
  const [x, y] = [(d * dx - c * dy) / area, (a * dy - b * dx) / area];
  const [width, height] = [frame.values[index * stride + SIZE_X], frame.values[index * stride + SIZE_Y]];
  return width > 0 && height > 0 ? { x: x / width, y: y / height } : null;
}
