import type { KeyRow } from './key-rows';

/** What keys on a row of keys can ask for. */
export interface RowsActions {
  readonly hasPicks: () => boolean;
  /** The row so many further has the focus. */
  readonly goBy: (step: 1 | -1) => void;
  /** Moves what is picked by frames. */
  readonly moveBy: (frames: number) => void;
  readonly toggle: (row: KeyRow) => void;
  readonly pick: (row: KeyRow, isMore: boolean) => void;
  readonly remove: () => void;
  readonly unpick: () => void;
}

const COARSE = 10;

/** Rows that are opened and closed: of a layer, and of a rig with its dials. */
export function canFold({ kind }: KeyRow): boolean {
  return kind === 'layer' || kind === 'rig';
}

type Pressed = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>;

/** Whether a key that was pressed on a row meant something, which is then done. */
export function rowsKey(
  { key, ctrlKey, metaKey, altKey, shiftKey }: Pressed,
  row: KeyRow,
  actions: RowsActions,
): boolean {
  if (ctrlKey || metaKey || altKey) return false;
  const hasPicks = actions.hasPicks();
  switch (key) {
    case 'ArrowDown':
    case 'ArrowUp':
      actions.goBy(key === 'ArrowDown' ? 1 : -1);
      return true;
    case 'ArrowRight':
    case 'ArrowLeft': {
      const isRight = key === 'ArrowRight';
      // With keys that are picked, across means time; without, what is open.
      if (hasPicks) actions.moveBy((isRight ? 1 : -1) * (shiftKey ? COARSE : 1));
      else if (canFold(row) && row.isOpen !== isRight) actions.toggle(row);
      else return false;
      return true;
    }
    case 'Enter':
    case ' ':
      actions.pick(row, shiftKey);
      return true;
    case 'Delete':
    case 'Backspace':
      if (hasPicks) actions.remove();
      return hasPicks;
    case 'Escape':
      if (hasPicks) actions.unpick();
      return hasPicks;
  }
  return false;
}
