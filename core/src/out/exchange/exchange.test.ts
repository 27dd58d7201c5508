import { describe, expect, test } from '@jest/globals';
import { headerOf, type Scene } from '../../scene/scene';
import { card, key, sceneOf } from '../../testing/scenes';
import { packLayers, saveRequestSchema, unpackScene } from '.';

const scene: Scene = sceneOf([card('a', { tracks: { opacity: [key(0, 0), key(9, 1)] } }), card('b'), card('c')]);

describe('a packed scene', () => {
  test('has its layers in the order of its outline, whatever chunk each is in, and what the outline leaves out is gone', () => {
    const [a, b, c] = scene.layers;
    const old = { ...b, name: 'before' };
    const packed = {
      version: 7,
      id: scene.id,
      header: headerOf(scene),
      // A chunk may hold layers that were saved anew in a later one.
      chunks: { 1: packLayers([a, old]), 4: packLayers([c, b]) },
      outline: [
        ['a', 1],
        ['b', 4],
        ['c', 4],
      ] as const,
      runs: [],
    };
    expect(unpackScene(packed)).toEqual({ version: 7, scene });
    const fewer = unpackScene({ ...packed, outline: [['c', 4] as const, ['b', 1] as const] });
    expect(fewer.scene.layers).toEqual([c, old]);
  });
});

test('a save names each layer and each run once', () => {
  const save = { base: 1, by: 'Tester', what: 'Step', header: null, layers: [], removedLayers: [], order: null };
  const request = { ...save, runs: [], removedRuns: [], runOrder: null };
  const said = (more: object) => saveRequestSchema.safeParse({ ...request, ...more }).error?.issues[0]?.message;
  expect(said({})).toBeUndefined();
  expect(said({ layers: scene.layers })).toBeUndefined();
  expect(said({ layers: [scene.layers[0], scene.layers[0]] })).toBe('A layer is in it twice. Send each once.');
});
