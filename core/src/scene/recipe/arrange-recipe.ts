import * as z from '../../basics/schema';
import { recipeBase } from './parts';

const pixels = z.number().min(-1e6).max(1e6);
const axis = z.enum(['across', 'down']);
const share = z.number().min(-10).max(10);

/** Edges and middles that boxes are aligned on. */
export const ALIGN_EDGES = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;

const waySchema = z.discriminatedUnion('by', [
  /** Equal gaps between boxes, between the outer two or from edge to edge of the frame. */
  z.strictObject({ by: z.literal('spread'), axis, between: z.enum(['outer', 'frame']), margin: pixels }),
  /** Each box begins where the one before ends, after a gap. */
  z.strictObject({ by: z.literal('butt'), axis, gap: pixels }),
  /** In columns from the top left corner of where they are, cells as large as the largest box. */
  z.strictObject({ by: z.literal('grid'), columns: z.int().min(1).max(1000), gap: pixels }),
  /** Middles on a circle around a point given in shares of the frame; 0° is to the right, 90° down. */
  z.strictObject({
    by: z.literal('circle'),
    x: share,
    y: share,
    radius: pixels.min(0),
    from: z.number().min(-3600).max(3600),
    /** How far round, in degrees; 360 leaves the same gap between the last and the first. */
    round: z.number().min(-3600).max(3600),
    /** Layers turn to look outward. */
    turned: z.boolean(),
  }),
  /** Middles in the middles of equal slots of the frame: two are left and right, three left, middle and right. */
  z.strictObject({ by: z.literal('slots'), axis, slots: z.int().min(1).max(100) }),
  z.strictObject({ by: z.literal('align'), edge: z.enum(ALIGN_EDGES), to: z.enum(['frame', 'outer', 'first']) }),
  /** Scaled so that what is seen is as wide, as high or as large as the first, the largest or the smallest. */
  z.strictObject({
    by: z.literal('size'),
    match: z.enum(['width', 'height', 'both']),
    of: z.enum(['first', 'largest', 'smallest']),
  }),
  /** Scaled and moved so that the frame is covered, however the layer is turned. */
  z.strictObject({ by: z.literal('cover') }),
]);

/** Where layers rest: their rest poses, and the keys with them. */
export const arrangeRecipeSchema = z.strictObject({
  operation: z.literal('arrange'),
  ...recipeBase,
  way: waySchema,
});

/** Where layers are to rest. */
export type ArrangeRecipe = Readonly<z.infer<typeof arrangeRecipeSchema>>;
/** How layers are arranged. */
export type ArrangeWay = ArrangeRecipe['way'];
