import * as z from '../../basics/schema';
import { channelIdSchema, type ChannelId } from '../../basics/channel';
import { easingSchema, type Easing } from '../../basics/easing';
import { dataPartsSchema, lookPartsSchema, type DataParts, type Key, type LayerSpan, type LookParts } from '../layer';
import { ticksSchema, type Ticks } from '../../basics/time';

/** One value for every layer of a run, or a list with one for each, null where a layer has none. */
export function columnOf<T extends z.ZodType<number>>(schema: T) {
  return z.union([schema, z.array(schema.nullable()).max(20_000)]);
}

const times = columnOf(ticksSchema);
const values = columnOf(z.number().min(-1e12).max(1e12));

/** A list of things, each once, and which of them each layer gets. */
function listed<T extends z.ZodType>(schema: T) {
  return z.strictObject({ list: z.array(schema).max(20_000), of: columnOf(z.int().min(0).max(20_000)) });
}

/**
 * What a run makes on its layers, in columns that run parallel to the list of its layers: how far whole layers move,
 * spans, rest values, and keys as they are before they meet what stands. Key times count from the layer's start.
 */
export const madeSchema = z.strictObject({
  moved: times.optional(),
  spans: z.strictObject({ in: times, out: times }).optional(),
  rest: z
    .array(z.strictObject({ channel: channelIdSchema, values }))
    .max(1_000)
    .optional(),
  /** Rest values that keys which are added on top were made against. */
  against: z
    .array(z.strictObject({ channel: channelIdSchema, values }))
    .max(1_000)
    .optional(),
  starts: times.optional(),
  keys: z
    .array(
      z.strictObject({
        channel: channelIdSchema,
        slot: z.string().min(1).max(400),
        after: times,
        values,
        /** Place in `eases`. */
        ease: columnOf(z.int().min(0).max(1_000_000)),
      }),
    )
    .max(100_000)
    .optional(),
  eases: z.array(easingSchema).max(1_000_000).optional(),
  /** Parts of looks, each once, and which of them each layer gets. */
  looks: listed(lookPartsSchema).optional(),
  /** Cells of rows of data, each set of them once, and which of them each layer gets. */
  data: listed(dataPartsSchema).optional(),
});

/** What a run makes, in columns. */
export type Made = Readonly<z.infer<typeof madeSchema>>;
/** One value for every layer of a run, or one for each. */
export type Column = number | readonly (number | null)[];

/** True where every place is one of the list. */
function isListed(made: Made['looks'] | Made['data']): boolean {
  const places = typeof made?.of === 'number' ? [made.of] : (made?.of ?? []);
  return places.every((place) => place === null || place < (made?.list.length ?? 0));
}

/** What is wrong with columns for so many layers, as a sentence; null when all is well. */
export function madeProblem(made: Made, layers: number): string | null {
  const keys = made.keys ?? [];
  const eases = made.eases?.length ?? 0;
  const columns: (Column | undefined)[] = [
    made.moved,
    made.starts,
    made.spans?.in,
    made.spans?.out,
    made.looks?.of,
    made.data?.of,
    ...[...(made.rest ?? []), ...(made.against ?? [])].map((row) => row.values),
    ...keys.flatMap(({ after, values: list, ease }) => [after, list, ease]),
  ];
  if (columns.some((column) => Array.isArray(column) && column.length !== layers)) {
    return 'A column of a run has not one value for each of its layers.';
  }
  const isKnown = (ease: number | null): boolean => ease === null || ease < eases;
  const isEased = ({ ease }: { ease: Column }): boolean =>
    typeof ease === 'number' ? isKnown(ease) : ease.every(isKnown);
  if (!keys.every(isEased)) return 'A key of a run has an easing that is not listed.';
  if (!isListed(made.looks)) return 'A layer of a run has a look that is not listed.';
  if (!isListed(made.data)) return 'A layer of a run has data that are not listed.';
  const names = new Set(keys.map(({ channel, slot }) => `${channel} ${slot}`));
  return names.size < keys.length ? 'Two columns of a run have the same slot on one channel.' : null;
}

