import * as z from '../../basics/schema';
import { countSchema, idSchema } from '../../basics/ids';
import type { Pick } from '../layer';
import { parameterNameSchema } from '../../formulas/preset';
import { moments, recipeBase, seedSchema, spreadSchema, timeText, valueText } from './parts';

const finish = z.strictObject({ by: z.literal('finish'), at: timeText });

const startSchema = z.discriminatedUnion('by', [
  /** Entrances from each layer's in point, exits to its out point. */
  z.strictObject({ by: z.literal('layer') }),
  ...moments,
  /** Such that the last one ends at this time of the scene. */
  finish,
]);

/** Those that would begin too late begin again with the first: beyond the last cue, or over after the scene's end. */
const wrapSchema = z.literal(true).optional();

const spacingSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('gap'), gap: timeText }),
  /** The starts spread over this time, from the first to the last; evenly, or along a curve. */
  z.strictObject({ by: z.literal('total'), total: timeText, curve: spreadSchema }),
  /** Each begins as the one before ends, after a gap; with a negative one they overlap. */
  z.strictObject({ by: z.literal('relay'), gap: timeText }),
  /** Each on a cue of the scene, from the first one at or after the start. */
  z.strictObject({ by: z.literal('cues'), wrap: wrapSchema }),
  /** Rows that take turns: `apart` from row to row, `hold` from one in a row to its replacement. */
  z.strictObject({
    by: z.literal('rows'),
    rows: z.int().min(1).max(10_000),
    apart: timeText,
    hold: timeText,
    wrap: wrapSchema,
  }),
  /** One gap, such that the last one ends at this time of the scene. */
  finish,
]);

const lengthSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('preset') }),
  z.strictObject({ by: z.literal('fixed'), length: timeText }),
  z.strictObject({ by: z.literal('factor'), factor: z.number().gt(0).max(1000) }),
  /** All of it, from the first start to the last end, fits into this time. */
  z.strictObject({ by: z.literal('fit'), window: timeText }),
  /** From how far each layer travels, at so many pixels a second. */
  z.strictObject({ by: z.literal('speed'), speed: z.number().gt(0).max(1e6) }),
  z.strictObject({ by: z.literal('random'), from: timeText, to: timeText, seed: seedSchema }),
  /** One length, such that the last one ends at this time of the scene. */
  finish,
]);

/** How a value differs from layer to layer. */
export const variationSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('fixed'), value: valueText }),
  z.strictObject({ by: z.literal('cycle'), values: z.array(valueText).min(1).max(100) }),
  z.strictObject({ by: z.literal('ramp'), from: valueText, to: valueText, curve: spreadSchema }),
  z.strictObject({
    by: z.literal('random'),
    from: valueText,
    to: valueText,
    seed: seedSchema,
    /** Normal: around the middle, three deviations to each limit, never beyond. */
    spread: z.enum(['uniform', 'normal']).optional(),
  }),
  /** Each layer's value in a data column; the parameter's default where it has none. */
  z.strictObject({ by: z.literal('data'), column: z.string().trim().min(1).max(60) }),
]);

/** Values of one layer that were set by hand over what the sentence gives. */
const overrideSchema = z.strictObject({
  start: timeText.optional(),
  length: timeText.optional(),
  parameters: z.record(parameterNameSchema, valueText).optional(),
});

/** Operations that put a preset on layers. */
export const PRESET_OPERATIONS = ['bring-in', 'send-out', 'accent', 'move-throughout'] as const;

/**
 * What to do over keys that are already there. `take-place`: an earlier entrance of the layer goes where this is one,
 * and an earlier exit where this is one; else as `replace`.
 */
export const OVER_EXISTING = ['take-place', 'replace', 'replace-channels', 'add', 'leave'] as const;

/** Names that operations had once; what was written with them reads as before. */
const OLD_OPERATIONS: Readonly<Record<string, PresetOperation>> = { 'carry-through': 'move-throughout' };

/** The present name of an operation. */
export function currentOperation<T>(operation: T): T | PresetOperation {
  return typeof operation === 'string' && Object.hasOwn(OLD_OPERATIONS, operation)
    ? OLD_OPERATIONS[operation]
    : operation;
}

const operationSchema = z
  .enum([...PRESET_OPERATIONS, 'carry-through'])
  .overwrite((operation) => currentOperation(operation)) as unknown as z.ZodEnum<{
  [K in (typeof PRESET_OPERATIONS)[number]]: K;
}>;

/** Who × what × in which order × how spaced × how long × over existing keys how. Plain data. */
export const presetRecipeSchema = z.strictObject({
  operation: operationSchema,
  preset: z.strictObject({
    id: idSchema,
    /** A revision to keep to; without it the newest published one is used. */
    revision: countSchema.optional(),
    /** The mirror image in time of an entrance, as an exit. */
    mirrored: z.literal(true).optional(),
  }),
  ...recipeBase,
  start: startSchema,
  spacing: spacingSchema,
  /** Whether whole layers move to their starts, or only the new keys. */
  moves: z.enum(['keys', 'layers']),
  length: lengthSchema,
  parameters: z.record(parameterNameSchema, variationSchema),
  existing: z.enum(OVER_EXISTING),
  overrides: z.record(idSchema, overrideSchema).optional(),
});

/** A preset on layers. */
export type PresetRecipe = Readonly<z.infer<typeof presetRecipeSchema>>;
/** An operation that puts a preset on layers. */
export type PresetOperation = (typeof PRESET_OPERATIONS)[number];
/** When the first one begins. */
export type Start = PresetRecipe['start'];
/** How the others follow. */
export type Spacing = PresetRecipe['spacing'];
/** How long each lasts. */
export type Length = PresetRecipe['length'];
/** How a parameter’s value differs from layer to layer. */
export type Variation = Readonly<z.infer<typeof variationSchema>>;
/** Values of one layer that were set by hand. */
export type Override = NonNullable<PresetRecipe['overrides']>[string];
/** What to do over keys that are already there. */
export type OverExisting = PresetRecipe['existing'];

/** Entrances and exits take the place of earlier ones; what moves a layer that is there is added on top. */
const OVER_AT_FIRST: Readonly<Record<PresetOperation, OverExisting>> = {
  'bring-in': 'take-place',
  'send-out': 'take-place',
  accent: 'add',
  'move-throughout': 'add',
};

/** A recipe at its plainest: as layered, all at once, each layer from its own in or out point, as the preset is made. */
export function createRecipe(operation: PresetOperation, preset: string, pick: Pick): PresetRecipe {
  return {
    operation,
    preset: { id: preset },
    pick,
    order: { by: 'layered' },
    start: { by: 'layer' },
    spacing: { by: 'gap', gap: '0f' },
    moves: 'keys',
    length: { by: 'preset' },
    parameters: {},
    existing: OVER_AT_FIRST[operation],
    seed: 1,
  };
}
