import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gradientNoise } from '../../basics/random';
import {
  arcTangent,
  clamped,
  cosine,
  exponential,
  logarithm,
  mixed,
  modulo,
  powerOf,
  remapped,
  rounded,
  signOf,
  sine,
  smoothed,
  tangent,
  type Build,
} from './maths';
import { prepareNative, type RunColumns } from './native';
import { prepareRow, ProgramWriter, type Program } from './program';

const ROWS = 700;
const BUILDS: readonly (readonly [string, number, Build])[] = [
  ['sine', 1, sine],
  ['cosine', 1, cosine],
  ['tangent', 1, tangent],
  ['exponential', 1, exponential],
  ['rounded', 1, rounded],
  ['sign', 1, signOf],
  ['modulo', 2, modulo],
  ['mix', 3, mixed],
  ['clamp', 3, clamped],
  ['smooth', 3, smoothed],
  ['remap', 5, remapped],
  ['noise', 2, (writer, x, seed) => writer.call(gradientNoise, x, seed)],
  ['two at once', 2, (writer, x, y) => writer.step('add', sine(writer, x), writer.step('absolute', sine(writer, y)))],
];

function programOf(args: number, build: Build): Program {
  const writer = new ProgramWriter();
  const inputs = Array.from({ length: args }, (_, place) => writer.input(place));
  const result = build(writer, ...inputs);
  return { values: writer.values, result };
}

/** What a program of one input gives. */
function functionOf(build: Build): (x: number) => number {
  const run = prepareRow(programOf(1, build));
  return (x) => run({ values: Float64Array.of(x), stride: 1 }, 0);
}

/** The bits of numbers; every NaN counts as one. */
function bits(values: Float64Array): string[] {
  return [...values].map((value) => (Object.is(value, -0) ? '-0' : String(value)));
}

const anything = fc.oneof(
  fc.double(),
  fc.double({ min: -1000, max: 1000, noNaN: true }),
  fc.integer({ min: -720, max: 720 }),
  fc.constantFrom(0, -0, 0.5, 1.5, -2.5, 90, -90, 1e300, Infinity, -Infinity, NaN),
);

