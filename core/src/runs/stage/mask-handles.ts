import { type ChannelId } from '../../basics/channel';
import type { Point } from '../../basics/transform';
import { maskChannels, movedMask, type Mask } from '../../scene/layer';
import { DEGREES, round, said, STEP, turned, type HandleSet, type OwnHandle, type Placed } from './look-placed';

/** A place of one of the masks. */
export interface MaskGrip {
  readonly of: 'mask';
  readonly place: number;
  readonly part: 'middle' | 'size' | 'turn';
}

/** How far out from its middle the handle of a mask's turn stands, in halves of its height. */
const KNOB = 1.4;

/** From the middle of a mask's box, turned as it is, px of the layer. */
function fromMask({ width, height, value }: Placed, mask: Mask, point: Point): Point {
  const scale = value('mask.scale');
  const own = turned(point, mask.turn);
  const [x, y] = [(mask.x - 0.5) * width + own.x, (mask.y - 0.5) * height + own.y];
  const all = turned({ x: x * scale, y: y * scale }, value('mask.rotation'));
  return { x: width / 2 + value('mask.x') * width + all.x, y: height / 2 + value('mask.y') * height + all.y };
}

/** The other way: a point of the layer as seen from the middle of its box, before the masks are moved together. */
function beforeMasks({ width, height, value }: Placed, { x, y }: Point): Point {
  const scale = value('mask.scale') || 1;
  const back = { x: x - width / 2 - value('mask.x') * width, y: y - height / 2 - value('mask.y') * height };
  const own = turned(back, -value('mask.rotation'));
  return { x: own.x / scale, y: own.y / scale };
}

/** The handles of the masks of a layer, px of the layer. */
export function maskHandles(placed: Placed): OwnHandle<MaskGrip>[] {
  const { layer, width, height, value } = placed;
  return (layer.look.masks ?? []).flatMap((standing, place): OwnHandle<MaskGrip>[] => {
    const mask = movedMask(standing, place, value);
    const [w, h] = [(mask.width * width) / 2, (mask.height * height) / 2];
    const at = (x: number, y: number): Point => fromMask(placed, mask, { x, y });
    const from = at(0, 0);
    const label = `Mask ${place + 1}`;
    return [
      { grip: { of: 'mask', place, part: 'turn' }, label: `${label}, turn`, at: at(0, -h * KNOB), from },
      { grip: { of: 'mask', place, part: 'size' }, label: `${label}, size`, at: at(w, h), from },
      { grip: { of: 'mask', place, part: 'middle' }, label, at: from, from },
    ];
  });
}

const held = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, round(value, 4)));

/** What a mask is to be, by one of its handles at a point of the layer, and that in words. */
function wanted(
  { width, height }: Placed,
  mask: Mask,
  part: MaskGrip['part'],
  point: Point,
  isStraight: boolean,
): { readonly parts: Partial<Mask>; readonly words: string } {
  const middle = { x: (mask.x - 0.5) * width, y: (mask.y - 0.5) * height };
  const way = { x: point.x - middle.x, y: point.y - middle.y };
  switch (part) {
    case 'middle': {
      const [x, y] = [point.x / width + 0.5, point.y / height + 0.5];
      return { parts: { x, y }, words: `${said(x * 100)} %, ${said(y * 100)} %` };
    }
    case 'size': {
      const own = turned(way, -mask.turn);
      const free = { x: Math.abs(own.x) * 2, y: Math.abs(own.y) * 2 };
      const [w, h] = [mask.width * width, mask.height * height];
      const by = Math.max(free.x / (w || 1), free.y / (h || 1));
      const size = isStraight && w > 0 && h > 0 ? { x: w * by, y: h * by } : free;
      const [x, y] = [size.x / width, size.y / height];
      return { parts: { width: x, height: y }, words: `${said(x * 100)} % × ${said(y * 100)} %` };
    }
    case 'turn': {
      const free = Math.atan2(way.x, -way.y) * DEGREES;
      const turn = isStraight ? Math.round(free / STEP) * STEP : round(free);
      return { parts: { turn }, words: `${said(turn)}°` };
    }
  }
}

/** What channels of one mask are to be, so that it is as wanted; of one without width, no share is. */
function asChannels(mask: Mask, place: number, { x, y, width, height, turn }: Partial<Mask>): HandleSet['channels'] {
  const [across, down, wide, high, rotation] = maskChannels(place);
  const channels: Partial<Record<ChannelId, number>> = {};
  if (x !== undefined) channels[across] = round(x - mask.x, 4);
  if (y !== undefined) channels[down] = round(y - mask.y, 4);
  if (width !== undefined && mask.width > 0) channels[wide] = round(width / mask.width, 4);
  if (height !== undefined && mask.height > 0) channels[high] = round(height / mask.height, 4);
  if (turn !== undefined) channels[rotation] = round(turn - mask.turn);
  return channels;
}

/** How many times as long a side is by its channel; once where that cannot be told, or nothing is left of it. */
function stretched(side: number, moved: number): number {
  return side > 0 && moved > 0 ? moved / side : 1;
}

/** The mask's own numbers, so that with what its channels do to it, it is as wanted. */
function asNumbers(mask: Mask, moved: Mask, { x, y, width, height, turn }: Partial<Mask>): Mask {
  return {
    ...mask,
    ...(x === undefined ? {} : { x: held(x - (moved.x - mask.x), -10, 10) }),
    ...(y === undefined ? {} : { y: held(y - (moved.y - mask.y), -10, 10) }),
    ...(width === undefined ? {} : { width: held(width / stretched(mask.width, moved.width), 0, 20) }),
    ...(height === undefined ? {} : { height: held(height / stretched(mask.height, moved.height), 0, 20) }),
    ...(turn === undefined ? {} : { turn: round(turn - (moved.turn - mask.turn)) }),
  };
}

/**
 * A mask with one of its handles at a point of the layer. Where a drag sets keys, those are of the mask's own channels; else, and
 * for masks from the fourth on, its own numbers change, with which its keys go along.
 */
export function setMask(placed: Placed, { place, part }: MaskGrip, to: Point, isStraight: boolean): HandleSet | null {
  const { layer, sets, value } = placed;
  const masks = layer.look.masks ?? [];
  const mask = masks[place] as Mask | undefined;
  if (!mask) return null;
  const moved = movedMask(mask, place, value);
  const { parts, words } = wanted(placed, moved, part, beforeMasks(placed, to), isStraight);
  if (sets === 'key' && maskChannels(place).length > 0) return { channels: asChannels(mask, place, parts), words };
  const changed = asNumbers(mask, moved, parts);
  return { look: { ...layer.look, masks: masks.map((one, i) => (i === place ? changed : one)) }, words };
}
