import { layerEdits, type Edit } from '../../scene/edit';
import { isSame, type Layer } from '../../scene/layer';
import type { RunRecord } from '../../scene/scene';
import {
  baseOf,
  createFolding,
  layOver,
  nothingTouched,
  noteTouched,
  unnamed,
  type Entry,
  type Folding,
  type Level,
} from './fold';
import { follow, type Anew, type Climber, type Step } from './follow';
import type { Opened } from './opened';
import { withEntries } from './records';
import type { Unfolded } from './unfold';

/** What a change of a scene's runs gives. */
export interface Restacked {
  readonly edits: readonly Edit[];
  readonly runs: readonly RunRecord[];
}

/** The runs that a layer is to have, with their patches, and the base below them. */
export interface Planned {
  readonly base: Layer;
  readonly entries: readonly Entry[];
}

/**
 * Builds a scene up again with other runs. `plannedOf` gives what a layer is to have; `runs` are all runs of the scene
 * afterwards, the `given` one as it is now planned. Later runs are planned anew where what they read has changed.
 */
export function restack(
  opened: Opened,
  runs: readonly RunRecord[],
  plannedOf: (unfolded: Unfolded) => Planned,
  given: string | null = null,
): Restacked {
  const { scene } = opened;
  const folding = createFolding(scene, runs);
  const climbers = [...opened.layers.values()].map((unfolded): Climber => {
    const { base, entries } = plannedOf(unfolded);
    return { unfolded, base, entries, state: base, touched: nothingTouched(), met: 0 };
  });
  const byRun = new Map<string, Step[]>();
  for (const climber of climbers) {
    for (const entry of climber.entries) {
      const steps = byRun.get(entry.run.id) ?? [];
      steps.push({ climber, entry });
      byRun.set(entry.run.id, steps);
    }
  }
  const old = new Set(scene.runs.map(({ id }) => id));
  const next = runs.map((run) => {
    const steps = byRun.get(run.id);
    if (!steps) return run;
    const anew =
      old.has(run.id) && run.id !== given && run.off !== true ? follow(run, steps, climbers, opened, folding) : null;
    return withEntries(run, climb(run, steps, anew, folding), anew);
  });
  return { edits: [...climbers.flatMap(layerEditsOf), ...runEdits(scene.runs, next)], runs: next };
}

/** Lays one run over its layers; gives what it then is on them. */
function climb(run: RunRecord, steps: readonly Step[], anew: Anew | null, folding: Folding): Entry[] {
  return steps.map(({ climber, entry: { made, patch } }) => {
    const entry: Entry = { run, made: anew?.get(made.layer)?.made ?? made, patch };
    const level = levelAsBefore(climber, entry) ?? layOver(climber.state, entry, folding);
    climber.met++;
    noteTouched(climber.touched, level);
    climber.state = level.after;
    return entry;
  });
}

/** The level that a layer had with the same run over the same state, which need not be worked out again. */
function levelAsBefore({ unfolded, state, met }: Climber, { run, made, patch }: Entry): Level | null {
  const level = unfolded.levels[met];
  if (!level || level.before !== state) return null;
  const { entry } = level;
  return entry.run === run && entry.made === made && entry.patch === patch ? level : null;
}

/** The edits that lead from a layer as it stands to what it has become. */
function layerEditsOf({ unfolded: { standing }, base, touched, state }: Climber): Edit[] {
  const edits = layerEdits(standing, unnamed(state));
  const kept = baseOf(base, touched);
  return isSame(standing.base, kept) ? edits : [...edits, { type: 'set-base', layer: standing.id, base: kept ?? null }];
}

/** The edits that lead from one list of runs to another. */
export function runEdits(before: readonly RunRecord[], after: readonly RunRecord[]): Edit[] {
  const old = new Map(before.map((run) => [run.id, run]));
  const ids = new Set(after.map(({ id }) => id));
  const edits: Edit[] = before.filter(({ id }) => !ids.has(id)).map(({ id }) => ({ type: 'remove-run', run: id }));
  const order = before.filter(({ id }) => ids.has(id)).map(({ id }) => id);
  after.forEach((run, index) => {
    const standing = old.get(run.id);
    if (standing && order[index] === run.id) {
      if (!isSame(standing, run)) edits.push({ type: 'set-run', run });
      return;
    }
    if (standing) {
      edits.push({ type: 'remove-run', run: run.id });
      order.splice(order.indexOf(run.id), 1);
    }
    edits.push({ type: 'add-run', index, run });
    order.splice(index, 0, run.id);
  });
  return edits;
}
