import { CHANNEL_COUNT, channelOf, type Layer } from '@wexikine/core';
import { LRUCache } from 'lru-cache';
import type { Brush, Sheet } from './brush';
import type { Surfaces } from './surfaces';

/** Pixels of all that is kept together, at four bytes each. */
export const MOST_KEPT_PIXELS = 16 * 1024 * 1024;

/** Numbers of one layer at one frame: whether it is there, its matrix, its channels. */
const NUMBERS = 1 + 6 + CHANNEL_COUNT;
const OPACITY = channelOf('opacity').slot;

/** What a layer was drawn from when it was drawn last. */
interface Seen {
  readonly layers: readonly Layer[];
  readonly numbers: Float64Array;
  readonly arrived: number;
  /** Frames of moving pictures that had come, where one of the layers shows some. */
  readonly frames: number;
  /** Its picture, once it has looked the same twice. */
  readonly sheet: Sheet | null;
}

/** What is known of a layer's picture: it is kept, it stands still and is worth keeping, or it moves. */
export type Known =
  { readonly is: 'kept'; readonly sheet: Sheet } | { readonly is: 'still' } | { readonly is: 'moving' };

/** Pictures of layers that are kept while nothing of them changes, so that what stands still is drawn once. */
export interface Kept {
  /** Compares a layer and what it is made of with when it was drawn last; its own opacity does not count. */
  readonly find: (brush: Brush, members: readonly number[]) => Known;
  /** Keeps the picture of a layer that `find` has just called still. */
  readonly keep: (layer: Layer, sheet: Sheet) => void;
}

const MOVING: Known = { is: 'moving' };
const STILL: Known = { is: 'still' };

function pixelsOf(sheet: Sheet | null): number {
  return sheet ? sheet.context.canvas.width * sheet.context.canvas.height : 0;
}

/** Makes what keeps pictures, within a bound of memory. */
export function createKept(surfaces: Surfaces): Kept {
  const seen = new LRUCache<Layer, Seen>({
    maxSize: MOST_KEPT_PIXELS,
    sizeCalculation: ({ sheet, numbers }) => pixelsOf(sheet) + numbers.length * 2,
  });
  let scratch = new Float64Array(NUMBERS);

  /** Writes what the members are drawn from. */
  const write = ({ picture: { frame }, view, bounds }: Brush, members: readonly number[]): Float64Array => {
    const length = members.length * NUMBERS + 5;
    if (scratch.length < length) scratch = new Float64Array(length);
    members.forEach((index, i) => {
      const at = i * NUMBERS;
      scratch[at] = frame.live[index];
      for (let part = 0; part < 6; part++) scratch[at + 1 + part] = frame.matrices[index * 6 + part];
      for (let slot = 0; slot < CHANNEL_COUNT; slot++) {
        scratch[at + 7 + slot] = frame.values[index * CHANNEL_COUNT + slot];
      }
    });
    scratch[7 + OPACITY] = 1;
    scratch.set([view.scale, view.x, view.y, bounds.width, bounds.height], length - 5);
    return scratch.subarray(0, length);
  };

  const framesFor = (layers: readonly Layer[], members: readonly number[]): number =>
    members.some((index) => layers[index].source.type === 'clip') ? surfaces.framesArrived() : 0;

  const isSame = (known: Seen, numbers: Float64Array, { picture }: Brush, members: readonly number[]): boolean =>
    known.arrived === surfaces.arrived() &&
    known.frames === framesFor(picture.compiled.layers, members) &&
    known.numbers.length === numbers.length &&
    members.every((index, i) => known.layers[i] === picture.compiled.layers[index]) &&
    numbers.every((value, i) => value === known.numbers[i]);

  return {
    find: (brush, members) => {
      const { layers } = brush.picture.compiled;
      const isBlurred = brush.picture.shutter !== undefined && members.some((index) => layers[index].look.motionBlur);
      const { keptView } = brush.picture;
      const isViewed = keptView && members.some((index) => layers[index].id === keptView);
      if (brush.isMoment || brush.isInside || brush.mattes || isBlurred || isViewed) return MOVING;
      const layer = layers[members[0]];
      const numbers = write(brush, members);
      const known = seen.get(layer);
      if (known && isSame(known, numbers, brush, members)) {
        return known.sheet ? { is: 'kept', sheet: known.sheet } : STILL;
      }
      if (known?.sheet) surfaces.give(known.sheet.context);
      seen.set(layer, {
        layers: members.map((index) => layers[index]),
        numbers: numbers.slice(),
        arrived: surfaces.arrived(),
        frames: framesFor(layers, members),
        sheet: null,
      });
      return MOVING;
    },
    keep: (layer, sheet) => {
      const known = seen.get(layer);
      if (known) seen.set(layer, { ...known, sheet });
    },
  };
}
