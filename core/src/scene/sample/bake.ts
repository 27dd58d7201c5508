import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import { frameTicks, type Rate, type Ticks } from '../../basics/time';
import { evenPathOf } from '../../basics/motion';
import { restValue, type Key, type Layer, type Track } from '../layer';
import type { Scene } from '../scene';
import { bakeTrack, INSET, LOOKS, type Baked } from './bake-track';
import { compileScene } from './compile';
import { createFrame, sampleValues } from './frame';
import { compileRigs, type CompiledRigs, type Rigged } from './rigs';
import { createTrackSampler } from './segment';

/** How a tolerance of so many px counts on a channel: as degrees, and as per cent where it is a share. */
export function toleranceFor(channel: ChannelId, within: number): number {
  const { unit } = channelOf(channel);
  return unit === 'px' || unit === 'deg' ? within : within / 100;
}

/** Key times of a layer's channel and of the dials that are keyed, at which what a rig gives may turn. */
export function breaksOf(scene: Pick<Scene, 'runs'>, layer: Layer): Ticks[] {
  const own = Object.values(layer.tracks).flatMap((keys) => keys.map(({ at }) => at));
  const dials = scene.runs.flatMap(({ rig, layers }) =>
    rig && layers.includes(layer.id)
      ? rig.inputs.flatMap((input) => ('keys' in input ? input.keys.map(({ at }) => at) : []))
      : [],
  );
  return [...own, ...dials];
}

/** What rigs give to a channel of a layer, as keys within a tolerance. */
export function bakeChannel(
  scene: Pick<Scene, 'runs'>,
  rigs: Pick<CompiledRigs, 'valueAt'>,
  [layer, index]: readonly [Layer, number],
  channel: ChannelId,
  { step, within }: { readonly step: Ticks; readonly within: number },
): Baked {
  const { in: from, out } = layer.span;
  return bakeTrack({
    value: (at) => rigs.valueAt(index, channel, at),
    from,
    to: out,
    breaks: breaksOf(scene, layer),
    step,
    tolerance: toleranceFor(channel, within),
  });
}

/** A channel of a layer, by its index. */
export type DrivenCell = readonly [layer: number, channel: ChannelId];

/**
 * Values of driven channels at every look of a fit, worked out frame by frame for all layers at once, which costs a
 * small part of asking for one value after the other; other times are asked for one by one.
 */
export function tabulate(
  scene: Rigged,
  rigs: CompiledRigs,
  cells: readonly DrivenCell[],
  [from, to]: readonly [Ticks, Ticks],
  step: Ticks,
): (layer: number, channel: ChannelId, at: Ticks) => number {
  const compiled = compileScene(scene);
  const frame = createFrame(compiled);
  const look = step / LOOKS;
  const offsets = Number.isInteger(look) ? [0, INSET, 2 * INSET, look - 2 * INSET, look - INSET] : [];
  const count = offsets.length === 0 ? 0 : Math.floor((to - from) / look) + 1;
  const columns = new Map<number, Float64Array>();
  const slotOf = (layer: number, channel: ChannelId): number => layer * CHANNEL_COUNT + channelOf(channel).slot;
  for (const [layer, channel] of cells) columns.set(slotOf(layer, channel), new Float64Array(count * offsets.length));
  for (let i = 0; i < count; i++) {
    offsets.forEach((offset, k) => {
      sampleValues(compiled, from + i * look + offset, frame);
      for (const [slot, column] of columns) column[i * offsets.length + k] = frame.values[slot];
    });
  }
  return (layer, channel, at) => {
    const column = columns.get(slotOf(layer, channel));
    const i = Math.floor((at - from) / look);
    const k = offsets.indexOf(at - from - i * look);
    return column === undefined || k < 0 || i < 0 || i >= count
      ? rigs.valueAt(layer, channel, at)
      : column[i * offsets.length + k];
  };
}

