import type { Point } from '../../basics/transform';
import type { Edit } from '../../scene/edit';
import { restValue, type Layer, type LayerSource } from '../../scene/layer';
import { boundsAt, compileScene, restFrame } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import type { Table } from '../../scene/table';
import { copiesOf } from './copies';
import { withInside } from './nesting';
import { unionOf } from './snap';

/** Where the copies come to rest beside one another. */
export const ROW_PLACES = ['same', 'below', 'beside'] as const;
/** Where the copies come to rest beside one another: all in the same place, each below or beside the one before. */
export type RowPlace = (typeof ROW_PLACES)[number];

/** Which column each word or picture of the group shows, by the layer's id. */
export type CellMap = ReadonlyMap<string, string>;

/** A picture that a cell names. */
export type CellPicture = Omit<Extract<LayerSource, { type: 'picture' }>, 'type'>;

/** What is asked: one copy of a group for each row of a table. */
export interface RowsAsked {
  readonly table: Table;
  /** The group; it shows the first row itself. */
  readonly group: string;
  /** The column by which a row is known again. */
  readonly column: string;
  readonly cells: CellMap;
  readonly place: RowPlace;
  /** Between copies that are below or beside one another, px. */
  readonly gap: number;
  /** Take copies away whose row is gone. */
  readonly isThinned: boolean;
  /** The picture that a cell names; null where there is none. */
  readonly pictureOf: (cell: string) => CellPicture | null;
}

/** What a table makes of a group, and what there is to say about it. */
export interface RowsMade {
  readonly edits: readonly Edit[];
  /** The group and its copies, in the order of the rows. */
  readonly groups: readonly string[];
  readonly added: number;
  readonly updated: number;
  readonly removed: number;
  /** Rows of copies that the table does not have, and that stay. */
  readonly left: readonly string[];
  /** Cells that name a picture which is not there. */
  readonly missing: readonly string[];
  /** Why nothing can be made; null when all is well. */
  readonly problem: string | null;
}

const MOST_LAYERS = 10_000;

function same(a: string, b: string): boolean {
  return a.trim().localeCompare(b.trim(), 'en', { sensitivity: 'accent' }) === 0;
}

function takesCell({ source }: Layer): boolean {
  return source.type === 'text' || source.type === 'picture';
}

/**
 * Which columns the words and pictures of a group are likely to show: those that are called like them, those whose text
 * they show now, and then the columns that are left, word by word in the order in which they are read.
 */
export function usualCells(scene: Scene, group: string, table: Table): CellMap {
  const parts = withInside(scene, new Set([group])).filter(takesCell);
  const data = scene.layers.find(({ id }) => id === group)?.data ?? {};
  const cells = new Map<string, string>();
  for (const part of parts) {
    const shown = part.source.type === 'text' ? part.source.text : null;
    const column =
      table.columns.find((name) => same(name, part.name)) ??
      table.columns.find((name) => shown !== null && shown !== '' && String(data[name] ?? '') === shown);
    if (column !== undefined) cells.set(part.id, column);
  }
  const free = table.columns.filter((name) => ![...cells.values()].includes(name));
  const words = parts
    .filter(({ id, source }) => source.type === 'text' && !cells.has(id))
    .sort(
      (a, b) =>
        restValue(a, 'position.y') - restValue(b, 'position.y') ||
        restValue(a, 'position.x') - restValue(b, 'position.x'),
    );
  words.slice(0, free.length).forEach(({ id }, i) => cells.set(id, free[i]));
  return cells;
}

interface Filling {
  readonly asked: RowsAsked;
  readonly missing: Set<string>;
}

function cellOf({ table }: RowsAsked, row: readonly string[], column: string): string {
  return row[table.columns.indexOf(column)] ?? '';
}

/** What a word or picture shows for a row; null where it stays. */
function sourceFor(
  part: Layer,
  column: string | undefined,
  row: readonly string[],
  filling: Filling,
): LayerSource | null {
  if (column === undefined) return null;
  const cell = cellOf(filling.asked, row, column);
  const { source } = part;
  if (source.type === 'text') return source.text === cell ? null : { ...source, text: cell.slice(0, 5_000) };
  if (source.type !== 'picture' || cell === '') return null;
  const picture = filling.asked.pictureOf(cell);
  if (!picture) {
    filling.missing.add(cell);
    return null;
  }
  return picture.href === source.href ? null : { type: 'picture', ...picture };
}

function dataFor({ table }: RowsAsked, row: readonly string[]): Layer['data'] {
  return Object.fromEntries(
    table.columns.map((column, i) => [column, row[i]] as const).filter(([, cell]) => cell !== ''),
  );
}

function nameFor(key: string, group: Layer): string {
  return key.trim() === '' ? group.name : key.trim().slice(0, 200);
}

/** Layers of a copy by the layers of the group that they are copies of. */
function partsOf(scene: Scene, top: Layer): Map<string, Layer> {
  return new Map(withInside(scene, new Set([top.id])).map((layer) => [layer.copy?.of ?? layer.id, layer]));
}

