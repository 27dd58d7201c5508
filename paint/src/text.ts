import { axesText, drawnFamily, lineStep, type TextSource } from '@wexikine/core';

/** What of a canvas words need: of a page or a worker. */
type Context = Pick<
  OffscreenCanvasRenderingContext2D,
  'font' | 'letterSpacing' | 'wordSpacing' | 'textAlign' | 'textBaseline' | 'measureText'
>;

/** The family that words are set in on a canvas, where its file is loaded. */
export function familyOf({ font, fontFile, axes }: TextSource): string {
  return fontFile === undefined ? font : drawnFamily(fontFile, axesText(axes));
}

/** Sets a context up for words. */
export function useFont(context: Context, source: TextSource, family: string, spacing: number): void {
  context.font = `${source.weight} ${source.size}px "${family}", sans-serif`;
  context.letterSpacing = `${spacing}px`;
  context.wordSpacing = `${source.wordSpacing ?? 0}px`;
  context.textAlign = source.align === 'middle' ? 'center' : source.align;
  context.textBaseline = 'alphabetic';
}

/** How far letters reach above and below a line. Browsers keep both in whole pixels, and the room above a line too. */
export function reach(context: Context): { readonly ascent: number; readonly descent: number } {
  const { fontBoundingBoxAscent, fontBoundingBoxDescent } = context.measureText('x');
  return { ascent: Math.round(fontBoundingBoxAscent), descent: Math.round(fontBoundingBoxDescent) };
}

/** Where the first line's baseline lies in a box, px from its top. */
export function firstBaseline(
  source: TextSource,
  height: number,
  { ascent, descent }: ReturnType<typeof reach>,
): number {
  const step = lineStep(source);
  const lines = source.text.split('\n').length;
  return (height - lines * step) / 2 + ascent + Math.floor((step - ascent - descent) / 2);
}

/** What is written from right to left (Unicode Standard Annex 9, strong classes R and AL), by the first letter that has a direction. */
const BACKWARDS = /^[^\p{L}]*[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;

/** How much of the room to spare lies left of a line. */
const OVER = { left: 0, middle: 0.5, right: 1 } as const;

/**
 * How far a line stands to the right of where an engine aligns it, px: engines add the room between letters behind the last one,
 * too, which would draw a line aside as its letters move apart. With it, a centred word stays in its middle.
 */
export function spacedBy({ align }: TextSource, spacing: number): number {
  return OVER[align] * spacing;
}

/** Where the first letter of each line begins across a box, px, and whether the line is written from right to left. */
export function lineBegins(
  context: Context,
  source: TextSource,
  width: number,
  spacing: number,
): (line: string) => { readonly at: number; readonly isBackwards: boolean } {
  const spaced = spacedBy(source, spacing);
  return (line) => {
    const long = context.measureText(line).width;
    const isBackwards = BACKWARDS.test(line);
    return { at: OVER[source.align] * (width - long) + spaced + (isBackwards ? long : 0), isBackwards };
  };
}

/** Measures words as they are drawn: the longest line, and how far it reaches above and below its baseline. */
export function measureWords(
  context: Context,
  source: TextSource,
  spacing: number,
): { readonly width: number } & ReturnType<typeof reach> {
  useFont(context, source, familyOf(source), spacing);
  const widths = source.text.split('\n').map((line) => context.measureText(line).width);
  return { width: Math.max(...widths), ...reach(context) };
}
