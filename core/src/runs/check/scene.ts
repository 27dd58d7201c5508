import type { Finding } from '../finding';
import type { Shelf } from '../../library/library';
import { isSeen, type Layer } from '../../scene/layer';
import type { RunRecord, Scene } from '../../scene/scene';
import { frameTicks } from '../../basics/time';
import {
  findOutsideLayer,
  findOutsideScene,
  findTwice,
  firstOffGrid,
  intervalOfSide,
  keySpan,
  sidesOfRuns,
  type Subject,
} from './keys';
import { findStaleCurves } from './linked';
import { findGoneMattes } from './gone';
import { lookInMotion } from './motion';
import { toItsEnd, type Steps } from './steps';

function subjectsOf(layers: readonly Layer[]): Subject[] {
  return layers.flatMap((layer) => {
    const made = keySpan(layer);
    return made ? [{ layer, before: layer.tracks, ...made }] : [];
  });
}

function findMeetingsIn(scene: Scene): Finding[] {
  const sides = sidesOfRuns(scene);
  const layers: string[] = [];
  let [at, by] = [Infinity, 0];
  for (const { id, tracks } of scene.layers) {
    const entrance = intervalOfSide(tracks, sides, 'bring-in');
    const exit = intervalOfSide(tracks, sides, 'send-out');
    if (!entrance || !exit || exit.from >= entrance.to) continue;
    layers.push(id);
    at = Math.min(at, exit.from);
    by = Math.max(by, entrance.to - exit.from);
  }
  return layers.length > 0 ? [{ code: 'entrance-meets-exit', layers, at, by }] : [];
}

function findOffGridIn({ layers, rate }: Scene): Finding[] {
  const frame = frameTicks(rate);
  const found: string[] = [];
  let first = Infinity;
  for (const layer of layers) {
    const off = firstOffGrid(layer, frame);
    if (off === Infinity) continue;
    found.push(layer.id);
    first = Math.min(first, off);
  }
  return found.length > 0 ? [{ code: 'off-grid', layers: found, at: first }] : [];
}

/** What a run is of: its preset or rig, or the first thing that a style or copies take from the library and that is newer there. */
function mainItem({ preset, rig, uses, recipe }: RunRecord, shelf: Shelf): { id: string; revision: number } | null {
  if (preset ?? rig) return preset ?? rig ?? null;
  if ((recipe.operation !== 'style' && recipe.operation !== 'multiply') || !uses) return null;
  return uses.find(({ id, revision }) => (shelf.items.get(id)?.revision ?? revision) > revision) ?? uses[0] ?? null;
}

/** The newer revision of a run's preset, rig or look, or of what that took from the library; null where it is up to date. */
export function waitingUpdate(run: RunRecord, shelf: Shelf): { readonly from: number; readonly to: number } | null {
  const used = mainItem(run, shelf);
  if (!used) return null;
  const newest = shelf.items.get(used.id);
  if (newest && newest.revision > used.revision) return { from: used.revision, to: newest.revision };
  const stale = run.uses?.some(({ id, revision }) => (shelf.items.get(id)?.revision ?? revision) > revision);
  return stale === true ? { from: used.revision, to: used.revision } : null;
}

/** Runs whose preset has a newer revision than the one that they used. */
export function findUpdates({ runs }: Scene, shelf: Shelf): Finding[] {
  return runs.flatMap((run): Finding[] => {
    const update = run.off === true ? null : waitingUpdate(run, shelf);
    const used = mainItem(run, shelf);
    if (!update || !used) return [];
    const preset = (run.preset ?? run.rig)?.name ?? shelf.items.get(used.id)?.name ?? '';
    return [{ code: 'update-waiting', run: run.id, preset, ...update, layers: run.layers }];
  });
}

/** Looks over a whole scene as it stands. Costs about a frame's sampling for each frame of the scene, up to 600. */
export function checkScene(scene: Scene, shelf: Shelf): Finding[] {
  return toItsEnd(lookOver(scene, shelf));
}

/** The same in steps, for who has something else to do in between. */
export function* lookOver(scene: Scene, shelf: Shelf): Steps<Finding[]> {
  const drawn = scene.layers.filter((layer) => isSeen(layer) && !layer.hidden);
  const subjects = subjectsOf(drawn);
  const inMotion = yield* lookInMotion(scene, null, 0, scene.length);
  return [
    ...findUpdates(scene, shelf),
    ...findStaleCurves(scene, shelf),
    ...findOutsideScene(scene, subjects),
    ...findOutsideLayer(subjects),
    ...findMeetingsIn(scene),
    ...findTwice(scene, drawn, 'bring-in', null),
    ...findTwice(scene, drawn, 'send-out', null),
    ...inMotion,
    ...findOffGridIn(scene),
    ...findGoneMattes(scene),
  ];
}
