import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { buildParserFile } from '@lezer/generator';
import type { Node } from './ast';
import {
  compileFormula,
  createScope,
  describeFormulaProblem,
  DIMENSIONS,
  nameOfDimension,
  numberOf,
  MOST_CHARACTERS,
  parseFormula,
  SWITCH,
  type ValueType,
} from '.';

const { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME } = DIMENSIONS;
const FRAME = 1 / 25;

const scope = createScope(
  { rest: numberOf(LENGTH), place: numberOf(PLAIN), 'layer.length': numberOf(TIME, true) },
  {
    over: numberOf(PLAIN),
    lasts: numberOf(TIME, true),
    tilt: numberOf(ANGLE),
    pace: numberOf(FREQUENCY),
    fade: SWITCH,
  },
);
const INPUTS: Record<string, number> = {
  rest: 300,
  place: 3,
  'layer.length': 2,
  '@over': 0.2,
  '@lasts': 18 * FRAME,
  '@tilt': 6,
  '@pace': 2,
  '@fade': 1,
};

function inputs(): Float64Array {
  const list = new Float64Array(scope.size);
  list[0] = FRAME;
  for (const [name, value] of Object.entries(INPUTS)) list[scope.places.get(name) as number] = value;
  return list;
}

function valueOf(source: string, type: ValueType = numberOf(PLAIN)): number {
  const result = compileFormula(source, scope, type);
  if (!result.ok) throw new Error(result.problems.map(describeFormulaProblem).join(' '));
  return result.compiled.evaluate(inputs());
}

function problemsOf(source: string, type: ValueType = numberOf(PLAIN)) {
  const result = compileFormula(source, scope, type);
  return result.ok ? [] : result.problems;
}

const length = numberOf(LENGTH);
const time = numberOf(TIME, true);

test.each([
  ['(4px) ^ 1.5', 'not-plain'],
  ['(4px) ^ place', 'not-plain'],
  ['(4px) ^ 2px', 'not-plain'],
  ['4 ^ 1px', 'not-plain'],
])('%s is refused: only whole numbers that are written raise what has a unit', (source, code) => {
  expect(problemsOf(source, numberOf(LENGTH)).map((problem) => problem.code)).toContain(code);
});

describe('values', () => {
  test.each([
    ['rest × (1 + @over)', 360, length],
    ['rest * 1.5 / 3', 150, length],
    ['rest - 40px', 260, length],
    ['rest + 20', 320, length],
    ['-2 ^ 2', -4, numberOf(PLAIN)],
    ['2 ^ 3 ^ 2', 512, numberOf(PLAIN)],
    ['2 ^ -1', 0.5, numberOf(PLAIN)],
    ['(4px) ^ 2 / 8px', 2, length],
    ['(2s) ^ 3 / (1s) ^ 2', 8, time],
    ['7 mod 3', 1, numberOf(PLAIN)],
    ['-1 mod 3', 2, numberOf(PLAIN)],
    ['10 - 2 - 3', 5, numberOf(PLAIN)],
    ['sin(90deg)', 1, numberOf(PLAIN)],
    ['sin(pi / 2)', 1, numberOf(PLAIN)],
    ['cos(turn × @pace × 0.25s)', -1, numberOf(PLAIN)],
    ['atan(1)', 45, numberOf(ANGLE)],
    ['@lasts × 8 ÷ 18', 8 * FRAME, time],
    ['8f + 2', 10 * FRAME, time],
    ['2 + 8f', 10 * FRAME, time],
    ['0.5s + 250ms', 0.75, time],
    ['round(7.6f)', 8 * FRAME, time],
    ['round(7.3f + 0.3f)', 8 * FRAME, time],
    ['round(3.3f × 2)', 7 * FRAME, time],
    ['round(2 × 3.3f)', 7 * FRAME, time],
    ['ceil(7f ÷ 2)', 4 * FRAME, time],
    ['round(3f ÷ 2f)', 2, numberOf(PLAIN)],
    ['round(0.1s + 7.6f)', Math.round((0.1 + 7.6 * FRAME) / FRAME) * FRAME, time],
    ['floor(max(2.5f, 0.01s))', 2 * FRAME, time],
    ['min(@lasts, 5f)', 5 * FRAME, time],
    ['max(@lasts, 20)', 20 * FRAME, time],
    ['if @fade then 5f else 0', 5 * FRAME, time],
    ['if place > 2 and not (place = 4) then 1 else 0', 1, numberOf(PLAIN)],
    ['if (if place > 2 then place > 1 else place > 9) then 1 else 0', 1, numberOf(PLAIN)],
    ['clamp(5, 0, 3)', 3, numberOf(PLAIN)],
    ...['<', '≤', '=', '≠', '≥', '>'].flatMap((sign, i) =>
      // Of a lesser one, an equal one and a greater one, in the order of the signs.
      [
        [1, 1, 0, 1, 0, 0],
        [0, 1, 1, 0, 1, 0],
        [0, 0, 0, 1, 1, 1],
      ].map((row, left) => [`if ${left + 1} ${sign} 2 then 1 else 0`, row[i], numberOf(PLAIN)] as const),
    ),
    ['mix(0px, 10px, 30%)', 3, length],
    ['smooth(0, 2, 1)', 0.5, numberOf(PLAIN)],
    ['remap(5, 0, 10, 0px, 200px)', 100, length],
    ['sqrt(rest × rest)', 300, length],
    ['let a = 20px\nlet b = a × 2\nrest + b', 340, length],
    ['let a = 5; -a + 1', -4, numberOf(PLAIN)],
    ['(1 +\n  2) × 3 # three times three', 9, numberOf(PLAIN)],
  ])('%s is %d', (source, expected, type) => {
    expect(valueOf(source, type)).toBeCloseTo(expected, 9);
  });

  test('random and noise are the same for the same seed and stay in range', () => {
    expect(valueOf('random(4)')).toBe(valueOf('random(4)'));
    expect(valueOf('random(4)')).not.toBe(valueOf('random(5)'));
    for (let x = 0; x < 20; x += 0.37) expect(Math.abs(valueOf(`noise(${x}, 7)`))).toBeLessThanOrEqual(1);
    expect(valueOf('noise(3, 7)')).toBe(0);
  });
});

