import type { Formula, Node } from './ast';
import {
  ANGLE,
  combine,
  FREQUENCY,
  isPlain,
  PLAIN,
  power,
  sameDimension,
  TIME,
  UNITS,
  type Dimension,
} from './dimension';
import { FUNCTIONS, type FormulaFunction } from './functions';
import type { FormulaProblem } from './problem';
import { CONSTANTS, numberOf, SWITCH, UNIT_CONSTANTS, type Scope, type ValueType } from './scope';
import {
  adopt,
  isZero,
  join,
  mendFor,
  report,
  textOf,
  UNKNOWN,
  type Coercion,
  type Context,
  type Found,
  type NumberType,
} from './units';

/** A formula whose units were checked: what each part gives, and what it reads. */
export interface Checked {
  readonly formula: Formula;
  readonly scope: Scope;
  readonly type: ValueType;
  /** Nodes whose plain number counts frames. */
  readonly coercions: ReadonlyMap<Node, Coercion>;
  /** Type of every node. */
  readonly types: ReadonlyMap<Node, ValueType>;
  /** Names and "@parameters" that the value depends on. */
  readonly reads: ReadonlySet<string>;
}

/** A checked formula, or everything that is wrong with it. */
export type CheckResult =
  | { readonly ok: true; readonly checked: Checked }
  | { readonly ok: false; readonly problems: readonly FormulaProblem[] };

function numberType(context: Context, node: Node, what: string): NumberType | null {
  const type = check(context, node);
  if (type === UNKNOWN || type.kind === 'number') return type;
  return report(context, { code: 'is-a-switch', what, span: node.span });
}

function switchType(context: Context, node: Node, what: string): Found {
  const type = check(context, node);
  if (type === UNKNOWN || type.kind === 'switch') return type;
  return report(context, { code: 'not-a-switch', what, span: node.span });
}

function plainType(context: Context, node: Node, what: string): NumberType | null {
  const type = numberType(context, node, what);
  if (type === null || isPlain(type.dimension)) return type;
  return report(context, { code: 'not-plain', what, found: type.dimension, span: node.span });
}

function checkQuantity(context: Context, node: Extract<Node, { type: 'quantity' }>): Found {
  if (!Object.hasOwn(UNITS, node.unit)) {
    const text = textOf(context, node.span);
    return report(context, { code: 'unknown-unit', text, unit: node.unit, span: node.span });
  }
  return numberOf(UNITS[node.unit].dimension, node.unit === 'f');
}

function checkName(context: Context, { name, span }: Extract<Node, { type: 'name' }>): Found {
  const known = context.lets.get(name) ?? context.scope.names.get(name);
  if (known) {
    context.reads.add(name);
    return known;
  }
  if (Object.hasOwn(CONSTANTS, name)) return CONSTANTS[name].type;
  const constants = Object.keys(CONSTANTS).filter((constant) => !UNIT_CONSTANTS.has(constant));
  const names = [...context.lets.keys(), ...context.scope.names.keys(), ...constants];
  return report(context, { code: 'unknown-name', name, known: names, span });
}

/** Why a curve cannot stand in a formula by itself. */
const CURVE_ELSEWHERE = 'is a curve. Read it with ease(@curve, share), or choose it as the easing between two moments';

function checkEase(context: Context, [curve, share]: readonly Node[]): Found {
  const isCurve = curve.type === 'parameter' && context.scope.parameters.get(curve.name)?.kind === 'curve';
  if (!isCurve) return report(context, { code: 'not-a-curve', span: curve.span });
  context.reads.add(`@${curve.name}`);
  return plainType(context, share, 'the share of ease') && numberOf(PLAIN);
}

/** follow and chase read a name at other times; what can be read so is for the scope to say. */
function checkPast(
  context: Context,
  { name, args }: Extract<Node, { type: 'call' }>,
  signature: 'follow' | 'chase',
): Found {
  const [source] = args;
  const isSource = source.type === 'name' && context.scope.past?.sources.has(source.name) === true;
  if (!isSource) return report(context, { code: 'not-a-source', name, span: source.span });
  const type = check(context, source);
  const wanted = signature === 'follow' ? [TIME] : [FREQUENCY, PLAIN];
  const found = wanted.map((dimension, i) => unitType(context, args[i + 1], dimension, name));
  return found.includes(null) ? UNKNOWN : type;
}

