import * as z from 'zod';

/** The name under which changes are recorded. */
export const personSchema = z.string().trim().min(1).max(100);
