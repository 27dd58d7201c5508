import { findUnheld } from '../check';
import type { Edit } from '../../scene/edit';
import type { Finding } from '../finding';
import { isSame, type Layer } from '../../scene/layer';
import type { Shelf } from '../../library/library';
import type { RunContext } from '../operation';
import { compilePreset, type CompilePreset } from '../../formulas/preset';
import type { Recipe } from '../../scene/recipe';
import type { RunRecord, Scene } from '../../scene/scene';
import {
  applyPatch,
  countPatched,
  createFolding,
  entryOn,
  openRuns,
  openScene,
  restack,
  sceneUnder,
  without,
  type Opened,
  type Planned,
  type Unfolded,
} from '../stack';
import {
  comingEdits,
  comings,
  countsWith,
  layersById,
  operate,
  recordOf,
  refusedPlan,
  withAdded,
  type Plan,
} from './plan';

/** The runs of a layer with one of them as it is planned again: with what was changed by hand over the old one. */
function relinked(unfolded: Unfolded, index: number, scene: Scene, run: RunRecord): Planned {
  const fresh = entryOn(run, unfolded.standing.id);
  if (!fresh) return without(unfolded, run.id, createFolding(scene, scene.runs));
  const below = new Set(scene.runs.slice(0, index).map(({ id }) => id));
  const entries = unfolded.levels.map(({ entry }) => entry);
  const at = entries.filter((entry) => below.has(entry.run.id)).length;
  const old = entries[at]?.run.id === run.id ? entries[at] : null;
  const entry = { ...fresh, patch: old?.patch };
  return { base: unfolded.base, entries: entries.toSpliced(at, old ? 1 : 0, entry) };
}

/** Patches of a run by layer, with what was changed by hand since. */
function patchesOf({ layers }: Opened, run: string) {
  return new Map(
    [...layers].flatMap(([layer, { levels }]) => {
      const patch = levels.find(({ entry }) => entry.run.id === run)?.entry.patch;
      return patch ? [[layer, patch] as const] : [];
    }),
  );
}

function keptByHand(patches: ReturnType<typeof patchesOf>): Finding[] {
  let keys = 0;
  const layers: string[] = [];
  for (const [layer, patch] of patches) {
    const count = countPatched(patch);
    if (count === 0) continue;
    keys += count;
    layers.push(layer);
  }
  return keys > 0 ? [{ code: 'kept-by-hand', layers, keys }] : [];
}

/**
 * What a record says without who and when, and without what was done by hand over it; the revision stands in its preset,
 * whether its recipe asks for it or not.
 */
function said({ by: _by, when: _when, patches: _patches, ...run }: RunRecord): object {
  const { recipe } = run;
  if (!('preset' in recipe)) return run;
  const { revision: _revision, ...asked } = recipe.preset;
  return { ...run, recipe: { ...recipe, preset: asked } };
}

/** A record that says the same is no change, nor are patches and what stood before that are only written down. */
function isNoChange(scene: Scene, runs: readonly RunRecord[], edits: readonly Edit[]): boolean {
  return (
    edits.every(({ type }) => type === 'set-run' || type === 'set-base') &&
    runs.every((run, i) => run === scene.runs[i] || isSame(said(run), said(scene.runs[i])))
  );
}

/**
 * Plans a run of the scene again, by the same or by another recipe, in three ways: what it made before, what stands
 * now, and what it would make. A key that nobody touched takes the new value, one that was changed by hand keeps what
 * was changed and is listed, a layer that is gone is skipped, and one that the pick now catches joins. Runs that were
 * applied later are done again on top, planned anew where what they read has changed. Without any change there are no
 * edits.
 */
export function replan(
  scene: Scene,
  shelf: Shelf,
  id: string,
  recipe: Recipe,
  context: Pick<RunContext, 'by' | 'when'>,
  compile: CompilePreset = compilePreset,
): Plan {
  const index = scene.runs.findIndex((run) => run.id === id);
  const before = scene.runs[index];
  if (!before) return refusedPlan([{ code: 'unknown-run', run: id }]);
  const opened = openRuns(scene, index);
  const surroundings = {
    scene: sceneUnder(opened),
    shelf,
    context: { ...context, runId: id, known: before },
    compile,
  };
  const operated = operate(surroundings, recipe);
  if (operated.layers.length === 0) return refusedPlan(operated.findings);
  const record: RunRecord = {
    ...recordOf(surroundings, recipe, operated),
    ...(before.off === true ? { off: true } : {}),
  };
  const caught = withCaught(opened, record.layers, withAdded(scene, operated));
  const { edits, runs } = restack(
    caught,
    scene.runs.with(index, record),
    (unfolded) => relinked(unfolded, index, scene, record),
    id,
  );
  const all = [...comingEdits(scene, operated), ...edits];
  const unheld = unheldIn(scene, edits);
  if (unheld) return refusedPlan([unheld]);
  const patches = patchesOf(opened, id);
  return {
    edits: isNoChange(scene, runs, all) ? [] : all,
    findings: [...operated.findings, ...keptByHand(patches)],
    layers: operated.layers.map((entry) => ({
      ...entry,
      after: applyPatch(entry.after, patches.get(entry.layer), () => true),
    })),
    counts: countsWith(operated, layersById(withAdded(surroundings.scene, operated))),
    run: runs[index],
    ...comings(operated),
  };
}

/** An opened scene with layers that a run catches now and did not before. */
function withCaught(opened: Opened, layers: readonly string[], scene: Scene): Opened {
  if (scene === opened.scene && layers.every((layer) => opened.layers.has(layer))) return opened;
  return openScene(scene, opened.from, layers);
}

/** What a change of a run would bring about in later runs and hand edits that no scene can hold. */
function unheldIn(scene: Scene, edits: readonly Edit[]): Finding | null {
  const standing = layersById(scene);
  const changed = new Map<string, Layer>();
  for (const edit of edits) {
    if (edit.type !== 'set-track' && edit.type !== 'set-layer') continue;
    const before = standing.get(edit.layer);
    const layer = changed.get(edit.layer) ?? (before && { ...before, tracks: {} });
    if (!layer) continue;
    const { tracks } = layer;
    if (edit.type === 'set-layer') changed.set(edit.layer, { ...layer, ...edit.fields });
    else changed.set(edit.layer, { ...layer, tracks: { ...tracks, [edit.channel]: edit.keys ?? [] } });
  }
  return findUnheld([...changed.values()]);
}
