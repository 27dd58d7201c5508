import type { FileEnding } from './file';

const ascii = (bytes: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...bytes.subarray(from, Math.min(to, bytes.length)));

/** So much of a text is looked at to see whether it is an SVG file. */
const SVG_HEAD = 4_000;

function isSvg(bytes: Uint8Array): boolean {
  const head = new TextDecoder().decode(bytes.subarray(0, SVG_HEAD)).replace(/^\ufeff/, '');
  return /^\s*(<\?xml[^>]*\?>\s*)?(<!--[\s\S]*?-->\s*)*(<!doctype svg[^[>]*(\[[\s\S]*?\]\s*)?>\s*)?(<!--[\s\S]*?-->\s*)*<([\w-]+:)?svg[\s>]/i.test(
    head,
  );
}

/**
 * What bytes are, by how they begin, whatever their name says; null for what cannot be kept. Source: the signatures of the
 * formats' own specifications (PNG, JFIF, RIFF, ISO base media files, GIF89a, OpenType, WOFF2, Ogg, FLAC,
 * MPEG audio, ID3v2, ISO base media files, EBML).
 */
export function endingOf(bytes: Uint8Array): FileEnding | null {
  const [first, second, third, fourth] = bytes;
  if (first === 0x89 && ascii(bytes, 1, 4) === 'PNG') return 'png';
  if (first === 0xff && second === 0xd8 && third === 0xff) return 'jpg';
  const four = ascii(bytes, 0, 4);
  if (four === 'RIFF' && ascii(bytes, 8, 12) === 'WEBP') return 'webp';
  if (ascii(bytes, 4, 8) === 'ftyp' && /avi[fs]/.test(ascii(bytes, 8, 32))) return 'avif';
  // Of the files that begin so, those that say they hold sound alone are none.
  if (ascii(bytes, 4, 8) === 'ftyp' && !/^(M4[AB]|hei|mif1|msf1)/.test(ascii(bytes, 8, 12))) return 'mp4';
  // EBML (RFC 8794), and the type of document that WebM is.
  if (first === 0x1a && second === 0x45 && third === 0xdf && fourth === 0xa3)
    return ascii(bytes, 4, 64).includes('webm') ? 'webm' : null;
  if (four === 'RIFF' && ascii(bytes, 8, 12) === 'WAVE') return 'wav';
  if (four === 'OggS') return 'ogg';
  if (four === 'fLaC') return 'flac';
  // Frames of MPEG audio begin with eleven set bits and name layer III; a tag may come before them.
  if (four.startsWith('ID3') || (first === 0xff && (second & 0xe6) === 0xe2)) return 'mp3';
  if (four === 'GIF8') return 'gif';
  if (four === 'OTTO') return 'otf';
  if (four === 'wOF2') return 'woff2';
  if (four === 'true' || (first === 0 && second === 1 && third === 0 && fourth === 0)) return 'ttf';
  return isSvg(bytes) ? 'svg' : null;
}
