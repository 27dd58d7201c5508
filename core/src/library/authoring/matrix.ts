import { CHANNELS, channelOf, type ChannelId } from '../../basics/channel';
import { easingFromStrengths, LINEAR } from '../../basics/easing';
import {
  presetChannels,
  type Cell,
  type Moment,
  type Preset,
  type PresetEasing,
  type Row,
} from '../../formulas/preset';
import { movedItem } from './parameters';

/** Channels that are shown as one row while they are keyed alike. */
const LINKS: readonly { readonly label: string; readonly channels: readonly ChannelId[] }[] = [
  { label: 'position', channels: ['position.x', 'position.y'] },
  { label: 'anchor', channels: ['anchor.x', 'anchor.y'] },
  { label: 'scale', channels: ['scale.x', 'scale.y'] },
  { label: 'size', channels: ['size.x', 'size.y'] },
  { label: 'fill colour', channels: ['fill.l', 'fill.a', 'fill.b'] },
  { label: 'stroke colour', channels: ['stroke.l', 'stroke.a', 'stroke.b'] },
  { label: 'crop centre', channels: ['crop.x', 'crop.y'] },
  { label: 'shadow offset', channels: ['shadow.x', 'shadow.y'] },
];

/** One row of the matrix as it is shown: one channel, or several that are keyed alike. */
export interface RowGroup {
  readonly label: string;
  readonly channels: readonly ChannelId[];
  /** The row that stands for all of them. */
  readonly row: Row;
}

/** What can be added as one row: channels that belong together, and every channel by itself, but the parts of one colour. */
export const ROW_CHOICES: readonly { readonly label: string; readonly channels: readonly ChannelId[] }[] = [
  ...LINKS,
  ...CHANNELS.filter(({ id }) => !/^(fill|stroke)\.[lab]$/.test(id)).map(({ id, label }) => ({
    label,
    channels: [id],
  })),
];

function isAlike(a: Row, b: Row): boolean {
  return a.when === b.when && JSON.stringify(a.cells) === JSON.stringify(b.cells);
}

/** The rows of a preset as they are shown, in order. */
export function rowGroups({ rows }: Pick<Preset, 'rows'>): RowGroup[] {
  const groups: RowGroup[] = [];
  for (let i = 0; i < rows.length;) {
    const link = LINKS.find(({ channels }) => channels[0] === rows[i].channel);
    const linked = link ? rows.slice(i, i + link.channels.length) : [];
    const isLinked =
      link !== undefined &&
      linked.length === link.channels.length &&
      linked.every((row, k) => row.channel === link.channels[k] && isAlike(row, linked[0]));
    if (link && isLinked) groups.push({ label: link.label, channels: link.channels, row: linked[0] });
    else groups.push({ label: channelOf(rows[i].channel).label, channels: [rows[i].channel], row: rows[i] });
    i += isLinked ? linked.length : 1;
  }
  return groups;
}

/** The channels that a channel is shown with when they are keyed alike; the channel alone where there are none. */
export function linkedChannels(channel: ChannelId): readonly ChannelId[] {
  return LINKS.find(({ channels }) => channels.includes(channel))?.channels ?? [channel];
}

/** A name that is not taken yet: the wanted one, or with a number. */
export function freeId(taken: readonly string[], wanted: string): string {
  if (!taken.includes(wanted)) return wanted;
  let number = 2;
  while (taken.includes(`${wanted}-${number}`)) number++;
  return `${wanted}-${number}`;
}

function idFrom(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 40) || 'moment'
  );
}

function inOrder(cells: readonly Cell[], moments: readonly Moment[]): Cell[] {
  const place = new Map(moments.map(({ id }, index) => [id, index]));
  return [...cells].sort((a, b) => (place.get(a.moment) ?? 0) - (place.get(b.moment) ?? 0));
}

function withMoments(preset: Preset, moments: readonly Moment[]): Preset {
  const rows = preset.rows.map((row) => ({ ...row, cells: inOrder(row.cells, moments) }));
  return { ...preset, moments: [...moments], rows };
}

/** Adds a moment after another one (null: first), with a time formula of its own. */
export function addMoment(preset: Preset, after: string | null, name: string, at: string): Preset {
  const index = after === null ? 0 : preset.moments.findIndex(({ id }) => id === after) + 1;
  const id = freeId(
    preset.moments.map((moment) => moment.id),
    idFrom(name),
  );
  return withMoments(preset, preset.moments.toSpliced(index, 0, { id, name, at }));
}

/** The preset with another name or time for a moment. */
export function changeMoment(preset: Preset, id: string, fields: Partial<Pick<Moment, 'name' | 'at'>>): Preset {
  const moments = preset.moments.map((moment) => (moment.id === id ? { ...moment, ...fields } : moment));
  return { ...preset, moments };
}

/** Moves a moment's column; its time stays what its formula says. */
export function moveMoment(preset: Preset, id: string, by: number): Preset {
  return withMoments(
    preset,
    movedItem(preset.moments, (moment) => moment.id === id, by),
  );
}

