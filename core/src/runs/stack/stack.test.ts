import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { replan } from '../plan';
import type { PresetRecipe, Recipe } from '../../scene/recipe';
import type { Key } from '../../scene/layer';
import { sceneSchema, type Scene } from '../../scene/scene';
import { presetRecipes } from '../../testing/by-hand';
import { applied, codesOf, edited, framesOf, layerOf, planOn, SHELF } from '../../testing/planning';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { moveRun, removeRun, switchRun } from '.';

const FRAME = frameTicks(PAL);

const start = sceneOf([
  card('a', { tracks: { opacity: [key(0, 0.2), key(40, 1)], 'position.y': [key(3, 50), key(90, 200)] } }),
  card('b', { span: { in: ticksFromSeconds(1), out: ticksFromSeconds(6) } }),
  card('c', { rest: { 'position.x': 10, 'position.y': 400, rotation: 20, opacity: 0.6, 'size.x': 80, 'size.y': 40 } }),
]);

const allCards = { by: 'rule', kind: 'card' } as const;

const presetRecipe = presetRecipes(['replace', 'replace-channels', 'add'], [allCards]);
const BASE = { pick: allCards, order: { by: 'layered' }, seed: 1 } as const;

const otherRecipe: fc.Arbitrary<Partial<Recipe>> = fc.constantFrom<Partial<Recipe>>(
  { operation: 'line-up', ...BASE, way: { by: 'end', at: { by: 'scene' } }, parts: 'keep', squeeze: false },
  { operation: 'line-up', ...BASE, way: { by: 'butt', gap: '-5f' }, parts: 'keep', squeeze: false },
  { operation: 'line-up', ...BASE, way: { by: 'length', length: '3s' }, parts: 'stretch', squeeze: true },
  { operation: 'arrange', ...BASE, way: { by: 'grid', columns: 2, gap: 10 } },
  {
    operation: 'arrange',
    ...BASE,
    way: { by: 'circle', x: 0.5, y: 0.5, radius: 100, from: 0, round: 360, turned: true },
  },
  { operation: 'arrange', ...BASE, way: { by: 'size', match: 'width', of: 'largest' } },
  { operation: 'clear', ...BASE, channels: ['opacity'] },
  { operation: 'clear', ...BASE, from: '20f' },
);

const anyRecipe = fc.oneof({ weight: 3, arbitrary: presetRecipe }, { weight: 1, arbitrary: otherRecipe });
const manyRecipes = fc.array(anyRecipe, { minLength: 1, maxLength: 4 });

function runAll(scene: Scene, recipes: readonly Partial<Recipe>[]): Scene {
  return recipes.reduce((at, recipe) => applied(at, recipe), scene);
}

function rerun(scene: Scene, id: string, recipe?: Partial<Recipe>) {
  const standing = scene.runs.find((run) => run.id === id)?.recipe as unknown as Recipe;
  return replan(scene, SHELF, id, { ...standing, ...recipe } as Recipe, CONTEXT);
}

/** A scene without what differs by nothing but who listed it: its layers. */
function layersOf(scene: Scene) {
  return scene.layers;
}

