import { svgPathProperties } from 'svg-path-properties';
import { outlinePath, type Layer } from '@wexikine/core';
import { LRUCache } from 'lru-cache';

/** An outline in pixels: its SVG path data and its length, which trimming needs. */
export interface Outline {
  readonly d: string;
  readonly length: number;
}

const MOST_KEPT = 4_000;

/** Makes outlines of layers and keeps those that were asked for lately, since measuring a path takes long. */
export function createOutlines(): (layer: Layer, width: number, height: number, corner: number) => Outline {
  const kept = new LRUCache<string, Outline>({ max: MOST_KEPT });
  return (layer, width, height, corner) => {
    const d = outlinePath(layer.source, width, height, corner);
    const known = kept.get(d);
    if (known) return known;
    const outline = { d, length: new svgPathProperties(d).getTotalLength() };
    kept.set(d, outline);
    return outline;
  };
}
