import type { ChannelId } from '../../basics/channel';
import type { Columns } from '../../formulas/formula';
import { letterCount, restValue, type Key } from '../../scene/layer';
import {
  createColumns,
  createParameterWriter,
  createWriter,
  limitColumn,
  makeRow,
  momentColumns,
  naturalLengths,
  placeMoments,
  plainValue,
  type CompiledPreset,
  type MadeRow,
  type MomentColumns,
  type RowFacts,
} from '../../formulas/preset';
import { makeMovement, movementEnds } from '../movement';
import type { Staging } from '../order';
import { boundsAt, matrixAt, sampleTrack } from '../../scene/sample';
import { randomAt, seedFromText } from '../../basics/random';
import { frameTicks, ticksFromSeconds, toFrameGrid, TICKS_PER_SECOND, type Ticks } from '../../basics/time';
import { transformPoint, type Box } from '../../basics/transform';
import type { Batch, ParameterBatch } from './batch';
import type { Turn } from './vary';

/** All layers of a run with their parameters and own lengths, before the run's times are known. Rows are in the order of the batch. */
export interface Prepared {
  readonly columns: Columns;
  /** Each layer's parameters as they are shown: numbers in base units, or text. */
  readonly values: readonly Record<string, number | string>[];
  /** Names of parameters that hard limits held back, by row. */
  readonly limited: readonly (readonly string[])[];
  /** Lengths that were asked for, in ticks; not a number where the preset's own counts. */
  readonly wanted: Float64Array;
  readonly moments: MomentColumns;
  /** Rows for which a length was asked for by speed and whose layer does not travel. */
  readonly still: ReadonlySet<number>;
}

/** What formulas can know of a layer whatever run it takes part in, in the order of the columns of `LayerFacts`. */
const LAYER_FACTS = [
  'layer.width',
  'layer.height',
  'layer.length',
  'layer.letters',
  'layer.left',
  'layer.right',
  'layer.top',
  'layer.bottom',
  'layer.x',
  'layer.y',
] as const;

/** Facts of all layers of a scene: fact f of layer i stands at f · layers + i. Of each scene they are worked out once. */
const factsOfScenes = new WeakMap<Staging, Float64Array>();

function factsOf(staging: Staging): Float64Array {
  const known = factsOfScenes.get(staging);
  if (known) return known;
  const { scene, rest } = staging;
  const count = scene.layers.length;
  const facts = new Float64Array(LAYER_FACTS.length * count);
  scene.layers.forEach((layer, index) => {
    const { left, right, top, bottom } = boundsAt(rest, index);
    const width = restValue(layer, 'size.x');
    const height = restValue(layer, 'size.y');
    const anchor = transformPoint(matrixAt(rest, index), {
      x: restValue(layer, 'anchor.x') * width,
      y: restValue(layer, 'anchor.y') * height,
    });
    const values: Record<(typeof LAYER_FACTS)[number], number> = {
      'layer.width': width * Math.abs(restValue(layer, 'scale.x')),
      'layer.height': height * Math.abs(restValue(layer, 'scale.y')),
      'layer.length': (layer.span.out - layer.span.in) / TICKS_PER_SECOND,
      'layer.letters': letterCount(layer.source),
      'layer.left': left,
      'layer.right': right,
      'layer.top': top,
      'layer.bottom': bottom,
      'layer.x': anchor.x,
      'layer.y': anchor.y,
    };
    LAYER_FACTS.forEach((name, fact) => (facts[fact * count + index] = values[name]));
  });
  factsOfScenes.set(staging, facts);
  return facts;
}

/** Writes who each layer is in its run, and what is known of it, into the columns of those names. */
function fillFacts(columns: Columns, { compiled, staging, recipe, indices, places, lastPlace }: ParameterBatch): void {
  const { values, stride } = columns;
  const { scene } = staging;
  const columnOf = (name: string): number => (compiled.scope.places.get(name) as number) * stride;
  const known = factsOf(staging);
  const layers = scene.layers.length;
  for (let fact = 0; fact < LAYER_FACTS.length; fact++) {
    const into = columnOf(LAYER_FACTS[fact]);
    for (let row = 0; row < stride; row++) values[into + row] = known[fact * layers + indices[row]];
  }
  const [place, share] = [columnOf('place'), columnOf('share')];
  for (let row = 0; row < stride; row++) {
    values[place + row] = places[row];
    values[share + row] = lastPlace === 0 ? 0 : places[row] / lastPlace;
  }
  const alike: readonly (readonly [string, number])[] = [
    ['count', places.length],
    ['seed', recipe.seed],
    ['frame.width', scene.width],
    ['frame.height', scene.height],
  ];
  for (const [name, value] of alike) values.fill(value, columnOf(name), columnOf(name) + stride);
}

