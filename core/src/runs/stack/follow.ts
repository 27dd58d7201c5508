import { isSame, type Layer } from '../../scene/layer';
import { createShelf } from '../../library/library';
import { planRecipe, readsOf } from '../operations';
import { compilePreset } from '../../formulas/preset';
import { isPresetRecipe, type Recipe } from '../../scene/recipe';
import type { LayerMade, RunRecord, Scene } from '../../scene/scene';
import type { Reads } from '../operation';
import { earlierOf, nameOfSurroundings, type Earlier } from './earlier';
import { unnamed, type Entry, type Folding, type Touched } from './fold';
import { stateUnder, type Opened } from './opened';
import { threeWay } from './three-way';
import type { Unfolded } from './unfold';

/** A layer on its way up through the runs that it is to have. */
export interface Climber {
  readonly unfolded: Unfolded;
  /** The base that it is to have. */
  readonly base: Layer;
  readonly entries: readonly Entry[];
  readonly touched: Touched;
  state: Layer;
  /** How many runs it has met. */
  met: number;
}

/** A run on a layer that climbs. */
export interface Step {
  readonly climber: Climber;
  readonly entry: Entry;
}

/** What a run makes now on a layer, and what it made there before where that leads not back to it. */
export interface Remade {
  readonly made: LayerMade;
  readonly earlier: Earlier | null;
}

/** What a run makes now on the layers where that is something else, by layer. */
export type Anew = ReadonlyMap<string, Remade>;

/** A layer under a run: as it was, and as it now is. */
interface Under {
  readonly id: string;
  readonly then: Layer;
  readonly now: Layer;
}

function undersOf(run: RunRecord, climbers: readonly Climber[], { scene }: Opened): Under[] {
  const index = scene.runs.findIndex(({ id }) => id === run.id);
  const below = new Set(scene.runs.slice(0, index).map(({ id }) => id));
  return climbers.map(({ unfolded, state }) => ({
    id: unfolded.standing.id,
    then: stateUnder(unfolded, ({ id }) => below.has(id)),
    now: state,
  }));
}

function mayDiffer(reads: Reads, own: ReadonlySet<string>, { id, then, now }: Under): boolean {
  if (then === now) return false;
  return (
    (reads.spans && !isSame(then.span, now.span)) ||
    (reads.rest && !isSame(then.rest, now.rest)) ||
    (reads.looks === true && !isSame(then.look, now.look)) ||
    (((reads.keys && own.has(id)) || reads.keysOf === id) && !isSame(unnamed(then).tracks, unnamed(now).tracks))
  );
}

/** The recipe of a run with the very revision that it used. */
function recipeAsUsed({ recipe, preset }: RunRecord): Recipe {
  return isPresetRecipe(recipe) && preset
    ? { ...recipe, preset: { ...recipe.preset, revision: preset.revision } }
    : recipe;
}

const NO_SHELF = createShelf([]);

/** What a run would make on its layers in a scene; null where it cannot be planned. */
function planned(run: RunRecord, scene: Scene): Map<string, LayerMade> | null {
  const own = new Set(run.layers);
  const indices = scene.layers.flatMap(({ id }, index) => (own.has(id) ? [index] : []));
  const context = { runId: run.id, by: run.by, when: run.when, known: run };
  const operated = planRecipe(recipeAsUsed(run), { scene, shelf: NO_SHELF, context, compile: compilePreset, indices });
  if (operated.layers.length === 0) return null;
  return new Map(operated.made().map((made) => [made.layer, made]));
}

/** What hangs on a layer moved along with its in point, or of an exit with its out point. */
function moved({ made, run }: Entry, { then, now }: Under): LayerMade {
  if (!isPresetRecipe(run.recipe) || run.recipe.start.by !== 'layer') return made;
  const by = run.recipe.operation === 'send-out' ? now.span.out - then.span.out : now.span.in - then.span.in;
  if (by === 0) return made;
  return {
    ...made,
    start: made.start + by,
    tracks: made.tracks.map(([channel, keys]) => [channel, keys.map((key) => ({ ...key, at: key.at + by }))] as const),
  };
}

/**
 * Plans a run anew whose surroundings have changed: where its layers begin and end, where they rest, and where it looks
 * at them, their keys. It is planned as things were and as they are, and what differs is taken, so that nothing else
 * moves. Null where it makes what it made.
 */
export function follow(
  run: RunRecord,
  steps: readonly Step[],
  climbers: readonly Climber[],
  opened: Opened,
  { scene: next }: Folding,
): Anew | null {
  const reads = readsOf(run);
  if (!reads.spans && !reads.rest && !reads.keys && reads.looks !== true) return null;
  const unders = undersOf(run, climbers, opened);
  const own = new Set(steps.map(({ entry }) => entry.made.layer));
  if (!unders.some((under) => mayDiffer(reads, own, under))) return null;
  const byLayer = new Map(unders.map((under) => [under.id, under]));
  const sceneOf = (side: 'then' | 'now'): Scene => ({
    ...next,
    layers: next.layers.map((layer) => {
      const under = byLayer.get(layer.id);
      return under ? unnamed(under[side]) : layer;
    }),
  });
  const [then, now] = [planned(run, sceneOf('then')), planned(run, sceneOf('now'))];
  const names: Partial<Record<'then' | 'now', string>> = {};
  const nameOf = (side: 'then' | 'now'): string =>
    (names[side] ??= nameOfSurroundings(
      unders.map((under) => under[side]),
      reads,
    ));
  const before = earlierOf(run);
  const anew = new Map<string, Remade>();
  for (const { entry } of steps) {
    const { layer } = entry.made;
    const earlier = before.get(layer) ?? null;
    const [planThen, planNow] = [then?.get(layer), now?.get(layer)];
    if (earlier && earlier.under === nameOf('now')) anew.set(layer, { made: earlier.made, earlier: null });
    else if (!planThen || !planNow) {
      anew.set(layer, { made: moved(entry, byLayer.get(layer) as Under), earlier });
    } else if (!isSame(planThen, planNow)) {
      const made = threeWay(entry.made, planThen, planNow);
      const leadsBack = earlier !== null || isSame(threeWay(made, planNow, planThen), entry.made);
      anew.set(layer, { made, earlier: leadsBack ? earlier : { under: nameOf('then'), made: entry.made } });
    }
  }
  return anew.size > 0 ? anew : null;
}
