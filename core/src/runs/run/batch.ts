import type { Staging } from '../order';
import type { CompiledPreset, Mark } from '../../formulas/preset';
import type { PresetRecipe } from '../../scene/recipe';
import type { Ticks } from '../../basics/time';
import type { ParameterSource } from './vary';

/** Everything of a run that is the same for all its layers. */
export interface Batch {
  readonly staging: Staging;
  readonly recipe: PresetRecipe;
  readonly compiled: CompiledPreset;
  readonly sources: readonly ParameterSource[];
  /** Values that were set by hand for single layers. */
  readonly overrides: ReadonlyMap<string, OverrideSources>;
  /** Says of a slot that its keys are the run's. */
  readonly mark: Mark;
  /** Runs whose keys give way: those that bring in, or send out, as this one does and takes the place of. */
  readonly isGone: ((run: string) => boolean) | null;
  /** Indices of its layers in the scene, and the place of each in the order. */
  readonly indices: readonly number[];
  readonly places: readonly number[];
  readonly lastPlace: number;
  /** Length that the recipe fixes, or the limits between which it is drawn; null otherwise. */
  readonly lengths: readonly [Ticks, Ticks] | null;
}

/** What of a batch the parameters of its layers depend on; dials of rigs are worked out in the same way. */
export type ParameterBatch = Pick<
  Batch,
  'staging' | 'compiled' | 'sources' | 'overrides' | 'indices' | 'places' | 'lastPlace'
> & { readonly recipe: Pick<PresetRecipe, 'seed'> };

/** Values of one layer that were set by hand. */
export interface OverrideSources {
  readonly start: Ticks | null;
  readonly length: Ticks | null;
  readonly parameters: ReadonlyMap<string, ParameterSource>;
}

/** Marks of a run's keys, the same one for the same slot: a thousand layers have few, and other threads get few. */
export function createMarker(run: string): Mark {
  const known = new Map<string, ReturnType<Mark>>();
  return (slot) => {
    const mark = known.get(slot) ?? { run, slot };
    known.set(slot, mark);
    return mark;
  };
}
