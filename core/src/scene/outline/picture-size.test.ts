import { describe, expect, test } from '@jest/globals';
import { pictureSize } from '.';

function address(kind: string, bytes: readonly number[]): string {
  return `data:image/${kind};base64,${Buffer.from(bytes).toString('base64')}`;
}

const two = (value: number): number[] => [value >> 8, value & 255];
const four = (value: number): number[] => [...two(value >>> 16), ...two(value & 65_535)];
const text = (letters: string): number[] => [...letters].map((letter) => letter.charCodeAt(0));

/** Source: PNG (ISO/IEC 15948), 5.2 and 11.2.2: the signature, then IHDR with width and height. */
function png(width: number, height: number): number[] {
  return [
    0x89,
    ...text('PNG\r\n'),
    0x1a,
    0x0a,
    ...four(13),
    ...text('IHDR'),
    ...four(width),
    ...four(height),
    8,
    6,
    0,
    0,
    0,
  ];
}

/** Source: JPEG (ITU-T T.81), annex B: a start, an application's segment, tables, and a frame header with height and width. */
function jpeg(width: number, height: number, marker = 0xc0, before: readonly number[] = []): number[] {
  const segment = (code: number, inside: readonly number[]): number[] => [
    0xff,
    code,
    ...two(inside.length + 2),
    ...inside,
  ];
  const frame = [8, ...two(height), ...two(width), 3, 1, 0x11, 0];
  return [
    0xff,
    0xd8,
    ...segment(0xe0, text('JFIF')),
    ...segment(0xc4, [1, 2, 3]),
    ...before,
    ...segment(marker, frame),
    0,
    0,
  ];
}

const notes = [0xff, 0xe1, 0xff, 0xff, ...Array<number>(65_533).fill(0)];

/** Source: the WebP container specification: RIFF, its size, WEBP, and the first chunk. */
function webp(kind: 'VP8 ' | 'VP8L' | 'VP8X' | 'ALPH', inside: readonly number[]): number[] {
  return [...text('RIFF'), 0, 0, 0, 0, ...text('WEBP'), ...text(kind), 0, 0, 0, 0, ...inside];
}

const lossless = (width: number, height: number): number[] => {
  const bits = (width - 1) | ((height - 1) << 14);
  return [0x2f, bits & 255, (bits >> 8) & 255, (bits >> 16) & 255, (bits >>> 24) & 255];
};

describe('the size of a picture in a data: address', () => {
  test.each<[string, string, number, number]>([
    ['PNG', address('png', png(70_000, 300)), 70_000, 300],
    ['JPEG', address('jpeg', jpeg(1_920, 1_080)), 1_920, 1_080],
    ['JPEG with bytes that fill up before a marker', address('jpeg', jpeg(30, 20, 0xc0, [0xff, 0xff])), 30, 20],
    // Five segments of notes, as cameras write them, each as long as one can be.
    ['JPEG with much before its frame', address('jpeg', jpeg(30, 20, 0xc0, Array(5).fill(notes).flat())), 30, 20],
    ['JPEG that shows bit by bit', address('jpeg', jpeg(640, 480, 0xc2)), 640, 480],
    ['WebP with losses', address('webp', webp('VP8 ', [0, 0, 0, 0x9d, 1, 0x2a, 0x80, 0x42, 0x68, 1])), 640, 360],
    ['WebP without losses', address('webp', webp('VP8L', lossless(16_000, 9_001))), 16_000, 9_001],
    ['extended WebP', address('webp', webp('VP8X', [0, 0, 0, 0, 0xff, 0xff, 1, 0xe7, 3, 0])), 131_072, 1_000],
  ])('is read from the head of a %s', (_, href, width, height) => {
    expect(pictureSize(href)).toEqual({ width, height });
  });

  test.each([
    ['cut off', address('png', png(9, 9).slice(0, 18))],
    ['of no width', address('png', png(0, 9))],
    ['of no height', address('png', png(9, 0))],
    ['a JPEG without a frame', address('jpeg', [0xff, 0xd8, 0xff, 0xe0, 0, 4, 1, 2])],
    ['a JPEG with something between', address('jpeg', [0xff, 0xd8, 0x11, ...jpeg(9, 9)])],
    [
      'a JPEG with tables alone',
      address('jpeg', [0xff, 0xd8, 0xff, 0xc4, 0, 4, 1, 2, 0xff, 0xcc, 0, 4, 1, 2, 0xff, 0xc8, 0, 4, 1, 2, 0, 0]),
    ],
    ['a WebP of another kind', address('webp', webp('ALPH', [0, 0, 0, 0, 0, 0, 0, 0, 0, 0]))],
    ['of a kind that is not drawn', address('gif', png(9, 9))],
    ['no base64', 'data:image/png;base64,***'],
    ['an address elsewhere', 'files/abc.png'],
  ])('is not known of what is %s', (_, href) => {
    expect(pictureSize(href)).toBeNull();
  });

  // Source: CSS 2.2, section 10.3.2: 300 × 150 where nothing is said; a stated side and the ratio give the other.
  test.each<[string, number, number]>([
    ['width="40" height="30px"', 40, 30],
    ["width='40' viewBox='0 0 20 10'", 40, 20],
    ['height="40" viewBox="0,0,20,10"', 80, 40],
    ['viewBox="-5 -5 20.5 10"', 20.5, 10],
    ['width="100%" height="100%" viewBox="0 0 20 10"', 20, 10],
    ['width="0" height="5" viewBox="0 0 20 10"', 10, 5],
    ['data-width="9" data-height="9"', 300, 150],
    ['', 300, 150],
  ])('is what a drawing says: %s', (attributes, width, height) => {
    const svg = `<?xml version="1.0"?><svg ${attributes}><rect width="1" height="2"/></svg>`;
    for (const href of [
      `data:image/svg+xml,${encodeURIComponent(svg)}`,
      `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`,
      `data:image/svg+xml;base64,${Buffer.from(svg).toString('base64')}`,
    ])
      expect(pictureSize(href)).toEqual({ width, height });
  });

  test('of a drawing whose address is not written right is not known', () => {
    expect(pictureSize('data:image/svg+xml,%zz')).toBeNull();
  });
});
