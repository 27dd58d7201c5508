import type { Layer } from '@wexikine/core';
import { svgPathProperties } from 'svg-path-properties';
import svgpath from 'svgpath';

/** An outline in pixels: its SVG path data and its length, which trimming needs. */
export interface Outline {
  readonly d: string;
  readonly length: number;
}

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

function pathOf(source: Layer['source'], width: number, height: number, corner: number): string {
  if (source.type === 'path')
    return svgpath(source.d)
      .scale(width / 100, height / 100)
      .round(3)
      .toString();
  return source.type === 'ellipse' ? ellipse(width, height) : rectangle(width, height, corner);
}

const MOST_KEPT = 4_000;

/** Makes outlines of layers and keeps those that were asked for lately, since measuring a path takes long. */
export function createOutlines(): (layer: Layer, width: number, height: number, corner: number) => Outline {
  const kept = new Map<string, Outline>();
  return (layer, width, height, corner) => {
    const d = pathOf(layer.source, round(width), round(height), round(corner));
    const known = kept.get(d);
    if (known) return known;
    if (kept.size >= MOST_KEPT) kept.clear();
    const outline = { d, length: new svgPathProperties(d).getTotalLength() };
    kept.set(d, outline);
    return outline;
  };
}

function round(value: number): number {
  return Math.round(value * 1000) / 1000;
}
