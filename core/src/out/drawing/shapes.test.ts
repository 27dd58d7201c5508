import { describe, expect, test } from '@jest/globals';
import { layersOf, svg } from '../../testing/drawings';

describe('what a drawing shows', () => {
  test('a path that only goes to places shows nothing, and makes no layer (SVG 2, 9.3.3)', () => {
    const names = (d: string) =>
      layersOf(svg(`<path id="p" d="${d}" stroke="#f00" stroke-linecap="round"/><rect id="r" width="9" height="9"/>`))
        .map(({ name }) => name)
        .filter((name) => name === 'p' || name === 'r');
    for (const none of ['M5 5', 'm5,5', 'M5 5M60 60', 'M5 5 m10 10']) expect(names(none)).toEqual(['r']);
    // A line of no length is a dot with round ends, and pairs after the first are lines.
    for (const some of ['M5 5z', 'M5 5l0 0', 'M5 5 60 60']) expect(names(some)).toEqual(['p', 'r']);
  });

  test('a radius in per cent is of the diagonal by the root of two, each other share of its own side (SVG 2, 8.9)', () => {
    const [circle, ellipse] = layersOf(
      svg('<circle cx="50%" cy="50%" r="10%"/><ellipse cx="50%" cy="50%" rx="10%" ry="10%"/>'),
    ).slice(1);
    const diameter = (2 * Math.hypot(200, 100)) / Math.SQRT2 / 10;
    expect(circle.rest).toMatchObject({ 'size.x': expect.closeTo(diameter, 3), 'size.y': expect.closeTo(diameter, 3) });
    expect(ellipse.rest).toMatchObject({ 'size.x': expect.closeTo(40, 3), 'size.y': expect.closeTo(20, 3) });
  });

  test('a rectangle has round corners only where both their radii are more than nothing (SVG 2, 10.2)', () => {
    const d = (more: string) => {
      const { source } = layersOf(svg(`<rect width="40" height="20" transform="skewX(9)" ${more}/>`))[1];
      return source.type === 'path' ? source.d : source.type;
    };
    expect(d('rx="0" ry="5"')).toBe(d(''));
    expect(d('rx="5" ry="0"')).toBe(d(''));
    expect(d('rx="5"')).not.toBe(d(''));
  });

  test('sizes are those of the size around them, and weights heavier or lighter (CSS Fonts 4, 2.2 and 2.5)', () => {
    const words = (more: string): string => `<text y="20" font-family="Spline Sans" ${more}>Tide</text>`;
    const found = (inside: string) =>
      layersOf(svg(inside)).flatMap(({ source }) => (source.type === 'text' ? [source] : []));
    const sizes = `${words('font-size="2em"')}<g font-size="20">${words('')}${words('font-size="2rem"')}
      ${words('font-size="25%"')}<g font-size="150%">${words('font-size="2em"')}</g></g>`;
    expect(found(sizes).map(({ size }) => size)).toEqual([32, 20, 32, 5, 60]);
    const weights = ['300', 'normal', '600', '900'].map((weight) => {
      const both = words('font-weight="bolder"') + words('font-weight="lighter"');
      return found(`<g font-weight="${weight}">${both}</g>`).map(({ weight: own }) => own);
    });
    expect(weights).toEqual([
      [400, 100],
      [700, 100],
      [900, 400],
      [900, 700],
    ]);
  });
});
