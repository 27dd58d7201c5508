import { describe, expect, test } from '@jest/globals';
import * as z from 'zod';
import { dataProblems } from '.';

function said(schema: z.ZodType, data: unknown): string {
  const { error } = schema.safeParse(data);
  return error ? dataProblems(error)[0].message : 'fine';
}

describe('what is wrong with data, for people', () => {
  test.each<[z.ZodType, unknown, string]>([
    [z.string(), 4, 'There must be a text here, and there is a number.'],
    [z.string(), NaN, 'There must be a text here, and there is a number that is not finite.'],
    [z.string(), null, 'There must be a text here, and there is null.'],
    [z.number(), [], 'There must be a number here, and there is a list.'],
    [z.number(), 'x', 'There must be a number here, and there is a text.'],
    [z.number(), NaN, 'There must be a number here, and there is a number that is not finite.'],
    [z.array(z.string()), {}, 'There must be a list here, and there is an object.'],
    [z.tuple([z.string()]), 'x', 'There must be a list here, and there is a text.'],
    [z.object({}), true, 'There must be an object here, and there is true or false.'],
    [z.record(z.string(), z.number()), 'x', 'There must be an object here, and there is a text.'],
    [z.boolean(), 1, 'There must be true or false here, and there is a number.'],
    [z.int(), 1.5, 'There must be a whole number here, and there is a number.'],
    [z.null(), () => 1, 'There must be null here, and there is something else.'],
    [z.number(), undefined, 'This is missing: a number is needed here.'],
    [z.string().max(3), 'long', 'At most 3 characters are possible here.'],
    [z.string().min(3), 'x', 'At least 3 characters are needed here.'],
    [z.array(z.string()).max(1), ['a', 'b'], 'At most one entry is possible here.'],
    [z.array(z.string()).min(1), [], 'At least one entry is needed here.'],
    [z.number().max(3), 4, 'It must be at most 3.'],
    [z.number().min(3), 2, 'It must be at least 3.'],
    [z.literal('a'), 'b', 'It must be “a”.'],
    [z.enum(['a', 'b']), 'c', 'It must be one of “a”, “b”.'],
    [
      z.enum(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h']),
      'x',
      'It must be one of “a”, “b”, “c”, “d”, “e”, “f” and 2 more.',
    ],
    [z.strictObject({}), { odd: 1 }, '“odd” is not known here. Take it out.'],
    [z.strictObject({}), { odd: 1, even: 2 }, '“odd”, “even” are not known here. Take them out.'],
    [z.iso.datetime(), 'today', 'This is not a date and time, such as 2026-01-31T12:00:00Z.'],
    [z.string().regex(/^a/), 'b', 'This is not written as it must be.'],
    [z.number().multipleOf(5), 4, 'It must be a multiple of 5.'],
    [z.record(z.string().regex(/^a/), z.number()), { b: 1 }, 'A name here is not one that is possible.'],
    [z.union([z.string(), z.number()]), true, 'This is none of the forms that are possible here.'],
    [z.string().refine((text) => text !== 'x'), 'x', 'This is none of the forms that are possible here.'],
    [z.string().max(3, 'Too long for us.'), 'long', 'Too long for us.'],
  ])('%#', (schema, data, sentence) => {
    expect(said(schema, data)).toContain(sentence);
  });

  test('says where, of the form that it comes closest to, and stops after a few', () => {
    const forms = z.union([
      z.object({ by: z.literal('a'), of: z.string() }),
      z.object({ by: z.literal('b'), inside: z.object({ deep: z.number() }) }),
    ]);
    const problems = (schema: z.ZodType, data: unknown, most?: number) => {
      const { error } = schema.safeParse(data);
      return error ? dataProblems(error, most) : [];
    };
    expect(problems(z.object({ one: forms }), { one: { by: 'b', inside: { deep: 'x' } } })).toEqual([
      { path: 'one.inside.deep', message: 'There must be a number here, and there is a text.' },
    ]);
    expect(problems(forms, 4)).toEqual([
      { path: 'file', message: 'This is none of the forms that are possible here.' },
    ]);
    const many = z.array(z.number());
    expect(problems(many, ['a', 'b', 'c', 'd', 'e', 'f', 'g']).map(({ path }) => path)).toEqual([
      '0',
      '1',
      '2',
      '3',
      '4',
    ]);
    expect(problems(many, ['a', 'b', 'c'], 2)).toHaveLength(2);
    const [{ path }] = problems(z.object({ ['x'.repeat(300)]: z.number() }), {});
    expect(path).toHaveLength(200);
  });
});