/** What a run makes on one layer. */
export interface LayerMade {
  readonly layer: string;
  /** By how much the whole layer moves. */
  readonly moved: Ticks;
  /** The span that it gets; null where it keeps its own. */
  readonly span: LayerSpan | null;
  readonly rest: readonly (readonly [ChannelId, number])[];
  /** Rest values that keys which are added on top were made against. */
  readonly against: readonly (readonly [ChannelId, number])[];
  /** Where times of keys count from. */
  readonly start: Ticks;
  /** Parts of its look. */
  readonly look: LookParts;
  /** Cells of its row of data. */
  readonly data: DataParts;
  /** Keys by channel, in order of time and at scene times, each with a slot of its own. */
  readonly tracks: readonly (readonly [ChannelId, readonly Key[]])[];
}

const NO_LOOK: LookParts = {};
const NO_DATA: DataParts = {};

/** What an operation makes on a layer, filled up with nothing. */
export function layerMade(layer: string, more: Partial<LayerMade>): LayerMade {
  return {
    layer,
    moved: 0,
    span: null,
    rest: [],
    against: [],
    start: 0,
    look: NO_LOOK,
    data: NO_DATA,
    tracks: [],
    ...more,
  };
}

/** A list as a column: one number where all are the same. */
export function packColumn(list: readonly (number | null)[]): number | (number | null)[] {
  const [first] = list;
  return typeof first === 'number' && list.every((value) => value === first) ? first : [...list];
}

interface KeyColumns {
  readonly channel: ChannelId;
  readonly slot: string;
  readonly after: (number | null)[];
  readonly values: (number | null)[];
  readonly ease: (number | null)[];
}

/** Numbers easings, the same ones alike. */
function createEaseList(): { readonly eases: Easing[]; readonly place: (ease: Easing) => number } {
  const eases: Easing[] = [];
  const byObject = new Map<Easing, number>();
  const byText = new Map<string, number>();
  const place = (ease: Easing): number => {
    const same = byObject.get(ease);
    if (same !== undefined) return same;
    const text = JSON.stringify(ease);
    const known = byText.get(text) ?? eases.length;
    if (known === eases.length) {
      eases.push(ease);
      byText.set(text, known);
    }
    byObject.set(ease, known);
    return known;
  };
  return { eases, place };
}

function packKeys(list: readonly LayerMade[]): Pick<Made, 'keys' | 'eases'> {
  const { eases, place } = createEaseList();
  const columns = new Map<string, KeyColumns>();
  const empty = (): null[] => Array.from({ length: list.length }, () => null);
  list.forEach(({ start, tracks }, i) => {
    for (const [channel, keys] of tracks) {
      for (const { at, value, ease, by } of keys) {
        const slot = by?.slot ?? '';
        const name = `${channel} ${slot}`;
        let column = columns.get(name);
        if (!column) columns.set(name, (column = { channel, slot, after: empty(), values: empty(), ease: empty() }));
        column.after[i] = at - start;
        column.values[i] = value;
        column.ease[i] = place(ease);
      }
    }
  });
  if (columns.size === 0) return {};
  const keys = [...columns.values()].map(({ channel, slot, after, values: numbers, ease }) => ({
    channel,
    slot,
    after: packColumn(after),
    values: packColumn(numbers),
    ease: packColumn(ease),
  }));
  return { keys, eases };
}

type Values = readonly (readonly [ChannelId, number])[];

function packValues(list: readonly Values[]): NonNullable<Made['rest']> {
  const channels = new Set(list.flatMap((values) => values.map(([channel]) => channel)));
  return [...channels].map((channel) => ({
    channel,
    values: packColumn(list.map((values) => values.find(([own]) => own === channel)?.[1] ?? null)),
  }));
}

