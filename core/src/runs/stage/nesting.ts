import { transformPoint, type Matrix } from '../../basics/transform';
import type { ChannelId } from '../../basics/channel';
import { layerEdits, type Edit } from '../../scene/edit';
import { restValue, type Layer } from '../../scene/layer';
import { boundsAt, compileScene, matrixAt, restFrame } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { changeChannels, type ChannelChanges } from './channels';
import { unionOf } from './snap';

/** Edits, with the layers that are to be selected after them, or why nothing can be done. */
export type StageResult =
  | { readonly ok: true; readonly edits: readonly Edit[]; readonly selected: readonly string[] }
  | { readonly ok: false; readonly message: string };

/** Why nothing can be done. */
export const refuse = (message: string): StageResult => ({ ok: false, message });

/** Layers that were asked for, without those that are in another one of them, from back to front. */
export function topLayers({ layers }: Pick<Scene, 'layers'>, ids: ReadonlySet<string>): Layer[] {
  const byId = new Map(layers.map((layer) => [layer.id, layer]));
  const isInside = ({ parent }: Layer): boolean => {
    for (let up = parent; up !== null; up = byId.get(up)?.parent ?? null) if (ids.has(up)) return true;
    return false;
  };
  return layers.filter((layer) => ids.has(layer.id) && !isInside(layer));
}

/** A layer with everything in it, from back to front. */
export function withInside({ layers }: Pick<Scene, 'layers'>, ids: ReadonlySet<string>): Layer[] {
  const found = new Set(ids);
  for (let before = -1; before !== found.size;) {
    before = found.size;
    for (const { id, parent } of layers) if (parent !== null && found.has(parent)) found.add(id);
  }
  return layers.filter(({ id }) => found.has(id));
}

/** A layer's channels changed and put into another group, as edits. */
export function changeEdits(layer: Layer, changes: ChannelChanges, parent: string | null): Edit[] {
  return [
    ...layerEdits(layer, changeChannels(layer, changes, 'along', 0)),
    { type: 'set-layer', layer: layer.id, fields: { parent } },
  ];
}

/** Puts layers into a new group whose box is around them as they rest. Nothing moves; the group is where the topmost one was. */
export function groupLayers(scene: Scene, ids: ReadonlySet<string>, id: string, name: string): StageResult {
  const members = topLayers(scene, ids);
  const [first] = members;
  if (!first) return refuse('Select layers first: they become the group.');
  if (members.some(({ parent }) => parent !== first.parent))
    return refuse('These layers are in different groups. Take them out of those first, or group fewer.');
  const alone = compileScene({ ...scene, layers: members.map((layer) => ({ ...layer, parent: null })), runs: [] });
  const frame = restFrame(alone);
  const box = unionOf(members.map((_, index) => boundsAt(frame, index)));
  if (!box) return refuse('Select layers first: they become the group.');
  const [width, height] = [Math.max(1, box.right - box.left), Math.max(1, box.bottom - box.top)];
  const group: Layer = {
    id,
    name,
    kind: 'group',
    parent: first.parent,
    tags: [],
    locked: false,
    hidden: false,
    span: {
      in: members.reduce((least, { span }) => Math.min(least, span.in), first.span.in),
      out: members.reduce((most, { span }) => Math.max(most, span.out), first.span.out),
    },
    rest: {
      'position.x': box.left + width / 2,
      'position.y': box.top + height / 2,
      'size.x': width,
      'size.y': height,
    },
    tracks: {},
    look: {},
    source: { type: 'none' },
    data: {},
  };
  const last = scene.layers.findIndex((layer) => layer.id === members[members.length - 1].id);
  const into = members.flatMap((layer) =>
    changeEdits(layer, { 'position.x': (x) => x - box.left, 'position.y': (y) => y - box.top }, id),
  );
  return { ok: true, edits: [{ type: 'add-layer', index: last + 1, layer: group }, ...into], selected: [id] };
}

const PLACING: readonly ChannelId[] = ['position.x', 'position.y', 'rotation', 'skew', 'scale.x', 'scale.y'];

function isKeyed(layer: Layer, ids: readonly ChannelId[]): boolean {
  return ids.some((id) => layer.tracks[id] !== undefined);
}

/** Whether a group has keys that move or fade what is in it. */
export function isKeyedPlace(group: Layer): boolean {
  return isKeyed(group, [...PLACING, 'opacity']);
}

/** What a group's rest pose does to what is in it: its own matrix, without the groups around it. */
function matrixOfGroup(scene: Scene, group: Layer): Matrix {
  const compiled = compileScene({ ...scene, layers: [{ ...group, parent: null }], runs: [] });
  return matrixAt(restFrame(compiled), 0);
}