/** Removes a moment with its cells; the last one stays. Movements that begin or end there take its neighbour. */
export function removeMoment(preset: Preset, id: string): Preset {
  if (preset.moments.length <= 1) return preset;
  const at = preset.moments.findIndex((moment) => moment.id === id);
  const neighbour = (preset.moments[at - 1] ?? preset.moments[at + 1])?.id ?? id;
  const moved = (moment: string): string => (moment === id ? neighbour : moment);
  return {
    ...preset,
    ...(preset.movements
      ? {
          movements: preset.movements.map((movement) =>
            'to' in movement
              ? { ...movement, from: moved(movement.from), to: moved(movement.to) }
              : { ...movement, from: moved(movement.from) },
          ),
        }
      : {}),
    moments: preset.moments.filter((moment) => moment.id !== id),
    rows: preset.rows.map((row) => ({ ...row, cells: row.cells.filter(({ moment }) => moment !== id) })),
  };
}

/** A copy of a moment with all its cells, right after it. */
export function duplicateMoment(preset: Preset, id: string): Preset {
  const standing = preset.moments.find((moment) => moment.id === id);
  if (!standing) return preset;
  const added = addMoment(preset, id, `${standing.name} 2`, standing.at);
  const copy = added.moments[added.moments.findIndex((moment) => moment.id === id) + 1].id;
  const rows = added.rows.map((row) => {
    const cell = row.cells.find(({ moment }) => moment === id);
    return cell ? { ...row, cells: inOrder([...row.cells, { ...cell, moment: copy }], added.moments) } : row;
  });
  return { ...added, rows };
}

/** Adds empty rows for channels that have none yet. */
export function addRows(preset: Preset, channels: readonly ChannelId[]): Preset {
  const taken = new Set(presetChannels(preset));
  const added = channels.filter((channel) => !taken.has(channel)).map((channel): Row => ({ channel, cells: [] }));
  return { ...preset, rows: [...preset.rows, ...added] };
}

/** The preset without the rows of some channels. */
export function removeRows(preset: Preset, channels: readonly ChannelId[]): Preset {
  return { ...preset, rows: preset.rows.filter(({ channel }) => !channels.includes(channel)) };
}

/** Moves rows that are shown as one up or down past the next ones that are. */
export function moveRows(preset: Preset, channels: readonly ChannelId[], by: number): Preset {
  const groups = movedItem(rowGroups(preset), (group) => group.channels[0] === channels[0], by);
  const byChannel = new Map(preset.rows.map((row) => [row.channel, row]));
  return { ...preset, rows: groups.flatMap((group) => group.channels.map((id) => byChannel.get(id) as Row)) };
}

/** Copies a row's cells to other channels, over what they had. */
export function copyRow(preset: Preset, from: ChannelId, to: readonly ChannelId[]): Preset {
  const source = preset.rows.find(({ channel }) => channel === from);
  if (!source) return preset;
  const wanted = to.filter((channel) => channel !== from);
  const without = preset.rows.filter(({ channel }) => !wanted.includes(channel));
  const index = without.findIndex(({ channel }) => channel === from) + 1;
  const copies = wanted.map((channel) => ({ ...source, channel }));
  return { ...preset, rows: without.toSpliced(index, 0, ...copies) };
}

function changeRows(preset: Preset, channels: readonly ChannelId[], change: (row: Row) => Row): Preset {
  return { ...preset, rows: preset.rows.map((row) => (channels.includes(row.channel) ? change(row) : row)) };
}

/** Says when rows count: by a switch, by an option of a choice, or always (null). */
export function setCondition(preset: Preset, channels: readonly ChannelId[], when: string | null): Preset {
  return changeRows(preset, channels, ({ when: _when, ...row }) => (when === null ? row : { ...row, when }));
}

/** Easing that a new cell leaves by: soft at both ends, and even where nothing moves in space. */
function newEase(channel: ChannelId): PresetEasing {
  return channelOf(channel).family === 'opacity' ? LINEAR : easingFromStrengths(0.35, 0.35);
}

/** Writes a cell of rows; an empty text takes the cell away. */
export function setCell(preset: Preset, channels: readonly ChannelId[], moment: string, value: string): Preset {
  return changeRows(preset, channels, (row) => {
    const before = row.cells.find((cell) => cell.moment === moment);
    const others = row.cells.filter((cell) => cell.moment !== moment);
    if (value.trim() === '') return { ...row, cells: others };
    const ease = before?.ease ?? row.cells.at(-1)?.ease ?? newEase(row.channel);
    return { ...row, cells: inOrder([...others, { moment, value, ease }], preset.moments) };
  });
}

/** Sets how rows go on from a moment to their next cell. */
export function setEase(preset: Preset, channels: readonly ChannelId[], moment: string, ease: PresetEasing): Preset {
  return changeRows(preset, channels, (row) => ({
    ...row,
    cells: row.cells.map((cell) => (cell.moment === moment ? { ...cell, ease } : cell)),
  }));
}
