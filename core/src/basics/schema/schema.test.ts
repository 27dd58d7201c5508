import { describe, expect, jest, test } from '@jest/globals';
import * as zod from 'zod';
import * as z from './index';

/** How often zod made a schema while something was done, with every module read anew. */
async function madeWhile(work: (core: typeof import('../../index')) => unknown): Promise<number> {
  let count = 0;
  const counted = (name: string, value: unknown): unknown =>
    typeof value !== 'function' || !/^[a-z]/.test(name) || name === 'config'
      ? value
      : (...given: readonly unknown[]) => (count++, (value as (...all: readonly unknown[]) => unknown)(...given));
  await jest.isolateModulesAsync(async () => {
    jest.doMock('zod', () => {
      const { iso, ...own } = jest.requireActual<typeof zod>('zod');
      const counting = Object.entries(own).map(([name, value]) => [name, counted(name, value)]);
      return { ...Object.fromEntries(counting), iso: { datetime: counted('datetime', iso.datetime) } };
    });
    work(await import('../../index'));
  });
  jest.dontMock('zod');
  return count;
}

describe('schemas', () => {
  test('none is made while the core is loaded, and one makes what it is made of alone', async () => {
    expect(await madeWhile(() => undefined)).toBe(0);
    const ofRate = await madeWhile(({ rateSchema }) => rateSchema.safeParse({ num: 25, den: 1 }));
    expect(ofRate).toBeGreaterThan(0);
    expect(ofRate).toBeLessThan(8);
    expect(await madeWhile(({ sceneSchema }) => sceneSchema.safeParse({}))).toBeGreaterThan(500);
  });

  test('they are made once, however often they are used', () => {
    const make = jest.fn(() => true);
    const kept = z.string().refine(make);
    expect(kept.safeParse('a').success).toBe(true);
    expect(z.schemaItself(kept)).toBe(z.schemaItself(kept));
    expect(z.schemaItself(z.array(kept)).element).toBe(z.schemaItself(kept));
  });

  test('what is made of plain values is, of nothing at all, too', () => {
    const [one, none] = [z.literal('one'), z.literal(null)];
    expect([one.safeParse('one').success, one.safeParse(null).success]).toEqual([true, false]);
    expect([none.safeParse(null).success, none.safeParse('one').success]).toEqual([true, false]);
  });

  test('they take and refuse what those of zod do, with the same words', () => {
    const build = (from: Pick<typeof zod, 'strictObject' | 'literal' | 'array' | 'int' | 'string'>) =>
      from.strictObject({
        kind: from.literal('a'),
        names: from.array(from.string().trim().min(2)).max(2).optional(),
        count: from.int().min(1, 'At least one.').nullable(),
      });
    const [own, plain] = [build(z), build(zod)];
    for (const data of [
      { kind: 'a', count: 1 },
      { kind: 'a', count: null, names: [' ab '] },
      { kind: 'b', count: 0, names: ['a', 'b', 'c'], more: 1 },
      null,
    ])
      expect(JSON.stringify(own.safeParse(data))).toBe(JSON.stringify(plain.safeParse(data)));
  });

  test('zod takes them as its own, and they can be told from others', () => {
    const whole = zod.union([z.strictObject({ at: z.number().gt(0) }), zod.null()]);
    expect(whole.safeParse({ at: 1 }).success).toBe(true);
    expect(whole.safeParse({ at: 0 }).success).toBe(false);
    const one = z.string();
    expect(one instanceof zod.ZodString).toBe(true);
    expect(one instanceof zod.ZodNumber).toBe(false);
    expect('_zod' in one).toBe(true);
  });
});
