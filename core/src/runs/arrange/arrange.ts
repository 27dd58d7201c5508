import { scaledEasing } from '../../basics/easing';
import { channelOf, type ChannelId } from '../../basics/channel';
import type { Finding } from '../finding';
import { createStaging, inOrder, placesOf, type Staging } from '../order';
import type { Operated, Reads, Surroundings } from '../operation';
import type { ArrangeRecipe } from '../../scene/recipe';
import { compileScene, frameAt, matrixAt, type CompiledScene } from '../../scene/sample';
import { keyTimes, restValue, type Key, type Layer } from '../../scene/layer';
import { layerMade, type LayerMade, type Scene } from '../../scene/scene';
import { centreOf, type Matrix, type Point } from '../../basics/transform';
import { coverFactor, placedAt, STAYS, type Move, type Placed } from './boxes';
import { movesOf } from './ways';

/** Values that the rest pose is to have. */
type RestValues = ReadonlyMap<ChannelId, number>;

function isFactor(channel: ChannelId): boolean {
  return channelOf(channel).family === 'scale';
}

function changeKey(channel: ChannelId, key: Key, change: number): Key {
  const isScaled = isFactor(channel);
  const value = isScaled ? key.value * change : key.value + change;
  return { ...key, value, ease: isScaled ? scaledEasing(key.ease, change) : key.ease };
}

/** A layer with another rest pose, and the keys on those channels moved or scaled with it. */
export function toRest(layer: Layer, wanted: RestValues): Layer {
  const rest: Layer['rest'] = { ...layer.rest };
  const tracks: Layer['tracks'] = { ...layer.tracks };
  for (const [channel, value] of wanted) {
    const standing = restValue(layer, channel);
    rest[channel] = value;
    const change = isFactor(channel) ? value / standing : value - standing;
    const keys = layer.tracks[channel];
    if (keys) tracks[channel] = keys.map((key) => changeKey(channel, key, change));
  }
  return { ...layer, rest, tracks };
}

/** A place of the scene as the parent of a layer sees it; a parent that is flat sees it as it is. */
export function pointInParent({ x, y }: Point, parent: Matrix | null): Point {
  return parent ? inParent({ x: x - parent[4], y: y - parent[5] }, parent) : { x, y };
}

/** A way on screen as the parent of a layer sees it. */
function inParent(point: Point, parent: Matrix | null): Point {
  if (!parent) return point;
  const [a, b, c, d] = parent;
  const area = a * d - b * c;
  if (area === 0) return STAYS.by;
  return { x: (d * point.x - c * point.y) / area, y: (a * point.y - b * point.x) / area };
}

/** Changes smaller than this many pixels, degrees or shares are none. */
const NOTHING = 1e-9;

function restAfter(layer: Layer, { by, scale, turn }: Move, parent: Matrix | null): RestValues {
  const { x, y } = inParent(by, parent);
  const wanted: [ChannelId, number, number][] = [
    ['position.x', x, 0],
    ['position.y', y, 0],
    ['scale.x', scale?.x ?? 1, 1],
    ['scale.y', scale?.y ?? 1, 1],
    ['rotation', turn ?? 0, 0],
  ];
  return new Map(
    wanted
      .filter(([, change, none]) => Math.abs(change - none) > NOTHING)
      .map(([channel, change]) => {
        const standing = restValue(layer, channel);
        return [channel, isFactor(channel) ? standing * change : standing + change];
      }),
  );
}

function parentMatrix({ rest, compiled }: Staging, index: number): Matrix | null {
  const parent = compiled.parents[index];
  return parent < 0 ? null : matrixAt(rest, parent);
}

/** Times at which a layer is looked at to know how far it turns: its keys, and between them. */
function lookTimes(layer: Layer): number[] {
  const keys = keyTimes(layer);
  return keys.flatMap((at, i) => (i + 1 < keys.length ? [at, (at + keys[i + 1]) / 2] : [at]));
}

/** The scene as it only turns: how large layers are in their rest pose decides whether they cover. */
function turningOnly({ layers }: Scene): CompiledScene {
  const turning = ({ rotation, skew }: Layer['tracks']): Layer['tracks'] => ({
    ...(rotation ? { rotation } : {}),
    ...(skew ? { skew } : {}),
  });
  return compileScene({ layers: layers.map((layer) => ({ ...layer, tracks: turning(layer.tracks) })) });
}

