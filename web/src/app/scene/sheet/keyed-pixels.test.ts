import { describe, expect, it } from '@jest/globals';
import { programmeBoard, type Layer } from '@wexikine/core';
import { keyedPixels } from './keyed-pixels';

const WINDOW = { from: 0, span: 1000 };
const keyed = (...times: number[]): Layer => ({
  ...programmeBoard().layers[0],
  tracks: { opacity: times.map((at) => ({ at, value: 1, ease: { type: 'linear' } })) },
});

describe('pixels in which layers have keys', () => {
  it('are told once for all layers and channels, from the left', () => {
    const also = { ...keyed(500), tracks: { ...keyed(500).tracks, rotation: keyed(0, 500).tracks.opacity } };
    expect(keyedPixels([keyed(500, 1000), also], WINDOW, 100)).toEqual([0, 50, 100]);
  });

  it('are those of the window alone', () => {
    expect(keyedPixels([keyed(-1, 250, 1001)], WINDOW, 100)).toEqual([25]);
    expect(keyedPixels([keyed(250, 500)], { from: 250, span: 250 }, 50)).toEqual([0, 50]);
  });

  it('are none without layers, without keys or without room', () => {
    expect(keyedPixels([], WINDOW, 100)).toEqual([]);
    expect(keyedPixels([keyed()], WINDOW, 100)).toEqual([]);
    expect(keyedPixels([keyed(0)], WINDOW, -3)).toEqual([0]);
  });
});
