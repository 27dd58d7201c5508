import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FIT, fittingZoom, zoomedAbout, zoomedTo, type Camera } from './camera';

const frame = { width: 1920, height: 1080 };
const size = { width: 540, height: 320 };

/** Where a place of the scene is seen, in CSS pixels of the preview. */
function seen({ panX, panY }: Camera, zoom: number, x: number, y: number): [number, number] {
  return [
    (size.width - frame.width * zoom) / 2 + panX + x * zoom,
    (size.height - frame.height * zoom) / 2 + panY + y * zoom,
  ];
}

describe('the camera of the preview', () => {
  test('fits a frame with room around it, however small the preview', () => {
    const zoom = fittingZoom(size, frame);
    const [left, top] = seen(FIT, zoom, 0, 0);
    expect(Math.min(left, top)).toBeCloseTo(16, 9);
    expect(fittingZoom({ width: 10, height: 10 }, frame)).toBeGreaterThan(0);
  });

  test('zooms about a place, which stays where it is', () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 540 }), y: fc.integer({ min: 0, max: 320 }) });
    fc.assert(
      fc.property(place, fc.double({ min: 0.3, max: 3, noNaN: true }), (at, factor) => {
        const before = fittingZoom(size, frame);
        const [left, top] = seen(FIT, before, 0, 0);
        const scene = [(at.x - left) / before, (at.y - top) / before] as const;
        const camera = zoomedAbout(FIT, before, factor, at, size);
        const [x, y] = seen(camera, camera.zoom ?? 0, ...scene);
        expect(x).toBeCloseTo(at.x, 6);
        expect(y).toBeCloseTo(at.y, 6);
      }),
    );
  });

  test('stays within its limits', () => {
    expect(zoomedAbout(FIT, 10, 100, { x: 0, y: 0 }, size).zoom).toBe(16);
    expect(zoomedAbout(FIT, 0.1, 1e-6, { x: 0, y: 0 }, size).zoom).toBe(0.02);
  });

  test('brings a box to the middle, as large as it fits with some room', () => {
    const box = { left: 200, right: 500, top: 700, bottom: 800 };
    const camera = zoomedTo(box, size, frame);
    if (!camera?.zoom) throw new Error('no camera');
    const [left, top] = seen(camera, camera.zoom, box.left, box.top);
    const [right, bottom] = seen(camera, camera.zoom, box.right, box.bottom);
    expect((left + right) / 2).toBeCloseTo(size.width / 2, 9);
    expect((top + bottom) / 2).toBeCloseTo(size.height / 2, 9);
    expect((right - left) / size.width).toBeCloseTo(0.7, 9);
    expect(zoomedTo({ ...box, right: 200 }, size, frame)).toBeNull();
  });
});
