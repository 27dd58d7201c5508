import * as z from 'zod';
import { channelIdSchema } from '../channel';
import { ticksSchema } from '../time';
import { idSchema, keySchema } from './key';

/** What a run took away from one channel of a layer, to be put back when the run is removed. */
const replacedSchema = z.strictObject({ layer: idSchema, channel: channelIdSchema, keys: z.array(keySchema) });

/** A span that a run moved, as it was before. */
const movedSchema = z.strictObject({ layer: idSchema, in: ticksSchema, out: ticksSchema });

/** An applied run: its recipe as data, the preset revision it used, who and when, and what it replaced. */
export const runSchema = z.strictObject({
  id: idSchema,
  sentence: z.string().max(1_000),
  recipe: z.record(z.string(), z.unknown()),
  preset: z.strictObject({ id: idSchema, revision: z.int().min(1) }),
  /** House values and curves that the preset took from the library, as they were then. */
  uses: z.array(z.strictObject({ id: idSchema, revision: z.int().min(1) })).optional(),
  by: z.string().max(100),
  when: z.iso.datetime(),
  layers: z.array(idSchema),
  replaced: z.array(replacedSchema),
  moved: z.array(movedSchema),
});

export type RunRecord = Readonly<z.infer<typeof runSchema>>;
