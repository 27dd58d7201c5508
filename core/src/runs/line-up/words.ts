import { pickWords } from '../pick';
import type { Edge, LineUpRecipe, LineUpWay } from '../../scene/recipe';
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

function edgeWords(edge: Edge, side: 'in' | 'out'): string {
  switch (edge.by) {
    case 'time':
    case 'cue':
      return momentWords(edge);
    case 'scene':
      return side === 'in' ? 'the scene’s beginning' : 'the scene’s end';
    case 'latest':
      return side === 'in' ? 'the latest beginning' : 'the latest end';
    case 'earliest':
      return side === 'in' ? 'the earliest beginning' : 'the earliest end';
  }
}

/** "to end at 5:00": how layers are lined up. */
export function lineUpWords(way: LineUpWay): string {
  switch (way.by) {
    case 'begin':
      return `to begin at ${edgeWords(way.at, 'in')}`;
    case 'end':
      return `to end at ${edgeWords(way.at, 'out')}`;
    case 'butt':
      return `end to end, ${readableTime(way.gap)} between`;
    case 'relay':
      return `in relay, trimmed, overlapping by ${readableTime(way.overlap)}`;
    case 'length':
      return `to last ${readableTime(way.length)} each`;
    case 'slide':
      return `from ${momentWords(way.to)}, one every ${readableTime(way.gap)}`;
    case 'rows':
      return `in ${way.rows} rows from ${momentWords(way.from)}, ${readableTime(way.apart)} apart, each for ${readableTime(way.hold)}`;
  }
}

/** The sentence of lining up. */
export function lineUpParts(recipe: LineUpRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  const parts = recipe.parts === 'stretch' ? 'stretched' : recipe.squeeze ? 'kept or squeezed' : 'kept';
  return [
    field('operation', verbOf('line-up')),
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
