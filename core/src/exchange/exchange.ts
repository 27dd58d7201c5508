import * as z from 'zod';
import { personSchema } from './person';
import {
  countSchema,
  haveOwnIds,
  idSchema,
  layerSchema,
  nameSchema,
  newSceneSchema,
  runSchema,
  sceneHeaderSchema,
  sceneSchema,
} from '../scene';

/** Days for which a deleted scene can be brought back. */
export const DAYS_DELETED_KEPT = 30;

const versionSchema = countSchema;

/** What changed in a scene since `base`, to be saved in one transaction; see `difference`. */
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
  })
  .refine(({ layers }) => haveOwnIds(layers), { path: ['layers'], error: 'A layer is in it twice. Send each once.' })
  .refine(({ runs }) => haveOwnIds(runs), { path: ['runs'], error: 'A run is in it twice. Send each once.' });
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
export type SceneChange = Readonly<z.infer<typeof sceneChangeSchema>>;

/** A scene as the server hands it out: with the version that a save must name. */
export const storedSceneSchema = z.strictObject({ version: versionSchema, scene: sceneSchema });
export type StoredScene = Readonly<z.infer<typeof storedSceneSchema>>;

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
export type SceneSummary = Readonly<z.infer<typeof sceneSummarySchema>>;

export const createSceneSchema = z.strictObject({ scene: newSceneSchema, by: personSchema });
export type CreateScene = Readonly<z.infer<typeof createSceneSchema>>;

export const renameSceneSchema = z.strictObject({ name: nameSchema, by: personSchema });
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
