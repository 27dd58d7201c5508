import { describe, expect, test } from '@jest/globals';
import { contrastRatio, oklabFromCss, rampColour, steppedColour } from '.';

const lightness = (text: string): number => oklabFromCss(text)?.l ?? NaN;
const NO_STEP = { lightness: 0, chroma: 0, hue: 0 };

describe('steps of colours', () => {
  test('a step darker is so much darker in OKLab, and keeps its hue', () => {
    const before = '#58a07c';
    const after = steppedColour(before, { ...NO_STEP, lightness: -0.06 }, 2);
    expect(lightness(after)).toBeCloseTo(lightness(before) - 0.12, 2);
    const hue = (text: string): number => Math.atan2(oklabFromCss(text)?.b ?? 0, oklabFromCss(text)?.a ?? 0);
    expect(hue(after)).toBeCloseTo(hue(before), 1);
    expect(steppedColour(before, { ...NO_STEP, lightness: -1 }, 5)).toBe('#000000');
    expect(steppedColour('nonsense', { ...NO_STEP, lightness: 1 }, 1)).toBe('nonsense');
    expect(steppedColour('#11223380', NO_STEP, 3)).toBe('#11223380');
  });

  test('a whole turn of the hue comes back', () => {
    expect(steppedColour('#58a07c', { ...NO_STEP, hue: 90 }, 4)).toBe('#58a07c');
  });

  test('a ramp begins and ends with its colours, evenly in lightness between', () => {
    const ramp = [0, 0.25, 0.5, 0.75, 1].map((share) => rampColour(['#10204a', '#f3c98b'], share));
    expect([ramp[0], ramp[4]]).toEqual(['#10204a', '#f3c98b']);
    const steps = ramp.slice(1).map((colour, i) => lightness(colour) - lightness(ramp[i]));
    for (const step of steps) expect(step).toBeCloseTo(steps[0], 2);
    expect(rampColour(['#ff0000', '#00ff00', '#0000ff'], 0.5)).toBe('#00ff00');
    expect(rampColour([], 0.5)).toBe('#000000');
    expect(rampColour(['#123456'], 0.9)).toBe('#123456');
  });

  test('a ramp to white keeps the hue', () => {
    const middle = oklabFromCss(rampColour(['#b03060', '#ffffff'], 0.5));
    const start = oklabFromCss('#b03060');
    expect(Math.atan2(middle?.b ?? 0, middle?.a ?? 0)).toBeCloseTo(Math.atan2(start?.b ?? 0, start?.a ?? 0), 1);
  });
});

// Worked examples of W3C's techniques for WCAG (G18): black on white 21, #777777 on white 4.48, #0000ff on white 8.59.
test.each([
  ['#000000', '#ffffff', 21],
  ['#777777', '#ffffff', 4.48],
  ['#0000ff', '#ffffff', 8.59],
  ['#abcdef', '#abcdef', 1],
])('the contrast of %s and %s is %d', (a, b, ratio) => {
  expect(contrastRatio(a, b)).toBeCloseTo(ratio, 2);
  expect(contrastRatio(b, a)).toBe(contrastRatio(a, b));
});
