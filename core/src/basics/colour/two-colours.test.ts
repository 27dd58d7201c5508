import { describe, expect, test } from '@jest/globals';
import { drawInMatrix, twoColourMatrix } from './index';

function drawn(pixel: readonly number[], dark: string, light: string, amount = 1): number[] {
  const pixels = Uint8ClampedArray.from(pixel);
  drawInMatrix(pixels, twoColourMatrix(dark, light, amount));
  return [...pixels];
}

describe('two colours', () => {
  test('black is the dark one, white the light one, whichever of their parts is the greater', () => {
    expect(drawn([0, 0, 0, 255], '#102040', '#f0c090')).toEqual([16, 32, 64, 255]);
    expect(drawn([255, 255, 255, 255], '#102040', '#f0c090')).toEqual([240, 192, 144, 255]);
    expect(drawn([255, 255, 255, 255], '#f0c090', '#102040')).toEqual([16, 32, 64, 255]);
  });

  test('greys lie between, and colours count by how bright they are (Filter Effects 1: 0.2126, 0.7152, 0.0722)', () => {
    expect(drawn([51, 51, 51, 255], '#000000', '#ff0000')).toEqual([51, 0, 0, 255]);
    expect(drawn([255, 0, 0, 255], '#000', '#fff')).toEqual([54, 54, 54, 255]);
    expect(drawn([0, 255, 0, 255], '#000', '#fff')).toEqual([182, 182, 182, 255]);
    expect(drawn([0, 0, 255, 255], '#000', '#fff')).toEqual([18, 18, 18, 255]);
  });

  test('opacity stays, what is not there stays nothing, and the amount leads from what it was', () => {
    expect(drawn([0, 0, 0, 90], '#102040', '#fff')).toEqual([16, 32, 64, 90]);
    expect(drawn([7, 8, 9, 0], '#102040', '#fff')).toEqual([7, 8, 9, 0]);
    expect(drawn([100, 150, 200, 255], '#102040', '#fff', 0)).toEqual([100, 150, 200, 255]);
    expect(drawn([0, 0, 0, 255], '#000000', '#ffffff', 0.5)).toEqual([0, 0, 0, 255]);
    expect(drawn([255, 0, 0, 255], '#000', '#fff', 0.5)).toEqual([155, 27, 27, 255]);
  });

  test('a colour that cannot be read counts as black', () => {
    expect(drawn([0, 0, 0, 255], 'nothing', '#fff')).toEqual([0, 0, 0, 255]);
  });
});
