import * as z from '../../basics/schema';
import { readJson } from '../../basics/text';
import { asBezier, type Easing } from '../../basics/easing';
import { paletteSchema, type HouseValue, type Palette } from '../../library/library';

/** A token of a Design Tokens file that is a house value. */
export interface TokenValue {
  /** Names of the groups around it, outermost first. */
  readonly groups: readonly string[];
  readonly name: string;
  readonly note: string;
  /** Set where the file says that it is no longer to be used. */
  readonly deprecated: boolean;
  readonly value: HouseValue;
  /** Path of the token that it is an alias of, with dots; null for a value of its own. */
  readonly aliasOf: string | null;
}

/** A token that has no place in the library, and why. */
export interface SkippedToken {
  readonly path: string;
  readonly why: string;
}

/** A group of tokens of a Design Tokens file that is a palette. */
export interface TokenPalette {
  readonly groups: readonly string[];
  readonly name: string;
  readonly note: string;
  readonly deprecated: boolean;
  readonly value: Palette;
}

/** The tokens of a file, or why it cannot be read. */
export type ReadTokensResult =
  | {
      readonly ok: true;
      readonly tokens: readonly TokenValue[];
      readonly palettes: readonly TokenPalette[];
      readonly skipped: readonly SkippedToken[];
    }
  | { readonly ok: false; readonly message: string };

const DEPTH = 40;
/** Name under which a duration’s frames are kept beside its seconds. */
export const FRAMES_EXTENSION = 'wexikine.frames';
/** Marks a group of colours as a palette, with its ramps and the names of its colours in their order. */
export const PALETTE_EXTENSION = 'wexikine.palette';

type Json = Readonly<Record<string, unknown>>;

interface Found {
  readonly path: readonly string[];
  readonly type: string | null;
  readonly token: Json;
  readonly deprecated: boolean;
}

/** A name as the format allows it: no dots and braces, no $ in front. */
export function safeName(name: string): string {
  return name.replace(/[.{}]/g, '-').replace(/^\$+/, '') || 'token';
}

function isObject(value: unknown): value is Json {
  return value !== null && typeof value === 'object' && !Array.isArray(value);
}

/** What stands before a palette's name, so that a group of that name beside it is another one. */
export const PALETTE_PREFIX = 'palette ';

function isPalette(group: Json): boolean {
  const extensions = group['$extensions'];
  return isObject(extensions) && PALETTE_EXTENSION in extensions;
}

interface FoundPalette {
  readonly path: readonly string[];
  readonly group: Json;
}

/** The groups that are palettes of a library. */
function palettesIn(group: Json, path: readonly string[]): FoundPalette[] {
  if (path.length > DEPTH || '$value' in group) return [];
  if (isPalette(group)) return [{ path, group }];
  return Object.entries(group).flatMap(([name, child]) =>
    name.startsWith('$') || !isObject(child) ? [] : palettesIn(child, [...path, name]),
  );
}

/** All tokens with the type that they inherit from the groups around them. */
function gather(group: Json, path: readonly string[], type: string | null, deprecated: boolean): Found[] {
  if (path.length > DEPTH || isPalette(group)) return [];
  const own = typeof group['$type'] === 'string' ? group['$type'] : type;
  const isDeprecated = '$deprecated' in group ? group['$deprecated'] !== false : deprecated;
  if ('$value' in group || '$ref' in group) return [{ path, type: own, token: group, deprecated: isDeprecated }];
  return Object.entries(group).flatMap(([name, child]) => {
    if (name === '$root' && isObject(child)) return gather(child, [...path, name], own, isDeprecated);
    return name.startsWith('$') || !isObject(child) ? [] : gather(child, [...path, name], own, isDeprecated);
  });
}

const durationSchema = z.strictObject({ value: z.number().min(0).max(1e9), unit: z.enum(['ms', 's']) });
const bezierSchema = z.tuple([
  z.number().min(0).max(1),
  z.number().min(-1e6).max(1e6),
  z.number().min(0).max(1),
  z.number().min(-1e6).max(1e6),
]);
const componentSchema = z.union([z.number(), z.literal('none')]);
const HEX = /^#[0-9a-fA-F]{6}$/;
const colourSchema = z.strictObject({
  colorSpace: z.string().max(40),
  components: z.tuple([componentSchema, componentSchema, componentSchema]),
  alpha: z.number().min(0).max(1).optional(),
  hex: z.string().regex(HEX).optional(),
});

/** Spaces that CSS writes as `color(space …)`, and those with a function of their own. */
const COLOUR_FUNCTIONS = [
  'srgb',
  'srgb-linear',
  'display-p3',
  'a98-rgb',
  'prophoto-rgb',
  'rec2020',
  'xyz-d65',
  'xyz-d50',
];
const OWN_FUNCTIONS = ['oklab', 'oklch', 'lab', 'lch'];

type ColourToken = z.infer<typeof colourSchema>;

