import { describe, expect, test } from '@jest/globals';
import { createRigRecipe, frameTicks, STARTER_RIGS, type RigRecipe, type RunRecord } from '@wexikine/core';
import { dialRow, hasKeyAt, keyed, pasted, reset, rigRuns, turned, unkeyed, withKey, type DialRow } from './dial-rows';

const PAL = { num: 25, den: 1 };
const FRAME = frameTicks(PAL);
const [, pace, calm] = STARTER_RIGS[0].body.dials;
const plain = createRigRecipe('rig-carry-and-settle', { by: 'rule' });
const ALL = { layer: null };

function rowOf(recipe: RigRecipe, layer: string | null = null, time = 0): DialRow {
  return dialRow(calm, recipe, { layer }, time, PAL);
}

describe('a dial', () => {
  test('shows its default, and its range', () => {
    expect(rowOf(plain)).toMatchObject({ value: 3, from: 0, to: 12, text: '3', isDefault: true, isOwn: false });
    expect(dialRow(pace, plain, ALL, 0, PAL)).toMatchObject({
      value: 1.8,
      from: 0.1,
      to: 6,
      step: 0.1,
      words: '1.8 Hz',
    });
  });

  test('is turned for all, or for one layer that can come back', () => {
    const all = turned(plain, rowOf(plain), ALL, '5', 0, PAL);
    expect(all.parameters).toEqual({ calm: { by: 'fixed', value: '5' } });
    const one = turned(all, rowOf(all), { layer: 'a' }, '9', 0, PAL);
    expect(one.overrides).toEqual({ a: { parameters: { calm: '9' } } });
    expect(rowOf(one, 'a')).toMatchObject({ value: 9, isOwn: true, how: 'its own' });
    expect(rowOf(one, 'b')).toMatchObject({ value: 5, isOwn: false });
    expect(reset(one, 'calm', { layer: 'a' })).toEqual(all);
    expect(reset(all, 'calm', ALL)).toEqual({ ...plain, parameters: {} });
  });

  test('is keyed at the playhead, turned there, and loses its keys one by one', () => {
    const first = keyed(plain, rowOf(plain), 10 * FRAME + 5, PAL);
    expect(hasKeyAt(first, 'calm', 10 * FRAME, PAL)).toBe(true);
    expect(hasKeyAt(first, 'calm', 11 * FRAME, PAL)).toBe(false);
    const second = turned(first, rowOf(first, null, 20 * FRAME), ALL, '7', 20 * FRAME, PAL);
    const setting = second.parameters.calm;
    expect(setting.by === 'keys' && setting.keys.map(({ at, value }) => [at / FRAME, value])).toEqual([
      [10, 3],
      [20, 7],
    ]);
    expect(rowOf(second)).toMatchObject({ isKeyed: true, how: 'keyed, 2 keys', value: 3 });
    const row = rowOf(second, null, 20 * FRAME);
    expect(row.value).toBe(7);
    const less = unkeyed(second, row, 20 * FRAME, PAL);
    const none = unkeyed(less, rowOf(less, null, 10 * FRAME), 10 * FRAME, PAL);
    expect(none.parameters.calm).toEqual({ by: 'fixed', value: '3' });
    expect(unkeyed(plain, rowOf(plain), 0, PAL)).toBe(plain);
  });

  test('says how it differs from layer to layer', () => {
    const ramp: RigRecipe = { ...plain, parameters: { calm: { by: 'ramp', from: '3', to: '6' } } };
    expect(rowOf(ramp)).toMatchObject({ how: 'along the order', words: '3 to 6 along the order' });
    const turns: RigRecipe = { ...plain, parameters: { calm: { by: 'cycle', values: ['1', '2'] } } };
    expect(rowOf(turns).how).toBe('by turns');
    const data: RigRecipe = { ...plain, parameters: { calm: { by: 'data', column: 'Calm' } } };
    expect(rowOf(data).how).toBe('from “Calm”');
  });
});

test('a key takes the place of one at the same time and keeps its easing', () => {
  const ease = { type: 'hold' } as const;
  expect(withKey([{ at: 5, value: 1, ease }], 5, 2)).toEqual([{ at: 5, value: 2, ease }]);
  expect(withKey([{ at: 5, value: 1, ease }], 3, 2).map(({ at }) => at)).toEqual([3, 5]);
});

test('pasted dials are those that this rig has', () => {
  const from = { calm: { by: 'fixed' as const, value: '8' }, other: { by: 'fixed' as const, value: '1' } };
  expect(pasted(plain, [calm], from).parameters).toEqual({ calm: { by: 'fixed', value: '8' } });
});

test('rigs on a layer come before others, and runs of presets are no rigs', () => {
  const run = (id: string, layers: string[], isRig = true): RunRecord =>
    ({
      id,
      layers,
      recipe: isRig ? plain : { operation: 'clear' },
      rig: isRig ? {} : undefined,
    }) as unknown as RunRecord;
  const runs = [run('one', ['a']), run('none', ['b'], false), run('two', ['b'])];
  expect(rigRuns(runs, 'b').map(({ id }) => id)).toEqual(['two', 'one']);
  expect(rigRuns(runs, null).map(({ id }) => id)).toEqual(['one', 'two']);
});
