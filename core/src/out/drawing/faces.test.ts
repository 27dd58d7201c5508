import { describe, expect, test } from '@jest/globals';
import { faceFor, facesIn, type EmbeddedFace } from './faces';

const face = (data: string, least: number, most = least, isSlanted = false, family = 'Marsh'): EmbeddedFace => {
  return { family, weights: [least, most], isSlanted, data };
};

const FACES = [
  face('light', 200),
  face('text', 400, 500),
  face('black', 900),
  face('slanted', 600, 600, true),
  face('other', 400, 400, false, 'Reed'),
];

function found(weight: string, slant = 'normal', family = 'Marsh'): string | undefined {
  return faceFor(FACES, family, { 'font-weight': weight, 'font-style': slant } as never)?.data;
}

describe('the face of a drawing for a style', () => {
  test.each([
    ['200', 'light'],
    ['250', 'light'],
    ['350', 'text'],
    ['400', 'text'],
    ['450', 'text'],
    ['650', 'text'],
    ['701', 'black'],
    ['1000', 'black'],
    ['nothing known', 'text'],
  ])('of the weight %s is the nearest: %s', (weight, data) => {
    expect(found(weight)).toBe(data);
  });

  test('is slanted where that is wanted, however far its weight is away, and upright where not', () => {
    expect([found('100', 'italic'), found('900', 'oblique'), found('600')]).toEqual(['slanted', 'slanted', 'text']);
  });

  test('is of its family, whatever its letters’ case; none where there is none', () => {
    expect([found('900', 'normal', 'reed'), found('400', 'normal', 'MARSH'), found('400', 'normal', 'Sedge')]).toEqual([
      'other',
      'text',
      undefined,
    ]);
  });
});

describe('faces that a style sheet carries', () => {
  const rule = (more: string): string =>
    `@font-face { font-family: 'Marsh'; src: url(data:font/woff2;base64,AAAA); ${more} }`;

  // CSS Fonts 4, 4.3: normal is 400, bold is 700, two words are a range; what is no weight is as if it were not said.
  test.each([
    ['', [400, 400]],
    ['font-weight: bold', [700, 700]],
    ['font-weight: 300 bold', [300, 700]],
    ['font-weight: normal 1000', [400, 1000]],
    ['font-weight: 1', [1, 1]],
    ['font-weight: 1001', [400, 400]],
    ['font-weight: 0', [400, 400]],
  ])('of the weight “%s” stand for %j', (more, weights) => {
    expect(facesIn([rule(more)])).toEqual([{ family: 'Marsh', data: 'AAAA', weights, isSlanted: false }]);
  });

  test('without a name, or with a font that would have to be fetched, are none', () => {
    expect(facesIn(['@font-face { src: url(data:font/woff2;base64,AAAA) }'])).toEqual([]);
    expect(facesIn(["@font-face { font-family: 'Marsh'; src: url(marsh.woff2) }"])).toEqual([]);
    expect(facesIn([rule('font-style: italic')])).toMatchObject([{ isSlanted: true }]);
  });
});
