import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import { TICKS_PER_SECOND } from '../../basics/time';
import { compileRig, KNOWN_ROLES, rigIn, type CompiledRigFormula } from '../../formulas/rig';
import { FRAME_PLACE, ROW_NAME, type Columns, type PastReader, type RunRow, type Scope } from '../../formulas/formula';
import { curveIndex, type CurveTable } from '../../formulas/preset';
import { letterCount, restValue, type Layer, type Track } from '../layer';
import { valueIn, type RunRecord, type UsedRig } from '../scene';
import type { KeyTimes } from './key-times';

/** One formula of one run: a program, its layers, and where each of its inputs comes from. */
export interface Unit {
  readonly run: string;
  readonly rig: UsedRig;
  readonly compiled: CompiledRigFormula;
  readonly slot: number;
  /** Layer index by row. */
  readonly layers: readonly number[];
  /** Row of each layer index. */
  readonly rows: ReadonlyMap<number, number>;
  /** By how much each row is later, ticks. */
  readonly delays: Float64Array;
  /** In points and out points of the layers by row, ticks. */
  readonly begins: Float64Array;
  readonly ends: Float64Array;
  /** For each source that is read: the cell by row. */
  readonly sources: ReadonlyMap<string, Int32Array>;
  /** The same by the number of the source; null for one that is not read, and for what keys give. */
  readonly sourceCells: readonly (Int32Array | null)[];
  /** Sources whose present value is an input. */
  readonly present: readonly { readonly place: number; readonly cells: Int32Array }[];
  readonly statics: readonly Static[];
  /** Places of what changes with time among the inputs; −1 for what is not read. */
  readonly places: Readonly<Record<(typeof LIVE)[number], number>>;
  readonly readsKeyTimes: boolean;
  /** Whether what the keys give is an input. */
  readonly readsKeyed: boolean;
  readonly keyedDials: readonly { readonly place: number; readonly keys: Track }[];
  /** The key that was last found of each row, a memo that never changes a result. */
  readonly cursors: Int32Array;
  /** The keys of all rows, once they were asked for. */
  readonly keyTimes: { current: KeyTimes | null };
  /** Who reads its sources at other times; set as soon as the scene's rigs are put together. */
  readonly reader: { current: PastReader | null };
  /** The inputs of single rows, with what does not change with time filled in, once they were asked for. */
  readonly rooms: Room[];
}

/** The inputs of one row, and what works it out: what does not change with time is done once. */
export interface Room {
  readonly columns: Columns;
  readonly rows: Int32Array;
  readonly run: RunRow;
}

/** Inputs that change with time. */
const LIVE = ['t', 'clock', 'keyed', 'since', 'until', 'arrival'] as const;

/** An input that does not change with time. */
export interface Static {
  readonly place: number;
  readonly at: (row: number) => number;
}

/** What of the scene formulas may read: its size in px, and a frame in seconds. */
export interface Stage {
  readonly width: number;
  readonly height: number;
  readonly frame: number;
}

/** The formulas of a run for the channels that it drives. */
export function unitsOf(
  run: RunRecord,
  layers: readonly Layer[],
  indexById: ReadonlyMap<string, number>,
  stage: Stage,
): Unit[] {
  const used = run.rig as UsedRig;
  const rig = rigIn(used.body);
  if (!rig) return [];
  const members = run.layers.flatMap((id, place) => {
    const index = indexById.get(id);
    return index === undefined ? [] : [{ index, place }];
  });
  const driven = new Set(used.channels);
  return compileRig(rig)
    .formulas.filter(({ channel }) => driven.has(channel))
    .map((compiled) => {
      const leaders = new Set(namedRoles(compiled).map((role) => indexById.get(used.roles?.[role] ?? '')));
      // Who is followed keeps its own keys.
      const led = members.filter(({ index }) => !leaders.has(index));
      return unitOf(run, used, compiled, led, layers, indexById, stage);
    });
}

/** The named roles that a formula reads. */
function namedRoles({ sources, formula }: CompiledRigFormula): string[] {
  const isKnown = (role: string): boolean => (KNOWN_ROLES as readonly string[]).includes(role);
  return sources.flatMap(({ name, role }) =>
    role !== null && !isKnown(role) && formula.reads.has(name) ? [role] : [],
  );
}

interface Member {
  readonly index: number;
  /** Where the layer stands in the run's list. */
  readonly place: number;
}

