import { asBezier, scaledEasing, type Easing } from '../../basics/easing';
import type { Ticks } from '../../basics/time';
import type { Point } from '../../basics/transform';
import { layerEdits, type Edit } from '../../scene/edit';
import { restValue, type Key, type Layer, type Track } from '../../scene/layer';
import { sampleTrack } from '../../scene/sample';
import type { Scene } from '../../scene/scene';

const [X, Y] = ['position.x', 'position.y'] as const;

function changed(scene: Scene, ids: ReadonlySet<string>, change: (layer: Layer) => Layer): Edit[] {
  return scene.layers.flatMap((layer) => (ids.has(layer.id) && !layer.locked ? layerEdits(layer, change(layer)) : []));
}

function scaled(keys: Track, rest: number, factor: number): Key[] {
  return keys.map((key) => ({
    ...key,
    value: rest + (key.value - rest) * factor,
    ease: scaledEasing(key.ease, factor),
  }));
}

/** Scales the ways of layers about where each of them rests, across and down; −1 mirrors. What has no keys stays. */
export function scaleWays(scene: Scene, ids: ReadonlySet<string>, factor: Point): Edit[] {
  return changed(scene, ids, (layer) => {
    const tracks = { ...layer.tracks };
    for (const [channel, by] of [
      [X, factor.x],
      [Y, factor.y],
    ] as const) {
      const keys = tracks[channel];
      if (keys && by !== 1) tracks[channel] = scaled(keys, restValue(layer, channel), by);
    }
    return { ...layer, tracks };
  });
}

/** The easing of the segment after a time on one of two tracks, as one that goes from 0 to 1; the first that has a key there. */
function easeAt(tracks: readonly Track[], at: Ticks): Easing {
  for (const keys of tracks) {
    const place = keys.findIndex((key) => key.at === at);
    const [key, next] = [keys[place], keys[place + 1]];
    if (!key) continue;
    if (key.ease.type !== 'handles' || !next) return key.ease;
    return asBezier(key.ease, key.value, next.value) ?? { type: 'linear' };
  }
  return { type: 'linear' };
}

function straight(layer: Layer): Layer {
  const [across, down] = [layer.tracks[X], layer.tracks[Y]];
  if (!across || !down) return layer;
  const times = [...new Set([...across, ...down].map(({ at }) => at))].sort((a, b) => a - b);
  const points = times.map((at): Point => ({ x: sampleTrack(across, at), y: sampleTrack(down, at) }));
  const gone = [0];
  for (let i = 1; i < points.length; i++) {
    gone.push(gone[i - 1] + Math.hypot(points[i].x - points[i - 1].x, points[i].y - points[i - 1].y));
  }
  const all = gone[gone.length - 1];
  const [first, last] = [points[0], points[points.length - 1]];
  const onto = (keys: Track, from: number, to: number): Key[] =>
    times.map((at, i) => {
      const { by } = keys.find((key) => key.at === at) ?? {};
      const value = all === 0 ? from : from + (to - from) * (gone[i] / all);
      return { at, value, ease: easeAt([across, down], at), ...(by ? { by } : {}) };
    });
  return {
    ...layer,
    tracks: { ...layer.tracks, [X]: onto(across, first.x, last.x), [Y]: onto(down, first.y, last.y) },
  };
}

/**
 * Lets layers go straight from where their way begins to where it ends: each is at every key as far along as it was along
 * its way from key to key, and both channels get a key wherever one has one, and the same easings.
 */
export function straightenWays(scene: Scene, ids: ReadonlySet<string>): Edit[] {
  return changed(scene, ids, straight);
}
