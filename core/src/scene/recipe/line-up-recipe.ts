import * as z from '../../basics/schema';
import { moments, momentSchema, recipeBase, timeText } from './parts';

/** A time at which layers are to begin or end: typed, a cue, the scene's end, or that of the latest or earliest one. */
const edgeSchema = z.discriminatedUnion('by', [
  ...moments,
  z.strictObject({ by: z.literal('scene') }),
  z.strictObject({ by: z.literal('latest') }),
  z.strictObject({ by: z.literal('earliest') }),
]);

const waySchema = z.discriminatedUnion('by', [
  /** In points trimmed or lengthened to one time. */
  z.strictObject({ by: z.literal('begin'), at: edgeSchema }),
  /** Out points trimmed or lengthened to one time. */
  z.strictObject({ by: z.literal('end'), at: edgeSchema }),
  /** Slid, not trimmed: each begins as the one before ends, after a gap; with a negative one they overlap. */
  z.strictObject({ by: z.literal('butt'), gap: timeText }),
  /** Trimmed: each one ends as the next begins, or so much later. */
  z.strictObject({ by: z.literal('relay'), overlap: timeText }),
  z.strictObject({ by: z.literal('length'), length: timeText }),
  /** Slid, not trimmed: the first begins at a time, each next one a gap later. */
  z.strictObject({ by: z.literal('slide'), to: momentSchema, gap: timeText }),
  /** Rows that take turns: `apart` from row to row, each for `hold`, then its replacement. */
  z.strictObject({
    by: z.literal('rows'),
    rows: z.int().min(1).max(10_000),
    from: momentSchema,
    apart: timeText,
    hold: timeText,
  }),
]);

/** When layers begin and end: their spans, with their keys. */
export const lineUpRecipeSchema = z.strictObject({
  operation: z.literal('line-up'),
  ...recipeBase,
  way: waySchema,
  /** Entrances and exits keep their length while the middle stretches, or everything stretches with its layer. */
  parts: z.enum(['keep', 'stretch']),
  /** Where a layer becomes too short for entrance and exit, both are shortened to fit. */
  squeeze: z.boolean(),
});

/** When layers are to begin and end. */
export type LineUpRecipe = Readonly<z.infer<typeof lineUpRecipeSchema>>;
/** How layers are lined up. */
export type LineUpWay = LineUpRecipe['way'];
/** A time at which layers are to begin or end. */
export type Edge = Readonly<z.infer<typeof edgeSchema>>;
