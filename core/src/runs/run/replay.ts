import { sidesOfRuns } from '../check';
import { restValue, shiftLayer, type Key, type Layer } from '../../scene/layer';
import type { Reads, Replaying } from '../operation';
import type { PresetRecipe } from '../../scene/recipe';
import type { LayerMade, RunRecord } from '../../scene/scene';
import { mergeKeys, withoutRuns } from './existing';

/** Puts a preset's keys once more over a layer: as they were made, joined with what stands there now. */
export function replayPreset(
  recipe: PresetRecipe,
  { moved, against, tracks }: LayerMade,
  state: Layer,
  { run, scene }: Replaying,
): Layer {
  // A run that left layers with keys alone was planned on layers without any.
  const way = recipe.existing === 'leave' ? 'replace' : recipe.existing;
  let layer = shiftLayer(state, moved);
  if (way === 'take-place') {
    const sides = sidesOfRuns(scene);
    const cleared = withoutRuns(layer.tracks, (id) => id !== run.id && sides.get(id) === recipe.operation);
    layer = { ...layer, tracks: cleared };
  }
  const rests = new Map(against);
  const standing = Object.assign({}, layer.tracks);
  for (const [channel, made] of tracks) {
    const rest = rests.get(channel) ?? restValue(layer, channel);
    standing[channel] = mergeKeys(standing[channel], made, way, channel, rest).keys as Key[];
  }
  return { ...layer, tracks: standing };
}

const HERE = /\bhere\b/;

const looking = new WeakMap<object, boolean>();

/** Whether a preset looks at the keys that stand where it begins; asked once of each record. */
function looksHere({ preset }: RunRecord): boolean {
  if (!preset) return false;
  const known = looking.get(preset) ?? HERE.test(JSON.stringify(preset.body));
  looking.set(preset, known);
  return known;
}

/** Entrances and exits hang on their layers' spans, go by where layers rest, and some begin where their layer is. */
export function presetReads(_recipe: PresetRecipe, run: RunRecord): Reads {
  return { spans: true, rest: true, keys: looksHere(run), sweeps: false };
}
