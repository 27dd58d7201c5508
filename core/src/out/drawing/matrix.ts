import { IDENTITY, multiply, type Matrix } from '../../basics/transform';

const RADIANS = Math.PI / 180;

const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];

function rotation(degrees: number): Matrix {
  const [cos, sin] = [Math.cos(degrees * RADIANS), Math.sin(degrees * RADIANS)];
  return [cos, sin, -sin, cos, 0, 0];
}

function one(name: string, n: readonly number[]): Matrix {
  switch (name) {
    case 'matrix':
      return n.length === 6 ? [n[0], n[1], n[2], n[3], n[4], n[5]] : IDENTITY;
    case 'translate':
      return translation(n[0] ?? 0, n[1] ?? 0);
    case 'scale':
      return [n[0] ?? 1, 0, 0, n[1] ?? n[0] ?? 1, 0, 0];
    case 'rotate': {
      const [x, y] = [n[1] ?? 0, n[2] ?? 0];
      return multiply(multiply(translation(x, y), rotation(n[0] ?? 0)), translation(-x, -y));
    }
    case 'skewX':
      return [1, 0, Math.tan((n[0] ?? 0) * RADIANS), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan((n[0] ?? 0) * RADIANS), 0, 1, 0, 0];
    default:
      return IDENTITY;
  }
}

/** A list of transforms as one matrix; what cannot be read is left out. Source: CSS Transforms 1, section 8. */
export function readTransform(text: string | undefined): Matrix {
  let matrix = IDENTITY;
  for (const [, name, inside] of (text ?? '').matchAll(/(matrix|translate|scale|rotate|skewX|skewY)\s*\(([^)]*)\)/gi)) {
    const numbers = [...inside.matchAll(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi)].map(([number]) => Number(number));
    const known = ['matrix', 'translate', 'scale', 'rotate', 'skewX', 'skewY'];
    const exact = known.find((word) => word.toLowerCase() === name.toLowerCase()) ?? '';
    matrix = multiply(matrix, one(exact, numbers));
  }
  return matrix;
}

/** How much longer lengths become where that is alike in all directions; null where it is not. */
export function evenScale([a, b, c, d]: Matrix): number | null {
  const [across, down] = [Math.hypot(a, b), Math.hypot(c, d)];
  const isEven = Math.abs(across - down) <= 1e-4 * Math.max(across, down);
  const isSquare = Math.abs(a * c + b * d) <= 1e-4 * across * down;
  return isEven && isSquare ? Math.sqrt(across * down) : null;
}

/** A matrix as the channels of a layer give it: rotate · skew · scale. Degrees and shares. */
export function asChannels([a, b, c, d]: Matrix): {
  readonly rotation: number;
  readonly skew: number;
  readonly 'scale.x': number;
  readonly 'scale.y': number;
} {
  const angle = Math.atan2(b, a);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const down = d * cos - c * sin;
  const lean = down === 0 ? 0 : (c * cos + d * sin) / down;
  return {
    rotation: angle / RADIANS,
    skew: Math.min(89, Math.max(-89, Math.atan(lean) / RADIANS)),
    'scale.x': Math.hypot(a, b),
    'scale.y': down,
  };
}

/** The matrix of a `viewBox` in so much room. Source: SVG 2, section 8.6 (preserveAspectRatio). */
export function viewBoxMatrix(
  box: readonly number[] | null,
  width: number,
  height: number,
  aspect: string | undefined,
): Matrix {
  if (!box || box.length !== 4 || !(box[2] > 0) || !(box[3] > 0)) return IDENTITY;
  const [x, y, w, h] = box;
  const [sx, sy] = [width / w, height / h];
  const [align = 'xMidYMid', how] = (aspect ?? 'xMidYMid').trim().split(/\s+/);
  if (align === 'none') return [sx, 0, 0, sy, -x * sx, -y * sy];
  const s = how === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const place = (word: string, room: number): number =>
    word.includes('Min') ? 0 : word.includes('Max') ? room : room / 2;
  const [left, top] = [place(align.slice(0, 4), width - w * s), place(align.slice(4), height - h * s)];
  return [s, 0, 0, s, left - x * s, top - y * s];
}
