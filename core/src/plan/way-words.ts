import { channelOf } from '../channel';
import type { ArrangeWay, ClearRecipe, Edge, LineUpWay } from '../recipe';
import { momentWords } from './words';
import { readableTime } from './readable';

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
