import * as z from '../../basics/schema';
import { CHANNEL_IDS, channelIdSchema, type ChannelId } from '../../basics/channel';
import { easingSchema, linkOf, type Easing } from '../../basics/easing';
import { ticksSchema } from '../../basics/time';
import {
  keyValueSchema,
  layerBaseSchema,
  layerSchema,
  originSchema,
  type ItemRevision,
  type Key,
  type Layer,
  type LayerBase,
} from '../../scene/layer';

/** Numbers of one key in a packed track: time, value, place of its easing, and of its origin (0 for none, else one more). */
const NUMBERS = 4;
const MOST_KEYS = 100_000;

/** A list of numbers that is looked at in one go: a scene has millions of them, and a schema of numbers makes a note of each. */
const packedTrackSchema = z.custom<number[]>(
  (data) => Array.isArray(data) && data.length <= MOST_KEYS * NUMBERS && data.every(Number.isFinite),
  { error: 'The keys of a channel must be a list of at most 400,000 numbers.' },
);
const packedTracksSchema = z.partialRecord(channelIdSchema, packedTrackSchema);

const packedLayerSchema = layerSchema.omit({ tracks: true, base: true }).extend({
  tracks: packedTracksSchema,
  base: layerBaseSchema.omit({ tracks: true }).extend({ tracks: packedTracksSchema.optional() }).optional(),
});

/**
 * Layers as they travel and are stored: their keys as rows of numbers, with easings and origins listed once. A tenth of
 * what they are as plain JSON, and as quickly read.
 */
export const packedLayersSchema = z
  .strictObject({
    eases: z.array(easingSchema),
    origins: z.array(originSchema),
    layers: z.array(packedLayerSchema),
  })
  .superRefine((packed, context) => {
    const message = packedProblem(packed);
    if (message) context.addIssue({ code: 'custom', path: ['layers'], message });
  });

/** Layers with their keys as rows of numbers. */
export type PackedLayers = Readonly<z.infer<typeof packedLayersSchema>>;
type PackedTracks = Readonly<z.infer<typeof packedTracksSchema>>;

/**
 * Asks a schema of numbers whether they lie within its limits, and again only of one that lies beyond those that were fine:
 * asking it of every track takes longer than all else.
 */
function createLimits(schema: z.ZodType<number>): (value: number) => string | null {
  let [low, high] = [0, 0];
  return (value) => {
    if (value >= low && value <= high) return null;
    const read = schema.safeParse(value);
    if (!read.success) return read.error.issues[0].message;
    [low, high] = [Math.min(low, value), Math.max(high, value)];
    return null;
  };
}

const timeProblem = createLimits(ticksSchema);
const valueProblem = createLimits(keyValueSchema);

/** What is wrong with the numbers of a packed track, as a sentence; null when all is well. */
function trackProblem(numbers: readonly number[], isEmptyFine: boolean, eases: number, origins: number): string | null {
  if (numbers.length % NUMBERS !== 0) return 'A track of keys is cut off in the middle of a key.';
  if (numbers.length === 0 && !isEmptyFine) return 'A track without keys must be left out.';
  let before = -Infinity;
  let [low, high] = [0, 0];
  for (let i = 0; i < numbers.length; i += NUMBERS) {
    const [at, value, ease, origin] = [numbers[i], numbers[i + 1], numbers[i + 2], numbers[i + 3]];
    if (!(at > before)) return 'Keys must be in order of time, with no two at the same time.';
    if (!Number.isInteger(at)) return 'The time of a key must be a whole number of ticks.';
    if (!(ease >= 0 && ease < eases && Number.isInteger(ease))) return 'A key has an easing that is not listed.';
    if (!(origin >= 0 && origin <= origins && Number.isInteger(origin)))
      return 'A key has an origin that is not listed.';
    before = at;
    if (value < low) low = value;
    if (value > high) high = value;
    if (value !== value) return 'The value of a key must be a number.';
  }
  if (numbers.length === 0) return null;
  return timeProblem(numbers[0]) ?? timeProblem(before) ?? valueProblem(low) ?? valueProblem(high);
}

function packedProblem({ eases, origins, layers }: z.infer<typeof packedLayersSchema>): string | null {
  for (const { name, tracks, base } of layers) {
    for (const [part, isEmptyFine] of [
      [tracks, false],
      [base?.tracks, true],
    ] as const) {
      for (const numbers of Object.values(part ?? {})) {
        const message = trackProblem(numbers, isEmptyFine, eases.length, origins.length);
        if (message) return `Layer “${name}”: ${message}`;
      }
    }
  }
  return null;
}

/** Lists things once and says the place of each. */
function createList<T extends object>(): { readonly list: T[]; readonly place: (one: T) => number } {
  const list: T[] = [];
  const byObject = new Map<T, number>();
  const byText = new Map<string, number>();
  const place = (one: T): number => {
    const same = byObject.get(one);
    if (same !== undefined) return same;
    const text = JSON.stringify(one);
    const known = byText.get(text) ?? list.length;
    if (known === list.length) {
      list.push(one);
      byText.set(text, known);
    }
    byObject.set(one, known);
    return known;
  };
  return { list, place };
}

