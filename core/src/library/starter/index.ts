import type { LibraryItem, PresetItem } from '../library';
import { ACCENTS } from './accents';
import { STARTER_CURVES } from './curves';
import { ENTRANCES } from './entrances';
import { EXITS } from './exits';
import { STARTER_HOUSE } from './house';
import { STARTER_LOOKS, STARTER_PALETTES } from './looks';
import { STARTER_MOVEMENTS } from './movements';
import { STARTER_RECIPES } from './recipes';
import { STARTER_RIGS } from './rigs';
import { THROUGHS } from './throughs';
import { WORD_PRESETS, WORD_RIGS } from './words';

/** The presets that a new library begins with. */
export const STARTER_PRESETS: readonly PresetItem[] = [
  ...ENTRANCES,
  ...ACCENTS,
  ...THROUGHS,
  ...EXITS,
  ...STARTER_MOVEMENTS,
  ...WORD_PRESETS,
];

/** Everything that a new library begins with. */
export const STARTER_LIBRARY: readonly LibraryItem[] = [
  ...STARTER_PRESETS,
  ...STARTER_RIGS,
  ...WORD_RIGS,
  ...STARTER_LOOKS,
  ...STARTER_PALETTES,
  ...STARTER_CURVES,
  ...STARTER_HOUSE,
  ...STARTER_RECIPES,
];
export { STARTER_LOOKS, STARTER_PALETTES } from './looks';
export { STARTER_MOVEMENTS } from './movements';
export { STARTER_RECIPES } from './recipes';
export { STARTER_RIGS } from './rigs';
export { WORD_PRESETS, WORD_RIGS } from './words';