describe('problems', () => {
  test.each([
    ['20px + 6deg', 'A length and an angle cannot be added. Did you mean 6px?', [7, 11]],
    ['rest + 20%', 'cannot be added', [7, 10]],
    ['foo × 2', 'Nothing here is called foo.', [0, 3]],
    ['@ovr', 'There is no parameter @ovr. Did you mean @over?', [0, 4]],
    ['sqr(2)', 'There is no function sqr. Did you mean sqrt?', [0, 3]],
    ['20pt', '“pt” in 20pt is not a unit.', [0, 4]],
    ['mix(1, 2)', 'mix takes 3 values, and here it got 2.', [0, 9]],
    ['exp(rest)', 'Exp needs a plain number, and this is a length.', [4, 8]],
    ['sin(rest)', 'Sin needs an angle', [4, 8]],
    ['1 +', 'The formula stops too early.', [3, 3]],
    ['12 34', '“34” does not fit here.', [3, 5]],
    ['@fade + 1', 'needs a number, and this is yes or no', [0, 5]],
    ['if 1 then 2 else 3', 'needs yes or no', [3, 4]],
    ['if place > 1 then place > 2 else 3', 'yes or no', [18, 27]],
    ['', 'There is no formula here.', [0, 0]],
    ['let rest = 3\nrest', 'rest has a meaning already.', [4, 8]],
    ['1 = 1', 'needs a number', [0, 5]],
  ])('%s is refused: %s', (source, sentence, [from, to]) => {
    const [problem] = problemsOf(source);
    expect(describeFormulaProblem(problem)).toContain(sentence);
    expect(problem.span).toEqual({ from, to });
  });

  test('a time needs a unit, and both ways to mend it are named', () => {
    expect(describeFormulaProblem(problemsOf('12', time)[0])).toBe(
      '12 needs a unit here. Write 12f for frames or 12s for seconds.',
    );
    expect(problemsOf('0', time)).toEqual([]);
  });

  test('a result of another unit names both and mends a literal', () => {
    expect(describeFormulaProblem(problemsOf('20px', numberOf(ANGLE))[0])).toBe(
      'This gives a length, and an angle is needed. Did you mean 20deg?',
    );
    expect(describeFormulaProblem(problemsOf('20px')[0])).toContain('Did you mean 20%?');
  });

  test('several problems are all told, each once', () => {
    expect(problemsOf('foo + bar')).toHaveLength(2);
    expect(problemsOf('foo + 1px + 1px', length)).toHaveLength(1);
  });

  test('a formula reads only what it names', () => {
    const result = compileFormula('rest × @over', scope, length);
    expect(result.ok && [...result.compiled.reads].sort()).toEqual(['@over', 'rest']);
    expect(problemsOf('constructor')).toHaveLength(1);
    expect(problemsOf('toString(1)')).toHaveLength(1);
  });

  test('whatever the text, it is read or refused and never throws', () => {
    const scraps = fc.constantFrom(
      'let',
      'a',
      '=',
      '1',
      '2px',
      '+',
      '(',
      ')',
      '\n',
      'if',
      'then',
      'else',
      '@over',
      'sin',
      ',',
      '÷',
      '#',
      '"',
      'é',
    );
    const soup = fc.array(scraps).map((parts) => parts.join(' '));
    fc.assert(
      fc.property(fc.oneof(fc.string(), soup), (source) => {
        const result = compileFormula(source, scope, length);
        if (!result.ok) for (const problem of result.problems) expect(describeFormulaProblem(problem)).not.toBe('');
      }),
      { numRuns: 500 },
    );
    expect(problemsOf('('.repeat(3000))[0].code).toBe('too-long');
    expect(parseFormula('('.repeat(1000)).ok).toBe(false);
    const full = '1'.padEnd(MOST_CHARACTERS, ' ');
    expect([parseFormula(full).ok, parseFormula(`${full} `).ok]).toEqual([true, false]);
  });
});

