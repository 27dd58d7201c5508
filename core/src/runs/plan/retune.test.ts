import { describe, expect, test } from '@jest/globals';
import type { RigRecipe } from '../../scene/recipe';
import { compilePreset } from '../../formulas/preset';
import { createShelf, type RigItem } from '../../library/library';
import { recipeOf, rigged, shelfWith } from '../../testing/rigs';
import { card, sceneOf } from '../../testing/scenes';
import { retuneRig } from '.';

const shelf = shelfWith('keyed + @far', ['position.x'], {
  dials: [{ name: 'far', label: 'Far', note: '', kind: 'length', default: '10px' }],
});
const recipe = recipeOf('own');
const scene = rigged(sceneOf([card('a'), card('b')]), recipe, shelf);
const [run] = scene.runs;
const later = { by: 'later', when: '2026-02-02T00:00:00.000Z' };
const turned: RigRecipe = { ...recipe, parameters: { far: { by: 'fixed', value: '25px' } } };

describe('a dial that is turned', () => {
  test('gives the record of its run with that, under its id, by who turned it, and with the layers that it is on', () => {
    const tuned = retuneRig(scene, shelf, run.id, turned, later);
    expect(tuned).toMatchObject({ ok: true, run: { id: run.id, recipe: turned, layers: ['a', 'b'], ...later } });
    const inputs = [{ name: '@far', values: 25 }];
    expect(tuned.ok && tuned.run.rig).toEqual({ ...run.rig, inputs });
    expect(tuned.ok && tuned.run.off).toBeUndefined();
  });

  test('leaves a run off that is off', () => {
    const off = { ...scene, runs: [{ ...run, off: true as const }] };
    expect(retuneRig(off, shelf, run.id, turned, later)).toMatchObject({ ok: true, run: { off: true } });
  });

  test('keeps to the revision that the run used, though the library has another', () => {
    const item = shelf.items.get(recipe.rig.id);
    if (item?.kind !== 'rig') throw new Error('no rig');
    const formulas = [{ channels: ['position.x' as const], text: 'keyed + @far + 100px' }];
    const next: RigItem = { ...item, revision: item.revision + 1, body: { ...item.body, formulas } };
    const tuned = retuneRig(scene, createShelf([next]), run.id, turned, later, compilePreset);
    expect(tuned.ok && [tuned.run.rig?.revision, tuned.run.rig?.body]).toEqual([item.revision, run.rig?.body]);
  });

  test('says what keeps it from that', () => {
    expect(retuneRig(scene, shelf, 'gone', turned, later)).toEqual({
      ok: false,
      findings: [{ code: 'unknown-run', run: 'gone' }],
    });
    const nobody: RigRecipe = { ...turned, pick: { by: 'layers', layers: ['gone'] } };
    const refused = retuneRig(scene, shelf, run.id, nobody, later);
    expect(refused.ok).toBe(false);
    expect(!refused.ok && refused.findings.length).toBeGreaterThan(0);
    const wrong: RigRecipe = { ...turned, parameters: { far: { by: 'fixed', value: 'nonsense' } } };
    expect(retuneRig(scene, shelf, run.id, wrong, later).ok).toBe(false);
  });
});
