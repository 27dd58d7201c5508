import fc from 'fast-check';
import type { ChannelId } from '../basics/channel';
import { frameTicks, ticksFromSeconds } from '../basics/time';
import { STARTER_PRESETS } from '../library/starter';
import { operationFor } from '../runs/run';
import { tracksOf, type Key, type Layer } from '../scene/layer';
import {
  createStep,
  createStyle,
  stepNumber,
  type AdjustType,
  type PresetRecipe,
  type Recipe,
  type StyleRecipe,
} from '../scene/recipe';
import type { Scene } from '../scene/scene';
import { card, key, PAL, sceneOf } from './scenes';

const FRAME = frameTicks(PAL);

const steps = { type: 'steps', count: 4, jump: 'both' } as const;
const bent = { type: 'bezier', x1: 0.4, y1: -0.4, x2: 0.2, y2: 1.3 } as const;

/** Three cards, and a picture that others are passed from; with keys, spans and rest poses of every kind. */
export const start = sceneOf([
  card('a', {
    tracks: {
      opacity: [key(0, 0.2, bent), key(40, 1)],
      'position.y': [key(3, 50, steps), key(90, 200, bent), key(120, 7)],
    },
  }),
  card('b', {
    span: { in: ticksFromSeconds(1), out: ticksFromSeconds(6) },
    tracks: { 'scale.x': [key(10, 1), key(60, 2)] },
  }),
  card('c', { rest: { 'position.x': 10, 'position.y': 400, rotation: 20, opacity: 0.6, 'size.x': 80, 'size.y': 40 } }),
  // Nothing is done to it: passed on, it is what it was whenever it is looked at.
  card('model', {
    kind: 'picture',
    span: { in: ticksFromSeconds(0.4), out: ticksFromSeconds(5) },
    data: { team: 'blue' },
    look: { border: { colour: '#ffcc00', side: 'inside' }, fill: '#102030' },
    tracks: { 'position.x': [key(12, 30, bent), key(33, 90)], opacity: [key(10, 0), key(20, 0.8)] },
  }),
]);

/** All cards. */
export const PICK = { by: 'rule', kind: 'card' } as const;
/** What every recipe has besides. */
export const BASE = { pick: PICK, order: { by: 'layered' }, seed: 1 } as const;

/** Presets of the starter library with any timing, put on layers by ways of joining what stands. */
export function presetRecipes(
  ways: readonly PresetRecipe['existing'][],
  picks: readonly PresetRecipe['pick'][],
): fc.Arbitrary<Partial<Recipe>> {
  return fc
    .record({
      item: fc.constantFrom(...STARTER_PRESETS),
      gap: fc.integer({ min: 0, max: 30 }),
      moves: fc.constantFrom<PresetRecipe['moves']>('keys', 'layers'),
      existing: fc.constantFrom(...ways),
      at: fc.option(fc.integer({ min: 0, max: 200 })),
      pick: fc.constantFrom(...picks),
    })
    .map(({ item, gap, moves, existing, at, pick }) => ({
      pick,
      operation: operationFor(item.body.phase),
      preset: { id: item.id },
      spacing: { by: 'gap', gap: `${gap}f` },
      moves,
      existing,
      start: at === null ? { by: 'layer' } : { by: 'time', at: `${at}f` },
    }));
}

/** Presets put on all cards or some, by any way of joining what stands. */
export const presetRecipe = presetRecipes(
  ['take-place', 'replace', 'replace-channels', 'add'],
  [PICK, PICK, { by: 'layers', layers: ['a'] }, { by: 'layers', layers: ['c', 'b'] }],
);

/** Opacity that falls to a half along the order. */
export const HALF = { opacity: { by: 'ramp', from: 1, to: 0.5 } } as const;

/** A recipe that styles all cards. */
export function styled(more: Partial<StyleRecipe>): Partial<Recipe> {
  return { ...createStyle(PICK), ...more };
}

function adjusted(type: AdjustType, numbers: Readonly<Record<string, string>>): Partial<Recipe> {
  const parameters = Object.entries(numbers).map(
    ([name, value]) => [stepNumber('s1', name), { by: 'fixed', value }] as const,
  );
  return {
    operation: 'adjust',
    ...BASE,
    keys: { which: 'all' },
    steps: [createStep(type, [])],
    parameters: Object.fromEntries(parameters),
  };
}

const otherRecipe: fc.Arbitrary<Partial<Recipe>> = fc.constantFrom<Partial<Recipe>>(
  { operation: 'line-up', ...BASE, way: { by: 'end', at: { by: 'scene' } }, parts: 'keep', squeeze: false },
  { operation: 'line-up', ...BASE, way: { by: 'butt', gap: '-5f' }, parts: 'keep', squeeze: false },
  { operation: 'line-up', ...BASE, way: { by: 'length', length: '3s' }, parts: 'stretch', squeeze: true },
  { operation: 'arrange', ...BASE, way: { by: 'grid', columns: 2, gap: 10 } },
  { operation: 'arrange', ...BASE, way: { by: 'size', match: 'width', of: 'largest' } },
  {
    operation: 'pass-on',
    ...BASE,
    from: { layer: 'model' },
    what: ['motion', 'timing', 'data'],
    values: 'about-rest',
    later: '3f',
    apart: { x: 0, y: 0 },
  },
  {
    operation: 'pass-on',
    ...BASE,
    from: { layer: 'model' },
    what: ['place', 'look'],
    values: 'as-is',
    later: '0f',
    apart: { x: 10, y: 0 },
  },
  { operation: 'clear', ...BASE, channels: ['opacity'] },
  { operation: 'clear', ...BASE, from: '20f' },
  styled({
    parts: ['fill', 'opacity'],
    vary: { fill: { by: 'step', lightness: -0.1, chroma: 0, hue: 20 } },
    numbers: HALF,
  }),
  styled({ from: { by: 'layer', layer: 'model', isLinked: true }, parts: ['fill', 'border', 'opacity'] }),
);

