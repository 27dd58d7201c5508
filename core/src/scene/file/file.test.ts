import { describe, expect, test } from '@jest/globals';
import { axesText, axisTagSchema, drawnFamily, endingOf, fileAddress, ownFamily } from './index';

const FONT = fileAddress(`${'0123456789abcdef'.repeat(4)}.woff2`);

describe('axes of fonts', () => {
  test('are written as CSS has them, in one order, whatever order they are stated in', () => {
    expect(axesText({ wdth: 87.5, slnt: -8 })).toBe('"slnt" -8, "wdth" 87.5');
    expect(axesText({ slnt: -8, wdth: 87.5 })).toBe('"slnt" -8, "wdth" 87.5');
    expect(axesText({})).toBe('');
    expect(axesText(undefined)).toBe('');
  });

  test('give a family of its own to each place on them, which needs no quotes', () => {
    const places: Record<string, number>[] = [{}, { wdth: 80 }, { wdth: -80 }, { wdth: 80.5 }, { slnt: 80 }];
    const families = places.map((axes) => drawnFamily(FONT, axesText(axes)));
    expect(families[0]).toBe(ownFamily(FONT));
    expect(new Set(families).size).toBe(families.length);
    for (const family of families) expect(family).toMatch(/^[A-Za-z0-9._-]+$/);
  });

  test('are named by four letters', () => {
    for (const tag of ['wdth', 'GRAD', 'XTRA', 'a b ']) expect(axisTagSchema.safeParse(tag).success).toBe(true);
    for (const tag of ['', 'wd', 'width', '1dth', 'w"th']) expect(axisTagSchema.safeParse(tag).success).toBe(false);
  });
});

describe('what a file is', () => {
  /** Bytes of a text, and of numbers as they are. */
  const bytes = (...parts: readonly (string | number)[]): Uint8Array =>
    Uint8Array.from(
      parts.flatMap((part) => (typeof part === 'number' ? [part] : [...part].map((c) => c.charCodeAt(0)))),
    );
  const size = [0, 0, 0, 0x20] as const;

  // Signatures by PNG (ISO 15948), JFIF, RIFF and WebP (RFC 9649), ISO base media files (ISO 14496-12), AVIF, EBML
  // (RFC 8794), Ogg (RFC 3533), FLAC (RFC 9639), MPEG audio (ISO 11172-3), ID3v2, GIF89a, OpenType, WOFF2 (W3C); from memory.
  test.each([
    ['png', bytes(0x89, 'PNG\r\n', 0x1a, '\n')],
    ['jpg', bytes(0xff, 0xd8, 0xff, 0xe0)],
    ['webp', bytes('RIFF', ...size, 'WEBPVP8 ')],
    ['avif', bytes(...size, 'ftypavif', 0, 0, 0, 0)],
    ['avif', bytes(...size, 'ftypmif1', 0, 0, 0, 0, 'mif1avifmiaf')],
    ['avif', bytes(...size, 'ftypavis', 0, 0, 0, 0)],
    ['mp4', bytes(...size, 'ftypisom', 0, 0, 2, 0, 'isomiso2avc1mp41')],
    ['mp4', bytes(...size, 'ftypmp42')],
    ['webm', bytes(0x1a, 0x45, 0xdf, 0xa3, 0x9f, 0x42, 0x82, 0x84, 'webm')],
    ['wav', bytes('RIFF', ...size, 'WAVEfmt ')],
    ['ogg', bytes('OggS', 0, 2)],
    ['flac', bytes('fLaC', 0)],
    ['mp3', bytes('ID3', 4, 0)],
    ['mp3', bytes(0xff, 0xfb, 0x90, 0x64)],
    ['mp3', bytes(0xff, 0xf3, 0x40, 0xc0)],
    ['gif', bytes('GIF89a')],
    ['otf', bytes('OTTO', 0, 12)],
    ['woff2', bytes('wOF2', 0, 1, 0, 0)],
    ['ttf', bytes(0, 1, 0, 0, 0, 12)],
    ['ttf', bytes('true', 0, 12)],
    ['svg', bytes('<svg xmlns="http://www.w3.org/2000/svg"/>')],
    [
      'svg',
      bytes(0xef, 0xbb, 0xbf, '<?xml version="1.0"?>\n<!-- a note -->\n<!DOCTYPE svg [<!ENTITY a "b">]>\n<svg:svg>'),
    ],
  ])('%s, by how it begins', (ending, file) => {
    expect(endingOf(file)).toBe(ending);
    // Something else before it, and it is none of these.
    expect(endingOf(bytes('?', ...file))).toBeNull();
  });

  test.each([
    ['nothing', bytes()],
    ['a text', bytes('Once upon a time')],
    ['a page', bytes('<!doctype html><html><svg></svg></html>')],
    ['a matroska film', bytes(0x1a, 0x45, 0xdf, 0xa3, 0xa3, 0x42, 0x82, 0x88, 'matroska')],
    ['a sound in an ISO base media file', bytes(...size, 'ftypM4A ')],
    ['a still picture that browsers do not draw', bytes(...size, 'ftypheic', 0, 0, 0, 0, 'mif1heic')],
    ['RIFF of another kind', bytes('RIFF', ...size, 'AVI ')],
    ['MPEG audio of layer II', bytes(0xff, 0xfd, 0x90)],
    ['half a signature', bytes(0x89, 'PN')],
    ['JPEG without its third byte', bytes(0xff, 0xd8)],
    ['four bytes of another order', bytes(0, 1, 0, 1)],
    ['EBML cut short', bytes(0x1a, 0x45, 0xdf)],
    ['what begins with its first byte alone', bytes(0x1a, 1, 2, 3, 'webm')],
    ['what has its later bytes alone', bytes(1, 0x45, 0xdf, 0xa3, 'webm')],
  ])('%s is none', (_name, file) => expect(endingOf(file)).toBeNull());
});
