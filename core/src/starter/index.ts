import type { LibraryItem } from '../preset';
import { ACCENTS } from './accents';
import { ENTRANCES } from './entrances';
import { EXITS } from './exits';
import { THROUGHS } from './throughs';

/** The presets that a new library begins with. */
export const STARTER_LIBRARY: readonly LibraryItem[] = [...ENTRANCES, ...ACCENTS, ...THROUGHS, ...EXITS];
