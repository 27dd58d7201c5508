import type { Length, Order, OverExisting, PresetOperation, SceneMoment, Spacing, Start, Variation } from '../recipe';
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

export function degreeWords(degrees: number): string {
  return `${String(degrees).replace('-', '−')}°`;
}

/** "top to bottom", "row by row, snaking, 3 at a time". */
export function orderWords(order: Order): string {
  return order.blocks === undefined ? plainOrder(order) : `${plainOrder(order)}, ${order.blocks} at a time`;
}

export function momentWords(moment: SceneMoment): string {
  return moment.by === 'time' ? readableTime(moment.at) : `cue “${moment.cue}”`;
}

/** `solved` is the time that follows from the finish, where it is known. */
export function startWords(start: Start, operation: PresetOperation, solved: string | null): string {
  if (start.by === 'finish') return solved ?? 'what follows';
  if (start.by !== 'layer') return momentWords(start);
  return operation === 'send-out' ? 'each out point' : 'each in point';
}

/** What leads up to a spacing, and the spacing itself. */
export function spacingWords(spacing: Spacing, solved: string | null): readonly [string, string] {
  switch (spacing.by) {
    case 'gap':
      return [', one every ', readableTime(spacing.gap)];
    case 'total':
      return [spacing.curve ? ', along a curve all begun within ' : ', all begun within ', readableTime(spacing.total)];
    case 'relay':
      return [', in relay with a gap of ', readableTime(spacing.gap)];
    case 'cues':
      return [', one on ', spacing.wrap === true ? 'each cue, then again from the first' : 'each cue'];
    case 'rows':
      return [
        ', in ',
        `${spacing.rows} rows ${readableTime(spacing.apart)} apart, replaced after ${readableTime(spacing.hold)}${spacing.wrap === true ? ', then again from the first' : ''}`,
      ];
    case 'finish':
      return [', one every ', solved ?? 'what follows'];
  }
}

export function lengthWords(length: Length, solved: string | null): string {
  switch (length.by) {
    case 'preset':
      return 'the preset’s own length';
    case 'fixed':
      return readableTime(length.length);
    case 'factor':
      return `× ${length.factor}`;
    case 'fit':
      return `what fits into ${readableTime(length.window)}`;
    case 'speed':
      return `its way at ${length.speed} px/s`;
    case 'random':
      return `${readableTime(length.from)} to ${readableTime(length.to)} at random`;
    case 'finish':
      return solved ?? 'what follows';
  }
}

/** A literal for people: "−6deg" → "−6°", "20f" → "20 f"; a formula stays as it is. */
export function literalWords(text: string): string {
  return text
    .replace(/^-/, '−')
    .replace(/deg$/, '°')
    .replace(/(\d)(%|px|f|s|ms|Hz)$/, '$1 $2');
}

/** "−6°, +6° by turns". */
export function variationWords(variation: Variation): string {
  switch (variation.by) {
    case 'fixed':
      return literalWords(variation.value);
    case 'cycle':
      return `${variation.values.map(literalWords).join(', ')} by turns`;
    case 'ramp':
      return `${literalWords(variation.from)} to ${literalWords(variation.to)} along the order`;
    case 'random':
      return `${literalWords(variation.from)} to ${literalWords(variation.to)} at random`;
    case 'data':
      return `from “${variation.column}”`;
  }
}

/** The verb for keys that are there, and what follows it. */
export function existingWords(existing: OverExisting, operation: PresetOperation): readonly [string, string] {
  switch (existing) {
    case 'take-place':
      return ['take the place of', operation === 'send-out' ? ' any earlier exit' : ' any earlier entrance'];
    case 'replace':
      return ['replace', ' the keys it touches'];
    case 'replace-channels':
      return ['replace all', ' keys on its channels'];
    case 'add':
      return ['add to', ' the keys that are there'];
    case 'leave':
      return ['leave alone', ' layers that have keys'];
  }
}
