import { describe, expect, test } from '@jest/globals';
import { readDrawing } from '.';

function drawing(attributes: string) {
  const read = readDrawing(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}><rect width="9" height="9"/></svg>`);
  if (!read.ok) throw new Error(read.message);
  return read.drawing;
}

describe('the size of a drawing', () => {
  // Source: CSS Images 3, section 4 (sizing by width, height and ratio), and SVG 2, section 7.2 (units).
  test.each<[string, string, number, number]>([
    ['both, in px', 'width="40" height="30"', 40, 30],
    ['other units', 'width="1in" height="2.54cm"', 96, 96],
    ['the width and the ratio of its box', 'width="50" viewBox="0 0 100 40"', 50, 20],
    ['the height and the ratio of its box', 'height="20" viewBox="0 0 100 40"', 50, 20],
    ['the width alone', 'width="50"', 50, 150],
    ['the height alone', 'height="50"', 300, 50],
    ['its box alone', 'viewBox="-5 -5 70,80"', 70, 80],
    ['per cents, which are of nothing here', 'width="100%" height="100%" viewBox="0 0 12 34"', 12, 34],
    ['nothing', '', 300, 150],
    ['a box without a size', 'viewBox="0 0 0 10"', 300, 150],
    ['a box of three numbers', 'viewBox="0 0 10"', 300, 150],
    ['a box of words', 'viewBox="0 0 wide 10"', 300, 150],
    ['no height at all', 'width="40" height="0" viewBox="0 0 20 10"', 40, 20],
    ['less than nothing', 'width="-40" height="10" viewBox="0 0 20 10"', 20, 10],
    ['far too much', 'width="1e9" height="10"', 100_000, 10],
    ['a box that is far too large', 'viewBox="0 0 1e9 1e8"', 100_000, 100_000],
  ])('is said by %s', (_, attributes, width, height) => {
    expect(drawing(attributes)).toMatchObject({ width, height });
  });

  test('and its own space are two things: per cents are of that', () => {
    expect(drawing('width="50" height="20" viewBox="0 0 100 40"').room).toEqual({ width: 100, height: 40 });
    expect(drawing('width="50" height="20"').room).toEqual({ width: 50, height: 20 });
  });
});
