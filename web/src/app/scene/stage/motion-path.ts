import {
  frameAt,
  frameTicks,
  matrixAt,
  restValue,
  sampleTrack,
  transformPoint,
  type CompiledScene,
  type Layer,
  type Point,
  type Rate,
  type Ticks,
} from '@wexikine/core';

/** The way of a layer's anchor: a point for each frame, and those at which it is keyed, scene px. */
export interface MotionPath {
  readonly layer: string;
  /** Where it is now. */
  readonly now: Point;
  readonly dots: readonly Point[];
  readonly keys: readonly { readonly at: Ticks; readonly point: Point }[];
}

/** Dots of one way at most; longer ones skip frames evenly. */
const MOST_DOTS = 600;

function keyTimesOf({ tracks }: Layer): Ticks[] {
  const times = [...(tracks['position.x'] ?? []), ...(tracks['position.y'] ?? [])].map(({ at }) => at);
  return [...new Set(times)].sort((a, b) => a - b);
}

/** Where layers with keyed positions go, frame by frame, in their group as it is at a time. */
export function motionPaths(compiled: CompiledScene, rate: Rate, ids: ReadonlySet<string>, time: Ticks): MotionPath[] {
  const keyed = compiled.layers.filter((layer) => ids.has(layer.id) && keyTimesOf(layer).length > 1);
  if (keyed.length === 0) return [];
  const indices = new Map(compiled.layers.map(({ id }, index) => [id, index]));
  const parentOf = ({ id }: Layer): number => compiled.parents[indices.get(id) ?? 0];
  // A frame of all layers is worked out only where there are groups to stand in.
  const frame = keyed.some((layer) => parentOf(layer) >= 0) ? frameAt(compiled, time) : null;
  const step = frameTicks(rate);
  return keyed.map((layer) => {
    const parent = parentOf(layer);
    const outer = parent < 0 || !frame ? null : matrixAt(frame, parent);
    const value = (id: 'position.x' | 'position.y', at: Ticks): number => {
      const track = layer.tracks[id];
      return track ? sampleTrack(track, at) : restValue(layer, id);
    };
    const pointAt = (at: Ticks): Point => {
      const own = { x: value('position.x', at), y: value('position.y', at) };
      return outer ? transformPoint(outer, own) : own;
    };
    const times = keyTimesOf(layer);
    const [first, last] = [times[0], times[times.length - 1]];
    const frames = Math.max(1, Math.round((last - first) / step));
    const each = Math.ceil(frames / MOST_DOTS);
    const dots = Array.from({ length: Math.floor(frames / each) + 1 }, (_, i) =>
      pointAt(Math.min(last, first + i * each * step)),
    );
    return { layer: layer.id, now: pointAt(time), dots, keys: times.map((at) => ({ at, point: pointAt(at) })) };
  });
}