/** A value of one unit; a plain number counts frames where a time is wanted, and is taken as it is elsewhere. */
function unitType(context: Context, node: Node, dimension: Dimension, what: string): NumberType | null {
  const type = numberType(context, node, what);
  if (type === null || sameDimension(type.dimension, dimension)) return type;
  if (isPlain(type.dimension)) {
    adopt(context, node, dimension, true);
    return type;
  }
  const mend = mendFor(node, dimension);
  return report(context, { code: 'result-unit', expected: dimension, found: type.dimension, mend, span: node.span });
}

function checkParameter(context: Context, { name, span }: Extract<Node, { type: 'parameter' }>): Found {
  const known = context.scope.parameters.get(name);
  const why = known?.kind === 'curve' ? CURVE_ELSEWHERE : context.scope.unfit.get(name);
  if (why !== undefined) return report(context, { code: 'unfit-parameter', name, why, span });
  if (!known) {
    return report(context, { code: 'unknown-parameter', name, known: [...context.scope.parameters.keys()], span });
  }
  context.reads.add(`@${name}`);
  return known;
}

function checkPower(context: Context, node: Extract<Node, { type: 'binary' }>): Found {
  const base = numberType(context, node.left, 'a power');
  const exponent = plainType(context, node.right, 'an exponent');
  if (base === null || exponent === null) return UNKNOWN;
  if (isPlain(base.dimension)) return base;
  if (node.right.type === 'quantity' && Number.isInteger(node.right.value) && node.right.unit === '') {
    return numberOf(power(base.dimension, node.right.value));
  }
  return report(context, {
    code: 'not-plain',
    what: 'the base of a changing power',
    found: base.dimension,
    span: node.left.span,
  });
}

function checkBinary(context: Context, node: Extract<Node, { type: 'binary' }>): Found {
  const { operator, left, right } = node;
  switch (operator) {
    case '+':
    case '-':
    case 'mod': {
      const action = operator === '+' ? 'added' : operator === '-' ? 'subtracted' : 'divided with a remainder';
      const types = [numberType(context, left, 'this sum'), numberType(context, right, 'this sum')] as const;
      return join(context, [left, right], types, action);
    }
    case '×':
    case '÷': {
      const [a, b] = [numberType(context, left, 'this product'), numberType(context, right, 'this product')];
      if (a === null || b === null) return UNKNOWN;
      const dimension = combine(a.dimension, b.dimension, operator === '×' ? 1 : -1);
      return numberOf(dimension, (a.frames === true || b.frames === true) && sameDimension(dimension, TIME));
    }
    case '^':
      return checkPower(context, node);
    case 'and':
    case 'or':
      return switchType(context, left, operator) && switchType(context, right, operator) && SWITCH;
    default:
      return join(context, [left, right], [check(context, left), check(context, right)], 'compared') && SWITCH;
  }
}

function checkIf(context: Context, node: Extract<Node, { type: 'if' }>): Found {
  const condition = switchType(context, node.condition, 'what follows if');
  const branches = [check(context, node.then), check(context, node.otherwise)] as const;
  const joined = join(context, [node.then, node.otherwise], branches, 'chosen between');
  return condition && joined;
}

function countText({ least, most }: FormulaFunction): string {
  if (least === most) return least === 1 ? 'one value' : `${least} values`;
  return `${least} to ${most} values`;
}

function checkCall(context: Context, node: Extract<Node, { type: 'call' }>): Found {
  if (!Object.hasOwn(FUNCTIONS, node.name)) {
    const known = Object.keys(FUNCTIONS);
    return report(context, { code: 'unknown-function', name: node.name, known, span: node.nameSpan });
  }
  const definition = FUNCTIONS[node.name];
  const found = node.args.length;
  if (found < definition.least || found > definition.most) {
    const expected = countText(definition);
    return report(context, { code: 'argument-count', name: node.name, expected, found, span: node.span });
  }
  return checkSignature(context, node, definition);
}

function joinAll(context: Context, nodes: readonly Node[], action: string): NumberType | null {
  const types: Found[] = nodes.map((node) => numberType(context, node, 'this function'));
  let [joined] = types;
  for (let i = 1; i < nodes.length; i++) {
    joined = join(context, [nodes[i - 1], nodes[i]], [joined, types[i]], action);
  }
  if (joined === UNKNOWN || joined.kind !== 'number') return null;
  const whole = joined;
  nodes.forEach((node, i) => {
    const type = types[i] as NumberType;
    if (isPlain(type.dimension)) adopt(context, node, whole.dimension, whole.frames === true);
  });
  return whole;
}

