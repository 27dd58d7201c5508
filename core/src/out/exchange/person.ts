import * as z from '../../basics/schema';

/** The name under which changes are recorded. */
export const personSchema = z.string().trim().min(1).max(100);
