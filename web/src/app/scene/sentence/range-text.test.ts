import { describe, expect, test } from '@jest/globals';
import { rangeText, readRange } from './range-text';

const SHARE = { unit: ' %', factor: 100, least: 0, most: 100 };
const TURN = { unit: '°', factor: 1, least: -360, most: 360 };

describe('numbers of a range', () => {
  test('are written in their unit, and read as they are written', () => {
    expect([rangeText(0.35, SHARE), rangeText(1 / 3, SHARE), rangeText(-12.5, TURN)]).toEqual([
      '35 %',
      '33.33 %',
      '-12.5°',
    ]);
    for (const value of [0, 0.35, 1]) expect(readRange(rangeText(value, SHARE), SHARE)).toEqual({ ok: true, value });
  });

  test('are read with a comma, a long minus, and without their unit', () => {
    expect(readRange('12,5', SHARE)).toEqual({ ok: true, value: 0.125 });
    expect(readRange('−90 °', TURN)).toEqual({ ok: true, value: -90 });
  });

  test.each(['', ' ', '%', 'half', '101', '-1', '1e9', 'NaN'])('%p gets a sentence', (text) => {
    expect(readRange(text, SHARE)).toEqual({ ok: false, problem: 'Write a number from 0 to 100.' });
  });
});
