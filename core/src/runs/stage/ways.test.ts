import { describe, expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import { apply } from '../../scene/edit';
import type { Layer, Track } from '../../scene/layer';
import { createTrackSampler } from '../../scene/sample';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import { scaleWays, straightenWays } from './ways';

const FRAME = frameTicks(PAL);
const swing = { type: 'handles', leave: { time: 0.3, value: 40 }, arrive: { time: 0.2, value: -10 } } as const;
const layer = (x: Track, y: Track | undefined, more: Partial<Layer> = {}): Layer =>
  card('a', {
    rest: { 'position.x': 100, 'position.y': 50 },
    tracks: { 'position.x': [...x], ...(y ? { 'position.y': [...y] } : {}) },
    ...more,
  });
const done = (one: Layer, edits: (scene: ReturnType<typeof sceneOf>) => ReturnType<typeof scaleWays>): Layer => {
  const scene = sceneOf([one]);
  const result = apply(scene, edits(scene));
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene.layers[0];
};
const all = new Set(['a']);

describe('ways of layers', () => {
  test('mirrored across, every frame stands as far on the other side of the rest pose; down stays; twice is nothing', () => {
    const before = layer([key(0, 0, swing), key(10, 160), key(20, 100)], [key(0, 10), key(20, 50)]);
    const mirror = (one: Layer): Layer => done(one, (scene) => scaleWays(scene, all, { x: -1, y: 1 }));
    const after = mirror(before);
    const [was, is] = [before, after].map(({ tracks }) => createTrackSampler(tracks['position.x'] ?? []));
    for (let frame = 0; frame <= 20; frame++) expect(is(frame * FRAME)).toBeCloseTo(200 - was(frame * FRAME), 9);
    expect(after.tracks['position.y']).toEqual(before.tracks['position.y']);
    expect(mirror(after).tracks).toEqual(before.tracks);
  });

  test('twice as far is twice the distance from the rest pose', () => {
    const after = done(layer([key(0, 40), key(10, 100)], [key(0, 80)]), (scene) =>
      scaleWays(scene, all, { x: 2, y: 2 }),
    );
    expect(after.tracks['position.x']?.map(({ value }) => value)).toEqual([-20, 100]);
    expect(after.tracks['position.y']?.map(({ value }) => value)).toEqual([110]);
  });

  test('straightened, every frame lies on the line from the beginning to the end, and keys stand as far along as before', () => {
    // Right by 30, then down by 40: the corner is 30 of 70 along.
    const bent = layer([key(0, 0), key(10, 30), key(20, 30)], [key(0, 0), key(10, 0), key(20, 40, swing)]);
    const after = done(bent, (scene) => straightenWays(scene, all));
    const [x, y] = [after.tracks['position.x'] ?? [], after.tracks['position.y'] ?? []];
    expect(x[1].value).toBeCloseTo((30 * 30) / 70, 9);
    expect(y[1].value).toBeCloseTo((40 * 30) / 70, 9);
    const [atX, atY] = [createTrackSampler(x), createTrackSampler(y)];
    for (let t = 0; t <= 20; t += 0.5) expect(atX(t * FRAME) * 40 - atY(t * FRAME) * 30).toBeCloseTo(0, 6);
    expect([atX(20 * FRAME), atY(20 * FRAME)]).toEqual([30, 40]);
  });

  test('straightened, each segment keeps its easing: that of the channel across, or of the other where only that has a key', () => {
    const [slow, quick, late] = [1, 2, 3].map((y1) => ({
      type: 'bezier' as const,
      x1: 0.3,
      y1: y1 / 10,
      x2: 0.7,
      y2: 1,
    }));
    const bent = layer(
      [key(0, 0, slow), key(10, 30, quick), key(20, 60)],
      [key(0, 0, late), key(5, 9, late), key(20, 40)],
    );
    const { tracks } = done(bent, (scene) => straightenWays(scene, all));
    for (const channel of ['position.x', 'position.y'] as const)
      expect(tracks[channel]?.slice(0, 3).map(({ ease }) => ease)).toEqual([slow, late, quick]);
  });

  test('keys of one channel alone get their partner, free handles become plain curves, and owners stay', () => {
    const made = { ...key(5, 60), by: { run: 'r', slot: 'x/1-1' } };
    const after = done(layer([key(0, 0, swing), made, key(10, 20)], [key(0, 0), key(10, 90)]), (scene) =>
      straightenWays(scene, all),
    );
    const [x, y] = [after.tracks['position.x'] ?? [], after.tracks['position.y'] ?? []];
    expect(x.map(({ at }) => at)).toEqual(y.map(({ at }) => at));
    expect(x[1].by).toEqual({ run: 'r', slot: 'x/1-1' });
    expect(y[1].by).toBeUndefined();
    expect(x.every(({ ease }) => ease.type !== 'handles')).toBe(true);
  });

  test('a way along one axis, a layer without keys and a locked one stay as they are', () => {
    const along = sceneOf([layer([key(0, 0), key(10, 30)], undefined)]);
    expect(straightenWays(along, all)).toEqual([]);
    expect(scaleWays(sceneOf([card('a')]), all, { x: -1, y: -1 })).toEqual([]);
    const locked = sceneOf([layer([key(0, 0), key(10, 30)], [key(0, 0), key(10, 9)], { locked: true })]);
    expect([...straightenWays(locked, all), ...scaleWays(locked, all, { x: 2, y: 2 })]).toEqual([]);
  });
});
