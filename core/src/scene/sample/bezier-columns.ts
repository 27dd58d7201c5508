import { prepareColumns, ProgramWriter, type Program, type RunColumns } from '../../formulas/formula';

/** Curve parameters are solved to this in the time's share. */
const CLOSE = 1e-10;

/**
 * Columns of segments that are worked out all at once: the share of its time, the polynomial of its time curve, the curve
 * parameter that solving starts from, and its value: value + ((valueCubic·u + valueSquare)·u + valueLine)·u.
 */
export const BezierColumn = {
  share: 0,
  cubic: 1,
  square: 2,
  line: 3,
  start: 4,
  valueCubic: 5,
  valueSquare: 6,
  valueLine: 7,
  value: 8,
} as const;

/** How many columns there are. */
export const BEZIER_COLUMNS = 9;

/**
 * The value of a segment at a share of its time: the curve parameter u by two of Halley's third-order steps from where
 * solving starts, then the value's polynomial at u; NaN where the curve at u is not within CLOSE of the share.
 */
function bezierProgram(): Program {
  const writer = new ProgramWriter();
  const input = (name: keyof typeof BezierColumn): number => writer.input(BezierColumn[name]);
  const [share, cubic, square, line] = [input('share'), input('cubic'), input('square'), input('line')];
  const times = (a: number, b: number): number => writer.step('multiply', a, b);
  const plus = (a: number, b: number): number => writer.step('add', a, b);
  const minus = (a: number, b: number): number => writer.step('subtract', a, b);
  const polynomial = (a: number, b: number, c: number, u: number): number =>
    times(plus(times(plus(times(a, u), b), u), c), u);
  const missAt = (u: number): number => minus(polynomial(cubic, square, line, u), share);
  const bend = times(writer.constant(3), cubic);
  const lean = times(writer.constant(2), square);
  const halley = (u: number): number => {
    const miss = missAt(u);
    const bent = plus(times(bend, u), square);
    const slope = plus(times(plus(times(bend, u), lean), u), line);
    return minus(u, writer.step('divide', times(miss, slope), minus(times(slope, slope), times(miss, bent))));
  };
  const u = halley(halley(input('start')));
  const isClose = writer.step('atMost', writer.step('absolute', missAt(u)), writer.constant(CLOSE));
  const way = polynomial(input('valueCubic'), input('valueSquare'), input('valueLine'), u);
  const result = writer.step('choose', isClose, plus(input('value'), way), writer.constant(NaN));
  return { values: writer.values, result };
}

let prepared: RunColumns | null = null;

/** Works out segments whose columns stand one after the other, as `BezierColumn` numbers them; NaN where two steps are too few. */
export function runBezierColumns(...[columns, from, count, out]: Parameters<RunColumns>): void {
  prepared ??= prepareColumns(bezierProgram());
  prepared(columns, from, count, out);
}