/** Upright boxes in the rest pose as a layer's parameters see them: its own, or that of another layer that is there. */
function boxesFor({ staging, indices }: ParameterBatch): (row: number, layer: string | null) => Box {
  return (row, id) => {
    const own = indices[row];
    const index = id === null ? own : staging.scene.layers.findIndex((layer) => layer.id === id);
    return boundsAt(staging.rest, index < 0 ? own : index);
  };
}

/** Columns of inputs with each layer's parameters, and as they are shown. */
export interface Filled {
  readonly columns: Columns;
  readonly turns: readonly Turn[];
  readonly values: Record<string, number | string>[];
  readonly limited: (readonly string[])[];
}

const NONE: readonly string[] = [];

/** Fills the columns with who each layer is, and with the parameters. */
export function fillColumns(batch: ParameterBatch): Filled {
  const { compiled, staging, indices, places, lastPlace } = batch;
  const columns = createColumns(compiled, indices.length, staging.scene.rate);
  fillFacts(columns, batch);
  const turns = indices.map((index, row): Turn => ({
    place: places[row],
    share: lastPlace === 0 ? 0 : places[row] / lastPlace,
    layer: staging.scene.layers[index],
  }));
  const values = turns.map((): Record<string, number | string> => ({}));
  const limited = turns.map(() => NONE);
  compiled.parameters.forEach((_, i) => fillParameter(batch, i, { columns, turns, values, limited }));
  return { columns, turns, values, limited };
}

/** Fills the columns of one parameter: the run's values, those that were set by hand over them, within their limits. */
function fillParameter(batch: ParameterBatch, i: number, { columns, turns, values, limited }: Filled): void {
  const { compiled, overrides, sources } = batch;
  const entry = compiled.parameters[i];
  const { name } = entry.parameter;
  const write = createParameterWriter(compiled, columns, entry, boxesFor(batch));
  const byHand = overrides.size === 0 ? [] : turns.map(({ layer }) => overrides.get(layer.id)?.parameters.get(name));
  const { numbers, value } = sources[i];
  if (numbers === null || byHand.some((own) => own && own.numbers === null)) {
    turns.forEach((turn, row) => {
      let wanted = (byHand[row]?.value ?? value)(columns, row, turn);
      if (typeof wanted === 'number') wanted = limitOne(batch, i, columns, row, wanted, limited);
      values[row][name] = plainValue(wanted);
      write(row, wanted);
    });
    return;
  }
  const wanted = new Float64Array(turns.length);
  numbers(columns, turns, wanted);
  byHand.forEach((own, row) => {
    if (own) wanted[row] = own.value(columns, row, turns[row]) as number;
  });
  const held = wanted.slice();
  limitColumn(entry, columns, held);
  for (let row = 0; row < turns.length; row++) {
    if (held[row] !== wanted[row] && !Number.isNaN(wanted[row])) limited[row] = [...limited[row], name];
    values[row][name] = held[row];
    write(row, held[row]);
  }
}

/** One number within its limits, which are formulas of the layer. */
function limitOne(
  batch: ParameterBatch,
  i: number,
  columns: Columns,
  row: number,
  wanted: number,
  limited: (readonly string[])[],
): number {
  const { min, max, parameter } = batch.compiled.parameters[i];
  const out = new Float64Array(1);
  let held = wanted;
  if (min) {
    min.run(columns, row, 1, out);
    held = Math.max(out[0], held);
  }
  if (max) {
    max.run(columns, row, 1, out);
    held = Math.min(out[0], held);
  }
  if (held !== wanted) limited[row] = [...limited[row], parameter.name];
  return held;
}

/**
 * Times of the moments with a length for each layer, in ticks; not a number is the preset's own. The length parameter is
 * set first, the rest is stretched.
 */
export function timeMoments(
  { compiled, staging }: Batch,
  { columns, values }: Pick<Prepared, 'columns' | 'values'>,
  wanted: Float64Array,
): MomentColumns {
  const { lasts } = compiled.preset;
  const setLength = lasts === undefined ? null : createWriter(compiled, columns, `@${lasts}`);
  for (let row = 0; row < wanted.length; row++) {
    if (Number.isNaN(wanted[row]) || !setLength || lasts === undefined) continue;
    const seconds = wanted[row] / TICKS_PER_SECOND;
    values[row][lasts] = seconds;
    setLength(row, seconds);
  }
  const { asked, ends, natural } = askedTimes(compiled, columns);
  const factors = wanted.map((ticks, row) =>
    Number.isNaN(ticks) || !(natural[row] > 0) ? 1 : ticks / TICKS_PER_SECOND / natural[row],
  );
  return placeMoments(asked, factors, compiled, staging.scene.rate, ends);
}

