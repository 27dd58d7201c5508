import type { Order, SceneMoment } from '../../scene/recipe';
import { readableTime } from './readable';

function directed(order: Order, forward: string, backward: string): string {
  return order.reversed === true ? backward : forward;
}

function pointWords(x: number, y: number): string {
  return x === 0.5 && y === 0.5 ? 'the middle' : `${Math.round(x * 100)} %, ${Math.round(y * 100)} %`;
}

function plainOrder(order: Order): string {
  switch (order.by) {
    case 'layered':
      return directed(order, 'back to front', 'front to back');
    case 'name':
      return directed(order, 'by name', 'by name, last first');
    case 'across':
      return directed(order, 'left to right', 'right to left');
    case 'down':
      return directed(order, 'top to bottom', 'bottom to top');
    case 'angle':
      return directed(order, `along ${degreeWords(order.degrees)}`, `against ${degreeWords(order.degrees)}`);
    case 'out-from':
      return directed(order, `out from ${pointWords(order.x, order.y)}`, `in to ${pointWords(order.x, order.y)}`);
    case 'grid': {
      const way = `${order.lead === 'rows' ? 'row by row' : 'column by column'}${order.snaking === true ? ', snaking' : ''}`;
      return directed(order, way, `${way}, backwards`);
    }
    case 'in-point':
      return directed(order, 'by in point', 'by in point, latest first');
    case 'shuffled':
      return directed(order, `shuffled (${order.seed})`, `shuffled backwards (${order.seed})`);
    case 'data':
      return directed(order, `by “${order.column}”`, `by “${order.column}”, last first`);
    case 'hand':
      return directed(order, 'in an order set by hand', 'against an order set by hand');
  }
}

/** "−6°": an angle with a true minus. */
export function degreeWords(degrees: number): string {
  return `${String(degrees).replace('-', '−')}°`;
}

/** "top to bottom", "row by row, snaking, 3 at a time". */
export function orderWords(order: Order): string {
  return order.blocks === undefined ? plainOrder(order) : `${plainOrder(order)}, ${order.blocks} at a time`;
}

/** "1:15", "cue “Beat”": a time of the scene. */
export function momentWords(moment: SceneMoment): string {
  return moment.by === 'time' ? readableTime(moment.at) : `cue “${moment.cue}”`;
}
