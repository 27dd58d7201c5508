import type { Ticks } from '../../basics/time';
import { rigIn } from '../../formulas/rig';
import type { Parameter } from '../../formulas/preset';
import type { Key, Track } from '../../scene/layer';
import type { DialSetting, RigRecipe } from '../../scene/recipe';
import type { RunRecord, Scene } from '../../scene/scene';
import { dialText } from './trial';

/** Keys of dials picked by hand: by run and dial, the times of its picked keys. */
export type DialPicks = ReadonlyMap<string, ReadonlyMap<string, ReadonlySet<Ticks>>>;

/** A dial of a run that has keys. */
export interface KeyedDial {
  readonly run: RunRecord;
  readonly dial: Parameter;
  readonly keys: Track;
}

/** The dials of a run of a rig that have keys, in the order of the rig. */
export function keyedDials(run: RunRecord): KeyedDial[] {
  const { recipe, rig } = run;
  if (recipe.operation !== 'rig' || !rig) return [];
  return (rigIn(rig.body)?.dials ?? []).flatMap((dial): KeyedDial[] => {
    const setting = recipe.parameters[dial.name];
    return setting?.by === 'keys' ? [{ run, dial, keys: setting.keys }] : [];
  });
}

/** The recipe of a run with picked keys of its dials put through a change, and the same keys picked where they then are. */
export interface DialKeysChange {
  readonly recipe: RigRecipe;
  readonly picks: ReadonlyMap<string, ReadonlySet<Ticks>>;
}

/**
 * Puts picked keys of a run's dials through a change; a key for which it gives null goes. A changed key takes the place of
 * one that stands where it comes to. A dial that loses its last key keeps the value that this one had.
 */
export function changeDialKeys(
  run: RunRecord,
  recipe: RigRecipe,
  picks: ReadonlyMap<string, ReadonlySet<Ticks>>,
  change: (key: Key, dial: Parameter) => Key | null,
  rate: Scene['rate'],
): DialKeysChange {
  const parameters: Record<string, DialSetting> = { ...recipe.parameters };
  const now = new Map<string, ReadonlySet<Ticks>>();
  for (const { dial, keys } of keyedDials(run)) {
    const times = picks.get(dial.name);
    if (!times) continue;
    const changed = keys.flatMap((key) => (times.has(key.at) ? (change(key, dial) ?? []) : []));
    const taken = new Set(changed.map(({ at }) => at));
    const kept = keys.filter(({ at }) => !times.has(at) && !taken.has(at));
    // Of two that come to one time the later one stays.
    const next = [...new Map([...kept, ...changed].map((key) => [key.at, key])).values()].sort((a, b) => a.at - b.at);
    parameters[dial.name] =
      next.length > 0 ? { by: 'keys', keys: next } : { by: 'fixed', value: dialText(dial, keys[0].value, rate) };
    if (changed.length > 0) now.set(dial.name, taken);
  }
  return { recipe: { ...recipe, parameters }, picks: now };
}
