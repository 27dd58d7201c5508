import { stepOf, type Placed } from './row-drop';
import type { SheetRow } from './rows';

/** What keys on a row can ask for. */
export interface RowActions {
  readonly rows: () => readonly SheetRow[];
  /** Whether rows lie as layers do, so that one can be put elsewhere in depth. */
  readonly isInDepth: () => boolean;
  readonly placed: (placed: Placed) => void;
  readonly reorderBy: (row: SheetRow, step: 1 | -1) => void;
  /** The row so many further is selected, seen, and has the focus. */
  readonly goBy: (row: SheetRow, step: 1 | -1) => void;
  readonly setOpen: (row: SheetRow, isOpen: boolean) => void;
  readonly openGroup: (id: string) => void;
  readonly tick: (row: SheetRow) => void;
  readonly edit: (row: SheetRow) => void;
  readonly remove: (row: SheetRow) => void;
}

/** Arrows move between rows and open groups, Space ticks, Delete removes: as in any tree table. */
const PLAIN: Readonly<Record<string, (row: SheetRow, actions: RowActions) => void>> = {
  ArrowDown: (row, { goBy }) => goBy(row, 1),
  ArrowUp: (row, { goBy }) => goBy(row, -1),
  ArrowRight: (row, { setOpen }) => row.canOpen && !row.isExpanded && setOpen(row, true),
  ArrowLeft: (row, { setOpen }) => row.isExpanded && setOpen(row, false),
  ' ': (row, { tick }) => tick(row),
  F2: (row, { edit }) => edit(row),
  Delete: (row, { remove }) => remove(row),
};

/** Puts a row elsewhere in depth, into a group or out of it. */
function stepInDepth(key: string, { layer }: SheetRow, actions: RowActions): boolean {
  const place = stepOf(actions.rows(), layer.id, key);
  if (!place) return false;
  actions.placed({ layer: layer.id, ...place });
  if (place.parent !== null) actions.openGroup(place.parent);
  return true;
}

/** Whether a key on a row meant something, which is then done; with Alt the order of the run, with Ctrl and Shift depth. */
export function rowKey(event: KeyboardEvent, row: SheetRow, actions: RowActions): boolean {
  const { key, altKey, shiftKey } = event;
  if ((event.ctrlKey || event.metaKey) && shiftKey && actions.isInDepth()) return stepInDepth(key, row, actions);
  if (altKey && (key === 'ArrowUp' || key === 'ArrowDown')) {
    actions.reorderBy(row, key === 'ArrowUp' ? -1 : 1);
    return true;
  }
  PLAIN[key]?.(row, actions);
  return key in PLAIN;
}
