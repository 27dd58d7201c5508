import type { Shelf } from '../../library/library';
import type { Operation } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import type { Ticks } from '../../basics/time';

/** A field of the sentence; each opens an editor of its own. */
export type SentenceField =
  | 'operation'
  | 'preset'
  | 'pick'
  | 'order'
  | 'start'
  | 'spacing'
  | 'moves'
  | 'length'
  | 'finish'
  | 'existing'
  | 'way'
  | 'parts'
  | 'rig'
  | 'channels'
  | 'later'
  | 'within'
  | 'grid'
  | 'keys'
  | 'from'
  | 'copies'
  | 'from-time'
  | 'to-time'
  | 'life'
  | 'begin'
  | 'end'
  | 'size'
  | 'turns'
  | 'clear'
  | 'in'
  | 'out'
  | 'colours'
  | 'seed'
  | 'style-parts'
  | 'passed'
  | 'about'
  | 'apart'
  | `vary:${string}`
  | `step:${string}`
  | `role:${string}`
  | `parameter:${string}`;

/** A stretch of the sentence; with a field it is one that can be changed. */
export interface SentencePart {
  readonly text: string;
  readonly field: SentenceField | null;
}

/** What follows from a plan: first start, gap, length and last end; null where it differs from layer to layer. */
export interface Solved {
  readonly start: Ticks | null;
  readonly gap: Ticks | null;
  readonly length: Ticks | null;
  readonly finish: Ticks | null;
}

/** What the sentence needs to know besides the recipe. `count` is the number of layers that take part, null where no scene is at hand. */
export interface SentenceFacts {
  readonly scene: Pick<Scene, 'rate' | 'runs' | 'layers' | 'picks'>;
  readonly shelf: Shelf;
  readonly count: number | null;
  /** Name of the preset where the library does not have it. */
  readonly presetName?: string;
  readonly solved?: Solved | null;
}

const VERBS: Readonly<Record<Operation, string>> = {
  'bring-in': 'Bring in',
  'send-out': 'Send out',
  accent: 'Accent with',
  'move-throughout': 'Move throughout',
  rig: 'Rig',
  'turn-into-keys': 'Turn into keys',
  'thin-out': 'Thin out',
  adjust: 'Adjust',
  'line-up': 'Line up',
  arrange: 'Arrange',
  'pass-on': 'Pass on',
  style: 'Style',
  multiply: 'Multiply',
  clear: 'Clear',
};

/** What an operation is called. */
export function verbOf(operation: Operation): string {
  return VERBS[operation];
}

/** A stretch that cannot be changed. */
export function plain(text: string): SentencePart {
  return { text, field: null };
}

/** A stretch that opens an editor. */
export function field(name: SentenceField, text: string): SentencePart {
  return { text, field: name };
}

/** "fill, border and glow". */
export function listed(names: readonly string[]): string {
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
}
