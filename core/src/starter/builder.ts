import type { ChannelId } from '../channel';
import { easingFromStrengths, HOLD, LINEAR, type Easing } from '../easing';
import type { LibraryItem, Moment, Parameter, ParameterKind, Preset, Row } from '../preset';

/** Easings of the starter library. */
export const CURVES = {
  even: LINEAR,
  hold: HOLD,
  /** Leaves at speed and comes softly to rest. */
  arrive: { type: 'bezier', x1: 0.12, y1: 0.78, x2: 0.3, y2: 1 },
  /** Begins softly and leaves at speed. */
  depart: { type: 'bezier', x1: 0.7, y1: 0, x2: 0.88, y2: 0.22 },
  soft: easingFromStrengths(0.45, 0.45),
  gentle: easingFromStrengths(0.3, 0.55),
} as const satisfies Record<string, Easing>;

type Cell = readonly [moment: string, value: string, ease?: Easing];

export function row(channel: ChannelId, cells: readonly Cell[], when?: string): Row {
  const made = cells.map(([moment, value, ease]) => ({ moment, value, ease: ease ?? LINEAR }));
  return { channel, ...(when === undefined ? {} : { when }), cells: made };
}

/** The same cells on an x and a y channel. */
export function rows(channels: readonly ChannelId[], cells: readonly Cell[], when?: string): Row[] {
  return channels.map((channel) => row(channel, cells, when));
}

export function moment(id: string, name: string, at: string): Moment {
  return { id, name, at };
}

type Limits = Pick<Parameter, 'min' | 'max' | 'from' | 'to' | 'step'>;

export function parameter(
  name: string,
  label: string,
  kind: ParameterKind,
  standard: string,
  limits: Limits = {},
  note = '',
): Parameter {
  return { name, label, kind, default: standard, ...limits, note };
}

/** The length of a preset, one frame at least. */
export function lasts(standard: string, to = '60f'): Parameter {
  return parameter(
    'lasts',
    'Lasts',
    'time',
    standard,
    { min: '1f', from: '2f', to, step: '1f' },
    'stretches every moment',
  );
}

const WHEN = '2026-09-01T09:00:00.000Z';

interface ItemText {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly tags: readonly string[];
}

function item({ id, name, note, tags }: ItemText, body: Omit<Preset, 'grid' | 'lasts'>): LibraryItem {
  const length = body.parameters.some((entry) => entry.name === 'lasts') ? { lasts: 'lasts' } : {};
  return {
    format: 'wexikine-item-1',
    id,
    kind: 'preset',
    name,
    tags: [...tags],
    note,
    state: 'published',
    revision: 1,
    author: 'Wexikine',
    when: WHEN,
    summary: 'First published.',
    body: { ...body, ...length, grid: 'frames' },
  };
}

type Parts = Pick<Preset, 'parameters' | 'moments' | 'rows'>;

/** An entrance from the layer's in point, which keeps its length. */
export function entrance(text: ItemText, parts: Parts): LibraryItem {
  return item(text, { phase: 'entrance', hang: 'in', stretch: 'keep', ...parts });
}

/** An accent at a time of the scene, which keeps its length. */
export function accent(text: ItemText, parts: Parts): LibraryItem {
  return item(text, { phase: 'accent', hang: 'time', stretch: 'keep', ...parts });
}

/** Something over the layer's whole span, which scales with it. */
export function through(text: ItemText, parts: Parts): LibraryItem {
  return item(text, { phase: 'through', hang: 'span', stretch: 'scale', ...parts });
}

/** An exit to the layer's out point, which keeps its length. */
export function exit(text: ItemText, parts: Parts): LibraryItem {
  return item(text, { phase: 'exit', hang: 'out', stretch: 'keep', ...parts });
}
