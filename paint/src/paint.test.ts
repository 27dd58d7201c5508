import { describe, expect, test } from '@jest/globals';
import { programmeBoard, type Layer } from '@wexikine/core';
import { createOutlines } from './outline';
import { trimDash } from './contents';

describe('trimming a stroke', () => {
  test('draws all, nothing, or the part between start and end', () => {
    const unmeasured = {
      get length(): number {
        throw new Error('Measuring takes long, and is for trimming alone.');
      },
    };
    expect(trimDash(unmeasured, 0, 1, 0)).toBe('all');
    expect(trimDash({ length: 100 }, 0.4, 0.4, 0)).toBe('nothing');
    expect(trimDash({ length: 100 }, 0.25, 0.75, 0)).toEqual({ dash: [50, 50], offset: -25 });
    expect(trimDash({ length: 100 }, 0.75, 0.25, 0)).toEqual({ dash: [50, 50], offset: -25 });
    expect(trimDash({ length: 100 }, 0, 0.5, 0.25)).toEqual({ dash: [50, 50], offset: -25 });
  });
});

describe('outlines', () => {
  const base = programmeBoard().layers.find(({ id }) => id === 'moon') as Layer;
  const outlineOf = createOutlines();

  test('have the length that geometry gives them', () => {
    expect(outlineOf({ ...base, source: { type: 'rectangle' } }, 30, 40, 0).length).toBeCloseTo(140, 6);
    expect(outlineOf({ ...base, source: { type: 'rectangle' } }, 30, 40, 5).length).toBeCloseTo(100 + 10 * Math.PI, 2);
    expect(outlineOf({ ...base, source: { type: 'ellipse' } }, 50, 50, 0).length).toBeCloseTo(50 * Math.PI, 2);
    expect(outlineOf({ ...base, source: { type: 'path', d: 'M0 0 L100 100' } }, 30, 40, 0).length).toBeCloseTo(50, 6);
  });

  test('are kept for the next frame', () => {
    expect(outlineOf(base, 80, 80, 0)).toBe(outlineOf(base, 80, 80, 0));
  });
});
