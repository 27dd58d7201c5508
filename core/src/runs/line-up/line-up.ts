import { findOutsideLayer, keySpan, type Interval, type Subject } from '../check';
import type { Finding } from '../finding';
import { createStaging, inOrder, placesOf, problemsOf, readMoment, readTime, type ReadTime } from '../order';
import { refuse, type Operated, type Reads, type Replaying, type Surroundings } from '../operation';
import type { Edge, LineUpRecipe, LineUpWay } from '../../scene/recipe';
import { isSame, type Layer, type LayerSpan } from '../../scene/layer';
import { layerMade, type LayerMade, type Scene } from '../../scene/scene';
import type { Ticks } from '../../basics/time';
import { isTooShort, partsOf, retime, rolesOf, type Retiming } from './retime';

/** A layer with its place in the order. */
interface Placed {
  readonly layer: Layer;
  readonly place: number;
}

/** New spans for layers in their order, and problems with the times that were given. */
interface Spans {
  readonly spans: readonly LayerSpan[];
  readonly problems: readonly Finding[];
}

function readEdge(edge: Edge, scene: Scene, placed: readonly Placed[], side: 'in' | 'out'): ReadTime {
  const times = placed.map(({ layer }) => layer.span[side]);
  switch (edge.by) {
    case 'time':
    case 'cue':
      return readMoment(edge, scene, side === 'in' ? 'Begin at' : 'End at');
    case 'scene':
      return { ticks: side === 'in' ? 0 : scene.length, problem: null };
    case 'latest':
      return { ticks: times.reduce((a, b) => Math.max(a, b), -Infinity), problem: null };
    case 'earliest':
      return { ticks: times.reduce((a, b) => Math.min(a, b), Infinity), problem: null };
  }
}

function spansFrom(read: readonly ReadTime[], placed: readonly Placed[], spanOf: (entry: Placed) => LayerSpan): Spans {
  return { spans: placed.map(spanOf), problems: problemsOf(read) };
}

function lengthOf({ span }: Layer): Ticks {
  return span.out - span.in;
}

/** First and last time of the layers at each place. */
function byPlace(placed: readonly Placed[]): LayerSpan[] {
  const groups: LayerSpan[] = [];
  for (const { layer, place } of placed) {
    const known = groups[place] ?? layer.span;
    groups[place] = { in: Math.min(known.in, layer.span.in), out: Math.max(known.out, layer.span.out) };
  }
  return groups;
}

/** Moves each place to where the one before has ended. */
function butt(placed: readonly Placed[], gap: Ticks): (entry: Placed) => LayerSpan {
  const groups = byPlace(placed);
  const moves: Ticks[] = [];
  let end = 0;
  groups.forEach((group, place) => {
    moves[place] = place === 0 ? 0 : end + gap - group.in;
    end = group.out + moves[place];
  });
  return ({ layer: { span }, place }) => ({ in: span.in + moves[place], out: span.out + moves[place] });
}

function spansOf(way: LineUpWay, scene: Scene, placed: readonly Placed[]): Spans {
  const { rate } = scene;
  switch (way.by) {
    case 'begin': {
      const edge = readEdge(way.at, scene, placed, 'in');
      return spansFrom([edge], placed, ({ layer }) => ({ in: edge.ticks, out: layer.span.out }));
    }
    case 'end': {
      const edge = readEdge(way.at, scene, placed, 'out');
      return spansFrom([edge], placed, ({ layer }) => ({ in: layer.span.in, out: edge.ticks }));
    }
    case 'butt': {
      const gap = readTime(way.gap, rate, 'Gap');
      return spansFrom([gap], placed, butt(placed, gap.ticks));
    }
    case 'relay': {
      const overlap = readTime(way.overlap, rate, 'Overlap');
      const groups = byPlace(placed);
      return spansFrom([overlap], placed, ({ layer: { span }, place }) => {
        const next = groups[place + 1];
        return next ? { in: span.in, out: next.in + overlap.ticks } : span;
      });
    }
    case 'length': {
      const length = readTime(way.length, rate, 'Length');
      return spansFrom([length], placed, ({ layer }) => ({ in: layer.span.in, out: layer.span.in + length.ticks }));
    }
    case 'slide': {
      const [to, gap] = [readMoment(way.to, scene, 'From'), readTime(way.gap, rate, 'Gap')];
      return spansFrom([to, gap], placed, ({ layer, place }) => {
        const start = to.ticks + place * gap.ticks;
        return { in: start, out: start + lengthOf(layer) };
      });
    }
    case 'rows': {
      const from = readMoment(way.from, scene, 'From');
      const apart = readTime(way.apart, rate, 'From row to row');
      const hold = readTime(way.hold, rate, 'Each for');
      return spansFrom([from, apart, hold], placed, ({ place }) => {
        const start = from.ticks + (place % way.rows) * apart.ticks + Math.floor(place / way.rows) * hold.ticks;
        return { in: start, out: start + hold.ticks };
      });
    }
  }
}

