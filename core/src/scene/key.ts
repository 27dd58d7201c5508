import * as z from 'zod';
import { easingSchema } from '../easing';
import { ticksSchema } from '../time';

/** Numbers of revisions and versions, which the database keeps in four bytes. */
export const countSchema = z.int().min(1).max(2_147_483_647);

/** A date and time in UTC (ISO 8601) that calendars know: of the years 1 to 9999. */
export const whenSchema = z.iso
  .datetime()
  .refine((text) => !text.startsWith('0000') && Number.isFinite(Date.parse(text)), {
    error: 'This is not a date and time, such as 2026-01-31T12:00:00Z.',
  });

export const idSchema = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/, 'An id is 1 to 64 letters, digits, hyphens or underscores.');

/** Which run made a key, and from which row and moment of its preset. */
const originSchema = z.strictObject({ run: idSchema, slot: z.string().min(1).max(200) });

/** A value of one channel at one scene time, with the easing to the next key. */
export const keySchema = z.strictObject({
  at: ticksSchema,
  value: z.number().min(-1e12).max(1e12),
  ease: easingSchema,
  by: originSchema.optional(),
});

export type Key = Readonly<z.infer<typeof keySchema>>;
export type Track = readonly Key[];

/** Keys of one channel in order of time, no two at the same time. */
export const trackSchema = z
  .array(keySchema)
  .min(1)
  .max(100_000)
  .refine((keys) => keys.every((key, i) => i === 0 || key.at > keys[i - 1].at), {
    error: 'Keys must be in order of time, with no two at the same time.',
  });
