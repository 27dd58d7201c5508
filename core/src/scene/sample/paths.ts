import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { evenPathOf, type EvenPath } from '../../basics/motion';
import type { Layer } from '../layer';

const DISTANCE = channelOf('path.distance').slot;

/** A layer's line, ready to be gone along. */
interface CompiledPath {
  readonly path: EvenPath;
  readonly turns: boolean;
}

/** The lines that layers of a scene go along, by index; null where none does. */
export type CompiledPaths = readonly (CompiledPath | undefined)[] | null;

/** Prepares the motion paths of layers; null where there are none, which costs nothing in a frame. */
export function compilePaths(layers: readonly Layer[]): CompiledPaths {
  if (layers.every(({ path }) => !path)) return null;
  return layers.map(({ path }) => {
    const even = path ? evenPathOf(path.d) : null;
    return even && path ? { path: even, turns: path.turns } : undefined;
  });
}

/** What a layer's path adds to its position (px) and rotation (degrees); null where it has none. Reuses `out`. */
export function alongPath(
  paths: CompiledPaths,
  values: Float64Array,
  index: number,
  out: Float64Array,
): Float64Array | null {
  const own = paths?.[index];
  if (!own) return null;
  own.path.write(values[index * CHANNEL_COUNT + DISTANCE] * own.path.length, out, 0);
  if (!own.turns) out[2] = 0;
  return out;
}
