import { describe, expect, test } from '@jest/globals';
import type { ClearRecipe } from '../../scene/recipe';
import { applied, codesOf, framesOf, layerOf, planOn, SHELF } from '../../testing/planning';
import { card, key, sceneOf } from '../../testing/scenes';
import { sentenceOf } from '../operations';

const scene = applied(
  applied(sceneOf([card('a', { tracks: { rotation: [key(0, 1), key(50, 2), key(100, 3)] } }), card('b')]), {}),
  { operation: 'send-out', preset: { id: 'fade-out' } },
);

function clear(more: Partial<ClearRecipe>): ClearRecipe {
  return { operation: 'clear', pick: { by: 'rule', kind: 'card' }, order: { by: 'layered' }, seed: 1, ...more };
}

function left(more: Partial<ClearRecipe>) {
  const { tracks } = layerOf(applied(scene, clear(more)), 'a');
  return { rotation: framesOf(tracks.rotation).map(([at]) => at), opacity: framesOf(tracks.opacity).map(([at]) => at) };
}

describe('clearing keys', () => {
  test.each<[string, Partial<ClearRecipe>, { rotation: number[]; opacity: number[] }]>([
    ['everything', {}, { rotation: [], opacity: [] }],
    ['chosen channels', { channels: ['rotation'] }, { rotation: [], opacity: [0, 12, 238, 250] }],
    ['a time range', { from: '10f', to: '2:00' }, { rotation: [0, 100], opacity: [0, 238, 250] }],
    [
      'a time range from one key to another, both with it',
      { from: '12f', to: '50f' },
      { rotation: [0, 100], opacity: [0, 238, 250] },
    ],
    ['chosen phases', { phases: ['exit'] }, { rotation: [0, 50, 100], opacity: [0, 12] }],
    ['what a run made', { run: 'run-1' }, { rotation: [0, 50, 100], opacity: [238, 250] }],
    [
      'all conditions at once',
      { channels: ['opacity'], run: 'run-2', from: '9:15' },
      { rotation: [0, 50, 100], opacity: [0, 12, 238] },
    ],
  ])('%s', (_, more, expected) => expect(left(more)).toEqual(expected));

  test('counts what goes, and says so where nothing would', () => {
    expect(planOn(scene, clear({ channels: ['rotation'] })).counts).toMatchObject({ layers: 1, removed: 3 });
    expect(codesOf(planOn(scene, clear({ channels: ['blur'] })))).toEqual(['nothing-to-clear']);
  });
});

test('the sentence names the run whose keys go by its place among the runs', () => {
  const said = (run: string): string => sentenceOf(clear({ run }), { scene, shelf: SHELF, count: 1 });
  expect(said(scene.runs[0].id)).toContain('that run 1 made');
  expect(said(scene.runs[1].id)).toContain('that run 2 made');
  expect(said('gone')).toContain('that a run made');
});
