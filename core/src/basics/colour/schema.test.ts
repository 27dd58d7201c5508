import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import * as z from 'zod';
import { cssColourSchema, oklabFromCss } from '.';

const schema = cssColourSchema(z.string().max(40));
const digits = fc.string({ unit: fc.constantFrom(...'0123456789abcdefABCDEFg'), minLength: 1, maxLength: 10 });

describe('text that is a colour', () => {
  test('as a hexadecimal number is what can be read as one, of every length and with every digit', () => {
    fc.assert(
      fc.property(digits, (text) => {
        expect(schema.safeParse(`#${text}`).success).toBe(oklabFromCss(`#${text}`) !== null);
      }),
    );
  });

  test.each(['rebeccapurple', 'oklch(0.7 0.1 200)', ' #f3c98b ', 'rgb(10% 20% 30% / 0.5)', '#1234'])(
    'is %s',
    (text) => {
      expect(schema.safeParse(text)).toMatchObject({ success: true, data: text });
    },
  );

  test.each(['', '#', '#12345', 'red; }', 'url(x)', 'no colour'])('is not “%s”', (text) => {
    expect(schema.safeParse(text).error?.issues[0].message).toBe('This is not a CSS colour, such as #f3c98b.');
  });

  test('keeps to the limits of its text', () => {
    expect(schema.safeParse(`rgb(${' '.repeat(40)}1 2 3)`).success).toBe(false);
  });
});
