import type { Shelf } from '../library';
import { pickWords } from '../pick';
import type { Parameter } from '../preset';
import type { ArrangeRecipe, ClearRecipe, LineUpRecipe, Operation, PresetRecipe, Recipe } from '../recipe';
import type { Scene } from '../scene';
import { formatFrames, formatShort, type Ticks } from '../time';
import { arrangeWords, clearWords, lineUpWords } from './way-words';
import { existingWords, lengthWords, orderWords, spacingWords, startWords, variationWords } from './words';

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
  readonly scene: Scene;
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
  'line-up': 'Line up',
  arrange: 'Arrange',
  clear: 'Clear',
};

export function verbOf(operation: Operation): string {
  return VERBS[operation];
}

function plain(text: string): SentencePart {
  return { text, field: null };
}

function field(name: SentenceField, text: string): SentencePart {
  return { text, field: name };
}

function parameterParts(recipe: PresetRecipe, parameters: readonly Parameter[]): SentencePart[] {
  return parameters
    .filter(({ name }) => recipe.parameters[name] !== undefined)
    .flatMap(({ name, label }) => [
      plain(`, ${label.charAt(0).toLowerCase()}${label.slice(1)} `),
      field(`parameter:${name}`, variationWords(recipe.parameters[name])),
    ]);
}

function isSolvedFor({ start, spacing, length }: PresetRecipe): boolean {
  return [start, spacing, length].some(({ by }) => by === 'finish');
}

/** The finish: where it is given, or where it is known from a plan. */
function finishParts(recipe: PresetRecipe, { scene, solved }: SentenceFacts): SentencePart[] {
  const given = [recipe.start, recipe.spacing, recipe.length].find((part) => part.by === 'finish');
  const known = solved?.finish ?? null;
  if (!given && known === null) return [];
  const text = given?.by === 'finish' ? given.at : formatShort(known ?? 0, scene.rate);
  return [
    plain(isSolvedFor(recipe) ? ', such that the last is done at ' : ', the last done at '),
    field('finish', text),
  ];
}

function presetParts(recipe: PresetRecipe, facts: SentenceFacts): SentencePart[] {
  const { shelf, count, scene, solved } = facts;
  const item = shelf.preset(recipe.preset.id);
  const name = item?.name ?? facts.presetName ?? 'a preset';
  const { rate } = scene;
  const lead = recipe.operation === 'send-out' && recipe.start.by === 'layer' ? ', to end at ' : ', from ';
  const frames = (ticks: Ticks | null | undefined): string | null =>
    ticks === null || ticks === undefined ? null : formatFrames(ticks, rate);
  const start = solved?.start ?? null;
  const [spacingLead, spacing] = spacingWords(recipe.spacing, frames(solved?.gap));
  const [existing, tail] = existingWords(recipe.existing, recipe.operation);
  return [
    field('operation', verbOf(recipe.operation)),
    plain(' '),
    field('preset', recipe.preset.mirrored === true ? `${name}, mirrored,` : name),
    plain(' on '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain(', '),
    field('order', orderWords(recipe.order)),
    plain(lead),
    field('start', startWords(recipe.start, recipe.operation, start === null ? null : formatShort(start, rate))),
    plain(spacingLead),
    field('spacing', spacing),
    plain(', moving '),
    field('moves', recipe.moves === 'keys' ? 'keys only' : 'whole layers'),
    plain(', each lasting '),
    field('length', lengthWords(recipe.length, frames(solved?.length))),
    ...finishParts(recipe, facts),
    ...parameterParts(recipe, item?.body.parameters ?? []),
    plain(', and '),
    field('existing', existing),
    plain(`${tail}.`),
  ];
}

function lineUpParts(recipe: LineUpRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  const parts = recipe.parts === 'stretch' ? 'stretched' : recipe.squeeze ? 'kept or squeezed' : 'kept';
  return [
    field('operation', VERBS['line-up']),
    plain(' '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain(', '),
    field('order', orderWords(recipe.order)),
    plain(', '),
    field('way', lineUpWords(recipe.way)),
    plain(', with entrances and exits '),
    field('parts', parts),
    plain('.'),
  ];
}

function arrangeParts(recipe: ArrangeRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  return [
    field('operation', VERBS.arrange),
    plain(' '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain(', '),
    field('order', orderWords(recipe.order)),
    plain(', '),
    field('way', arrangeWords(recipe.way)),
    plain('.'),
  ];
}

function clearParts(recipe: ClearRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  const run = scene.runs.findIndex(({ id }) => id === recipe.run);
  return [
    field('operation', VERBS.clear),
    plain(' '),
    field('way', clearWords(recipe, run < 0 ? 'a run' : `run ${run + 1}`)),
    plain(' on '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain('.'),
  ];
}

/** The recipe as a sentence, cut into plain text and fields. */
export function sentenceParts(recipe: Recipe, facts: SentenceFacts): SentencePart[] {
  switch (recipe.operation) {
    case 'line-up':
      return lineUpParts(recipe, facts);
    case 'arrange':
      return arrangeParts(recipe, facts);
    case 'clear':
      return clearParts(recipe, facts);
    default:
      return presetParts(recipe, facts);
  }
}

/** The recipe as one line of text where no scene is at hand. */
export function recipeWords(recipe: Recipe, shelf: Shelf): string {
  const scene = { rate: { num: 25, den: 1 }, runs: [], layers: [], cues: [] } as unknown as Scene;
  return sentenceOf(recipe, { scene, shelf, count: null });
}

/** The recipe as one line of text. */
export function sentenceOf(recipe: Recipe, facts: SentenceFacts): string {
  return sentenceParts(recipe, facts)
    .map(({ text }) => text)
    .join('');
}
