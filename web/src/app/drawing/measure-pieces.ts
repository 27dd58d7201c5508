import {
  drawnFamily,
  lineStep,
  restValue,
  type Layer,
  type Piece,
  type SplitWay,
  type TextSource,
} from '@wexikine/core';
import { servedAt } from '@wexikine/paint';
import { familyOf, firstBaseline, reach, spacedBy, useFont } from '@wexikine/paint/text';

/** Scripts whose letters join: split one by one they would take other shapes, so their words stay whole. */
const JOINING = /\p{Script=Arabic}|\p{Script=Syriac}|\p{Script=Mongolian}|\p{Script=Devanagari}|\p{Script=Bengali}/u;

interface Range {
  readonly from: number;
  readonly to: number;
}

/** Where the pieces of a line are in its text; what is only space is left out. Source: UAX 29, clusters and words. */
function rangesOf(line: string, by: SplitWay): Range[] {
  if (by === 'lines') return line.trim() === '' ? [] : [{ from: 0, to: line.length }];
  const words = [...line.matchAll(/\S+/gu)].map(({ 0: word, index }) => ({ from: index, to: index + word.length }));
  if (by === 'words') return words;
  const segmenter = new Intl.Segmenter(undefined, { granularity: 'grapheme' });
  return words.flatMap(({ from, to }) => {
    const word = line.slice(from, to);
    if (JOINING.test(word)) return [{ from, to }];
    return [...segmenter.segment(word)].map(({ segment, index }) => ({
      from: from + index,
      to: from + index + segment.length,
    }));
  });
}

/** Pieces of words where the painter sets them, measured by the browser's own ranges, so that kerning and direction hold. */
function measurePieces(source: TextSource, width: number, height: number, spacing: number, by: SplitWay): Piece[] {
  const family = familyOf(source);
  const context = new OffscreenCanvas(1, 1).getContext('2d');
  if (!context) return [];
  useFont(context, source, family, spacing);
  const letters = reach(context);
  const step = lineStep(source);
  const baseline = firstBaseline({ ...source, text: '' }, step, letters);
  const lines = source.text.split('\n');
  const top = (height - lines.length * step) / 2;
  const box = document.createElement('div');
  box.style.cssText = `position:fixed;left:0;top:0;visibility:hidden;white-space:pre;line-height:${lineStep(source)}px;word-spacing:${source.wordSpacing ?? 0}px;width:max-content`;
  Object.assign(box.style, {
    fontFamily: `"${family}", sans-serif`,
    fontSize: `${source.size}px`,
    fontWeight: String(source.weight),
    letterSpacing: `${spacing}px`,
  });
  document.body.append(box);
  const pieces = lines.flatMap((line, row) => {
    box.textContent = line === '' ? ' ' : line;
    const text = box.firstChild as Text;
    const own = box.getBoundingClientRect();
    const room = width - context.measureText(line).width;
    const left = { left: 0, middle: room / 2, right: room }[source.align] + spacedBy(source, spacing);
    return rangesOf(line, by).map(({ from, to }): Piece => {
      const range = document.createRange();
      range.setStart(text, from);
      range.setEnd(text, to);
      const rect = range.getBoundingClientRect();
      return {
        text: line.slice(from, to),
        left: left + rect.left - own.left,
        top: top + row * step,
        width: rect.width,
        height: step,
        baseline,
      };
    });
  });
  box.remove();
  return pieces;
}

/** The pieces of words as a layer sets them, or the group that they were split into. Their font is loaded. */
export function piecesOf(layer: Layer, source: TextSource, by: SplitWay): Piece[] {
  return measurePieces(
    source,
    restValue(layer, 'size.x'),
    restValue(layer, 'size.y'),
    restValue(layer, 'letterSpacing'),
    by,
  );
}

/** Loads a font that is kept, so that words can be measured in it; throws a sentence where it cannot. */
export async function loadFont(address: string): Promise<void> {
  const face = new FontFace(drawnFamily(address, ''), `url("${servedAt(address)}")`, { weight: '1 1000' });
  document.fonts.add(face);
  await face.load().catch(() => {
    throw new Error('words could not be measured in the new font. Check that the server is running, and try again.');
  });
}
