import type { ChannelId } from '../channel';
import { arrangeStep, replayArrange } from '../arrange';
import { replayClear } from '../clear';
import { lineUpStep, replayLineUp, rolesOf, type Roles } from '../line-up';
import { isHolding, mergeKeys, withoutRuns } from '../run';
import { sidesOfRuns } from '../check';
import {
  isSame,
  layerStep,
  restValue,
  shiftLayer,
  tracksOf,
  withKeys,
  type Key,
  type Layer,
  type LayerStep,
  type RunRecord,
  type Scene,
  type TrackStep,
} from '../scene';
import type { ClearRecipe, OverExisting } from '../recipe';
import { applyHandEdits, inTime, type IsAlive } from './hand';
import type { Link } from './peel';

/** What replaying needs besides the layer. */
export interface Replaying {
  readonly scene: Scene;
  readonly roles: Roles;
  /** Which runs bring in or send out. */
  readonly sides: ReadonlyMap<string, string>;
  readonly isAlive: IsAlive;
}

/** `runs` are those that the scene is to have. */
export function createReplaying(scene: Scene, runs: readonly RunRecord[]): Replaying {
  const alive = new Set(runs.filter(({ off }) => off !== true).map(({ id }) => id));
  return { scene, roles: rolesOf(scene.runs), sides: sidesOfRuns(scene), isAlive: (run) => alive.has(run) };
}

/** True when a layer stands as it did before a step. */
function standsAsBefore({ span, rest, tracks }: LayerStep, state: Layer): boolean {
  // A step that moves a whole layer, or its rest pose, takes along keys that were not there when it was made.
  const known = new Set(tracks.map(({ channel }) => channel));
  const carried = span ? tracksOf(state).map(([channel]) => channel) : (rest ?? []).map(({ channel }) => channel);
  return (
    (span === undefined || isSame(span.before, state.span)) &&
    carried.every((channel) => known.has(channel) || state.tracks[channel] === undefined) &&
    (rest ?? []).every(({ channel, before }) => (state.rest[channel] ?? null) === before) &&
    tracks.every(({ channel, before }) => isSame(before, state.tracks[channel] ?? []))
  );
}

/** The layer as a step left it. */
function asLeft(state: Layer, { span, rest, tracks: steps }: LayerStep): Layer {
  let { tracks } = state;
  for (const { channel, after } of steps) tracks = withKeys(tracks, channel, after);
  const values: Layer['rest'] = { ...state.rest };
  for (const { channel, after } of rest ?? []) {
    if (after === null) delete values[channel];
    else values[channel] = after;
  }
  return { ...state, span: span?.after ?? state.span, rest: rest ? values : state.rest, tracks };
}

function ownKeys({ made, after }: TrackStep, run: string): readonly Key[] {
  return made ?? after.filter((key) => key.by?.run === run && !isHolding(key));
}

/**
 * Hand keys that came after a step was made: those that are none of the hand keys that it had under it, by their value
 * or by their time in the layer.
 */
function lateKeys(standing: readonly Key[], before: readonly Key[], moved: number): Key[] {
  const known = before.filter(({ by }) => !by);
  return standing.filter((key) => {
    if (key.by) return false;
    const at = known.findIndex((old) => old.at + moved === key.at);
    const match = at >= 0 ? at : known.findIndex(({ value }) => value === key.value);
    if (match >= 0) known.splice(match, 1);
    return match < 0;
  });
}

/** The tracks of a layer with a run's keys on one channel put over them once more; the keys as made where they are joined. */
function replayKeys(
  layer: Layer,
  step: TrackStep,
  run: RunRecord,
  by: number,
  moved: number | null,
): { readonly tracks: Layer['tracks']; readonly made: readonly Key[] | null } {
  const { channel, before } = step;
  const own = ownKeys(step, run.id).map((key) => (by === 0 ? key : { ...key, at: key.at + by }));
  if (own.length === 0) return { tracks: layer.tracks, made: null };
  const standing = layer.tracks[channel] ?? [];
  const way = run.recipe.existing === 'leave' ? 'replace' : (run.recipe.existing as OverExisting);
  const merged = mergeKeys(standing, own, way, channel, restValue(layer, channel));
  const late = moved === null ? [] : lateKeys(standing, before, moved);
  const tracks = withKeys(layer.tracks, channel, inTime([...merged.keys, ...late], new Set(late)));
  return { tracks, made: merged.isJoined || step.made !== undefined ? own : null };
}

