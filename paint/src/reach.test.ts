import { describe, expect, test } from '@jest/globals';
import { compileScene, frameAt, programmeBoard, type Layer } from '@wexikine/core';
import { subjectAt } from './contents';
import { effectsOf } from './effects';
import { patchOf, seenBox, united } from './reach';

const card = programmeBoard().layers.find(({ kind }) => kind === 'card') as Layer;
const bounds = { x: 0, y: 0, width: 200, height: 100 };

function seen(look: Layer['look'], rest: Layer['rest']): ReturnType<typeof seenBox> {
  const layer: Layer = {
    ...card,
    parent: null,
    source: { type: 'rectangle' },
    look: { fill: '#fff', ...look },
    rest: { 'size.x': 100, 'size.y': 50, ...rest },
    tracks: {},
  };
  const compiled = compileScene({ layers: [layer] });
  const subject = subjectAt(frameAt(compiled, layer.span.in), layer, 0);
  return seenBox(subject, effectsOf(subject));
}

describe('where a layer is seen', () => {
  test('is its box, and what its stroke and border add', () => {
    expect(seen({}, {})).toEqual({ left: 0, top: 0, right: 100, bottom: 50 });
    expect(
      seen({ stroke: '#000', border: { colour: '#fff', side: 'outside' } }, { 'stroke.width': 4, 'border.width': 3 }),
    ).toEqual({ left: -5, top: -5, right: 105, bottom: 55 });
  });

  test('goes where its shadow falls, three deviations further, and nowhere else', () => {
    const rest = { 'shadow.x': 20, 'shadow.y': -10, 'shadow.blur': 2, 'shadow.opacity': 1 };
    expect(seen({ shadow: '#000' }, rest)).toEqual({ left: 0, top: -16, right: 126, bottom: 50 });
    expect(seen({ shadow: '#000' }, { ...rest, 'shadow.opacity': 0 })).toEqual({
      left: 0,
      top: 0,
      right: 100,
      bottom: 50,
    });
  });
});

describe('patches of the canvas', () => {
  const box = { left: 0, top: 0, right: 10, bottom: 20 };

  test('hold a box that is turned a quarter, with a pixel to spare, and end with the canvas', () => {
    // Turned by 90°, (x, y) lies at (50 − y, 40 + x).
    expect(patchOf([0, 1, -1, 0, 50, 40], box, bounds)).toEqual({ x: 29, y: 39, width: 22, height: 12 });
    expect(patchOf([1, 0, 0, 1, 195, 90], box, bounds)).toEqual({ x: 194, y: 89, width: 6, height: 11 });
    expect(patchOf([1, 0, 0, 1, 500, 0], box, bounds).width).toBe(0);
  });

  test('are put together, and what is empty adds nothing', () => {
    const [a, b] = [
      { x: 0, y: 0, width: 10, height: 10 },
      { x: 20, y: 5, width: 5, height: 20 },
    ];
    expect(united(a, b)).toEqual({ x: 0, y: 0, width: 25, height: 25 });
    expect(united(a, { x: 90, y: 90, width: 0, height: 4 })).toBe(a);
    expect(united({ x: 0, y: 0, width: 0, height: 0 }, b)).toBe(b);
  });
});
