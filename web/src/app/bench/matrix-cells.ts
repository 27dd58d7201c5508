import {
  addMoment,
  changeMoment,
  setCell,
  setEase,
  type Cell,
  type Moment,
  type Preset,
  type PresetEasing,
  type RowGroup,
} from '@wexikine/core';
import type { EditEnd } from './formula-editor';
import type { PresetChange } from './parameter-table';

/** Where in the matrix something stands: row −1 is the moments' times. */
export interface Place {
  readonly row: number;
  readonly column: number;
}

/** A preset as the matrix shows it: linked channels are one row. */
export interface Matrix {
  readonly preset: Preset;
  readonly groups: readonly RowGroup[];
}

/** The easing that leaves a cell. */
export interface Chip {
  readonly group: RowGroup;
  readonly cell: Cell;
  /** The cell that it leads to. */
  readonly next: Cell;
}

/** The cell of a row at a moment; null where it is empty. */
export function cellOf({ row }: RowGroup, { id }: Moment): Cell | null {
  return row.cells.find(({ moment }) => moment === id) ?? null;
}

/** The easing that leaves a moment's cell; null where the row ends with it. */
export function chipOf(group: RowGroup, { id }: Moment): Chip | null {
  const index = group.row.cells.findIndex(({ moment }) => moment === id);
  const [cell, next] = [group.row.cells[index], group.row.cells[index + 1]];
  return index >= 0 && next ? { group, cell, next } : null;
}

/** The formula at a place; empty where there is none. */
export function textAt({ preset, groups }: Matrix, { row, column }: Place): string {
  const moment = preset.moments[column];
  return row < 0 ? moment.at : (cellOf(groups[row], moment)?.value ?? '');
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** What is typed into one cell in one go is one step. */
function mergeAt({ row, column }: Place): string {
  return `cell ${row} ${column}`;
}

/** The preset with another formula at a place; an empty one takes the cell away. */
export function writtenAt({ preset, groups }: Matrix, place: Place, text: string): PresetChange {
  const { id, name } = preset.moments[place.column];
  const merge = mergeAt(place);
  if (place.row < 0) return { label: `Time of ${name}`, preset: changeMoment(preset, id, { at: text }), merge };
  const { channels, label } = groups[place.row];
  return { label: `${capital(label)} at ${name}`, preset: setCell(preset, channels, id, text), merge };
}

/** The preset as it was before something was typed at a place. */
export function takenBackAt(place: Place, before: Preset): PresetChange {
  return { label: 'Take back what was typed', preset: before, merge: mergeAt(place) };
}

/** The preset with another easing after a cell. */
export function easedAfter(preset: Preset, { group, cell }: Chip, ease: PresetEasing): PresetChange {
  const { channels, label } = group;
  const merge = `ease ${channels[0]} ${cell.moment}`;
  return { label: `Easing of ${label}`, preset: setEase(preset, channels, cell.moment, ease), merge };
}

/** The preset with a moment more: between the last two, since the last one mostly is where the layer comes to rest. */
export function withMoment(preset: Preset): PresetChange {
  const { moments, lasts } = preset;
  const after = moments[moments.length - 2] ?? moments[moments.length - 1];
  const at = moments.length > 1 && lasts !== undefined ? `@${lasts} × 50%` : '10f';
  const name = `Moment ${moments.length}`;
  return { label: `Add the moment ${name}`, preset: addMoment(preset, after.id, name, at) };
}

/** Where one goes from a place by so many rows and columns; where nothing is there, one stays. */
export function goneFrom({ preset, groups }: Matrix, from: Place, down: number, across: number): Place {
  const [row, column] = [from.row + down, from.column + across];
  const isThere = row >= -1 && row < groups.length && column >= 0 && column < preset.moments.length;
  return isThere ? { row, column } : from;
}

/** By how many rows and columns one goes when typing ends; null where one stays outside. */
export function stepAfter(how: EditEnd): readonly [down: number, across: number] | null {
  switch (how) {
    case 'down':
      return [1, 0];
    case 'next':
      return [0, 1];
    case 'previous':
      return [0, -1];
    case 'cancel':
      return [0, 0];
    case 'stay':
      return null;
  }
}

/** What a key means in a cell that is not typed in. */
export type CellCommand =
  | { readonly does: 'go'; readonly down: number; readonly across: number }
  | { readonly does: 'edit'; readonly typed: string | null }
  | { readonly does: 'empty' };

const ARROWS: ReadonlyMap<string, readonly [down: number, across: number]> = new Map([
  ['ArrowUp', [-1, 0]],
  ['ArrowDown', [1, 0]],
  ['ArrowLeft', [0, -1]],
  ['ArrowRight', [0, 1]],
]);

/** Arrows go from cell to cell, Enter and typing edit, Delete empties: as in any sheet. Null: the key means nothing. */
export function cellCommand({
  key,
  ctrlKey,
  metaKey,
  altKey,
}: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>): CellCommand | null {
  const arrow = ARROWS.get(key);
  if (arrow) return { does: 'go', down: arrow[0], across: arrow[1] };
  if (key === 'Enter' || key === 'F2') return { does: 'edit', typed: null };
  if (key === 'Delete' || key === 'Backspace') return { does: 'empty' };
  return key.length === 1 && !ctrlKey && !metaKey && !altKey ? { does: 'edit', typed: key } : null;
}
