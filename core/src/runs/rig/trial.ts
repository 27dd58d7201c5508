import type { ChannelId } from '../../basics/channel';
import { frameTicks, ticksFromSeconds, TICKS_PER_SECOND, type Rate } from '../../basics/time';
import { compileFormula, createScope } from '../../formulas/formula';
import { compilePreset, isNumberKind, typeOfKind, type Parameter } from '../../formulas/preset';
import { rigChannels, type Rig } from '../../formulas/rig';
import type { Layer, Track } from '../../scene/layer';
import { createRigRecipe } from '../../scene/recipe';
import { compileRigs } from '../../scene/sample';
import type { Shelf } from '../../library/library';
import { SCENE_FORMAT, type RunRecord, type Scene } from '../../scene/scene';
import { planRig } from './plan-rig';

/** What a rig did to one value that was moved and then let rest. */
export interface RigFigures {
  /** How far the first swing passes the goal, as a share of the way there; 0 where it does not pass. */
  readonly passes: number;
  /** Seconds from the arrival to the height of the first swing; null without one. */
  readonly peak: number | null;
  /** How often it swings to the other side by more than 1 %. */
  readonly swings: number;
  /** Seconds from the arrival until it stays within 1 % of the way; null where it does not while it is watched. */
  readonly settles: number | null;
}

const RATE: Rate = { num: 25, den: 1 };
const ARRIVES = 0.4;
const WATCHED = 6;
const STEPS = 1_200;
const WAY = 100;
const CLOSE = 0.01;

function trialLayer(channel: ChannelId): Layer {
  const key = (seconds: number, value: number): Track[number] => ({
    at: ticksFromSeconds(seconds),
    value,
    ease: { type: 'linear' },
  });
  return {
    id: 'trial',
    name: 'Trial',
    kind: 'card',
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: ticksFromSeconds(ARRIVES + WATCHED) },
    rest: { [channel]: WAY, 'size.x': 100, 'size.y': 100 },
    tracks: { [channel]: [key(0, 0), key(ARRIVES, WAY)] },
    look: {},
    source: { type: 'rectangle' },
    data: {},
  };
}

