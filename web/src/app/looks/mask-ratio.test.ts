import { describe, expect, test } from '@jest/globals';
import { programmeBoard, type Layer, type Mask } from '@wexikine/core';
import { ownRatio, scaledSide, withRatio } from './mask-ratio';

const mask: Mask = { shape: 'rectangle', how: 'add', x: 0.5, y: 0.5, width: 0.5, height: 0.25, turn: 0, soft: 0 };
const layer: Layer = { ...programmeBoard().layers[0], rest: { 'size.x': 400, 'size.y': 200 } };
const picture: Layer['source'] = { type: 'picture', href: 'data:image/png;base64,', width: 300, height: 200 };

describe('the ratio of a mask', () => {
  test('is its own picture’s, or that of what the layer shows', () => {
    expect(ownRatio({ source: picture }, null)).toBe(1.5);
    expect(ownRatio({ source: picture }, { width: 100, height: 400 })).toBe(0.25);
    expect(ownRatio({ source: { type: 'rectangle' } }, null)).toBeNull();
  });

  test('is reached by its height, in px of the layer, and never by more than a mask can be', () => {
    // 0.5 of 400 px is 200 px wide; 1 to 1 is 200 px high, which is all of the layer's height.
    expect(withRatio(mask, layer, 1)).toMatchObject({ width: 0.5, height: 1 });
    const thin = withRatio(mask, layer, 0.01);
    expect(thin.height).toBe(20);
    expect((thin.width * 400) / (thin.height * 200)).toBeCloseTo(0.01, 9);
    expect(withRatio({ ...mask, width: 0 }, layer, 1)).toMatchObject({ width: 0, height: 0.25 });
  });

  test('stays when one side is set, where that has a length', () => {
    expect(scaledSide(mask, 'width', 1)).toMatchObject({ width: 1, height: 0.5 });
    expect(scaledSide(mask, 'height', 1)).toMatchObject({ width: 2, height: 1 });
    expect(scaledSide({ ...mask, width: 0 }, 'width', 1)).toMatchObject({ width: 1, height: 0.25 });
  });
});
