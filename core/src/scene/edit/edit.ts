import * as z from '../../basics/schema';
import { channelIdSchema } from '../../basics/channel';
import { idSchema } from '../../basics/ids';
import { layerBaseSchema, layerSchema, trackSchema } from '../layer';
import { runSchema, sceneHeaderSchema } from '../scene';

/** Fields of a layer that an edit may set. */
const layerFields = layerSchema.omit({ id: true, tracks: true, base: true }).partial();

const whole = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('set-scene'), fields: sceneHeaderSchema.partial() }),
  z.strictObject({ type: z.literal('add-layer'), index: z.int().min(0), layer: layerSchema }),
  z.strictObject({ type: z.literal('remove-layer'), layer: idSchema }),
  z.strictObject({ type: z.literal('move-layer'), layer: idSchema, index: z.int().min(0) }),
  z.strictObject({ type: z.literal('set-layer'), layer: idSchema, fields: layerFields }),
  z.strictObject({
    type: z.literal('set-track'),
    layer: idSchema,
    channel: channelIdSchema,
    keys: trackSchema.nullable(),
  }),
  /** What of a layer its runs touch, as it would be without them; null where they touch nothing. */
  z.strictObject({ type: z.literal('set-base'), layer: idSchema, base: layerBaseSchema.nullable() }),
  z.strictObject({ type: z.literal('add-run'), index: z.int().min(0), run: runSchema }),
  z.strictObject({ type: z.literal('remove-run'), run: idSchema }),
  /** Puts a run in the place of the one with its id. */
  z.strictObject({ type: z.literal('set-run'), run: runSchema }),
]);

/** One change of a scene. */
export type Edit = Readonly<z.infer<typeof whole>>;
/**
 * One change of a scene as plain data. Every edit has an inverse (`invert`) and either succeeds whole or is refused.
 * `keys: null` takes a track away; `index` counts layers from the back.
 */
export const editSchema: z.ZodType<Edit> = whole;

/** Why edits were refused. */
export type EditProblem =
  | { readonly code: 'no-such-layer'; readonly layer: string }
  | { readonly code: 'no-such-run'; readonly run: string }
  | { readonly code: 'id-taken'; readonly id: string }
  | { readonly code: 'index-out-of-range'; readonly index: number; readonly count: number }
  | { readonly code: 'broken-tree'; readonly message: string };

/** What an edit was refused for, as a sentence. */
export function describeEditProblem(problem: EditProblem): string {
  switch (problem.code) {
    case 'no-such-layer':
      return `The layer “${problem.layer}” is no longer in the scene. Nothing was changed; plan again.`;
    case 'no-such-run':
      return `The run “${problem.run}” is no longer in the scene. Nothing was changed.`;
    case 'id-taken':
      return `The id “${problem.id}” is already in use in this scene. Nothing was changed.`;
    case 'index-out-of-range':
      return `Place ${problem.index} lies outside the ${problem.count} that there are. Nothing was changed.`;
    case 'broken-tree':
      return `${problem.message} Nothing was changed.`;
  }
}

/** Ids of the layers that edits touch, each as often as it is touched. */
export function layersOfEdits(edits: readonly Edit[]): string[] {
  return edits.flatMap((edit) =>
    'layer' in edit ? [typeof edit.layer === 'string' ? edit.layer : edit.layer.id] : [],
  );
}
