import svgpath from 'svgpath';
import type { Layer, Mask } from '../layer';

function rectangle(width: number, height: number, corner: number): string {
  const r = Math.min(corner, width / 2, height / 2);
  if (r <= 0) return `M0 0 H${width} V${height} H0 Z`;
  const arc = (x: number, y: number): string => `A${r} ${r} 0 0 1 ${x} ${y}`;
  return `M${r} 0 H${width - r} ${arc(width, r)} V${height - r} ${arc(width - r, height)} H${r} ${arc(0, height - r)} V${r} ${arc(r, 0)} Z`;
}

function ellipse(width: number, height: number): string {
  const [rx, ry] = [width / 2, height / 2];
  return `M${rx} 0 A${rx} ${ry} 0 0 1 ${rx} ${height} A${rx} ${ry} 0 0 1 ${rx} 0 Z`;
}

function round(value: number): number {
  return Math.round(value * 1000) / 1000;
}

/**
 * Outline of a layer as SVG path data in pixels of its box, from where its stroke begins: a rectangle at the end of its
 * first corner, an ellipse on top, a path at its own beginning. Width, height and corner in px.
 */
export function outlinePath(source: Layer['source'], width: number, height: number, corner: number): string {
  const [w, h] = [round(width), round(height)];
  if (source.type === 'path')
    return svgpath(source.d)
      .scale(w / 100, h / 100)
      .round(3)
      .toString();
  return source.type === 'ellipse' ? ellipse(w, h) : rectangle(w, h, round(corner));
}

/** Outlines of the shapes of masks over a box of 100 by 100, as paths are given. */
const SHAPES = {
  rectangle: 'M0 0 H100 V100 H0 Z',
  ellipse: 'M50 0 A50 50 0 0 1 50 100 A50 50 0 0 1 50 0 Z',
} as const;

/**
 * SVG path data of a regular shape over a box of 100 by 100, about its middle: so many corners (≥ 3) at 50 from it, the first on
 * top; with others between them at `inner` from it, it is a star.
 */
export function regularPath(corners: number, inner: number | null = null): string {
  const count = inner === null ? corners : corners * 2;
  const points = Array.from({ length: count }, (_, i) => {
    const radius = inner !== null && i % 2 === 1 ? inner : 50;
    const angle = (i / count) * 2 * Math.PI - Math.PI / 2;
    return `${(50 + radius * Math.cos(angle)).toFixed(3)} ${(50 + radius * Math.sin(angle)).toFixed(3)}`;
  });
  return `M${points.join(' L')} Z`;
}

/** Corners of a polygon that says none. */
const USUAL_CORNERS = 6;

/** SVG path data of a mask over its own box, 0…100 across and down; null for words and pictures, which are no outline. */
export function maskOutline({ shape, d, corners }: Pick<Mask, 'shape' | 'd' | 'corners'>): string | null {
  if (shape === 'words' || shape === 'picture') return null;
  if (shape === 'polygon') return regularPath(corners ?? USUAL_CORNERS);
  return shape === 'path' ? (d ?? SHAPES.rectangle) : SHAPES[shape];
}
