import * as z from '../../basics/schema';
import { cssColourSchema } from '../../basics/colour';
import { idSchema } from '../../basics/ids';
import { maskSchema } from './mask';
import { isSame } from './same';

const colourSchema = cssColourSchema(z.string().max(64));

const shareSchema = z.number().min(0).max(1);

/**
 * A fill: one colour; a straight gradient from the top of the layer's box (angle 0) turned clockwise; or one of many stops,
 * which runs along the line from (0, 0) to (1, 0), or out to the circle of radius 1, in a space that `map` takes into the
 * layer's box (0…1 across and down; the order of CSS `matrix()`).
 */
export const fillSchema = z.union([
  colourSchema,
  z.strictObject({ from: colourSchema, to: colourSchema, angle: z.number().min(-360).max(360) }),
  z.strictObject({
    kind: z.enum(['linear', 'radial']),
    stops: z
      .array(z.strictObject({ at: shareSchema, colour: colourSchema }))
      .min(2)
      .max(32),
    map: z.array(z.number().min(-1e6).max(1e6)).length(6),
  }),
]);

/** How a layer's colours are mixed with what lies behind it in its group. Source: W3C Compositing and Blending 1, section 10. */
export const BLEND_MODES = [
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;

/** Another layer that a layer is seen through: where that one is drawn, or everywhere else. */
const matteSchema = z.strictObject({
  layer: idSchema,
  how: z.enum(['reveals', 'hides']),
  /** By how bright the other one is, not only by where it is. */
  by: z.literal('brightness').optional(),
  /** Whether the other layer is drawn as well. */
  isShown: z.boolean(),
});

const pixels = z.number().min(-1e5).max(1e5);

/** A line along the edge of a layer, within it, on it or around it: one colour, or a gradient as fills have. Its width is a channel. */
const borderSchema = z.strictObject({
  colour: colourSchema,
  to: colourSchema.optional(),
  angle: z.number().min(-360).max(360).optional(),
  side: z.enum(['inside', 'on', 'outside']),
  /** Lengths of dashes and gaps, px. */
  dash: z.array(z.number().min(0).max(1e5)).min(1).max(8).optional(),
});

/** One more shadow, under the first, which stands still. */
const shadowSchema = z.strictObject({
  colour: colourSchema,
  x: pixels,
  y: pixels,
  blur: z.number().min(0).max(500),
  /** How far it reaches beyond what throws it, px; not at all where it is not stated. */
  spread: z.number().min(0).max(500).optional(),
});

/** Two colours that a layer is drawn in, as far as its channel says: what is dark in it, and what is light. */
const twoSchema = z.strictObject({ dark: colourSchema, light: colourSchema });

/** Blur by motion: how far the shutter is open, degrees of a frame; when it opens, degrees from the frame's time; and how many samples. */
const motionBlurSchema = z.strictObject({
  angle: z.number().min(1).max(720),
  phase: z.number().min(-360).max(360),
  samples: z.int().min(2).max(64),
});

/** What is taken out of a picture: a colour and those near it, or its dark or light part. How far is said by channels. */
const cutoutSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('colour'), colour: colourSchema }),
  z.strictObject({ by: z.literal('dark') }),
  z.strictObject({ by: z.literal('light') }),
]);

/** The parts of a look. */
const lookFields = {
  fill: fillSchema.optional(),
  /** Which parts of a path that crosses itself are inside; non-zero where it is not stated. */
  rule: z.enum(['evenodd']).optional(),
  stroke: colourSchema.optional(),
  cap: z.enum(['round', 'butt', 'square']).optional(),
  /** Corners of the stroke; round where it is not stated. */
  join: z.enum(['round', 'miter', 'bevel']).optional(),
  /** Lengths of dashes and gaps, px; a stroke that is drawn in part has none. */
  dash: z.array(z.number().min(0).max(1e5)).min(1).max(32).optional(),
  shadow: colourSchema.optional(),
  /** Further shadows, each under the ones before it. */
  shadows: z.array(shadowSchema).min(1).max(8).optional(),
  /** Colour of a shadow that falls into the layer. */
  inner: colourSchema.optional(),
  glow: colourSchema.optional(),
  border: borderSchema.optional(),
  /** Colour that is laid over the layer, as strongly as its channel says. */
  tint: colourSchema.optional(),
  two: twoSchema.optional(),
  cutout: cutoutSchema.optional(),
  masks: z.array(maskSchema).min(1).max(20).optional(),
  motionBlur: motionBlurSchema.optional(),
  blend: z.enum(BLEND_MODES).optional(),
  matte: matteSchema.optional(),
};

/** How a layer looks. */
export const lookSchema = z.strictObject(lookFields);

type LookFields = typeof lookFields;

/** Parts of a look, as they are to be; null takes one away, and what is not named stays. */
export const lookPartsSchema = z.strictObject(
  Object.fromEntries(
    Object.entries(lookFields).map(([part, schema]) => [part, (schema as z.ZodType).nullable().optional()]),
  ) as { [Part in keyof LookFields]: z.ZodOptional<z.ZodNullable<LookFields[Part]>> },
);

/** A line along a layer's edge. */
export type Border = z.infer<typeof borderSchema>;
/** Blur by motion. */
export type MotionBlur = z.infer<typeof motionBlurSchema>;
/** How a layer is drawn besides its shape. */
export type LayerLook = z.infer<typeof lookSchema>;
/** Parts of a look, as they are to be; null takes one away. */
export type LookParts = Readonly<z.infer<typeof lookPartsSchema>>;
/** The name of a part of a look. */
export type LookPart = keyof LayerLook;

/** A look with parts set to others, or taken away where they are null. */
export function withLookParts(look: LayerLook, parts: LookParts | undefined): LayerLook {
  if (!parts || Object.keys(parts).length === 0) return look;
  const entries = Object.entries({ ...look, ...parts }).filter(([, value]) => value !== null && value !== undefined);
  return Object.fromEntries(entries) as LayerLook;
}

/** Parts that lead from one look to another. */
export function lookPartsBetween(from: LayerLook, to: LayerLook): LookParts {
  if (from === to) return {};
  const parts = (Object.keys({ ...from, ...to }) as LookPart[]).filter((part) => !isSame(from[part], to[part]));
  return Object.fromEntries(parts.map((part) => [part, to[part] ?? null])) as LookParts;
}

/** The colour of a fill, or the one that a gradient begins with. */
export function firstColour(fill: LayerLook['fill']): string | undefined {
  if (fill === undefined || typeof fill === 'string') return fill;
  return 'from' in fill ? fill.from : fill.stops[0].colour;
}