function valuesIn(rows: Made['rest'], place: number): Values {
  return (rows ?? []).flatMap((row): [ChannelId, number][] => {
    const value = valueIn(row.values, place);
    return value === null ? [] : [[row.channel, value]];
  });
}

/** Things as a list, each once, with which of them each layer gets; undefined where all are empty. */
function packListed<T extends object>(all: readonly T[]): { list: T[]; of: number | (number | null)[] } | undefined {
  const places = new Map<string, number>();
  const list: T[] = [];
  const of = all.map((one) => {
    if (Object.keys(one).length === 0) return null;
    const text = JSON.stringify(one);
    const place = places.get(text) ?? list.length;
    if (place === list.length) list.push(one);
    places.set(text, place);
    return place;
  });
  return list.length > 0 ? { list, of: packColumn(of) } : undefined;
}

/** What was made on layers as columns, in their order. */
export function packMade(list: readonly LayerMade[]): Made {
  const keys = packKeys(list);
  const [rest, against] = [packValues(list.map((entry) => entry.rest)), packValues(list.map((entry) => entry.against))];
  const looks = packListed(list.map(({ look }) => look));
  const data = packListed(list.map((one) => one.data));
  const isSpanned = list.some(({ span }) => span !== null);
  return {
    ...(list.some(({ moved }) => moved !== 0) ? { moved: packColumn(list.map(({ moved }) => moved)) } : {}),
    ...(isSpanned
      ? {
          spans: {
            in: packColumn(list.map(({ span }) => span?.in ?? null)),
            out: packColumn(list.map(({ span }) => span?.out ?? null)),
          },
        }
      : {}),
    ...(rest.length > 0 ? { rest } : {}),
    ...(against.length > 0 ? { against } : {}),
    ...(keys.keys || list.some(({ start }) => start !== 0)
      ? { starts: packColumn(list.map(({ start }) => start)) }
      : {}),
    ...keys,
    ...(looks ? { looks } : {}),
    ...(data ? { data } : {}),
  };
}

/** The value of a column at a place; null where there is none. */
export function valueIn(column: Column | undefined, i: number): number | null {
  return typeof column === 'number' ? column : (column?.[i] ?? null);
}

/** Reads what a run made on the layer at a place of its list. */
export function createMadeReader(run: string, layers: readonly string[], made: Made): (place: number) => LayerMade {
  const rows = (made.keys ?? []).map((row) => ({ ...row, by: { run, slot: row.slot } }));
  const channels = new Map<ChannelId, typeof rows>();
  for (const row of rows) {
    const known = channels.get(row.channel);
    if (known) known.push(row);
    else channels.set(row.channel, [row]);
  }
  const [looks, data] = [made.looks?.list, made.data?.list];
  return (place) => {
    const start = valueIn(made.starts, place) ?? 0;
    const tracks: [ChannelId, Key[]][] = [];
    for (const [channel, own] of channels) {
      const keys: Key[] = [];
      for (const { after, values: numbers, ease, by } of own) {
        const at = valueIn(after, place);
        if (at === null) continue;
        const easing = made.eases?.[valueIn(ease, place) ?? 0] ?? { type: 'linear' };
        keys.push({ at: start + at, value: valueIn(numbers, place) ?? 0, ease: easing, by });
      }
      if (keys.length === 0) continue;
      keys.sort((a, b) => a.at - b.at);
      tracks.push([channel, keys]);
    }
    const [from, to] = [valueIn(made.spans?.in, place), valueIn(made.spans?.out, place)];
    return {
      layer: layers[place],
      moved: valueIn(made.moved, place) ?? 0,
      span: from === null || to === null ? null : { in: from, out: to },
      rest: valuesIn(made.rest, place),
      against: valuesIn(made.against, place),
      start,
      look: looks?.[valueIn(made.looks?.of, place) ?? -1] ?? NO_LOOK,
      data: data?.[valueIn(made.data?.of, place) ?? -1] ?? NO_DATA,
      tracks,
    };
  };
}
