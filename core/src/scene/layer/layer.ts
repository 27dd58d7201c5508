import * as z from '../../basics/schema';
import { CHANNELS, channelIdSchema, channelOf, type ChannelId } from '../../basics/channel';
import { oklabFromCss, type Oklab } from '../../basics/colour';
import { ticksSchema } from '../../basics/time';
import { idSchema, nameSchema } from '../../basics/ids';
import { pathDataSchema } from '../../formulas/preset';
import { axisTagSchema, CLIP_FILE, fileAt, FONT_FILE, PICTURE_FILE, SOUND_FILE } from '../file';
import { fontNameSchema } from './font';
import { firstColour, lookPartsSchema, lookSchema } from './look';
import { filesOfMask } from './mask';
import { keySchema, trackSchema, isInOrder, type Track } from './key';

const dataValueSchema = z.union([z.string().max(2_000), z.number()]);
const columnName = z.string().max(60);

/** Cells of a layer's row of data, by their columns, as they are to be; null takes one away, and what is not named stays. */
export const dataPartsSchema = z.record(columnName, dataValueSchema.nullable());
/** Cells of a layer's row of data, as they are to be. */
export type DataParts = Readonly<z.infer<typeof dataPartsSchema>>;

/** How a number that words show is written: digits after the point, the point itself, and what stands between thousands. */
const numberFormatSchema = z.strictObject({
  decimals: z.int().min(0).max(6),
  point: z.enum(['.', ',']),
  group: z.enum(['', ' ', ',', '.', '’']),
});

const textSourceSchema = z.strictObject({
  type: z.literal('text'),
  text: z.string().max(5_000),
  font: fontNameSchema,
  /** Address of the font's file, where it is one's own. */
  fontFile: z.string().regex(FONT_FILE, 'A font must be a file that is kept.').optional(),
  weight: z.int().min(100).max(900),
  /** Where a font of one's own stands on axes besides its weight, in each axis's own numbers. */
  axes: z.record(axisTagSchema, z.number().min(-1e5).max(1e5)).optional(),
  size: z.number().min(1).max(2_000),
  align: z.enum(['left', 'middle', 'right']),
  /** A line is so many times as high as its letters are large; 1.2 where it is not stated. */
  lineHeight: z.number().min(0.5).max(4).optional(),
  /** Room that is added between words, px. */
  wordSpacing: z.number().min(-1_000).max(1_000).optional(),
  /** Words with a number in them: the value of `words.number` stands where the first # is, or in place of all words without one. */
  number: numberFormatSchema.optional(),
  /** A sign behind the last letter that is shown, while not all of them are. */
  caret: z.string().min(1).max(8).optional(),
});

const sourceSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('rectangle') }),
  z.strictObject({ type: z.literal('ellipse') }),
  /** An SVG path in the layer's box: 0…100 across and down. */
  z.strictObject({ type: z.literal('path'), d: z.string().min(1).max(100_000) }),
  textSourceSchema,
  z.strictObject({
    type: z.literal('picture'),
    href: z
      .string()
      .max(4_000_000)
      .regex(
        new RegExp(`^data:image/(png|jpeg|webp|svg\\+xml)[;,]|${PICTURE_FILE.source}`),
        'A picture must be a file that is kept, or embedded as a data: address.',
      ),
    /** Size of the picture in its own pixels, as it is shown; unsaid where it is embedded. */
    width: z.int().min(1).max(100_000).optional(),
    height: z.int().min(1).max(100_000).optional(),
  }),
  /**
   * A moving picture: where in it the layer's in point lies, how long it is, how fast it is played (0 holds that one frame), and
   * whether it begins again at its end, where it otherwise stands still. Its channel `clip.time` with keys takes over.
   */
  z.strictObject({
    type: z.literal('clip'),
    href: z.string().regex(CLIP_FILE, 'A moving picture must be a file that is kept.'),
    width: z.int().min(1).max(100_000),
    height: z.int().min(1).max(100_000),
    from: ticksSchema.min(0),
    length: ticksSchema.min(1),
    pace: z.number().min(0).max(100),
    loops: z.literal(true).optional(),
  }),
  /** A sound: the file, where in it the layer's in point lies and how long it is, and how loud it is played. */
  z.strictObject({
    type: z.literal('sound'),
    href: z.string().regex(SOUND_FILE, 'A sound must be a file that is kept.'),
    from: ticksSchema.min(0),
    length: ticksSchema.min(1),
    gain: z.number().min(0).max(4),
  }),
  z.strictObject({ type: z.literal('none') }),
]);

