import { IDENTITY, inverse, type Box, type Matrix } from '../../basics/transform';
import type { Layer } from '../../scene/layer';
import { groupBox, groupLayer, type Maker, type Nest } from './maker';
import {
  bare,
  bareStyle,
  clipShapes,
  isUpright,
  maskingOf,
  maskRegion,
  masksIn,
  spaceIn,
  type ClipShape,
  type MaskedSpace,
} from './masking';
import { plainPath, shapePath, type Room } from './shape';
import { lengthOf, styleOf, STANDARD_STYLE } from './style';
import { boxThrough, readMaskParts, type Part } from './tree';
import type { Element } from './xml';

/** Makes the layers of a part, whatever it is. */
type AddPart = (maker: Maker, part: Part, nest: Nest) => void;

/** The space of what is in a mask, and what per cents in it are of. */
interface Space {
  readonly matrix: Matrix;
  readonly room: Room;
}

/** A mask of more parts than these stays part of one picture. */
const MOST_MASK_PARTS = 200;

/** The box of a part in its own space, which shares of a clip or a mask are of; null where it is not known exactly. */
function boundsOf(maker: Maker, part: Part): Box | null {
  const { room } = maker.drawing;
  const { element, matrix } = part;
  if (part.kind === 'shape') {
    const d = shapePath(element, room);
    return d === null ? null : (plainPath(d, IDENTITY)?.box ?? null);
  }
  if (part.kind === 'picture') {
    const read = (name: string, whole: number): number | null => lengthOf(element.attributes[name], whole);
    const [x, y] = [read('x', room.width) ?? 0, read('y', room.height) ?? 0];
    const [width, height] = [read('width', room.width), read('height', room.height)];
    return width === null || height === null ? null : { left: x, top: y, right: x + width, bottom: y + height };
  }
  const back = inverse(matrix);
  const box = part.kind === 'group' && back && isUpright(matrix) ? groupBox(maker, part) : null;
  return box && back ? boxThrough(box, back) : null;
}

/** The layers that a part becomes in a group, by themselves; null where they are more than one, besides what is in that. */
function tried(maker: Maker, part: Part, nest: Nest, addPart: AddPart): Layer[] | null {
  const trial: Maker = { ...maker, layers: [], tooLarge: [] };
  addPart(trial, part, nest);
  const isOne = trial.layers.filter(({ parent }) => parent === nest.parent).length === 1 && trial.tooLarge.length === 0;
  return isOne ? trial.layers : null;
}

function isStraight({ rest }: Layer): boolean {
  return (['rotation', 'skew', 'scale.x', 'scale.y'] as const).every((channel) => rest[channel] === undefined);
}

/** Where a straight layer of a group lies, px of the drawing. */
function boxOf({ options }: Maker, { corner }: Nest, { rest }: Layer): Box {
  const [x, y] = [(rest['position.x'] ?? 0) / options.scale, (rest['position.y'] ?? 0) / options.scale];
  const [w, h] = [(rest['size.x'] ?? 0) / options.scale, (rest['size.y'] ?? 0) / options.scale];
  const [left, top] = [corner.x + x - w / 2, corner.y + y - h / 2];
  return { left, top, right: left + w, bottom: top + h };
}

function withLook(layer: Layer, look: Layer['look']): Layer {
  return { ...layer, look: { ...layer.look, ...look } };
}

interface Cut {
  /** Joined shapes of a clip. */
  readonly shapes: readonly ClipShape[];
  /** The region of a mask, beyond which nothing shows. */
  readonly region: ClipShape | undefined;
}

function masksOf({ shapes, region }: Cut, box: Box): Layer['look'] | null {
  const masks = masksIn(region ? [...shapes, region] : shapes, box);
  if (!masks) return null;
  const joined = masks.map((mask, i) =>
    region && i === masks.length - 1 && i > 0 ? { ...mask, how: 'overlap' as const } : mask,
  );
  return joined.length > 0 ? { masks: joined } : {};
}

