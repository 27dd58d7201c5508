import type { Placement } from '@wexikine/core';
import type { SheetRow } from './rows';

/** Where a carried row would come to lie: on a line above a row, or in a group. */
export interface RowDrop extends Placement {
  /** The row that the line is above; the number of rows below the last one. Of `into` the group's row. */
  readonly row: number;
  readonly into: boolean;
  readonly depth: number;
}

/** A layer that is to be put elsewhere. */
export interface Placed extends Placement {
  readonly layer: string;
}

/** This share of a group's row, above and below, means the line between rows; what is between means into the group. */
const EDGE = 0.28;

/** The row after a layer's own, behind everything that is in it. */
function endOf(rows: readonly SheetRow[], index: number): number {
  let end = index + 1;
  while (end < rows.length && rows[end].depth > rows[index].depth) end++;
  return end;
}

function lineAbove(rows: readonly SheetRow[], row: number): RowDrop {
  const { layer, depth } = rows[row];
  return { parent: layer.parent, before: layer.id, row, into: false, depth };
}

function lineBelow(rows: readonly SheetRow[], row: number): RowDrop {
  const { layer, depth, isExpanded } = rows[row];
  const below = rows[row + 1];
  if (isExpanded && below && below.depth > depth) return lineAbove(rows, row + 1);
  const end = endOf(rows, row);
  const next = rows[end]?.depth === depth ? rows[end].layer.id : null;
  return { parent: layer.parent, before: next, row: row + 1, into: false, depth };
}

/** Where a row would come to lie at a height, in rows from the first; null where that is its own place, or in itself. */
export function dropAt(rows: readonly SheetRow[], height: number, carried: string): RowDrop | null {
  const own = rows.findIndex(({ layer }) => layer.id === carried);
  if (own < 0 || rows.length === 0) return null;
  const row = Math.min(rows.length - 1, Math.max(0, Math.floor(height)));
  const share = height - row;
  const isOwn = row >= own && row < endOf(rows, own);
  if (isOwn) return null;
  if (rows[row].canOpen && share > EDGE && share < 1 - EDGE) {
    const { layer, depth } = rows[row];
    return { parent: layer.id, before: null, row, into: true, depth: depth + 1 };
  }
  const drop = share < 0.5 ? lineAbove(rows, row) : lineBelow(rows, row);
  const { layer, depth } = rows[own];
  const end = endOf(rows, own);
  const next = rows[end]?.depth === depth ? rows[end].layer.id : null;
  const isThere = drop.parent === layer.parent && (drop.before === layer.id || drop.before === next);
  return isThere ? null : drop;
}

/** Where an arrow key puts a row: a place further back or to the front, into the group above, or out of its own. */
export function stepOf(rows: readonly SheetRow[], id: string, key: string): Placement | null {
  const index = rows.findIndex(({ layer }) => layer.id === id);
  const { layer, depth } = rows[index];
  const beside = rows.filter((row) => row.layer.parent === layer.parent && row.depth === depth);
  const place = beside.findIndex((row) => row.layer.id === id);
  const above = beside[place - 1];
  switch (key) {
    case 'ArrowUp':
      return above ? { parent: layer.parent, before: above.layer.id } : null;
    case 'ArrowDown':
      return place + 1 < beside.length ? { parent: layer.parent, before: beside[place + 2]?.layer.id ?? null } : null;
    case 'ArrowRight':
      return above?.canOpen ? { parent: above.layer.id, before: null } : null;
    case 'ArrowLeft': {
      const group = rows.findLastIndex((row, i) => i < index && row.depth < depth);
      return depth > 0 && group >= 0 ? { parent: rows[group].layer.parent, before: afterGroup(rows, group) } : null;
    }
    default:
      return null;
  }
}

function afterGroup(rows: readonly SheetRow[], group: number): string | null {
  const end = endOf(rows, group);
  return rows[end]?.depth === rows[group].depth ? rows[end].layer.id : null;
}
