/** What keys on a key of a curve can ask for. */
export interface CurveActions {
  readonly canEdit: () => boolean;
  readonly hasPicks: () => boolean;
  /** Moves what is picked by frames, and up by steps of its value. */
  readonly move: (frames: number, steps: number) => void;
  /** The key so many further has the focus. */
  readonly goBy: (step: 1 | -1) => void;
  readonly pick: (isMore: boolean) => void;
  readonly remove: () => void;
  readonly unpick: () => void;
}

const COARSE = 10;

type Pressed = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>;

/** Frames and steps of the value by which an arrow moves. */
const ARROWS: ReadonlyMap<string, readonly [frames: number, steps: number]> = new Map([
  ['ArrowRight', [1, 0]],
  ['ArrowLeft', [-1, 0]],
  ['ArrowUp', [0, 1]],
  ['ArrowDown', [0, -1]],
]);

/** Whether a key that was pressed on a key of a curve meant something, which is then done. */
export function curveKey({ key, ctrlKey, metaKey, altKey, shiftKey }: Pressed, actions: CurveActions): boolean {
  if (ctrlKey || metaKey || altKey) return false;
  const arrow = ARROWS.get(key);
  if (arrow) {
    const step = shiftKey ? COARSE : 1;
    if (actions.canEdit()) actions.move(arrow[0] * step, arrow[1] * step);
    return true;
  }
  switch (key) {
    case 'PageDown':
    case 'PageUp':
      actions.goBy(key === 'PageDown' ? 1 : -1);
      return true;
    case 'Enter':
    case ' ':
      actions.pick(shiftKey);
      return true;
    case 'Delete':
    case 'Backspace':
      if (!actions.canEdit()) return false;
      actions.remove();
      return true;
    case 'Escape':
      if (!actions.hasPicks()) return false;
      actions.unpick();
      return true;
  }
  return false;
}
