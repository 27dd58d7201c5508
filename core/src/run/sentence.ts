import type { Shelf } from '../library';
import type { Parameter } from '../preset';
import type { Scene } from '../scene';
import { readableTime } from './readable';
import type { Length, Order, OverExisting, Pick, PresetOperation, Recipe, Spacing, Start, Variation } from './recipe';

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
  | 'existing'
  | `parameter:${string}`;

/** A stretch of the sentence; with a field it is one that can be changed. */
export interface SentencePart {
  readonly text: string;
  readonly field: SentenceField | null;
}

/** What the sentence needs to know besides the recipe. `count` is the number of layers that take part. */
export interface SentenceFacts {
  readonly scene: Scene;
  readonly shelf: Shelf;
  readonly count: number;
}

const VERBS: Readonly<Record<PresetOperation, string>> = {
  'bring-in': 'Bring in',
  'send-out': 'Send out',
  accent: 'Accent with',
  'carry-through': 'Carry through',
};

export function verbOf(operation: PresetOperation): string {
  return VERBS[operation];
}

function layerCount(count: number): string {
  return count === 1 ? '1 layer' : `${count} layers`;
}

/** "12 layers tagged “row”". */
export function pickWords(pick: Pick, count: number): string {
  if (pick.by === 'layers') return layerCount(count);
  const kind = pick.kind === undefined ? 'layer' : pick.kind;
  const noun = count === 1 ? `1 ${kind}` : `${count} ${kind}s`;
  const tag = pick.tag === undefined ? '' : ` tagged “${pick.tag}”`;
  return noun + tag + (pick.name === undefined ? '' : ` named “${pick.name}”`);
}

function directed(order: Order, forward: string, backward: string): string {
  return order.reversed === true ? backward : forward;
}

/** "top to bottom". */
export function orderWords(order: Order): string {
  switch (order.by) {
    case 'layered':
      return directed(order, 'back to front', 'front to back');
    case 'name':
      return directed(order, 'by name', 'by name, last first');
    case 'across':
      return directed(order, 'left to right', 'right to left');
    case 'down':
      return directed(order, 'top to bottom', 'bottom to top');
    case 'out-from': {
      const isMiddle = order.x === 0.5 && order.y === 0.5;
      const point = isMiddle ? 'the middle' : `${Math.round(order.x * 100)} %, ${Math.round(order.y * 100)} %`;
      return directed(order, `out from ${point}`, `in to ${point}`);
    }
    case 'shuffled':
      return directed(order, `shuffled (${order.seed})`, `shuffled backwards (${order.seed})`);
  }
}

export function startWords(start: Start, operation: PresetOperation): string {
  if (start.by === 'time') return readableTime(start.at);
  return operation === 'send-out' ? 'each out point' : 'each in point';
}

export function spacingWords(spacing: Spacing): string {
  return readableTime(spacing.by === 'gap' ? spacing.gap : spacing.total);
}

export function lengthWords(length: Length): string {
  switch (length.by) {
    case 'preset':
      return 'as made';
    case 'fixed':
      return readableTime(length.length);
    case 'factor':
      return `× ${length.factor}`;
  }
}

/** A literal for people: "−6deg" → "−6°", "20f" → "20 f"; a formula stays as it is. */
export function literalWords(text: string): string {
  return text
    .replace(/^-/, '−')
    .replace(/deg$/, '°')
    .replace(/(\d)(%|px|f|s|ms|Hz)$/, '$1 $2');
}

/** "−6°, +6° by turns". */
export function variationWords(variation: Variation): string {
  switch (variation.by) {
    case 'fixed':
      return literalWords(variation.value);
    case 'cycle':
      return `${variation.values.map(literalWords).join(', ')} by turns`;
    case 'ramp':
      return `${literalWords(variation.from)} to ${literalWords(variation.to)} along the order`;
    case 'random':
      return `${literalWords(variation.from)} to ${literalWords(variation.to)} at random`;
  }
}

export function existingWords(existing: OverExisting): string {
  switch (existing) {
    case 'replace':
      return 'replace';
    case 'replace-channels':
      return 'replace all';
    case 'add':
      return 'add to';
    case 'leave':
      return 'leave alone';
  }
}

function existingTail(existing: OverExisting): string {
  switch (existing) {
    case 'replace':
      return ' the keys it touches.';
    case 'replace-channels':
      return ' keys on its channels.';
    case 'add':
      return ' the keys that are there.';
    case 'leave':
      return ' layers that have keys.';
  }
}

function plain(text: string): SentencePart {
  return { text, field: null };
}

function field(name: SentenceField, text: string): SentencePart {
  return { text, field: name };
}

function parameterParts(recipe: Recipe, parameters: readonly Parameter[]): SentencePart[] {
  return parameters
    .filter(({ name }) => recipe.parameters[name] !== undefined)
    .flatMap(({ name, label }) => [
      plain(`, ${label.charAt(0).toLowerCase()}${label.slice(1)} `),
      field(`parameter:${name}`, variationWords(recipe.parameters[name])),
    ]);
}

/** The recipe as a sentence, cut into plain text and fields. */
export function sentenceParts(recipe: Recipe, { shelf, count }: SentenceFacts): SentencePart[] {
  const item = shelf.preset(recipe.preset.id);
  const lead = recipe.operation === 'send-out' && recipe.start.by === 'layer' ? ', to end at ' : ', from ';
  return [
    field('operation', verbOf(recipe.operation)),
    plain(' '),
    field('preset', item?.name ?? 'a preset'),
    plain(' on '),
    field('pick', pickWords(recipe.pick, count)),
    plain(', '),
    field('order', orderWords(recipe.order)),
    plain(lead),
    field('start', startWords(recipe.start, recipe.operation)),
    plain(recipe.spacing.by === 'gap' ? ', one every ' : ', all begun within '),
    field('spacing', spacingWords(recipe.spacing)),
    plain(', moving '),
    field('moves', recipe.moves === 'keys' ? 'keys only' : 'whole layers'),
    plain(', each lasting '),
    field('length', lengthWords(recipe.length)),
    ...parameterParts(recipe, item?.body.parameters ?? []),
    plain(', and '),
    field('existing', existingWords(recipe.existing)),
    plain(existingTail(recipe.existing)),
  ];
}

/** The recipe as one line of text. */
export function sentenceOf(recipe: Recipe, facts: SentenceFacts): string {
  return sentenceParts(recipe, facts)
    .map(({ text }) => text)
    .join('');
}
