import type { Rig } from '@wexikine/core';

/** A change of a rig, with its name in the undo list. */
export interface RigChange {
  readonly label: string;
  readonly rig: Rig;
  readonly merge?: string;
}