/** Components are written with six digits, and a hexadecimal fallback that says the same is the shorter name. */
const HEX_AGREES = 1e-6;

/** The hexadecimal text of a token, where it says just what the components say. */
function exactHex({ colorSpace, components, alpha, hex }: ColourToken): string | null {
  if (colorSpace !== 'srgb' || hex === undefined || (alpha ?? 1) !== 1) return null;
  const parts = [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16) / 255);
  const agrees = components.every((value, i) => typeof value === 'number' && Math.abs(value - parts[i]) < HEX_AGREES);
  return agrees ? hex.toLowerCase() : null;
}

/** A colour token as CSS text; null for a colour space that is not known. */
function colourText(token: ColourToken): string | null {
  const { colorSpace, components, alpha } = token;
  const hex = exactHex(token);
  if (hex !== null) return hex;
  const tail = alpha === undefined || alpha === 1 ? '' : ` / ${alpha}`;
  const [a, b, c] = components.map(String);
  if (COLOUR_FUNCTIONS.includes(colorSpace)) return `color(${colorSpace} ${a} ${b} ${c}${tail})`;
  if (OWN_FUNCTIONS.includes(colorSpace)) return `${colorSpace}(${a} ${b} ${c}${tail})`;
  if (colorSpace === 'hsl') return `hsl(${a} ${b}% ${c}%${tail})`;
  return colorSpace === 'hwb' ? `hwb(${a} ${b}% ${c}%${tail})` : null;
}

type ReadValue = { readonly value: HouseValue } | { readonly why: string };

function readColour(raw: unknown): ReadValue {
  // Before 2025 the format wrote colours as hexadecimal text.
  if (typeof raw === 'string' && /^#([0-9a-fA-F]{6}|[0-9a-fA-F]{8})$/.test(raw)) {
    return { value: { type: 'colour', value: raw.toLowerCase() } };
  }
  const parsed = colourSchema.safeParse(raw);
  if (!parsed.success) return { why: 'its colour needs colorSpace and three components' };
  const text = colourText(parsed.data);
  return text === null
    ? { why: `the colour space ${parsed.data.colorSpace} is not known here` }
    : { value: { type: 'colour', value: text } };
}

function readDuration(raw: unknown, extensions: Json): ReadValue {
  const parsed = durationSchema.safeParse(raw);
  if (!parsed.success) return { why: 'its duration needs a value of 0 or more and the unit ms or s' };
  const frames = extensions[FRAMES_EXTENSION];
  if (typeof frames === 'string' && /^\d+(\.\d+)?f$/.test(frames))
    return { value: { type: 'duration', value: frames } };
  return { value: { type: 'duration', value: `${parsed.data.value}${parsed.data.unit}` } };
}

function readBezier(raw: unknown): ReadValue {
  const parsed = bezierSchema.safeParse(raw);
  if (!parsed.success) return { why: 'its cubicBezier needs four numbers, the first and third from 0 to 1' };
  const [x1, y1, x2, y2] = parsed.data;
  const easing: Easing = { type: 'bezier', x1, y1, x2, y2 };
  return { value: { type: 'curve', value: asBezier(easing, 0, 1) ?? easing } };
}

function readNumber(raw: unknown): ReadValue {
  if (typeof raw !== 'number' || !Number.isFinite(raw)) return { why: 'its number is not a number' };
  return { value: { type: 'number', value: raw } };
}

function readValue(type: string | null, raw: unknown, extensions: Json): ReadValue {
  switch (type) {
    case 'duration':
      return readDuration(raw, extensions);
    case 'cubicBezier':
      return readBezier(raw);
    case 'color':
      return readColour(raw);
    case 'number':
      return readNumber(raw);
    case null:
      return { why: 'it has no $type, and no group around it has one' };
    default:
      return { why: `the type ${type} is not a house value` };
  }
}

/** Path of the token that a value is an alias of: "{group.token}", or `$ref` with a JSON pointer. */
function aliasIn(token: Json): string | null {
  const value = token['$value'];
  const braces = typeof value === 'string' ? /^\{([^{}]+)\}$/.exec(value)?.[1] : undefined;
  if (braces !== undefined) return braces;
  const pointer = token['$ref'];
  if (typeof pointer !== 'string' || !pointer.startsWith('#/')) return null;
  const parts = pointer
    .slice(2)
    .split('/')
    .map((part) => part.replace(/~1/g, '/').replace(/~0/g, '~'));
  return parts.filter((part, i) => !(part === '$value' && i === parts.length - 1)).join('.');
}

type Resolved = Found | { readonly why: string };

