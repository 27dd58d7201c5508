import type { Phase } from '@wexikine/core';

export interface Choice {
  readonly value: string;
  readonly label: string;
  readonly note: string;
}

export const OPERATION_CHOICES: readonly (Choice & { readonly phase: Phase })[] = [
  { value: 'bring-in', phase: 'entrance', label: 'Bring in', note: 'entrances, from each in point' },
  { value: 'accent', phase: 'accent', label: 'Accent', note: 'at a given time' },
  { value: 'carry-through', phase: 'through', label: 'Carry through', note: 'over the whole span' },
  { value: 'send-out', phase: 'exit', label: 'Send out', note: 'exits, to each out point' },
];

export const MOVES_CHOICES: readonly Choice[] = [
  { value: 'keys', label: 'Keys only', note: 'layers stay where they are in time' },
  { value: 'layers', label: 'Whole layers', note: 'in and out points move along' },
];

export const EXISTING_CHOICES: readonly Choice[] = [
  { value: 'replace', label: 'Replace what it touches', note: 'on its channels, between its first and last key' },
  { value: 'replace-channels', label: 'Replace whole channels', note: 'every key on its channels' },
  { value: 'add', label: 'Add on top', note: 'the new motion joins the standing one' },
  { value: 'leave', label: 'Leave alone', note: 'layers with keys on its channels are left out' },
];