function checkSignature(
  context: Context,
  call: Extract<Node, { type: 'call' }>,
  { signature }: FormulaFunction,
): Found {
  const { name, args } = call;
  const together = `used together in ${name}`;
  switch (signature) {
    case 'plain':
      return args.map((arg) => plainType(context, arg, name)).includes(null) ? UNKNOWN : numberOf(PLAIN);
    case 'from-angle': {
      const type = numberType(context, args[0], name);
      if (type === null) return UNKNOWN;
      if (sameDimension(type.dimension, ANGLE) || isPlain(type.dimension)) return numberOf(PLAIN);
      return report(context, { code: 'not-angle', what: name, found: type.dimension, span: args[0].span });
    }
    case 'to-angle':
      return plainType(context, args[0], name) && numberOf(ANGLE);
    case 'same':
      return joinAll(context, args, together);
    case 'sign':
      return numberType(context, args[0], name) && numberOf(PLAIN);
    case 'root': {
      const type = numberType(context, args[0], name);
      return type && numberOf(power(type.dimension, 0.5));
    }
    case 'mix': {
      const share = plainType(context, args[2], 'the share of mix');
      return joinAll(context, args.slice(0, 2), together) && share && check(context, args[0]);
    }
    case 'smooth':
      return joinAll(context, args, together) && numberOf(PLAIN);
    case 'ease':
      return checkEase(context, args);
    case 'follow':
    case 'chase':
      return checkPast(context, call, signature);
    case 'remap': {
      const from = joinAll(context, args.slice(0, 3), together);
      const to = joinAll(context, args.slice(3), together);
      return from && to;
    }
  }
}

function check(context: Context, node: Node): Found {
  const type = checkNode(context, node);
  if (type !== UNKNOWN) context.types.set(node, type);
  return type;
}

function checkNode(context: Context, node: Node): Found {
  switch (node.type) {
    case 'quantity':
      return checkQuantity(context, node);
    case 'name':
      return checkName(context, node);
    case 'parameter':
      return checkParameter(context, node);
    case 'unary':
      return node.operator === '-'
        ? numberType(context, node.operand, 'a minus sign')
        : switchType(context, node.operand, 'not');
    case 'binary':
      return checkBinary(context, node);
    case 'if':
      return checkIf(context, node);
    case 'call':
      return checkCall(context, node);
  }
}

function checkLets(context: Context, formula: Formula): void {
  for (const { name, span, value } of formula.lets) {
    const isConstant = Object.hasOwn(CONSTANTS, name) && !UNIT_CONSTANTS.has(name);
    const isTaken = context.lets.has(name) || context.scope.names.has(name) || isConstant;
    if (isTaken || Object.hasOwn(FUNCTIONS, name)) report(context, { code: 'name-taken', name, span });
    const type = check(context, value);
    context.lets.set(name, type ?? numberOf(PLAIN));
  }
}

/** The result must have the unit that its place needs; a plain number is taken in that unit, but a time needs one. */
function checkResult(context: Context, node: Node, found: ValueType, expected: ValueType): void {
  if (expected.kind !== 'number' || found.kind !== 'number') {
    if (expected.kind === found.kind) return;
    const code = expected.kind === 'switch' ? 'not-a-switch' : 'is-a-switch';
    report(context, { code, what: 'this place', span: node.span });
    return;
  }
  if (sameDimension(found.dimension, expected.dimension)) return;
  if (isPlain(found.dimension)) {
    if (!sameDimension(expected.dimension, TIME) || isZero(node)) return;
    report(context, { code: 'time-needs-unit', text: textOf(context, node.span), span: node.span });
    return;
  }
  const mend = mendFor(node, expected.dimension);
  report(context, {
    code: 'result-unit',
    expected: expected.dimension,
    found: found.dimension,
    mend,
    span: node.span,
  });
}

/** Checks names, functions and units before anything runs; `expected` is what the formula's place needs. */
export function checkFormula(formula: Formula, scope: Scope, expected: ValueType): CheckResult {
  const context: Context = {
    source: formula.source,
    scope,
    lets: new Map(),
    problems: [],
    coercions: new Map(),
    types: new Map(),
    reads: new Set(),
  };
  checkLets(context, formula);
  const type = check(context, formula.value);
  if (type !== UNKNOWN) checkResult(context, formula.value, type, expected);
  if (context.problems.length > 0 || type === UNKNOWN) return { ok: false, problems: context.problems };
  const { coercions, types, reads } = context;
  return { ok: true, checked: { formula, scope, type, coercions, types, reads } };
}
