import { describe, expect, test } from '@jest/globals';
import type { WayField, WayValue } from './way-fields';
import { beginWay, checkOf, firstTyped, hintOf, nextSeed, textOf, valueOf, withField } from './way-values';

const rate = { num: 25, den: 1 };
const field = (kind: WayField['kind'], more: Partial<WayField> = {}): WayField => ({
  key: 'x',
  label: 'X',
  kind,
  ...more,
});
const value = (x: unknown): WayValue => ({ by: 'own', x });

describe('a field of a way', () => {
  test('shows its value with its unit, to a thousandth', () => {
    expect(textOf(field('percent'), value(0.5))).toBe('50%');
    expect(textOf(field('percent'), value(0.123456))).toBe('12.346%');
    expect(textOf(field('degrees'), value(-45))).toBe('-45deg');
    expect(textOf(field('pixels'), value(24.50001))).toBe('24.5px');
    expect(textOf(field('count'), value(3))).toBe('3');
    expect(textOf(field('time'), value('12f'))).toBe('12f');
    expect(textOf(field('time'), { by: 'own' })).toBe('');
  });

  test('gives back what was typed, or nothing', () => {
    expect(valueOf(field('percent'), ' 50 %')).toBe(0.5);
    expect(valueOf(field('degrees'), '-45deg')).toBe(-45);
    expect(valueOf(field('count', { optional: true }), '  ')).toBeUndefined();
    // A time stays as it is typed, also an empty one, which is refused where it is read.
    expect(valueOf(field('time'), ' 12f ')).toBe('12f');
    expect(valueOf(field('signed-time'), '')).toBe('');
    expect(valueOf(field('path'), ' M0 0 ')).toBe('M0 0');
    for (const [kind, x] of [
      ['percent', 0.25],
      ['pixels', 7.5],
      ['number', 2],
    ] as const)
      expect(valueOf(field(kind), textOf(field(kind), value(x)))).toBe(x);
  });

  test('is left out of the recipe where it has no value', () => {
    expect(withField({ by: 'own', x: 1, y: 2 }, 'x', 5)).toEqual({ by: 'own', x: 5, y: 2 });
    expect(withField({ by: 'own', x: 1, y: 2 }, 'x', undefined)).toStrictEqual({ by: 'own', y: 2 });
    expect(withField({ by: 'own', x: true }, 'x', false)).toEqual({ by: 'own', x: false });
  });

  test('says what is wrong with it', () => {
    const says = (kind: WayField['kind'], text: string, more: Partial<WayField> = {}) =>
      checkOf(field(kind, more), rate)(text);
    expect(says('percent', '-12.5 %')).toBeNull();
    expect(says('percent', 'half')).toBe('Give a percentage such as 50%.');
    expect(says('degrees', '45°')).toBeNull();
    expect(says('degrees', '45px')).toBe('Give an angle such as 45deg.');
    expect(says('pixels', '24px')).toBeNull();
    expect(says('pixels', '')).toBe('Give a length such as 24px.');
    expect(says('pixels', ' ', { optional: true })).toBeNull();
    expect(says('number', '-2')).toBe('Give a number such as 2.');
    expect(says('count', '2.5')).toBe('Give a whole number such as 3.');
    expect(says('count', '3')).toBeNull();
    expect(says('path', 'L0 0')).toBe('Give an SVG path such as M0 0 L400 300.');
    expect(says('path', 'M0 0 L40 30')).toBeNull();
    expect(says('path', 'M0 0 L40')).not.toBeNull();
  });

  test('says its limits, both or the lower one, and takes these themselves', () => {
    const says = (text: string, more: Partial<WayField>) => checkOf(field('number', more), rate)(text);
    expect(says('1', { least: 2 })).toBe('Give 2 or more.');
    expect(says('2', { least: 2 })).toBeNull();
    expect(says('9', { least: 2, most: 8 })).toBe('Give a number from 2 to 8.');
    expect(says('8', { least: 2, most: 8 })).toBeNull();
    expect(checkOf(field('time', { least: 1 }), rate)('0')).toBe('Give at least one frame.');
    expect(checkOf(field('time', { least: 1 }), rate)('1f')).toBeNull();
    expect(checkOf(field('time'), rate)('-1f')).toBe('Give a time of 0 or more.');
    expect(checkOf(field('signed-time'), rate)('-1f')).toBeNull();
  });

  test('says the nearest frame where a time falls between two, and what it means to be empty', () => {
    expect(hintOf(field('time'), '0.1s', rate)).toBe('Nearest frame 3; this is 0.5 f before it.');
    expect(hintOf(field('signed-time'), '10ms', rate)).toBe('Nearest frame 0; this is 0.25 f after it.');
    expect(hintOf(field('time'), '3f', rate)).toBeNull();
    expect(hintOf(field('time'), 'soon', rate)).toBeNull();
    expect(hintOf(field('percent'), '10%', rate)).toBeNull();
    expect(hintOf(field('time', { empty: 'to the end' }), '', rate)).toBe('to the end');
    expect(hintOf(field('time'), '', rate)).toBeNull();
  });
});

describe('another way', () => {
  test('begins with its own values, and keeps what all ways share', () => {
    const begin = { at: '', share: 0.5, on: false };
    const standing: WayValue = { by: 'old', share: 0.9, existing: 'add' };
    const shared = [field('choice', { key: 'existing' }), field('choice', { key: 'not there' })];
    expect(beginWay('new', { begin }, standing, shared, (key) => `${key} of the scene`)).toStrictEqual({
      by: 'new',
      at: 'at of the scene',
      share: 0.5,
      on: false,
      existing: 'add',
    });
  });

  test('has the focus in the first field that is typed into', () => {
    const fields = [field('choice', { key: 'a' }), field('seed', { key: 'b' }), field('pixels', { key: 'c' })];
    expect(firstTyped(fields)).toBe('c');
    expect(firstTyped(fields.slice(0, 2))).toBeUndefined();
  });

  test('rolls seeds from 1 on, and round', () => {
    expect([nextSeed(1), nextSeed(9_999), nextSeed(10_000)]).toEqual([2, 10_000, 1]);
  });
});
