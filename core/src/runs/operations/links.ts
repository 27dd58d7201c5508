import { apply, type Edit } from '../../scene/edit';
import type { Shelf } from '../../library/library';
import type { Followed, RunContext } from '../operation';
import { followedBy } from './table';
import type { RunRecord, Scene } from '../../scene/scene';

/** Plans a run of a scene again by its own recipe. */
type Replan = (scene: Scene, shelf: Shelf, run: RunRecord, context: Pick<RunContext, 'by' | 'when'>) => readonly Edit[];

/** True for an edit that may change what a run that follows a layer takes from it. */
function changesFollowed(edit: Edit, { layer, fields, keys }: Followed): boolean {
  if (!('layer' in edit) || edit.layer !== layer) return false;
  if (edit.type === 'set-track') return keys;
  return edit.type === 'set-layer' && fields.some((name) => name in edit.fields);
}

/**
 * Edits with those that bring along what follows: where a step changes a layer that linked runs follow, these are done again
 * in the same step. A style that follows another follower comes after it; circles end, since each run is done once.
 */
export function withFollowers(
  scene: Scene,
  edits: readonly Edit[],
  shelf: Shelf,
  context: Pick<RunContext, 'by' | 'when'>,
  replan: Replan,
): readonly Edit[] {
  const runs = scene.runs.filter((run) => followedBy(run) !== null);
  if (runs.length === 0) return edits;
  let all = edits;
  for (const { id } of runs) {
    const now = apply(scene, all);
    const run = now.ok ? now.scene.runs.find((one) => one.id === id) : undefined;
    const followed = run ? followedBy(run) : null;
    if (!now.ok || !run || followed === null || !all.some((edit) => changesFollowed(edit, followed))) continue;
    all = [...all, ...replan(now.scene, shelf, run, context)];
  }
  return all;
}
