import type { ChannelId } from '../../basics/channel';
import { frameTicks, type Ticks } from '../../basics/time';
import { tracksOf, type Key, type Layer } from '../../scene/layer';
import type { KeysRecipe } from '../../scene/recipe';
import {
  bakeChannel,
  bakeTrack,
  compileRigs,
  sampleTrack,
  tabulateDriven,
  toleranceFor,
  type Baked,
} from '../../scene/sample';
import { layerMade, type LayerMade } from '../../scene/scene';
import type { Finding } from '../finding';
import { refuse, type LayerPlan, type Operated, type Reads, type Surroundings } from '../operation';

/** Free keys may stand so many times as closely as frames. */
const PARTS_OF_FRAME = 4;

interface Fitted {
  readonly layer: Layer;
  readonly tracks: readonly (readonly [ChannelId, Baked])[];
}

/** Keys that stand, written anew by fewer; their first and last stay, and those that hold. */
function thinned(channel: ChannelId, keys: readonly Key[], step: Ticks, within: number): Baked {
  const [first, last] = [keys[0], keys[keys.length - 1]];
  const baked = bakeTrack({
    value: (at) => sampleTrack(keys, at),
    from: first.at,
    to: last.at,
    breaks: keys.filter(({ ease }, i) => ease.type === 'hold' || keys[i - 1]?.ease.type === 'hold').map(({ at }) => at),
    step,
    tolerance: toleranceFor(channel, within),
  });
  return baked.keys.length < keys.length ? baked : { keys: [...keys], worst: 0, at: first.at };
}

function fit({ scene, indices, context }: Surroundings, recipe: KeysRecipe): Fitted[] {
  const frame = frameTicks(scene.rate);
  const step = recipe.grid === 'frames' ? frame : Math.round(frame / PARTS_OF_FRAME);
  const wanted = recipe.channels && new Set<ChannelId>(recipe.channels);
  const isWanted = (channel: ChannelId): boolean => wanted?.has(channel) ?? true;
  const rigs = recipe.operation === 'turn-into-keys' ? compileRigs(scene) : null;
  const valueAt = rigs && tabulateDriven(scene, rigs, indices, step);
  return indices.map((index, i) => {
    context.progress?.(i / indices.length);
    const layer = scene.layers[index];
    if (recipe.operation === 'thin-out') {
      const tracks = tracksOf(layer).filter(([channel, keys]) => isWanted(channel) && keys.length > 2);
      return {
        layer,
        tracks: tracks.map(([channel, keys]) => [channel, thinned(channel, keys, step, recipe.within)] as const),
      };
    }
    const driven = (rigs?.driven(index) ?? []).filter(isWanted);
    return {
      layer,
      tracks: valueAt
        ? driven.map((channel) => {
            const { within } = recipe;
            return [channel, bakeChannel(scene, { valueAt }, [layer, index], channel, { step, within })] as const;
          })
        : [],
    };
  });
}

/** Keys as the run's own: each slot is its frame from the layer's in point, or its part of one. */
function marked(keys: readonly Key[], run: string, { span }: Layer, channel: ChannelId, frame: Ticks): Key[] {
  return keys.map(({ at, value, ease }) => ({
    at,
    value,
    ease,
    by: { run, slot: `${channel}/${Number(((at - span.in) / frame).toFixed(4))}` },
  }));
}

/** Works out keys for what rigs give, or fewer keys for those that stand. */
export function planKeys(surroundings: Surroundings, recipe: KeysRecipe): Operated {
  const { scene, context } = surroundings;
  const fitted = fit(surroundings, recipe).filter(({ tracks }) => tracks.length > 0);
  if (fitted.length === 0) return refuse([{ code: 'nothing-to-turn', what: recipe.operation }]);
  const frame = frameTicks(scene.rate);
  const made = fitted.map(({ layer, tracks }) => ({
    layer,
    tracks: tracks.map(([channel, { keys }]) => [channel, marked(keys, context.runId, layer, channel, frame)] as const),
  }));
  const afters = made.map(({ layer, tracks }) => ({
    ...layer,
    tracks: { ...layer.tracks, ...Object.fromEntries(tracks.map(([channel, keys]) => [channel, [...keys]])) },
  }));
  const count = (layer: Layer, channels: readonly ChannelId[]): number =>
    channels.reduce((sum, channel) => sum + (layer.tracks[channel]?.length ?? 0), 0);
  const channelsOf = ({ tracks }: (typeof made)[number]): ChannelId[] => tracks.map(([channel]) => channel);
  const added = made.reduce((sum, entry, i) => sum + count(afters[i], channelsOf(entry)), 0);
  const removed = made.reduce((sum, entry) => sum + count(entry.layer, channelsOf(entry)), 0);
  return {
    layers: afters.map((after, place): LayerPlan => ({
      layer: after.id,
      place,
      starts: after.span.in,
      lasts: after.span.out - after.span.in,
      moments: [],
      values: {},
      after,
    })),
    made: () => made.map(({ layer, tracks }) => layerMade(layer.id, { start: layer.span.in, tracks })),
    findings: [worstOf(fitted, added)],
    counts: { layers: made.length, added, replaced: 0, removed },
  };
}

/** How many keys there will be, and how far off they are at worst, and where. */
function worstOf(fitted: readonly Fitted[], keys: number): Finding {
  const all = fitted.flatMap(({ layer, tracks }) =>
    tracks.map(([channel, { worst, at }]) => ({ layer, channel, at, worst, share: worst / toleranceFor(channel, 1) })),
  );
  const far = all.reduce((most, one) => (one.share > most.share ? one : most), all[0]);
  return { code: 'turned-into-keys', layers: [far.layer.id], keys, channel: far.channel, error: far.worst, at: far.at };
}

/** Puts the keys in the place of whatever stands on their channels. */
export function replayKeys(_recipe: KeysRecipe, made: LayerMade, state: Layer): Layer {
  const tracks = made.tracks.map(([channel, keys]) => [channel, [...keys]] as const);
  return { ...state, tracks: { ...state.tracks, ...Object.fromEntries(tracks) } };
}

/** What was turned into keys stays as it was then. */
export function keysReads(): Reads {
  return { spans: false, rest: false, keys: false, sweeps: false };
}
