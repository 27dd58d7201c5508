import { channelOf, formatChannelValue, type ChannelId } from '../../basics/channel';
import { easingText } from '../../basics/easing';
import { houseText, lookPreset, type KeptLook, type LibraryItem } from '../library';
import {
  movementEase,
  movementFormulas,
  movementLabel,
  type Movement,
  type Parameter,
  type Preset,
  type PresetEasing,
} from '../../formulas/preset';
import type { Rig } from '../../formulas/rig';
import { rowGroups, type RowGroup } from './matrix';

/** One thing that differs between two revisions. Null stands for "not there". */
export interface Difference {
  readonly part: 'texts' | 'parameters' | 'moments' | 'cells' | 'easings' | 'hanging' | 'value';
  /** What differs, in words: "@over, default", "scale at Peak". */
  readonly what: string;
  readonly before: string | null;
  readonly after: string | null;
}

type Part = Difference['part'];
type NameOf = (id: string) => string;

/** An easing in words: its text, the name of a library curve, or the parameter that says it. */
export function easingWords(ease: PresetEasing, nameOf: NameOf = (id) => id): string {
  const backwards = 'reversed' in ease && ease.reversed === true ? ', backwards' : '';
  switch (ease.type) {
    case 'curve':
      return `${nameOf(ease.id)}${backwards}`;
    case 'parameter':
      return `@${ease.name}${backwards}`;
    default:
      return easingText(ease) ?? 'free handles';
  }
}

function differ(part: Part, what: string, before: string | null, after: string | null): Difference[] {
  return before === after ? [] : [{ part, what, before, after }];
}

/** Pairs of things with the same key, those of the newer list first, then those that are gone. */
function pairs<T>(
  before: readonly T[],
  after: readonly T[],
  keyOf: (item: T) => string,
): (readonly [T | null, T | null])[] {
  const old = new Map(before.map((item) => [keyOf(item), item]));
  const now = new Set(after.map(keyOf));
  return [
    ...after.map((item) => [old.get(keyOf(item)) ?? null, item] as const),
    ...before.filter((item) => !now.has(keyOf(item))).map((item) => [item, null] as const),
  ];
}

const PARAMETER_FIELDS: readonly (readonly [keyof Parameter, string])[] = [
  ['label', 'name'],
  ['kind', 'kind'],
  ['default', 'default'],
  ['house', 'house value'],
  ['min', 'least value'],
  ['max', 'greatest value'],
  ['from', 'slider from'],
  ['to', 'slider to'],
  ['step', 'step'],
  ['group', 'group'],
  ['note', 'note'],
];

function fieldText(value: unknown): string | null {
  return value === undefined || value === '' ? null : String(value);
}

function optionsText({ options }: Parameter): string | null {
  return options === undefined ? null : options.map(({ name, label }) => `${name} (${label})`).join(', ');
}

function compareParameters(before: Preset, after: Preset, nameOf: NameOf): Difference[] {
  const changed = pairs(before.parameters, after.parameters, ({ name }) => name).flatMap(([a, b]) => {
    if (!a || !b) return differ('parameters', `@${(a ?? b)?.name ?? ''}`, a?.default ?? null, b?.default ?? null);
    const fields = PARAMETER_FIELDS.flatMap(([field, words]) => {
      const text = (parameter: Parameter): string | null => {
        const value = fieldText(parameter[field]);
        return field === 'house' && value !== null ? nameOf(value) : value;
      };
      return differ('parameters', `@${b.name}, ${words}`, text(a), text(b));
    });
    return [...fields, ...differ('parameters', `@${b.name}, options`, optionsText(a), optionsText(b))];
  });
  const order = (preset: Preset): string => preset.parameters.map(({ name }) => `@${name}`).join(', ');
  return changed.length > 0 ? changed : differ('parameters', 'order', order(before), order(after));
}

function compareMoments(before: Preset, after: Preset): Difference[] {
  return pairs(before.moments, after.moments, ({ id }) => id).flatMap(([a, b]) => {
    if (!a || !b) return differ('moments', (a ?? b)?.name ?? '', a?.at ?? null, b?.at ?? null);
    return [...differ('moments', `${a.name}, name`, a.name, b.name), ...differ('moments', b.name, a.at, b.at)];
  });
}

/** Rows as they are shown in both, so that linked channels are told once. */
function shownRows(before: Preset, after: Preset): (readonly [RowGroup | null, RowGroup | null])[] {
  const [a, b] = [rowGroups(before), rowGroups(after)];
  const alike = (group: RowGroup, others: readonly RowGroup[]): boolean =>
    others.some((other) => other.channels.join() === group.channels.join());
  const isSplit = a.some((group) => !alike(group, b) && overlaps(group, b));
  const single = (groups: readonly RowGroup[], preset: Preset): RowGroup[] =>
    groups.flatMap((group) =>
      group.channels.map((channel) => ({
        label: channelOf(channel).label,
        channels: [channel],
        row: preset.rows.find((row) => row.channel === channel) ?? group.row,
      })),
    );
  return pairs(isSplit ? single(a, before) : a, isSplit ? single(b, after) : b, ({ channels }) => channels.join());
}

