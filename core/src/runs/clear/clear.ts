import { operationPhase, refuse, type Operated, type Reads, type Replaying, type Surroundings } from '../operation';
import { problemsOf, readTime } from '../order';
import { keyCount, tracksOf, withKeys, type Key, type Layer } from '../../scene/layer';
import { layerMade, type LayerMade, type Scene } from '../../scene/scene';
import type { ChannelId } from '../../basics/channel';
import type { Finding } from '../finding';
import type { ClearRecipe } from '../../scene/recipe';

type Test = (channel: ChannelId, key: Key) => boolean;

interface ReadTest {
  readonly test: Test;
  readonly problems: readonly Finding[];
}

/** Whether a key meets every condition of a recipe. */
function createTest(
  { channels, phases, run, ...times }: ClearRecipe,
  { runs, rate }: Pick<Scene, 'runs' | 'rate'>,
): ReadTest {
  const from = times.from === undefined ? null : readTime(times.from, rate, 'From');
  const to = times.to === undefined ? null : readTime(times.to, rate, 'To');
  const wanted = channels && new Set(channels);
  const phaseOf = new Map(runs.map(({ id, recipe }) => [id, operationPhase(recipe.operation)]));
  const isOfPhase = ({ by }: Key): boolean => {
    const phase = by && phaseOf.get(by.run);
    return phase !== undefined && phase !== null && (phases?.includes(phase) ?? true);
  };
  const test: Test = (channel, key) =>
    (wanted?.has(channel) ?? true) &&
    (phases === undefined || isOfPhase(key)) &&
    (run === undefined || key.by?.run === run) &&
    key.at >= (from?.ticks ?? -Infinity) &&
    key.at <= (to?.ticks ?? Infinity);
  return { test, problems: problemsOf([from, to]) };
}

function clearLayer(layer: Layer, goes: Test): Layer {
  let { tracks } = layer;
  for (const [channel, keys] of tracksOf(layer)) {
    const kept = keys.filter((key) => !goes(channel, key));
    if (kept.length < keys.length) tracks = withKeys(tracks, channel, kept);
  }
  return tracks === layer.tracks ? layer : { ...layer, tracks };
}

/** Works out which keys a recipe takes away. */
export function planClear({ scene, indices }: Surroundings, recipe: ClearRecipe): Operated {
  const { test, problems } = createTest(recipe, scene);
  if (problems.length > 0) return refuse(problems);
  const picked = indices.map((index) => ({
    before: scene.layers[index],
    after: clearLayer(scene.layers[index], test),
  }));
  const changed = picked.filter(({ before, after }) => before !== after);
  if (changed.length === 0) return refuse([{ code: 'nothing-to-clear' }]);
  const layers = changed.map(({ after }, place) => ({
    layer: after.id,
    place,
    starts: after.span.in,
    lasts: after.span.out - after.span.in,
    moments: [],
    values: {},
    after,
  }));
  const removed = changed.reduce((sum, { before, after }) => sum + keyCount(before) - keyCount(after), 0);
  const counts = { layers: layers.length, added: 0, replaced: 0, removed };
  return { layers, made: () => picked.map(({ after }) => layerMade(after.id, {})), findings: [], counts };
}

/** Clears once more, over a layer that has changed underneath: whatever meets the conditions goes. */
export function replayClear(recipe: ClearRecipe, _made: LayerMade, state: Layer, { scene }: Replaying): Layer {
  return clearLayer(state, createTest(recipe, scene).test);
}

/** What a clearing takes away is looked for anew each time; its plan says nothing more. */
export function clearReads(): Reads {
  return { spans: false, rest: false, keys: false, sweeps: true };
}
