import type { Edit } from '@wexikine/core';

/** A named step that the panel asks for. */
export interface LayerStep {
  readonly label: string;
  readonly edits: readonly Edit[];
}
