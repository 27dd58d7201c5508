import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import { frameTicks, TICKS_PER_SECOND } from '../../basics/time';
import { createShelf } from '../../library/library';
import { STARTER_LIBRARY } from '../../library/starter';
import { exportPage } from '../../out/export';
import { apply } from '../../scene/edit';
import type { Layer } from '../../scene/layer';
import { createKeysRecipe, createRigRecipe, type KeysRecipe, type Recipe } from '../../scene/recipe';
import { bakedScene, bakeTrack, compileScene, createFrame, sampleFrame, sampleTrack } from '../../scene/sample';
import { sceneSchema, type Scene } from '../../scene/scene';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import { plan } from '../plan';
import { removeRun, switchRun } from '../stack';

const SHELF = createShelf(STARTER_LIBRARY);
const ALL = { by: 'rule', kind: 'card' } as const;
const FRAME = frameTicks(PAL);

function after(scene: Scene, recipe: Recipe, runId: string): Scene {
  const applied = apply(scene, plan(scene, SHELF, recipe, { ...CONTEXT, runId }).edits);
  if (!applied.ok) throw new Error(applied.problem.code);
  return applied.scene;
}

const slider = (id: string, by: number): Layer =>
  card(id, { tracks: { 'position.x': [key(0, 0), key(20, 100 + by)], rotation: [key(0, -40), key(15, 0)] } });

function rigged(): Scene {
  return after(sceneOf([slider('a', 0), slider('b', 80)]), createRigRecipe('rig-carry-and-settle', ALL), 'rig');
}

function keysRecipe(more: Partial<KeysRecipe> = {}): KeysRecipe {
  return { ...createKeysRecipe('turn-into-keys', ALL), ...more };
}

/** How far two scenes are apart on a channel of their layers, at quarters of frames. */
function apart(one: Scene, other: Scene, channel: ChannelId): number {
  const [a, b] = [compileScene(one), compileScene(other)];
  const [f, g] = [createFrame(a), createFrame(b)];
  let most = 0;
  for (let time = 0; time < 5 * TICKS_PER_SECOND; time += FRAME / 4) {
    sampleFrame(a, time, f);
    sampleFrame(b, time, g);
    for (let layer = 0; layer < one.layers.length; layer++) {
      const at = layer * CHANNEL_COUNT + channelOf(channel).slot;
      most = Math.max(most, Math.abs(f.values[at] - g.values[at]));
    }
  }
  return most;
}

describe('turning into keys', () => {
  test.each([
    [2, 'frames'],
    [0.5, 'frames'],
    [0.1, 'exact'],
  ] as const)('stays within %d and moves as the rig did, %s', (within, grid) => {
    const scene = rigged();
    const turned = after(scene, keysRecipe({ within, grid }), 'keys');
    expect(sceneSchema.safeParse(turned).success).toBe(true);
    expect(apart(scene, turned, 'position.x')).toBeLessThanOrEqual(within * 1.05);
    expect(apart(scene, turned, 'rotation')).toBeLessThanOrEqual(within * 1.05);
    expect(compileScene(turned).rigs?.driven(0) ?? []).not.toContain('position.x');
    const [first] = turned.layers;
    const keys = first.tracks['position.x'] ?? [];
    expect(keys.length).toBeLessThan(60);
    if (grid === 'frames') expect(keys.every(({ at }) => at % FRAME === 0)).toBe(true);
  });

  test('says how many keys, and how far off they are at worst, before it is done', () => {
    const planned = plan(rigged(), SHELF, keysRecipe(), CONTEXT);
    const [found] = planned.findings;
    expect(found).toMatchObject({ code: 'turned-into-keys' });
    if (found.code !== 'turned-into-keys') return;
    expect(found.keys).toBe(planned.counts.added);
    expect(found.error).toBeGreaterThan(0);
    expect(found.error).toBeLessThanOrEqual(0.5);
  });

  test('says how far it has come, layer by layer', () => {
    const told: number[] = [];
    const context = { ...CONTEXT, runId: 'keys', progress: (share: number) => void told.push(share) };
    plan(rigged(), SHELF, keysRecipe(), context);
    expect(told).toEqual([0, 0.5]);
  });

  test('a smaller tolerance takes more keys', () => {
    const count = (within: number): number => plan(rigged(), SHELF, keysRecipe({ within }), CONTEXT).counts.added;
    expect(count(0.1)).toBeGreaterThan(count(1));
    expect(count(1)).toBeGreaterThan(count(10));
  });

  test('switched off or removed, the rig drives again as before', () => {
    const scene = rigged();
    const turned = after(scene, keysRecipe(), 'keys');
    for (const change of [switchRun, removeRun]) {
      const back = apply(turned, change(turned, 'keys').edits);
      if (!back.ok) throw new Error(back.problem.code);
      expect(apart(scene, back.scene, 'position.x')).toBe(0);
      expect(back.scene.layers.map(({ tracks }) => tracks)).toEqual(scene.layers.map(({ tracks }) => tracks));
    }
  });

  test('some layers, and some channels, leave the others to the rig', () => {
    const recipe = keysRecipe({ pick: { by: 'layers', layers: ['a'] }, channels: ['rotation'] });
    const turned = after(rigged(), recipe, 'keys');
    const { rigs } = compileScene(turned);
    expect(rigs?.drives(0, 'rotation')).toBe(false);
    expect(rigs?.drives(0, 'position.x')).toBe(true);
    expect(rigs?.drives(1, 'rotation')).toBe(true);
  });

  test('the slot of a key is its frame from where its layer begins, so that it stays when the layer moves', () => {
    const [late] = [card('a', { span: { in: 30 * FRAME, out: 90 * FRAME }, tracks: slider('a', 0).tracks })];
    const before = after(sceneOf([late]), createRigRecipe('rig-carry-and-settle', ALL), 'rig');
    const [{ tracks }] = after(before, keysRecipe(), 'keys').layers;
    const keys = tracks['position.x'] ?? [];
    expect(keys.length).toBeGreaterThan(2);
    expect(keys.map(({ by }) => by)).toEqual(
      keys.map(({ at }) => ({ run: 'keys', slot: `position.x/${Number((at / FRAME - 30).toFixed(4))}` })),
    );
  });

  test('where no rig drives anything it says so', () => {
    const { findings, edits } = plan(sceneOf([slider('a', 0)]), SHELF, keysRecipe(), CONTEXT);
    expect(findings).toEqual([{ code: 'nothing-to-turn', what: 'turn-into-keys' }]);
    expect(edits).toEqual([]);
  });

  test('formats without formulas get keys and say so', () => {
    const scene = rigged();
    expect(apart(scene, bakedScene(scene), 'position.x')).toBeLessThan(0.3);
    expect(exportPage(scene)).toContain('What rigs drive, and motion along paths, stands here as keyframes');
    expect(exportPage(sceneOf([slider('a', 0)]))).not.toContain('What rigs drive');
  });
});

