import * as z from 'zod';
import { channelIdSchema } from '../channel';
import { ticksSchema } from '../time';
import { countSchema, whenSchema, idSchema, keySchema } from './key';

const keysSchema = z.array(keySchema);
const spanSchema = z.strictObject({ in: ticksSchema, out: ticksSchema });

/** One channel before and after a run. `made` holds the run's own keys where they were joined with standing ones. */
const trackStepSchema = z.strictObject({
  channel: channelIdSchema,
  before: keysSchema,
  after: keysSchema,
  made: keysSchema.optional(),
});

/** A value of the rest pose before and after; null where the layer says nothing about it. */
const restStepSchema = z.strictObject({
  channel: channelIdSchema,
  before: z.number().nullable(),
  after: z.number().nullable(),
});

/** What a run did to one layer: enough to take it back, and to tell later which keys were changed by hand. */
const layerStepSchema = z.strictObject({
  layer: idSchema,
  span: z.strictObject({ before: spanSchema, after: spanSchema }).optional(),
  rest: z.array(restStepSchema).optional(),
  tracks: z.array(trackStepSchema),
});

/** The preset of a run as it was used, so that the run can be planned again whatever became of the library. */
const usedPresetSchema = z.strictObject({
  id: idSchema,
  revision: countSchema,
  name: z.string().max(200),
  body: z.record(z.string(), z.unknown()),
});

/** A recipe of a record that was written when moving throughout had another name. */
function inPresentWords(recipe: Record<string, unknown>): Record<string, unknown> {
  return recipe.operation === 'carry-through' ? { ...recipe, operation: 'move-throughout' } : recipe;
}

/** An applied run: its recipe as data, the preset revision it used, who and when, and what it did to each layer. */
export const runSchema = z.strictObject({
  id: idSchema,
  sentence: z.string().max(2_000),
  recipe: z.record(z.string(), z.unknown()).overwrite(inPresentWords),
  /** Absent for operations without a preset. */
  preset: usedPresetSchema.optional(),
  /** House values and curves that the preset took from the library, as they were then. */
  uses: z.array(z.strictObject({ id: idSchema, revision: countSchema })).optional(),
  by: z.string().max(100),
  when: whenSchema,
  layers: z.array(idSchema),
  /** A run that is switched off stays listed and keeps what it would do, but does nothing. */
  off: z.literal(true).optional(),
  steps: z.array(layerStepSchema),
});

export type RunRecord = Readonly<z.infer<typeof runSchema>>;
export type LayerStep = RunRecord['steps'][number];
export type TrackStep = LayerStep['tracks'][number];
export type RestStep = NonNullable<LayerStep['rest']>[number];
