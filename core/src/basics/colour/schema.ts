import type * as z from '../schema';
import { oklabFromCss } from './oklab';

/** What most colours are written as, and what needs no reading to be one. */
const HEXADECIMAL = /^#(?:[0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i;

/** Text, within limits of its own, that is a CSS colour. */
export function cssColourSchema(text: z.ZodString): z.ZodString {
  return text.refine((written) => HEXADECIMAL.test(written) || oklabFromCss(written) !== null, {
    error: 'This is not a CSS colour, such as #f3c98b.',
  });
}