/** The table of all that rigs drive on some layers, over the time in which any of these is there. */
export function tabulateDriven(
  scene: Rigged,
  rigs: CompiledRigs,
  layers: Iterable<number>,
  step: Ticks,
): (layer: number, channel: ChannelId, at: Ticks) => number {
  const cells = [...layers].flatMap((layer) => rigs.driven(layer).map((channel): DrivenCell => [layer, channel]));
  const spans = cells.map(([layer]) => scene.layers[layer].span);
  const from = spans.reduce((least, span) => Math.min(least, span.in), Infinity);
  const to = spans.reduce((most, span) => Math.max(most, span.out), 0);
  return tabulate(scene, rigs, cells, [Number.isFinite(from) ? from : 0, to], step);
}

/** Tolerance, in px, with which formats that cannot carry formulas get keys instead. */
export const EXPORT_WITHIN = 0.25;

/** A layer whose path has become keys of its position, and of its rotation where it turns along. */
function withoutPath(layer: Layer, index: number, { valueAt }: Pick<CompiledRigs, 'valueAt'>, step: Ticks): Layer {
  const even = layer.path ? evenPathOf(layer.path.d) : null;
  const { path, ...rest } = layer;
  if (!even || !path) return { ...rest, path: null };
  const { 'path.distance': distance, ...tracks } = layer.tracks;
  const out = new Float64Array(3);
  const bakeOf = (channel: ChannelId, part: number): Key[] => {
    const value = (at: Ticks): number => {
      even.write(valueAt(index, 'path.distance', at) * even.length, out, 0);
      return valueAt(index, channel, at) + out[part];
    };
    const breaks = [...(distance ?? []), ...(layer.tracks[channel] ?? [])].map(({ at }) => at);
    const { in: from, out: to } = layer.span;
    return [...bakeTrack({ value, from, to, breaks, step, tolerance: toleranceFor(channel, EXPORT_WITHIN) }).keys];
  };
  const moved = { ...tracks, 'position.x': bakeOf('position.x', 0), 'position.y': bakeOf('position.y', 1) };
  return {
    ...rest,
    path: null,
    tracks: path.turns ? { ...moved, rotation: bakeOf('rotation', 2) } : moved,
  };
}

/** A scene in which motion paths stand as keys; the same one without any. */
function withoutPaths(scene: Scene, step: Ticks): Scene {
  if (scene.layers.every(({ path }) => !path)) return scene;
  const samplers = new Map<Track, (at: Ticks) => number>();
  const valueAt: CompiledRigs['valueAt'] = (index, channel, at) => {
    const layer = scene.layers[index];
    const keys = layer.tracks[channel];
    if (!keys || keys.length === 0) return restValue(layer, channel);
    const sampler = samplers.get(keys) ?? createTrackSampler(keys);
    samplers.set(keys, sampler);
    return sampler(at);
  };
  const layers = scene.layers.map((layer, index) =>
    layer.path ? withoutPath(layer, index, { valueAt }, step) : layer,
  );
  return { ...scene, layers };
}

/**
 * A scene in which what rigs give and what motion paths add stands as keys, for formats that can carry neither; the same
 * one without any.
 */
export function bakedScene(scene: Scene, rate: Rate = scene.rate): Scene {
  const step = frameTicks(rate);
  return withoutPaths(withoutRigs(scene, step), step);
}

function withoutRigs(scene: Scene, step: Ticks): Scene {
  const rigs = compileRigs(scene);
  if (!rigs) return scene;
  const valueAt = tabulateDriven(scene, rigs, scene.layers.keys(), step);
  const layers = scene.layers.map((layer, index): Layer => {
    const driven = rigs.driven(index);
    if (driven.length === 0) return layer;
    const tracks = { ...layer.tracks };
    for (const channel of driven) {
      tracks[channel] = [
        ...bakeChannel(scene, { valueAt }, [layer, index], channel, { step, within: EXPORT_WITHIN }).keys,
      ];
    }
    return { ...layer, tracks };
  });
  return { ...scene, layers, runs: scene.runs.filter(({ rig }) => rig === undefined) };
}