function overlaps(group: RowGroup, others: readonly RowGroup[]): boolean {
  return others.some(({ channels }) => channels.some((id: ChannelId) => group.channels.includes(id)));
}

function compareRows(before: Preset, after: Preset, nameOf: NameOf): Difference[] {
  const names = new Map([...before.moments, ...after.moments].map(({ id, name }) => [id, name]));
  return shownRows(before, after).flatMap(([a, b]) => {
    const label = (b ?? a)?.label ?? '';
    const counts = differ('cells', `${label}, counts`, conditionText(a), conditionText(b));
    const cells = pairs(a?.row.cells ?? [], b?.row.cells ?? [], ({ moment }) => moment).flatMap(([old, now]) => {
      const at = names.get((now ?? old)?.moment ?? '') ?? '';
      const value = differ('cells', `${label} at ${at}`, old?.value ?? null, now?.value ?? null);
      if (!old || !now) return value;
      const ease = differ(
        'easings',
        `${label} after ${at}`,
        easingWords(old.ease, nameOf),
        easingWords(now.ease, nameOf),
      );
      return [...value, ...ease];
    });
    return [...counts, ...cells];
  });
}

/** What is chosen of a movement besides its formulas, in words. */
function movementChoices(movement: Movement, names: ReadonlyMap<string, string>): string {
  const moment = (id: string): string => names.get(id) ?? id;
  const chosen = ['by', 'way', 'fit', 'isLoop', 'turns', 'reversed', 'd'].flatMap((field) => {
    const value = (movement as unknown as Record<string, unknown>)[field];
    return value === undefined || value === false ? [] : [value === true ? field : String(value)];
  });
  const time =
    'to' in movement ? `${moment(movement.from)} to ${moment(movement.to)}` : `from ${moment(movement.from)}`;
  return [time, ...(movement.when === undefined ? [] : [`if @${movement.when}`]), ...chosen].join(', ');
}

function compareMovements(before: Preset, after: Preset, nameOf: NameOf): Difference[] {
  const names = new Map([...before.moments, ...after.moments].map(({ id, name }) => [id, name]));
  return pairs(before.movements ?? [], after.movements ?? [], ({ id }) => id).flatMap(([a, b]) => {
    const label = movementLabel((b ?? a) as Movement);
    const whole = (movement: Movement | null): string | null => movement && movementChoices(movement, names);
    const [old, now] = [a, b].map((movement) => (movement ? movementFormulas(movement) : []));
    const numbers = pairs(old, now, ({ field }) => field).flatMap(([one, other]) =>
      differ('cells', `${label}, ${(other ?? one)?.number.label ?? ''}`, one?.text ?? null, other?.text ?? null),
    );
    const ease = (movement: Movement | null): string | null => {
      const own = movement && movementEase(movement);
      return own && easingWords(own, nameOf);
    };
    return [
      ...differ('cells', label, whole(a), whole(b)),
      ...(a && b ? numbers : []),
      ...differ('easings', `easing of ${label}`, ease(a), ease(b)),
    ];
  });
}

function conditionText(group: RowGroup | null): string | null {
  if (!group) return null;
  return group.row.when === undefined ? 'always' : `if @${group.row.when}`;
}

const HANG_WORDS = {
  in: 'from the in point',
  out: 'to the out point',
  time: 'at a time',
  span: 'across the whole layer',
} as const;

/** Everything that differs between two presets, in the order in which the bench shows it. */
export function comparePresets(before: Preset, after: Preset, nameOf: NameOf = (id) => id): Difference[] {
  return [
    ...differ('hanging', 'phase', before.phase, after.phase),
    ...differ('hanging', 'when it starts', HANG_WORDS[before.hang], HANG_WORDS[after.hang]),
    ...differ('hanging', 'when its layer is stretched', stretchWords(before), stretchWords(after)),
    ...differ('hanging', 'moments land on', gridWords(before), gridWords(after)),
    ...differ('hanging', 'its length', lengthWords(before), lengthWords(after)),
    ...compareParameters(before, after, nameOf),
    ...compareMoments(before, after),
    ...compareRows(before, after, nameOf),
    ...compareMovements(before, after, nameOf),
  ];
}

function stretchWords({ stretch }: Preset): string {
  return stretch === 'keep' ? 'keeps its length' : 'scales';
}

function gridWords({ grid }: Preset): string {
  return grid === 'frames' ? 'whole frames' : 'exact times';
}

