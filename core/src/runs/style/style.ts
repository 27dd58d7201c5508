import { channelOf, clampToChannel, type ChannelId } from '../../basics/channel';
import { oklabFromCss, rampColour, steppedColour } from '../../basics/colour';
import { randomAt, seedFromText } from '../../basics/random';
import { paletteColours, takeItem, type Kept } from '../../library/library';
import { withLookParts, type Layer, type LookParts } from '../../scene/layer';
import {
  STYLE_PARTS,
  type ColourPart,
  type ColourVariation,
  type NumberVariation,
  type StyleRecipe,
} from '../../scene/recipe';
import { layerMade, type LayerMade, type RunRecord } from '../../scene/scene';
import type { Finding } from '../finding';
import { refuse, type Followed, type Operated, type Reads, type Replaying, type Surroundings } from '../operation';
import { createStaging, findOnePlace, maximum, placesOf } from '../order';
import { hangsOnLayers, workOutLook, type LookInUse } from './parameters';
import { colourOfPart, numbersOf, PARTS, withColour } from './parts';

type Rest = [ChannelId, number][];

/** What a layer gets: parts of its look and rest values. */
interface Styled {
  readonly layer: Layer;
  readonly place: number;
  readonly look: LookParts;
  readonly rest: Rest;
  /** Parts that are to go on from a colour which it does not have. */
  readonly lacks: readonly ColourPart[];
}

/** Parts and rest values of a source, as they are to be on others: what it does not have is taken away there. */
function takenFrom(
  source: Source,
  { parts }: Pick<StyleRecipe, 'parts'>,
  target: Layer,
): Pick<Styled, 'look' | 'rest'> {
  const look: Record<string, unknown> = {};
  const rest: Rest = [];
  for (const part of parts) {
    for (const name of PARTS[part].look) {
      const value = source.look[name] ?? null;
      // A layer is never its own matte.
      if (name === 'matte' && source.look.matte?.layer === target.id) continue;
      if (value !== null || target.look[name] !== undefined) look[name] = value;
    }
    for (const channel of PARTS[part].channels) {
      const isStated = source.rest[channel] !== undefined || target.rest[channel] !== undefined;
      if (isStated && !channel.startsWith('fill.'))
        rest.push([channel, source.rest[channel] ?? channelOf(channel).default]);
    }
  }
  return { look, rest };
}

/** All of a layer's look as it is to be on another: parts, and rest values. */
export function wholeLook(source: Layer, target: Layer): Pick<Styled, 'look' | 'rest'> {
  return takenFrom(source, { parts: [...STYLE_PARTS] }, target);
}

interface Along {
  readonly place: number;
  readonly last: number;
  readonly seed: number;
  /** The colours of the palettes that are used, or of one of their ramps. */
  readonly palettes: ReadonlyMap<string, (ramp: string | undefined) => readonly string[]>;
}

/** What shows the layers what they are to be like. */
type Source = Pick<Layer, 'look' | 'rest'> & { readonly id?: string };

/** One of some colours for a place in the order; null where there are none. */
function listedColour(
  colours: readonly string[],
  how: 'turns' | 'random' | 'ramp',
  { place, last, seed }: Along,
): string | null {
  if (colours.length === 0) return null;
  if (how === 'turns') return colours[place % colours.length];
  if (how === 'random') return colours[Math.floor(randomAt(seed, place) * colours.length)];
  return rampColour(colours, last === 0 ? 0 : place / last);
}

/** The colour of a layer at a place in the order; null where it keeps the one that it has. */
function variedColour(variation: ColourVariation, before: string | null, { data }: Layer, along: Along): string | null {
  switch (variation.by) {
    case 'step':
      return before === null ? null : steppedColour(before, variation, along.place);
    case 'colours':
      return listedColour(variation.colours, variation.how, along);
    case 'palette':
      return listedColour(along.palettes.get(variation.id)?.(variation.ramp) ?? [], variation.how, along);
    case 'data': {
      const text = String(data[variation.column] ?? '').trim();
      return oklabFromCss(text) === null ? null : text;
    }
  }
}

