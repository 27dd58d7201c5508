import { describe, expect, test } from '@jest/globals';
import { createShelf } from '../../library/library';
import { STARTER_LIBRARY, STARTER_PRESETS } from '../../library/starter';
import type { Key } from '../../scene/layer';
import { createLineUp, type PresetRecipe, type Recipe } from '../../scene/recipe';
import { applied, edited, layerOf, SHELF } from '../../testing/planning';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { replan } from '../plan';
import { removeRun, switchRun } from '.';

const FRAME = frameTicks(PAL);
const start = sceneOf([card('a'), card('b'), card('c')]);
const PICK = { by: 'rule', kind: 'card' } as const;

function lineUp(length: string): Partial<Recipe> {
  const way = { by: 'length', length } as const;
  return { operation: 'line-up', pick: PICK, order: { by: 'layered' }, seed: 1, way, parts: 'keep', squeeze: false };
}

const fadeOut: Partial<PresetRecipe> = { operation: 'send-out', preset: { id: 'fade-out' } };
const lastKey = (layer: { tracks: { opacity?: Key[] } }): number | undefined => layer.tracks.opacity?.at(-1)?.at;

describe('a later run', () => {
  test('that sends out follows the out points when the run below moves these', () => {
    const scene = applied(applied(start, lineUp('4s')), fadeOut);
    expect(lastKey(layerOf(scene, 'b'))).toBe(ticksFromSeconds(4));
    const shorter = { ...scene.runs[0].recipe, way: { by: 'length', length: '3s' } } as Recipe;
    const next = edited(scene, replan(scene, SHELF, 'run-1', shorter, CONTEXT).edits);
    expect(lastKey(layerOf(next, 'b'))).toBe(ticksFromSeconds(3));
    expect(next.layers).toEqual(applied(applied(start, lineUp('3s')), fadeOut).layers);
  });

  test('whose preset is not known any more goes along with its layers: an entrance with their beginning, an exit with their end', () => {
    const slid = (at: string): Partial<Recipe> => {
      const way = { by: 'slide', to: { by: 'time', at }, gap: '10f' } as const;
      return { ...createLineUp(PICK), way };
    };
    const change = (recipe: Partial<Recipe>, below: Partial<Recipe>, then: Partial<Recipe>) => {
      const scene = applied(applied(start, below), recipe);
      const [first, { preset: _gone, ...second }] = scene.runs;
      const orphaned = { ...scene, runs: [first, second] };
      const next = { ...first.recipe, ...then } as Recipe;
      const after = edited(orphaned, replan(orphaned, SHELF, 'run-1', next, CONTEXT).edits);
      return [orphaned, after].map(({ layers }) =>
        layers.map(({ tracks }) => (tracks.opacity ?? []).map(({ at }) => at / FRAME)),
      );
    };
    const later = (times: number[][], frames: number) => times.map((keys) => keys.map((at) => at + frames));
    const fadeIn: Partial<Recipe> = { preset: { id: 'fade-in' } };
    const [exits, sooner] = change(fadeOut, lineUp('4s'), lineUp('3s'));
    expect(sooner).toEqual(later(exits, -25));
    const [entrances, same] = change(fadeIn, lineUp('4s'), lineUp('3s'));
    expect(same).toEqual(entrances);
    const [early, moved] = change(fadeIn, slid('1s'), slid('2s'));
    expect(moved).toEqual(later(early, 25));
    // What was to begin at a time of the scene stays there.
    const [fixed, stays] = change(
      { ...fadeIn, start: { by: 'time', at: '1s' } } as Partial<Recipe>,
      slid('1s'),
      slid('2s'),
    );
    expect(stays).toEqual(fixed);
  });

  test('in relay waits for what the run below makes longer', () => {
    const relay: Partial<PresetRecipe> = {
      operation: 'move-throughout',
      preset: { id: 'drift' },
      spacing: { by: 'relay', gap: '0f' },
    };
    const scene = applied(applied(start, lineUp('2s')), relay);
    const longer = { ...scene.runs[0].recipe, way: { by: 'length', length: '3s' } } as Recipe;
    const next = edited(scene, replan(scene, SHELF, 'run-1', longer, CONTEXT).edits);
    expect(next.layers.map(({ tracks }) => tracks)).toEqual(
      applied(applied(start, lineUp('3s')), relay).layers.map(({ tracks }) => tracks),
    );
  });

  test('that clears takes away what the run below makes now', () => {
    const clear: Partial<Recipe> = {
      operation: 'clear',
      pick: PICK,
      order: { by: 'layered' },
      seed: 1,
      channels: ['opacity'],
    };
    const scene = applied(applied(start, { preset: { id: 'rise-and-settle' } }), clear);
    const other = { ...(scene.runs[0].recipe as PresetRecipe), preset: { id: 'fade-in' } };
    const next = edited(scene, replan(scene, SHELF, 'run-1', other, CONTEXT).edits);
    expect(next.layers.map(({ tracks }) => tracks)).toEqual([{}, {}, {}]);
  });

  test('where nothing that it reads has changed keeps its record, to the very object', () => {
    const scene = applied(applied(start, { preset: { id: 'fade-in' } }), {
      operation: 'accent',
      preset: { id: 'nod' },
    });
    const later = { ...(scene.runs[0].recipe as PresetRecipe), spacing: { by: 'gap' as const, gap: '3f' } };
    const { edits } = replan(scene, SHELF, 'run-1', later, CONTEXT);
    expect(edits.filter(({ type }) => type === 'set-run')).toHaveLength(1);
    expect(edited(scene, edits).runs[1]).toBe(scene.runs[1]);
  });

  test('planned anew keeps what was changed since it was made: only what differs is taken', () => {
    const scene = applied(applied(start, lineUp('4s')), { operation: 'move-throughout', preset: { id: 'drift' } });
    const trimmed = edited(scene, [
      { type: 'set-layer', layer: 'a', fields: { span: { in: 0, out: ticksFromSeconds(6) } } },
    ]);
    const off = edited(trimmed, switchRun(trimmed, 'run-1').edits);
    const on = edited(off, switchRun(off, 'run-1').edits);
    expect(on.layers.map(({ tracks, span }) => [tracks, span])).toEqual(
      trimmed.layers.map(({ tracks, span }) => [tracks, span]),
    );
  });
});

