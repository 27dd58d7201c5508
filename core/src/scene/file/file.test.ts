import { describe, expect, test } from '@jest/globals';
import { axesText, axisTagSchema, drawnFamily, fileAddress, ownFamily } from './index';

const FONT = fileAddress(`${'0123456789abcdef'.repeat(4)}.woff2`);

describe('axes of fonts', () => {
  test('are written as CSS has them, in one order, whatever order they are stated in', () => {
    expect(axesText({ wdth: 87.5, slnt: -8 })).toBe('"slnt" -8, "wdth" 87.5');
    expect(axesText({ slnt: -8, wdth: 87.5 })).toBe('"slnt" -8, "wdth" 87.5');
    expect(axesText({})).toBe('');
    expect(axesText(undefined)).toBe('');
  });

  test('give a family of its own to each place on them, which needs no quotes', () => {
    const places: Record<string, number>[] = [{}, { wdth: 80 }, { wdth: -80 }, { wdth: 80.5 }, { slnt: 80 }];
    const families = places.map((axes) => drawnFamily(FONT, axesText(axes)));
    expect(families[0]).toBe(ownFamily(FONT));
    expect(new Set(families).size).toBe(families.length);
    for (const family of families) expect(family).toMatch(/^[A-Za-z0-9._-]+$/);
  });

  test('are named by four letters', () => {
    for (const tag of ['wdth', 'GRAD', 'XTRA', 'a b ']) expect(axisTagSchema.safeParse(tag).success).toBe(true);
    for (const tag of ['', 'wd', 'width', '1dth', 'w"th']) expect(axisTagSchema.safeParse(tag).success).toBe(false);
  });
});