describe('laws of runs', () => {
  test('runs applied and then removed, in any order, give the scene back exactly', () => {
    fc.assert(
      fc.property(manyRecipes, fc.integer({ min: 0, max: 1000 }), (recipes, pick) => {
        let scene = runAll(start, recipes);
        while (scene.runs.length > 0) {
          scene = edited(scene, removeRun(scene, scene.runs[pick % scene.runs.length].id).edits);
          expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
        }
        expect(scene).toEqual(start);
      }),
      { numRuns: 150 },
    );
  });

  test('a run planned again without any change is no change, wherever it stands', () => {
    fc.assert(
      fc.property(manyRecipes, (recipes) => {
        const scene = runAll(start, recipes);
        for (const { id } of scene.runs) expect(rerun(scene, id).edits).toEqual([]);
      }),
      { numRuns: 120 },
    );
  });

  test('switched off and on again, a run is as it was', () => {
    fc.assert(
      fc.property(manyRecipes, (recipes) => {
        const scene = runAll(start, recipes);
        for (const { id } of scene.runs) {
          const off = edited(scene, switchRun(scene, id).edits);
          expect(off.runs.find((run) => run.id === id)?.off).toBe(true);
          expect(sceneSchema.safeParse(off).error?.issues ?? []).toEqual([]);
          expect(layersOf(edited(off, switchRun(off, id).edits))).toEqual(layersOf(scene));
        }
      }),
      { numRuns: 120 },
    );
  });

  test('moved to another place and back, runs are as they were', () => {
    fc.assert(
      fc.property(manyRecipes, fc.nat(3), fc.nat(3), (recipes, a, b) => {
        const scene = runAll(start, recipes);
        const [from, to] = [a % scene.runs.length, b % scene.runs.length];
        const { id } = scene.runs[from];
        const moved = edited(scene, moveRun(scene, id, to).edits);
        for (const nowhere of [-1, scene.runs.length, from]) expect(moveRun(scene, id, nowhere).edits).toEqual([]);
        if (from !== to) expect(moved.runs[to].id).toBe(id);
        expect(sceneSchema.safeParse(moved).error?.issues ?? []).toEqual([]);
        const back = edited(moved, moveRun(moved, id, from).edits);
        expect(back.runs.map((run) => run.id)).toEqual(scene.runs.map((run) => run.id));
        let empty = back;
        for (const run of [...back.runs].reverse()) empty = edited(empty, removeRun(empty, run.id).edits);
        expect(empty).toEqual(start);
      }),
      { numRuns: 100 },
    );
  });

  test('hand edits survive any new plan of any run', () => {
    fc.assert(
      fc.property(manyRecipes, fc.integer({ min: 0, max: 50 }), fc.nat(3), (recipes, gap, which) => {
        const ran = runAll(start, recipes);
        const subject = layerOf(ran, 'c');
        const channel = (Object.keys(subject.tracks) as (keyof typeof subject.tracks)[]).at(0);
        if (channel === undefined) return;
        const keys = subject.tracks[channel] as Key[];
        const byHand = { ...keys[0], value: keys[0].value + 0.125 };
        const scene = edited(ran, [{ type: 'set-track', layer: 'c', channel, keys: [byHand, ...keys.slice(1)] }]);
        const run = scene.runs[which % scene.runs.length];
        if (run.recipe.operation !== 'bring-in' && run.recipe.operation !== 'accent') return;
        const planned = rerun(scene, run.id, { spacing: { by: 'gap', gap: `${gap}f` } } as Partial<Recipe>);
        const after = layerOf(edited(scene, planned.edits), 'c').tracks[channel] as Key[];
        expect(after.map(({ value }) => value)).toContain(byHand.value);
      }),
      { numRuns: 200 },
    );
  });

  test('n runs in, n undos out', () => {
    fc.assert(
      fc.property(manyRecipes, (recipes) => {
        const undo: (readonly [Scene, Scene])[] = [];
        let scene = start;
        for (const recipe of recipes) {
          const next = applied(scene, recipe);
          undo.push([scene, next]);
          scene = next;
        }
        for (const [before] of [...undo].reverse()) scene = before;
        expect(scene).toBe(start);
      }),
      { numRuns: 20 },
    );
  });
});

test('what a layer keeps from before its runs and no run touches any more goes as soon as one of them changes', () => {
  const scene = applied(start, { preset: { id: 'fade-in' } });
  const spoilt = {
    ...scene,
    layers: scene.layers.map((layer) => ({
      ...layer,
      base: {
        ...layer.base,
        whole: true as const,
        span: { in: 0, out: 5 },
        rest: { ...layer.base?.rest, rotation: 99 },
        look: { ...layer.base?.look, shadow: '#123456' },
        data: { ...layer.base?.data, team: 'North' },
        tracks: { ...layer.base?.tracks, skew: [key(0, 9)] },
      },
    })),
  };
  const [sound, mended] = [scene, spoilt].map((one) =>
    edited(one, rerun(one, 'run-1', { spacing: { by: 'gap', gap: '3f' } }).edits),
  );
  expect(mended.layers).toEqual(sound.layers);
  const off = edited(spoilt, switchRun(spoilt, 'run-1').edits);
  expect(off.layers.map(({ tracks, rest, span }) => ({ tracks, rest, span }))).toEqual(
    start.layers.map(({ tracks, rest, span }) => ({ tracks, rest, span })),
  );
});

