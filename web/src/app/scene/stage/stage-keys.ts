/** What a key asks for on the stage. */
export type StageCommand =
  | 'all'
  | 'pen'
  | 'zoom'
  | 'copy'
  | 'group'
  | 'ungroup'
  | 'duplicate'
  | 'remove'
  | 'front'
  | 'forward'
  | 'backward'
  | 'back';

/** What is true of the stage as the key is pressed. */
export interface StageFacts {
  /** How many layers are selected. */
  readonly count: number;
  /** False while a dry run is shown: layers cannot be changed then. */
  readonly canEdit: boolean;
}

/** Keys that change what is selected, as they are without Ctrl and Alt. */
const CHANGES: ReadonlyMap<string, StageCommand> = new Map([
  ['g', 'group'],
  ['G', 'ungroup'],
  ['d', 'duplicate'],
  ['Delete', 'remove'],
]);

type Pressed = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>;

/** What a key means on the stage; null where it means nothing there, and is left to others. */
export function stageCommand(
  { key, ctrlKey, metaKey, altKey, shiftKey }: Pressed,
  { count, canEdit }: StageFacts,
): StageCommand | null {
  const isChange = canEdit && count > 0;
  if (altKey) return null;
  if (ctrlKey || metaKey) {
    if (key.toLowerCase() === 'a') return 'all';
    return isChange && key.toLowerCase() === 'c' ? 'copy' : null;
  }
  if (key === 'z') return 'zoom';
  if (key === 'n') return canEdit ? 'pen' : null;
  if (!isChange) return null;
  if (key === 'PageUp') return shiftKey ? 'front' : 'forward';
  if (key === 'PageDown') return shiftKey ? 'back' : 'backward';
  return CHANGES.get(key) ?? null;
}
