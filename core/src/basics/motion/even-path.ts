import svgpath from 'svgpath';

/** A point of a path, and the direction in which the path goes there, in degrees clockwise from the right. */
export interface PathPoint {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

/** A path that can be gone along evenly. */
export interface EvenPath {
  /** In px, ≥ 0. */
  readonly length: number;
  readonly isClosed: boolean;
  /** Distances at which it turns sharply, ascending. */
  readonly corners: readonly number[];
  /**
   * Writes x, y and the angle of the place after a distance (px; held at the ends, round and round where closed). Angles
   * go on from turn to turn: a circle ends at 360° more than it began with.
   */
  readonly write: (distance: number, out: Float64Array, at: number) => void;
}

type Curve = readonly [x0: number, y0: number, x1: number, y1: number, x2: number, y2: number, x3: number, y3: number];

/** Straight pieces of each curve by which its length is measured. */
const PIECES = 48;
const SHORTEST = 1e-9;

/** A path as cubic curves. What is drawn after the pen was lifted is left out: a motion path is one line. */
export function pathCurves(d: string): { readonly curves: readonly Curve[]; readonly isClosed: boolean } {
  const curves: Curve[] = [];
  let isClosed = false;
  let [isOver, sx, sy] = [false, 0, 0];
  const line = (x: number, y: number, tx: number, ty: number): void => {
    const [ax, ay] = [(tx - x) / 3, (ty - y) / 3];
    if (Math.hypot(tx - x, ty - y) > SHORTEST) curves.push([x, y, x + ax, y + ay, tx - ax, ty - ay, tx, ty]);
  };
  svgpath(d)
    .abs()
    .unshort()
    .unarc()
    .iterate((segment, index, x, y) => {
      const [command, ...n] = segment as [string, ...number[]];
      if (isOver) return;
      if (command === 'M') {
        if (index > 0 && curves.length > 0) isOver = true;
        else [sx, sy] = [n[0], n[1]];
      } else if (command === 'L') line(x, y, n[0], n[1]);
      else if (command === 'H') line(x, y, n[0], y);
      else if (command === 'V') line(x, y, x, n[0]);
      else if (command === 'C') curves.push([x, y, n[0], n[1], n[2], n[3], n[4], n[5]]);
      else if (command === 'Q') {
        const [qx, qy, ex, ey] = n;
        const third = (from: number, q: number): number => from + ((q - from) * 2) / 3;
        curves.push([x, y, third(x, qx), third(y, qy), third(ex, qx), third(ey, qy), ex, ey]);
      } else if (command === 'Z') {
        line(x, y, sx, sy);
        isClosed = isOver = true;
      }
    });
  return { curves, isClosed };
}

function cubic(a: number, b: number, c: number, d: number, u: number): number {
  const w = 1 - u;
  return w * w * (w * a + 3 * u * b) + u * u * (3 * w * c + u * d);
}

/** Length of a curve from its beginning to u, by Gauss–Legendre with five points a piece (any numerical handbook). */
const NODES = [0, 0.5384693101056831, -0.5384693101056831, 0.906179845938664, -0.906179845938664];
const WEIGHTS = [
  0.5688888888888889, 0.47862867049936647, 0.47862867049936647, 0.23692688505618908, 0.23692688505618908,
];

function speedOf([x0, y0, x1, y1, x2, y2, x3, y3]: Curve, u: number): number {
  const w = 1 - u;
  const slope = (a: number, b: number, c: number, d: number): number =>
    3 * (w * w * (b - a) + 2 * w * u * (c - b) + u * u * (d - c));
  return Math.hypot(slope(x0, x1, x2, x3), slope(y0, y1, y2, y3));
}

function lengthBetween(curve: Curve, from: number, to: number): number {
  const half = (to - from) / 2;
  return NODES.reduce((sum, node, i) => sum + WEIGHTS[i] * speedOf(curve, from + half * (1 + node)), 0) * half;
}

const RADIAN = 180 / Math.PI;

/** Direction of a curve at u; where its handles lie on its ends, of the nearest point that differs. */
function directionAt([x0, y0, x1, y1, x2, y2, x3, y3]: Curve, u: number): number {
  const w = 1 - u;
  let dx = w * w * (x1 - x0) + 2 * w * u * (x2 - x1) + u * u * (x3 - x2);
  let dy = w * w * (y1 - y0) + 2 * w * u * (y2 - y1) + u * u * (y3 - y2);
  if (Math.hypot(dx, dy) < SHORTEST) {
    [dx, dy] = u < 0.5 ? [x2 - x0, y2 - y0] : [x3 - x1, y3 - y1];
    if (Math.hypot(dx, dy) < SHORTEST) [dx, dy] = [x3 - x0, y3 - y0];
  }
  return Math.atan2(dy, dx) * RADIAN;
}

/** Sharper turns than this, in degrees, are corners. */
const CORNER = 2;

/** The angle that is the same direction as `angle` and nearest to another. */
function nearestTurn(angle: number, to: number): number {
  return angle + Math.round((to - angle) / 360) * 360;
}

/** Angles at the beginning of each piece, going on from turn to turn, with that at the very end; and the corners. */
function turnsOf(curves: readonly Curve[], ends: Float64Array): { turns: Float64Array; corners: number[] } {
  const count = curves.length * PIECES;
  const turns = new Float64Array(count + 1);
  const corners: number[] = [];
  let before = directionAt(curves[0], 0);
  for (let i = 0; i < count; i++) {
    const curve = curves[Math.floor(i / PIECES)];
    const u = (i % PIECES) / PIECES;
    const now = nearestTurn(directionAt(curve, u), before);
    if (i > 0 && u === 0 && Math.abs(now - before) > CORNER) corners.push(ends[i]);
    turns[i] = now;
    before = nearestTurn(directionAt(curve, u + 1 / PIECES), now);
  }
  turns[count] = before;
  return { turns, corners };
}

/**
 * A path of SVG path data that is gone along at even speed, as W3C Motion Path 1 has it. Null for what is no path or has
 * no length. Lengths are exact to a millionth of the path for what people draw.
 */
export function createEvenPath(d: string): EvenPath | null {
  const { curves, isClosed } = pathCurves(d);
  const count = curves.length * PIECES;
  if (count === 0 || curves.some((curve) => curve.some((number) => !Number.isFinite(number)))) return null;
  const ends = new Float64Array(count + 1);
  for (let i = 0; i < count; i++) {
    const u = (i % PIECES) / PIECES;
    ends[i + 1] = ends[i] + lengthBetween(curves[Math.floor(i / PIECES)], u, u + 1 / PIECES);
  }
  const length = ends[count];
  if (!(length > SHORTEST)) return null;
  const { turns, corners } = turnsOf(curves, ends);
  const whole = isClosed ? nearestTurn(turns[0], turns[count]) - turns[0] : 0;
  const write = (distance: number, out: Float64Array, at: number): void => {
    const along =
      isClosed && (distance < 0 || distance > length) ? distance - Math.floor(distance / length) * length : distance;
    const wanted = Math.min(length, Math.max(0, along));
    let [low, high] = [0, count - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (ends[middle] <= wanted) low = middle;
      else high = middle - 1;
    }
    const curve = curves[Math.floor(low / PIECES)];
    const from = (low % PIECES) / PIECES;
    const left = wanted - ends[low];
    const piece = ends[low + 1] - ends[low];
    let u = from + (piece > 0 ? left / piece / PIECES : 0);
    // Newton's step on the length, twice, within the piece.
    for (let round = 0; round < 2; round++) {
      const speed = speedOf(curve, u);
      if (speed > SHORTEST)
        u = Math.min(from + 1 / PIECES, Math.max(from, u - (lengthBetween(curve, from, u) - left) / speed));
    }
    out[at] = cubic(curve[0], curve[2], curve[4], curve[6], u);
    out[at + 1] = cubic(curve[1], curve[3], curve[5], curve[7], u);
    const rounds = isClosed ? Math.round((along === distance ? 0 : distance - along) / length) : 0;
    out[at + 2] = nearestTurn(directionAt(curve, u), turns[low]) + rounds * whole;
  };
  return { length, isClosed, corners, write };
}

/** The place on a path after a distance in px. */
export function pathPoint(path: EvenPath, distance: number): PathPoint {
  const out = new Float64Array(3);
  path.write(distance, out, 0);
  return { x: out[0], y: out[1], angle: out[2] };
}

/** What is wrong with a text as a path to go along, as a sentence; null where it is one. */
export function pathProblem(d: string): string | null {
  const { err } = svgpath(d) as unknown as { readonly err: string };
  if (err) return 'This is no SVG path. Write commands such as M0 0 C50 −80 150 −80 200 0.';
  return createEvenPath(d) ? null : 'This path has no length. Draw a line from one place to another.';
}

const MOST_KEPT = 400;
const kept = new Map<string, EvenPath | null>();

/** The same path for the same text: many layers go along one. Null as `createEvenPath` has it. */
export function evenPathOf(d: string): EvenPath | null {
  const known = kept.get(d);
  if (known !== undefined) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const path = createEvenPath(d);
  kept.set(d, path);
  return path;
}
