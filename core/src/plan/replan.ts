import { findUnheld } from '../check';
import type { Finding } from '../finding';
import type { Shelf } from '../library';
import { compilePreset, type CompilePreset } from '../preset';
import type { Recipe } from '../recipe';
import { isSame, type Layer, type LayerStep, type RunRecord, type Scene } from '../scene';
import { applyHandEdits, countHandEdits, peelScene, restack, type Link, type Peeled } from '../stack';
import type { Edit } from '../edit';
import type { RunContext } from '../operation';
import { countsWith, layersById, operate, recordOf, refusedPlan, type Plan } from './plan';

/** The link of a run as it is planned again: its new step, and what was changed by hand over the old one. */
function relink({ links }: Peeled, layer: string, run: RunRecord, step: LayerStep | undefined): Link[] {
  const own = links.find((link) => link.run.id === run.id);
  const others = links.filter((link) => link !== own);
  if (!own && !step) return others;
  const hand = own?.hand ?? { in: step?.span?.after.in ?? 0, span: null, rest: new Map(), tracks: new Map() };
  return [step ? { run, step, hand } : { run, step: { layer, tracks: [] }, hand, isGone: true }, ...others];
}

function keptByHand(peeled: ReadonlyMap<string, Peeled>, run: string): Finding[] {
  let keys = 0;
  const layers: string[] = [];
  for (const [layer, { links }] of peeled) {
    const own = links.find((link) => link.run.id === run);
    const count = own ? countHandEdits(own.hand) : 0;
    if (count === 0) continue;
    keys += count;
    layers.push(layer);
  }
  return keys > 0 ? [{ code: 'kept-by-hand', layers, keys }] : [];
}

/** What a record says without who and when; the revision stands in its preset, whether its recipe asks for it or not. */
function said({ by: _by, when: _when, ...run }: RunRecord): object {
  const { preset } = run.recipe;
  if (typeof preset !== 'object' || preset === null) return run;
  const { revision: _revision, ...asked } = preset as Readonly<Record<string, unknown>>;
  return { ...run, recipe: { ...run.recipe, preset: asked } };
}

/** A record that says the same is no change. */
function isNoChange(before: RunRecord, after: RunRecord, edits: readonly Edit[]): boolean {
  const isOnlyRun = edits.every((edit) => edit.type === 'set-run' && edit.run.id === before.id);
  return isOnlyRun && isSame(said(after), said(before));
}

/**
 * Plans a run of the scene again, by the same or by another recipe, in three ways: what it made before, what stands
 * now, and what it would make. A key that nobody touched takes the new value, one that was changed by hand keeps what
 * was changed and is listed, a layer that is gone is skipped, and one that the pick now catches joins. Runs that were
 * applied later are done again on top. Without any change there are no edits.
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
  const peeled = peelScene(scene, index);
  const own: RunContext = { ...context, runId: id, known: before };
  const operated = operate(peeled.under, shelf, recipe, own, compile);
  if (operated.layers.length === 0) return refusedPlan(operated.findings);
  const record = recordOf(peeled.under, shelf, recipe, operated, own);
  const steps = new Map(record.steps.map((step) => [step.layer, step]));
  const runs = scene.runs.with(index, record);
  const restacked = restack(
    scene,
    index,
    runs,
    (entry, layer) => relink(entry, layer, record, steps.get(layer)),
    peeled,
  );
  const unheld = unheldIn(scene, restacked.edits);
  if (unheld) return refusedPlan([unheld]);
  const next = restacked.runs[index];
  const edits = isNoChange(before, next, restacked.edits) ? [] : restacked.edits;
  const under = layersById(peeled.under);
  return {
    edits,
    findings: [...operated.findings, ...keptByHand(peeled.peeled, id)],
    layers: operated.layers.map((entry) => ({
      ...entry,
      after: withHand(entry.after, peeled.peeled.get(entry.layer), id),
    })),
    counts: countsWith(operated, under),
    run: next,
  };
}

/** What a change of a run would bring about in later runs and hand edits that no scene can hold. */
function unheldIn(scene: Scene, edits: readonly Edit[]): Finding | null {
  const standing = layersById(scene);
  const layers = edits.flatMap((edit): Layer[] => {
    const layer = edit.type === 'set-track' && edit.keys ? standing.get(edit.layer) : undefined;
    return layer && edit.type === 'set-track' ? [{ ...layer, tracks: { [edit.channel]: edit.keys ?? [] } }] : [];
  });
  return findUnheld(layers);
}

function withHand(after: Layer, peeled: Peeled | undefined, run: string): Layer {
  const own = peeled?.links.find((link) => link.run.id === run);
  return own ? applyHandEdits(after, own.hand, () => true) : after;
}
