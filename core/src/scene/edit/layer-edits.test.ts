import { expect, test } from '@jest/globals';
import { card, key, sceneOf } from '../../testing/scenes';
import type { Layer } from '../layer';
import { apply, layerEdits } from '.';

const before = card('a', {
  tracks: { opacity: [key(0, 0), key(9, 1)], rotation: [key(0, 5)] },
  data: { team: 'North' },
});

/** What the edits make of the layer. */
function led(after: Layer): Layer {
  const result = apply(sceneOf([before]), layerEdits(before, after));
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene.layers[0];
}

test('edits lead from a layer to what it becomes, and say no more than what differs', () => {
  expect(layerEdits(before, before)).toEqual([]);
  expect(layerEdits(before, structuredClone(before))).toEqual([]);
  const changes: readonly Partial<Layer>[] = [
    { span: { in: 0, out: before.span.out - 1 } },
    { rest: { ...before.rest, rotation: 3 } },
    { look: { fill: '#123456' } },
    { data: { team: 'South', score: 3 } },
    { tracks: { ...before.tracks, opacity: [key(0, 0), key(12, 1)] } },
    { tracks: { opacity: before.tracks.opacity } as Layer['tracks'] },
    { tracks: { ...before.tracks, skew: [key(4, 1)] } },
    { rest: { 'position.x': 1 }, tracks: { skew: [key(4, 1)] } },
  ];
  for (const change of changes) expect(led({ ...before, ...change })).toEqual({ ...before, ...change });
  expect(layerEdits(before, { ...before, ...changes[4] })).toHaveLength(1);
  expect(layerEdits(before, { ...before, ...changes[5] })).toEqual([
    { type: 'set-track', layer: 'a', channel: 'rotation', keys: null },
  ]);
});
