import {
  hasParameters,
  isPresetRecipe,
  settingsOf,
  withSettings,
  type SettingRecipe,
  type PresetRecipe,
  type Rate,
  type Recipe,
  type SentenceField,
  type Variation,
} from '@wexikine/core';
import { readLiteral, stepText } from '../../fields/literal';

/** The text behind a field of the sentence that holds a single number; null for any other field. */
function textBehind(recipe: Recipe, field: SentenceField): string | null {
  if (recipe.operation === 'rig') {
    if (field === 'later') return recipe.later;
    return field.startsWith('parameter:') ? dialText(recipe, field) : null;
  }
  if (recipe.operation === 'style') return field.startsWith('parameter:') ? dialText(recipe, field) : null;
  if (recipe.operation === 'pass-on') return field === 'later' ? recipe.later : null;
  if (recipe.operation === 'adjust') return field.startsWith('parameter:') ? dialText(recipe, field) : null;
  if (!isPresetRecipe(recipe)) return null;
  const { spacing } = recipe;
  if (field === 'spacing') {
    if (spacing.by === 'gap' || spacing.by === 'relay') return spacing.gap;
    return spacing.by === 'total' ? spacing.total : null;
  }
  if (field === 'finish') return finishOf(recipe);
  if (field === 'start') return recipe.start.by === 'time' ? recipe.start.at : null;
  if (field === 'length') return recipe.length.by === 'fixed' ? recipe.length.length : null;
  if (!field.startsWith('parameter:')) return null;
  const variation = recipe.parameters[field.slice('parameter:'.length)];
  return variation?.by === 'fixed' ? variation.value : null;
}

function dialText(recipe: Recipe, field: SentenceField): string | null {
  const setting = settingsOf(recipe)?.[field.slice('parameter:'.length)];
  return setting?.by === 'fixed' ? setting.value : null;
}

/** The time that the last one is to be done at, where start, gap or length follows from it. */
function finishOf({ start, spacing, length }: PresetRecipe): string | null {
  const given = [start, spacing, length].find(({ by }) => by === 'finish');
  return given?.by === 'finish' ? given.at : null;
}

/** Whether a field can be changed by dragging it. */
export function canScrub(recipe: Recipe, field: SentenceField, rate: Rate): boolean {
  const text = textBehind(recipe, field);
  return text !== null && readLiteral(text, rate) !== null;
}

function withText(recipe: SettingRecipe, field: SentenceField, text: string): Recipe {
  if (recipe.operation === 'rig' && field === 'later') return { ...recipe, later: text };
  if (!isPresetRecipe(recipe)) {
    const dial = field.slice('parameter:'.length);
    return withSettings(recipe, { ...settingsOf(recipe), [dial]: { by: 'fixed', value: text } });
  }
  if (field === 'spacing') {
    const { spacing } = recipe;
    if (spacing.by === 'total') return { ...recipe, spacing: { ...spacing, total: text } };
    return { ...recipe, spacing: { by: spacing.by === 'relay' ? 'relay' : 'gap', gap: text } };
  }
  if (field === 'finish') {
    const at = { by: 'finish', at: text } as const;
    if (recipe.start.by === 'finish') return { ...recipe, start: at };
    return recipe.spacing.by === 'finish' ? { ...recipe, spacing: at } : { ...recipe, length: at };
  }
  if (field === 'start') return { ...recipe, start: { by: 'time', at: text } };
  if (field === 'length') return { ...recipe, length: { by: 'fixed', length: text } };
  const name = field.slice('parameter:'.length);
  const variation: Variation = { by: 'fixed', value: text };
  return { ...recipe, parameters: { ...recipe.parameters, [name]: variation } };
}

/** The recipe after a field was moved by some steps; times do not go below nothing, a length not below one. */
export function scrubField(recipe: Recipe, field: SentenceField, steps: number, rate: Rate): Recipe {
  const text = textBehind(recipe, field);
  if (text === null) return recipe;
  if (recipe.operation === 'pass-on') return { ...recipe, later: stepText(text, steps, rate, -Infinity) };
  if (recipe.operation !== 'style' && !hasParameters(recipe)) return recipe;
  const isRelay = isPresetRecipe(recipe) && recipe.spacing.by === 'relay';
  const isFree = field.startsWith('parameter:') || (field === 'spacing' && isRelay);
  const least = field === 'length' ? 1 : isFree ? -Infinity : 0;
  return withText(recipe, field, stepText(text, steps, rate, least));
}
