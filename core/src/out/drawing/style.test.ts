import { describe, expect, test } from '@jest/globals';
import { lengthOf, shareOf, STANDARD_STYLE, styleOf, type Style } from './style';
import type { Element } from './xml';

const element = (attributes: Record<string, string>): Element =>
  ({ name: 'text', attributes, children: [] }) as unknown as Element;
const styled = (attributes: Record<string, string>, parent: Style = STANDARD_STYLE): Style =>
  styleOf(element(attributes), parent, []);

describe('lengths', () => {
  // CSS Values 4, 6.2: an inch is 96 px, and 2.54 cm, 101.6 quarter millimetres, 72 points, 6 picas.
  test.each([
    ['12', 12],
    ['-.5px', -0.5],
    ['1in', 96],
    ['2.54cm', 96],
    ['25.4mm', 96],
    ['101.6Q', 96],
    ['72pt', 96],
    ['6pc', 96],
    ['50%', 100],
    ['-12.5%', -25],
    ['2em', 32],
    ['2ex', 16],
    ['1e2', 100],
    [' 1.5E+1px ', 15],
  ])('“%s” of a whole of 200 px is %d px', (text, expected) => expect(lengthOf(text, 200)).toBeCloseTo(expected, 9));

  test.each([undefined, '', 'auto', '5furlongs', '1 2', 'px', '1e999'])('“%s” is none', (text) =>
    expect(lengthOf(text, 200)).toBeNull(),
  );
});

test('shares are numbers or per cents from 0 to 1; what is none is all', () => {
  expect(['0.25', '25%', '-1', '150%', 'much', ''].map(shareOf)).toEqual([0.25, 0.25, 0, 1, 1, 0]);
});

describe('sizes and weights of letters', () => {
  const above = (size: string, weight = '400'): Style => styled({ 'font-size': size, 'font-weight': weight });

  test.each([
    ['2em', '40'],
    ['150%', '30'],
    ['1.5rem', '24'],
    ['12pt', '16'],
    ['7', '7'],
    ['larger', '20'],
  ])('%s within 20 px is %s', (size, expected) =>
    expect(styled({ 'font-size': size }, above('20'))['font-size']).toBe(expected),
  );

  // CSS Fonts 4, 2.2.1.
  test.each([
    [50, 400, 50],
    [100, 400, 100],
    [349, 400, 100],
    [350, 700, 100],
    [549, 700, 100],
    [550, 900, 400],
    [749, 900, 400],
    [750, 900, 700],
    [900, 900, 700],
    [1000, 1000, 700],
  ])('within %d bolder is %d and lighter %d', (weight, bolder, lighter) => {
    const within = (text: string): string =>
      styled({ 'font-weight': text }, above('16', String(weight)))['font-weight'];
    expect([within('bolder'), within('lighter')]).toEqual([String(bolder), String(lighter)]);
    expect([within('normal'), within('bold'), within('650')]).toEqual(['400', '700', '650']);
  });

  test('are handed on where nothing is said, and where that is said', () => {
    const parent = styled({ fill: 'red', opacity: '0.5', 'font-size': '30' });
    for (const [text, fill, opacity] of [
      ['', 'red', '1'],
      ['unset', 'red', '1'],
      ['inherit', 'red', '0.5'],
      ['initial', 'black', '1'],
    ]) {
      const own = styled({ fill: text, opacity: text }, parent);
      expect([own.fill, own.opacity, own['font-size']]).toEqual([fill, opacity, '30']);
    }
    // A style attribute is above an attribute, whatever it calls important.
    expect(styled({ fill: 'blue', style: 'fill: green !important' }, parent).fill).toBe('green');
  });
});
