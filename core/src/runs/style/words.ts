import { pickWords } from '../pick';
import { channelOf, formatChannelValue, type ChannelId } from '../../basics/channel';
import type { ColourPart, ColourVariation, NumberVariation, StyleRecipe } from '../../scene/recipe';
import {
  degreeWords,
  field,
  listed,
  orderWords,
  plain,
  verbOf,
  type SentenceFacts,
  type SentencePart,
} from '../sentence';
import { parametersFor } from '../../library/library';
import { variationWords } from '../run';
import { numbersOf, PARTS } from './parts';

function percent(share: number): string {
  return `${Math.round(Math.abs(share) * 1_000) / 10} %`;
}

function stepWords({ lightness, chroma, hue }: Extract<ColourVariation, { by: 'step' }>): string {
  const steps = [
    ...(lightness === 0 ? [] : [`${percent(lightness)} ${lightness < 0 ? 'darker' : 'lighter'}`]),
    ...(chroma === 0 ? [] : [chroma < 0 ? 'greyer' : 'more colourful']),
    ...(hue === 0 ? [] : [`hue turned ${degreeWords(hue)}`]),
  ];
  return steps.length === 0 ? 'the same for all' : `each ${steps.join(', ')}`;
}

/** "each 6 % darker", "5 colours by turns": how a colour differs from layer to layer. */
export function colourVariationWords(variation: ColourVariation, nameOf: (id: string) => string): string {
  switch (variation.by) {
    case 'step':
      return stepWords(variation);
    case 'colours': {
      const { colours, how } = variation;
      const count = colours.length === 1 ? 'one colour' : `${colours.length} colours`;
      return how === 'ramp' ? `from ${colours.join(' to ')}` : `${count} ${how === 'turns' ? 'by turns' : 'at random'}`;
    }
    case 'palette': {
      const { id, ramp, how } = variation;
      const which = ramp === undefined ? `“${nameOf(id)}”` : `“${ramp}” of “${nameOf(id)}”`;
      return how === 'ramp' ? `along ${which}` : `from ${which} ${how === 'turns' ? 'by turns' : 'at random'}`;
    }
    case 'data':
      return `from “${variation.column}”`;
  }
}

/** "each 2 px more", "from 2 px to 12 px": how a number differs from layer to layer. */
export function numberVariationWords(channel: ChannelId, variation: NumberVariation): string {
  const words = (value: number): string => formatChannelValue(channel, value);
  switch (variation.by) {
    case 'fixed':
      return words(variation.value);
    case 'step':
      return `each ${words(Math.abs(variation.step))} ${variation.step < 0 ? 'less' : 'more'}`;
    case 'ramp':
      return `from ${words(variation.from)} to ${words(variation.to)}`;
    case 'random':
      return `at random between ${words(variation.from)} and ${words(variation.to)}`;
    case 'data':
      return `from “${variation.column}”`;
  }
}

function numbersVaried({ parts, numbers = {} }: StyleRecipe): [ChannelId, NumberVariation][] {
  const among = new Set(numbersOf(parts));
  return (Object.entries(numbers) as [ChannelId, NumberVariation][]).filter(([channel]) => among.has(channel));
}

/** Parameters of the look that the recipe sets, in the look's own order. */
function parametersOf(recipe: StyleRecipe, shelf: SentenceFacts['shelf']) {
  return parametersFor(recipe, shelf).flatMap(({ name, label }) => {
    const setting = recipe.parameters?.[name];
    return setting ? [{ name, label, setting }] : [];
  });
}

/** The sentence of styling. */
export function styleParts(recipe: StyleRecipe, { count, scene, shelf }: SentenceFacts): SentencePart[] {
  const nameOf = (id: string): string => shelf.items.get(id)?.name ?? 'an item that is gone';
  const { from, parts, vary } = recipe;
  const source = from.by === 'layer' ? scene.layers.find(({ id }) => id === from.layer) : undefined;
  const like =
    from.by === 'own'
      ? 'their own look'
      : from.by === 'look'
        ? `the look “${nameOf(from.id)}”`
        : `“${source?.name ?? 'a layer'}”`;
  const varied = (Object.entries(vary) as [ColourPart, ColourVariation][]).filter(([part]) => parts.includes(part));
  return [
    field('operation', verbOf('style')),
    plain(' '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain(', '),
    field('order', orderWords(recipe.order)),
    plain(from.by === 'layer' ? ', like ' : from.by === 'look' ? ', with ' : ', from '),
    field('from', from.by === 'layer' && from.isLinked === true ? `${like}, following it` : like),
    plain(', in '),
    field('style-parts', listed(parts.map((part) => PARTS[part].label))),
    ...parametersOf(recipe, shelf).flatMap(({ name, label, setting }) => [
      plain(`, ${label.charAt(0).toLowerCase()}${label.slice(1)} `),
      field(`parameter:${name}`, variationWords(setting)),
    ]),
    ...varied.flatMap(([part, variation]) => [
      plain(`, ${PARTS[part].label} `),
      field(`vary:${part}`, colourVariationWords(variation, nameOf)),
    ]),
    ...numbersVaried(recipe).flatMap(([channel, variation]) => [
      plain(`, ${channelOf(channel).label} `),
      field(`vary:${channel}`, numberVariationWords(channel, variation)),
    ]),
    plain('.'),
  ];
}