function styled(layer: Layer, source: Source | null, recipe: StyleRecipe, along: Along): Styled {
  const taken = source ? takenFrom(source, recipe, layer) : { look: {}, rest: [] };
  let look: LookParts = taken.look;
  const lacks: ColourPart[] = [];
  for (const [name, variation] of Object.entries(recipe.vary)) {
    const part = name as ColourPart;
    if (!recipe.parts.includes(part)) continue;
    const now = withLookParts(layer.look, look);
    const before = colourOfPart(now, part);
    if (variation.by === 'step' && before === null) lacks.push(part);
    const colour = variedColour(variation, before, layer, along);
    if (colour !== null) look = { ...look, ...withColour(now, part, colour) };
  }
  const numbers = variedNumbers(layer, taken.rest, recipe, along);
  return { layer, place: along.place, look, rest: [...new Map([...taken.rest, ...numbers])], lacks };
}

/** The number in a data column; null for none. */
function numberIn({ data }: Layer, column: string): number | null {
  const text = String(data[column] ?? '').trim();
  const number = Number(text.replace(',', '.'));
  return text === '' || !Number.isFinite(number) ? null : number;
}

/** A number of a layer at a place in the order; null where it keeps the one that it has. */
function variedNumber(
  variation: NumberVariation,
  { layer, channel, before }: { layer: Layer; channel: ChannelId; before: number },
  { place, last, seed }: Along,
): number | null {
  switch (variation.by) {
    case 'fixed':
      return variation.value;
    case 'step':
      return before + variation.step * place;
    case 'ramp':
      return variation.from + (variation.to - variation.from) * (last === 0 ? 0 : place / last);
    case 'random':
      return variation.from + (variation.to - variation.from) * randomAt(seedFromText(`${seed} ${channel}`), place);
    case 'data': {
      const number = numberIn(layer, variation.column);
      // Shares are written as per cent.
      return number !== null && channelOf(channel).unit === 'share' ? number / 100 : number;
    }
  }
}

/** Numbers of the chosen parts that differ from layer to layer. */
function variedNumbers(layer: Layer, taken: Rest, { parts, numbers = {} }: StyleRecipe, along: Along): Rest {
  const known = new Map(taken);
  const among = new Set(numbersOf(parts));
  return (Object.entries(numbers) as [ChannelId, NumberVariation][]).flatMap(([channel, variation]): Rest => {
    if (!among.has(channel)) return [];
    const before = known.get(channel) ?? layer.rest[channel] ?? channelOf(channel).default;
    const value = variedNumber(variation, { layer, channel, before }, along);
    return value === null ? [] : [[channel, clampToChannel(channel, value)]];
  });
}

/** A layer with parts of its look and rest values set. */
function withStyle(layer: Layer, look: LookParts, rest: LayerMade['rest']): Layer {
  if (rest.length === 0) return { ...layer, look: withLookParts(layer.look, look) };
  return { ...layer, look: withLookParts(layer.look, look), rest: { ...layer.rest, ...Object.fromEntries(rest) } };
}

function findingsOf(recipe: StyleRecipe, list: readonly Styled[]): Finding[] {
  return [...missingParts(recipe, list), ...missingColours(recipe, list), ...missingNumbers(recipe, list)];
}

/** Layers without a colour from which a step could be taken, as pictures have no fill. */
function missingParts({ parts }: StyleRecipe, list: readonly Styled[]): Finding[] {
  return parts.flatMap((part): Finding[] => {
    const layers = list.filter(({ lacks }) => lacks.some((one) => one === part)).map(({ layer }) => layer.id);
    return layers.length > 0 ? [{ code: 'no-part', part: PARTS[part].label, layers }] : [];
  });
}