function findLate(scene: Scene, layers: readonly Layer[]): Finding[] {
  const late = layers.filter(({ span }) => span.out > scene.length || span.in < 0);
  if (late.length === 0) return [];
  const by = Math.max(...late.map(({ span }) => Math.max(span.out - scene.length, -span.in)));
  return [{ code: 'outside-scene', layers: late.map(({ id }) => id), at: Math.min(scene.length, late[0].span.in), by }];
}

/** Layers whose keys come to lie outside of them, or further outside than they did. */
function findCut(placed: readonly Placed[], after: readonly Layer[]): Finding[] {
  const outside = (layer: Layer, { from, to }: Interval): Ticks =>
    Math.max(0, layer.span.in - from, to - layer.span.out);
  const subjects = placed.flatMap(({ layer: before }, i): Subject[] => {
    const [layer, was, is] = [after[i], keySpan(before), keySpan(after[i])];
    if (!was || !is || outside(layer, is) <= outside(before, was)) return [];
    return [{ layer, before: before.tracks, ...is }];
  });
  return findOutsideLayer(subjects);
}

function retimingOf({ parts, squeeze }: LineUpRecipe, { runs, rate }: Scene): Retiming {
  return { roles: rolesOf(runs), parts, squeeze, rate };
}

/** Works out when layers are to begin and end. */
export function planLineUp({ scene, indices }: Surroundings, recipe: LineUpRecipe): Operated {
  const places = placesOf(createStaging(scene), indices, recipe.order);
  const placeOf = new Map(indices.map((index, i) => [index, places[i]]));
  const placed = inOrder(indices, places).map((index) => ({
    layer: scene.layers[index],
    place: placeOf.get(index) as number,
  }));
  const { spans, problems } = spansOf(recipe.way, scene, placed);
  if (problems.length > 0) return refuse(problems);
  const backwards = placed.filter((_, i) => spans[i].out <= spans[i].in);
  if (backwards.length > 0) {
    const at = spans[placed.indexOf(backwards[0])].in;
    return refuse([{ code: 'no-room', layers: backwards.map(({ layer }) => layer.id), at }]);
  }
  const retiming = retimingOf(recipe, scene);
  const after = placed.map(({ layer }, i) => retime(layer, spans[i], retiming));
  return operated(scene, placed, after, retiming);
}

function operated(scene: Scene, placed: readonly Placed[], after: readonly Layer[], retiming: Retiming): Operated {
  const short = placed.filter(
    ({ layer }, i) =>
      retiming.parts === 'keep' && !retiming.squeeze && isTooShort(partsOf(layer, retiming.roles), after[i].span),
  );
  const findings: Finding[] =
    short.length > 0
      ? [
          {
            code: 'short-for-both',
            layers: short.map(({ layer }) => layer.id),
            at: after[placed.indexOf(short[0])].span.in,
          },
        ]
      : [];
  return {
    layers: after.map((layer, i) => ({
      layer: layer.id,
      place: placed[i].place,
      starts: layer.span.in,
      lasts: lengthOf(layer),
      moments: [],
      values: {},
      after: layer,
    })),
    made: () => after.map(({ id, span }) => layerMade(id, { span })),
    findings: [...findings, ...findLate(scene, after), ...(short.length > 0 ? [] : findCut(placed, after))],
    counts: { layers: after.length, added: 0, replaced: 0, removed: 0 },
  };
}

/** Lines a layer up once more, over what it has become: to the span that it was given. */
export function replayLineUp(recipe: LineUpRecipe, { span }: LayerMade, state: Layer, { scene }: Replaying): Layer {
  if (!span || isSame(span, state.span)) return state;
  return retime(state, span, retimingOf(recipe, scene));
}

/** Lining up goes by in and out points alone. */
export function lineUpReads(): Reads {
  return { spans: true, rest: false, keys: false, sweeps: false };
}