describe('machine code', () => {
  test.each(BUILDS)('%s gives the same bits as the program row by row', (_name, args, build) => {
    const program = programOf(args, build);
    const native = prepareNative(program) as RunColumns;
    expect(native).not.toBeNull();
    const row = prepareRow(program);
    fc.assert(
      fc.property(fc.array(anything, { minLength: args * 40, maxLength: args * 40 }), (some) => {
        const values = Float64Array.from({ length: args * ROWS }, (_, i) => some[i % some.length] + (i % 7));
        const columns = { values, stride: ROWS };
        const [quick, slow] = [new Float64Array(ROWS), new Float64Array(ROWS)];
        // From the second row on, over the ends of blocks.
        native(columns, 1, ROWS - 1, quick);
        for (let i = 0; i < ROWS - 1; i++) slow[i] = row(columns, i + 1);
        expect(bits(quick)).toEqual(bits(slow));
      }),
      { numRuns: 30 },
    );
  });

  test.each(BUILDS)('%s gives the same where some inputs of a row are said not to change', (_name, args, build) => {
    const program = programOf(args, build);
    const any = prepareRow(program);
    fc.assert(
      fc.property(
        fc.array(anything, { minLength: args, maxLength: args }),
        fc.integer({ min: 0, max: 31 }),
        (some, mask) => {
          const columns = { values: Float64Array.from(some), stride: 1 };
          const places = new Set(some.map((_, place) => place).filter((place) => (mask >> place) % 2 === 1));
          const own = prepareRow(program, { columns, row: 0, places });
          for (let round = 0; round < 2; round++) {
            // What may change does.
            some.forEach((_, place) => {
              if (!places.has(place)) columns.values[place] += round;
            });
            expect(bits(Float64Array.of(own(columns, 0)))).toEqual(bits(Float64Array.of(any(columns, 0))));
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  test('a function is given nothing but the rows that are asked for, also where their number is odd', () => {
    const given: number[] = [];
    const program = programOf(1, (writer, x) => writer.call((row) => given.push(row), x));
    const columns = { values: Float64Array.from({ length: 600 }, (_, i) => i), stride: 600 };
    (prepareNative(program) as RunColumns)(columns, 5, 259, new Float64Array(259));
    expect(new Set(given)).toEqual(new Set(Array.from({ length: 259 }, (_, i) => i + 5)));
  });

  test('the same columns are read anew each time, and other ones, fewer or more, as they are', () => {
    const run = prepareNative(programOf(2, (writer, a, b) => writer.step('subtract', a, b))) as RunColumns;
    const out = new Float64Array(300);
    const columns = { values: new Float64Array(600).fill(1), stride: 300 };
    for (const value of [4, 9]) {
      columns.values.fill(value, 0, 300);
      run(columns, 0, 300, out);
      expect(new Set(out)).toEqual(new Set([value - 1]));
    }
    run({ values: Float64Array.of(1, 2, 3, 10, 20, 30), stride: 3 }, 1, 2, out);
    expect([...out.subarray(0, 3)]).toEqual([2 - 20, 3 - 30, 8]);
  });

  test('a constant alone, and more inputs than the memory began with', () => {
    const out = new Float64Array(20);
    const writer = new ProgramWriter();
    const result = writer.constant(7);
    (prepareNative({ values: writer.values, result }) as RunColumns)(
      { values: new Float64Array(0), stride: 0 },
      0,
      20,
      out,
    );
    expect([...out]).toEqual(new Array(20).fill(7));
    const many = 300;
    const sum = programOf(many, (w, ...all) => all.reduce((so, one) => w.step('add', so, one)));
    const values = Float64Array.from({ length: many * 20 }, (_, i) => Math.floor(i / 20));
    (prepareNative(sum) as RunColumns)({ values, stride: 20 }, 0, 20, out);
    expect(out[19]).toBe((many * (many - 1)) / 2);
  });
});

/** How far two numbers are apart, as a share of the greater one. */
function share(a: number, b: number): number {
  return a === b ? 0 : Math.abs(a - b) / Math.max(Math.abs(a), Math.abs(b));
}

/** Two units in the last place. */
const CLOSE = 2 ** -51;

// ECMA-262 asks engines for an approximation of these; V8's own, from fdlibm, is right to a unit in the last place.
describe('functions are those of mathematics to the last digits', () => {
  test('sine and cosine of degrees', () => {
    const [sin, cos] = [functionOf(sine), functionOf(cosine)];
    for (let degrees = -1000; degrees <= 1000; degrees += 0.37) {
      expect(Math.abs(sin(degrees) - Math.sin((degrees * Math.PI) / 180))).toBeLessThan(4e-15);
      expect(Math.abs(cos(degrees) - Math.cos((degrees * Math.PI) / 180))).toBeLessThan(4e-15);
      expect(sin(degrees) ** 2 + cos(degrees) ** 2).toBeCloseTo(1, 14);
    }
    expect([0, 90, 180, 270, 360, -90, 450].map((at) => sin(at) + 0)).toEqual([0, 1, 0, -1, 0, -1, 1]);
    expect([0, 90, 180, 270, 360].map((at) => Math.abs(cos(at)))).toEqual([1, 0, 1, 0, 1]);
    expect(sin(30)).toBeCloseTo(0.5, 15);
  });

  test('the exponential, from nothing to past the greatest number', () => {
    const exp = functionOf(exponential);
    for (let x = -700; x <= 700; x += 0.731) expect(share(exp(x), Math.exp(x))).toBeLessThan(CLOSE);
    expect(exp(0)).toBe(1);
    expect(exp(-800)).toBe(0);
    expect(exp(800)).toBe(Infinity);
    expect(exp(-Infinity)).toBe(0);
    expect(exp(NaN)).toBeNaN();
    expect(exp(-740)).toBeCloseTo(Math.exp(-740), 320);
  });

  test('the logarithm and the angle of a tangent', () => {
    for (let x = 1e-5; x < 1e6; x *= 1.37) {
      expect(Math.abs(logarithm(x) - Math.log(x))).toBeLessThan(4e-15);
      expect(share(arcTangent(x), (Math.atan(x) * 180) / Math.PI)).toBeLessThan(CLOSE);
      expect(arcTangent(-x)).toBe(-arcTangent(x));
    }
    expect([logarithm(1), logarithm(0), logarithm(-1), logarithm(Infinity)]).toEqual([0, -Infinity, NaN, Infinity]);
    expect(share(logarithm(1e-310), Math.log(1e-310))).toBeLessThan(CLOSE);
    expect([arcTangent(Infinity), arcTangent(0)]).toEqual([90, 0]);
  });

  test('powers: whole ones are products, others go by the logarithm', () => {
    expect([powerOf(2, 10, Math.exp), powerOf(-2, 3, Math.exp), powerOf(2, -2, Math.exp)]).toEqual([1024, -8, 0.25]);
    expect(powerOf(3, 0, Math.exp)).toBe(1);
    expect(powerOf(9, 0.5, Math.exp)).toBe(3);
    expect(powerOf(-8, 1 / 3, Math.exp)).toBeNaN();
    expect([0.3, -0.3, NaN].map((exponent) => powerOf(0, exponent, Math.exp))).toEqual([0, Infinity, NaN]);
    for (let x = 0.1; x < 50; x += 0.7) expect(share(powerOf(x, 1.7, Math.exp), x ** 1.7)).toBeLessThan(1e-13);
  });
});