/** Functions as the engine has them, whose last digits may differ from ours. */
const FUNCTIONS_BY_HAND: Readonly<Record<string, (...values: number[]) => number>> = {
  max: Math.max,
  min: Math.min,
  abs: Math.abs,
  sin: Math.sin,
  cos: Math.cos,
  atan: (x) => (Math.atan(x) * 180) / Math.PI,
  exp: Math.exp,
  sqrt: (x) => Math.sqrt(x),
  floor: Math.floor,
  round: Math.round,
  clamp: (x, low, high) => Math.min(high, Math.max(low, x)),
  mix: (a, b, u) => a + (b - a) * u,
  remap: (x, a, b, c, d) => (a === b ? c : c + ((x - a) / (b - a)) * (d - c)),
};

/** A slow interpreter of plain numbers, to compare the compiler with. */
function interpret(node: Node): number {
  switch (node.type) {
    case 'quantity':
      return node.unit === '%' ? node.value / 100 : node.value;
    case 'unary':
      return node.operator === '-' ? -interpret(node.operand) : Number(interpret(node.operand) === 0);
    case 'binary': {
      const [a, b] = [interpret(node.left), interpret(node.right)];
      if (node.operator === '+') return a + b;
      if (node.operator === '-') return a - b;
      if (node.operator === '×') return a * b;
      if (node.operator === '<') return Number(a < b);
      if (node.operator === '≥') return Number(a >= b);
      if (node.operator === 'and') return Number(a !== 0 && b !== 0);
      if (node.operator === 'mod') return a - b * Math.floor(a / b);
      return node.operator === '÷' ? a / b : a ** b;
    }
    case 'if':
      return interpret(node.condition) !== 0 ? interpret(node.then) : interpret(node.otherwise);
    case 'call':
      return FUNCTIONS_BY_HAND[node.name](...node.args.map(interpret));
    default:
      throw new Error(node.type);
  }
}

const { tree } = fc.letrec<{ tree: string }>((tie) => ({
  tree: fc.oneof(
    { maxDepth: 5 },
    fc.nat(99).map(String),
    fc.nat(99).map((n) => `${n}%`),
    fc.tuple(tie('tree'), fc.constantFrom('+', '-', '×', '÷'), tie('tree')).map(([a, op, b]) => `(${a} ${op} ${b})`),
    fc.tuple(tie('tree'), fc.constantFrom('+', '-', '×', '÷'), tie('tree')).map(([a, op, b]) => `${a} ${op} ${b}`),
    tie('tree').map((a) => `-(${a})`),
    fc.tuple(tie('tree'), tie('tree')).map(([a, b]) => `max(${a}, ${b})`),
  ),
}));

