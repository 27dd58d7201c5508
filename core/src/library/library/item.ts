import * as z from '../../basics/schema';
import { countSchema, whenSchema, idSchema, nameSchema } from '../../basics/ids';
import { draftPresetSchema, presetSchema } from '../../formulas/preset';
import { draftRigSchema, rigSchema } from '../../formulas/rig';
import { recipeSchema } from '../../scene/recipe';
import { curveSchema, houseSchema } from './house';
import { keptLookSchema } from './look';
import { paletteSchema } from './palette';

/**
 * Where an item stands. A published item with a newer draft is published; a retired one keeps working where it is
 * used and is offered nowhere else.
 */
export const ITEM_STATES = ['draft', 'in review', 'published', 'retired'] as const;
/** Where an item stands. */
export type ItemState = (typeof ITEM_STATES)[number];

/** Kinds of library items. */
export const ITEM_KINDS = ['preset', 'rig', 'look', 'palette', 'curve', 'house', 'recipe'] as const;
/** The kind of a library item. */
export type ItemKind = (typeof ITEM_KINDS)[number];

const MARKUP = /[<>\p{Cc}]/u;

/** Names travel into files, pages and other programs, so they are plain text: no angle brackets, no control signs. */
function plain(schema: z.ZodString): z.ZodString {
  return schema.refine((text) => !MARKUP.test(text), {
    error: 'This must be plain text, without < and > and without control characters.',
  });
}

/** A tag: plain text, 1 to 60 characters. */
export const tagSchema = plain(
  z.string().trim().min(1, 'A tag is not empty.').max(60, 'A tag has at most 60 characters.'),
);
/** The tags of an item. */
export const tagsSchema = z.array(tagSchema).max(50);
/** The collection that an item stands in; null for none. */
export const collectionSchema = plain(
  z.string().trim().min(1, 'A collection needs a name.').max(100, 'A collection’s name has at most 100 characters.'),
).nullable();
/** What a revision changed, in a few words. */
export const summarySchema = z.string().max(500);

const revisionSchema = countSchema;

/** Shown texts of a revision. */
export const textFields = { name: plain(nameSchema), note: z.string().max(2_000) };

const itemFields = {
  id: idSchema,
  ...textFields,
  tags: tagsSchema,
  collection: collectionSchema,
  state: z.enum(ITEM_STATES),
  revision: revisionSchema,
  author: z.string().max(100),
  when: whenSchema,
  /** What this revision changed. */
  summary: summarySchema,
};

function itemSchemaWith(preset: typeof presetSchema, rig: typeof rigSchema) {
  return z.discriminatedUnion('kind', [
    z.strictObject({ ...itemFields, kind: z.literal('preset'), body: preset }),
    z.strictObject({ ...itemFields, kind: z.literal('rig'), body: rig }),
    z.strictObject({ ...itemFields, kind: z.literal('look'), body: keptLookSchema }),
    z.strictObject({ ...itemFields, kind: z.literal('palette'), body: paletteSchema }),
    z.strictObject({ ...itemFields, kind: z.literal('curve'), body: curveSchema }),
    z.strictObject({ ...itemFields, kind: z.literal('house'), body: houseSchema }),
    z.strictObject({ ...itemFields, kind: z.literal('recipe'), body: recipeSchema }),
  ]);
}

/** A library item as one of its revisions shows it. */
export type LibraryItem = Readonly<z.infer<ReturnType<typeof itemSchemaWith>>>;

/** A library item as one of its revisions shows it. */
export const libraryItemSchema: z.ZodType<LibraryItem> = itemSchemaWith(presetSchema, rigSchema).describe(
  'A library item: one revision of it.',
);

/** The same in the making. */
export const draftItemSchema: z.ZodType<LibraryItem> = itemSchemaWith(draftPresetSchema, draftRigSchema);

/** A preset of the library. */
export type PresetItem = Extract<LibraryItem, { kind: 'preset' }>;
/** A rig of the library. */
export type RigItem = Extract<LibraryItem, { kind: 'rig' }>;
/** A curve of the library. */
export type CurveItem = Extract<LibraryItem, { kind: 'curve' }>;
/** A look. */
export type LookItem = Extract<LibraryItem, { kind: 'look' }>;
/** A palette. */
export type PaletteItem = Extract<LibraryItem, { kind: 'palette' }>;
/** A recipe of the library. */
export type RecipeItem = Extract<LibraryItem, { kind: 'recipe' }>;
/** A house value of the library. */
export type HouseItem = Extract<LibraryItem, { kind: 'house' }>;

/** True for an item that new runs and pickers may offer. */
export function isOffered({ state }: Pick<LibraryItem, 'state'>): boolean {
  return state === 'published';
}

/** True for a preset. */
export function isPreset(item: LibraryItem): item is PresetItem {
  return item.kind === 'preset';
}

/** True for a rig. */
export function isRig(item: LibraryItem): item is RigItem {
  return item.kind === 'rig';
}
