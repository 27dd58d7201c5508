import { describe, expect, test } from '@jest/globals';
import { StageCamera } from './stage-camera';

const FRAME = { width: 1_920, height: 1_080 };

function camera(): StageCamera {
  const made = new StageCamera(() => FRAME);
  made.size.set({ width: 992, height: 572 });
  return made;
}

describe('where a scene lies in the preview', () => {
  test('at first the whole frame is in the middle, with 16 px around it', () => {
    const { zoom, place } = camera();
    expect(zoom()).toBe(0.5);
    expect(place()).toEqual({ zoom: 0.5, x: 16, y: 16 });
  });

  test('a pixel and a share of the frame lead to each other, however it is zoomed and moved', () => {
    const own = camera();
    own.zoomBy(3.7, { x: 100, y: 40 });
    own.moveFrom(own.held(), 31, -17);
    const at = own.pixelOf({ x: 0.25, y: 0.75 });
    expect(own.shareAt(at)).toEqual({ x: 0.25, y: 0.75 });
    const { x, y } = own.sceneAt(at);
    expect([x, y]).toEqual([expect.closeTo(480, 6), expect.closeTo(810, 6)]);
  });

  test('zooming keeps what is under the pointer; without one, the middle', () => {
    const own = camera();
    const before = own.sceneAt({ x: 700, y: 90 });
    own.zoomBy(2, { x: 700, y: 90 });
    expect(own.sceneAt({ x: 700, y: 90 })).toEqual({ x: expect.closeTo(before.x, 6), y: expect.closeTo(before.y, 6) });
    own.fit();
    own.zoomBy(2);
    expect(own.sceneAt({ x: 496, y: 286 })).toEqual({ x: expect.closeTo(960, 6), y: expect.closeTo(540, 6) });
  });

  test('what is zoomed to is in the middle; nothing, or what has no size, is the whole frame', () => {
    const own = camera();
    own.zoomTo({ left: 100, right: 300, top: 200, bottom: 300 });
    expect(own.sceneAt({ x: 496, y: 286 })).toEqual({ x: expect.closeTo(200, 6), y: expect.closeTo(250, 6) });
    expect(own.zoom()).toBeGreaterThan(3);
    own.zoomTo({ left: 5, right: 5, top: 0, bottom: 9 });
    expect(own.zoom()).toBe(0.5);
    own.zoomTo(null);
    expect(own.zoom()).toBe(0.5);
  });

  test('a point is never more than ten frames away', () => {
    expect(camera().shareAt({ x: 1e7, y: -1e7 })).toEqual({ x: 10, y: -10 });
  });
});