test('a compiled formula agrees with a slow interpreter on random trees', () => {
  fc.assert(
    fc.property(tree, (source) => {
      fc.pre(source.length < 1800);
      const parsed = parseFormula(source);
      if (!parsed.ok) throw new Error(source);
      expect(valueOf(source)).toEqual(interpret(parsed.formula.value));
      // JavaScript has the same rules of precedence for these signs (ECMA-262).
      const plain = source
        .replace(/×/g, '*')
        .replace(/÷/g, '/')
        .replace(/(\d+)%/g, '($1/100)')
        .replace(/max/g, 'Math.max')
        .replace(/-\(/g, ' -(');
      const wanted = Number(new Function(`return ${plain}`)());
      if (Number.isFinite(wanted)) expect(valueOf(source)).toBeCloseTo(wanted, 6);
      else expect(valueOf(source)).toBe(wanted);
    }),
    { numRuns: 200 },
  );
});

const { whole } = fc.letrec<{ whole: string; yes: string }>((tie) => ({
  whole: fc.oneof(
    { maxDepth: 6 },
    fc.nat(99).map(String),
    fc.nat(99).map((n) => `${n}%`),
    fc
      .tuple(tie('whole'), fc.constantFrom('+', '-', '×', '÷', 'mod'), tie('whole'))
      .map((parts) => `(${parts.join(' ')})`),
    fc
      .tuple(fc.constantFrom('abs', 'sin', 'cos', 'exp', 'floor', 'round'), tie('whole'))
      .map(([name, a]) => (/sin|cos/.test(name) ? `${name}(max(-50, min(50, ${a})))` : `${name}(${a})`)),
    fc.tuple(fc.constantFrom('max', 'min'), tie('whole'), tie('whole')).map(([name, a, b]) => `${name}(${a}, ${b})`),
    fc.tuple(tie('whole'), tie('whole'), tie('whole')).map((args) => `mix(${args.join(', ')})`),
    fc.tuple(tie('whole'), tie('whole')).map(([a, b]) => `sqrt(abs(${a} - ${b}))`),
    fc.tuple(tie('yes'), tie('whole'), tie('whole')).map(([if_, a, b]) => `(if ${if_} then ${a} else ${b})`),
  ),
  yes: fc.oneof(
    { maxDepth: 2 },
    fc.tuple(tie('whole'), fc.constantFrom('<', '≥'), tie('whole')).map((parts) => parts.join(' ')),
    fc.tuple(tie('yes'), tie('yes')).map(([a, b]) => `(${a}) and not (${b})`),
  ),
}));

/** Where a value stands at a jump, the last digit decides; so near to one nothing can be said. */
function isSteady(source: string): boolean {
  return !/floor|round|mod|if/.test(source);
}

test('functions, choices and remainders agree with the interpreter too, on two thousand random formulas', () => {
  let compared = 0;
  fc.assert(
    fc.property(whole, (source) => {
      fc.pre(source.length < 1800);
      const parsed = parseFormula(source);
      if (!parsed.ok) throw new Error(source);
      const [found, wanted] = [valueOf(source), interpret(parsed.formula.value)];
      if (!Number.isFinite(wanted) || Math.abs(wanted) > 1e9) return;
      if (isSteady(source)) expect(Math.abs(found - wanted)).toBeLessThanOrEqual(1e-6 * Math.max(1, Math.abs(wanted)));
      if (Math.abs(found - wanted) <= 1e-6 * Math.max(1, Math.abs(wanted))) compared++;
    }),
    { numRuns: 2_000 },
  );
  expect(compared).toBeGreaterThan(1_500);
});

test('the generated parser is that of the grammar', () => {
  const folder = join(__dirname, 'grammar');
  const { parser } = buildParserFile(readFileSync(join(folder, 'formula.grammar'), 'utf8'), {
    typeScript: true,
    fileName: 'formula.grammar',
  });
  const states = (text: string): string | undefined => /states: ("[^\n]*")/.exec(text)?.[1];
  expect(states(parser)).toBe(states(readFileSync(join(folder, 'parser.generated.ts'), 'utf8')));
});

test.each([
  [[0, 0, 0], 'a plain number'],
  [[1, -1, 0], 'a speed'],
  [[2, 0, 0], 'an area'],
  [[1, 0, 1], 'a value in px·deg'],
  [[2, -1, 0], 'a value in px²·s⁻¹'],
  [[0, 0, -12], 'a value in deg⁻¹²'],
  [[0.5, 0, 0], 'a value in px^0.5'],
] as const)('the dimension %j is called %s', (dimension, name) => {
  expect(nameOfDimension(dimension)).toBe(name);
});

test('rows from the middle of columns are worked out alone, in their order', () => {
  const result = compileFormula('rest + 1px × place', scope, length);
  if (!result.ok) throw new Error('It does not compile.');
  const stride = 6;
  const values = new Float64Array(scope.size * stride);
  for (let row = 0; row < stride; row++) {
    values[(scope.places.get('rest') as number) * stride + row] = 100 * row;
    values[(scope.places.get('place') as number) * stride + row] = row;
  }
  const out = new Float64Array(4).fill(-1);
  result.compiled.run({ values, stride }, 2, 3, out);
  expect([...out]).toEqual([202, 303, 404, -1]);
});