/** An adjustment takes part where there are keys, also where they were set by hand after it. */
const adjustRecipe = fc.constantFrom(adjusted('shift', { by: '4f' }), adjusted('stretch', { to: '150%' }));

/** Recipes that take part on the same layers whatever is done by hand after them. */
export const settledRecipe = fc.oneof({ weight: 7, arbitrary: presetRecipe }, { weight: 3, arbitrary: otherRecipe });
/** Recipes of nearly every operation. */
export const anyRecipe = fc.oneof({ weight: 9, arbitrary: settledRecipe }, { weight: 1, arbitrary: adjustRecipe });

/** Something that somebody does by hand to a layer; numbers choose among what is there. */
export interface HandEdit {
  readonly kind: 'delete' | 'insert' | 'retime' | 'value' | 'ease' | 'trim' | 'rest' | 'look' | 'data';
  readonly layer: string;
  readonly which: number;
  readonly amount: number;
}

/** What is done to keys. */
export const KEY_EDITS = ['delete', 'insert', 'retime', 'value', 'ease'] as const;

/** Edits by hand of some kinds, on the three cards. */
export function handEditOf(kinds: readonly HandEdit['kind'][]): fc.Arbitrary<HandEdit> {
  return fc.record({
    kind: fc.constantFrom(...kinds),
    layer: fc.constantFrom('a', 'b', 'c'),
    which: fc.nat(40),
    amount: fc.integer({ min: 1, max: 9 }),
  });
}

/** Edits by hand of every kind. */
export const handEdit = handEditOf([...KEY_EDITS, 'trim', 'rest', 'look', 'data']);

/** A layer with other keys on a channel; without the channel where there are none. */
export function withTrack(layer: Layer, channel: ChannelId, keys: readonly Key[]): Layer {
  const { [channel]: _old, ...others } = layer.tracks;
  return { ...layer, tracks: keys.length > 0 ? { ...others, [channel]: [...keys] } : others };
}

/** Another colour, another border, or none. */
function lookByHand({ border: _border, ...look }: Layer['look'], which: number, amount: number): Layer['look'] {
  if (which % 3 === 0) return look;
  if (which % 3 === 1) return { ...look, border: { colour: `#00000${amount}`, side: 'outside' } };
  return { ...look, fill: `#${amount}${amount}8800` };
}

function changeByHand(layer: Layer, { kind, which, amount }: HandEdit): Layer {
  if (kind === 'trim') return { ...layer, span: { ...layer.span, out: layer.span.out + amount * FRAME } };
  if (kind === 'rest') return { ...layer, rest: { ...layer.rest, 'position.x': amount * 10 } };
  if (kind === 'look') return { ...layer, look: lookByHand(layer.look, which, amount) };
  if (kind === 'data') return { ...layer, data: which % 3 === 0 ? {} : { ...layer.data, team: `team ${amount}` } };
  const all = tracksOf(layer).flatMap(([channel, keys]) => keys.map((_, i) => [channel, i] as const));
  if (kind === 'insert' || all.length === 0) {
    const [channel] = all[which % Math.max(1, all.length)] ?? ['rotation'];
    const at = which * FRAME + 1 + amount;
    const keys = (layer.tracks[channel] ?? []).filter((one) => one.at !== at);
    const own: Key = { at, value: amount / 10, ease: { type: 'linear' } };
    return withTrack(
      layer,
      channel,
      [...keys, own].sort((a, b) => a.at - b.at),
    );
  }
  const [channel, i] = all[which % all.length];
  const keys = layer.tracks[channel] as Key[];
  if (kind === 'delete') return withTrack(layer, channel, keys.toSpliced(i, 1));
  const old = keys[i];
  const at = old.at + amount;
  if (kind === 'retime') {
    const others = keys.toSpliced(i, 1).filter((one) => one.at !== at);
    return withTrack(
      layer,
      channel,
      [...others, { ...old, at }].sort((a, b) => a.at - b.at),
    );
  }
  const next: Key = kind === 'value' ? { ...old, value: old.value + amount / 16 } : { ...old, ease: { type: 'hold' } };
  return withTrack(layer, channel, keys.with(i, next));
}

/** A scene after edits by hand. */
export function byHand(scene: Scene, edits: readonly HandEdit[]): Scene {
  return edits.reduce(
    (at, edit) => ({
      ...at,
      layers: at.layers.map((layer) => (layer.id === edit.layer ? changeByHand(layer, edit) : layer)),
    }),
    scene,
  );
}
