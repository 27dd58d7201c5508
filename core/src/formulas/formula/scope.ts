import { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME, type Dimension } from './dimension';

/** What a name or a parameter stands for. `frames` marks a time that people give in frames. */
export type ValueType =
  | { readonly kind: 'number'; readonly dimension: Dimension; readonly frames?: boolean }
  | { readonly kind: 'switch' }
  /** A curve, which only `ease(curve, u)` reads. Its input is its place among `Scope.curves`. */
  | { readonly kind: 'curve' };

/** Yes or no, as 1 or 0. */
export const SWITCH: ValueType = { kind: 'switch' };
/** A curve, which only `ease` reads. */
export const CURVE: ValueType = { kind: 'curve' };

/** Progress of a curve: [0, 1] → share of the way. */
export type CurveProgress = (u: number) => number;

/** A number with a unit; `frames` marks a time that is given in frames. */
export function numberOf(dimension: Dimension, frames = false): ValueType {
  return frames ? { kind: 'number', dimension, frames } : { kind: 'number', dimension };
}

/**
 * The names that a formula may read. Every entry has a place in the flat array of inputs; place 0 is always the
 * length of a frame in seconds. Lengths are in px, times in seconds, angles in degrees, switches 0 or 1.
 */
export interface Scope {
  readonly names: ReadonlyMap<string, ValueType>;
  readonly parameters: ReadonlyMap<string, ValueType>;
  readonly places: ReadonlyMap<string, number>;
  readonly size: number;
  /** The curves that inputs of kind curve count. Whoever fills the inputs adds to it. */
  readonly curves: readonly CurveProgress[];
  /** Parameters that are there and do not fit here, each with the reason as the rest of a sentence. */
  readonly unfit: ReadonlyMap<string, string>;
  /** What can be read at other times; absent where nothing can. */
  readonly past?: Past;
}

/** Reads what a name stood for at other times; sources are numbered by `Past.sources`. */
export interface PastReader {
  /** Value of a source for a row, so many seconds before the clock. */
  readonly follow: (source: number, row: number, clock: number, delay: number) => number;
  /** Where a mass is that a spring pulls to the source: pace in hertz, damping 1 for the quickest without a swing. */
  readonly chase: (source: number, row: number, clock: number, pace: number, damping: number) => number;
}

/** The names that can be read at other times, and who reads them, which is set before a program runs. */
export interface Past {
  readonly sources: ReadonlyMap<string, number>;
  readonly reader: { current: PastReader | null };
}

/** Places of the row and of the clock, which `follow` and `chase` need; nobody can write the first as a name. */
export const ROW_NAME = '#row';
/** Scene time in seconds. */
export const CLOCK_NAME = 'clock';

/** Place of the length of a frame, in seconds, among the inputs of every scope. */
export const FRAME_PLACE = 0;

/** Makes a scope from names and parameters; parameters are placed as "@name". */
export function createScope(
  names: Readonly<Record<string, ValueType>>,
  parameters: Readonly<Record<string, ValueType>> = {},
): Scope {
  const places = new Map<string, number>();
  for (const name of Object.keys(names)) places.set(name, places.size + 1);
  for (const name of Object.keys(parameters)) places.set(`@${name}`, places.size + 1);
  return {
    names: new Map(Object.entries(names)),
    parameters: new Map(Object.entries(parameters)),
    places,
    size: places.size + 1,
    curves: [],
    unfit: new Map(),
  };
}

/** Constants that every formula knows, in base units. */
export const CONSTANTS: Readonly<Record<string, { readonly type: ValueType; readonly value: number }>> = {
  pi: { type: numberOf(PLAIN), value: Math.PI },
  tau: { type: numberOf(PLAIN), value: Math.PI * 2 },
  turn: { type: numberOf(ANGLE), value: 360 },
  on: { type: SWITCH, value: 1 },
  off: { type: SWITCH, value: 0 },
  /** One second, so that speeds read as they are written: 40px/s, 2/s. A let line may take the name. */
  s: { type: numberOf(TIME), value: 1 },
};

/** The constants that stand for units, whose names let lines may take. */
export const UNIT_CONSTANTS: ReadonlySet<string> = new Set(['s']);

/** Names that say who a layer is in its run and how large things are; presets and rigs read them alike. */
export const RUN_NAMES: Readonly<Record<string, ValueType>> = {
  place: numberOf(PLAIN),
  count: numberOf(PLAIN),
  share: numberOf(PLAIN),
  seed: numberOf(PLAIN),
  'layer.width': numberOf(LENGTH),
  'layer.height': numberOf(LENGTH),
  'layer.length': numberOf(TIME, true),
  'layer.letters': numberOf(PLAIN),
  'frame.width': numberOf(LENGTH),
  'frame.height': numberOf(LENGTH),
};

/** The units that names and results can have. */
export const DIMENSIONS = { PLAIN, LENGTH, TIME, ANGLE, FREQUENCY } as const;
