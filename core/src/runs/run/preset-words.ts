import { pickWords } from '../pick';
import type { Parameter } from '../../formulas/preset';
import type {
  Length,
  OverExisting,
  PresetOperation,
  PresetRecipe,
  Spacing,
  Start,
  Variation,
} from '../../scene/recipe';
import {
  field,
  momentWords,
  orderWords,
  plain,
  readableTime,
  verbOf,
  type SentenceFacts,
  type SentencePart,
} from '../sentence';
import { formatFrames, formatShort, type Ticks } from '../../basics/time';

/** `solved` is the time that follows from the finish, where it is known. */
export function startWords(start: Start, operation: PresetOperation, solved: string | null): string {
  if (start.by === 'finish') return solved ?? 'what follows';
  if (start.by !== 'layer') return momentWords(start);
  return operation === 'send-out' ? 'each out point' : 'each in point';
}

/** What leads up to a spacing, and the spacing itself. */
export function spacingWords(spacing: Spacing, solved: string | null): readonly [string, string] {
  switch (spacing.by) {
    case 'gap':
      return [', one every ', readableTime(spacing.gap)];
    case 'total':
      return [spacing.curve ? ', along a curve all begun within ' : ', all begun within ', readableTime(spacing.total)];
    case 'relay':
      return [', in relay with a gap of ', readableTime(spacing.gap)];
    case 'cues':
      return [', one on ', spacing.wrap === true ? 'each cue, then again from the first' : 'each cue'];
    case 'rows':
      return [
        ', in ',
        `${spacing.rows} rows ${readableTime(spacing.apart)} apart, replaced after ${readableTime(spacing.hold)}${spacing.wrap === true ? ', then again from the first' : ''}`,
      ];
    case 'finish':
      return [', one every ', solved ?? 'what follows'];
  }
}

/** "the preset’s own length", "20 f": how long each lasts. */
export function lengthWords(length: Length, solved: string | null): string {
  switch (length.by) {
    case 'preset':
      return 'the preset’s own length';
    case 'fixed':
      return readableTime(length.length);
    case 'factor':
      return `× ${length.factor}`;
    case 'fit':
      return `what fits into ${readableTime(length.window)}`;
    case 'speed':
      return `its way at ${length.speed} px/s`;
    case 'random':
      return `${readableTime(length.from)} to ${readableTime(length.to)} at random`;
    case 'finish':
      return solved ?? 'what follows';
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
    case 'data':
      return `from “${variation.column}”`;
  }
}

/** The verb for keys that are there, and what follows it. */
export function existingWords(existing: OverExisting, operation: PresetOperation): readonly [string, string] {
  switch (existing) {
    case 'take-place':
      return ['take the place of', operation === 'send-out' ? ' any earlier exit' : ' any earlier entrance'];
    case 'replace':
      return ['replace', ' the keys it touches'];
    case 'replace-channels':
      return ['replace all', ' keys on its channels'];
    case 'add':
      return ['add to', ' the keys that are there'];
    case 'leave':
      return ['leave alone', ' layers that have keys'];
  }
}

function parameterParts(recipe: PresetRecipe, parameters: readonly Parameter[]): SentencePart[] {
  return parameters
    .filter(({ name }) => recipe.parameters[name] !== undefined)
    .flatMap(({ name, label }) => [
      plain(`, ${label.charAt(0).toLowerCase()}${label.slice(1)} `),
      field(`parameter:${name}`, variationWords(recipe.parameters[name])),
    ]);
}

/** The finish: where it is given, or where it is known from a plan. */
function finishParts(recipe: PresetRecipe, { scene, solved }: SentenceFacts): SentencePart[] {
  const given = [recipe.start, recipe.spacing, recipe.length].find((part) => part.by === 'finish');
  const known = solved?.finish ?? null;
  if (!given && known === null) return [];
  const text = given?.by === 'finish' ? given.at : formatShort(known ?? 0, scene.rate);
  return [plain(given ? ', such that the last is done at ' : ', the last done at '), field('finish', text)];
}

/** The sentence of a recipe that puts a preset on layers. */
export function presetParts(recipe: PresetRecipe, facts: SentenceFacts): SentencePart[] {
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