/** How a layer's channels change as its group's matrix becomes its own; null where only the group can show that. */
export function takenOut(layer: Layer, matrix: Matrix, turn: number, opacity: number): ChannelChanges | null {
  const [a, b, c, d] = matrix;
  const [across, down] = [Math.hypot(a, b), Math.hypot(c, d)];
  const isEven =
    Math.abs(across - down) < 1e-6 * Math.max(across, down) && Math.abs(a * c + b * d) < 1e-6 * across * down;
  const isUpright = turn === 0;
  const isLeaning = restValue(layer, 'rotation') !== 0 || isKeyed(layer, ['rotation']);
  if ((!isEven && (isLeaning || !isUpright)) || (!isUpright && isKeyed(layer, ['position.x', 'position.y'])))
    return null;
  const rest = transformPoint(matrix, { x: restValue(layer, 'position.x'), y: restValue(layer, 'position.y') });
  return {
    'position.x': isUpright ? (x) => a * x + matrix[4] : () => rest.x,
    'position.y': isUpright ? (y) => d * y + matrix[5] : () => rest.y,
    ...(turn === 0 ? {} : { rotation: (value: number) => value + turn }),
    ...(across === 1 ? {} : { 'scale.x': (value: number) => value * across }),
    ...(down === 1 ? {} : { 'scale.y': (value: number) => value * down }),
    ...(opacity === 1 ? {} : { opacity: (value: number) => value * opacity }),
  };
}

/** Takes everything out of a group, and the group away. Nothing moves; refused where only the group can show what it does. */
export function ungroupLayer(scene: Scene, id: string): StageResult {
  const group = scene.layers.find((layer) => layer.id === id);
  if (group?.kind !== 'group') return refuse('Select a group: what is in it comes out.');
  if (isKeyedPlace(group))
    return refuse(`“${group.name}” moves by keys of its own, which its parts cannot take over. Clear its keys first.`);
  const matrix = matrixOfGroup(scene, group);
  const turn = restValue(group, 'rotation');
  const [members, place] = [scene.layers.filter(({ parent }) => parent === id), scene.layers.indexOf(group)];
  const changes = members.map((layer) => takenOut(layer, matrix, turn, restValue(group, 'opacity')));
  const stuck = members.find((_, i) => changes[i] === null || restValue(group, 'skew') !== 0);
  if (stuck)
    return refuse(
      `“${stuck.name}” would jump: the group is turned or stretched, and it is keyed or turned itself. Set the group straight first.`,
    );
  // They come to stand where the group was, in their order, so that nothing changes in depth.
  const inOrder = movesBehind(scene, members, place);
  const out = members.flatMap((layer, i) => changeEdits(layer, changes[i] as ChannelChanges, group.parent));
  return {
    ok: true,
    edits: [...out, ...inOrder, { type: 'remove-layer', layer: id }],
    selected: members.map((layer) => layer.id),
  };
}

/** Moves that put layers right behind one another in front of a place, from back to front. */
function movesBehind(scene: Scene, members: readonly Layer[], place: number): Edit[] {
  const order = scene.layers.map((layer) => layer.id);
  const edits: Edit[] = [];
  let anchor = order[place];
  for (const { id } of members) {
    order.splice(order.indexOf(id), 1);
    const index = order.indexOf(anchor) + 1;
    order.splice(index, 0, id);
    edits.push({ type: 'move-layer', layer: id, index });
    anchor = id;
  }
  return edits;
}

/** Which way layers go in depth among those beside them. */
export type DepthStep = 'front' | 'forward' | 'backward' | 'back';

/** Moves layers in depth among those that are in the same group; several keep their order. */
export function stepDepth(scene: Scene, ids: ReadonlySet<string>, step: DepthStep): Edit[] {
  const order = scene.layers.map(({ id }) => id);
  const parents = new Map(scene.layers.map(({ id, parent }) => [id, parent]));
  const members = topLayers(scene, ids);
  const isUp = step === 'front' || step === 'forward';
  const edits: Edit[] = [];
  for (const { id, parent } of isUp ? [...members].reverse() : members) {
    const others = order.filter((other) => parents.get(other) === parent && (other === id || !ids.has(other)));
    const free = others.indexOf(id);
    const target = step === 'front' ? others.length - 1 : step === 'back' ? 0 : free + (isUp ? 1 : -1);
    const next = others[Math.min(others.length - 1, Math.max(0, target))];
    if (next === id) continue;
    const from = order.indexOf(id);
    order.splice(from, 1);
    const index = order.indexOf(next) + (isUp ? 1 : 0);
    order.splice(index, 0, id);
    edits.push({ type: 'move-layer', layer: id, index });
  }
  return edits;
}
