import { apply, type Edit } from '../../scene/edit';
import { severityOf, type Finding } from '../finding';
import type { Shelf } from '../../library/library';
import { compilePreset, type CompilePreset } from '../../formulas/preset';
import { withRevisions, type Recipe } from '../../scene/recipe';
import { isSame, tracksOf, type Layer } from '../../scene/layer';
import type { RunRecord, Scene } from '../../scene/scene';
import type { RunContext } from '../operation';
import type { Ticks } from '../../basics/time';
import { layersById } from './plan';
import { replan } from './replan';

/** The recipe of a run as it can be changed: keeping to the revisions that it used, or taking the newest. */
export function recipeOfRun({ recipe, preset, rig, uses = [] }: RunRecord, revision: 'used' | 'newest'): Recipe {
  if (revision === 'newest') return withRevisions(recipe, []);
  // A run of a preset or a rig keeps it whole.
  return withRevisions(recipe, [...uses, ...[preset, rig].filter((kept) => kept !== undefined)]);
}

/** The keys of one run on one layer: scene times of the first and the last one, in ticks, and how many they are. */
export interface RunKeys {
  readonly starts: Ticks;
  readonly ends: Ticks;
  readonly keys: number;
}

/** A layer that an update changes; null where the run has no keys on it. */
export interface LayerUpdate {
  readonly layer: string;
  readonly name: string;
  readonly before: RunKeys | null;
  readonly after: RunKeys | null;
}

/** The update of one run, with those before it in place. */
export interface RunUpdate {
  readonly run: string;
  readonly edits: readonly Edit[];
  readonly findings: readonly Finding[];
  readonly layers: readonly LayerUpdate[];
}

function runKeys(layer: Layer | undefined, run: string): RunKeys | null {
  const own = layer ? tracksOf(layer).flatMap(([, keys]) => keys.filter(({ by }) => by?.run === run)) : [];
  if (own.length === 0) return null;
  const times = own.map(({ at }) => at);
  return { starts: Math.min(...times), ends: Math.max(...times), keys: own.length };
}

function changedBy(before: Scene, after: Scene, run: string): LayerUpdate[] {
  const old = layersById(before);
  return after.layers.flatMap((layer): LayerUpdate[] => {
    const standing = old.get(layer.id);
    if (standing === layer || (standing && isSame(standing, layer))) return [];
    return [{ layer: layer.id, name: layer.name, before: runKeys(standing, run), after: runKeys(layer, run) }];
  });
}

/**
 * Plans the updates of several runs to what the library holds now, one on top of the other in the order of the runs in
 * the scene. The edits of all that can be updated, put one after another, do it in one step; a run with a finding of
 * severity "error" is left as it is and has no edits.
 */
export function planUpdates(
  scene: Scene,
  shelf: Shelf,
  runs: ReadonlySet<string>,
  context: Pick<RunContext, 'by' | 'when'>,
  compile: CompilePreset = compilePreset,
): RunUpdate[] {
  let standing = scene;
  return scene.runs.flatMap((run): RunUpdate[] => {
    if (!runs.has(run.id)) return [];
    const { edits, findings } = replan(standing, shelf, run.id, recipeOfRun(run, 'newest'), context, compile);
    const applied = apply(standing, edits);
    if (!applied.ok || findings.some((finding) => severityOf(finding) === 'error')) {
      return [{ run: run.id, edits: [], findings, layers: [] }];
    }
    const before = standing;
    standing = applied.scene;
    return [{ run: run.id, edits, findings, layers: changedBy(before, standing, run.id) }];
  });
}
