import { describe, expect, test } from '@jest/globals';
import { ticksFromSeconds, type Ticks } from '../../basics/time';
import type { Edit } from '../../scene/edit';
import type { ClipSource, Layer } from '../../scene/layer';
import { clipTimeAt } from '../../scene/sample';
import { sceneSchema, type Scene } from '../../scene/scene';
import { edited } from '../../testing/planning';
import { card, key, sceneOf } from '../../testing/scenes';
import { pacedClip, splitClip } from './clips';

const s = ticksFromSeconds;
const source: ClipSource = {
  type: 'clip',
  href: `files/${'b'.repeat(64)}.mp4`,
  width: 320,
  height: 180,
  from: s(1),
  length: s(20),
  pace: 1.5,
};
const clip = (more: Partial<Layer> = {}): Layer =>
  card('clip', {
    kind: 'picture',
    source,
    span: { in: s(2), out: s(8) },
    tracks: { opacity: [key(50, 0), key(60, 1)] },
    ...more,
  });

function cut(scene: Scene, at: Ticks, isFrozen = false): Scene | string {
  const result = splitClip(scene, 'clip', at, isFrozen, () => 'second');
  return result.ok ? edited(scene, result.edits as Edit[]) : result.message;
}

describe('a clip that is cut', () => {
  test('shows at each time what it showed before, and keeps its motion', () => {
    const scene = sceneOf([clip(), card('above')]);
    const now = cut(scene, s(4)) as Scene;
    expect(sceneSchema.safeParse(now).error?.issues ?? []).toEqual([]);
    expect(now.layers.map(({ id }) => id)).toEqual(['clip', 'second', 'above']);
    const [first, second] = now.layers;
    expect([first.span, second.span]).toEqual([
      { in: s(2), out: s(4) },
      { in: s(4), out: s(8) },
    ]);
    for (const at of [4, 5.5, 7.9])
      expect(clipTimeAt(second, s(at))).toBeCloseTo(clipTimeAt(scene.layers[0], s(at)) as number, 9);
    expect(second.tracks).toEqual(first.tracks);
  });

  test('frozen holds the frame at the cut', () => {
    const now = cut(sceneOf([clip()]), s(4), true) as Scene;
    const [first, second] = now.layers;
    expect([4, 6, 7.9].map((at) => clipTimeAt(second, s(at)))).toEqual([4, 4, 4]);
    expect(clipTimeAt(first, s(3))).toBe(2.5);
  });

  test('is told where that cannot be', () => {
    expect(cut(sceneOf([clip()]), s(2))).toContain('does not stand within');
    expect(cut(sceneOf([card('clip')]), s(2))).toContain('Select a clip');
    expect(cut(sceneOf([clip({ tracks: { 'clip.time': [key(0, 0)] } })]), s(4))).toContain('Keys say the time');
  });
});

test('another pace takes as much longer, within the scene; a frozen one lasts as it did', () => {
  expect(pacedClip(clip(), 3, s(10))?.span).toEqual({ in: s(2), out: s(5) });
  expect(pacedClip(clip(), 0.5, s(10))?.span).toEqual({ in: s(2), out: s(10) });
  expect(pacedClip(clip(), 0, s(10))).toEqual({ source: { ...source, pace: 0 }, span: { in: s(2), out: s(8) } });
  expect(pacedClip(card('none'), 1, s(10))).toBeNull();
});
