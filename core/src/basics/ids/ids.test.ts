import { expect, test } from '@jest/globals';
import { countSchema, idSchema, nameSchema, whenSchema } from '.';

const fits = (schema: { safeParse: (value: unknown) => { success: boolean } }, value: unknown): boolean =>
  schema.safeParse(value).success;

test('ids are short and plain; names have something to read; dates are those of a calendar', () => {
  expect(['a', 'run-1_B', 'x'.repeat(64)].map((id) => fits(idSchema, id))).toEqual([true, true, true]);
  expect(['', 'a b', 'a/b', 'x'.repeat(65), 'é', '\u0000'].some((id) => fits(idSchema, id))).toBe(false);
  expect(nameSchema.parse('  Moon ')).toBe('Moon');
  expect(['', '   ', 'x'.repeat(201)].some((name) => fits(nameSchema, name))).toBe(false);
  expect([1, 2_147_483_647].every((count) => fits(countSchema, count))).toBe(true);
  expect([0, 1.5, 2_147_483_648].some((count) => fits(countSchema, count))).toBe(false);
  expect(fits(whenSchema, '2026-01-31T12:00:00.000Z')).toBe(true);
  expect(['2026-02-31T12:00:00Z', '0000-01-01T00:00:00Z', 'soon'].some((when) => fits(whenSchema, when))).toBe(false);
});
