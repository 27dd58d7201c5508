import { pickWords } from '../pick';
import type { ArrangeRecipe, ArrangeWay } from '../../scene/recipe';
import { field, orderWords, plain, verbOf, type SentenceFacts, type SentencePart } from '../sentence';

const ALIGNED = {
  left: 'left edges',
  centre: 'centres',
  right: 'right edges',
  top: 'top edges',
  middle: 'middles',
  bottom: 'bottom edges',
} as const;
const GOALS = { frame: 'the frame', outer: 'their outer box', first: 'the first' } as const;
const MATCHES = { width: 'wide', height: 'high', both: 'large' } as const;

/** "evenly across, between the outer two": how layers are arranged. */
export function arrangeWords(way: ArrangeWay): string {
  switch (way.by) {
    case 'spread':
      return `evenly ${way.axis}, ${way.between === 'outer' ? 'between the outer two' : `over the frame with ${way.margin} px of margin`}`;
    case 'butt':
      return `edge to edge ${way.axis}, ${way.gap} px between`;
    case 'grid':
      return `in a grid of ${way.columns} columns, ${way.gap} px between`;
    case 'circle':
      return `on a circle of ${way.radius} px around ${Math.round(way.x * 100)} %, ${Math.round(way.y * 100)} %${way.turned ? ', turned outward' : ''}`;
    case 'slots':
      return `in ${way.slots} slots ${way.axis}`;
    case 'align':
      return `with ${ALIGNED[way.edge]} on ${GOALS[way.to]}`;
    case 'size':
      return `as ${MATCHES[way.match]} as the ${way.of}`;
    case 'cover':
      return 'to cover the frame, however turned';
  }
}

/** The sentence of arranging. */
export function arrangeParts(recipe: ArrangeRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  return [
    field('operation', verbOf('arrange')),
    plain(' '),
    field('pick', pickWords(recipe.pick, count, scene)),
    plain(', '),
    field('order', orderWords(recipe.order)),
    plain(', '),
    field('way', arrangeWords(recipe.way)),
    plain('.'),
  ];
}
