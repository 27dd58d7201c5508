import type { ChannelId } from '../../basics/channel';
import type { Ticks } from '../../basics/time';
import { transformPoint } from '../../basics/transform';
import {
  restValue,
  withDataParts,
  withLookParts,
  type DataParts,
  type Layer,
  type LayerSpan,
  type LookParts,
} from '../../scene/layer';
import type { PassOnRecipe } from '../../scene/recipe';
import { matrixAt } from '../../scene/sample';
import { layerMade, type LayerMade, type Scene } from '../../scene/scene';
import { pointInParent, toRest } from '../arrange';
import { findOutsideLayer, findOutsideScene, findUntouched, type Subject } from '../check';
import type { Finding } from '../finding';
import { retime, rolesOf } from '../line-up';
import { refuse, type Followed, type Operated, type Reads, type Replaying, type Surroundings } from '../operation';
import { createStaging, placesOf, problemsOf, readTime, type Staging } from '../order';
import { wholeLook } from '../style';
import { passedTracks } from './motion';

/** What of the rest pose says where a layer is. */
const PLACE: readonly ChannelId[] = ['position.x', 'position.y', 'rotation', 'skew', 'scale.x', 'scale.y'];
const isPlace = new Set<ChannelId>(PLACE);

/** The rest values with which a target stands where the source does, so many steps further. */
function placed(
  staging: Staging,
  source: number,
  target: number,
  apart: { readonly x: number; readonly y: number },
): [ChannelId, number][] {
  const { scene, rest, compiled } = staging;
  const layer = scene.layers[source];
  const anchor = transformPoint(matrixAt(rest, source), {
    x: restValue(layer, 'anchor.x') * restValue(layer, 'size.x'),
    y: restValue(layer, 'anchor.y') * restValue(layer, 'size.y'),
  });
  const parent = compiled.parents[target];
  const { x, y } = pointInParent(
    { x: anchor.x + apart.x, y: anchor.y + apart.y },
    parent < 0 ? null : matrixAt(rest, parent),
  );
  const others = PLACE.slice(2).map((channel): [ChannelId, number] => [channel, restValue(layer, channel)]);
  return [['position.x', x], ['position.y', y], ...others];
}

interface Passing {
  readonly index: number;
  readonly place: number;
  readonly made: LayerMade;
  readonly after: Layer;
}

/** What one target gets, and what it becomes by that. */
function passOn(
  { source, index, place }: { readonly source: number; readonly index: number; readonly place: number },
  recipe: PassOnRecipe,
  {
    scene,
    staging,
    run,
    later,
  }: { readonly scene: Scene; readonly staging: Staging; readonly run: string; readonly later: Ticks },
): Passing {
  const has = new Set(recipe.what);
  const [from, target] = [scene.layers[source], scene.layers[index]];
  const step = place + 1;
  const by = Math.round(later * step);
  const span: LayerSpan | null = has.has('timing') ? { in: from.span.in + by, out: from.span.out + by } : null;
  const look: { readonly look: LookParts; readonly rest: readonly (readonly [ChannelId, number])[] } = has.has('look')
    ? wholeLook(from, target)
    : { look: {}, rest: [] };
  const apart = { x: recipe.apart.x * step, y: recipe.apart.y * step };
  const rest = [...look.rest, ...(has.has('place') ? placed(staging, source, index, apart) : [])];
  const data: DataParts = has.has('data') ? { ...from.data } : {};
  const start = span ? span.in : target.span.in + by;
  // Keys go by where a layer is to rest.
  const resting = { ...target, rest: { ...target.rest, ...Object.fromEntries(rest) } };
  const tracks = has.has('motion') ? passedTracks(from, resting, { values: recipe.values, run, start }) : [];
  const made = layerMade(target.id, { span, rest, look: look.look, data, start, tracks });
  return { index, place, made, after: withPassed(target, made, scene) };
}

/** A layer with what it was given. */
function withPassed(
  layer: Layer,
  { span, rest, look, data, tracks }: LayerMade,
  scene: Pick<Scene, 'runs' | 'rate'>,
): Layer {
  const timed = span
    ? retime(layer, span, { roles: rolesOf(scene.runs), parts: 'keep', squeeze: false, rate: scene.rate })
    : layer;
  const standing = toRest(timed, new Map(rest.filter(([channel]) => isPlace.has(channel))));
  const plain = rest.filter(([channel]) => !isPlace.has(channel));
  return {
    ...standing,
    rest: plain.length > 0 ? { ...standing.rest, ...Object.fromEntries(plain) } : standing.rest,
    look: withLookParts(standing.look, look),
    data: withDataParts(standing.data, data),
    tracks: tracks.length > 0 ? { ...standing.tracks, ...Object.fromEntries(tracks) } : standing.tracks,
  };
}