describe('a run that is changed with the revision that it used', () => {
  test('uses the house values and curves of then, whatever the library says now', () => {
    const tied = STARTER_PRESETS.find(
      ({ body }) =>
        body.phase === 'entrance' && body.parameters.some(({ house, kind }) => house !== undefined && kind === 'time'),
    );
    const made = applied(start, { preset: { id: tied?.id ?? '' } });
    const [run] = made.runs;
    expect(run.uses?.length).toBeGreaterThan(0);
    const slower = createShelf(
      STARTER_LIBRARY.map((item) => {
        if (item.kind === 'house' && item.body.type === 'duration')
          return { ...item, body: { ...item.body, value: '90f' } };
        return item;
      }),
    );
    const as = run.recipe as PresetRecipe;
    const kept = { ...as, preset: { ...as.preset, revision: run.preset?.revision } };
    expect(replan(made, slower, run.id, kept, CONTEXT).edits).toEqual([]);
    const newest = edited(made, replan(made, slower, run.id, as, CONTEXT).edits);
    const last = Math.max(...Object.values(layerOf(newest, 'a').tracks).map((keys) => keys.at(-1)?.at ?? 0));
    expect(last).toBe(90 * FRAME);
  });
});

test('a run that is removed takes its keys along whatever was added on top of them', () => {
  const base = sceneOf([card('a', { tracks: { rotation: [key(0, 0), key(50, 100)] } })]);
  const one = applied(base, {
    operation: 'accent',
    preset: { id: 'nod' },
    existing: 'add',
    start: { by: 'time', at: '10f' },
  });
  const two = applied(one, {
    operation: 'accent',
    preset: { id: 'shake' },
    existing: 'add',
    start: { by: 'time', at: '12f' },
  });
  const left = edited(two, removeRun(two, 'run-1').edits);
  const alone = applied(base, {
    operation: 'accent',
    preset: { id: 'shake' },
    existing: 'add',
    start: { by: 'time', at: '12f' },
  });
  const shown = (scene: typeof base) =>
    layerOf(scene, 'a').tracks.rotation?.map(({ at, value, ease }) => [at, value, ease]);
  expect(shown(left)).toEqual(shown(alone));
});
