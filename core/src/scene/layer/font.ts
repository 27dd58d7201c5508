import * as z from '../../basics/schema';

/** Font families that ship with the application. */
export const FONTS = ['Bricolage Grotesque', 'Spline Sans', 'Spline Sans Mono'] as const;

/** Name of a font family: one that ships with the application, or one's own. */
export const fontNameSchema = z
  .string()
  .trim()
  .min(1)
  .max(100)
  .regex(/^[^"'\\;{}<>]+$/, 'A font’s name has no quotes, brackets, backslashes or semicolons.');
