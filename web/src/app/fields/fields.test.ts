import { describe, expect, test } from '@jest/globals';
import { NO_LOOKUP, type PresetRecipe } from '@wexikine/core';
import { canScrub, scrubField as scrub } from '../scene/sentence/scrub-field';
import { parameterCheck, timeCheck } from './checks';
import { readLiteral, stepText, writeLiteral } from './literal';

const PAL = { num: 25, den: 1 };

describe('values in fields', () => {
  test.each([
    ['4f', 1, '5f'],
    ['-6deg', 10, '4deg'],
    ['−6deg', -1, '-7deg'],
    ['20%', 1, '21%'],
    ['0.5s', 1, '0.6s'],
    ['250ms', -1, '240ms'],
    ['1:05', 2, '32f'],
    ['0.1s', 2, '0.3s'],
    ['place × 2deg', 5, 'place × 2deg'],
  ])('%s moved by %i steps is %s', (text, steps, result) => {
    expect(stepText(text, steps, PAL)).toBe(result);
  });

  test('stepping stops at the least value', () => {
    expect(stepText('3f', -10, PAL, 0)).toBe('0f');
  });

  test('literals read and write back; formulas are not literals', () => {
    expect(writeLiteral(readLiteral('-0.25s', PAL) ?? { number: 0, unit: '' })).toBe('-0.25s');
    expect(readLiteral('rest + 2', PAL)).toBeNull();
  });

  test('checks refuse with a sentence', () => {
    expect(timeCheck(PAL)('soon')).toContain('This is not a time');
    expect(timeCheck(PAL)('-3f')).toContain('0 or more');
    expect(timeCheck(PAL)('3f')).toBeNull();
    const tilt = { name: 'tilt', label: 'Tilt', kind: 'angle', default: '0deg', note: '' } as const;
    expect(parameterCheck(tilt, NO_LOOKUP)('20px')).toContain('Did you mean 20deg?');
    expect(parameterCheck(tilt, NO_LOOKUP)('share × 20deg')).toBeNull();
    expect(parameterCheck({ ...tilt, kind: 'colour' }, NO_LOOKUP)('reddish')).toContain('is not a colour');
    expect(parameterCheck({ ...tilt, kind: 'colour' }, NO_LOOKUP)('#ff0000')).toBeNull();
  });
});

describe('scrubbing the sentence', () => {
  const recipe = {
    operation: 'bring-in',
    spacing: { by: 'gap', gap: '4f' },
    start: { by: 'layer' },
    length: { by: 'fixed', length: '3f' },
    parameters: { tilt: { by: 'fixed', value: '6deg' }, rise: { by: 'cycle', values: ['1px'] } },
  } as unknown as PresetRecipe;

  const scrubField = (...given: Parameters<typeof scrub>) => scrub(...given) as PresetRecipe;

  test('moves single numbers and nothing else', () => {
    expect(scrubField(recipe, 'spacing', 3, PAL).spacing).toEqual({ by: 'gap', gap: '7f' });
    expect(scrubField(recipe, 'spacing', -9, PAL).spacing).toEqual({ by: 'gap', gap: '0f' });
    expect(scrubField(recipe, 'length', -9, PAL).length).toEqual({ by: 'fixed', length: '1f' });
    expect(scrubField(recipe, 'parameter:tilt', -10, PAL).parameters['tilt']).toEqual({ by: 'fixed', value: '-4deg' });
    expect(['start', 'parameter:rise', 'preset'].map((field) => canScrub(recipe, field as 'start', PAL))).toEqual([
      false,
      false,
      false,
    ]);
    expect(scrubField(recipe, 'start', 3, PAL)).toBe(recipe);
  });
});
