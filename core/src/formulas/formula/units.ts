import type { Node, Span } from './ast';
import { isPlain, sameDimension, TIME, unitFor, type Dimension } from './dimension';
import type { FormulaProblem } from './problem';
import { numberOf, type Scope, type ValueType } from './scope';

/** How many base units a plain number stands for at a node: 1, or one frame where it joins a time in frames. */
export type Coercion = 'frames';

/** Numbers of some unit. */
export type NumberType = Extract<ValueType, { kind: 'number' }>;

/** What is gathered while a formula is checked. */
export interface Context {
  readonly source: string;
  readonly scope: Scope;
  readonly lets: Map<string, ValueType>;
  readonly problems: FormulaProblem[];
  readonly coercions: Map<Node, Coercion>;
  readonly types: Map<Node, ValueType>;
  readonly reads: Set<string>;
}

/** Type given to a part that is already reported, so that one fault is told once. */
export const UNKNOWN = null;
/** The type of a part; unknown where it is already reported. */
export type Found = ValueType | typeof UNKNOWN;

/** The text of a part. */
export function textOf(context: Context, span: Span): string {
  return context.source.slice(span.from, span.to);
}

/** Notes what is wrong. */
export function report(context: Context, problem: FormulaProblem): typeof UNKNOWN {
  context.problems.push(problem);
  return UNKNOWN;
}

/** "Did you mean 20%": the literal among two sides rewritten in the unit of the other. */
export function mendFor(node: Node, wanted: Dimension): string | null {
  if (node.type !== 'quantity') return null;
  if (isPlain(wanted)) return `${node.value}%`;
  const unit = unitFor(wanted);
  return unit === null ? null : `${node.value}${unit}`;
}

/** A plain number takes the unit of what it is joined with; of a time without a stated unit that is frames. */
export function adopt(context: Context, node: Node, dimension: Dimension, frames: boolean): void {
  if (sameDimension(dimension, TIME) && frames) context.coercions.set(node, 'frames');
}

/** True for nought in whatever unit, which fits every other. */
export function isZero(node: Node): boolean {
  return node.type === 'quantity' && node.value === 0;
}

/** One unit for two parts that are added, compared or chosen between. */
export function join(
  context: Context,
  nodes: readonly [Node, Node],
  types: readonly [Found, Found],
  action: string,
): Found {
  const [left, right] = types;
  if (left === UNKNOWN || right === UNKNOWN) return UNKNOWN;
  if (left.kind !== 'number' || right.kind !== 'number') {
    if (left.kind === right.kind) return left;
    const wrong = left.kind === 'number' ? 1 : 0;
    return report(context, { code: 'is-a-switch', what: 'this place', span: nodes[wrong].span });
  }
  if (sameDimension(left.dimension, right.dimension)) {
    return numberOf(left.dimension, left.frames === true || right.frames === true);
  }
  return joinDifferent(context, nodes, [left, right], action);
}

function joinDifferent(
  context: Context,
  nodes: readonly [Node, Node],
  [left, right]: readonly [NumberType, NumberType],
  action: string,
): Found {
  const plainSide = isPlain(left.dimension) ? 0 : isPlain(right.dimension) ? 1 : null;
  if (plainSide !== null) {
    const other = plainSide === 0 ? right : left;
    const node = nodes[plainSide];
    const isPercent = node.type === 'quantity' && node.unit === '%';
    if (!isPercent || isZero(node)) {
      adopt(context, node, other.dimension, other.frames === true);
      return other;
    }
  }
  const mend = mendFor(nodes[1], left.dimension) ?? mendFor(nodes[0], right.dimension);
  const span = nodes[1].type === 'quantity' || nodes[0].type !== 'quantity' ? nodes[1].span : nodes[0].span;
  return report(context, {
    code: 'unit-mismatch',
    action,
    left: left.dimension,
    right: right.dimension,
    mend,
    span,
  });
}
