import { lineStep, ownFamily, type LayerSource } from '@wexikine/core';

type TextSource = Extract<LayerSource, { type: 'text' }>;

/** What of a canvas words need: of a page or a worker. */
type Context = Pick<
  OffscreenCanvasRenderingContext2D,
  'font' | 'letterSpacing' | 'wordSpacing' | 'textAlign' | 'textBaseline' | 'measureText'
>;

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

/** Measures words as they are drawn: the longest line, and how far it reaches above and below its baseline. */
export function measureWords(
  context: Context,
  source: TextSource,
  spacing: number,
): { readonly width: number } & ReturnType<typeof reach> {
  useFont(context, source, source.fontFile === undefined ? source.font : ownFamily(source.fontFile), spacing);
  const widths = source.text.split('\n').map((line) => context.measureText(line).width);
  return { width: Math.max(...widths), ...reach(context) };
}
