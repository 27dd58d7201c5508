import { describe, expect, test } from '@jest/globals';
import { contrastPairs, paletteColours, paletteSchema, rampOf } from '.';

const colours = [
  { name: 'black', colour: '#000000' },
  { name: 'white', colour: '#ffffff' },
  { name: 'grey', colour: '#767676' },
];
const palette = { colours, ramps: [{ name: 'light', through: ['black', 'white'], steps: 3 }] };

describe('palettes', () => {
  test('give their colours, and ramps from end to end', () => {
    expect(paletteColours(palette)).toEqual(['#000000', '#ffffff', '#767676']);
    const ramp = paletteColours(palette, 'light');
    expect([ramp[0], ramp[2]]).toEqual(['#000000', '#ffffff']);
    // Half way in lightness of OKLab. Source: CSS Color 4, sample conversion: oklab(50% 0 0) is #636363.
    expect(ramp[1]).toBe('#636363');
    expect(rampOf(palette, 'other')).toEqual([]);
  });

  test('tell the contrast of each pair, the lowest first', () => {
    const pairs = contrastPairs(palette);
    expect(pairs).toHaveLength(3);
    // #767676 on white is the lightest grey of 4.5 to 1. Source: WCAG 2.2, understanding 1.4.3.
    expect(pairs.find(({ a, b }) => a === 'white' && b === 'grey')?.ratio).toBeCloseTo(4.54, 2);
    expect(pairs[2]).toEqual({ a: 'black', b: 'white', ratio: 21 });
  });

  test('refuse names twice, ramps through what is not there, and what is no colour', () => {
    const problem = (value: unknown): string => paletteSchema.safeParse(value).error?.issues[0].message ?? '';
    expect(problem({ colours: [colours[0], colours[0]] })).toBe('Two colours have the same name.');
    expect(problem({ colours, ramps: [{ name: 'x', through: ['black', 'blue'], steps: 3 }] })).toMatch(/does not have/);
    expect(problem({ colours: [{ name: 'x', colour: 'nonsense' }] })).toMatch(/not a CSS colour/);
    expect(problem({ colours: [] })).toBe('A palette has at least one colour.');
    expect(problem(palette)).toBe('');
  });
});
