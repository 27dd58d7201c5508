import { svgPathProperties } from 'svg-path-properties';
import { outlinePath, type Layer } from '@wexikine/core';
import { LRUCache } from 'lru-cache';

/** An outline in pixels: as it is drawn, and its length, which trimming alone needs and which takes long to measure. */
export interface Outline {
  readonly path: Path2D;
  readonly length: number;
}

const MOST_KEPT = 4_000;

/** What an outline goes by. */
interface Wanted {
  readonly source: Layer['source'];
  readonly width: number;
  readonly height: number;
  readonly corner: number;
}

/** Paths are read and scaled by the canvas itself, which is many times as fast as writing them anew; 100 of theirs is the box. */
function drawnPath({ source, width, height, corner }: Wanted): Path2D {
  if (source.type !== 'path') return new Path2D(outlinePath(source, width, height, corner));
  const path = new Path2D();
  path.addPath(new Path2D(source.d), { a: width / 100, d: height / 100 });
  return path;
}

function outlineFor(wanted: Wanted): Outline {
  let path: Path2D | null = null;
  let length: number | null = null;
  const { source, width, height, corner } = wanted;
  const measured = (): number => new svgPathProperties(outlinePath(source, width, height, corner)).getTotalLength();
  return {
    get path() {
      return (path ??= drawnPath(wanted));
    },
    get length() {
      return (length ??= measured());
    },
  };
}

/** Makes outlines of layers and keeps those that were asked for lately. */
export function createOutlines(): (layer: Layer, width: number, height: number, corner: number) => Outline {
  const kept = new LRUCache<string, Outline>({ max: MOST_KEPT });
  return ({ source }, width, height, corner) => {
    const name = `${width} ${height} ${source.type === 'path' ? source.d : `${source.type} ${corner}`}`;
    const known = kept.get(name);
    if (known) return known;
    const outline = outlineFor({ source, width, height, corner });
    kept.set(name, outline);
    return outline;
  };
}
