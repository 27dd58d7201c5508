/** Part of a picture: its middle as shares of the picture, and how large it is shown (1 is the whole picture). */
export interface Framing {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

/** A way from one framing to another, by the share of its length. */
export interface ZoomWay {
  /** Length of the way as the eye feels it; long ways want more time. */
  readonly length: number;
  readonly at: (share: number) => Framing;
}

/** How much a way zooms out on its way; √2 was found most pleasant in the paper's trial. */
export const PLEASANT = Math.SQRT2;
const STANDING = 1e-9;

/**
 * The smoothest way between two framings, which zooms out in between where they lie far apart. `rho` > 0 says how much.
 * Source: van Wijk and Nuij, "Smooth and efficient zooming and panning", 2003.
 */
export function createZoom(from: Framing, to: Framing, rho = PLEASANT): ZoomWay {
  const [w0, w1] = [1 / from.zoom, 1 / to.zoom];
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const distance = Math.hypot(dx, dy);
  const place = (u: number, w: number): Framing => ({ x: from.x + u * dx, y: from.y + u * dy, zoom: 1 / w });
  const exact = (share: number): Framing | null => (share <= 0 ? from : share >= 1 ? to : null);
  if (distance < STANDING) {
    const turn = Math.log(w1 / w0);
    return {
      length: Math.abs(turn) / rho,
      at: (share) => exact(share) ?? place(share, w0 * Math.exp(turn * share)),
    };
  }
  const square = rho * rho;
  const far = square * square * distance * distance;
  const b0 = (w1 * w1 - w0 * w0 + far) / (2 * w0 * square * distance);
  const b1 = (w1 * w1 - w0 * w0 - far) / (2 * w1 * square * distance);
  const [r0, r1] = [-Math.asinh(b0), -Math.asinh(b1)];
  const length = (r1 - r0) / rho;
  return {
    length,
    at: (share) => {
      const s = rho * share * length + r0;
      const u = (w0 / (square * distance)) * (Math.cosh(r0) * Math.tanh(s) - Math.sinh(r0));
      return exact(share) ?? place(u, (w0 * Math.cosh(r0)) / Math.cosh(s));
    },
  };
}

/** The nearest framing that shows nothing beyond the picture: not smaller than the picture, its middle far enough inside. */
export function coveringFraming({ x, y, zoom }: Framing): Framing {
  const large = Math.max(1, zoom);
  const half = 0.5 / large;
  const inside = (middle: number): number => Math.min(1 - half, Math.max(half, middle));
  return { x: inside(x), y: inside(y), zoom: large };
}

const LOOKS = 48;
const ROUNDS = 24;
const SLACK = 1e-9;

function isCovered(way: ZoomWay): boolean {
  for (let i = 1; i < LOOKS; i++) {
    const { x, y, zoom } = way.at(i / LOOKS);
    const half = 0.5 / zoom;
    if (zoom < 1 - SLACK || Math.abs(x - 0.5) > 0.5 - half + SLACK || Math.abs(y - 0.5) > 0.5 - half + SLACK)
      return false;
  }
  return true;
}

/**
 * The smoothest way between two framings that never shows anything beyond the picture: it zooms out as far as it can,
 * which may be less than it would like to. What is beyond at the ends is brought inside first.
 */
export function createCoveringZoom(from: Framing, to: Framing): ZoomWay {
  const [a, b] = [coveringFraming(from), coveringFraming(to)];
  const wide = createZoom(a, b);
  if (isCovered(wide)) return wide;
  let [low, high] = [0.01, PLEASANT];
  for (let round = 0; round < ROUNDS; round++) {
    const middle = (low + high) / 2;
    if (isCovered(createZoom(a, b, middle))) low = middle;
    else high = middle;
  }
  const way = createZoom(a, b, low);
  return { length: way.length, at: (share) => coveringFraming(way.at(share)) };
}
