import * as z from '../../basics/schema';
import { easingSchema } from '../../basics/easing';
import { idSchema } from '../../basics/ids';
import { ticksSchema } from '../../basics/time';

/**
 * Which run made a key, and what the key is in its preset: row and moment. Of one run, no two keys of a channel have one
 * slot, so a key is known again by it whatever becomes of its neighbours.
 */
export const originSchema = z.strictObject({ run: idSchema, slot: z.string().min(1).max(400) });

/** The value of a key, in its channel's unit. */
export const keyValueSchema = z.number().min(-1e12).max(1e12);

/** A value of one channel at one scene time, with the easing to the next key. */
export const keySchema = z.strictObject({
  at: ticksSchema,
  value: keyValueSchema,
  ease: easingSchema,
  by: originSchema.optional(),
});

/** A value of one channel at one scene time. */
export type Key = Readonly<z.infer<typeof keySchema>>;
/** The keys of one channel. */
export type Track = readonly Key[];

/** True for keys in order of time, no two at the same time. */
export function isInOrder(keys: Track): boolean {
  return keys.every((key, i) => i === 0 || key.at > keys[i - 1].at);
}

/** Keys of one channel in order of time, no two at the same time. */
export const trackSchema = z.array(keySchema).min(1).max(100_000).refine(isInOrder, {
  error: 'Keys must be in order of time, with no two at the same time.',
});