function unitOf(
  run: RunRecord,
  rig: UsedRig,
  compiled: CompiledRigFormula,
  members: readonly Member[],
  layers: readonly Layer[],
  indexById: ReadonlyMap<string, number>,
  stage: Stage,
): Unit {
  const placeOf = (row: number): number => valueIn(rig.places, members[row].place) ?? 0;
  const inOrder = members.map((_, row) => row).sort((a, b) => placeOf(a) - placeOf(b));
  const before = new Map(inOrder.map((row, i) => [row, inOrder[i - 1] ?? -1]));
  const roleLayer = (role: string, row: number): number => {
    if (role === 'each') return members[row].index;
    if (role === 'before') return members[before.get(row) ?? -1]?.index ?? -1;
    return indexById.get(rig.roles?.[role] ?? '') ?? -1;
  };
  const { formula, scope, sources } = compiled;
  const read = sources.filter(({ name, role }) => role !== null && formula.reads.has(name));
  const last = members.reduce((most, _, row) => Math.max(most, placeOf(row)), 0);
  const cellsOf = new Map(
    read.map(({ name, role, channel }) => [
      name,
      Int32Array.from(members, (_, row) => {
        const layer = roleLayer(role as string, row);
        return layer < 0 ? -1 : layer * CHANNEL_COUNT + channelOf(channel).slot;
      }),
    ]),
  );
  const placeNamed = (name: string): number => {
    const place = scope.places.get(name) ?? -1;
    return formula.inputs.has(place) ? place : -1;
  };
  const places = Object.fromEntries(LIVE.map((name) => [name, placeNamed(name)])) as Unit['places'];
  const present = [...cellsOf].flatMap(([name, cells]) => {
    const place = placeNamed(name);
    return place < 0 ? [] : [{ place, cells }];
  });
  const spans = members.map(({ index }) => layers[index].span);
  return {
    run: run.id,
    rig,
    compiled,
    slot: channelOf(compiled.channel).slot,
    layers: members.map(({ index }) => index),
    rows: new Map(members.map(({ index }, row) => [index, row])),
    delays: Float64Array.from(members, (_, row) => placeOf(row) * rig.later),
    begins: Float64Array.from(spans, (span) => span.in),
    ends: Float64Array.from(spans, (span) => span.out),
    sources: cellsOf,
    sourceCells: sources.map(({ name, role }) => (role === null ? null : (cellsOf.get(name) ?? null))),
    present,
    places,
    // Before the first of an order stands what its own keys give.
    readsKeyed: places.keyed >= 0 || present.some(({ cells }) => cells.includes(-1)),
    readsKeyTimes: places.since >= 0 || places.until >= 0 || places.arrival >= 0,
    keyedDials: rig.inputs.flatMap((input) => {
      const place = 'keys' in input ? placeNamed(input.name) : -1;
      return 'keys' in input && place >= 0 ? [{ place, keys: input.keys }] : [];
    }),
    cursors: new Int32Array(members.length).fill(-1),
    keyTimes: { current: null },
    reader: { current: null },
    statics: staticsOf({
      scope,
      curves: compiled.curves,
      run,
      rig,
      members,
      layers,
      stage,
      placeOf,
      roleLayer,
      last,
      channel: compiled.channel,
    }),
    rooms: [],
  };
}

interface Facts {
  readonly scope: Scope;
  readonly curves: CurveTable;
  readonly run: RunRecord;
  readonly rig: UsedRig;
  readonly members: readonly Member[];
  readonly layers: readonly Layer[];
  readonly stage: Stage;
  readonly placeOf: (row: number) => number;
  readonly roleLayer: (role: string, row: number) => number;
  readonly last: number;
  readonly channel: ChannelId;
}

/** Where inputs come from that do not change with time. */
function staticsOf(facts: Facts): Static[] {
  const { places } = facts.scope;
  const { run, rig, members, layers, stage, placeOf, last, channel } = facts;
  const layerOf = (row: number): Layer => layers[members[row].index];
  const known: Readonly<Partial<Record<string, (row: number) => number>>> = {
    [ROW_NAME]: (row) => row,
    place: placeOf,
    count: () => members.length,
    share: (row) => (last === 0 ? 0 : placeOf(row) / last),
    seed: () => run.recipe.seed,
    rest: (row) => restValue(layerOf(row), channel),
    'layer.width': (row) => restValue(layerOf(row), 'size.x') * Math.abs(restValue(layerOf(row), 'scale.x')),
    'layer.height': (row) => restValue(layerOf(row), 'size.y') * Math.abs(restValue(layerOf(row), 'scale.y')),
    'layer.length': (row) => (layerOf(row).span.out - layerOf(row).span.in) / TICKS_PER_SECOND,
    'layer.letters': (row) => letterCount(layerOf(row).source),
    'frame.width': () => stage.width,
    'frame.height': () => stage.height,
  };
  const restOf = (name: string): ((row: number) => number) | undefined => {
    const role = /^(\w+)\.rest$/.exec(name)?.[1];
    if (role === undefined) return undefined;
    return (row) => restValue(layers[facts.roleLayer(role, row)] ?? layerOf(row), channel);
  };
  const inputs = rig.inputs.flatMap((input): Static[] => {
    const place = places.get(input.name);
    if (place === undefined || !('values' in input)) return [];
    const at = (row: number): number => valueIn(input.values, members[row].place) ?? 0;
    if (facts.scope.parameters.get(input.name.slice(1))?.kind !== 'curve') return [{ place, at }];
    // A run counts its own curves; all runs of a rig share the table that its programs read.
    const shared = (rig.curves ?? []).map((easing) => curveIndex(facts.curves, easing));
    return [{ place, at: (row) => shared[at(row)] ?? -1 }];
  });
  return [
    { place: FRAME_PLACE, at: () => stage.frame },
    ...[...places].flatMap(([name, place]): Static[] => {
      const at = known[name] ?? restOf(name);
      return at ? [{ place, at }] : [];
    }),
    ...inputs,
  ];
}