/** Where a preset's keys hang: with a stated time they stay there, else they follow their layer. */
function followOf(run: RunRecord, moved: Layer, was: { in: number; out: number }): number {
  const start = run.recipe.start as { by?: string } | undefined;
  if (start?.by !== 'layer') return 0;
  return run.recipe.operation === 'send-out' ? moved.span.out - was.out : moved.span.in - was.in;
}

/** A layer after a step was done again, and that step. */
interface Replayed {
  readonly layer: Layer;
  readonly step: LayerStep;
}

/** Puts a preset's keys once more over a layer that has changed underneath: as they were made, where they now hang. */
function replayPreset(
  { run, step, isBack }: Link,
  state: Layer,
  was: { in: number; out: number },
  { sides }: Replaying,
): Replayed {
  const cleared =
    run.recipe.existing === 'take-place'
      ? { ...state, tracks: withoutRuns(state.tracks, (id) => id !== run.id && sides.get(id) === run.recipe.operation) }
      : state;
  const moved = step.span ? shiftLayer(cleared, step.span.after.in - step.span.before.in) : cleared;
  const by = followOf(run, moved, step.span?.after ?? was);
  const since = isBack === true ? moved.span.in - was.in : null;
  let layer = moved;
  const joined = new Map<ChannelId, readonly Key[]>();
  for (const track of step.tracks) {
    const { tracks, made } = replayKeys(layer, track, run, by, since);
    layer = { ...layer, tracks };
    if (made) joined.set(track.channel, made);
  }
  return { layer, step: layerStep(state, layer, joined) };
}

/** Does a step again on a layer that has changed underneath. `was` is the span that the layer had then. */
function replayStep(link: Link, state: Layer, was: { in: number; out: number }, replaying: Replaying): Replayed {
  const { scene, roles } = replaying;
  const { run, step } = link;
  switch (run.recipe.operation) {
    case 'line-up': {
      const parts = run.recipe.parts === 'stretch' ? 'stretch' : 'keep';
      const squeeze = run.recipe.squeeze === true;
      const layer = replayLineUp(step, state, { roles, parts, squeeze, rate: scene.rate });
      return { layer, step: lineUpStep(state, layer, step.span?.after ?? layer.span) };
    }
    case 'arrange': {
      const layer = replayArrange(step, state);
      return {
        layer,
        step: arrangeStep(
          state,
          layer,
          (step.rest ?? []).map(({ channel }) => channel),
        ),
      };
    }
    case 'clear': {
      const layer = replayClear(run.recipe as unknown as ClearRecipe, state, scene);
      return { layer, step: layerStep(state, layer) };
    }
    default:
      return replayPreset(link, state, was, replaying);
  }
}

/** A link run again, with what was changed by hand put back over it. */
export function replayLink(
  link: Link,
  state: Layer,
  was: { in: number; out: number },
  replaying: Replaying,
): { readonly layer: Layer; readonly step: LayerStep } {
  const { step, hand } = link;
  if (link.isGone === true) return { layer: applyHandEdits(state, hand, replaying.isAlive), step };
  // What a clearing takes away depends on all that is there.
  const isKnown = link.run.recipe.operation !== 'clear' && standsAsBefore(step, state);
  if (isKnown) return { layer: applyHandEdits(asLeft(state, step), hand, replaying.isAlive), step };
  const replayed = replayStep(link, state, was, replaying);
  return { layer: applyHandEdits(replayed.layer, hand, replaying.isAlive), step: replayed.step };
}
