import { describe, expect, test } from '@jest/globals';
import { createShelf, type PresetItem } from '../../library/library';
import type { Recipe } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import { STARTER_LIBRARY } from '../../library/starter';
import { applied, edited } from '../../testing/planning';
import { card, CONTEXT, PAL, sceneOf } from '../../testing/scenes';
import { frameTicks } from '../../basics/time';
import { switchRun } from '../stack';
import { replan } from './replan';
import { planUpdates, recipeOfRun } from './update';

const FRAME = frameTicks(PAL);

/** The starter library with a second revision of a preset that lasts longer, or that no longer compiles. */
function shelfWith(id: string, change: (item: PresetItem) => PresetItem['body']) {
  return createShelf(
    STARTER_LIBRARY.map((item) =>
      item.id === id && item.kind === 'preset' ? { ...item, revision: item.revision + 1, body: change(item) } : item,
    ),
  );
}

const longer = shelfWith('fade-in', ({ body }) => ({
  ...body,
  parameters: body.parameters.map(({ house: _house, ...entry }) =>
    entry.name === 'lasts' ? { ...entry, default: '30f' } : entry,
  ),
}));

const scene = ['pop-in-five-steps', 'fade-in', 'fade-in'].reduce<Scene>(
  (standing, id, i) =>
    applied(standing, {
      preset: { id },
      pick: { by: 'layers', layers: i === 2 ? ['b'] : ['a'] },
      existing: 'replace-channels',
    }),
  sceneOf([card('a'), card('b')]),
);
const [, first, second] = scene.runs.map(({ id }) => id);

function after(updates: ReturnType<typeof planUpdates>): Scene {
  return edited(
    scene,
    updates.flatMap(({ edits }) => edits),
  );
}

describe('updates of several runs', () => {
  test('say what each changes, layer by layer, and are done in one step', () => {
    const updates = planUpdates(scene, longer, new Set([first, second]), CONTEXT);
    expect(updates.map(({ run, layers }) => [run, layers.map(({ name }) => name)])).toEqual([
      [first, ['a']],
      [second, ['b']],
    ]);
    const [layer] = updates[0].layers;
    expect((layer.after?.ends ?? 0) / FRAME).toBe(30);
    expect(layer.before?.keys).toBe(layer.after?.keys);
    const next = after(updates);
    expect(next.runs.map(({ preset }) => preset?.revision)).toEqual([1, 2, 2]);
    expect((next.layers[1].tracks.opacity?.at(-1)?.at ?? 0) / FRAME).toBe(30);
  });

  test('a layer whose keys come out as they were is not among what changes', () => {
    const other = shelfWith('fade-in', ({ body }) => ({
      ...body,
      moments: body.moments.map((moment) => ({ ...moment, name: `${moment.name}, said anew` })),
    }));
    const [{ layers, edits }] = planUpdates(scene, other, new Set([first]), CONTEXT);
    expect(layers).toEqual([]);
    expect(edited(scene, edits).runs[1].preset?.revision).toBe(2);
  });

  test('only the runs that are asked for', () => {
    const next = after(planUpdates(scene, longer, new Set([second]), CONTEXT));
    expect(next.runs.map(({ preset }) => preset?.revision)).toEqual([1, 1, 2]);
    expect(next.layers[0]).toEqual(scene.layers[0]);
  });

  test('what was set by hand stays', () => {
    const standing = scene.layers[1].tracks.opacity ?? [];
    const keys = standing.map((key, i) => (i === 0 ? { ...key, value: 0.25 } : key));
    const hand = edited(scene, [{ type: 'set-track', layer: 'b', channel: 'opacity', keys }]);
    const [{ edits, findings }] = planUpdates(hand, longer, new Set([second]), CONTEXT);
    expect(edited(hand, edits).layers[1].tracks.opacity?.[0].value).toBe(0.25);
    expect(findings.map(({ code }) => code)).toContain('kept-by-hand');
  });

  test('a run that cannot be updated is left as it is, and the others are updated', () => {
    const items = [...longer.items.values()].map((item) =>
      item.id === 'pop-in-five-steps' && item.kind === 'preset'
        ? { ...item, revision: item.revision + 1, body: { ...item.body, phase: 'exit' as const } }
        : item,
    );
    const [pop] = scene.runs.map(({ id }) => id);
    const updates = planUpdates(scene, createShelf(items), new Set([pop, second]), CONTEXT);
    expect(updates[0]).toMatchObject({ run: pop, edits: [], layers: [], findings: [{ code: 'wrong-phase' }] });
    expect(after(updates).runs.map(({ preset }) => preset?.revision)).toEqual([1, 1, 2]);
  });

  test('a run that is up to date has no edits', () => {
    expect(planUpdates(scene, createShelf(STARTER_LIBRARY), new Set([first]), CONTEXT)).toMatchObject([
      { run: first, edits: [], layers: [] },
    ]);
  });
});

test('a run planned again as it is, with the revision that it used, is no change', () => {
  const [run] = scene.runs;
  const shelf = createShelf(STARTER_LIBRARY);
  expect(replan(scene, shelf, run.id, recipeOfRun(run, 'used'), CONTEXT).edits).toEqual([]);
  expect(replan(scene, longer, first, recipeOfRun(scene.runs[1], 'newest'), CONTEXT).edits).not.toEqual([]);
});

test('a run that is off stays off when it is changed, and does what was changed when it is on again', () => {
  const off = edited(scene, switchRun(scene, second).edits);
  const recipe = { ...recipeOfRun(scene.runs[2], 'used'), length: { by: 'fixed', length: '9f' } } as Recipe;
  const changed = edited(off, replan(off, createShelf(STARTER_LIBRARY), second, recipe, CONTEXT).edits);
  expect(changed.runs.map(({ off: isOff }) => isOff === true)).toEqual([false, false, true]);
  expect(changed.layers.map(({ tracks }) => tracks)).toEqual(off.layers.map(({ tracks }) => tracks));
  const on = edited(changed, switchRun(changed, second).edits);
  const straight = edited(scene, replan(scene, createShelf(STARTER_LIBRARY), second, recipe, CONTEXT).edits);
  expect(straight.layers[1].tracks).not.toEqual(scene.layers[1].tracks);
  expect(on.layers.map(({ tracks }) => tracks)).toEqual(straight.layers.map(({ tracks }) => tracks));
});

test('the recipe of a run keeps to the revision that it used, or takes the newest', () => {
  const [run] = scene.runs;
  expect(recipeOfRun(run, 'used')).toMatchObject({ preset: { id: 'pop-in-five-steps', revision: 1 } });
  expect(recipeOfRun(run, 'newest')).toMatchObject({ preset: { id: 'pop-in-five-steps' } });
  expect(recipeOfRun(run, 'newest')).not.toHaveProperty('preset.revision');
});
