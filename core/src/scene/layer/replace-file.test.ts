import { describe, expect, test } from '@jest/globals';
import { card } from '../../testing/scenes';
import { inPlaceOf, layerSchema, withFileReplaced, type FileInPlace, type Layer, type Mask } from '.';

const name = (digit: string, ending: string): string => `files/${digit.repeat(64)}.${ending}`;
const [OLD, NEW, CLIP, FONT] = [name('a', 'png'), name('b', 'webp'), name('c', 'webm'), name('d', 'woff2')];
const picture: FileInPlace = { kind: 'shown', source: { type: 'picture', href: NEW, width: 40, height: 30 } };
const moving = { type: 'clip', href: CLIP, width: 8, height: 6, from: 0, length: 1_000, pace: 1 } as const;
const font: FileInPlace = { kind: 'font', font: 'Reed', fontFile: name('e', 'ttf') };

const shows = (href: string): Layer =>
  card('a', { kind: 'picture', source: { type: 'picture', href, width: 4, height: 3 } });
const mask: Mask = { shape: 'picture', how: 'add', x: 0.5, y: 0.5, width: 1, height: 1, turn: 0, soft: 0 };
const masked = card('m', { look: { masks: [{ ...mask, picture: { href: OLD, by: 'brightness' } }] } });
const words = card('w', {
  kind: 'word',
  source: {
    type: 'text',
    text: 'Tide',
    font: 'Heron',
    fontFile: FONT,
    axes: { wdth: 80 },
    weight: 600,
    size: 40,
    align: 'left',
  },
});

const inWords = card('m', {
  look: {
    masks: [{ ...mask, shape: 'words', words: { text: 'Tide', font: 'Heron', fontFile: FONT, weight: 400 } }],
  },
});

describe('another file in the place of one', () => {
  test('is shown by layers that showed the one before, and by no others', () => {
    expect(withFileReplaced(shows(OLD), OLD, picture)).toEqual({ source: picture.source });
    expect(withFileReplaced(shows(NEW), OLD, picture)).toBeNull();
    expect(withFileReplaced(card('c'), OLD, picture)).toBeNull();
  });

  test('masks by its picture go along; a clip is no mask', () => {
    const fields = withFileReplaced(masked, OLD, picture);
    expect(fields?.look?.masks).toEqual([{ ...mask, picture: { href: NEW, by: 'brightness' } }]);
    expect(withFileReplaced(masked, OLD, { kind: 'shown', source: moving })).toBeNull();
  });

  test('words and masks of words are set in another font, as it stands by itself', () => {
    const fields = withFileReplaced(words, FONT, font);
    expect(fields?.source).toEqual({
      type: 'text',
      text: 'Tide',
      font: 'Reed',
      fontFile: name('e', 'ttf'),
      weight: 600,
      size: 40,
      align: 'left',
    });
    expect(withFileReplaced(inWords, FONT, font)?.look?.masks?.[0].words).toEqual({
      text: 'Tide',
      font: 'Reed',
      fontFile: name('e', 'ttf'),
      weight: 400,
    });
  });

  test('a font takes no picture’s place, and a picture no font’s', () => {
    expect(withFileReplaced(shows(OLD), OLD, font)).toBeNull();
    expect(withFileReplaced(words, FONT, picture)).toBeNull();
    // What is set in another font, or is no words, stays.
    const other = name('d', 'ttf');
    expect([words, inWords, masked].map((layer) => withFileReplaced(layer, other, font))).toEqual([null, null, null]);
    expect(withFileReplaced(masked, other, picture)).toBeNull();
  });

  test('a clip goes on as the one before it, from where it is long enough', () => {
    const before = { ...moving, href: name('f', 'mp4'), from: 5_000, length: 9_000, pace: 0.5, loops: true } as const;
    expect(inPlaceOf(before, moving)).toEqual({ ...moving, from: 999, pace: 0.5, loops: true });
    expect(inPlaceOf({ ...before, from: 10 }, moving)).toEqual({ ...moving, from: 10, pace: 0.5, loops: true });
    expect(inPlaceOf(undefined, moving)).toBe(moving);
  });

  test('what comes out is a layer', () => {
    for (const [layer, address, file] of [
      [shows(OLD), OLD, picture],
      [masked, OLD, picture],
      [words, FONT, font],
    ] as const) {
      const fields = withFileReplaced(layer, address, file);
      expect(layerSchema.safeParse({ ...layer, ...fields }).error).toBeUndefined();
    }
  });
});
