import { expect, test } from '@jest/globals';
import { createShelf } from '../../library/library';
import { createStep, type AdjustType } from '../../scene/recipe';
import { adjust } from '../../testing/adjusting';
import { card, sceneOf } from '../../testing/scenes';
import { sentenceOf } from '../operations';
import { countingNumbers, keyRuleWords, pivotWords } from './words';

test('which keys are adjusted is said part by part', () => {
  const words = (rule: Partial<Parameters<typeof keyRuleWords>[0]>): string => keyRuleWords({ which: 'all', ...rule });
  expect(words({})).toBe('all keys');
  expect(words({ which: 'inner' })).toBe('the keys in between');
  expect([2, 3, 10, 11].map((nth) => words({ which: 'nth', nth }))).toEqual([
    'the second keys',
    'the third keys',
    'the tenth keys',
    'the keys at place 11',
  ]);
  expect(words({ byHand: true })).toBe('all keys set by hand');
  expect(words({ offGrid: true })).toBe('all keys between frames');
  expect(words({ phases: ['entrance', 'exit'] })).toBe('all keys of each entrance and exit');
  expect(words({ which: 'last', low: -5, high: 20.5 })).toBe('the last keys with values from −5 to 20.5');
  expect(words({ low: -5 })).toBe('all keys with values of −5 or more');
  expect(words({ high: 0 })).toBe('all keys with values of 0 or less');
  expect(words({ from: '1:00', to: '2:12' })).toBe('all keys from 1:00 up to 2:12');
  expect(words({ which: 'last', to: '2:12' })).toBe('the last keys up to 2:12');
  const run = { which: 'first', run: 'r1', moment: 'peak' } as const;
  expect(keyRuleWords(run)).toBe('the first keys that a run made at “peak”');
  expect(keyRuleWords(run, 'Rise', 'Peak')).toBe('the first keys that Rise made at “Peak”');
});

test('the order of the layers is said where anything goes along it', () => {
  const scene = sceneOf([card('a'), card('b')]);
  const said = (type: AdjustType): string => {
    const recipe = { ...adjust(createStep(type, [])), order: { by: 'across' as const } };
    return sentenceOf(recipe, { scene, shelf: createShelf([]), count: 2 });
  };
  for (const type of ['restagger', 'close-gaps'] as const) expect(said(type)).toContain('left to right');
  for (const type of ['shift', 'thin-out'] as const) expect(said(type)).not.toContain('left to right');
});

test('of the strengths of curves only those of the parts that are set are told', () => {
  const step = createStep('strengths', []);
  if (step.type !== 'strengths') throw new Error('another step');
  const told = (parts: typeof step.parts) => countingNumbers({ ...step, parts });
  expect([told('both'), told('departure'), told('arrival')]).toEqual([['leave', 'reach'], ['leave'], ['reach']]);
  expect(countingNumbers(createStep('shift', []))).toEqual(['by']);
});

test.each([
  [{ by: 'first' }, 'about each first key'],
  [{ by: 'last' }, 'about each last key'],
  [{ by: 'middle' }, 'about each middle'],
  [{ by: 'in' }, 'about each in point'],
  [{ by: 'out' }, 'about each out point'],
  [{ by: 'time', at: '1:00' }, 'about 1:00'],
  [{ by: 'cue', cue: 'Chorus' }, 'about the cue “Chorus”'],
] as const)('a pivot %j is said “%s”', (pivot, words) => expect(pivotWords(pivot)).toBe(words));
