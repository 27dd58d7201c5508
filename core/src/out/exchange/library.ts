import { draftRigSchema } from '../../formulas/rig';
import * as z from '../../basics/schema';
import {
  collectionSchema,
  curveSchema,
  keptLookSchema,
  paletteSchema,
  houseSchema,
  summarySchema,
  tagsSchema,
  textFields,
  type ItemRecord,
  type LibraryItem,
} from '../../library/library';
import { IMPORT_CHOICES, type ImportReport } from '../pack';
import { draftPresetSchema } from '../../formulas/preset';
import { recipeSchema } from '../../scene/recipe';
import { countSchema, idSchema } from '../../basics/ids';
import type { SkippedToken, TokenChange } from '../tokens';
import { personSchema } from './person';

/** How often an item is used: in how many scenes, on how many layers. */
export interface UseCount {
  readonly scenes: number;
  readonly layers: number;
}

/** An item as the library lists it. */
export interface LibraryEntry {
  /** Its newest published revision, or the draft where nothing is published. */
  readonly item: LibraryItem;
  /** The draft of its next revision. */
  readonly draft: LibraryItem | null;
  /** Counts the draft's changes; a save must name the one it is based on. 0 without a draft. */
  readonly draftVersion: number;
  readonly uses: UseCount;
}

/** One line of an item's history. */
export interface ItemChange {
  readonly by: string;
  readonly when: string;
  readonly what: string;
}

/** Runs of one scene that use an item, with one revision of it. */
export interface ItemUse {
  readonly scene: string;
  readonly sceneName: string;
  readonly revision: number;
  readonly runs: number;
  readonly layers: number;
}

/** All that is known of one item. */
export interface LibraryDetail {
  readonly entry: LibraryEntry;
  readonly record: ItemRecord;
  readonly changes: readonly ItemChange[];
  readonly uses: readonly ItemUse[];
}

const bodies = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('preset'), body: draftPresetSchema }),
  z.strictObject({ kind: z.literal('rig'), body: draftRigSchema }),
  z.strictObject({ kind: z.literal('look'), body: keptLookSchema }),
  z.strictObject({ kind: z.literal('palette'), body: paletteSchema }),
  z.strictObject({ kind: z.literal('curve'), body: curveSchema }),
  z.strictObject({ kind: z.literal('house'), body: houseSchema }),
  z.strictObject({ kind: z.literal('recipe'), body: recipeSchema }),
]);

/** A new item, as a draft. With an id one that was discarded comes back under its own. */
export const createItemSchema = z.strictObject({
  by: personSchema,
  id: idSchema.optional(),
  ...textFields,
  tags: tagsSchema,
  collection: collectionSchema,
  content: bodies,
});
/** A new item as it is sent. */
export type CreateItem = Readonly<z.infer<typeof createItemSchema>>;

/** What the draft of an item is to be. */
export const saveDraftSchema = z.strictObject({
  by: personSchema,
  /** The draft's version that this is based on; 0 begins a draft. */
  base: z.int().min(0).max(2_147_483_646),
  ...textFields,
  content: bodies,
});
/** A draft as it is sent. */
export type SaveDraft = Readonly<z.infer<typeof saveDraftSchema>>;

/** Moves a draft on: to review, back to draft, or published. */
export const moveDraftSchema = z.strictObject({
  by: personSchema,
  base: countSchema,
  to: z.enum(['draft', 'in review', 'published']),
  summary: summarySchema,
});
/** Where a draft is to go next. */
export type MoveDraft = Readonly<z.infer<typeof moveDraftSchema>>;

/** The draft that is to go, by the version that its window knows. */
export const discardDraftSchema = z.strictObject({ by: personSchema, base: countSchema });

/** Changes labels of several items at once; what is not given stays. */
export const labelItemsSchema = z.strictObject({
  by: personSchema,
  ids: z.array(idSchema).min(1).max(20_000),
  addTags: tagsSchema.optional(),
  removeTags: tagsSchema.optional(),
  collection: collectionSchema.optional(),
  retired: z.boolean().optional(),
});
/** Labels for several items. */
export type LabelItems = Readonly<z.infer<typeof labelItemsSchema>>;

/** The items that a pack is to hold; none stands for the whole library. */
export const packRequestSchema = z.strictObject({ ids: z.array(idSchema).max(20_000) });

/** A pack of 32 MB, written in base64. */
const MOST_ZIP = 44_800_000;

/** A pack to import; `dry` only reports. */
export const importRequestSchema = z.strictObject({
  by: personSchema,
  dry: z.boolean(),
  zip: z
    .string()
    .max(MOST_ZIP)
    .regex(/^[A-Za-z0-9+/]*={0,2}$/, 'The pack must be written in base64.'),
  choices: z.record(idSchema, z.enum(IMPORT_CHOICES)),
});
/** A pack as it is sent. */
export type ImportRequest = Readonly<z.infer<typeof importRequestSchema>>;

/** What importing a pack did. */
export interface ImportAnswer extends ImportReport {
  /** How many items were written; 0 for a dry one. */
  readonly written: number;
}

/** A design tokens file to read; `dry` only reports. */
export const tokensRequestSchema = z.strictObject({
  by: personSchema,
  dry: z.boolean(),
  file: z.string().max(200),
  text: z.string().max(4_000_000),
});
/** A design tokens file as it is sent. */
export type TokensRequest = Readonly<z.infer<typeof tokensRequestSchema>>;

/** What reading a design tokens file did. */
export interface TokensAnswer {
  readonly changes: readonly TokenChange[];
  readonly skipped: readonly SkippedToken[];
  readonly written: number;
}

/** What the server tells every open window: these library items changed. */
export interface LibraryNews {
  readonly topic: 'library';
  readonly ids: readonly string[];
}
