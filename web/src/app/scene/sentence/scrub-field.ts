import type { Rate, Recipe, SentenceField, Variation } from '@wexikine/core';
import { readLiteral, stepText } from '../../fields/literal';

/** The text behind a field of the sentence that holds a single number; null for any other field. */
function textBehind(recipe: Recipe, field: SentenceField): string | null {
  if (field === 'spacing') return recipe.spacing.by === 'gap' ? recipe.spacing.gap : recipe.spacing.total;
  if (field === 'start') return recipe.start.by === 'time' ? recipe.start.at : null;
  if (field === 'length') return recipe.length.by === 'fixed' ? recipe.length.length : null;
  if (!field.startsWith('parameter:')) return null;
  const variation = recipe.parameters[field.slice('parameter:'.length)];
  return variation?.by === 'fixed' ? variation.value : null;
}

/** Whether a field can be changed by dragging it. */
export function canScrub(recipe: Recipe, field: SentenceField, rate: Rate): boolean {
  const text = textBehind(recipe, field);
  return text !== null && readLiteral(text, rate) !== null;
}

function withText(recipe: Recipe, field: SentenceField, text: string): Recipe {
  if (field === 'spacing') {
    const { spacing } = recipe;
    return { ...recipe, spacing: spacing.by === 'gap' ? { by: 'gap', gap: text } : { by: 'total', total: text } };
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
  const least = field === 'length' ? 1 : field.startsWith('parameter:') ? -Infinity : 0;
  return withText(recipe, field, stepText(text, steps, rate, least));
}
