/** What the keys of the scene screen do. */
export type SceneCommand =
  | 'undo'
  | 'redo'
  | 'next-key'
  | 'previous-key'
  | 'next-frame'
  | 'previous-frame'
  | 'play'
  | 'begin'
  | 'loop'
  | 'fit'
  | 'dry-run'
  | 'keys'
  | 'curves'
  | 'preview-alone'
  | 'leave-alone'
  | 'zoom-in'
  | 'zoom-out'
  | 'show-run'
  | 'show-all'
  | 'shortcuts'
  | 'select-all'
  | { readonly panel: number };

/** A key that was pressed, as far as it matters. */
export type PressedKey = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>;

const PLAIN: Readonly<Record<string, SceneCommand>> = {
  Home: 'begin',
  o: 'loop',
  f: 'fit',
  w: 'dry-run',
  k: 'keys',
  c: 'curves',
  v: 'preview-alone',
  Escape: 'leave-alone',
  '+': 'zoom-in',
  '=': 'zoom-in',
  '-': 'zoom-out',
  r: 'show-run',
  R: 'show-all',
  '?': 'shortcuts',
};

/** True for the keys of the main button: a dry run, or applying it. */
export function isMainKey({ key, ctrlKey, metaKey }: PressedKey): boolean {
  return (ctrlKey || metaKey) && key === 'Enter';
}

/** What a key does; null where it does nothing here. On a button, a link or a row Space is left to that. */
export function commandFor(pressed: PressedKey, isOnControl: boolean): SceneCommand | null {
  const { key, ctrlKey, metaKey, altKey, shiftKey } = pressed;
  if (ctrlKey || metaKey) {
    if (key.toLowerCase() === 'z') return shiftKey ? 'redo' : 'undo';
    if (key.toLowerCase() === 'a') return shiftKey || altKey ? null : 'select-all';
    return key.toLowerCase() === 'y' ? 'redo' : null;
  }
  if (altKey) {
    if (key === 'ArrowRight') return shiftKey ? 'next-key' : 'next-frame';
    if (key === 'ArrowLeft') return shiftKey ? 'previous-key' : 'previous-frame';
    return null;
  }
  if (key === ' ') return isOnControl ? null : 'play';
  if (Object.hasOwn(PLAIN, key)) return PLAIN[key];
  return /^[1-9]$/.test(key) ? { panel: Number(key) - 1 } : null;
}

/** The time of the next key, or of the previous one, seen from a time; null where there is none. */
export function neighbourKey(times: readonly number[], now: number, direction: 1 | -1): number | null {
  let found: number | null = null;
  for (const time of times) {
    const isAhead = direction > 0 ? time > now : time < now;
    if (isAhead && (found === null || Math.abs(time - now) < Math.abs(found - now))) found = time;
  }
  return found;
}