type Tracks = Partial<Record<ChannelId, readonly Key[]>>;

/** Layers with their keys as rows of numbers. */
export function packLayers(layers: readonly Layer[]): PackedLayers {
  const eases = createList<Easing>();
  const origins = createList<NonNullable<Key['by']>>();
  const pack = (tracks: Tracks): PackedTracks => {
    const packed: Partial<Record<ChannelId, number[]>> = {};
    for (const channel in tracks) {
      const keys = tracks[channel as ChannelId] ?? [];
      const numbers: number[] = [];
      for (const { at, value, ease, by } of keys) {
        numbers.push(at, value, eases.place(ease), by ? origins.place(by) + 1 : 0);
      }
      packed[channel as ChannelId] = numbers;
    }
    return packed;
  };
  const packBase = ({ tracks, ...rest }: LayerBase): PackedLayers['layers'][number]['base'] => ({
    ...rest,
    ...(tracks ? { tracks: pack(tracks) } : {}),
  });
  const list = layers.map(({ tracks, base, ...layer }) => ({
    ...layer,
    tracks: pack(tracks),
    ...(base ? { base: packBase(base) } : {}),
  }));
  return { eases: eases.list, origins: origins.list, layers: list };
}

/** Places of a list, numbered anew in the order in which they are first asked for. */
function createPlaces(count: number): { readonly used: number[]; readonly place: (before: number) => number } {
  const places = new Int32Array(count).fill(-1);
  const used: number[] = [];
  const place = (before: number): number => {
    if (places[before] < 0) places[before] = used.push(before) - 1;
    return places[before];
  };
  return { used, place };
}

/** Some layers of a packed list, from one place to before another, with those of its easings and origins that they use. */
export function slicePacked({ eases, origins, layers }: PackedLayers, from: number, to: number): PackedLayers {
  const ease = createPlaces(eases.length);
  const origin = createPlaces(origins.length);
  const take = (tracks: PackedTracks): PackedTracks => {
    const taken: Partial<Record<ChannelId, number[]>> = {};
    for (const channel in tracks) {
      const numbers = (tracks[channel as ChannelId] ?? []).slice();
      for (let i = 0; i < numbers.length; i += NUMBERS) {
        numbers[i + 2] = ease.place(numbers[i + 2]);
        if (numbers[i + 3] > 0) numbers[i + 3] = origin.place(numbers[i + 3] - 1) + 1;
      }
      taken[channel as ChannelId] = numbers;
    }
    return taken;
  };
  const list = layers.slice(from, to).map(({ tracks, base, ...layer }) => {
    const own = { ...layer, tracks: take(tracks) };
    return base ? { ...own, base: { ...base, ...(base.tracks ? { tracks: take(base.tracks) } : {}) } } : own;
  });
  return { eases: ease.used.map((i) => eases[i]), origins: origin.used.map((i) => origins[i]), layers: list };
}

/** The curves of the library that the keys of each packed layer are linked to, each revision once. */
export function curvesOfPacked({ eases, layers }: PackedLayers): ItemRevision[][] {
  const links = eases.map(linkOf);
  if (links.every((link) => link === null)) return layers.map(() => []);
  return layers.map(({ tracks }) => {
    const found = new Map<string, ItemRevision>();
    for (const numbers of Object.values(tracks)) {
      for (let i = 2; i < numbers.length; i += NUMBERS) {
        const link = links[numbers[i]];
        if (link) found.set(`${link.id} ${link.revision}`, { id: link.id, revision: link.revision });
      }
    }
    return [...found.values()];
  });
}

const KNOWN_CHANNELS: ReadonlySet<string> = new Set(CHANNEL_IDS);

/** The layers of a packed list; equal easings and origins are shared. */
export function unpackLayers({ eases, origins, layers }: PackedLayers): Layer[] {
  const unpack = (tracks: PackedTracks): Partial<Record<ChannelId, Key[]>> => {
    const result: Partial<Record<ChannelId, Key[]>> = {};
    for (const channel in tracks) {
      if (!KNOWN_CHANNELS.has(channel)) continue;
      const numbers = tracks[channel as ChannelId] ?? [];
      const keys = new Array<Key>(numbers.length / NUMBERS);
      for (let i = 0, k = 0; i < numbers.length; i += NUMBERS, k++) {
        const origin = numbers[i + 3];
        const ease = eases[numbers[i + 2]];
        keys[k] =
          origin === 0
            ? { at: numbers[i], value: numbers[i + 1], ease }
            : { at: numbers[i], value: numbers[i + 1], ease, by: origins[origin - 1] };
      }
      result[channel as ChannelId] = keys;
    }
    return result;
  };
  return layers.map(({ tracks, base, ...layer }) => {
    if (!base) return { ...layer, tracks: unpack(tracks) };
    const { tracks: kept, ...rest } = base;
    return { ...layer, tracks: unpack(tracks), base: { ...rest, ...(kept ? { tracks: unpack(kept) } : {}) } };
  });
}