/** Ways in which words are split into layers. */
export const SPLIT_WAYS = ['letters', 'words', 'lines'] as const;

/** What a group was before it was split into what is in it, so that it can be joined again, or split anew. */
const splitSchema = z.strictObject({
  by: z.enum(SPLIT_WAYS),
  source: textSourceSchema,
  look: lookSchema,
});

/**
 * A line that a layer goes along by its channel `path.distance`: SVG path data in px from its position, and whether it
 * turns with the line. Null is none.
 */
const motionPathSchema = z.strictObject({ d: pathDataSchema, turns: z.boolean() }).nullable();

/**
 * Of what in a group a layer is the copy, and of the group itself, and of each copy of it, the row of the table that it shows.
 */
const copySchema = z.strictObject({ of: idSchema, row: z.string().max(2_000).optional() });

/** Height of a line where none is stated, in sizes of its letters. */
const USUAL_LINE = 1.2;

/** Height of a line of words, px. */
export function lineStep({ size, lineHeight = USUAL_LINE }: z.infer<typeof textSourceSchema>): number {
  return size * lineHeight;
}

/** Kinds of layers. */
export const LAYER_KINDS = ['card', 'word', 'picture', 'group', 'guide', 'sound'] as const;
/** The kind of a layer. */
export type LayerKind = (typeof LAYER_KINDS)[number];

const spanSchema = z
  .strictObject({ in: ticksSchema, out: ticksSchema })
  .refine((span) => span.out > span.in, { error: 'A layer must end after it begins.' });

/** In point and out point of a layer, in scene time. */
export type LayerSpan = Readonly<z.infer<typeof spanSchema>>;

const restNumber = z.number().min(-1e9).max(1e9);

/**
 * What runs changed on a layer, as it would be without any of them. A channel with an empty list has no keys then, a
 * rest value that is null is not stated then; what is not named here no run touches.
 */
export const layerBaseSchema = z.strictObject({
  /** Every channel with keys is named: a run moves or clears whatever keys there are. */
  whole: z.literal(true).optional(),
  span: spanSchema.optional(),
  rest: z.partialRecord(channelIdSchema, restNumber.nullable()).optional(),
  look: lookPartsSchema.optional(),
  data: dataPartsSchema.optional(),
  tracks: z
    .partialRecord(
      channelIdSchema,
      z.array(keySchema).max(100_000).refine(isInOrder, {
        error: 'Keys must be in order of time, with no two at the same time.',
      }),
    )
    .optional(),
});

/** What of a layer runs touch, as it would be without them. */
export type LayerBase = Readonly<z.infer<typeof layerBaseSchema>>;

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
    span: spanSchema,
    rest: z.partialRecord(channelIdSchema, restNumber),
    tracks: z.partialRecord(channelIdSchema, trackSchema),
    base: layerBaseSchema.optional(),
    look: lookSchema,
    source: sourceSchema,
    path: motionPathSchema.optional(),
    split: splitSchema.nullable().optional(),
    copy: copySchema.optional(),
    data: z.record(columnName, dataValueSchema),
  })
  .describe('A layer. Key times are scene times.');

/** One layer of a scene. */
export interface Layer extends Readonly<z.infer<typeof layerSchema>> {}
const NO_DATA: DataParts = {};

/** A row of data with cells set to others, or taken away where they are null. */
export function withDataParts(data: Layer['data'], parts: DataParts | undefined): Layer['data'] {
  if (!parts || Object.keys(parts).length === 0) return data;
  return Object.fromEntries(
    Object.entries({ ...data, ...parts }).flatMap(([column, cell]) => (cell === null ? [] : [[column, cell] as const])),
  );
}

/** Cells that lead from one row of data to another. */
export function dataPartsBetween(from: Layer['data'], to: Layer['data']): DataParts {
  if (from === to) return NO_DATA;
  const columns = Object.keys({ ...from, ...to }).filter((column) => from[column] !== to[column]);
  return columns.length === 0 ? NO_DATA : Object.fromEntries(columns.map((column) => [column, to[column] ?? null]));
}

