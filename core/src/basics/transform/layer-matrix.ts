import { CHANNEL_COUNT, channelOf } from '../channel';

const SLOT = {
  px: channelOf('position.x').slot,
  py: channelOf('position.y').slot,
  ax: channelOf('anchor.x').slot,
  ay: channelOf('anchor.y').slot,
  sx: channelOf('scale.x').slot,
  sy: channelOf('scale.y').slot,
  rotation: channelOf('rotation').slot,
  skew: channelOf('skew').slot,
  width: channelOf('size.x').slot,
  height: channelOf('size.y').slot,
} as const;

const RADIANS = Math.PI / 180;

/**
 * Writes the world matrix of one layer into `out` at `index · 6`:
 * parent · translate(position) · rotate · skew · scale · translate(−anchor · size), as a CSS transform list would.
 * `values` holds CHANNEL_COUNT numbers a layer; `parent` is an index whose matrix is already written, or −1. What a
 * motion path adds to position (px) and rotation (degrees) is `along`: three numbers, or null.
 */
export function writeLayerMatrix(
  values: Float64Array,
  index: number,
  parent: number,
  out: Float64Array,
  along: Float64Array | null = null,
): void {
  const v = index * CHANNEL_COUNT;
  const o = index * 6;
  const angle = (values[v + SLOT.rotation] + (along === null ? 0 : along[2])) * RADIANS;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const lean = values[v + SLOT.skew] === 0 ? 0 : Math.tan(values[v + SLOT.skew] * RADIANS);
  const [sx, sy] = [values[v + SLOT.sx], values[v + SLOT.sy]];
  const a = cos * sx;
  const b = sin * sx;
  const c = (cos * lean - sin) * sy;
  const d = (sin * lean + cos) * sy;
  const left = values[v + SLOT.ax] * values[v + SLOT.width];
  const top = values[v + SLOT.ay] * values[v + SLOT.height];
  const e = values[v + SLOT.px] + (along === null ? 0 : along[0]) - a * left - c * top;
  const f = values[v + SLOT.py] + (along === null ? 0 : along[1]) - b * left - d * top;
  if (parent < 0) writeSix(out, o, a, b, c, d, e, f);
  else writeProduct(out, o, parent * 6, a, b, c, d, e, f);
}

function writeSix(
  out: Float64Array,
  o: number,
  a: number,
  b: number,
  c: number,
  d: number,
  e: number,
  f: number,
): void {
  out[o] = a;
  out[o + 1] = b;
  out[o + 2] = c;
  out[o + 3] = d;
  out[o + 4] = e;
  out[o + 5] = f;
}

function writeProduct(
  out: Float64Array,
  o: number,
  p: number,
  a: number,
  b: number,
  c: number,
  d: number,
  e: number,
  f: number,
): void {
  const [pa, pb, pc, pd] = [out[p], out[p + 1], out[p + 2], out[p + 3]];
  writeSix(
    out,
    o,
    pa * a + pc * b,
    pb * a + pd * b,
    pa * c + pc * d,
    pb * c + pd * d,
    pa * e + pc * f + out[p + 4],
    pb * e + pd * f + out[p + 5],
  );
}
