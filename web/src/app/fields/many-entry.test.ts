import { expect, test } from '@jest/globals';
import { enterMany, stepOfEntry } from './many-entry';

test('one entry for many values sets them, changes each, or multiplies each', () => {
  const on = (text: string): number[] | null => {
    const change = enterMany(text);
    return change && [10, -4].map(change);
  };
  expect(on('12')).toEqual([12, 12]);
  expect(on(' 120 px ')).toEqual([120, 120]);
  expect(on('+8')).toEqual([18, 4]);
  expect(on('−8%')).toEqual([2, -12]);
  expect(on('×1.5')).toEqual([15, -6]);
  expect(on('÷2')).toEqual([5, -2]);
  expect(on('=-20')).toEqual([-20, -20]);
  expect(on('(3+4)*2')).toEqual([14, 14]);
  expect(on('300 px/s')).toEqual([300, 300]);
  for (const wrong of ['', 'wide', '/0', '+', '1e9x', '12 apples']) expect(on(wrong)).toBeNull();
});

test('an entry for many is a step that sets, adds or multiplies', () => {
  const step = (text: string) => stepOfEntry(enterMany(text) ?? ((before) => before));
  expect(['35', '=-20', '0'].map(step)).toEqual([
    ['set', 35],
    ['set', -20],
    ['set', 0],
  ]);
  expect(['+10', '-5'].map(step)).toEqual([
    ['add', 10],
    ['add', -5],
  ]);
  expect(['×2', '÷4'].map(step)).toEqual([
    ['scale', 2],
    ['scale', 0.25],
  ]);
});
