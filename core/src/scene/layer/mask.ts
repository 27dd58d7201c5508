import * as z from '../../basics/schema';
import { axisTagSchema, FONT_FILE, PICTURE_FILE } from '../file';
import { fontNameSchema } from './font';

/** Words as a mask: as large as they fit into its box, in the middle. */
const maskWordsSchema = z.strictObject({
  text: z.string().min(1).max(500),
  font: fontNameSchema,
  fontFile: z.string().regex(FONT_FILE, 'A font must be a file that is kept.').optional(),
  axes: z.record(axisTagSchema, z.number().min(-1e5).max(1e5)).optional(),
  weight: z.int().min(100).max(900),
});

/** A picture as a mask: it shows as much as the picture is there, or as it is bright. */
const maskPictureSchema = z.strictObject({
  href: z.string().max(200).regex(PICTURE_FILE, 'A picture must be a file that is kept.'),
  by: z.enum(['transparency', 'brightness']),
});

/** What of a layer shows: a shape in its box, in shares of that, added to those before, taken from them, or what both have. */
export const maskSchema = z
  .strictObject({
    shape: z.enum(['rectangle', 'ellipse', 'polygon', 'path', 'words', 'picture']),
    /** How many corners a polygon has, the first on top; six where it is not stated. */
    corners: z.int().min(3).max(60).optional(),
    /** SVG path data over the shape's own box, 0…100 across and down. */
    d: z.string().min(1).max(100_000).optional(),
    /** Which parts of a path that crosses itself are inside; even-odd where it is not stated. */
    rule: z.enum(['nonzero']).optional(),
    words: maskWordsSchema.optional(),
    picture: maskPictureSchema.optional(),
    how: z.enum(['add', 'take', 'overlap']),
    /** Its middle. */
    x: z.number().min(-10).max(10),
    y: z.number().min(-10).max(10),
    width: z.number().min(0).max(20),
    height: z.number().min(0).max(20),
    /** Degrees, clockwise. */
    turn: z.number().min(-3600).max(3600),
    /** How far its edge is softened, px. */
    soft: z.number().min(0).max(500),
  })
  .refine(({ shape, words }) => shape !== 'words' || words !== undefined, {
    error: 'A mask of words says which words.',
  })
  .refine(({ shape, picture }) => shape !== 'picture' || picture !== undefined, {
    error: 'A mask by a picture names the picture.',
  });

/** What of a layer shows. */
export type Mask = Readonly<z.infer<typeof maskSchema>>;

/** Addresses of the files that a mask is made of. */
export function filesOfMask({ words, picture }: Mask): string[] {
  return [words?.fontFile, picture?.href].filter((address) => address !== undefined);
}
