import * as z from '../../basics/schema';
import { channelIdSchema } from '../../basics/channel';
import { cssColourSchema } from '../../basics/colour';
import { countSchema, idSchema } from '../../basics/ids';
import type { Pick } from '../layer';
import { parameterNameSchema } from '../../formulas/preset';
import { recipeBase } from './parts';
import { variationSchema } from './preset-recipe';

const colour = cssColourSchema(z.string().trim().max(64));

/** Parts of a look that are taken over or varied by themselves. */
export const STYLE_PARTS = [
  'fill',
  'stroke',
  'border',
  'shadow',
  'inner',
  'glow',
  'tint',
  'colours',
  'two',
  'blur',
  'streak',
  'motion-blur',
  'corner',
  'opacity',
  'blend',
  'cutout',
  'masks',
  'matte',
] as const;
/** A part of a look that is taken over or varied by itself. */
export type StylePart = (typeof STYLE_PARTS)[number];

/** Parts that are one colour, which can differ from layer to layer. */
export const STYLED_COLOURS = ['fill', 'stroke', 'border', 'shadow', 'glow', 'tint'] as const;
/** A part that is one colour. */
export type ColourPart = (typeof STYLED_COLOURS)[number];

const sourceSchema = z.discriminatedUnion('by', [
  /** Each layer keeps its look, but for what is varied. */
  z.strictObject({ by: z.literal('own') }),
  /** As another layer is; linked, they change whenever that one does. */
  z.strictObject({ by: z.literal('layer'), layer: idSchema, isLinked: z.literal(true).optional() }),
  /** As a look of the library says; with a revision as that one had it, else as the newest has it. */
  z.strictObject({ by: z.literal('look'), id: idSchema, revision: countSchema.optional() }),
]);

const colourVariation = z.discriminatedUnion('by', [
  /** Each so much further than the one before: lightness and chroma of OKLCH, hue in degrees. */
  z.strictObject({
    by: z.literal('step'),
    lightness: z.number().min(-1).max(1),
    chroma: z.number().min(-0.4).max(0.4),
    hue: z.number().min(-360).max(360),
  }),
  z.strictObject({
    by: z.literal('colours'),
    colours: z.array(colour).min(1).max(64),
    /** By turns, at random by the recipe's seed, or as a ramp along the order. */
    how: z.enum(['turns', 'random', 'ramp']),
  }),
  /** The colours of a palette of the library, or of one of its ramps. */
  z.strictObject({
    by: z.literal('palette'),
    id: idSchema,
    revision: countSchema.optional(),
    ramp: z.string().trim().min(1).max(40).optional(),
    how: z.enum(['turns', 'random', 'ramp']),
  }),
  /** The colour in a data column; layers without one keep theirs. */
  z.strictObject({ by: z.literal('data'), column: z.string().trim().min(1).max(60) }),
]);

const value = z.number().min(-1e6).max(1e6);

/** How a number of a look differs from layer to layer; in the channel's base unit, and held within what it can draw. */
const numberVariation = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('fixed'), value }),
  /** Each so much more than the one before, from what is there. */
  z.strictObject({ by: z.literal('step'), step: value }),
  /** Evenly from one end of the order to the other. */
  z.strictObject({ by: z.literal('ramp'), from: value, to: value }),
  /** At random between two, by the recipe's seed. */
  z.strictObject({ by: z.literal('random'), from: value, to: value }),
  /** The number in a data column; layers without one keep theirs. */
  z.strictObject({ by: z.literal('data'), column: z.string().trim().min(1).max(60) }),
]);

/** A look, or parts of one, on many layers: the same for all, or varied along the order. */
export const styleRecipeSchema = z.strictObject({
  operation: z.literal('style'),
  ...recipeBase,
  from: sourceSchema,
  parts: z.array(z.enum(STYLE_PARTS)).min(1, 'Choose at least one part of the look.').max(STYLE_PARTS.length),
  vary: z.partialRecord(z.enum(STYLED_COLOURS), colourVariation),
  /** How parameters of a look of the library are set. */
  parameters: z.record(parameterNameSchema, variationSchema).optional(),
  /** Numbers of the chosen parts, by their channels. */
  numbers: z.partialRecord(channelIdSchema, numberVariation).optional(),
});

/** A look on many layers. */
export type StyleRecipe = Readonly<z.infer<typeof styleRecipeSchema>>;
/** How a colour differs from layer to layer. */
export type ColourVariation = Readonly<z.infer<typeof colourVariation>>;

/** How a number differs from layer to layer. */
export type NumberVariation = Readonly<z.infer<typeof numberVariation>>;

/** Fills of each layer's own, a little darker from one to the next. */
export function createStyle(pick: Pick): StyleRecipe {
  return {
    operation: 'style',
    pick,
    order: { by: 'layered' },
    seed: 1,
    from: { by: 'own' },
    parts: ['fill'],
    vary: { fill: { by: 'step', lightness: -0.06, chroma: 0, hue: 0 } },
  };
}

interface Revised {
  readonly id: string;
  readonly revision?: number | undefined;
}

/** A style with the looks and palettes of the library in the revisions that are given; in the newest where none is. */
export function styleAt(
  recipe: StyleRecipe,
  uses: readonly { readonly id: string; readonly revision: number }[],
): StyleRecipe {
  const at = <T extends Revised>({ revision: _then, ...rest }: T): T => {
    const used = uses.find(({ id }) => id === rest.id);
    return { ...rest, ...(used ? { revision: used.revision } : {}) } as T;
  };
  const { from, vary } = recipe;
  const entries = Object.entries(vary).map(([part, one]) => [part, one.by === 'palette' ? at(one) : one]);
  return { ...recipe, from: from.by === 'look' ? at(from) : from, vary: Object.fromEntries(entries) as typeof vary };
}
