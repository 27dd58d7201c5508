import * as z from '../../basics/schema';
import { perUnit, type ChannelId } from '../../basics/channel';
import { toFrameGrid, type Ticks } from '../../basics/time';
import type { Finding } from '../finding';
import type { Phase } from '../../formulas/preset';
import { operationPhase } from '../operation';
import { problemsOf, readTime } from '../order';
import { momentOfSlot, type NamedKey } from '../run';
import type { KeyRule } from '../../scene/recipe';
import { tracksOf, type Key, type Layer } from '../../scene/layer';
import type { RunRecord, Scene } from '../../scene/scene';

const momentsSchema = z.array(z.object({ id: z.string(), name: z.string() }));

/** A key on its way through the steps, and whether it is one of those that are adjusted. */
export interface Entry {
  readonly key: NamedKey;
  readonly isPicked: boolean;
}

/** The keys of a layer by channel, in order of time. */
export type Entries = ReadonlyMap<ChannelId, readonly Entry[]>;

/** Whether a key meets the conditions of a rule, its place among a layer's moments aside. */
export type KeyTest = (channel: ChannelId, key: NamedKey) => boolean;

/** Of each key the phase of the run that made it; null for keys of other runs and of hands. */
export function phasesOf(runs: Scene['runs']): (key: Key) => Phase | null {
  const phases = new Map(runs.map(({ id, recipe }) => [id, operationPhase(recipe.operation)]));
  return ({ by }) => (by && phases.get(by.run)) ?? null;
}

/** The moments of the preset that a run used, as its record has it; none for operations without one. */
export function runMoments({
  preset,
}: Pick<RunRecord, 'preset'>): readonly { readonly id: string; readonly name: string }[] {
  const read = momentsSchema.safeParse(preset?.body['moments']);
  return read.success ? read.data : [];
}

/** Reads a rule once for a scene; what is wrong with its times is told. */
export function createKeyTest(
  rule: KeyRule,
  { runs, rate }: Pick<Scene, 'runs' | 'rate'>,
): { readonly test: KeyTest; readonly problems: readonly Finding[] } {
  const from = rule.from === undefined ? null : readTime(rule.from, rate, 'From');
  const to = rule.to === undefined ? null : readTime(rule.to, rate, 'Up to');
  const channels = rule.channels && new Set(rule.channels);
  const phaseOf = phasesOf(runs);
  const isOfPhase = (key: NamedKey): boolean => {
    const phase = phaseOf(key);
    return rule.phases === undefined || (phase !== null && rule.phases.includes(phase));
  };
  const test: KeyTest = (channel, key) =>
    (channels?.has(channel) ?? true) &&
    isOfPhase(key) &&
    (rule.run === undefined || key.by?.run === rule.run) &&
    (rule.moment === undefined || (key.by !== undefined && momentOfSlot(key.by.slot) === rule.moment)) &&
    (rule.byHand !== true || key.by === undefined) &&
    (rule.offGrid !== true || key.at !== toFrameGrid(key.at, rate)) &&
    key.at >= (from?.ticks ?? -Infinity) &&
    key.at <= (to?.ticks ?? Infinity) &&
    key.value * perUnit(channel) >= (rule.low ?? -Infinity) &&
    key.value * perUnit(channel) <= (rule.high ?? Infinity);
  return { test, problems: problemsOf([from, to]) };
}

/** The picked times of a layer, ascending, each once. */
export function momentsOf(entries: Entries): Ticks[] {
  const times = new Set<Ticks>();
  for (const list of entries.values()) for (const { key, isPicked } of list) if (isPicked) times.add(key.at);
  return [...times].sort((a, b) => a - b);
}

/** A layer's keys, with those picked that a rule means: first and last are the first and last moments of those. */
export function pickKeys(
  layer: Pick<Layer, 'tracks'>,
  { which, nth = 2 }: Pick<KeyRule, 'which' | 'nth'>,
  test: KeyTest,
): Entries {
  const all = new Map(
    tracksOf(layer as Layer).map(([channel, keys]) => [
      channel,
      keys.map((key): Entry => ({ key, isPicked: test(channel, key) })),
    ]),
  );
  if (which === 'all') return all;
  const times = momentsOf(all);
  const [first, last] = [times[0], times[times.length - 1]];
  const isMeant = (at: Ticks): boolean =>
    which === 'first' || which === 'last' || which === 'nth'
      ? at === { first, last, nth: times[nth - 1] }[which]
      : at !== first && at !== last;
  return mapEntries(all, (entry) => ({ ...entry, isPicked: entry.isPicked && isMeant(entry.key.at) }));
}

/** Entries put through a change, channel by channel. */
export function mapEntries(entries: Entries, change: (entry: Entry, channel: ChannelId) => Entry): Entries {
  return new Map([...entries].map(([channel, list]) => [channel, list.map((entry) => change(entry, channel))]));
}

/** Picked keys put through a change. */
export function mapPicked(entries: Entries, change: (key: NamedKey, channel: ChannelId) => NamedKey): Entries {
  return mapEntries(entries, (entry, channel) =>
    entry.isPicked ? { ...entry, key: change(entry.key, channel) } : entry,
  );
}

/** Keys in order of time again, one at each: a picked one takes the place of another, of two picked ones the later. */
export function settled(entries: Entries): Entries {
  return new Map(
    [...entries].map(([channel, list]) => {
      const sorted = list
        .map((entry, i) => ({ entry, i }))
        .sort((a, b) => a.entry.key.at - b.entry.key.at || a.i - b.i);
      const kept: Entry[] = [];
      for (const { entry } of sorted) {
        const last = kept.at(-1);
        if (last?.key.at !== entry.key.at) kept.push(entry);
        else if (entry.isPicked || !last.isPicked) kept[kept.length - 1] = entry;
      }
      return [channel, kept];
    }),
  );
}

/** How many keys are picked. */
export function pickedCount(entries: Entries): number {
  let count = 0;
  for (const list of entries.values()) for (const { isPicked } of list) if (isPicked) count++;
  return count;
}