interface AskedTimes {
  readonly asked: readonly Float64Array[];
  readonly ends: readonly Float64Array[];
  readonly natural: Float64Array;
}

/** When moments and the ends of movements come by themselves, in seconds; later by what a movement played backwards needs. */
function askedTimes(compiled: CompiledPreset, columns: Columns): AskedTimes {
  const moments = momentColumns(compiled, columns);
  if (compiled.movements.length === 0) {
    return { asked: moments, ends: [], natural: naturalLengths(moments, columns.stride) };
  }
  const { ends, early } = movementEnds(compiled, columns, moments);
  const later = (column: Float64Array): Float64Array => column.map((seconds, row) => seconds + early[row]);
  const [asked, lasts] = [moments.map(later), ends.map(later)];
  return { asked, ends: lasts, natural: naturalLengths([...asked, ...lasts], columns.stride) };
}

/** How far the middle of each layer travels in the preset, in pixels: the straight ways between its moments. */
function distancesOf(batch: Batch, columns: Columns, moments: MomentColumns): Float64Array {
  const { compiled, staging, indices } = batch;
  const layers = staging.scene.layers;
  const facts = (channel: ChannelId): RowFacts => {
    const rest = (i: number): number => restValue(layers[indices[i]], channel);
    return { rest, here: rest };
  };
  const { rate } = staging.scene;
  const along = (channel: ChannelId): MadeRow | undefined => {
    const row = compiled.rows.find((entry) => entry.channel === channel && entry.cells.length > 0);
    const { mark, places } = batch;
    if (row) return makeRow(compiled, row, columns, moments, { facts: facts(channel), rate, mark });
    const movement = compiled.movements.find(({ channels }) => channels.includes(channel));
    const made = movement && makeMovement(compiled, movement, columns, moments, { facts, places, rate, mark });
    return made?.find((one) => one.channel === channel);
  };
  const [across, down] = [along('position.x'), along('position.y')];
  const valueAt = (keys: readonly Key[], at: Ticks): number => (keys.length > 0 ? sampleTrack(keys, at) : 0);
  return Float64Array.from(indices, (_, i) => {
    const [xs, ys] = [across?.keysOf(i, 0) ?? [], down?.keysOf(i, 0) ?? []];
    const stops = [...new Set([...xs, ...ys].map(({ at }) => at))].sort((a, b) => a - b);
    return stops.slice(1).reduce((sum, at, k) => {
      const before = stops[k];
      return sum + Math.hypot(valueAt(xs, at) - valueAt(xs, before), valueAt(ys, at) - valueAt(ys, before));
    }, 0);
  });
}

/** Length in ticks that the recipe asks for on each layer; not a number where the preset's own counts. */
function wantedLengths(batch: Batch, columns: Columns): { wanted: Float64Array; still: Set<number> } {
  const { recipe, lengths, staging, overrides, compiled, indices } = batch;
  const { rate, layers } = staging.scene;
  const frame = frameTicks(rate);
  const atLeastAFrame = (ticks: number): Ticks => Math.max(frame, toFrameGrid(Math.round(ticks), rate));
  const still = new Set<number>();
  const { length } = recipe;
  const own = length.by === 'factor' || length.by === 'speed' ? askedTimes(compiled, columns) : null;
  const natural = own && own.natural;
  const whole = new Float64Array(indices.length).fill(1);
  const distances =
    own && length.by === 'speed'
      ? distancesOf(batch, columns, placeMoments(own.asked, whole, compiled, rate, own.ends))
      : null;
  const wanted = new Float64Array(indices.length).fill(NaN).map((none, row) => {
    const layer = layers[indices[row]];
    const byHand = overrides.get(layer.id)?.length ?? null;
    if (byHand !== null) return byHand;
    // Exact, so that a factor of one changes nothing; never less than a frame, so that the preset is to be seen.
    if (length.by === 'factor') {
      return natural && natural[row] > 0 ? Math.max(frame, ticksFromSeconds(natural[row] * length.factor)) : none;
    }
    if (length.by === 'speed') {
      const seconds = (distances?.[row] ?? 0) / length.speed;
      if (seconds > 0) return atLeastAFrame(ticksFromSeconds(seconds));
      still.add(row);
      return none;
    }
    if (lengths === null) return none;
    const [from, to] = lengths;
    if (length.by !== 'random') return from;
    return atLeastAFrame(from + (to - from) * randomAt(length.seed, seedFromText(layer.id)));
  });
  return { wanted, still };
}

/** The parameters of a run's layers, and their lengths as far as they are known before the run's times are. */
export function prepareLayers(batch: Batch): Prepared {
  const { columns, values, limited } = fillColumns(batch);
  const { wanted, still } = wantedLengths(batch, columns);
  return { columns, values, limited, wanted, moments: timeMoments(batch, { columns, values }, wanted), still };
}