test('thinning out keeps the motion within the tolerance, by fewer keys', () => {
  const dense = Array.from({ length: 51 }, (_, i) => key(i, 100 + 80 * Math.sin(i / 9)));
  const scene = sceneOf([card('a', { tracks: { 'position.x': dense } })]);
  const thin = after(scene, { ...createKeysRecipe('thin-out', ALL), within: 1 }, 'thin');
  const keys = thin.layers[0].tracks['position.x'] ?? [];
  expect(keys.length).toBeLessThan(20);
  expect(keys[0]).toMatchObject({ at: 0, value: 100 });
  expect(keys.at(-1)?.at).toBe(50 * FRAME);
  expect(apart(scene, thin, 'position.x')).toBeLessThanOrEqual(1.05);
});

test('thinned out, holds stay at their times; other channels, and tracks of two keys, are as they were', () => {
  const hold = { type: 'hold' } as const;
  const dense = (from: number, to: number, slope: number) =>
    Array.from({ length: to - from + 1 }, (_, i) => key(from + i, i * slope));
  const stepped = [...dense(0, 20, 3), key(21, 200, hold), key(30, 40, hold), ...dense(40, 60, 2)];
  const tracks = { 'position.x': stepped, rotation: dense(0, 30, 1), opacity: [key(0, 0), key(9, 1)] };
  const scene = sceneOf([card('a', { tracks })]);
  const thin = after(
    scene,
    { ...createKeysRecipe('thin-out', ALL), within: 0.5, channels: ['position.x', 'opacity'] },
    'thin',
  );
  const [layer] = thin.layers;
  expect(layer.tracks['position.x']?.map(({ at, ease }) => [at / FRAME, ease.type === 'hold'])).toEqual(
    expect.arrayContaining([
      [0, false],
      [21, true],
      [30, true],
      [40, false],
      [60, false],
    ]),
  );
  expect(layer.tracks['position.x']?.length).toBeLessThan(12);
  expect(apart(scene, thin, 'position.x')).toBeLessThanOrEqual(0.53);
  expect([layer.tracks.rotation, layer.tracks.opacity]).toEqual([tracks.rotation, tracks.opacity]);
});

test('whatever smooth value is baked, its keys are in order and within the tolerance on every step', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.2, max: 6, noNaN: true }),
      fc.double({ min: 1, max: 300, noNaN: true }),
      fc.double({ min: 0.05, max: 5, noNaN: true }),
      (pace, size, tolerance) => {
        const value = (at: number): number =>
          size * Math.sin((2 * Math.PI * pace * at) / TICKS_PER_SECOND) * Math.exp(-at / TICKS_PER_SECOND);
        const to = 3 * TICKS_PER_SECOND;
        const { keys, worst } = bakeTrack({ value, from: 0, to, breaks: [7 * FRAME], step: FRAME, tolerance });
        expect(keys.every(({ at }, i) => i === 0 || at > keys[i - 1].at)).toBe(true);
        expect(keys.some(({ at }) => at === 7 * FRAME)).toBe(true);
        for (let at = 0; at < to; at += FRAME) {
          expect(Math.abs(sampleTrack(keys, at) - value(at))).toBeLessThanOrEqual(Math.max(worst, tolerance) + 1e-9);
        }
      },
    ),
    { numRuns: 40 },
  );
});
