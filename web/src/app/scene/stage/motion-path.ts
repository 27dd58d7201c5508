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
import type { StagePlace } from './handle-marks';

/** The way of a layer's anchor: a point for each frame, and those at which it is keyed, scene px. */
export interface MotionPath {
  readonly layer: string;
  /** Where it is now. */
  readonly now: Point;
  readonly dots: readonly Point[];
  readonly keys: readonly { readonly at: Ticks; readonly point: Point }[];
}

/** Dots of one way, and of all of them, at most; longer ways skip frames evenly. */
const MOST_DOTS = 600;
const MOST_OF_ALL = 4_000;

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
  const most = Math.min(MOST_DOTS, Math.floor(MOST_OF_ALL / keyed.length));
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
    const each = Math.ceil(frames / most);
    const dots = Array.from({ length: Math.ceil(frames / each) + 1 }, (_, i) =>
      pointAt(Math.min(last, first + i * each * step)),
    );
    return { layer: layer.id, now: pointAt(time), dots, keys: times.map((at) => ({ at, point: pointAt(at) })) };
  });
}

/** CSS pixels that two dots of a way are apart at least; nearer ones lie on each other. */
const DOTS_APART = 1;
const DOT = 3;

/** The place of a point of the scene on the stage, CSS px. */
export function onPage({ x, y }: Point, place: StagePlace): Point {
  return { x: place.x + x * place.zoom, y: place.y + y * place.zoom };
}

/** Dots of a way that can be told apart on the stage, CSS px. */
export function dotsOnPage(dots: readonly Point[], place: StagePlace): Point[] {
  const seen: Point[] = [];
  for (const dot of dots) {
    const [point, last] = [onPage(dot, place), seen[seen.length - 1]];
    if (!last || Math.hypot(point.x - last.x, point.y - last.y) >= DOTS_APART) seen.push(point);
  }
  return seen;
}

/** Draws ways as lines with a dot for each frame, on a canvas in device pixels. */
export function drawPaths(context: CanvasRenderingContext2D, paths: readonly MotionPath[], place: StagePlace): void {
  const ratio = window.devicePixelRatio || 1;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  for (const path of paths) {
    const dots = dotsOnPage(path.dots, place);
    context.beginPath();
    for (const { x, y } of dots) context.lineTo(x, y);
    context.strokeStyle = 'rgb(224 165 38 / 45%)';
    context.lineWidth = 1;
    context.stroke();
    context.fillStyle = '#e0a526';
    for (const { x, y } of dots) context.fillRect(x - DOT / 2, y - DOT / 2, DOT, DOT);
  }
}
