import * as z from '../../basics/schema';
import { easingSchema } from '../../basics/easing';
import { cssColourSchema } from '../../basics/colour';
import { countSchema, idSchema } from '../../basics/ids';
import { pathDataSchema } from '../../formulas/preset';
import type { Pick } from '../layer';
import { momentSchema, recipeBase, seedSchema, timeText } from './parts';

const share = z.number().min(-10).max(10);
const extent = z.number().min(0).max(20);
/** A part of the frame: its middle and its size, in shares of it. */
const area = { x: share, y: share, width: extent, height: extent };

/** Where copies can begin. */
const places = [
  /** Where what is multiplied rests. */
  z.strictObject({ by: z.literal('own') }),
  /** From there along a direction, 0° to the right and 90° down, by a share of the frame's longer side; at random up to `stray` degrees beside it. */
  z.strictObject({
    by: z.literal('direction'),
    degrees: z.number().min(-3600).max(3600),
    distance: share,
    stray: z.number().min(0).max(180),
  }),
  /** At random in a part of the frame, evenly. */
  z.strictObject({ by: z.literal('spread'), shape: z.enum(['box', 'ellipse']), ...area }),
  /** At random in a part of the frame, no two nearer than a gap in px where there is room. */
  z.strictObject({ by: z.literal('apart'), ...area, gap: z.number().min(1).max(10_000) }),
  /** In rows and columns of a part of the frame. */
  z.strictObject({ by: z.literal('grid'), columns: z.int().min(1).max(1_000), ...area }),
  /** Evenly along a line: SVG path data in px of the frame. */
  z.strictObject({ by: z.literal('line'), d: pathDataSchema }),
] as const;
const placeSchema = z.discriminatedUnion('by', [...places]);

const endSchema = z.discriminatedUnion('by', [
  /** Where it began. */
  z.strictObject({ by: z.literal('stays') }),
  /** So far from where it began. */
  ...places,
]);

/** A number between two, drawn for each copy; the same twice is no chance. */
function range(least: number, most: number) {
  return z.tuple([z.number().min(least).max(most), z.number().min(least).max(most)]);
}

const changeOf = (least: number, most: number) =>
  z.strictObject({ begin: range(least, most), end: range(least, most) });

const colour = cssColourSchema(z.string().trim().max(64));

const presetsSchema = z.strictObject({
  presets: z
    .array(
      z.strictObject({
        id: idSchema,
        /** As that revision had it; else as the newest has it. */
        revision: countSchema.optional(),
        /** How often it comes against the others. */ weight: z.number().gt(0).max(1_000),
      }),
    )
    .min(1)
    .max(20),
  length: timeText,
});

/** Copies of layers in a stretch of the scene, each with its own place, way, life and look. */
export const multiplyRecipeSchema = z.strictObject({
  operation: z.literal('multiply'),
  ...recipeBase,
  copies: z.int().min(1, 'At least one copy.').max(2_000, 'At most 2,000 copies.'),
  from: momentSchema,
  to: momentSchema,
  /** How long each lives. */
  life: z.discriminatedUnion('by', [
    z.strictObject({ by: z.literal('fixed'), length: timeText }),
    z.strictObject({ by: z.literal('random'), least: timeText, most: timeText }),
    z.strictObject({ by: z.literal('rest') }),
  ]),
  /** When they begin: one after the other in even steps, or at random. */
  starts: z.enum(['even', 'random']),
  /** Which of the layers each is a copy of. */
  sources: z.enum(['turns', 'random']),
  begin: placeSchema,
  end: endSchema,
  /** How the way and whatever else changes goes from beginning to end. */
  ease: easingSchema,
  /** Factors of the layer's own size. */
  scale: changeOf(0, 100),
  /** Degrees beside the layer's own turn. */
  turn: changeOf(-36_000, 36_000),
  /** Factors of the layer's own opacity. */
  opacity: changeOf(0, 1),
  in: presetsSchema.optional(),
  out: presetsSchema.optional(),
  colours: z
    .strictObject({
      colours: z
        .array(z.strictObject({ colour, weight: z.number().gt(0).max(1_000) }))
        .min(1)
        .max(64),
      how: z.enum(['turns', 'random', 'ramp']),
      /** Share of copies that are drawn as an outline alone. */
      outlined: z.number().min(0).max(1),
    })
    .optional(),
  /** Seeds of their own for places, times and looks; the recipe's where one is not stated. */
  seeds: z
    .strictObject({ place: seedSchema.optional(), time: seedSchema.optional(), look: seedSchema.optional() })
    .optional(),
});

