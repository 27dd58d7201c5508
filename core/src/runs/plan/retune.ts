import type { Shelf } from '../../library/library';
import type { RigRecipe } from '../../scene/recipe';
import type { RunRecord, Scene } from '../../scene/scene';
import { severityOf, type Finding } from '../finding';
import { compilePreset, type CompilePreset } from '../../formulas/preset';
import type { RunContext } from '../operation';
import { operate, recordOf } from './plan';

/** A rig's run with its dials set otherwise, or what keeps it from that. */
export type Retuned =
  { readonly ok: true; readonly run: RunRecord } | { readonly ok: false; readonly findings: readonly Finding[] };

/**
 * A rig's run with another recipe, such as a dial turned. It makes no keys, so that nothing else changes: the record
 * takes the place of the one before. It keeps to the revision that it used.
 */
export function retuneRig(
  scene: Scene,
  shelf: Shelf,
  id: string,
  recipe: RigRecipe,
  context: Pick<RunContext, 'by' | 'when'>,
  compile: CompilePreset = compilePreset,
): Retuned {
  const before = scene.runs.find((run) => run.id === id);
  if (!before) return { ok: false, findings: [{ code: 'unknown-run', run: id }] };
  const revision = before.rig?.id === recipe.rig.id ? before.rig.revision : undefined;
  const rig = revision === undefined ? recipe.rig : { ...recipe.rig, revision };
  const others = { ...scene, runs: scene.runs.filter((run) => run !== before) };
  const surroundings = { scene: others, shelf, context: { ...context, runId: id, known: before }, compile };
  const operated = operate(surroundings, { ...recipe, rig });
  const stops = operated.findings.filter((finding) => severityOf(finding) === 'error');
  if (operated.layers.length === 0 || stops.length > 0) return { ok: false, findings: operated.findings };
  const record = recordOf(surroundings, recipe, operated);
  return { ok: true, run: { ...record, ...(before.off === true ? { off: true } : {}) } };
}
