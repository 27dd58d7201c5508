import type { Font, FontCollection } from 'fontkit';
import { axisTagSchema, type FontAxis } from '@wexikine/core';
import { keepFile } from '../../files/keep-file';
import type { BroughtFile } from './messages';

interface WeightTable {
  readonly usWeightClass?: number;
}

/** Parts of a family's name that are of one weight or size. */
const OF_ONE = /\s+(\d+pt|thin|(extra|semi|ultra)?\s?(light|bold)|medium|black|regular)(?=\s|$)/gi;

function weightsOf(font: Font): readonly [number, number] {
  const axis = font.variationAxes?.wght;
  if (axis) return [axis.min, axis.max];
  const weight = (font as unknown as { 'OS/2'?: WeightTable })['OS/2']?.usWeightClass ?? 400;
  return [weight, weight];
}

/** What an axis is called where the font does not say. Source: OpenType 1.9, registered axes. */
const AXIS_NAMES: Readonly<Record<string, string>> = {
  wdth: 'Width',
  slnt: 'Slant',
  ital: 'Italic',
  opsz: 'Optical size',
};

/** Axes of a font besides its weight. */
function axesOf(font: Font): FontAxis[] {
  const tags = Object.keys(font.variationAxes ?? {}).filter(
    (tag) => tag !== 'wght' && axisTagSchema.safeParse(tag).success,
  );
  return tags.slice(0, 16).map((tag) => {
    const { name, min, default: usual, max } = font.variationAxes[tag] as NonNullable<Font['variationAxes'][string]>;
    return { tag, name: AXIS_NAMES[tag] ?? (name || tag).slice(0, 100), least: min, usual, most: max };
  });
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
  const typographic = font.getName('preferredFamily', 'en');
  const style = typographic ? font.getName('preferredSubfamily', 'en') : font.subfamilyName;
  // A font of one weight is called by it; one of all weights stands for the family.
  const isPlain = font.variationAxes?.wght !== undefined || /^(regular|normal|book)$/i.test(style ?? 'regular');
  const own = typographic ?? font.familyName ?? name;
  // A font of many weights is named by the one it begins with, where it says nothing better.
  const called = font.variationAxes?.wght ? own.replace(OF_ONE, '') : `${own}${isPlain ? '' : ` ${style}`}`;
  const family =
    called
      .replace(/["'\\;{}<>]/g, ' ')
      .trim()
      .slice(0, 100) || name;
  const [lightest, heaviest] = weightsOf(font);
  await keepFile(file, name, { family, weights: [lightest, heaviest], axes: axesOf(font) });
  return { type: 'font', name, family };
}
