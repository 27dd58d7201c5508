import { channelOf } from '../../basics/channel';
import { pickWords } from '../pick';
import type { ClearRecipe } from '../../scene/recipe';
import { field, plain, readableTime, verbOf, type SentenceFacts, type SentencePart } from '../sentence';

/** "keys of scale x from 1:00 to 2:00": which keys go. */
export function clearWords({ channels, phases, run, from, to }: ClearRecipe, runName: string): string {
  const words = [
    channels ? `keys of ${channels.map((id) => channelOf(id).label).join(', ')}` : 'all keys',
    phases ? `of ${phases.join(' and ')}` : '',
    run === undefined ? '' : `that ${runName} made`,
    from === undefined ? '' : `from ${readableTime(from)}`,
    to === undefined ? '' : `up to ${readableTime(to)}`,
  ];
  return words.filter((text) => text !== '').join(' ');
}

/** The sentence of clearing. */
export function clearParts(recipe: ClearRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  const run = scene.runs.findIndex(({ id }) => id === recipe.run);
  return [
    field('operation', verbOf('clear')),
    plain(' '),
    field('way', clearWords(recipe, run < 0 ? 'a run' : `run ${run + 1}`)),
    plain(' on '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain('.'),
  ];
}
