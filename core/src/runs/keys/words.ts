import { pickWords } from '../pick';
import { channelsWords } from '../rig';
import type { KeysRecipe } from '../../scene/recipe';
import { field, plain, verbOf, type SentenceFacts, type SentencePart } from '../sentence';

/** The sentence of turning into keys, and of thinning out. */
export function keysParts(recipe: KeysRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  const isThinning = recipe.operation === 'thin-out';
  return [
    field('operation', verbOf(recipe.operation)),
    plain(isThinning ? ' the keys of ' : ' what rigs give '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain(', on '),
    field('channels', recipe.channels ? channelsWords(recipe.channels) : 'all channels'),
    plain(', within '),
    field('within', `${recipe.within} px, ° or %`),
    plain(', '),
    field('grid', recipe.grid === 'frames' ? 'on whole frames' : 'wherever fewer do'),
    plain('.'),
  ];
}
