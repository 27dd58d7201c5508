import type { ChannelId } from '../../basics/channel';
import { LINEAR } from '../../basics/easing';
import type { PresetItem } from '../library';
import type { Moment, Parameter, ParameterKind, Preset, PresetEasing, Row } from '../../formulas/preset';

type Cell = readonly [moment: string, value: string, ease?: PresetEasing];

/** A row of a preset from its channel and its cells. */
export function row(channel: ChannelId, cells: readonly Cell[], when?: string): Row {
  const made = cells.map(([moment, value, ease]) => ({ moment, value, ease: ease ?? LINEAR }));
  return { channel, ...(when === undefined ? {} : { when }), cells: made };
}

/** The same cells on an x and a y channel. */
export function rows(channels: readonly ChannelId[], cells: readonly Cell[], when?: string): Row[] {
  return channels.map((channel) => row(channel, cells, when));
}

/** A moment of a preset. */
export function moment(id: string, name: string, at: string): Moment {
  return { id, name, at };
}

type Limits = Pick<Parameter, 'min' | 'max' | 'from' | 'to' | 'step'>;

/** A parameter with what is usual for its kind. */
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

const HOUSE_LENGTHS = { brisk: '8f', steady: '14f', slow: '24f' } as const;

/** The length of a preset as the house has it. */
export function lastsAsHouse(name: keyof typeof HOUSE_LENGTHS): Parameter {
  return { ...lasts(HOUSE_LENGTHS[name]), house: `house-${name}` };
}

const WHEN = '2026-09-01T09:00:00.000Z';

/** The shown texts of an item. */
export interface ItemText {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly tags: readonly string[];
}

/** What every item of the starter library has beside its body. */
export function itemFields({ id, name, note, tags }: ItemText): Omit<PresetItem, 'kind' | 'body'> {
  return {
    id,
    name,
    tags: [...tags],
    collection: null,
    note,
    state: 'published',
    revision: 1,
    author: 'Wexikine',
    when: WHEN,
    summary: 'First published.',
  };
}

function item(text: ItemText, body: Omit<Preset, 'grid' | 'lasts'>): PresetItem {
  const length = body.parameters.some((entry) => entry.name === 'lasts') ? { lasts: 'lasts' } : {};
  return { ...itemFields(text), kind: 'preset', body: { ...body, ...length, grid: 'frames' } };
}

type Parts = Pick<Preset, 'parameters' | 'moments' | 'rows' | 'movements'>;

/** An entrance from the layer's in point, which keeps its length. */
export function entrance(text: ItemText, parts: Parts): PresetItem {
  return item(text, { phase: 'entrance', hang: 'in', stretch: 'keep', ...parts });
}

/** An accent at a time of the scene, which keeps its length. */
export function accent(text: ItemText, parts: Parts): PresetItem {
  return item(text, { phase: 'accent', hang: 'time', stretch: 'keep', ...parts });
}

/** Something over the layer's whole span, which scales with it. */
export function through(text: ItemText, parts: Parts): PresetItem {
  return item(text, { phase: 'throughout', hang: 'span', stretch: 'scale', ...parts });
}

/** An exit to the layer's out point, which keeps its length. */
export function exit(text: ItemText, parts: Parts): PresetItem {
  return item(text, { phase: 'exit', hang: 'out', stretch: 'keep', ...parts });
}
