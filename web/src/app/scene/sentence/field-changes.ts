import {
  CHANNEL_IDS,
  settingsOf,
  tracksOf,
  withSettings,
  type ChannelId,
  type KeysRecipe,
  type Parameter,
  type PresetRecipe,
  type Scene,
} from '@wexikine/core';
import type { WayValue } from './way-fields';

const TIMINGS = ['start', 'spacing', 'length'] as const;
/** A timing field of a run of a preset. */
export type Timing = (typeof TIMINGS)[number];

/** Without a finish, what a timing field falls back to when another one is solved for. */
const PLAIN: Readonly<Record<Timing, object>> = {
  start: { by: 'layer' },
  spacing: { by: 'gap', gap: '4f' },
  length: { by: 'preset' },
};

/** The recipe with a timing field set: only one of start, gap and length can follow from the finish; others fall back to a given value. */
export function withTiming(recipe: PresetRecipe, field: Timing, value: WayValue): PresetRecipe {
  const others = value.by === 'finish' ? TIMINGS.filter((name) => name !== field && recipe[name].by === 'finish') : [];
  const plain = Object.fromEntries(others.map((name) => [name, PLAIN[name]]));
  return { ...recipe, ...plain, [field]: value } as PresetRecipe;
}

/** Channels that keys can be written for: those that rigs drive, or that have keys. */
export function channelsForKeys({ layers, runs }: Pick<Scene, 'layers' | 'runs'>, recipe: KeysRecipe): ChannelId[] {
  const keyed = layers.flatMap((layer) => tracksOf(layer).map(([channel]) => channel));
  const driven = runs.flatMap(({ rig }) => rig?.channels ?? []);
  const wanted = new Set(recipe.operation === 'thin-out' ? keyed : driven);
  return CHANNEL_IDS.filter((channel) => wanted.has(channel));
}

/** Whether the recipe writes keys for a channel; without a list it does for all. */
export function writesKeysFor({ channels }: KeysRecipe, channel: ChannelId): boolean {
  return channels?.includes(channel) ?? true;
}

/** The recipe with a channel of all put in or left out; null where none would be left. */
export function withChannelFlipped(recipe: KeysRecipe, all: readonly ChannelId[], flipped: ChannelId) {
  const next = all.filter((channel) => writesKeysFor(recipe, channel) !== (channel === flipped));
  if (next.length === 0) return null;
  const { channels: _standing, ...rest } = recipe;
  return next.length === all.length ? rest : { ...rest, channels: next };
}

type Settled = Parameters<typeof withSettings>[0];

/** The recipe with a parameter set to what it usually is. */
export function withParameter(recipe: Settled, { name, default: value }: Parameter): ReturnType<typeof withSettings> {
  return withSettings(recipe, { ...settingsOf(recipe), [name]: { by: 'fixed', value } });
}

/** The recipe with a parameter left to the preset again. */
export function withoutParameter(recipe: Settled, name: string): ReturnType<typeof withSettings> {
  const { [name]: _gone, ...others } = settingsOf(recipe) ?? {};
  return withSettings(recipe, others);
}