/** True where colours or numbers go by the place in the order. */
function variesAlong({ parts, vary, numbers = {} }: StyleRecipe): boolean {
  const among = new Set(numbersOf(parts));
  const isAlong = (one: ColourVariation | NumberVariation): boolean => one.by !== 'fixed' && one.by !== 'data';
  return (
    Object.entries(vary).some(([part, one]) => parts.includes(part as ColourPart) && isAlong(one)) ||
    Object.entries(numbers).some(([channel, one]) => among.has(channel as ChannelId) && isAlong(one))
  );
}

function missingNumbers({ parts, numbers = {} }: StyleRecipe, list: readonly Styled[]): Finding[] {
  const among = new Set(numbersOf(parts));
  return Object.entries(numbers).flatMap(([channel, variation]): Finding[] => {
    if (variation.by !== 'data' || !among.has(channel as ChannelId)) return [];
    const { column } = variation;
    const lacking = list.filter(({ layer }) => numberIn(layer, column) === null);
    return lacking.length > 0 ? [{ code: 'no-number', column, layers: lacking.map(({ layer }) => layer.id) }] : [];
  });
}

function missingColours(recipe: StyleRecipe, list: readonly Styled[]): Finding[] {
  return Object.entries(recipe.vary).flatMap(([part, variation]): Finding[] => {
    if (variation.by !== 'data' || !recipe.parts.includes(part as ColourPart)) return [];
    const { column } = variation;
    const lacking = list.filter(({ layer }) => oklabFromCss(String(layer.data[column] ?? '').trim()) === null);
    return lacking.length > 0 ? [{ code: 'no-colour', column, layers: lacking.map(({ layer }) => layer.id) }] : [];
  });
}

/** What a style takes from the library: its look and its palettes, and what its run keeps of them. */
interface FromLibrary {
  readonly look: LookInUse | null;
  readonly palettes: Along['palettes'];
  readonly uses: readonly Kept[];
}

/** That a revision is not at hand which is asked for. */
function missing(
  shelf: Surroundings['shelf'],
  { id, revision = 0 }: { readonly id: string; readonly revision?: number | undefined },
): Finding {
  return { code: 'revision-missing', preset: shelf.items.get(id)?.name ?? id, revision };
}

/** Finds what a style takes from the library; the kind of the first item that is not there. */
function fromLibrary({ shelf, context }: Surroundings, { from, parts, vary }: StyleRecipe): FromLibrary | Finding {
  const known = context.known?.uses;
  const uses: Kept[] = [];
  let look: FromLibrary['look'] = null;
  if (from.by === 'look') {
    const taken = takeItem(shelf, 'look', from, known);
    if (!taken) return { code: 'item-gone', kind: 'look' };
    if (taken === 'other-revision') return missing(shelf, from);
    const name = shelf.items.get(from.id)?.name ?? 'a look that is gone';
    look = { body: taken.body, name, known: known?.includes(taken.kept) ? known : undefined };
    uses.push(taken.kept);
  }
  const palettes = new Map<string, (ramp: string | undefined) => readonly string[]>();
  for (const [part, variation] of Object.entries(vary)) {
    if (variation.by !== 'palette' || !parts.includes(part as ColourPart) || palettes.has(variation.id)) continue;
    const taken = takeItem(shelf, 'palette', variation, known);
    if (!taken) return { code: 'item-gone', kind: 'palette' };
    if (taken === 'other-revision') return missing(shelf, variation);
    palettes.set(variation.id, (ramp) => paletteColours(taken.body, ramp));
    uses.push(taken.kept);
  }
  return { look, palettes, uses };
}

