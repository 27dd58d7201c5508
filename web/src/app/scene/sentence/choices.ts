import type { Operation } from '@wexikine/core';

/** One of several values, with its words. */
export interface Choice {
  readonly value: string;
  readonly label: string;
  readonly note: string;
}

/** With more choices than these a list would be longer than the page is high. */
const MOST_IN_ONE = 9;

/** Whether choices stand in two columns. */
export function isInTwo(choices: readonly unknown[]): boolean {
  return choices.length > MOST_IN_ONE;
}

/** The operations, to be chosen from. */
export const OPERATION_CHOICES: readonly (Choice & { readonly value: Operation })[] = [
  { value: 'bring-in', label: 'Bring in', note: 'entrances, from each in point' },
  { value: 'accent', label: 'Accent', note: 'at a given time' },
  { value: 'move-throughout', label: 'Move throughout', note: 'over the whole span' },
  { value: 'send-out', label: 'Send out', note: 'exits, to each out point' },
  { value: 'rig', label: 'Rig', note: 'dials and formulas that drive them, live' },
  { value: 'adjust', label: 'Adjust', note: 'keys that stand, in bulk' },
  { value: 'turn-into-keys', label: 'Turn into keys', note: 'what rigs give, within a tolerance' },
  { value: 'thin-out', label: 'Thin out', note: 'fewer keys for the same motion' },
  { value: 'line-up', label: 'Line up', note: 'when layers begin and end' },
  { value: 'arrange', label: 'Arrange', note: 'where layers rest' },
  { value: 'pass-on', label: 'Pass on', note: 'motion, place, timing or data of one layer' },
  { value: 'style', label: 'Style', note: 'looks, from one layer or varied' },
  { value: 'multiply', label: 'Multiply', note: 'copies, spread in place and time' },
  { value: 'clear', label: 'Clear', note: 'take keys away' },
];

/** What becomes of entrances and exits when layers are lined up. */
export const PARTS_CHOICES: readonly Choice[] = [
  { value: 'keep', label: 'Entrances and exits keep their length', note: 'the middle stretches' },
  { value: 'squeeze', label: 'Kept, or shortened where there is no room', note: 'both in proportion' },
  { value: 'stretch', label: 'Everything stretches', note: 'with its layer' },
];

/** What a run may move. */
export const MOVES_CHOICES: readonly Choice[] = [
  { value: 'keys', label: 'Keys only', note: 'layers stay where they are in time' },
  { value: 'layers', label: 'Whole layers', note: 'in and out points move along' },
];

/** Where written keys may stand. */
export const GRID_CHOICES: readonly Choice[] = [
  { value: 'frames', label: 'On whole frames', note: '' },
  { value: 'exact', label: 'Wherever fewer do', note: 'between frames too' },
];

/** What may become of keys that are already there. */
export const EXISTING_CHOICES: readonly Choice[] = [
  {
    value: 'take-place',
    label: 'Take the place of an earlier one',
    note: 'an entrance of an entrance, an exit of an exit',
  },
  { value: 'replace', label: 'Replace what it touches', note: 'on its channels, between its first and last key' },
  { value: 'replace-channels', label: 'Replace whole channels', note: 'every key on its channels' },
  { value: 'add', label: 'Add on top', note: 'the new motion joins the standing one' },
  { value: 'leave', label: 'Leave alone', note: 'layers with keys on its channels are left out' },
];

/** Values of keys that are passed on. */
export const VALUES_CHOICES: readonly Choice[] = [
  { value: 'about-rest', label: 'About where each rests', note: 'as far from it as on the layer that is copied' },
  { value: 'as-is', label: 'As they are', note: 'the very same numbers' },
];
