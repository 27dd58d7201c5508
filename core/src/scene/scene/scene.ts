import * as z from '../../basics/schema';
import { rateSchema, ticksSchema } from '../../basics/time';
import { idSchema, nameSchema } from '../../basics/ids';
import { fillSchema, layerSchema, savedPickSchema, type Layer } from '../layer';
import { runSchema } from './run-record';

/** How files of scenes name their format. */
export const SCENE_FORMAT = 'wexikine-scene-2';

const sizeSchema = z.int().min(16, 'At least 16 pixels.').max(16_384, 'At most 16 384 pixels.');

/** A named time of the scene. */
export const cueSchema = z.strictObject({ id: idSchema, name: nameSchema, at: ticksSchema });

/** The fields of a scene but its layers and runs. */
const headerFields = {
  name: nameSchema,
  project: z.string().trim().max(200),
  width: sizeSchema,
  height: sizeSchema,
  rate: rateSchema,
  length: ticksSchema.min(1, 'A scene lasts at least one frame.'),
  cues: z.array(cueSchema).max(10_000),
  /** What the frame is filled with behind all layers; nothing where it is not stated. */
  background: fillSchema.nullable().optional(),
  /** Picks under a name. */
  picks: z.array(savedPickSchema).max(1_000).optional(),
};

/** All of a scene but its layers and runs. */
export const sceneHeaderSchema = z.strictObject(headerFields);

const sceneFields = {
  format: z.literal(SCENE_FORMAT),
  ...headerFields,
  layers: z.array(layerSchema).max(20_000),
  runs: z.array(runSchema).max(10_000),
};

const whole = z
  .strictObject({ ...sceneFields, id: idSchema })
  .superRefine(refuseBroken)
  .describe('A scene as the application writes it. Layers are listed from back to front.');

/** True when no two things of a list have one id. */
export function haveOwnIds(list: readonly { readonly id: string }[]): boolean {
  return new Set(list.map(({ id }) => id)).size === list.length;
}

interface Listed {
  readonly layers: readonly Layer[];
  readonly runs: readonly { readonly id: string }[];
}

function refuseBroken({ layers, runs }: Listed, context: z.core.$RefinementCtx): void {
  const message = treeProblem(layers);
  if (message) context.addIssue({ code: 'custom', path: ['layers'], message });
  if (!haveOwnIds(runs)) {
    context.addIssue({
      code: 'custom',
      path: ['runs'],
      message: 'Two runs have the same id. Give each an id of its own.',
    });
  }
}

/** A scene: its header, its layers from back to front, its runs in their order. */
export interface Scene extends Readonly<z.infer<typeof whole>> {}

/** A scene with its id, whole and sound. */
export const sceneSchema: z.ZodType<Scene> = whole;

/** A scene that has no id yet. */
export const newSceneSchema: z.ZodType<Omit<Scene, 'id'>> = z.strictObject(sceneFields).superRefine(refuseBroken);
/** A named time of a scene. */
export type Cue = Readonly<z.infer<typeof cueSchema>>;
/** All of a scene but its layers and runs. */
export type SceneHeader = Readonly<z.infer<typeof sceneHeaderSchema>>;

/** The fields of a header. */
export const HEADER_FIELDS = [
  'name',
  'project',
  'width',
  'height',
  'rate',
  'length',
  'cues',
  'background',
  'picks',
] as const;

/** Groups may stand in one another so deep: deeper ones would overrun what draws and writes them. */
export const MOST_NESTED = 64;

/** What of a layer says where it belongs. */
type TreePart = Pick<Layer, 'id' | 'name' | 'kind' | 'parent'>;

/** What is wrong with the ids and parents of layers, as a sentence; null when all is well. Each layer is looked at once. */
export function treeProblem(layers: readonly TreePart[]): string | null {
  const byId = new Map(layers.map((layer) => [layer.id, layer]));
  if (byId.size < layers.length) return 'Two layers have the same id. Give each layer an id of its own.';
  const depths = new Map<string, number>();
  for (const layer of layers) {
    const path: TreePart[] = [];
    const onPath = new Set<string>();
    let at: TreePart | null = layer;
    while (at && !depths.has(at.id)) {
      if (onPath.has(at.id)) return `The groups around layer “${layer.name}” go in a circle.`;
      onPath.add(at.id);
      path.push(at);
      const parent: TreePart | null = at.parent === null ? null : (byId.get(at.parent) ?? null);
      if (at.parent !== null && !parent) return `Layer “${at.name}” belongs to a group that is not in the scene.`;
      if (parent && parent.kind !== 'group') {
        return `Layer “${at.name}” belongs to “${parent.name}”, which is not a group.`;
      }
      at = parent;
    }
    let depth = at ? (depths.get(at.id) ?? 0) : -1;
    for (const entry of path.reverse()) depths.set(entry.id, ++depth);
    if (depth > MOST_NESTED) {
      return `Layer “${layer.name}” stands in ${depth} groups, one in another. At most ${MOST_NESTED} are possible.`;
    }
  }
  return null;
}

/** A scene's header alone. */
export function headerOf(scene: SceneHeader): SceneHeader {
  const { name, project, width, height, rate, length, cues, background, picks } = scene;
  return {
    name,
    project,
    width,
    height,
    rate,
    length,
    cues,
    ...(background ? { background } : {}),
    ...(picks ? { picks } : {}),
  };
}
