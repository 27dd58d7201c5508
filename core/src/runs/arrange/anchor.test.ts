import { describe, expect, test } from '@jest/globals';
import { compileScene, frameAt, matrixAt, restFrame } from '../../scene/sample';
import type { Layer } from '../../scene/layer';
import { card, key } from '../../testing/scenes';
import { ticksFromSeconds } from '../../basics/time';
import { withAnchor } from './anchor';

function cornersAt(layer: Layer, seconds: number): number[] {
  const compiled = compileScene({ layers: [layer] });
  return [...matrixAt(frameAt(compiled, ticksFromSeconds(seconds)), 0)];
}

const still = card('a', {
  rest: { 'position.x': 300, 'position.y': 200, 'size.x': 120, 'size.y': 60, rotation: 30, 'scale.x': 1.5, skew: 10 },
});
const keyed = {
  ...still,
  tracks: { 'position.x': [key(0, 100), key(50, 400)], opacity: [key(0, 0), key(20, 1)] },
} as Layer;
const turning = {
  ...keyed,
  tracks: { ...keyed.tracks, rotation: [key(5, 0), key(60, 180)], 'scale.y': [key(0, 0.2), key(30, 1)] },
} as Layer;

describe('moving the anchor keeps the picture where it is', () => {
  test.each([
    ['at rest', still, 9],
    ['with a keyed position', keyed, 9],
    ['with keyed turning and stretching, within 0.03 px', turning, 1.3],
  ] as const)('%s', (_, layer, digits) => {
    const moved = withAnchor(withAnchor(layer, 'anchor.x', 0), 'anchor.y', 1);
    expect([moved.rest['anchor.x'], moved.rest['anchor.y']]).toEqual([0, 1]);
    for (let seconds = 0; seconds <= 3; seconds += 0.04) {
      cornersAt(moved, seconds).forEach((part, i) => expect(part).toBeCloseTo(cornersAt(layer, seconds)[i], digits));
    }
    const [before, after] = [layer, moved].map((one) => [...matrixAt(restFrame(compileScene({ layers: [one] })), 0)]);
    after.forEach((part, i) => expect(part).toBeCloseTo(before[i], 9));
  });
});