/** Follows aliases to a token with a value of its own; what was found for one is kept for all along its way. */
function createResolver(byPath: ReadonlyMap<string, Found>): (start: Found) => Resolved {
  const known = new Map<Found, Resolved>();
  return (start) => {
    const passed = new Set<Found>();
    let at = start;
    let result: Resolved | undefined;
    while (!result) {
      const alias = aliasIn(at.token);
      const next = alias === null ? undefined : byPath.get(alias);
      passed.add(at);
      if (alias === null) result = at;
      else if (!next) result = { why: `it is an alias of ${alias}, which is not in the file` };
      else if (passed.has(next)) result = { why: `it is an alias in a circle, back to ${alias}` };
      else result = known.get(next);
      if (next) at = next;
    }
    for (const one of passed) known.set(one, result);
    return result;
  };
}

function readToken(found: Found, resolve: (start: Found) => Resolved): TokenValue | SkippedToken {
  const path = found.path.join('.');
  const source = resolve(found);
  if ('why' in source) return { path, why: source.why };
  const extensions = isObject(source.token['$extensions']) ? source.token['$extensions'] : {};
  const read = readValue(source.type, source.token['$value'], extensions);
  if ('why' in read) return { path, why: read.why };
  const own = isObject(found.token['$extensions']) ? found.token['$extensions'] : {};
  const kept = Object.fromEntries(Object.entries(own).filter(([name]) => name !== FRAMES_EXTENSION));
  const note = found.token['$description'];
  return {
    groups: found.path.slice(0, -1),
    name: found.path[found.path.length - 1] ?? '',
    note: typeof note === 'string' ? note.slice(0, 2_000) : '',
    deprecated: found.deprecated,
    value: Object.keys(kept).length > 0 ? { ...read.value, extensions: kept } : read.value,
    aliasOf: aliasIn(found.token),
  };
}

/** A group of colours as a palette; what its ramps say is data, and their colours in the file are only for other readers. */
function readPalette({ path, group }: FoundPalette): TokenPalette | SkippedToken {
  const skipped = (why: string): SkippedToken => ({ path: path.join('.'), why });
  const extension = (group['$extensions'] as Json)[PALETTE_EXTENSION];
  const { ramps, colours: names } = isObject(extension) ? extension : {};
  const called = new Map((Array.isArray(names) ? names : []).map((name) => [safeName(String(name)), String(name)]));
  const tokens = Object.entries(group).filter(
    ([key, token]) => !key.startsWith('$') && isObject(token) && '$value' in token,
  );
  const places = [...called.keys()];
  // Numbers as names come first in an object: the order is the one that the palette says.
  tokens.sort(([a], [b]) => places.indexOf(a) - places.indexOf(b));
  const colours: Palette['colours'][number][] = [];
  for (const [key, token] of tokens) {
    const read = readColour((token as Json)['$value']);
    if ('why' in read || read.value.type !== 'colour')
      return skipped(`in “${key}” ${'why' in read ? read.why : 'there is no colour'}`);
    colours.push({ name: called.get(key) ?? key, colour: read.value.value });
  }
  const parsed = paletteSchema.safeParse({ colours, ...(Array.isArray(ramps) && ramps.length > 0 ? { ramps } : {}) });
  if (!parsed.success) return skipped(`as a palette it cannot be read. ${parsed.error.issues[0].message}`);
  const last = path[path.length - 1] ?? '';
  const note = group['$description'];
  return {
    groups: path.slice(0, -1),
    name: last.startsWith(PALETTE_PREFIX) ? last.slice(PALETTE_PREFIX.length) : last,
    note: typeof note === 'string' ? note.slice(0, 2_000) : '',
    deprecated: group['$deprecated'] !== undefined && group['$deprecated'] !== false,
    value: parsed.data,
  };
}

/**
 * Reads house values from a file in the Design Tokens format (Design Tokens Community Group, Format Module 2025.10):
 * `duration`, `cubicBezier`, `color` and `number`, with types inherited from groups and aliases; and palettes from groups of
 * colours that say they are one. Other types are skipped and told. Fails with a sentence when the file is no such file at all.
 */
export function readTokens(text: string): ReadTokensResult {
  const json = readJson(text);
  if (!json.ok) return { ok: false, message: `This is not a design tokens file. ${json.message}` };
  const { data } = json;
  if (!isObject(data)) return { ok: false, message: 'This is not a design tokens file: it is not a JSON object.' };
  const found = gather(data, [], null, false);
  const palettes = palettesIn(data, []);
  if (found.length + palettes.length === 0) {
    return { ok: false, message: 'This file has no design tokens: nothing in it has a $value.' };
  }
  const byPath = new Map(found.map((entry) => [entry.path.join('.'), entry]));
  const resolve = createResolver(byPath);
  const read = found.map((entry) => readToken(entry, resolve));
  const grouped = palettes.map(readPalette);
  return {
    ok: true,
    tokens: read.filter((entry): entry is TokenValue => 'value' in entry),
    palettes: grouped.filter((entry): entry is TokenPalette => 'value' in entry),
    skipped: [
      ...read.filter((entry): entry is SkippedToken => 'why' in entry),
      ...grouped.filter((entry): entry is SkippedToken => 'why' in entry),
    ],
  };
}
