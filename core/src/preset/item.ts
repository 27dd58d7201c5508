import * as z from 'zod';
import { idSchema, nameSchema } from '../scene';
import { presetSchema } from './preset';

export const ITEM_STATES = ['draft', 'in review', 'published', 'retired'] as const;

/** A library item with the body of one revision. */
export const libraryItemSchema = z
  .strictObject({
    format: z.literal('wexikine-item-1'),
    id: idSchema,
    kind: z.literal('preset'),
    name: nameSchema,
    tags: z.array(z.string().trim().min(1).max(60)).max(50),
    note: z.string().max(2_000),
    state: z.enum(ITEM_STATES),
    revision: z.int().min(1),
    author: z.string().max(100),
    when: z.iso.datetime(),
    /** What this revision changed. */
    summary: z.string().max(500),
    body: presetSchema,
  })
  .describe('A library item: one revision of a preset.');

export type LibraryItem = Readonly<z.infer<typeof libraryItemSchema>>;

/** The presets that a run may use, by id; each the newest published revision, or the one that is asked for. */
export type Shelf = ReadonlyMap<string, LibraryItem>;

/** A shelf of items. */
export function createShelf(items: readonly LibraryItem[]): Shelf {
  return new Map(items.map((item) => [item.id, item]));
}
