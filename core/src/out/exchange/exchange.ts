import * as z from '../../basics/schema';
import { personSchema } from './person';
import { countSchema, idSchema, nameSchema } from '../../basics/ids';
import { layerSchema, type Layer } from '../../scene/layer';
import {
  haveOwnIds,
  newSceneSchema,
  runSchema,
  SCENE_FORMAT,
  sceneHeaderSchema,
  sceneSchema,
  type RunRecord,
  type SceneHeader,
} from '../../scene/scene';
import { packedLayersSchema, unpackLayers, type PackedLayers } from './packed-layers';

/** Days for which a deleted scene can be brought back. */
export const DAYS_DELETED_KEPT = 30;

const versionSchema = countSchema;

/** Parts that were sent before, which are to count with this request. */
const uploadSchema = z.strictObject({ id: idSchema, parts: z.int().min(1).max(100_000) });

/** A part of what is saved: layers and runs, in messages of bounded size. */
export const uploadPartSchema = z
  .strictObject({ layers: packedLayersSchema.nullable(), runs: z.array(runSchema).max(10_000) })
  .refine(({ layers }) => haveOwnIds(layers?.layers ?? []), {
    path: ['layers'],
    error: 'A layer is in it twice. Send each once.',
  });
/** A part of a save as it is sent. */
export type UploadPart = Readonly<z.infer<typeof uploadPartSchema>>;

/** What changed in a scene since `base`, to be saved in one transaction; see `difference`. Large changes are sent in parts before. */
export const saveRequestSchema = z
  .strictObject({
    base: versionSchema,
    by: personSchema,
    /** The step's name, as it stands in the undo list; several are joined. */
    what: z.string().max(1_000),
    header: sceneHeaderSchema.nullable(),
    layers: z.array(layerSchema).max(20_000),
    removedLayers: z.array(idSchema).max(20_000),
    order: z.array(idSchema).max(20_000).nullable(),
    runs: z.array(runSchema).max(10_000),
    removedRuns: z.array(idSchema).max(10_000),
    runOrder: z.array(idSchema).max(10_000).nullable(),
    upload: uploadSchema.optional(),
  })
  .refine(({ layers }) => haveOwnIds(layers), { path: ['layers'], error: 'A layer is in it twice. Send each once.' })
  .refine(({ runs }) => haveOwnIds(runs), { path: ['runs'], error: 'A run is in it twice. Send each once.' });
/** A save as it is sent. */
export type SaveRequest = Readonly<z.infer<typeof saveRequestSchema>>;

/** One saved change of a scene, as the journal keeps it. */
export const sceneChangeSchema = z.strictObject({
  version: versionSchema,
  by: personSchema,
  when: z.iso.datetime(),
  what: z.string(),
  header: z.boolean(),
  layers: z.array(idSchema),
  removedLayers: z.array(idSchema),
});
/** One saved change of a scene. */
export type SceneChange = Readonly<z.infer<typeof sceneChangeSchema>>;

/** A scene as the server hands it out: with the version that a save must name. */
export const storedSceneSchema = z.strictObject({ version: versionSchema, scene: sceneSchema });
/** A scene with the version that a save of it must name. */
export type StoredScene = Readonly<z.infer<typeof storedSceneSchema>>;

/** What the list of scenes says of each. */
export const sceneSummarySchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  project: z.string(),
  width: z.int(),
  height: z.int(),
  rate: z.strictObject({ num: z.int(), den: z.int() }),
  length: z.int(),
  layers: z.int(),
  /** Runs whose preset has a newer revision than the one that they used. */
  updates: z.int(),
  version: versionSchema,
  changed: z.iso.datetime(),
});
/** A scene as lists show it. */
export type SceneSummary = Readonly<z.infer<typeof sceneSummarySchema>>;

/** A new scene as it is sent whole. */
export const createSceneSchema = z.strictObject({ scene: newSceneSchema, by: personSchema });

/** A new scene whose layers and runs were sent in parts before: its header, and their order. */
export const createFromPartsSchema = z.strictObject({
  header: sceneHeaderSchema,
  order: z.array(idSchema).max(20_000),
  runOrder: z.array(idSchema).max(10_000),
  upload: uploadSchema,
  by: personSchema,
});
/** A new scene whose parts were sent before. */
export type CreateFromParts = Readonly<z.infer<typeof createFromPartsSchema>>;

/** A scene as it is handed out packed: its layers in chunks, and which of these each layer is in. */
export interface PackedScene {
  readonly version: number;
  readonly id: string;
  readonly header: SceneHeader;
  readonly outline: readonly (readonly [id: string, chunk: number])[];
  readonly chunks: Readonly<Record<string, PackedLayers>>;
  readonly runs: readonly RunRecord[];
}

/** The scene of a packed one. */
export function unpackScene({ version, id, header, outline, chunks, runs }: PackedScene): StoredScene {
  const known = new Map<string, Layer>();
  for (const [chunk, packed] of Object.entries(chunks)) {
    for (const layer of unpackLayers(packed)) known.set(`${chunk} ${layer.id}`, layer);
  }
  const layers = outline.map(([layer, chunk]) => known.get(`${chunk} ${layer}`) as Layer);
  return { version, scene: { format: SCENE_FORMAT, id, ...header, layers, runs: [...runs] } };
}
/** A new scene as it is sent whole. */
export type CreateScene = Readonly<z.infer<typeof createSceneSchema>>;

/** Another name for a scene. */
export const renameSceneSchema = z.strictObject({ name: nameSchema, by: personSchema });
/** Who asks, for what says nothing else. */
export const byWhomSchema = z.strictObject({ by: personSchema });

/** News that a scene was saved: which version stands now, by whom and what was done. */
export interface SceneNews {
  readonly topic: 'scene';
  readonly id: string;
  readonly version: number;
  readonly by: string;
  readonly what: string;
}

/** Every error answer: a code for programs, a sentence for people, and facts where they help. */
export interface ErrorAnswer {
  readonly code: 'invalid' | 'not-found' | 'conflict' | 'too-large' | 'busy' | 'full' | 'forbidden' | 'broken';
  readonly message: string;
  readonly problems?: readonly { readonly path: string; readonly message: string }[];
  /** With `conflict`: what was saved since the base, oldest first. */
  readonly changes?: readonly SceneChange[];
  readonly version?: number;
}