/** What the source does not have though it is asked for. */
function lackingOf({ tracks, data }: Layer, { what }: PassOnRecipe): ('motion' | 'data')[] {
  return [
    ...(what.includes('motion') && Object.keys(tracks).length === 0 ? ['motion' as const] : []),
    ...(what.includes('data') && Object.keys(data).length === 0 ? ['data' as const] : []),
  ];
}

function findingsOf(scene: Scene, source: Layer, passed: readonly Passing[], recipe: PassOnRecipe): Finding[] {
  const channels = recipe.what.includes('motion') ? (Object.keys(source.tracks) as ChannelId[]) : [];
  const moved = passed.map(({ index, made: { tracks }, after }): Subject => {
    const times = tracks.flatMap(([, keys]) => keys.map(({ at }) => at));
    const from = times.reduce((least, at) => Math.min(least, at), Infinity);
    const to = times.reduce((most, at) => Math.max(most, at), -Infinity);
    const made = from > to ? { from: after.span.in, to: after.span.in } : { from, to };
    return { layer: after, before: scene.layers[index].tracks, ...made };
  });
  return [
    ...lackingOf(source, recipe).map((what): Finding => ({
      code: 'nothing-to-pass',
      layer: source.id,
      what,
      stops: false,
    })),
    ...findUntouched(
      channels,
      passed.map(({ after }) => after),
    ),
    ...findOutsideScene(scene, moved),
    ...findOutsideLayer(moved),
  ];
}

/** Works out what each picked layer gets of the source. */
export function planPassOn({ scene, indices, context }: Surroundings, recipe: PassOnRecipe): Operated {
  const source = scene.layers.findIndex(({ id }) => id === recipe.from.layer);
  if (source < 0) return refuse([{ code: 'source-gone' }]);
  const read = readTime(recipe.later, scene.rate, 'Later');
  const problems = problemsOf([read]);
  if (problems.length > 0) return refuse(problems);
  const from = scene.layers[source];
  const staging = createStaging(scene);
  // The source keeps what it has, and is no place in the order.
  const targets = indices.filter((index) => index !== source);
  if (targets.length === 0) return refuse([{ code: 'nothing-picked' }]);
  if (lackingOf(from, recipe).length === recipe.what.length)
    return refuse(
      lackingOf(from, recipe).map((what) => ({ code: 'nothing-to-pass', layer: from.id, what, stops: true })),
    );
  const places = placesOf(staging, targets, recipe.order);
  const facts = { scene, staging, run: context.runId, later: read.ticks };
  const passed = targets.map((index, i) => passOn({ source, index, place: places[i] }, recipe, facts));
  const keysOf = ({ made }: Passing): number => made.tracks.reduce((sum, [, keys]) => sum + keys.length, 0);
  const valuesOf = (one: Passing): Record<string, number> =>
    recipe.what.includes('motion') ? { keys: keysOf(one) } : {};
  const gone = (one: Passing): number =>
    one.made.tracks.reduce((sum, [channel]) => sum + (scene.layers[one.index].tracks[channel]?.length ?? 0), 0);
  return {
    layers: passed.map((one) => ({
      layer: one.after.id,
      place: one.place,
      starts: one.made.span?.in ?? (one.made.tracks.length > 0 ? one.made.start : one.after.span.in),
      lasts: one.after.span.out - one.after.span.in,
      moments: [],
      values: valuesOf(one),
      after: one.after,
    })),
    made: () => passed.map(({ made }) => made),
    findings: findingsOf(scene, from, passed, recipe),
    counts: {
      layers: passed.length,
      added: passed.reduce((sum, one) => sum + keysOf(one), 0),
      replaced: 0,
      removed: passed.reduce((sum, one) => sum + gone(one), 0),
    },
  };
}

/** Gives a layer once more what it was given, over what it has become. */
export function replayPassOn(_recipe: PassOnRecipe, made: LayerMade, state: Layer, { scene }: Replaying): Layer {
  return withPassed(state, made, scene);
}

/** Goes by the source whatever it passes on, and by where its targets begin and rest. */
export function passOnReads({ what, from }: PassOnRecipe): Reads {
  return {
    spans: true,
    rest: true,
    looks: what.includes('look'),
    keys: false,
    keysOf: what.includes('motion') ? from.layer : null,
    sweeps: what.includes('motion'),
  };
}

/** What is passed on by a link follows all of the layer. */
export function passOnFollows({ from }: PassOnRecipe): Followed | null {
  return from.isLinked === true ? { layer: from.layer, fields: ['look', 'rest', 'span', 'data'], keys: true } : null;
}
