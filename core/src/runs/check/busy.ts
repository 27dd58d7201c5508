import { CHANNEL_COUNT, CHANNEL_IDS, channelOf, type ChannelId } from '../../basics/channel';
import { frameTicks, TICKS_PER_SECOND, type Ticks } from '../../basics/time';
import { isSeen, type Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import {
  compileScene,
  createFrame,
  sampleFrame,
  sampleValues,
  type CompiledScene,
  type Frame,
} from '../../scene/sample';

/** How much happens at each moment of a scene, on equal steps of time. */
export interface Busy {
  /** Time of the first step's beginning, and how long each lasts, ticks. */
  readonly from: Ticks;
  readonly step: Ticks;
  /** Layers of which any channel changes within the step. */
  readonly moving: Uint32Array;
  /** Their positions' speeds together, px a second. */
  readonly speed: Float64Array;
}

/** A moment at which more happens than before and after it. */
export interface BusyPeak {
  readonly at: Ticks;
  readonly moving: number;
  /** px a second. */
  readonly speed: number;
}

/** Steps at most, and values that are looked at altogether: a scene of many layers is looked at in longer steps. */
const MOST_STEPS = 300;
const FEWEST_STEPS = 60;
const MOST_LOOKS = 600_000;
/** A change below this share of what can be seen is none: of a pixel, a degree, a per cent. */
const LEAST_CHANGE = 1e-6;

const SLOT = (id: ChannelId): number => channelOf(id).slot;

/** How busy a scene is, with rigs and paths. A group that moves counts once: what only goes along with it does not. */
export function busyMoments(scene: Scene): Busy {
  const frame = frameTicks(scene.rate);
  const frames = Math.max(1, Math.ceil(scene.length / frame));
  const room = Math.floor(MOST_LOOKS / Math.max(1, scene.layers.length));
  const steps = Math.min(frames, Math.max(FEWEST_STEPS, Math.min(MOST_STEPS, room)));
  const step = Math.ceil(frames / steps) * frame;
  const count = Math.ceil(scene.length / step);
  const compiled = compileScene(scene);
  const [before, after] = [createFrame(compiled), createFrame(compiled)];
  const [moving, speed] = [new Uint32Array(count), new Float64Array(count)];
  const [x, y] = [SLOT('position.x'), SLOT('position.y')];
  const layers = movingLayers(scene, compiled);
  const isLed = ({ path }: Layer): boolean => path !== undefined && path !== null;
  // Matrices cost more than all values: they are only needed for what goes along a path.
  const sample = layers.some((index) => isLed(scene.layers[index])) ? sampleFrame : sampleValues;
  const places = (frame: Frame, index: number): readonly [number, number] =>
    isLed(scene.layers[index])
      ? [frame.matrices[index * 6 + 4], frame.matrices[index * 6 + 5]]
      : [frame.values[index * CHANNEL_COUNT + x], frame.values[index * CHANNEL_COUNT + y]];
  let [last, next] = [before, after];
  sample(compiled, 0, last);
  for (let i = 0; i < count; i++) {
    sample(compiled, (i + 1) * step, next);
    for (const index of layers) {
      const { span } = scene.layers[index];
      if (span.out <= i * step || span.in >= (i + 1) * step || !hasChanged(last, next, index)) continue;
      moving[i]++;
      const [[x0, y0], [x1, y1]] = [places(last, index), places(next, index)];
      speed[i] += Math.hypot(x1 - x0, y1 - y0) / (step / TICKS_PER_SECOND);
    }
    [last, next] = [next, last];
  }
  return { from: 0, step, moving, speed };
}

function hasChanged(last: Frame, next: Frame, index: number): boolean {
  const from = index * CHANNEL_COUNT;
  for (let slot = from; slot < from + CHANNEL_COUNT; slot++) {
    if (Math.abs(next.values[slot] - last.values[slot]) > LEAST_CHANGE) return true;
  }
  return false;
}

/** Layers that are seen and that keys or rigs can move. */
function movingLayers({ layers }: Scene, { rigs }: CompiledScene): number[] {
  return layers.flatMap((layer, index) => {
    const { hidden, tracks } = layer;
    if (!isSeen(layer) || hidden) return [];
    const isDriven = rigs !== null && CHANNEL_IDS.some((channel) => rigs.drives(index, channel));
    return isDriven || Object.keys(tracks).length > 0 ? [index] : [];
  });
}

/** Time that two peaks are apart at least, so that they are two. */
const APART = TICKS_PER_SECOND / 2;
/** Speeds closer than this are one: the last digits of an even move differ from step to step. */
const ALIKE = 0.01;

/** The busiest moments, the busiest first: by speed, among still ones by how many layers change. */
export function busyPeaks({ from, step, moving, speed }: Busy, most = 3): BusyPeak[] {
  const rank = (i: number): number => Math.round(speed[i] / ALIKE);
  const all = [...moving.keys()]
    .filter((i) => moving[i] > 0)
    .sort((a, b) => rank(b) - rank(a) || moving[b] - moving[a] || a - b);
  const peaks: BusyPeak[] = [];
  for (const i of all) {
    if (peaks.length === most) break;
    const at = from + i * step;
    if (peaks.every((peak) => Math.abs(peak.at - at) >= APART)) peaks.push({ at, moving: moving[i], speed: speed[i] });
  }
  return peaks;
}