function lengthWords({ lasts }: Preset): string | null {
  return lasts === undefined ? null : `@${lasts}`;
}

/** Everything that differs between two revisions of an item. */
export function compareItems(before: LibraryItem, after: LibraryItem, nameOf: NameOf = (id) => id): Difference[] {
  const texts = [
    ...differ('texts', 'name', before.name, after.name),
    ...differ('texts', 'note', before.note || null, after.note || null),
  ];
  if (before.kind === 'preset' && after.kind === 'preset') {
    return [...texts, ...comparePresets(before.body, after.body, nameOf)];
  }
  if (before.kind === 'curve' && after.kind === 'curve') {
    const [a, b] = [easingWords(before.body.easing), easingWords(after.body.easing)];
    return [...texts, ...differ('value', 'curve', a, b)];
  }
  if (before.kind === 'house' && after.kind === 'house') {
    const [a, b] = [before.body, after.body];
    return [
      ...texts,
      ...differ('value', 'value', houseText(a), houseText(b)),
      ...differ('value', 'follows', a.as === undefined ? null : nameOf(a.as), b.as === undefined ? null : nameOf(b.as)),
    ];
  }
  if (before.kind === 'rig' && after.kind === 'rig') return [...texts, ...compareRigs(before.body, after.body)];
  if (before.kind === 'look' && after.kind === 'look')
    return [...texts, ...compareLooks(before.body, after.body, nameOf)];
  if (before.kind === after.kind && ['recipe', 'palette'].includes(before.kind))
    return [...texts, ...compareFields(before.body, after.body)];
  return texts;
}

/** What two bodies differ in, field by field. */
function compareFields(before: object, after: object): Difference[] {
  const [a, b] = [flat(before), flat(after)];
  const fields = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...fields].flatMap((name) => differ('value', name, a[name] ?? null, b[name] ?? null));
}

/** What two looks differ in: parts and numbers, parameters by name, formulas by channel. */
function compareLooks(before: KeptLook, after: KeptLook, nameOf: NameOf): Difference[] {
  const numbers = ({ rest }: KeptLook): object =>
    Object.fromEntries(
      Object.entries(rest).map(([id, value]) => [
        channelOf(id as ChannelId).label,
        formatChannelValue(id as ChannelId, value),
      ]),
    );
  const tied = ({ colours = {} }: KeptLook): object =>
    Object.fromEntries(Object.entries(colours).map(([part, name]) => [`colour of the ${part}`, `@${name}`]));
  const formulas = ({ formulas: list = [] }: KeptLook): object =>
    Object.fromEntries(list.map(({ channel, text }) => [`formula for ${channel}`, text]));
  return [
    ...compareFields({ parts: before.parts.join(', ') }, { parts: after.parts.join(', ') }),
    ...compareFields(before.look, after.look),
    ...compareFields(numbers(before), numbers(after)),
    ...compareParameters(lookPreset(before), lookPreset(after), nameOf),
    ...compareFields(formulas(before), formulas(after)),
    ...compareFields(tied(before), tied(after)),
  ];
}

/** What two rigs differ in: dials by name, roles, formulas by channel. */
function compareRigs(before: Rig, after: Rig): Difference[] {
  const dials = (rig: Rig): Map<string, Record<string, string>> =>
    new Map(rig.dials.map(({ name, ...dial }) => [name, flat(dial)]));
  const formulas = (rig: Rig): Map<string, string> =>
    new Map(rig.formulas.flatMap(({ channels, text }) => channels.map((channel) => [channel, text] as const)));
  const roles = ({ roles: list }: Rig): string | null => list.map(({ name }) => name).join(', ') || null;
  const [a, b] = [dials(before), dials(after)];
  const [f, g] = [formulas(before), formulas(after)];
  const fieldsOf = (name: string): string[] => [...new Set(Object.keys({ ...a.get(name), ...b.get(name) }))];
  return [
    ...[...new Set([...a.keys(), ...b.keys()])].flatMap((name) => {
      const [one, other] = [a.get(name), b.get(name)];
      if (!one || !other) return differ('parameters', `@${name}`, one ? 'there' : null, other ? 'there' : null);
      return fieldsOf(name).flatMap((field) =>
        differ('parameters', `${field} of @${name}`, one[field] ?? null, other[field] ?? null),
      );
    }),
    ...differ('parameters', 'roles', roles(before), roles(after)),
    ...[...new Set([...f.keys(), ...g.keys()])].flatMap((channel) =>
      differ('value', channel, f.get(channel) ?? null, g.get(channel) ?? null),
    ),
  ];
}

/** The fields of a recipe as texts. */
function flat(body: object): Record<string, string> {
  return Object.fromEntries(
    Object.entries(body).map(([name, value]) => [name, typeof value === 'string' ? value : JSON.stringify(value)]),
  );
}
