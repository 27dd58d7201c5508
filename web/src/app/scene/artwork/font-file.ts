import type { Font, FontCollection } from 'fontkit';
import { keepFile } from './keep-file';
import type { BroughtFile } from './messages';

interface WeightTable {
  readonly usWeightClass?: number;
}

function weightsOf(font: Font): readonly [number, number] {
  const axis = font.variationAxes?.wght;
  if (axis) return [axis.min, axis.max];
  const weight = (font as unknown as { 'OS/2'?: WeightTable })['OS/2']?.usWeightClass ?? 400;
  return [weight, weight];
}

/** Reads a font and keeps it under its family's name. */
export async function readFont(file: Blob, name: string): Promise<BroughtFile> {
  const { create } = await import('fontkit');
  let font: Font | FontCollection;
  try {
    font = create(new Uint8Array(await file.arrayBuffer()) as unknown as Buffer);
  } catch {
    return { type: 'problem', name, problem: 'it is no font that can be read. TTF, OTF and WOFF2 can' };
  }
  if ('fonts' in font) return { type: 'problem', name, problem: 'it holds several fonts. Bring them in one by one' };
  const style =
    /^(regular|normal|book)$/i.test(font.subfamilyName ?? '') || font.variationAxes?.wght
      ? ''
      : ` ${font.subfamilyName}`;
  const family =
    `${font.familyName ?? name}${style}`
      .replace(/["'\\;{}<>]/g, ' ')
      .trim()
      .slice(0, 100) || name;
  const [lightest, heaviest] = weightsOf(font);
  await keepFile(file, name, { family, weights: [lightest, heaviest] });
  return { type: 'font', name, family };
}
