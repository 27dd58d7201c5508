import { describe, expect, test } from '@jest/globals';
import { outlinePath, pictureSize } from '.';

function embedded(kind: string, bytes: readonly number[]): string {
  return `data:image/${kind};base64,${btoa(String.fromCharCode(...bytes))}`;
}

const letters = (text: string): number[] => [...text].map((letter) => letter.charCodeAt(0));

describe('the size of a picture', () => {
  test('PNG says it in its header (ISO/IEC 15948)', () => {
    const header = [0x89, ...letters('PNG\r\n'), 0x1a, 0x0a, 0, 0, 0, 13, ...letters('IHDR')];
    expect(pictureSize(embedded('png', [...header, 0, 0, 2, 128, 0, 0, 1, 104]))).toEqual({ width: 640, height: 360 });
    expect(pictureSize(embedded('png', header))).toBeNull();
  });

  test('JPEG says it in its frame header, behind whatever comes before (ITU-T T.81)', () => {
    const app = [0xff, 0xe0, 0, 4, 1, 2];
    const frame = [0xff, 0xc0, 0, 17, 8, 1, 104, 2, 128, 3, 0, 0];
    expect(pictureSize(embedded('jpeg', [0xff, 0xd8, ...app, ...frame]))).toEqual({ width: 640, height: 360 });
    expect(pictureSize(embedded('jpeg', [0xff, 0xd8, ...app]))).toBeNull();
  });

  test('WebP says it in three ways (WebP container specification)', () => {
    const riff = [...letters('RIFF'), 0, 0, 0, 0, ...letters('WEBP')];
    const lossy = [...letters('VP8 '), 0, 0, 0, 0, 0, 0, 0, 0x9d, 0x01, 0x2a, 0x80, 0x42, 0x68, 0x41];
    expect(pictureSize(embedded('webp', [...riff, ...lossy]))).toEqual({ width: 640, height: 360 });
    // 14 bits of the width less one, then 14 of the height less one.
    const bits = 639 + 359 * 2 ** 14;
    const packed = [0, 8, 16, 24].map((by) => Math.floor(bits / 2 ** by) % 256);
    const lossless = [...letters('VP8L'), 0, 0, 0, 0, 0x2f, ...packed, 0, 0, 0, 0, 0];
    expect(pictureSize(embedded('webp', [...riff, ...lossless]))).toEqual({ width: 640, height: 360 });
    const extended = [...letters('VP8X'), 10, 0, 0, 0, 0, 0, 0, 0, 0x7f, 0x02, 0, 0x67, 0x01, 0];
    expect(pictureSize(embedded('webp', [...riff, ...extended]))).toEqual({ width: 640, height: 360 });
  });

  test('SVG says it by its sides, by one of them and its box, or by the box alone', () => {
    const size = (tag: string) => pictureSize(`data:image/svg+xml,${encodeURIComponent(tag)}`);
    expect(size('<svg width="40" height="30px"/>')).toEqual({ width: 40, height: 30 });
    expect(size('<svg viewBox="0 0 40 30"/>')).toEqual({ width: 40, height: 30 });
    expect(size('<svg width="80" viewBox="0 0 40 30"/>')).toEqual({ width: 80, height: 60 });
    // CSS 2.2, section 10.3.2.
    expect(size('<svg/>')).toEqual({ width: 300, height: 150 });
  });
});

test('an outline has the size asked for, and its corner is never more than half a side', () => {
  const box = { type: 'rectangle' } as Parameters<typeof outlinePath>[0];
  expect(outlinePath(box, 20, 10, 0)).toBe('M0 0 H20 V10 H0 Z');
  expect(outlinePath(box, 20, 10, 99)).toBe(outlinePath(box, 20, 10, 5));
  const path = { type: 'path', d: 'M0 0 L100 100' } as Parameters<typeof outlinePath>[0];
  expect(outlinePath(path, 20, 10, 0)).toBe('M0 0L20 10');
});
