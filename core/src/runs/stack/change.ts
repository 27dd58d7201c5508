import type { Edit } from '../../scene/edit';
import type { Layer } from '../../scene/layer';
import { broughtBy } from '../operations';
import type { LayerPatch, RunRecord, Scene } from '../../scene/scene';
import { baseLayer, createFolding, entryOn, unnamed, type Entry } from './fold';
import { openScene } from './opened';
import { applyPatch, joinPatches, patchBetween, renamedPatch, splitPatch } from './patch';
import { restack, type Planned, type Restacked } from './restack';
import type { Unfolded } from './unfold';

/** Where a run stands in its scene; −1 where it does not. */
function indexOfRun(scene: Scene, id: string): number {
  return scene.runs.findIndex((run) => run.id === id);
}

const NOTHING: Restacked = { edits: [], runs: [] };

/** True for the name of a key that a run made. */
function isMadeBy(id: string, run: string): boolean {
  return id.startsWith(`${run}/`);
}

/** True for the name of a key that a run made, or that was set by hand over it. */
function isOfRun(id: string, run: string): boolean {
  return isMadeBy(id, run) || id.startsWith(`${run}@`);
}

/** Names that keys which were added by hand have once they belong to the base, by those that they had. */
function addedNames(left: LayerPatch, base: Layer): Map<string, string> {
  const by = base.span.in - left.in;
  const added = Object.values(left.tracks ?? {}).flatMap((keys) => keys.added ?? []);
  return new Map(added.map(({ id, key }) => [id, `@${key.at + by}`]));
}

/** What a layer has without a run: what was done by hand over it goes to the run below, or into the base. */
export function without(
  { base, levels }: Unfolded,
  run: string,
  { isAlive }: ReturnType<typeof createFolding>,
): Planned {
  const at = levels.findIndex(({ entry }) => entry.run.id === run);
  const entries = levels.map(({ entry }) => entry).filter((_, i) => i !== at);
  const [, left] = at < 0 ? [] : splitPatch(levels[at].entry.patch, (id) => isMadeBy(id, run));
  if (!left) return { base, entries };
  if (at === 0) {
    const names = addedNames(left, base);
    return {
      base: baseLayer(unnamed(applyPatch(base, left, isAlive)), {}),
      entries: entries.map((entry) => ({ ...entry, patch: renamedPatch(entry.patch, names) })),
    };
  }
  const { met, after, entry } = levels[at - 1];
  const known = { run: entry.run.id, stored: entry.patch, isAlive };
  const patch = patchBetween(met, applyPatch(after, left, isAlive), known);
  return { base, entries: entries.with(at - 1, { ...entry, patch }) };
}

/** Takes a run out: just its keys go, and what stood before comes back. What was added by hand stays. */
export function removeRun(scene: Scene, id: string): Restacked {
  const index = indexOfRun(scene, id);
  if (index < 0) return NOTHING;
  const runs = scene.runs.toSpliced(index, 1);
  const folding = createFolding(scene, runs);
  const restacked = restack(openScene(scene, index), runs, (unfolded) => without(unfolded, id, folding));
  // What it brought goes with it.
  const gone = broughtBy(scene, scene.runs[index]).layers;
  if (gone.length === 0) return restacked;
  const ids = new Set(gone);
  const others = restacked.edits.filter(
    (edit) => !('layer' in edit && typeof edit.layer === 'string' && ids.has(edit.layer)),
  );
  return { ...restacked, edits: [...others, ...gone.map((layer): Edit => ({ type: 'remove-layer', layer }))] };
}

/**
 * Switches a run off, or on again in its old place among the others. Switched off it stays listed with what it makes and
 * with what was done to that by hand; hand keys over it stay where they are.
 */
export function switchRun(scene: Scene, id: string): Restacked {
  const index = indexOfRun(scene, id);
  if (index < 0) return NOTHING;
  const { off, ...rest } = scene.runs[index];
  const run: RunRecord = off === true ? rest : { ...rest, off: true };
  const below = new Set(scene.runs.slice(0, index).map((one) => one.id));
  const restacked = restack(openScene(scene, index), scene.runs.with(index, run), ({ standing, base, levels }) => {
    const entries = levels.map(({ entry }) => entry);
    const at = entries.filter((one) => below.has(one.run.id)).length;
    const isListed = entries[at]?.run.id === id;
    const switched = entryOn(run, standing.id);
    if (!switched) return { base, entries };
    const entry = isListed ? { ...switched, patch: entries[at].patch } : switched;
    return { base, entries: entries.toSpliced(at, isListed ? 1 : 0, entry) };
  });
  const { group } = broughtBy(scene, run);
  if (group === null) return restacked;
  // What a run that is switched off brought is there, and not to be seen.
  const hidden = run.off === true;
  return { ...restacked, edits: [...restacked.edits, { type: 'set-layer', layer: group, fields: { hidden } }] };
}

/** What was done by hand to the keys of runs that now come later belongs to those. */
function settled(entries: readonly Entry[]): Entry[] {
  const result = [...entries];
  result.forEach((_, i) => {
    for (let later = i + 1; later < result.length; later++) {
      const [moved, kept] = splitPatch(result[i].patch, (id) => isOfRun(id, result[later].run.id));
      if (!moved) continue;
      result[i] = { ...result[i], patch: kept };
      result[later] = { ...result[later], patch: joinPatches(moved, result[later].patch) };
    }
  });
  return result;
}

/** Moves a run to another place among the runs; what both touch then goes to the later one. */
export function moveRun(scene: Scene, id: string, to: number): Restacked {
  const from = indexOfRun(scene, id);
  if (from < 0 || to < 0 || to >= scene.runs.length || from === to) return NOTHING;
  const runs = scene.runs.toSpliced(from, 1).toSpliced(to, 0, scene.runs[from]);
  const places = new Map(runs.map((run, place) => [run.id, place]));
  const placeOf = ({ run }: Entry): number => places.get(run.id) ?? 0;
  return restack(openScene(scene, Math.min(from, to)), runs, ({ base, levels }) => ({
    base,
    entries: settled(levels.map(({ entry }) => entry).sort((a, b) => placeOf(a) - placeOf(b))),
  }));
}
