import { rigChannels, ticksFromSeconds, type ChannelId, type Layer, type Rig, type Track } from '@wexikine/core';

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
  /** Words that are typed, or a number that runs. */
  readonly words?: 'typed' | 'number';
}

/** What a preset or a rig does to words by its channels; nothing where it does not touch their letters. */
export function wordsFor(channels: readonly ChannelId[]): Dressing {
  if (channels.includes('words.number')) return { words: 'number' };
  return channels.includes('words.shown') ? { words: 'typed' } : {};
}

const NUMBER_AT_REST = 128;

/** Words with a caret, or with a number in them. */
function worded(layer: Layer, words: Dressing['words']): Layer {
  const { source } = layer;
  if (source.type !== 'text' || words === undefined) return layer;
  if (words === 'typed') return { ...layer, source: { ...source, text: 'Tide line', caret: '|' } };
  const number = { decimals: 0, point: '.', group: ' ' } as const;
  return {
    ...layer,
    rest: { ...layer.rest, 'words.number': NUMBER_AT_REST },
    source: { ...source, text: '# km', number },
  };
}

/** The layers that stand for a kind. */
export function specimenLayers(kind: Exclude<SpecimenKind, 'scene'>, dressing: Dressing = {}): Layer[] {
  const [x, y] = [SPECIMEN_WIDTH / 2, SPECIMEN_HEIGHT / 2];
  const look = dressing.turnsColour === true && kind === 'card' ? { fill: DARK_CARD } : null;
  if (kind !== 'row') {
    const layer = worded(dressed(base('specimen', x, y, SIZES[kind]), kind), dressing.words);
    const coloured = look ? { ...layer, look } : layer;
    return [dressing.holds === true ? drifting(coloured, x) : coloured];
  }
  return Array.from({ length: ROW_COUNT }, (_, i) => {
    const layer = base(`specimen-${i + 1}`, x + (i - (ROW_COUNT - 1) / 2) * ROW_STEP, y, ROW_SIZE);
    return { ...layer, rest: { ...layer.rest, corner: 4 } };
  });
}

/** How layers move by themselves, so that a rig has something to answer. */
export const RIG_MOTIONS = ['slide', 'step', 'turn', 'grow', 'still'] as const;
/** How a rig's specimen moves by itself. */
export type RigMotion = (typeof RIG_MOTIONS)[number];

const ARRIVES = ticksFromSeconds(0.4);
const FOLLOWERS = 6;

function keys(from: number, to: number, isStep: boolean): Track {
  const ease = isStep ? ({ type: 'hold' } as const) : ({ type: 'linear' } as const);
  return [
    { at: 0, value: from, ease },
    { at: ARRIVES, value: to, ease: { type: 'linear' } },
  ];
}

/** Keys with which a layer moves to its rest. */
function motionKeys({ rest }: Layer, motion: RigMotion): Layer['tracks'] {
  const x = rest['position.x'] ?? 0;
  switch (motion) {
    case 'slide':
    case 'step':
      return { 'position.x': [...keys(x - 90, x, motion === 'step')] };
    case 'turn':
      return { rotation: [...keys(-70, 0, false)] };
    case 'grow':
      return { 'scale.x': [...keys(0.3, 1, false)], 'scale.y': [...keys(0.3, 1, false)] };
    case 'still':
      return {};
  }
}

/** The motion that a rig answers: on the channels that it drives, and none where it moves layers by itself. */
export function motionFor(rig: Rig): RigMotion {
  const texts = rig.formulas.map(({ text }) => text.replace(/#[^\n]*/g, '')).join('\n');
  if (!/\b(arrival|since|until|chase|follow)\b/.test(texts) && rig.roles.length === 0) return 'still';
  const channels = new Set<ChannelId>(rigChannels(rig));
  if (channels.has('position.x') || rig.roles.length > 0) return /\bchase\(keyed/.test(texts) ? 'step' : 'slide';
  if (channels.has('position.y')) return 'slide';
  return channels.has('rotation') ? 'turn' : 'grow';
}

/** Layers that show a rig: one card, a row of them, or a leader with followers where it has parts for others. */
export function rigLayers(
  rig: Rig,
  isRow: boolean,
  motion: RigMotion = motionFor(rig),
): { readonly layers: Layer[]; readonly leader: string } {
  const y = SPECIMEN_HEIGHT / 2;
  const moving = (layer: Layer): Layer => ({ ...layer, tracks: motionKeys(layer, motion) });
  if (rig.roles.length > 0) {
    const followers = Array.from({ length: FOLLOWERS }, (_, i) => {
      const layer = base(`specimen-${i + 1}`, 130 + i * 32, y + 34, [22, 22]);
      return { ...layer, source: { type: 'ellipse' as const } };
    });
    const lead = base('leader', 130, y - 40, SIZES.card);
    const turned = moving(lead);
    const turn = { ...turned.tracks, rotation: [...keys(-60, 0, false)] };
    return { layers: [{ ...turned, tracks: turn }, ...followers], leader: lead.id };
  }
  const { words } = wordsFor(rigChannels(rig));
  if (words !== undefined) return { layers: specimenLayers('word', { words }), leader: 'specimen' };
  if (!isRow) return { layers: [moving(base('specimen', SPECIMEN_WIDTH / 2 + 20, y, SIZES.card))], leader: 'specimen' };
  const layers = specimenLayers('row').map(moving);
  return { layers, leader: layers[0].id };
}
