import { pickWords } from '../pick';
import type { Passed, PassOnRecipe } from '../../scene/recipe';
import {
  field,
  listed,
  orderWords,
  plain,
  readableTime,
  verbOf,
  type SentenceFacts,
  type SentencePart,
} from '../sentence';

/** What can be passed on, and what that is. */
export const PASSED_WORDS: Readonly<Record<Passed, { readonly label: string; readonly note: string }>> = {
  motion: { label: 'motion', note: 'all of its keys, in place of those on the same channels' },
  place: { label: 'place', note: 'where it rests, how it is turned and scaled' },
  timing: { label: 'timing', note: 'its in point and its out point' },
  look: { label: 'look', note: 'colours, border, shadows, masks and blending' },
  data: { label: 'data', note: 'the cells of its row' },
};

function px(value: number): string {
  return `${Number(Math.abs(value).toFixed(1))} px`;
}

/** "40 px right": how far apart neighbours rest; "on top of each other" where they are not. */
export function apartWords({ x, y }: PassOnRecipe['apart']): string {
  const ways = [
    ...(x === 0 ? [] : [`${px(x)} ${x < 0 ? 'left' : 'right'}`]),
    ...(y === 0 ? [] : [`${px(y)} ${y < 0 ? 'up' : 'down'}`]),
  ];
  return ways.length === 0 ? 'in the same place' : `each ${ways.join(' and ')} of the one before`;
}

/** The sentence of passing on: "Pass on motion and timing of “Moon” to 11 layers, as layered, each 4 f later, about where each rests." */
export function passOnParts(recipe: PassOnRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  const { from, what, values, later, apart } = recipe;
  const name = scene.layers.find(({ id }) => id === from.layer)?.name ?? 'a layer';
  const isTimed = what.includes('motion') || what.includes('timing');
  return [
    field('operation', verbOf('pass-on')),
    plain(' '),
    field('passed', listed(what.map((one) => PASSED_WORDS[one].label))),
    plain(' of '),
    field('from', from.isLinked === true ? `“${name}”, which they follow,` : `“${name}”`),
    plain(' to '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain(', '),
    field('order', orderWords(recipe.order)),
    ...(isTimed ? [plain(', each '), field('later', readableTime(later)), plain(' later')] : []),
    ...(what.includes('motion')
      ? [plain(', with values '), field('about', values === 'about-rest' ? 'about where each rests' : 'as they are')]
      : []),
    ...(what.includes('place') ? [plain(', '), field('apart', apartWords(apart))] : []),
    plain('.'),
  ];
}
