import { writeTokens, type HouseItem, type PaletteItem } from '@wexikine/core';
import { saveFile } from '../files/save-file';

/** The rate at which durations in frames are written in milliseconds; the frames stay beside them. */
const RATE = { num: 25, den: 1 };

/** Saves house values and palettes as a design tokens file; gives how many could not be written. */
export function exportTokens(items: readonly HouseItem[], palettes: readonly PaletteItem[]): number {
  const { text, skipped } = writeTokens(items, RATE, palettes);
  saveFile('house-values.tokens.json', new Blob([text], { type: 'application/json' }));
  return skipped.length;
}
