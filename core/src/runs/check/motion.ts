import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import type { Finding } from '../finding';
import {
  boundsAt,
  compileScene,
  createFrame,
  matrixAt,
  restFrame,
  sampleFrame,
  type CompiledScene,
  type Frame,
} from '../../scene/sample';
import { isSeen, undrawnMattes, type Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { frameTicks, type Ticks } from '../../basics/time';
import { centreOf, type Box, type Matrix } from '../../basics/transform';
import { Collisions } from './collisions';
import { Flashes } from './flashes';
import { intervalOfSide, sidesOfRuns, type Interval } from './keys';
import { toItsEnd, type Steps } from './steps';

const OPACITY = channelOf('opacity').slot;
const WIDTH = channelOf('size.x').slot;
const HEIGHT = channelOf('size.y').slot;

/** Fainter layers cannot be seen to collide or to jump. */
const SEEN = 0.1;
/** A step in one frame beyond this share of the frame's diagonal, and beyond the layer's own size, cannot be followed. */
const JUMP = 1 / 8;
/** At most so many frames are looked at; longer times are looked at in wider steps. */
const MOST_FRAMES = 600;

/** Everything that looking at a scene in motion needs, made once. */
interface Look {
  readonly scene: Scene;
  readonly compiled: CompiledScene;
  readonly rest: Frame;
  /** Indices of the layers that are looked at: those that have keys and are drawn. */
  readonly moving: readonly number[];
  /** True for a layer that is drawn, with all groups around it. */
  readonly isDrawn: (index: number) => boolean;
  /** True for a layer or a group that is looked at and has keys, or that a rig drives. */
  readonly moves: (index: number) => boolean;
}

/** Opacity of a layer with that of all groups around it. */
function seenOpacity({ compiled }: Look, frame: Frame, index: number): number {
  let opacity = 1;
  for (let at = index; at >= 0; at = compiled.parents[at]) {
    if (frame.live[at] === 0) return 0;
    opacity *= frame.values[at * CHANNEL_COUNT + OPACITY];
  }
  return opacity;
}

/** True when two layers lie in each other's groups. */
function areRelated(parents: Int32Array, a: number, b: number): boolean {
  for (let at = parents[a]; at >= 0; at = parents[at]) if (at === b) return true;
  for (let at = parents[b]; at >= 0; at = parents[at]) if (at === a) return true;
  return false;
}

/** Gathers what is found: the layers, and the first time. */
class Found {
  readonly layers = new Set<string>();
  at: Ticks = Infinity;

  add(time: Ticks, ...ids: readonly string[]): void {
    for (const id of ids) this.layers.add(id);
    this.at = Math.min(this.at, time);
  }
}

/** False for layers of which one is in the other, and for copies that a run scatters: they are no neighbours. */
function mayMeet({ scene: { layers }, compiled: { parents } }: Look, a: number, b: number): boolean {
  const areScattered = parents[a] === parents[b] && layers[a].copy !== undefined && layers[b].copy !== undefined;
  return !areScattered && !areRelated(parents, a, b);
}

function touchesFrame({ left, right, top, bottom }: Box, { width, height }: Scene): boolean {
  return right > 0 && left < width && bottom > 0 && top < height;
}

/** Pixels that a box may move from one look to the next and still stand. */
const STILL = 0.01;

/** True where a layer can be seen and is where it was at the look before. */
function standsInFrame(scene: Scene, before: Box, now: Box): boolean {
  const moved = Math.max(Math.abs(now.left - before.left), Math.abs(now.top - before.top));
  return moved < STILL && touchesFrame(now, scene);
}

/** How far a layer moved from one look to the next, where it can be seen both times and lies apart from where it was. */
function stepOf(scene: Scene, before: Box, now: Box, frames: number): number {
  if (!touchesFrame(before, scene) || !touchesFrame(now, scene)) return 0;
  const [a, b] = [centreOf(before), centreOf(now)];
  const step = Math.hypot(b.x - a.x, b.y - a.y) / frames;
  const size = Math.max(now.right - now.left, now.bottom - now.top);
  return step > JUMP * Math.hypot(scene.width, scene.height) && step > size ? step : 0;
}

/** True when a layer's box holds every corner of the frame. */
function coversFrame(matrix: Matrix, width: number, height: number, frame: Scene): boolean {
  const [a, b, c, d, e, f] = matrix;
  const area = a * d - b * c;
  if (area === 0) return false;
  const slack = 0.5;
  return [
    [0, 0],
    [frame.width, 0],
    [0, frame.height],
    [frame.width, frame.height],
  ].every(([x, y]) => {
    const across = (d * (x - e) - c * (y - f)) / area;
    const down = (a * (y - f) - b * (x - e)) / area;
    return across >= -slack && across <= width + slack && down >= -slack && down <= height + slack;
  });
}

function coversIn({ scene }: Look, frame: Frame, index: number): boolean {
  const v = index * CHANNEL_COUNT;
  return coversFrame(matrixAt(frame, index), frame.values[v + WIDTH], frame.values[v + HEIGHT], scene);
}

/** When a layer is on its way in or out. */
interface Ways {
  readonly entrance: Interval | null;
  readonly exit: Interval | null;
}

function isOnItsWay({ entrance, exit }: Ways, time: Ticks): boolean {
  return (entrance !== null && time < entrance.to) || (exit !== null && time > exit.from);
}

function lookTimes(scene: Scene, from: Ticks, to: Ticks): { times: Ticks[]; frames: number } {
  const frame = frameTicks(scene.rate);
  const first = Math.max(0, Math.floor(from / frame));
  const last = Math.min(Math.ceil(scene.length / frame) - 1, Math.ceil(to / frame));
  const frames = Math.max(1, Math.ceil((last - first + 1) / MOST_FRAMES));
  const times: Ticks[] = [];
  for (let at = first; at <= last; at += frames) times.push(at * frame);
  return { times, frames };
}

function createLook(scene: Scene, subjects: ReadonlySet<string> | null): Look {
  const compiled = compileScene(scene);
  const { layers } = scene;
  const mattes = undrawnMattes(layers);
  // What is hidden, or a matte that is not drawn, takes all that is in it along.
  const isOff = (index: number): boolean => layers[index].hidden || mattes.has(layers[index].id);
  const isDrawn = (index: number): boolean => {
    if (!isSeen(layers[index]) || layers[index].source.type === 'none') return false;
    for (let at = index; at >= 0; at = compiled.parents[at]) if (isOff(at)) return false;
    return true;
  };
  const moves = (index: number): boolean => {
    const { id, tracks } = layers[index];
    const hasValues = Object.keys(tracks).length > 0 || (compiled.rigs?.driven(index).length ?? 0) > 0;
    return hasValues && (subjects?.has(id) ?? true);
  };
  const moving = layers.map((_, index) => index).filter((index) => isDrawn(index) && moves(index));
  return { scene, compiled, rest: restFrame(compiled), moving, isDrawn, moves };
}

function keysEnd(layer: Layer): Ticks {
  let last = -Infinity;
  for (const keys of Object.values(layer.tracks)) last = Math.max(last, keys[keys.length - 1].at);
  return last;
}

/**
 * Layers that have come to rest outside the frame. Those that stood still in it before left it on purpose, whether by
 * a run that sends them out or by keys of one's own.
 */
function findEndsOff({ scene, compiled, moving }: Look, ways: readonly Ways[], stood: Uint8Array, found: Found): void {
  const frame = createFrame(compiled);
  const ends = moving.flatMap((index, i) => {
    if (stood[i] === 1) return [];
    const { span } = scene.layers[index];
    const end = ways[i].exit?.from ?? keysEnd(scene.layers[index]);
    return [{ index, at: Math.min(Math.max(end, span.in), span.out - 1) }];
  });
  let sampled = -1;
  for (const { index, at } of ends.sort((a, b) => a.at - b.at)) {
    if (at !== sampled) sampleFrame(compiled, at, frame);
    sampled = at;
    if (!touchesFrame(boundsAt(frame, index), scene)) found.add(at, scene.layers[index].id);
  }
}

/** That a scene flashes, with those layers there that move, or the groups around them that do. */
function flashesAmong({ scene, compiled, moves }: Look, found: Flashes['found']): Finding[] {
  if (!found) return [];
  const layers = new Set<string>();
  for (const index of found.indices) {
    let at = index;
    while (at >= 0 && !moves(at)) at = compiled.parents[at];
    if (at >= 0) layers.add(scene.layers[at].id);
  }
  return layers.size > 0 ? [{ code: 'flashes', layers: [...layers], at: found.at }] : [];
}

/**
 * Looks at a scene in motion, frame by frame from one time to another: neighbours that run into each other, steps too
 * large to follow, pictures that leave the frame uncovered, layers that come to rest outside, flashes, and what is wrong with rigs. `subjects` limits the
 * look to some layers; only layers with keys are looked at.
 */
export function findInMotion(scene: Scene, subjects: ReadonlySet<string> | null, from: Ticks, to: Ticks): Finding[] {
  return toItsEnd(lookInMotion(scene, subjects, from, to));
}

/** The same in steps, one a frame, for who has something else to do in between. */
export function* lookInMotion(
  scene: Scene,
  subjects: ReadonlySet<string> | null,
  from: Ticks,
  to: Ticks,
): Steps<Finding[]> {
  const look = createLook(scene, subjects);
  const { compiled, moving } = look;
  const sides = sidesOfRuns(scene);
  const ways = moving.map((index): Ways => {
    const { tracks } = scene.layers[index];
    return { entrance: intervalOfSide(tracks, sides, 'bring-in'), exit: intervalOfSide(tracks, sides, 'send-out') };
  });
  const covers = moving.map((index) => scene.layers[index].kind === 'picture' && coversIn(look, look.rest, index));
  const [collide, uncovered, jumps, off] = [new Found(), new Found(), new Found(), new Found()];
  const faults = new Map<string, { readonly layers: Set<string>; readonly at: Ticks }>();
  const frame = createFrame(compiled);
  const boxes: (Box | null)[] = moving.map(() => null);
  const rests = moving.map((index) => boundsAt(look.rest, index));
  const meetings = new Collisions(rests, (a, b) => mayMeet(look, moving[a], moving[b]));
  // What rests beside the frame comes from there, and meets what is in it.
  const restsInFrame = rests.map((box) => touchesFrame(box, scene));
  const stood = new Uint8Array(moving.length);
  const flashes = scene.layers.some((_, index) => look.moves(index))
    ? new Flashes(scene, compiled, look.isDrawn)
    : null;
  let step = 0;
  const { times, frames } = lookTimes(scene, from, to);
  for (const time of times) {
    sampleFrame(compiled, time, frame);
    for (const { channel, layer } of compiled.rigs?.faults() ?? []) {
      const known = faults.get(channel) ?? { layers: new Set<string>(), at: time };
      known.layers.add(layer);
      faults.set(channel, known);
    }
    moving.forEach((index, i) => {
      const opacity = seenOpacity(look, frame, index);
      const box = opacity > SEEN ? boundsAt(frame, index) : null;
      const before = boxes[i];
      boxes[i] = box;
      meetings.place(i, restsInFrame[i] ? box : null);
      if (!box) return;
      if (covers[i] && !isOnItsWay(ways[i], time) && !coversIn(look, frame, index))
        uncovered.add(time, scene.layers[index].id);
      if (before && standsInFrame(scene, before, box)) stood[i] = 1;
      const far = before ? stepOf(scene, before, box, frames) : 0;
      if (far === 0) return;
      step = Math.max(step, far);
      jumps.add(time, scene.layers[index].id);
    });
    flashes?.look(frame, time, (index) => seenOpacity(look, frame, index));
    if (meetings.look()) collide.at = Math.min(collide.at, time);
    yield;
  }
  for (const i of meetings.found) collide.layers.add(scene.layers[moving[i]].id);
  findEndsOff(look, ways, stood, off);
  const tell = (code: 'collide' | 'uncovered' | 'ends-off-frame', { layers, at }: Found): Finding[] =>
    layers.size > 0 ? [{ code, layers: [...layers], at }] : [];
  return [
    ...tell('collide', collide),
    ...tell('uncovered', uncovered),
    ...tell('ends-off-frame', off),
    ...(compiled.rigs?.circles ?? []).map(({ cells }): Finding => ({
      code: 'rig-circle',
      layers: [...new Set(cells.map(({ layer }) => layer))],
      channels: [...new Set(cells.map(({ channel }) => channel))],
    })),
    ...[...faults].map(([channel, { layers, at }]): Finding => ({
      code: 'rig-not-finite',
      channel,
      layers: [...layers],
      at,
    })),
    ...flashesAmong(look, flashes?.found ?? null),
    ...(jumps.layers.size > 0 ? [{ code: 'big-steps' as const, layers: [...jumps.layers], at: jumps.at, step }] : []),
  ];
}