/** Copies of layers in a stretch of the scene. */
export type MultiplyRecipe = Readonly<z.infer<typeof multiplyRecipeSchema>>;
/** Where copies begin. */
export type CopyPlace = MultiplyRecipe['begin'];
/** Where copies end. */
export type CopyEnd = MultiplyRecipe['end'];
/** Presets of which each copy gets one. */
export type CopyPresets = NonNullable<MultiplyRecipe['in']>;

const SAME = { begin: [1, 1], end: [1, 1] } satisfies MultiplyRecipe['scale'];

/** Five colours of a night, some more often than others: what colours of copies begin with. */
export function usualColours(): NonNullable<MultiplyRecipe['colours']> {
  return {
    colours: [
      { colour: '#f3c98b', weight: 4 },
      { colour: '#5bb59d', weight: 3 },
      { colour: '#c7761b', weight: 3 },
      { colour: '#d5e6dc', weight: 2 },
      { colour: '#8b4fa0', weight: 2 },
    ],
    how: 'random',
    outlined: 0,
  };
}

/** Thirty copies over two seconds, spread over the frame. */
export function createMultiply(pick: Pick): MultiplyRecipe {
  return {
    operation: 'multiply',
    pick,
    order: { by: 'layered' },
    seed: 1,
    copies: 30,
    from: { by: 'time', at: '0:00' },
    to: { by: 'time', at: '2s' },
    life: { by: 'fixed', length: '1s' },
    starts: 'even',
    sources: 'turns',
    begin: { by: 'spread', shape: 'box', x: 0.5, y: 0.5, width: 1, height: 1 },
    end: { by: 'stays' },
    ease: { type: 'bezier', x1: 0.2, y1: 0, x2: 0.3, y2: 1 },
    scale: SAME,
    turn: { begin: [0, 0], end: [0, 0] },
    opacity: SAME,
  };
}

/** Beginning and end of everything exchanged; where a copy stayed, it still does. */
export function exchanged(recipe: MultiplyRecipe): MultiplyRecipe {
  const { begin, end, scale, turn, opacity, in: entrance, out, ...rest } = recipe;
  const swap = <T>(change: { begin: T; end: T }): { begin: T; end: T } => ({ begin: change.end, end: change.begin });
  return {
    ...rest,
    begin: end.by === 'stays' ? begin : end,
    end: end.by === 'stays' ? end : begin,
    scale: swap(scale),
    turn: swap(turn),
    opacity: swap(opacity),
    ...(entrance ? { in: entrance } : {}),
    ...(out ? { out } : {}),
  };
}

/** Copies whose presets are in the revisions that are given; in the newest where none is. */
export function copiesAt(
  recipe: MultiplyRecipe,
  uses: readonly { readonly id: string; readonly revision: number }[],
): MultiplyRecipe {
  const at = (side: CopyPresets): CopyPresets => ({
    ...side,
    presets: side.presets.map(({ revision: _then, ...preset }) => {
      const used = uses.find(({ id }) => id === preset.id);
      return used ? { ...preset, revision: used.revision } : preset;
    }),
  });
  const { in: entrance, out } = recipe;
  return { ...recipe, ...(entrance ? { in: at(entrance) } : {}), ...(out ? { out: at(out) } : {}) };
}