/** A part that is clipped by shapes alone: the masks lie on its own layer where that stands straight. */
function addClipped(maker: Maker, part: Part, nest: Nest, cut: Cut, addPart: AddPart): boolean {
  const made = tried(maker, part, nest, addPart);
  if (!made || !isStraight(made[0])) return false;
  const look = masksOf(cut, boxOf(maker, nest, made[0]));
  if (!look) return false;
  maker.layers.push(withLook(made[0], look), ...made.slice(1));
  return true;
}

/** The layer that what is seen through a mask is revealed by, with what is in it; null where it is more than layers can be. */
function matteLayers(maker: Maker, mask: Element, space: Space, name: string, nest: Nest, addPart: AddPart) {
  const { matrix } = space;
  const parts = readMaskParts(mask, { ...space, most: MOST_MASK_PARTS }, maker.drawing);
  if (!parts || parts.length === 0) return null;
  const style = styleOf(mask, STANDARD_STYLE, maker.drawing.rules);
  if (style['clip-path'] !== 'none' || style.mask !== 'none') return null;
  const [first] = parts;
  const called = `Mask of ${name}`.slice(0, 120);
  const whole: Part =
    parts.length === 1 ? first : { ...first, kind: 'group', isFixed: false, element: mask, style, matrix, parts };
  const layers = tried({ ...maker, open: [...maker.open, mask] }, { ...whole, name: called }, nest, addPart);
  return layers && { layers, isAlpha: style['mask-type'] === 'alpha' };
}

/** A part in a group of its own, with the layer beside it that it is seen through. */
function addGrouped(
  maker: Maker,
  part: Part,
  nest: Nest,
  cut: Cut,
  mask: Element | null,
  space: Space,
  addPart: AddPart,
): boolean {
  const box = groupBox(maker, part);
  if (!box || !(box.right > box.left) || !(box.bottom > box.top)) return false;
  const look = masksOf(cut, box);
  if (!look) return false;
  const trial: Maker = { ...maker, layers: [], tooLarge: [] };
  const id = groupLayer(trial, part.name, nest, box, 1);
  const inner: Nest = { parent: id, corner: { x: box.left, y: box.top } };
  const made = tried(maker, part, inner, addPart);
  const matte = mask ? matteLayers(maker, mask, space, part.name, inner, addPart) : null;
  if (!made || (mask && !matte)) return false;
  const shown = matte
    ? withLook(made[0], {
        matte: {
          layer: matte.layers[0].id,
          how: 'reveals',
          ...(matte.isAlpha ? {} : { by: 'brightness' as const }),
          isShown: false,
        },
      })
    : made[0];
  maker.layers.push(withLook(trial.layers[0], look), shown, ...made.slice(1), ...(matte?.layers ?? []));
  return true;
}

/**
 * Makes the layers of a part that is clipped or masked: a clip becomes masks, a mask a layer that it is seen through.
 * False, and nothing is made, where layers cannot show that. Source: CSS Masking 1.
 */
export function addMasked(maker: Maker, part: Part, nest: Nest, addPart: AddPart): boolean {
  const { drawing } = maker;
  const masking = maker.left.masked-- > 0 ? maskingOf(part.style, drawing) : null;
  if (!masking || (masking.mask && maker.open.includes(masking.mask))) return false;
  const { clip, mask } = masking;
  const space: MaskedSpace = { matrix: part.matrix, bounds: boundsOf(maker, part), room: drawing.room };
  // Units of what is in a mask can be shares too, which the parts' own matrix then holds.
  const inside = mask ? spaceIn(mask.attributes['maskContentUnits'], 'userSpaceOnUse', space) : space;
  const shapes = clip ? clipShapes(clip, space, drawing) : [];
  const region = mask ? maskRegion(mask, space) : undefined;
  if (!shapes || region === null || !inside) return false;
  const plain: Part = { ...part, element: bare(part.element), style: bareStyle(part.style) };
  const cut: Cut = { shapes, region };
  const isClipped = mask === null && addClipped(maker, plain, nest, cut, addPart);
  // What cannot be done to a group's own layer cannot be done to one around it, either.
  const isHopeless = mask === null && part.kind === 'group';
  return isClipped || (!isHopeless && addGrouped(maker, plain, nest, cut, mask, inside, addPart));
}
