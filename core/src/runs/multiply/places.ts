import { evenPathOf, pathPoint } from '../../basics/motion';
import { randomAt } from '../../basics/random';
import type { Point } from '../../basics/transform';
import type { CopyPlace } from '../../scene/recipe';
import type { Draw } from './draw';

interface Frame {
  readonly width: number;
  readonly height: number;
}

type Area = Extract<CopyPlace, { by: 'spread' }>;

function inBox(
  { x, y, width, height }: Pick<Area, 'x' | 'y' | 'width' | 'height'>,
  frame: Frame,
  u: number,
  v: number,
): Point {
  return { x: (x + (u - 0.5) * width) * frame.width, y: (y + (v - 0.5) * height) * frame.height };
}

/** Evenly in an ellipse: the square root of the radius' share. Source: common practice (inverse of the distribution of areas). */
function inEllipse(area: Area, frame: Frame, u: number, v: number): Point {
  const [radius, angle] = [Math.sqrt(u) / 2, v * 2 * Math.PI];
  return inBox(area, frame, 0.5 + radius * Math.cos(angle), 0.5 + radius * Math.sin(angle));
}

/** Places that are tried for each copy before a nearer one is taken. */
const TRIES = 30;

/**
 * Places in a part of the frame of which no two are nearer than the gap, where there is room; where there is none, the one that is
 * farthest from all others among those that were tried. Source: D. Mitchell, Spectrally Optimal Sampling (1991), best candidate.
 */
function apart(place: Extract<CopyPlace, { by: 'apart' }>, frame: Frame, count: number, seed: number): Point[] {
  const cell = place.gap;
  const cells = new Map<string, Point[]>();
  const keyOf = (x: number, y: number): string => `${Math.floor(x / cell)} ${Math.floor(y / cell)}`;
  const nearest = ({ x, y }: Point): number => {
    let least = Infinity;
    for (let dx = -1; dx <= 1; dx++) {
      for (let dy = -1; dy <= 1; dy++) {
        for (const other of cells.get(keyOf(x + dx * cell, y + dy * cell)) ?? [])
          least = Math.min(least, Math.hypot(other.x - x, other.y - y));
      }
    }
    return least;
  };
  const found: Point[] = [];
  for (let copy = 0; copy < count; copy++) {
    let best: Point | null = null;
    let far = -1;
    for (let tried = 0; tried < TRIES && far < place.gap; tried++) {
      const index = (copy * TRIES + tried) * 2;
      const one = inBox(place, frame, randomAt(seed, index), randomAt(seed, index + 1));
      const distance = nearest(one);
      if (distance > far) [best, far] = [one, distance];
    }
    const chosen = best ?? inBox(place, frame, 0.5, 0.5);
    const key = keyOf(chosen.x, chosen.y);
    cells.set(key, [...(cells.get(key) ?? []), chosen]);
    found.push(chosen);
  }
  return found;
}

function onGrid(place: Extract<CopyPlace, { by: 'grid' }>, frame: Frame, copy: number, count: number): Point {
  const rows = Math.ceil(count / place.columns);
  const [column, row] = [copy % place.columns, Math.floor(copy / place.columns) % rows];
  return inBox(place, frame, (column + 0.5) / place.columns, (row + 0.5) / rows);
}

/** Where copies begin or end. */
export interface Placing {
  readonly frame: Frame;
  readonly count: number;
  readonly draw: Draw;
  /** Seed of places that are drawn together. */
  readonly seed: number;
  /** Which draws it takes. */
  readonly draws: readonly ['x' | 'endX', 'y' | 'endY'];
}

/** Places of all copies in scene px; `ownOf` gives where what each is a copy of rests. A line without length is a point in the middle. */
export function placesOfCopies(
  place: CopyPlace,
  ownOf: (copy: number) => Point,
  { frame, count, draw, seed, draws }: Placing,
): Point[] {
  const all = Array.from({ length: count }, (_, copy) => copy);
  const [u, v] = draws;
  switch (place.by) {
    case 'own':
      return all.map(ownOf);
    case 'direction': {
      const long = Math.max(frame.width, frame.height) * place.distance;
      return all.map((copy) => {
        const stray = (draw(copy, u) * 2 - 1) * place.stray;
        const angle = ((place.degrees + stray) * Math.PI) / 180;
        const { x, y } = ownOf(copy);
        return { x: x + Math.cos(angle) * long, y: y + Math.sin(angle) * long };
      });
    }
    case 'spread': {
      const within = place.shape === 'ellipse' ? inEllipse : inBox;
      return all.map((copy) => within(place, frame, draw(copy, u), draw(copy, v)));
    }
    case 'apart':
      return apart(place, frame, count, seed);
    case 'grid':
      return all.map((copy) => onGrid(place, frame, copy, count));
    case 'line': {
      const path = evenPathOf(place.d);
      return all.map((copy) => {
        const at = path && pathPoint(path, path.length * (count === 1 ? 0.5 : copy / (count - 1)));
        return at ? { x: at.x, y: at.y } : { x: frame.width / 2, y: frame.height / 2 };
      });
    }
  }
}
