import * as z from 'zod';
import { CHANNELS, channelIdSchema, channelOf, type ChannelId } from '../channel';
import { oklabFromCss, type Oklab } from '../colour';
import { ticksSchema } from '../time';
import { idSchema, trackSchema, type Track } from './key';

export const nameSchema = z.string().trim().min(1, 'A name is needed.').max(200, 'A name has at most 200 characters.');

const colourSchema = z
  .string()
  .max(64)
  .refine((text) => oklabFromCss(text) !== null, {
    error: 'This is not a CSS colour, such as #f3c98b.',
  });

/** A fill: one colour, or a straight gradient from the top of the layer's box (angle 0) turned clockwise. */
const fillSchema = z.union([
  colourSchema,
  z.strictObject({ from: colourSchema, to: colourSchema, angle: z.number().min(-360).max(360) }),
]);

const lookSchema = z.strictObject({
  fill: fillSchema.optional(),
  stroke: colourSchema.optional(),
  cap: z.enum(['round', 'butt']).optional(),
  shadow: colourSchema.optional(),
});

/** Font families that ship with the application. */
export const FONTS = ['Bricolage Grotesque', 'Spline Sans', 'Spline Sans Mono'] as const;

const sourceSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('rectangle') }),
  z.strictObject({ type: z.literal('ellipse') }),
  /** An SVG path in the layer's box: 0…100 across and down. */
  z.strictObject({ type: z.literal('path'), d: z.string().min(1).max(20_000) }),
  z.strictObject({
    type: z.literal('text'),
    text: z.string().max(5_000),
    font: z.enum(FONTS),
    weight: z.int().min(100).max(900),
    size: z.number().min(1).max(2_000),
    align: z.enum(['left', 'middle', 'right']),
  }),
  z.strictObject({
    type: z.literal('picture'),
    href: z
      .string()
      .max(4_000_000)
      .regex(/^data:image\/(png|jpeg|webp|svg\+xml)[;,]/, 'A picture must be embedded as a data: address.'),
  }),
  z.strictObject({ type: z.literal('none') }),
]);

export const LAYER_KINDS = ['card', 'word', 'picture', 'group', 'guide'] as const;
export type LayerKind = (typeof LAYER_KINDS)[number];

/** One layer of a scene: its span, its rest pose, its keys and how it looks. */
export const layerSchema = z
  .strictObject({
    id: idSchema,
    name: nameSchema,
    kind: z.enum(LAYER_KINDS),
    parent: idSchema.nullable(),
    tags: z.array(z.string().trim().min(1).max(60)).max(50),
    locked: z.boolean(),
    hidden: z.boolean(),
    span: z
      .strictObject({ in: ticksSchema, out: ticksSchema })
      .refine((span) => span.out > span.in, { error: 'A layer must end after it begins.' }),
    rest: z.partialRecord(channelIdSchema, z.number().min(-1e9).max(1e9)),
    tracks: z.partialRecord(channelIdSchema, trackSchema),
    look: lookSchema,
    source: sourceSchema,
    data: z.record(z.string().max(60), z.union([z.string().max(2_000), z.number()])),
  })
  .describe('A layer. Key times are scene times.');

export type Layer = Readonly<z.infer<typeof layerSchema>>;
export type LayerLook = Layer['look'];
export type LayerSource = Layer['source'];

type ReadColour = (text: string) => Oklab | null;

/** Base colour of a fill or the stroke; of a gradient, where it begins. Null where the layer has none. */
function baseColour({ look }: Layer, part: 'fill' | 'stroke', read: ReadColour): Oklab | null {
  const stated = part === 'stroke' ? look.stroke : typeof look.fill === 'object' ? look.fill.from : look.fill;
  return stated === undefined ? null : read(stated);
}

/** Channels that are parts of a colour. */
const COLOUR_CHANNELS: ReadonlyMap<string, readonly ['fill' | 'stroke', keyof Oklab]> = new Map(
  (['fill', 'stroke'] as const).flatMap((part) =>
    (['l', 'a', 'b'] as const).map((letter) => [`${part}.${letter}`, [part, letter] as const] as const),
  ),
);

/** Value of a channel in a layer's rest pose: stated, from its colours, or the channel's default. */
export function restValue(layer: Layer, id: ChannelId): number {
  const stated = layer.rest[id];
  if (stated !== undefined) return stated;
  const part = COLOUR_CHANNELS.get(id);
  const colour = part && baseColour(layer, part[0], oklabFromCss);
  return part && colour ? colour[part[1]] : channelOf(id).default;
}

const DEFAULTS = CHANNELS.map((channel) => channel.default);

/** All rest values in the order of the channels' slots; `read` may remember colours from layer to layer. */
export function restValues(layer: Layer, read: ReadColour = oklabFromCss): number[] {
  const values = [...DEFAULTS];
  for (const part of ['fill', 'stroke'] as const) {
    const colour = baseColour(layer, part, read);
    if (!colour) continue;
    for (const letter of ['l', 'a', 'b'] as const) values[channelOf(`${part}.${letter}`).slot] = colour[letter];
  }
  for (const id in layer.rest) values[channelOf(id as ChannelId).slot] = layer.rest[id as ChannelId] as number;
  return values;
}

/** The keyed channels of a layer with their keys. */
export function tracksOf(layer: Layer): (readonly [ChannelId, Track])[] {
  return Object.entries(layer.tracks) as (readonly [ChannelId, Track])[];
}

/** Times of all keys of a layer, ascending, each once. */
export function keyTimes(layer: Layer): number[] {
  const times = new Set(tracksOf(layer).flatMap(([, keys]) => keys.map(({ at }) => at)));
  return [...times].sort((a, b) => a - b);
}