describe('a run planned again', () => {
  const rise: Partial<PresetRecipe> = { preset: { id: 'rise-and-settle' }, spacing: { by: 'gap', gap: '4f' } };
  const ran = applied(start, rise);

  test('takes the new spacing on keys that nobody touched', () => {
    const next = edited(ran, rerun(ran, 'run-1', { spacing: { by: 'gap', gap: '10f' } } as never).edits);
    expect(layerOf(next, 'c').tracks.opacity?.[0].at).toBe(20 * FRAME);
    expect(next).toEqual({ ...applied(start, { ...rise, spacing: { by: 'gap', gap: '10f' } }) });
  });

  test('keeps a value set by hand, lets its time follow, and says so', () => {
    const keys = layerOf(ran, 'c').tracks.opacity as Key[];
    const value = { ...keys[1], value: 0.3 };
    const scene = edited(ran, [
      { type: 'set-track', layer: 'c', channel: 'opacity', keys: [keys[0], value, ...keys.slice(2)] },
    ]);
    const planned = rerun(scene, 'run-1', { spacing: { by: 'gap', gap: '10f' } } as never);
    const after = layerOf(edited(scene, planned.edits), 'c').tracks.opacity as Key[];
    expect(after[1].value).toBe(0.3);
    expect(after[1].at).toBe(keys[1].at + 12 * FRAME);
    expect(planned.findings).toContainEqual({ code: 'kept-by-hand', layers: ['c'], keys: 1 });
    expect(planned.layers.find(({ layer }) => layer === 'c')?.after.tracks.opacity?.[1].value).toBe(0.3);
  });

  test('keeps a key that was added and leaves out one that was taken away', () => {
    const keys = layerOf(ran, 'c').tracks.rotation as Key[];
    const scene = edited(ran, [{ type: 'set-track', layer: 'c', channel: 'rotation', keys: [keys[0], key(180, 77)] }]);
    const after = layerOf(edited(scene, rerun(scene, 'run-1', { seed: 9 }).edits), 'c').tracks.rotation as Key[];
    expect(framesOf(after)).toEqual([...framesOf([keys[0]]), [180, 77]]);
  });

  test('removed, leaves what was set by hand over it, be it the first, the last or one between', () => {
    const others = ['fade-in', 'rise-and-settle', 'pop-in-five-steps'].map((id): Partial<PresetRecipe> => ({
      preset: { id },
      existing: 'add',
    }));
    const all = others.reduce(applied, start);
    for (const [place, run] of all.runs.entries()) {
      const keys = layerOf(all, 'b').tracks.opacity as Key[];
      const hand = edited(all, [
        { type: 'set-track', layer: 'b', channel: 'opacity', keys: [...keys, key(140, 0.125)] },
        { type: 'set-track', layer: 'b', channel: 'skew', keys: [key(100, 7)] },
      ]);
      // Applied on top of it, so that what was done by hand is kept with the runs below.
      const topped = applied(hand, {
        preset: { id: 'fade-in' },
        pick: { by: 'layers', layers: ['a'] },
        existing: 'add',
      });
      const left = layerOf(edited(topped, removeRun(topped, run.id).edits), 'b');
      expect(left.tracks.opacity?.map(({ at, value }) => [at / FRAME, value])).toContainEqual([140, 0.125]);
      expect(framesOf(left.tracks.skew)).toEqual([[100, 7]]);
      expect(place).toBeLessThan(3);
    }
    // Without any other run it belongs to the base, and stays when there is none left.
    const alone = applied(start, { preset: { id: 'fade-in' }, existing: 'replace' });
    const made = layerOf(alone, 'b').tracks.opacity as Key[];
    const over = edited(alone, [
      { type: 'set-track', layer: 'b', channel: 'opacity', keys: [...made, key(140, 0.125)] },
    ]);
    const again = edited(over, rerun(over, 'run-1', { seed: 5 }).edits);
    expect(framesOf(layerOf(edited(again, removeRun(again, 'run-1').edits), 'b').tracks.opacity)).toEqual([
      [140, 0.125],
    ]);
  });

  test('skips a layer that is gone and takes in one that the pick now catches', () => {
    const gone = edited(ran, [
      { type: 'remove-layer', layer: 'b' },
      { type: 'add-layer', index: 2, layer: card('d') },
    ]);
    const next = edited(gone, rerun(gone, 'run-1').edits);
    expect(next.runs[0].layers).toEqual(['a', 'c', 'd']);
    expect(layerOf(next, 'd').tracks.opacity?.[0].at).toBe(8 * FRAME);
  });

  test('leaves the runs above it as they were made, on top of what is new below', () => {
    const two = applied(ran, { operation: 'send-out', preset: { id: 'fade-out' } });
    const next = edited(two, rerun(two, 'run-1', { preset: { id: 'pop-in-five-steps' } } as never).edits);
    expect(next).toEqual({
      ...applied(applied(start, { ...rise, preset: { id: 'pop-in-five-steps' } }), {
        operation: 'send-out',
        preset: { id: 'fade-out' },
      }),
    });
  });

  test('uses the revision that it was applied with where the recipe keeps to it, whatever the library has', () => {
    const planned = replan(
      ran,
      { ...SHELF, preset: () => null },
      'run-1',
      ran.runs[0].recipe as unknown as Recipe,
      CONTEXT,
    );
    expect(planned.edits).toEqual([]);
    const other = planOn(start, { preset: { id: 'rise-and-settle', revision: 99 } });
    expect(codesOf(other)).toEqual(['revision-missing']);
    expect(codesOf(rerun(ran, 'ghost'))).toEqual(['unknown-run']);
  });
});