/** Works out the look of each layer. */
export function planStyle(surroundings: Surroundings, recipe: StyleRecipe): Operated {
  const { scene, indices } = surroundings;
  const { from, order, seed } = recipe;
  const taken = fromLibrary(surroundings, recipe);
  if ('code' in taken) return refuse([taken]);
  const layer = from.by === 'layer' ? (scene.layers.find(({ id }) => id === from.layer) ?? null) : null;
  if (from.by === 'layer' && !layer) return refuse([{ code: 'source-gone' }]);
  const staging = createStaging(scene);
  const places = placesOf(staging, indices, order);
  const isWorkedOut = taken.look !== null && hangsOnLayers(taken.look.body, recipe);
  const worked =
    taken.look && isWorkedOut ? workOutLook(surroundings, recipe, taken.look, { staging, indices, places }) : null;
  if (worked && 'code' in worked) return refuse([worked]);
  const kept = worked ? indices.map((_, row) => worked.of(row)) : null;
  const last = maximum(places);
  const { palettes } = taken;
  // The source shows the others what they are to be like: it takes its place in the order, and stays as it is.
  const list = indices
    .map((index, i) => ({ layer: scene.layers[index], place: places[i], own: kept?.[i] ?? null }))
    .filter((one) => one.layer.id !== layer?.id)
    .map(({ layer: on, place, own }) => ({
      ...styled(on, layer ?? own ?? taken.look?.body ?? null, recipe, { place, last, seed, palettes }),
      values: own?.values ?? {},
    }));
  if (list.length === 0) return refuse([{ code: 'nothing-picked' }]);
  const uses = [...taken.uses, ...(worked?.uses ?? [])];
  const picked = indices.map((index) => scene.layers[index].id);
  return {
    layers: list.map(({ layer: on, place, look, rest, values }) => ({
      layer: on.id,
      place,
      starts: on.span.in,
      lasts: on.span.out - on.span.in,
      moments: [],
      values: { ...values, ...shownValues(recipe, withLookParts(on.look, look), numbersIn(recipe, rest)) },
      after: withStyle(on, look, rest),
    })),
    made: () => list.map(({ layer: on, look, rest }) => layerMade(on.id, { look, rest })),
    ...(uses.length > 0 ? { uses } : {}),
    findings: [
      ...(worked?.findings ?? []),
      ...(variesAlong(recipe) ? findOnePlace(picked, places, order, 'looks') : []),
      ...findingsOf(recipe, list),
    ],
    counts: { layers: list.length, added: 0, replaced: 0, removed: 0 },
  };
}

/** Of rest values those that differ from layer to layer. */
function numbersIn({ numbers = {} }: StyleRecipe, rest: Rest): Rest {
  return rest.filter(([channel]) => channel in numbers);
}

/** The colours and numbers that a layer gets, as a plan shows them. */
function shownValues({ vary }: StyleRecipe, look: Layer['look'], rest: Rest): Record<string, string | number> {
  const parts = Object.keys(vary) as ColourPart[];
  return {
    ...Object.fromEntries(parts.map((part) => [part, colourOfPart(look, part) ?? 'none'])),
    ...Object.fromEntries(rest),
  };
}

/** Styles a layer once more, over what it has become. */
export function replayStyle(_recipe: StyleRecipe, { look, rest }: LayerMade, state: Layer, _with: Replaying): Layer {
  return withStyle(state, look, rest);
}

/** Styling goes by looks, of its layers and of its source, the order by where they rest; formulas of a look can ask for spans, too. */
export function styleReads(_recipe: StyleRecipe, { uses = [] }: Pick<RunRecord, 'uses'>): Reads {
  const spans = uses.some(({ kind, body }) => kind === 'look' && body?.['formulas'] !== undefined);
  return { spans, rest: true, looks: true, keys: false, sweeps: false };
}

/** A style that is linked follows the look of its layer, and the rest values that belong to it. */
export function styleFollows({ from }: StyleRecipe): Followed | null {
  if (from.by !== 'layer' || from.isLinked !== true) return null;
  return { layer: from.layer, fields: ['look', 'rest'], keys: false };
}
