import * as z from '../schema';

/** Numbers of revisions and versions, which the database keeps in four bytes. */
export const countSchema = z.int().min(1).max(2_147_483_647);

/** A date and time in UTC (ISO 8601) that calendars know: of the years 1 to 9999. */
export const whenSchema = z.iso
  .datetime()
  .refine((text) => !text.startsWith('0000') && Number.isFinite(Date.parse(text)), {
    error: 'This is not a date and time, such as 2026-01-31T12:00:00Z.',
  });

/** An id: 1 to 64 letters, digits, hyphens or underscores. */
export const idSchema = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/, 'An id is 1 to 64 letters, digits, hyphens or underscores.');

/** A name that people read: trimmed, 1 to 200 characters. */
export const nameSchema = z.string().trim().min(1, 'A name is needed.').max(200, 'A name has at most 200 characters.');