/** Fills a copy that stands with a row. */
function fillEdits(scene: Scene, top: Layer, row: readonly string[], key: string, filling: Filling): Edit[] {
  const { asked } = filling;
  const parts = partsOf(scene, top);
  const edits = [...asked.cells].flatMap(([id, column]): Edit[] => {
    const part = parts.get(id);
    const source = part ? sourceFor(part, column, row, filling) : null;
    return part && source ? [{ type: 'set-layer', layer: part.id, fields: { source } }] : [];
  });
  const data = { ...top.data, ...dataFor(asked, row) };
  const of = top.copy?.of ?? top.id;
  const isAsBefore = top.copy?.row === key && JSON.stringify(data) === JSON.stringify(top.data);
  return isAsBefore
    ? edits
    : [...edits, { type: 'set-layer', layer: top.id, fields: { data, copy: { of, row: key } } }];
}

function nothing(problem: string): RowsMade {
  return { edits: [], groups: [], added: 0, updated: 0, removed: 0, left: [], missing: [], problem };
}

/** By how much each copy lies beside the one before, px of the group's parent. */
function stepOf(scene: Scene, members: readonly Layer[], { place, gap }: RowsAsked): Point {
  if (place === 'same') return { x: 0, y: 0 };
  const alone = compileScene({ ...scene, layers: [...members], runs: [] });
  const frame = restFrame(alone);
  const box = unionOf(members.flatMap(({ source }, i) => (source.type === 'none' ? [] : [boundsAt(frame, i)])));
  const [width, height] = box ? [box.right - box.left, box.bottom - box.top] : [0, 0];
  return place === 'below' ? { x: 0, y: height + gap } : { x: width + gap, y: 0 };
}

/** A new copy of the group, filled with a row; every layer says what it is the copy of. */
function newCopy(
  members: readonly Layer[],
  group: Layer,
  by: Point,
  row: readonly string[],
  key: string,
  filling: Filling,
  newId: () => string,
): Layer[] {
  const copies = copiesOf(members, new Set([group.id]), by, new Set(), newId);
  return copies.map((copy, i): Layer => {
    const of = members[i].id;
    const source = sourceFor(copy, filling.asked.cells.get(of), row, filling) ?? copy.source;
    return of === group.id
      ? {
          ...copy,
          source,
          name: nameFor(key, group),
          data: { ...copy.data, ...dataFor(filling.asked, row) },
          copy: { of, row: key },
        }
      : { ...copy, name: members[i].name, source, copy: { of } };
  });
}

/**
 * Makes one copy of a group for each row of a table, with its words, pictures and data filled in. The group itself shows
 * the first row. Rows that have a copy already bring it up to date: its keys, its place and what else was done to it stay.
 * Rows with the same key are the same row; the last one counts.
 */
export function copyRows(scene: Scene, asked: RowsAsked, newId: () => string): RowsMade {
  const group = scene.layers.find(({ id }) => id === asked.group);
  if (!group || group.kind !== 'group') return nothing('Choose a group: each row becomes a copy of it.');
  const { table, column } = asked;
  if (!table.columns.includes(column))
    return nothing(`The table has no column “${column}”. Choose the one that names its rows.`);
  const rows = new Map(table.rows.map((row) => [cellOf(asked, row, column), row]));
  const members = withInside(scene, new Set([group.id]));
  const template = group.copy?.of === group.id || group.copy === undefined ? group : null;
  if (!template) return nothing(`“${group.name}” is itself a copy. Choose the group that it is a copy of.`);
  if (members.length * rows.size > MOST_LAYERS)
    return nothing(
      `${rows.size} rows of ${members.length} layers each are more than ${MOST_LAYERS} layers. Bring in fewer rows.`,
    );
  const standing = scene.layers.filter(({ copy }) => copy?.of === group.id && copy.row !== undefined);
  const tops = group.copy ? standing : [group, ...standing];
  const known = new Map(tops.flatMap((top) => (top.copy?.row === undefined ? [] : [[top.copy.row, top] as const])));
  const filling: Filling = { asked, missing: new Set() };
  const step = stepOf(scene, members, asked);
  const last = scene.layers.indexOf(members[members.length - 1]);
  const edits: Edit[] = [];
  const groups: string[] = [];
  let [added, updated, index] = [0, 0, last + 1];
  const takesFirst = !group.copy;
  [...rows].forEach(([key, row], place) => {
    const top = known.get(key) ?? (takesFirst && place === 0 ? group : undefined);
    if (top) {
      edits.push(...fillEdits(scene, top, row, key, filling));
      if (top === group && takesFirst)
        edits.push({ type: 'set-layer', layer: group.id, fields: { name: nameFor(key, group) } });
      groups.push(top.id);
      updated++;
      return;
    }
    const by = { x: step.x * place, y: step.y * place };
    const copy = newCopy(members, group, by, row, key, filling, newId);
    for (const layer of copy) edits.push({ type: 'add-layer', index: index++, layer });
    groups.push(copy.find(({ copy: own }) => own?.row !== undefined)?.id ?? copy[0].id);
    added++;
  });
  const gone = [...known].filter(([key, top]) => !rows.has(key) && top.id !== group.id);
  const removed = asked.isThinned ? withInside(scene, new Set(gone.map(([, top]) => top.id))) : [];
  return {
    edits: [...edits, ...[...removed].reverse().map(({ id }): Edit => ({ type: 'remove-layer', layer: id }))],
    groups,
    added,
    updated,
    removed: asked.isThinned ? gone.length : 0,
    left: asked.isThinned ? [] : gone.map(([key]) => key),
    missing: [...filling.missing],
    problem: null,
  };
}
