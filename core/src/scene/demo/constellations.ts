import { randomAt } from '../../basics/random';
import type { Layer } from '../layer';
import type { Scene } from '../scene';
import { ticksFromSeconds } from '../../basics/time';
import { demoScene, layer, text } from './builder';

const NAMES = ['The Heron', 'The Lantern', 'The Ferry', 'The Reed Comb', 'The Kettle', 'The Tide Bell'] as const;
const STARS_EACH = 10;
const SPAN = { in: 0, out: ticksFromSeconds(8) };

interface Star {
  readonly x: number;
  readonly y: number;
  readonly size: number;
}

/** Ten stars strung along a wandering line inside the constellation's own field. */
function starsOf(field: number): Star[] {
  const left = 110 + (field % 3) * 600;
  const top = 130 + Math.floor(field / 3) * 470;
  return Array.from({ length: STARS_EACH }, (_, i) => ({
    x: Math.round(left + 30 + (i * 440) / (STARS_EACH - 1) + (randomAt(21 + field, i) - 0.5) * 46),
    y: Math.round(top + 40 + randomAt(41 + field, i) * 230),
    size: Math.round(8 + randomAt(61 + field, i) * 14),
  }));
}

function line(field: number, index: number, a: Star, b: Star): Layer {
  const number = field * (STARS_EACH - 1) + index + 1;
  const [width, height] = [Math.max(1, Math.abs(b.x - a.x)), Math.max(1, Math.abs(b.y - a.y))];
  const falls = b.x > a.x === b.y > a.y;
  const forward = falls ? 'M0 0 L100 100' : 'M0 100 L100 0';
  const backward = falls ? 'M100 100 L0 0' : 'M100 0 L0 100';
  return layer(
    `line-${number}`,
    `Line ${number}`,
    'card',
    { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, width, height },
    {
      tags: ['line', NAMES[field]],
      span: SPAN,
      source: { type: 'path', d: b.x >= a.x ? forward : backward },
      look: { stroke: '#8fb3d9', cap: 'round' },
      rest: { 'stroke.width': 3, opacity: 0.7 },
    },
  );
}

function star(field: number, index: number, { x, y, size }: Star): Layer {
  const number = field * STARS_EACH + index + 1;
  return layer(
    `star-${number}`,
    `Star ${number}`,
    'card',
    { x, y, width: size, height: size },
    { tags: ['star', NAMES[field]], span: SPAN, source: { type: 'ellipse' }, look: { fill: '#fdf3d7' } },
  );
}

function nameOf(field: number): Layer {
  const at = { x: 110 + (field % 3) * 600 + 250, y: 130 + Math.floor(field / 3) * 470 + 330, width: 460, height: 60 };
  return layer(`name-${field + 1}`, `Name: ${NAMES[field]}`, 'word', at, {
    tags: ['name', NAMES[field]],
    span: SPAN,
    look: { fill: '#c9d6ea' },
    rest: { letterSpacing: 3 },
    source: text(NAMES[field], { font: 'Bricolage Grotesque', weight: 500, size: 38, align: 'middle' }),
  });
}

/** Constellations: six invented ones of ten stars, the lines that join them, and their names. */
export function constellations(): Scene {
  const fields = NAMES.map((_, field) => starsOf(field));
  const sky = layer(
    'sky',
    'Deep sky',
    'card',
    { x: 960, y: 540, width: 1_920, height: 1_080 },
    {
      locked: true,
      span: SPAN,
      look: { fill: { from: '#070b1f', to: '#1a2446', angle: 0 } },
    },
  );
  const lines = fields.flatMap((stars, field) => stars.slice(1).map((b, i) => line(field, i, stars[i], b)));
  const stars = fields.flatMap((list, field) => list.map((entry, i) => star(field, i, entry)));
  return demoScene({
    id: 'constellations',
    name: 'Constellations',
    rate: { num: 30, den: 1 },
    length: SPAN.out,
    layers: [sky, ...lines, ...stars, ...NAMES.map((_, field) => nameOf(field))],
  });
}
