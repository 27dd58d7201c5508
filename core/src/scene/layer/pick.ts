import * as z from '../../basics/schema';
import { idSchema, nameSchema } from '../../basics/ids';
import { LAYER_KINDS } from './layer';

const share = z.number().min(-10).max(10);
const columnSchema = z.string().trim().min(1, 'Name a data column.').max(60);

/** How the value of a data column is looked at. */
export const DATA_TESTS = ['is', 'is-not', 'contains', 'above', 'below', 'filled', 'empty'] as const;

/** One condition that a layer meets or not. */
export const pickTermSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('layers'), layers: z.array(idSchema).max(20_000) }),
  /** Every condition that is given must hold. `name` may contain * and ?. */
  z.strictObject({
    by: z.literal('rule'),
    tag: z.string().max(60).optional(),
    name: z.string().max(200).optional(),
    kind: z.enum(LAYER_KINDS).optional(),
  }),
  /** Everything inside a group, at any depth. */
  z.strictObject({ by: z.literal('group'), group: idSchema }),
  /** Layers whose middle rests in a part of the frame, given in shares of it. */
  z.strictObject({ by: z.literal('region'), left: share, top: share, right: share, bottom: share }),
  /** Layers that rest in one row or column with a layer: their middle lies within its height or width. */
  z.strictObject({ by: z.literal('level'), layer: idSchema, axis: z.enum(['row', 'column']) }),
  z.strictObject({ by: z.literal('state'), state: z.enum(['keys', 'no-keys']) }),
  /** Layers with keys that a run made. */
  z.strictObject({ by: z.literal('made'), run: idSchema }),
  z.strictObject({
    by: z.literal('data'),
    column: columnSchema,
    test: z.enum(DATA_TESTS),
    value: z.string().max(200),
  }),
  /** A pick that the scene keeps under a name, as it stands then. */
  z.strictObject({ by: z.literal('saved'), pick: idSchema }),
]);

/**
 * Which layers: one condition, or several of which all or any must hold, each as it is or turned round. Among those
 * that must all hold, one that says `or` begins a further set, of which the layer may meet any: and binds closer than or.
 */
export const pickSchema = z.union([
  pickTermSchema,
  z.strictObject({
    by: z.literal('joined'),
    how: z.enum(['all', 'any']),
    terms: z
      .array(z.strictObject({ or: z.literal(true).optional(), not: z.literal(true).optional(), is: pickTermSchema }))
      .min(1)
      .max(50),
  }),
]);

/** A pick under a name, kept with its scene and worked out anew whenever a run is. */
export const savedPickSchema = z.strictObject({ id: idSchema, name: nameSchema, pick: pickSchema });

/** A condition among others. */
export type JoinedTerm = Extract<Pick, { by: 'joined' }>['terms'][number];
/** One condition that a layer meets or not. */
export type PickTerm = Readonly<z.infer<typeof pickTermSchema>>;
/** Which layers. */
export type Pick = Readonly<z.infer<typeof pickSchema>>;
/** A pick under a name. */
export type SavedPick = Readonly<z.infer<typeof savedPickSchema>>;
/** How the value of a data column is looked at. */
export type DataTest = (typeof DATA_TESTS)[number];
