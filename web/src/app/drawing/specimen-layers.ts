import { ticksFromSeconds, type Layer } from '@wexikine/core';

/** Size of the specimen's frame, in its pixels. */
export const SPECIMEN_WIDTH = 320;
/** Height of the specimen’s frame in px. */
export const SPECIMEN_HEIGHT = 172;
/** How long specimen layers stand. */
export const SPECIMEN_SPAN = ticksFromSeconds(2);

const CARD = '#f3c98b';

/** What can show a preset: one layer of a kind, twelve in a row, or the layers of a scene. */
export const SPECIMEN_KINDS = ['card', 'word', 'picture', 'line', 'row', 'scene'] as const;
/** What a preset is shown on. */
export type SpecimenKind = (typeof SPECIMEN_KINDS)[number];

/** A made picture: a moon over hills, drawn by hand in SVG. */
const NIGHT = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 160 100">
<defs><linearGradient id="s" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#10183a"/><stop offset="1" stop-color="#3f6484"/></linearGradient></defs>
<rect width="160" height="100" fill="url(#s)"/><circle cx="116" cy="30" r="15" fill="#f0dfb6"/>
<g fill="#f6efd9"><circle cx="22" cy="18" r="1"/><circle cx="48" cy="34" r="1.2"/><circle cx="70" cy="14" r=".9"/><circle cx="88" cy="44" r="1"/><circle cx="34" cy="52" r=".8"/></g>
<path d="M0 78 C30 56 52 84 80 70 S136 60 160 76 V100 H0Z" fill="#1b3d38"/><path d="M0 90 C40 74 90 98 160 84 V100 H0Z" fill="#0f2926"/></svg>`;

const SIZES = { card: [58, 42], word: [220, 60], picture: [112, 70], line: [200, 90] } as const;

function base(id: string, x: number, y: number, [width, height]: readonly [number, number]): Layer {
  return {
    id,
    name: 'Specimen',
    kind: 'card',
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: SPECIMEN_SPAN },
    rest: { 'position.x': x, 'position.y': y, 'size.x': width, 'size.y': height, corner: 9 },
    tracks: {},
    look: { fill: CARD },
    source: { type: 'rectangle' },
    data: {},
  };
}

function dressed(layer: Layer, kind: keyof typeof SIZES): Layer {
  switch (kind) {
    case 'card':
      return layer;
    case 'word': {
      const style = { font: 'Bricolage Grotesque', weight: 700, size: 44, align: 'middle' } as const;
      return { ...layer, kind: 'word', source: { type: 'text', text: 'Tide', ...style } };
    }
    case 'picture': {
      const href = `data:image/svg+xml,${encodeURIComponent(NIGHT)}`;
      return { ...layer, kind: 'picture', look: {}, source: { type: 'picture', href } };
    }
    case 'line': {
      const rest = { ...layer.rest, 'stroke.width': 6 };
      const source = { type: 'path', d: 'M0 80 C20 0 35 20 50 50 S80 90 100 10' } as const;
      return { ...layer, rest, look: { stroke: CARD, cap: 'round' }, source };
    }
  }
}

const ROW_COUNT = 12;
const ROW_STEP = 23;
const ROW_SIZE = [17, 30] as const;

/** A fill that is not the light colour, for presets that turn the one into the other. */
const DARK_CARD = '#5d7f9c';

/** Drifts across the frame, for presets that hold what moves. */
function drifting(layer: Layer, x: number): Layer {
  const key = (at: number, value: number) => ({ at, value, ease: { type: 'linear' as const } });
  return { ...layer, tracks: { 'position.x': [key(0, x - 90), key(SPECIMEN_SPAN, x + 90)] } };
}

/** How the layers of a specimen differ from plain ones, so that a preset's effect can be seen. */
export interface Dressing {
  readonly turnsColour?: boolean;
  readonly holds?: boolean;
}

/** The layers that stand for a kind. */
export function specimenLayers(kind: Exclude<SpecimenKind, 'scene'>, dressing: Dressing = {}): Layer[] {
  const [x, y] = [SPECIMEN_WIDTH / 2, SPECIMEN_HEIGHT / 2];
  const look = dressing.turnsColour === true && kind === 'card' ? { fill: DARK_CARD } : null;
  if (kind !== 'row') {
    const layer = dressed(base('specimen', x, y, SIZES[kind]), kind);
    const coloured = look ? { ...layer, look } : layer;
    return [dressing.holds === true ? drifting(coloured, x) : coloured];
  }
  return Array.from({ length: ROW_COUNT }, (_, i) => {
    const layer = base(`specimen-${i + 1}`, x + (i - (ROW_COUNT - 1) / 2) * ROW_STEP, y, ROW_SIZE);
    return { ...layer, rest: { ...layer.rest, corner: 4 } };
  });
}
