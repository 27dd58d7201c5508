import * as z from '../../basics/schema';
import { contrastRatio, cssColourSchema, rampColour } from '../../basics/colour';

const colour = cssColourSchema(z.string().trim().max(120));
const colourName = z
  .string()
  .trim()
  .min(1, 'A colour needs a name.')
  .max(40, 'A name has at most 40 characters.')
  .regex(/^[^<>\p{Cc}]+$/u, 'This must be plain text, without < and > and without control characters.');

/** Colours of a palette at most. */
export const MOST_COLOURS = 64;
/** Steps of a ramp. */
export const RAMP_STEPS = { least: 2, most: 24 } as const;

/** Named colours, and ramps in even steps of OKLCH between two or three of them. */
export const paletteSchema = z
  .strictObject({
    colours: z
      .array(z.strictObject({ name: colourName, colour }))
      .min(1, 'A palette has at least one colour.')
      .max(MOST_COLOURS),
    ramps: z
      .array(
        z.strictObject({
          name: colourName,
          /** Names of colours of the palette. */
          through: z.array(colourName).min(2).max(3),
          steps: z.int().min(RAMP_STEPS.least).max(RAMP_STEPS.most),
        }),
      )
      .max(16)
      .optional(),
  })
  .refine(({ colours }) => new Set(colours.map(({ name }) => name)).size === colours.length, {
    error: 'Two colours have the same name.',
    path: ['colours'],
  })
  .refine(({ ramps = [] }) => new Set(ramps.map(({ name }) => name)).size === ramps.length, {
    error: 'Two ramps have the same name.',
    path: ['ramps'],
  })
  .refine(
    ({ colours, ramps = [] }) =>
      ramps.every(({ through }) => through.every((one) => colours.some(({ name }) => name === one))),
    { error: 'A ramp goes through a colour that the palette does not have.', path: ['ramps'] },
  );

/** Named colours and ramps. */
export type Palette = Readonly<z.infer<typeof paletteSchema>>;

/** The colours of a ramp, from its first colour to its last; an empty list for one that is not there. */
export function rampOf({ colours, ramps = [] }: Palette, name: string): string[] {
  const ramp = ramps.find((one) => one.name === name);
  if (!ramp) return [];
  const stops = ramp.through.map((one) => colours.find((entry) => entry.name === one)?.colour ?? '#000000');
  return Array.from({ length: ramp.steps }, (_, i) => rampColour(stops, i / (ramp.steps - 1)));
}

/** The colours of a palette, or of one of its ramps. */
export function paletteColours(palette: Palette, ramp?: string): string[] {
  return ramp === undefined ? palette.colours.map(({ colour: text }) => text) : rampOf(palette, ramp);
}

/** Two colours of a palette and their contrast, 1…21. */
export interface ColourPair {
  readonly a: string;
  readonly b: string;
  readonly ratio: number;
}

/** The contrast of each two colours of a palette, by their names, the lowest first. Source: WCAG 2.2, contrast ratio. */
export function contrastPairs({ colours }: Pick<Palette, 'colours'>): ColourPair[] {
  return colours
    .flatMap((one, i) =>
      colours
        .slice(i + 1)
        .map((other) => ({ a: one.name, b: other.name, ratio: contrastRatio(one.colour, other.colour) })),
    )
    .sort((one, other) => one.ratio - other.ratio);
}
