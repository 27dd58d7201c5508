import * as z from '../../basics/schema';
import { channelIdSchema } from '../../basics/channel';
import { idSchema } from '../../basics/ids';
import { dataPartsSchema, keySchema, lookPartsSchema } from '../layer';
import { ticksSchema } from '../../basics/time';

/** By what a key is known: run and slot; of one that was set by hand, a name that it got when it was first patched. */
const keyNameSchema = z.string().min(1).max(600);

const KEY_FIELDS = ['at', 'value', 'ease'] as const;
/** A part of a key that can be set by hand. */
export type KeyField = (typeof KEY_FIELDS)[number];

/** What became of the keys of one channel by hand. */
const keyPatchSchema = z.strictObject({
  /** Keys as they stand, with the fields that were set by hand; in the others they follow their run. */
  changed: z
    .array(z.strictObject({ id: keyNameSchema, key: keySchema, fields: z.array(z.enum(KEY_FIELDS)).min(1).max(3) }))
    .max(100_000)
    .optional(),
  removed: z.array(keyNameSchema).max(100_000).optional(),
  added: z
    .array(z.strictObject({ id: keyNameSchema, key: keySchema }))
    .max(100_000)
    .optional(),
});

/** What was changed by hand on one layer over a run, and before the next one that touches the same. */
export const layerPatchSchema = z.strictObject({
  layer: idSchema,
  /** In point of the layer as the run left it; times in the patch move along with it. */
  in: ticksSchema,
  /** By how much the in and the out point were moved. */
  span: z.strictObject({ in: ticksSchema, out: ticksSchema }).optional(),
  rest: z.partialRecord(channelIdSchema, z.number().min(-1e9).max(1e9).nullable()).optional(),
  look: lookPartsSchema.optional(),
  data: dataPartsSchema.optional(),
  tracks: z.partialRecord(channelIdSchema, keyPatchSchema).optional(),
});

/** What became of the keys of one channel by hand. */
export type KeyPatch = Readonly<z.infer<typeof keyPatchSchema>>;
/** What was changed by hand on one layer over a run. */
export type LayerPatch = Readonly<z.infer<typeof layerPatchSchema>>;