/** Scales a layer so that it covers the frame however it turns, and puts its middle on the frame's. */
function cover(scene: Scene, compiled: CompiledScene, { index, matrix, size, box }: Placed): Move {
  const layer = scene.layers[index];
  const looks = [matrix, ...lookTimes(layer).map((at) => matrixAt(frameAt(compiled, at), index))];
  const factor = Math.max(...looks.map((look) => coverFactor(look, size, scene)));
  const { x, y } = centreOf(box);
  const anchor = {
    x: (restValue(layer, 'anchor.x') - 0.5) * size.width,
    y: (restValue(layer, 'anchor.y') - 0.5) * size.height,
  };
  // Scaling about the anchor moves the middle by what the anchor is away from it.
  const drift = {
    x: (matrix[0] * anchor.x + matrix[2] * anchor.y) * (1 - factor),
    y: (matrix[1] * anchor.x + matrix[3] * anchor.y) * (1 - factor),
  };
  const by = { x: scene.width / 2 - x - drift.x, y: scene.height / 2 - y - drift.y };
  return Number.isFinite(factor) ? { by, scale: { x: factor, y: factor } } : STAYS;
}

/** Channels that arranging may change, as a plan shows them. */
const SHOWN: readonly ChannelId[] = ['position.x', 'position.y', 'scale.x', 'scale.y', 'rotation'];

function restShown(layer: Layer): Record<string, number> {
  return Object.fromEntries(SHOWN.map((channel) => [channel, restValue(layer, channel)]));
}

function coverAll(scene: Scene, placed: readonly Placed[]): Move[] {
  const turning = turningOnly(scene);
  return placed.map((entry) => cover(scene, turning, entry));
}

/** Picked layers whose group, or one around it, is picked too: they move along with it. */
function carriedAlong(scene: Scene, indices: readonly number[]): Set<number> {
  const picked = new Set(indices.map((index) => scene.layers[index].id));
  const parents = new Map(scene.layers.map(({ id, parent }) => [id, parent]));
  const isCarried = (index: number): boolean => {
    for (let at = scene.layers[index].parent; at !== null; at = parents.get(at) ?? null)
      if (picked.has(at)) return true;
    return false;
  };
  return new Set(indices.filter(isCarried));
}

/** Works out where layers are to rest. */
export function planArrange({ scene, indices: all }: Surroundings, recipe: ArrangeRecipe): Operated {
  const carried = carriedAlong(scene, all);
  const indices = all.filter((index) => !carried.has(index));
  const staging = createStaging(scene);
  const places = placesOf(staging, indices, recipe.order);
  const placeOf = new Map(indices.map((index, i) => [index, places[i]]));
  const placed = inOrder(indices, places).map((index) => placedAt(staging, index, placeOf.get(index) as number));
  const { way } = recipe;
  const moves = way.by === 'cover' ? coverAll(scene, placed) : movesOf(way, placed, scene);
  const wanted = placed.map(({ index }, i) => restAfter(scene.layers[index], moves[i], parentMatrix(staging, index)));
  const channels = [...new Set(wanted.flatMap((values) => [...values.keys()]))];
  const after = placed.map(({ index }, i) => {
    const layer = scene.layers[index];
    const all = channels.map((channel) => [channel, wanted[i].get(channel) ?? restValue(layer, channel)] as const);
    return toRest(layer, new Map(all));
  });
  const along = [...carried].map((index) => scene.layers[index].id);
  const findings: Finding[] = along.length > 0 ? [{ code: 'with-group', layers: along }] : [];
  return {
    layers: after.map((layer, i) => ({
      layer: layer.id,
      place: placed[i].place,
      starts: layer.span.in,
      lasts: layer.span.out - layer.span.in,
      moments: [],
      values: restShown(layer),
      after: layer,
    })),
    made: () =>
      after.map((layer) =>
        layerMade(layer.id, { rest: channels.map((channel) => [channel, restValue(layer, channel)] as const) }),
      ),
    findings,
    counts: { layers: after.length, added: 0, replaced: 0, removed: 0 },
  };
}

/** Arranges a layer once more, over what it has become: to the rest values that it was given. */
export function replayArrange(_recipe: ArrangeRecipe, { rest }: LayerMade, state: Layer): Layer {
  return toRest(state, new Map(rest));
}

/** Arranging goes by where layers rest; covering the frame also by how they turn. */
export function arrangeReads({ way }: ArrangeRecipe): Reads {
  return { spans: false, rest: true, keys: way.by === 'cover', sweeps: false };
}
