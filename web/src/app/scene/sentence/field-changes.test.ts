import { describe, expect, test } from '@jest/globals';
import {
  apply,
  createKeysRecipe,
  createRecipe,
  createShelf,
  plan,
  programmeBoard,
  STARTER_LIBRARY,
  STARTER_PRESETS,
} from '@wexikine/core';
import { channelsForKeys, withChannelFlipped, withoutParameter, withParameter, withTiming } from './field-changes';

const ROWS = { by: 'rule', tag: 'row' } as const;
const recipe = createRecipe('bring-in', 'rise-and-settle', ROWS);
const thinning = createKeysRecipe('thin-out', ROWS);
const turning = createKeysRecipe('turn-into-keys', ROWS);
const parameter = STARTER_PRESETS.flatMap(({ body }) => body.parameters).find(({ name }) => name === 'tilt');

describe('timing fields', () => {
  test('follow from the finish one at a time; the one before falls back to a given value', () => {
    const byGap = withTiming({ ...recipe, finish: '2s' } as typeof recipe, 'spacing', { by: 'finish' });
    expect(byGap.spacing).toEqual({ by: 'finish' });
    const byStart = withTiming(byGap, 'start', { by: 'finish' });
    expect([byStart.start, byStart.spacing]).toEqual([{ by: 'finish' }, { by: 'gap', gap: '4f' }]);
    const byLength = withTiming(byStart, 'length', { by: 'finish' });
    expect([byLength.start, byLength.length]).toEqual([{ by: 'layer' }, { by: 'finish' }]);
  });

  test('leave the others alone where they are given', () => {
    const own = { ...recipe, length: { by: 'fixed', length: '12f' } } as typeof recipe;
    expect(withTiming(own, 'spacing', { by: 'total', total: '2s' })).toEqual({
      ...own,
      spacing: { by: 'total', total: '2s' },
    });
  });
});

describe('channels that keys are written for', () => {
  const board = programmeBoard();
  const shelf = createShelf(STARTER_LIBRARY);
  const planned = plan(board, shelf, recipe, { runId: 'run', by: 'Test', when: '2026-01-01T00:00:00.000Z' });
  const applied = apply(board, planned.edits);
  const keyed = applied.ok ? applied.scene : board;

  test('are those with keys when they are thinned out, and those of rigs when rigs become keys', () => {
    expect(channelsForKeys(keyed, thinning)).toEqual(expect.arrayContaining(['position.y', 'rotation', 'opacity']));
    expect(channelsForKeys(keyed, turning)).toEqual([]);
    const rig = { ...keyed.runs[0], rig: { channels: ['scale.x'] } } as unknown as (typeof keyed.runs)[0];
    expect(channelsForKeys({ layers: [], runs: [rig] }, turning)).toEqual(['scale.x']);
    expect(channelsForKeys({ layers: [], runs: [rig] }, thinning)).toEqual([]);
  });

  test('are all until one is left out, all again when it is put back, and never none', () => {
    const all = ['position.y', 'opacity'] as const;
    const without = withChannelFlipped(thinning, all, 'opacity');
    expect(without).toEqual({ ...thinning, channels: ['position.y'] });
    expect(without && withChannelFlipped(without, all, 'opacity')).toEqual(thinning);
    expect(without && withChannelFlipped(without, all, 'position.y')).toBeNull();
  });
});

describe('parameters of a run', () => {
  test('are set to what they usually are, and left to the preset again', () => {
    if (!parameter) throw new Error('The starter library has no tilt.');
    const set = withParameter(recipe, parameter);
    expect(set).toMatchObject({ parameters: { tilt: { by: 'fixed', value: parameter.default } } });
    expect(withoutParameter(set, 'tilt')).toMatchObject({ parameters: {} });
    expect(withoutParameter(recipe, 'unknown')).toEqual(recipe);
  });
});
