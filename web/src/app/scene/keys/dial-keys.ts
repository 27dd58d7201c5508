import { Injectable, inject } from '@angular/core';
import {
  changeDialKeys,
  frameTicks,
  keyedDials,
  TICKS_PER_SECOND,
  type DialPicks,
  type Edit,
  type Key,
  type Parameter,
  type Rate,
  type Scene,
} from '@wexikine/core';
import { BehaviorSubject, combineLatest, distinctUntilChanged, map, type Observable } from 'rxjs';
import { DialActions } from '../actions/dial-actions';
import { SceneStore } from '../scene.store';
import { withKeys } from './key-rows';

const NOTHING: DialPicks = new Map();

/** Picks of keys that are still there; the same picks where all are. */
export function dialsStillThere({ runs }: Scene, picks: DialPicks): DialPicks {
  if (picks.size === 0) return picks;
  const there = new Set(
    runs.flatMap((run) =>
      keyedDials(run).flatMap(({ dial, keys }) => keys.map(({ at }) => `${run.id} ${dial.name} ${at}`)),
    ),
  );
  const gone = [...picks].flatMap(([run, own]) =>
    [...own].flatMap(([dial, times]) =>
      [...times].flatMap((at) => (there.has(`${run} ${dial} ${at}`) ? [] : [[run, dial, at] as const])),
    ),
  );
  return gone.length === 0 ? picks : withKeys(picks, gone, true);
}

/** How many of what a person types make one in the unit that keys of a dial are kept in. */
export function perDialUnit({ kind }: Pick<Parameter, 'kind'>, rate: Rate): number {
  if (kind === 'percent') return 100;
  return kind === 'time' ? TICKS_PER_SECOND / frameTicks(rate) : 1;
}

/** The value that all picked keys of dials have, as it is typed; unlike ones, or of several dials, "mixed". */
export function dialValueWords({ runs, rate }: Scene, picks: DialPicks): string {
  const found = runs.flatMap((run) => {
    const own = picks.get(run.id);
    if (!own) return [];
    return keyedDials(run).flatMap(({ dial, keys }) => {
      const times = own.get(dial.name);
      const per = perDialUnit(dial, rate);
      return keys.flatMap(({ at, value }) => (times?.has(at) ? [{ dial: dial.name, value: value * per }] : []));
    });
  });
  const [first] = found;
  const isAlike = found.every(({ dial, value }) => dial === first.dial && Math.abs(value - first.value) < 1e-9);
  return isAlike && first ? String(Number(first.value.toFixed(2))) : 'mixed';
}

/** What became of picked keys of dials: the edits, and the same keys picked where they now are. */
export interface DialsChange {
  readonly edits: readonly Edit[];
  readonly picks: DialPicks;
}

/** The keys of dials that are picked, beside those of layers. */
@Injectable()
export class DialKeys {
  private readonly store = inject(SceneStore);
  private readonly dials = inject(DialActions);
  private readonly picked = new BehaviorSubject<DialPicks>(NOTHING);
  /** Picked keys; those that are gone are no longer picked. */
  readonly picks$: Observable<DialPicks> = combineLatest([this.store.scene$, this.picked]).pipe(
    map(([scene, picks]) => (scene ? dialsStillThere(scene, picks) : NOTHING)),
    distinctUntilChanged(),
  );

  get picks(): DialPicks {
    const { scene } = this.store;
    return scene ? dialsStillThere(scene, this.picked.value) : NOTHING;
  }

  pick(picks: DialPicks): void {
    this.picked.next(picks);
  }

  /** The picked keys put through a change; one for which it gives null goes. What keeps a run from it is told. */
  changed(change: (key: Key, dial: Parameter) => Key | null): DialsChange {
    const { scene } = this.store;
    const edits: Edit[] = [];
    const picks = new Map<string, ReadonlyMap<string, ReadonlySet<number>>>();
    for (const [id, own] of this.picks) {
      const run = scene?.runs.find((one) => one.id === id);
      if (!scene || !run || run.recipe.operation !== 'rig') continue;
      const made = changeDialKeys(run, run.recipe, own, change, scene.rate);
      const tuned = this.dials.tuned(id, made.recipe);
      if (tuned) edits.push({ type: 'set-run', run: tuned });
      picks.set(id, tuned ? made.picks : own);
    }
    return { edits, picks };
  }
}
