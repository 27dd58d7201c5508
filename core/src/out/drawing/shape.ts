import svgpath from 'svgpath';
import { cubicTurns } from '../../basics/motion';
import type { Box, Matrix } from '../../basics/transform';
import { lengthOf } from './style';
import type { Element } from './xml';

/** Size that per cents of a shape are of, px. */
export interface Room {
  readonly width: number;
  readonly height: number;
}

const number = (value: number): string => String(Math.round(value * 1e6) / 1e6);

function rectangle(x: number, y: number, w: number, h: number, rx: number, ry: number): string {
  if (rx <= 0 || ry <= 0) return `M${number(x)} ${number(y)}h${number(w)}v${number(h)}h${number(-w)}z`;
  const arc = (dx: number, dy: number): string => `a${number(rx)} ${number(ry)} 0 0 1 ${number(dx)} ${number(dy)}`;
  const [across, down] = [w - 2 * rx, h - 2 * ry];
  return `M${number(x + rx)} ${number(y)}h${number(across)}${arc(rx, ry)}v${number(down)}${arc(-rx, ry)}h${number(-across)}${arc(-rx, -ry)}v${number(-down)}${arc(rx, -ry)}z`;
}

function oval(cx: number, cy: number, rx: number, ry: number): string {
  const half = (dx: number): string => `a${number(rx)} ${number(ry)} 0 0 1 ${number(dx)} 0`;
  return `M${number(cx - rx)} ${number(cy)}${half(2 * rx)}${half(-2 * rx)}z`;
}

function corner(own: number | null, other: number | null, most: number): number {
  return Math.min(own ?? other ?? 0, most);
}

/** Path data of a shape in its own space; null where it shows nothing. Source: SVG 2, chapters 9 and 10. */
export function shapePath({ name, attributes }: Element, room: Room): string | null {
  const across = (key: string): number | null => lengthOf(attributes[key], room.width);
  const down = (key: string): number | null => lengthOf(attributes[key], room.height);
  const both = (key: string): number | null =>
    lengthOf(attributes[key], Math.hypot(room.width, room.height) / Math.SQRT2);
  switch (name) {
    case 'path':
      return attributes['d']?.trim() || null;
    case 'rect': {
      const [w, h] = [across('width') ?? 0, down('height') ?? 0];
      if (w <= 0 || h <= 0) return null;
      const [rx, ry] = [across('rx'), down('ry')];
      return rectangle(across('x') ?? 0, down('y') ?? 0, w, h, corner(rx, ry, w / 2), corner(ry, rx, h / 2));
    }
    case 'circle': {
      const r = both('r') ?? 0;
      return r > 0 ? oval(across('cx') ?? 0, down('cy') ?? 0, r, r) : null;
    }
    case 'ellipse': {
      const [rx, ry] = [across('rx') ?? down('ry') ?? 0, down('ry') ?? across('rx') ?? 0];
      return rx > 0 && ry > 0 ? oval(across('cx') ?? 0, down('cy') ?? 0, rx, ry) : null;
    }
    case 'line':
      return `M${number(across('x1') ?? 0)} ${number(down('y1') ?? 0)}L${number(across('x2') ?? 0)} ${number(down('y2') ?? 0)}`;
    case 'polyline':
    case 'polygon': {
      const points = [...(attributes['points'] ?? '').matchAll(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi)].map(
        ([one]) => one,
      );
      if (points.length < 4) return null;
      const even = points.slice(0, points.length - (points.length % 2));
      return `M${even.join(' ')}${name === 'polygon' ? 'z' : ''}`;
    }
    default:
      return null;
  }
}

/**
 * A path in absolute lines and curves alone, in another space; null where its data is wrong from the beginning, or goes to
 * places and draws from none (SVG 2, 9.3.3: a move by itself shows nothing).
 */
export function plainPath(d: string, matrix: Matrix): { readonly d: string; readonly box: Box } | null {
  const path = svgpath(d)
    .matrix([...matrix])
    .abs()
    .unarc()
    .unshort();
  let isDrawn = false;
  path.iterate(([kind]) => void (isDrawn ||= kind !== 'M'));
  const box = isDrawn ? boundsOfPath(path) : null;
  return box && { d: path.toString(), box };
}

/** The box around a path of absolute M, L, H, V, C, Q and Z; null for an empty one. */
function boundsOfPath(path: ReturnType<typeof svgpath>): Box | null {
  const [xs, ys]: [number[], number[]] = [[], []];
  path.iterate((segment, _index, x, y) => {
    const [kind, ...n] = segment as unknown as [string, ...number[]];
    if (kind === 'M' || kind === 'L') {
      xs.push(n[0]);
      ys.push(n[1]);
    } else if (kind === 'H') xs.push(n[0]);
    else if (kind === 'V') ys.push(n[0]);
    else if (kind === 'C') {
      xs.push(n[4], ...cubicTurns([x, n[0], n[2], n[4]]));
      ys.push(n[5], ...cubicTurns([y, n[1], n[3], n[5]]));
    } else if (kind === 'Q') {
      const third = (from: number, by: number): number => from + (2 / 3) * (by - from);
      xs.push(n[2], ...cubicTurns([x, third(x, n[0]), third(n[2], n[0]), n[2]]));
      ys.push(n[3], ...cubicTurns([y, third(y, n[1]), third(n[3], n[1]), n[3]]));
    }
  });
  if (xs.length === 0 || ys.length === 0) return null;
  const least = (list: readonly number[]): number => list.reduce((a, b) => Math.min(a, b));
  const most = (list: readonly number[]): number => list.reduce((a, b) => Math.max(a, b));
  const box = { left: least(xs), top: least(ys), right: most(xs), bottom: most(ys) };
  return Object.values(box).every(Number.isFinite) ? box : null;
}

/** A path in a box as layers keep it: 0…100 across and down. */
export function pathInBox(d: string, { left, top, right, bottom }: Box): string {
  return svgpath(d)
    .translate(-left, -top)
    .scale(100 / (right - left), 100 / (bottom - top))
    .round(4)
    .toString();
}
