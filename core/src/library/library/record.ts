import * as z from '../../basics/schema';
import { currentOperation, recipeSchema } from '../../scene/recipe';
import { countSchema, whenSchema, idSchema } from '../../basics/ids';
import { draftPresetSchema, presetSchema } from '../../formulas/preset';
import { draftRigSchema, rigSchema } from '../../formulas/rig';
import { curveSchema, houseSchema, type HouseValue } from './house';
import { keptLookSchema } from './look';
import { paletteSchema } from './palette';
import { collectionSchema, summarySchema, tagsSchema, textFields, type LibraryItem } from './item';

/** How files of library items name their format. */
export const ITEM_FORMAT = 'wexikine-item-1';

const madeFields = { ...textFields, author: z.string().max(100), when: whenSchema };

function recordOfKind<K extends string, B extends z.ZodType, D extends z.ZodType>(kind: K, body: B, draftBody: D) {
  const revision = z.strictObject({ ...madeFields, revision: countSchema, summary: summarySchema, body });
  const draft = z.strictObject({ ...madeFields, inReview: z.boolean(), body: draftBody });
  return z
    .strictObject({
      format: z.literal(ITEM_FORMAT),
      id: idSchema,
      kind: z.literal(kind),
      tags: tagsSchema,
      collection: collectionSchema,
      retired: z.boolean(),
      /** Published revisions, numbered from 1 without a gap. They never change. */
      revisions: z.array(revision).max(10_000),
      draft: draft.nullable(),
    })
    .refine(({ revisions }) => revisions.every(({ revision: number }, i) => number === i + 1), {
      error: 'Revisions must be numbered 1, 2, 3 … without a gap.',
      path: ['revisions'],
    })
    .refine(({ revisions, draft: standing }) => revisions.length > 0 || standing !== null, {
      error: 'An item has a published revision or a draft.',
    });
}

/** A duration stays a duration: presets that are tied to it count on that. */
function hasOneType({ kind, revisions, draft }: { kind: string; revisions: unknown; draft: unknown }): boolean {
  if (kind !== 'house') return true;
  const bodies = [...(revisions as { body: HouseValue }[]), ...(draft ? [draft as { body: HouseValue }] : [])];
  return new Set(bodies.map(({ body }) => body.type)).size <= 1;
}

const whole = z
  .discriminatedUnion('kind', [
    recordOfKind('preset', presetSchema, draftPresetSchema),
    recordOfKind('rig', rigSchema, draftRigSchema),
    recordOfKind('look', keptLookSchema, keptLookSchema),
    recordOfKind('palette', paletteSchema, paletteSchema),
    recordOfKind('curve', curveSchema, curveSchema),
    recordOfKind('house', houseSchema, houseSchema),
    recordOfKind('recipe', recipeSchema, recipeSchema),
  ])
  .refine(hasOneType, {
    error: 'A house value keeps its type from revision to revision: what refers to it counts on it.',
    path: ['revisions'],
  })
  .describe('A library item with all its published revisions and the draft of the next.');

/** An item with all of its revisions and its draft. */
export type ItemRecord = Readonly<z.infer<typeof whole>>;
/** A library item whole: what holds for all revisions, every published revision, and the draft of the next. */
export const itemRecordSchema: z.ZodType<ItemRecord> = whole;

/** One published revision, which never changes. */
export type RevisionRecord = ItemRecord['revisions'][number];
/** The next revision in the making. */
export type DraftRecord = NonNullable<ItemRecord['draft']>;

/** A published revision as a library item; without a number the newest. Null where there is none. */
export function revisionOf(record: ItemRecord, number?: number): LibraryItem | null {
  const found = number === undefined ? record.revisions.at(-1) : record.revisions[number - 1];
  if (!found) return null;
  const { id, kind, tags, collection, retired } = record;
  return { id, kind, tags, collection, state: retired ? 'retired' : 'published', ...found } as LibraryItem;
}

/** The draft as a library item with the number that it will have. Null where there is none. */
export function draftOf(record: ItemRecord): LibraryItem | null {
  if (!record.draft) return null;
  const { id, kind, tags, collection, revisions } = record;
  const { inReview, ...fields } = record.draft;
  const state = inReview ? 'in review' : 'draft';
  return { id, kind, tags, collection, state, revision: revisions.length + 1, summary: '', ...fields } as LibraryItem;
}

/** What an item shows first: its newest published revision, or its draft where nothing is published. */
export function frontOf(record: ItemRecord): LibraryItem {
  return (revisionOf(record) ?? draftOf(record)) as LibraryItem;
}

/** An item with one published revision, whole. */
export function recordOf(item: LibraryItem): ItemRecord {
  const { id, kind, tags, collection, state, name, note, author, when, summary, body } = item;
  return {
    format: ITEM_FORMAT,
    id,
    kind,
    tags,
    collection,
    retired: state === 'retired',
    revisions: [{ revision: 1, name, note, author, when, summary, body }],
    draft: null,
  } as ItemRecord;
}

/** The body of a revision that was published when phases and operations had other names, with their present ones. */
export function inPresentWords<T>(body: T): T {
  if (typeof body !== 'object' || body === null) return body;
  const { phase, operation } = body as { readonly phase?: unknown; readonly operation?: unknown };
  if (phase === 'through') return { ...body, phase: 'throughout' };
  const current = currentOperation(operation);
  return current === operation ? body : { ...body, operation: current };
}
