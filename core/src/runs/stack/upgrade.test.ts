import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { tracksOf, type Layer } from '../../scene/layer';
import { replan } from '../plan';
import { sceneSchema, type Scene } from '../../scene/scene';
import { edited, SHELF } from '../../testing/planning';
import { createArrange } from '../../scene/recipe';
import { CONTEXT } from '../../testing/scenes';
import { removeRun, switchRun, upgradeScene } from '.';

/** Scenes that the version before wrote, with runs of several operations, hand edits between them, and one switched off. */
const files = JSON.parse(
  readFileSync(new URL('../../testing/scenes-of-format-1.json', import.meta.url), 'utf8'),
) as Scene[];

/** What is to be seen of a layer: everything but who made its keys. */
function seen({ span, rest, tracks }: Layer) {
  const keys = Object.fromEntries(
    tracksOf({ tracks } as Layer).map(([channel, list]) => [
      channel,
      list.map(({ at, value, ease }) => [at, value, ease]),
    ]),
  );
  return { span, rest, keys };
}

describe.each(files.map((file, i) => [i, file] as const))('scene %i of the format before', (_, file) => {
  const scene = sceneSchema.parse(upgradeScene(file));

  test('has every key, rest value and span where it was', () => {
    expect(scene.layers.map(seen)).toEqual(file.layers.map(seen));
    expect(scene.runs.map(({ id, sentence }) => [id, sentence])).toEqual(
      file.runs.map(({ id, sentence }) => [id, sentence]),
    );
  });

  test('has patches for what was done by hand, and every key of a run a slot of its own', () => {
    expect(scene.runs.some(({ patches }) => (patches?.length ?? 0) > 0)).toBe(true);
    // A run over which nothing was done by hand says nothing of patches.
    expect(scene.runs.flatMap(({ patches }) => (patches === undefined ? [] : [patches.length]))).not.toContain(0);
    for (const layer of scene.layers) {
      for (const [channel, keys] of tracksOf(layer)) {
        const names = keys.flatMap(({ by }) => (by ? [`${channel} ${by.run} ${by.slot}`] : []));
        expect(new Set(names).size).toBe(names.length);
        // The first of several keeps the slot that all of them had, the others are counted.
        for (const name of names) expect(name).toMatch(/^[^~]+(~[1-9]\d*)?$/);
        const stems = new Set(names.map((name) => name.replace(/~\d+$/, '')));
        for (const stem of stems) expect(names).toContain(stem);
      }
    }
  });

  test('can be changed as one that was made today: planned again, switched, emptied', () => {
    for (const { id, recipe, off } of scene.runs) {
      if (off === true) continue;
      expect(replan(scene, SHELF, id, recipe, CONTEXT).findings.map(({ code }) => code)).not.toContain('unknown-run');
      const switched = edited(scene, switchRun(scene, id).edits);
      expect(edited(switched, switchRun(switched, id).edits).layers.map(seen)).toEqual(scene.layers.map(seen));
    }
    // A run that was switched off comes with what it made, and gives it again.
    for (const { id, layers, made, off } of scene.runs) {
      if (off !== true) continue;
      expect(layers.length).toBeGreaterThan(0);
      expect(made).toBeDefined();
      const on = edited(scene, switchRun(scene, id).edits);
      const keysOf = ({ layers: all }: Scene): number =>
        all.flatMap((layer) => tracksOf(layer).flatMap(([, keys]) => keys.filter(({ by }) => by?.run === id))).length;
      expect([keysOf(scene), keysOf(on) > 0]).toEqual([0, true]);
    }
    const empty = [...scene.runs].reverse().reduce((at, { id }) => edited(at, removeRun(at, id).edits), scene);
    expect(empty.layers.every(({ base }) => base === undefined)).toBe(true);
    expect(sceneSchema.safeParse(empty).success).toBe(true);
  });
});

test('what is no scene comes back as it is', () => {
  expect(upgradeScene({ format: 'other' })).toEqual({ format: 'other' });
  expect(upgradeScene(null)).toBeNull();
});

test('a run whose recipe says nothing leaves its keys as set by hand', () => {
  const [file] = files;
  const unread = {
    ...file,
    runs: file.runs.map((run, i) => (i === 0 ? { ...run, recipe: { operation: 'unheard of' } } : run)),
  };
  const scene = sceneSchema.parse(upgradeScene(unread));
  expect(scene.runs).toHaveLength(file.runs.length - 1);
  expect(scene.layers.map(seen)).toEqual(file.layers.map(seen));
});

test('an arrangement gives places back as they were before it, and takes away those that were not there', () => {
  const [{ runs: _runs, ...file }] = files;
  const [first, ...others] = file.layers.map((layer) => ({ ...layer, tracks: {} }));
  const recipe = createArrange({ by: 'layers', layers: [first.id] });
  const rest = [
    { channel: 'position.x', before: null, after: 40 },
    { channel: 'position.y', before: 30, after: 60 },
  ];
  const run = {
    id: 'run-1',
    sentence: 'Arranged.',
    recipe,
    by: '',
    when: CONTEXT.when,
    steps: [{ layer: first.id, rest, tracks: [] }],
  };
  const arranged = { ...first, rest: { ...first.rest, 'position.x': 40, 'position.y': 60 } };
  const scene = sceneSchema.parse(upgradeScene({ ...file, layers: [arranged, ...others], runs: [run] }));
  expect(scene.layers[0].rest).toEqual(arranged.rest);
  expect(scene.runs).toHaveLength(1);
  const { 'position.x': _x, ...without } = first.rest;
  expect(edited(scene, removeRun(scene, 'run-1').edits).layers[0].rest).toEqual({ ...without, 'position.y': 30 });
});
