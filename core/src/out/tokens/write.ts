import { cssFromOklab, oklabFromCss } from '../../basics/colour';
import { parseTimeEntry, secondsFromTicks, type Rate } from '../../basics/time';
import { rampOf, type HouseItem, type HouseValue, type PaletteItem } from '../../library/library';
import { FRAMES_EXTENSION, PALETTE_EXTENSION, PALETTE_PREFIX, safeName, type SkippedToken } from './read';

/** A design tokens file, and the items that have no place in it. */
export interface WrittenTokens {
  /** The file's text. */
  readonly text: string;
  readonly skipped: readonly SkippedToken[];
}

interface TokenFields {
  readonly $type: string;
  readonly $value: unknown;
  readonly $extensions?: Record<string, unknown>;
}

/** What stands between the names of groups in a collection's name. */
export const GROUP_MARK = ' / ';

function pathOf({ name, collection }: Pick<HouseItem, 'name' | 'collection'>): string[] {
  const groups = collection === null ? [] : collection.split(GROUP_MARK);
  // A token named $root is the format's own way to give a group a value besides its members.
  return [...groups.map(safeName), name === '$root' ? name : safeName(name)];
}

function tidy(value: number): number {
  return Number(value.toFixed(6)) + 0;
}

/** A duration as DTCG writes it, in the unit in which it was said; frames become milliseconds. */
function durationToken(text: string, rate: Rate): TokenFields {
  const [, amount, unit] = /^([\d.]+)(f|s|ms)$/.exec(text) as unknown as [string, string, string];
  if (unit !== 'f') return { $type: 'duration', $value: { value: Number(amount), unit } };
  const entry = parseTimeEntry(text, rate);
  const value = entry.ok ? tidy(secondsFromTicks(entry.entry.ticks) * 1_000) : 0;
  return { $type: 'duration', $value: { value, unit: 'ms' }, $extensions: { [FRAMES_EXTENSION]: text } };
}

const COLOUR_CALL = /^(color|oklab|oklch|lab|lch|hsl|hwb)\(\s*(.+?)\s*\)$/;

function component(text: string): number | 'none' {
  return text === 'none' ? 'none' : Number(text.replace(/%$/, ''));
}

/** Colour space and components of a CSS colour, just as they are written; of other colours in sRGB. */
function colourValue(text: string): unknown {
  const oklab = oklabFromCss(text) ?? { l: 0, a: 0, b: 0, alpha: 1 };
  const hex = cssFromOklab({ ...oklab, alpha: 1 });
  const call = COLOUR_CALL.exec(text);
  if (call) {
    const [inner, alpha] = call[2].split('/').map((part) => part.trim());
    const words = inner.split(/\s+/);
    const colorSpace = call[1] === 'color' ? words.shift() : call[1];
    const components = words.map(component);
    return { colorSpace, components, alpha: alpha === undefined ? 1 : Number(alpha), hex };
  }
  const channels = [1, 3, 5].map((at) => tidy(Number.parseInt(hex.slice(at, at + 2), 16) / 255));
  return { colorSpace: 'srgb', components: channels, alpha: tidy(oklab.alpha), hex };
}

function tokenOf(value: HouseValue, rate: Rate): TokenFields | { readonly why: string } {
  switch (value.type) {
    case 'duration':
      return durationToken(value.value, rate);
    case 'number':
      return { $type: 'number', $value: value.value };
    case 'colour':
      return { $type: 'color', $value: colourValue(value.value) };
    case 'curve': {
      const { value: easing } = value;
      if (easing.type === 'linear') return { $type: 'cubicBezier', $value: [0, 0, 1, 1] };
      if (easing.type !== 'bezier') return { why: 'the format has only cubic Béziers for curves' };
      return { $type: 'cubicBezier', $value: [easing.x1, easing.y1, easing.x2, easing.y2] };
    }
  }
}

type Tree = Record<string, unknown>;

function place(tree: Tree, path: readonly string[], token: unknown): void {
  let at = tree;
  for (const group of path.slice(0, -1)) at = (at[group] ??= {}) as Tree;
  at[path[path.length - 1]] = token;
}

/** A palette as a group of colours, its ramps as groups of numbered ones. */
function paletteGroup({ body, note, state }: PaletteItem): Tree {
  const token = (text: string): TokenFields => ({ $type: 'color', $value: colourValue(text) });
  const ramps = (body.ramps ?? []).map(({ name }): [string, Tree] => [
    safeName(name),
    Object.fromEntries(rampOf(body, name).map((colour, i) => [String(i + 1), token(colour)])),
  ]);
  return {
    ...(note === '' ? {} : { $description: note }),
    ...(state === 'retired' ? { $deprecated: true } : {}),
    $extensions: { [PALETTE_EXTENSION]: { colours: body.colours.map(({ name }) => name), ramps: body.ramps ?? [] } },
    ...Object.fromEntries(ramps),
    ...Object.fromEntries(body.colours.map(({ name, colour }) => [safeName(name), token(colour)])),
  };
}

/**
 * House values as a file in the Design Tokens format (Format Module 2025.10). Collections become groups; a value that
 * follows another one of the list is written as its alias. Durations in frames are written in milliseconds at `rate`,
 * and keep their frames as an extension. Palettes become groups of colours and of the colours of their ramps, and come back
 * as palettes.
 */
export function writeTokens(
  items: readonly HouseItem[],
  rate: Rate,
  palettes: readonly PaletteItem[] = [],
): WrittenTokens {
  const tree: Tree = Object.create(null) as Tree;
  const skipped: SkippedToken[] = [];
  const byId = new Map(items.map((item) => [item.id, item]));
  for (const item of items) {
    const path = pathOf(item);
    const written = tokenOf(item.body, rate);
    if ('why' in written) {
      skipped.push({ path: path.join('.'), why: written.why });
      continue;
    }
    const source = item.body.as === undefined ? undefined : byId.get(item.body.as);
    const extensions = { ...item.body.extensions, ...written.$extensions };
    place(tree, path, {
      $type: written.$type,
      $value: source ? `{${pathOf(source).join('.')}}` : written.$value,
      ...(item.note === '' ? {} : { $description: item.note }),
      ...(item.state === 'retired' ? { $deprecated: true } : {}),
      ...(Object.keys(extensions).length > 0 ? { $extensions: extensions } : {}),
    });
  }
  for (const item of palettes)
    place(tree, [...pathOf(item).slice(0, -1), safeName(`${PALETTE_PREFIX}${item.name}`)], paletteGroup(item));
  return { text: `${JSON.stringify(tree, null, 2)}\n`, skipped };
}
