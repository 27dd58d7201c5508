import '@angular/compiler';
import { describe, expect, test } from '@jest/globals';
import { StageCamera } from './stage-camera';
import { StagePointer } from './stage-pointer';
import type { SharePoint } from './marks';

/** A frame of 1000 by 500 px that fills a preview of half that size, seen from where it stands. */
function stage(point: SharePoint | null = null) {
  const camera = new StageCamera(() => ({ width: 1_000, height: 500 }));
  camera.size.set({ width: 500, height: 250 });
  camera.zoomBy(0.5 / camera.zoom());
  const said: unknown[] = [];
  const pointer = new StagePointer({
    camera,
    point: () => point,
    pointMoved: (at) => void said.push(['point', at.x, at.y]),
    boxed: ({ x, y, toX, toY }) => void said.push(['box', x, y, toX, toY]),
    clicked: ({ offsetX, offsetY }) => void said.push(['click', offsetX, offsetY]),
  });
  const at = (offsetX: number, offsetY: number, shiftKey = false) => ({ offsetX, offsetY, shiftKey }) as PointerEvent;
  const begins = camera.place();
  /** How far the frame has gone since, px. */
  const gone = () => [camera.place().x - begins.x, camera.place().y - begins.y].map((px) => Math.round(px * 1e6) / 1e6);
  return { pointer, at, said, gone };
}

describe('a press on the stage', () => {
  test('is a click where the pointer hardly moves', () => {
    const { pointer, at, said, gone } = stage();
    pointer.press(at(100, 100));
    pointer.move(at(102, 102));
    pointer.release(at(103, 100));
    expect([said, gone()]).toEqual([[['click', 103, 100]], [0, 0]]);
    // Let go of, it does nothing more.
    pointer.move(at(200, 200));
    pointer.release(at(200, 200));
    expect([said.length, gone()]).toEqual([1, [0, 0]]);
  });

  test('moves the view with the pointer, and stays a drag where it comes back', () => {
    const { pointer, at, said, gone } = stage();
    pointer.press(at(100, 100));
    pointer.move(at(140, 90));
    expect(gone()).toEqual([40, -10]);
    pointer.move(at(101, 100));
    expect(gone()).toEqual([1, 0]);
    pointer.release(at(101, 100));
    expect(said).toEqual([]);
  });

  test('draws a box where Shift is held', () => {
    const { pointer, at, said, gone } = stage();
    pointer.press(at(100, 100, true));
    pointer.move(at(40, 160));
    expect(pointer.band()).toEqual({ x: 100, y: 100, toX: 40, toY: 160 });
    pointer.release(at(40, 160));
    expect([said, gone(), pointer.band()]).toEqual([[['box', 100, 100, 40, 160]], [0, 0], null]);
    // Without a move it is a click with Shift.
    pointer.press(at(10, 10, true));
    pointer.release(at(10, 10));
    expect(said[1]).toEqual(['click', 10, 10]);
  });

  test('that is taken away does nothing', () => {
    const { pointer, at, said } = stage();
    pointer.press(at(100, 100, true));
    pointer.move(at(40, 160));
    pointer.cancel();
    pointer.move(at(30, 170));
    pointer.release(at(30, 170));
    expect([said, pointer.band()]).toEqual([[], null]);
  });

  test('that is given up leaves the view, the box and the point of an order as they were', () => {
    const view = stage();
    expect(view.pointer.isDragging()).toBe(false);
    view.pointer.press(view.at(100, 100));
    expect(view.pointer.isDragging()).toBe(false);
    view.pointer.move(view.at(140, 90));
    expect(view.pointer.isDragging()).toBe(true);
    view.pointer.giveUp();
    view.pointer.release(view.at(140, 90));
    expect([view.said, view.gone()]).toEqual([[], [0, 0]]);

    const box = stage();
    box.pointer.press(box.at(100, 100, true));
    box.pointer.move(box.at(40, 160));
    box.pointer.giveUp();
    expect([box.said, box.pointer.band()]).toEqual([[], null]);

    const point = stage({ x: 0.5, y: 0.5 });
    point.pointer.press(point.at(250, 125));
    point.pointer.move(point.at(300, 25));
    point.pointer.giveUp();
    expect(point.said).toEqual([
      ['point', 0.6, 0.1],
      ['point', 0.5, 0.5],
    ]);
  });

  test('takes the point of an order along from fourteen pixels around it', () => {
    const { pointer, at, said, gone } = stage({ x: 0.5, y: 0.5 });
    expect([at(250, 125), at(264, 125), at(250, 111)].map((one) => pointer.isOnPoint(one))).toEqual([true, true, true]);
    expect([at(265, 125), at(240, 114)].map((one) => pointer.isOnPoint(one))).toEqual([false, false]);
    expect(stage().pointer.isOnPoint(at(250, 125))).toBe(false);
    pointer.press(at(251, 126, true));
    pointer.move(at(300, 25));
    expect([said, gone(), pointer.band()]).toEqual([[['point', 0.6, 0.1]], [0, 0], null]);
  });
});
