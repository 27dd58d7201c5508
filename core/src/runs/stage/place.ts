import { IDENTITY, inverse, multiply, type Matrix } from '../../basics/transform';
import type { Edit } from '../../scene/edit';
import { restValue, type Layer } from '../../scene/layer';
import { compileScene, matrixAt, restFrame } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { changeEdits, isKeyedPlace, refuse, takenOut, topLayers, withInside, type StageResult } from './nesting';

/** Where layers are put: in a group or in none, right behind one of those that are there, or in front of all of them. */
export interface Placement {
  readonly parent: string | null;
  readonly before: string | null;
}

/** Groups around a layer, the nearest first. */
function groupsAround({ layers }: Pick<Scene, 'layers'>, parent: string | null): Layer[] {
  const byId = new Map(layers.map((layer) => [layer.id, layer]));
  const found: Layer[] = [];
  for (let up = byId.get(parent ?? ''); up; up = byId.get(up.parent ?? '')) found.push(up);
  return found;
}

/** What groups do to what is in the innermost of them, as they rest. */
function restMatrix(scene: Scene, [group, ...others]: readonly Layer[]): Matrix {
  if (!group) return IDENTITY;
  const compiled = compileScene({ ...scene, layers: [...[group, ...others].reverse()], runs: [] });
  return matrixAt(restFrame(compiled), compiled.layers.length - 1);
}

function turnOf(groups: readonly Layer[]): number {
  return groups.reduce((turn, group) => turn + restValue(group, 'rotation'), 0);
}

/** Layers of a scene in another order: `ids` right behind one layer, or in front of all that are in their group. */
function movesTo(scene: Scene, ids: readonly string[], { parent, before }: Placement): Edit[] {
  const order = scene.layers.map(({ id }) => id);
  const moved = new Set(ids);
  const beside = scene.layers.filter((layer) => layer.parent === parent && !moved.has(layer.id));
  const last = beside[beside.length - 1]?.id ?? parent;
  const edits: Edit[] = [];
  let behind: string | null = null;
  for (const id of ids) {
    const from = order.indexOf(id);
    order.splice(from, 1);
    const after: string | null = behind ?? last;
    const index: number =
      behind === null && before !== null
        ? order.indexOf(before)
        : after === null
          ? order.length
          : order.indexOf(after) + 1;
    order.splice(index, 0, id);
    if (index !== from) edits.push({ type: 'move-layer', layer: id, index });
    behind = id;
  }
  return edits;
}

/**
 * Puts layers elsewhere in depth, into a group or out of one. Nothing moves on screen; refused where only the groups
 * around them can show what they do, and for what belongs to a run.
 */
export function placeLayers(scene: Scene, ids: ReadonlySet<string>, to: Placement): StageResult {
  const members = topLayers(scene, ids);
  if (members.length === 0) return refuse('Select a layer first.');
  const locked = members.find((layer) => layer.locked);
  if (locked) return refuse(`“${locked.name}” is locked. Unlock it in the layer panel first.`);
  const inside = new Set(withInside(scene, ids).map(({ id }) => id));
  if (to.parent !== null && inside.has(to.parent)) return refuse('A group cannot go into itself.');
  if (to.before !== null && inside.has(to.before)) return { ok: true, edits: [], selected: [] };
  const leaving = members.filter(({ parent }) => parent !== to.parent);
  const copy = leaving.find((layer) => layer.copy);
  if (copy) return refuse(`“${copy.name}” is a copy that its run puts into its group. Duplicate it to have one apart.`);
  const into = groupsAround(scene, to.parent);
  const changes: Edit[] = [];
  for (const layer of leaving) {
    const out = groupsAround(scene, layer.parent);
    const ways = [...out, ...into].filter((group) => !(out.includes(group) && into.includes(group)));
    const keyed = ways.find(isKeyedPlace);
    if (keyed)
      return refuse(
        `“${keyed.name}” moves by keys of its own, so that “${layer.name}” would jump. Clear its keys first.`,
      );
    const back = inverse(restMatrix(scene, into));
    const turn = turnOf(out) - turnOf(into);
    const isLeaning = ways.some((group) => restValue(group, 'skew') !== 0);
    const fade = ways
      .filter((group) => out.includes(group))
      .reduce((all, group) => all * restValue(group, 'opacity'), 1);
    const change = back && !isLeaning ? takenOut(layer, multiply(back, restMatrix(scene, out)), turn, fade) : null;
    if (!change)
      return refuse(`“${layer.name}” would jump: a group is turned or stretched, and it is keyed or turned itself.`);
    changes.push(...changeEdits(layer, change, to.parent));
  }
  const order = members.map(({ id }) => id);
  const edits = [...movesTo(scene, order, to), ...changes];
  return { ok: true, edits, selected: order };
}