/** The channel on which a rig is tried: one that it answers to motion on. */
function trialChannel(rig: Rig): ChannelId | null {
  const answers = rig.formulas.find(({ text }) => /\b(arrival|since|chase)\b/.test(text.replace(/#[^\n]*/g, '')));
  return (answers ?? rig.formulas[0])?.channels[0] ?? rigChannels(rig)[0] ?? null;
}

/** Puts a rig on one value that moves evenly for 0.4 s and stops; gives the value by seconds, or null where it cannot run. */
export function tryRig(
  rig: Rig,
  shelf: Shelf,
  dials: Readonly<Record<string, string>> = {},
): ((seconds: number) => number) | null {
  const channel = trialChannel(rig);
  if (channel === null) return null;
  const layer = trialLayer(channel);
  const scene: Scene = {
    format: SCENE_FORMAT,
    id: 'trial',
    name: 'Trial',
    project: '',
    width: 1_920,
    height: 1_080,
    rate: RATE,
    length: layer.span.out,
    cues: [],
    layers: [layer],
    runs: [],
  };
  const context = { runId: 'trial', by: '', when: '2026-01-01T00:00:00.000Z' };
  const parameters = Object.fromEntries(
    Object.entries(dials).map(([name, value]) => [name, { by: 'fixed' as const, value }]),
  );
  const recipe = { ...createRigRecipe('trial', { by: 'layers', layers: ['trial'] }), parameters, channels: [channel] };
  const item = {
    kind: 'rig' as const,
    id: 'trial',
    name: 'Trial',
    note: '',
    tags: [],
    collection: null,
    state: 'published' as const,
    revision: 1,
    author: '',
    when: context.when,
    summary: '',
    body: rig,
  };
  const own: Shelf = { ...shelf, items: new Map([['trial', item]]) };
  const { rig: used } = planRig({ scene, shelf: own, context, compile: compilePreset, indices: [0] }, recipe);
  if (!used) return null;
  const run: RunRecord = { ...context, id: 'trial', sentence: '', recipe, rig: used, layers: ['trial'], made: {} };
  const rigs = compileRigs({ ...scene, runs: [run] });
  if (!rigs) return null;
  return (seconds) => rigs.valueAt(0, channel, Math.round(seconds * TICKS_PER_SECOND));
}

/** Figures of how a rig answers a value that moves evenly for 0.4 s and stops; null where it cannot run. */
export function rigFigures(rig: Rig, shelf: Shelf, dials: Readonly<Record<string, string>> = {}): RigFigures | null {
  const valueAt = tryRig(rig, shelf, dials);
  return valueAt && figuresOf(valueAt);
}

function figuresOf(valueAt: (seconds: number) => number): RigFigures {
  const offsets = Array.from({ length: STEPS + 1 }, (_, i) => (valueAt(ARRIVES + (i / STEPS) * WATCHED) - WAY) / WAY);
  const seconds = (index: number): number => (index / STEPS) * WATCHED;
  const last = offsets.findLastIndex((offset) => Math.abs(offset) > CLOSE);
  let [swings, side] = [0, 0];
  for (const offset of offsets) {
    const now = Math.abs(offset) > CLOSE ? Math.sign(offset) : 0;
    if (now !== 0 && now !== side) {
      if (side !== 0 || now > 0) swings++;
      side = now;
    }
  }
  const first = offsets.findIndex(
    (offset, i) =>
      offset > CLOSE / 10 && offset >= (offsets[i + 1] ?? -Infinity) && offset >= (offsets[i - 1] ?? -Infinity),
  );
  return {
    passes: first < 0 ? 0 : offsets[first],
    peak: first < 0 ? null : seconds(first),
    swings,
    settles: last >= STEPS ? null : seconds(last + 1),
  };
}

const frame = frameTicks(RATE);

function frames(seconds: number): string {
  return `${Math.round((seconds * TICKS_PER_SECOND) / frame)} f`;
}

/** The figures in words: "passes by 11 %", "settles within 1 % after 1.53 s". */
export function figuresWords({ passes, peak, swings, settles }: RigFigures): string[] {
  return [
    passes > 0.001
      ? `passes by ${(passes * 100).toFixed(passes < 0.1 ? 1 : 0)} % of the way`
      : 'does not pass the goal',
    ...(peak === null || passes <= 0.001 ? [] : [`first peak ${peak.toFixed(2)} s (${frames(peak)}) after it arrives`]),
    swings === 0 ? 'no swing' : swings === 1 ? 'one swing' : `${swings} swings`,
    settles === null ? `still moving after ${WATCHED} s` : `within 1 % after ${settles.toFixed(2)} s`,
  ];
}

/** What one may wish to see of a rig. */
export type Wish = { readonly figure: 'passes' | 'settles'; readonly value: number };

const TRIES = 24;
const HALVINGS = 30;

/** A number of a dial, in base units, as text in the unit that the dial is written in; times in frames of a rate. */
export function dialText({ kind }: Pick<Parameter, 'kind'>, value: number, rate?: Rate): string {
  const number = Number(value.toFixed(4));
  switch (kind) {
    case 'percent':
      return `${Number((value * 100).toFixed(2))}%`;
    case 'time':
      return rate ? `${Number(((value * TICKS_PER_SECOND) / frameTicks(rate)).toFixed(2))}f` : `${number}s`;
    case 'length':
      return `${number}px`;
    case 'angle':
      return `${number}deg`;
    case 'frequency':
      return `${number}Hz`;
    default:
      return String(number);
  }
}

/** What a dial's text comes to in base units (px, seconds, degrees; 100 % is 1); null where it depends on the layer. */
export function dialNumber(
  { kind }: Pick<Parameter, 'kind'>,
  text: string | undefined,
  rate: Rate = RATE,
): number | null {
  if (text === undefined || !isNumberKind(kind)) return null;
  const result = compileFormula(text, createScope({}), typeOfKind(kind));
  if (!result.ok) return null;
  const value = result.compiled.evaluate(Float64Array.of(frameTicks(rate) / TICKS_PER_SECOND));
  return Number.isFinite(value) ? value : null;
}

/**
 * The value of a dial with which the rig does what one wishes to see, looked for between the dial's soft limits and then
 * halved; null where no value in between does.
 */
export function solveDial(
  rig: Rig,
  shelf: Shelf,
  dial: string,
  wish: Wish,
  dials: Readonly<Record<string, string>> = {},
): string | null {
  const parameter = rig.dials.find(({ name }) => name === dial);
  const [from, to] = parameter
    ? [dialNumber(parameter, parameter.from ?? parameter.min), dialNumber(parameter, parameter.to ?? parameter.max)]
    : [null, null];
  if (!parameter || from === null || to === null) return null;
  const missAt = (value: number): number | null => {
    const figures = rigFigures(rig, shelf, { ...dials, [dial]: dialText(parameter, value) });
    const found = figures && (wish.figure === 'passes' ? figures.passes : figures.settles);
    return found === null || found === undefined ? null : found - wish.value;
  };
  let before: readonly [number, number] | null = null;
  for (let i = 0; i <= TRIES; i++) {
    const at = from + ((to - from) * i) / TRIES;
    const miss = missAt(at);
    if (miss === 0) return dialText(parameter, at);
    if (miss !== null && before && Math.sign(miss) !== Math.sign(before[1])) {
      return dialText(parameter, halved(missAt, before, at));
    }
    before = miss === null ? null : [at, miss];
  }
  return null;
}

/** Where a miss changes its sign; where it jumps there, the side on which the figure is not more than wished. */
function halved(missAt: (at: number) => number | null, [low, missed]: readonly [number, number], high: number): number {
  let [a, b] = [low, high];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (a + b) / 2;
    const miss = missAt(middle);
    if (miss !== null && Math.sign(miss) === Math.sign(missed)) a = middle;
    else b = middle;
  }
  return missed > 0 ? b : a;
}