/** Words of a layer, and how they are set. */
export type TextSource = z.infer<typeof textSourceSchema>;
/** A moving picture, and how it is played. */
export type ClipSource = Extract<z.infer<typeof sourceSchema>, { type: 'clip' }>;
/** How a number that words show is written. */
export type NumberFormat = z.infer<typeof numberFormatSchema>;

/** What a layer shows: a shape, words, a picture, or nothing. */
export type LayerSource = Layer['source'];

/** True for a layer that is drawn where it is not hidden: guides and sounds are not. */
export function isSeen({ kind }: Pick<Layer, 'kind'>): boolean {
  return kind !== 'guide' && kind !== 'sound';
}

/** Ids of the layers that others are revealed or hidden by and that are not drawn themselves. */
export function undrawnMattes(layers: readonly Pick<Layer, 'look'>[]): ReadonlySet<string> {
  return new Set(layers.flatMap(({ look: { matte } }) => (matte && !matte.isShown ? [matte.layer] : [])));
}

function fileOfSource(source: Layer['source']): string | undefined {
  if (source.type === 'picture' || source.type === 'clip' || source.type === 'sound') return source.href;
  return source.type === 'text' ? source.fontFile : undefined;
}

/** Names of the files that a layer uses, each once: what it shows, what it is masked by, with runs and without, and what it was split from. */
export function filesOf(
  layer: Pick<Layer, 'source' | 'look' | 'split'> & { readonly base?: Pick<LayerBase, 'look'> },
): string[] {
  const { source, look, base, split } = layer;
  const own = [fileOfSource(source), split ? fileOfSource(split.source) : undefined];
  // Most layers use none, and all of a scene are asked at each of its changes.
  if (!own[0] && !own[1] && !look.masks && !base?.look?.masks && !split?.look.masks) return [];
  const looks = [look, base?.look, split?.look];
  const masks = looks.flatMap((one) => one?.masks ?? []).flatMap(filesOfMask);
  const names = [...own, ...masks].map((address) => (address === undefined ? null : fileAt(address)));
  return [...new Set(names.filter((name) => name !== null))];
}

type ReadColour = (text: string) => Oklab | null;

/** True where a layer's stroke is, or may be, drawn in part; it has no dashes then. */
export function isTrimmed({ rest, tracks }: Pick<Layer, 'rest' | 'tracks'>): boolean {
  return (['stroke.start', 'stroke.end', 'stroke.shift'] as const).some(
    (id) => rest[id] !== undefined || tracks[id] !== undefined,
  );
}

/** Base colour of a fill or the stroke; of a gradient, where it begins. Null where the layer has none. */
function baseColour({ look }: Layer, part: 'fill' | 'stroke', read: ReadColour): Oklab | null {
  const stated = part === 'stroke' ? look.stroke : firstColour(look.fill);
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

const DEFAULTS = Float64Array.from(CHANNELS, (channel) => channel.default);

/**
 * Writes all rest values into `out` from an index on, in the order of the channels' slots; `read` may remember colours
 * from layer to layer.
 */
export function writeRestValues(layer: Layer, read: ReadColour, out: Float64Array, from: number): void {
  out.set(DEFAULTS, from);
  for (const part of ['fill', 'stroke'] as const) {
    const colour = baseColour(layer, part, read);
    if (!colour) continue;
    for (const letter of ['l', 'a', 'b'] as const) out[from + channelOf(`${part}.${letter}`).slot] = colour[letter];
  }
  for (const id in layer.rest) out[from + channelOf(id as ChannelId).slot] = layer.rest[id as ChannelId] as number;
}

/** The keyed channels of a layer with their keys. */
export function tracksOf({ tracks }: Pick<Layer, 'tracks'>): (readonly [ChannelId, Track])[] {
  return Object.entries(tracks) as (readonly [ChannelId, Track])[];
}

/** How many keys a layer has. */
export function keyCount({ tracks }: Pick<Layer, 'tracks'>): number {
  let count = 0;
  for (const channel in tracks) count += tracks[channel as ChannelId]?.length ?? 0;
  return count;
}

/** Times of all keys of a layer, ascending, each once. */
export function keyTimes(layer: Layer): number[] {
  const times: number[] = [];
  for (const channel in layer.tracks) {
    for (const { at } of layer.tracks[channel as ChannelId] as Track) times.push(at);
  }
  times.sort((a, b) => a - b);
  return times.filter((at, i) => at !== times[i - 1]);
}
