import { describe, expect, test } from '@jest/globals';
import { arithmetic, enter } from './entry';

const RATE = { num: 25, den: 1 };

function text(typed: string, standing: string): string | null {
  const entered = enter(typed, standing, RATE);
  return entered === null ? null : entered.ok ? entered.text : entered.message;
}

describe('what is typed into a number field', () => {
  test.each([
    ['12', '4f', '12f'],
    ['8f', '4f', null],
    ['1:15', '0:10', '1:15'],
    ['+50', '-100 px', '-50 px'],
    ['-50', '300 px', '250 px'],
    ['=-50', '300 px', '-50 px'],
    ['+8f', '0:10', '0:18'],
    ['-1s', '2:00', '1:00'],
    ['+1s', '4f', '29f'],
    ['×2', '12f', '24f'],
    ['*0.5', '120 %', '60 %'],
    ['÷3', '90deg', '30deg'],
    ['/ 4', '1:00', '6.25f'],
    ['1920/2-40', '0 px', '920 px'],
    ['(3+4)*2', '1f', '14f'],
    ['+2*4', '10 px', '18 px'],
    ['10*3f', '1s', '30f'],
    ['0.5s', '4f', null],
    ['layer.width * 2', '40px', null],
    ['1,5', '4f', 'Write decimals with a point, 1.5, and thousands without a comma.'],
    ['+0,5s', '1:00', 'Write decimals with a point, +0.5s, and thousands without a comma.'],
    ['1,920', '40 px', 'Write decimals with a point, 1.920, and thousands without a comma.'],
    ['max(1,5)', '40px', null],
    ['÷0', '4f', 'Nothing can be divided by 0.'],
    ['+5px', '4f', 'Write an amount in the same unit, such as +8.'],
  ])('%s over %s is %s', (typed, standing, expected) => expect(text(typed, standing)).toBe(expected));

  test('arithmetic keeps to the usual order and refuses everything else', () => {
    expect(arithmetic('2+3*4-6/2')).toBe(11);
    expect(arithmetic('-(2-5)')).toBe(3);
    for (const wrong of ['', '1/0', '2+', '(1', '1 2', 'alert(1)', '1..2']) expect(arithmetic(wrong)).toBeNull();
  });
});
