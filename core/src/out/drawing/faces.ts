import type { Point } from '../../basics/transform';
import { readFaceRules } from './css';
import type { Style } from './style';

/** A font that a drawing carries in itself. */
export interface EmbeddedFace {
  readonly family: string;
  /** Lightest and heaviest weight that it is for. */
  readonly weights: readonly [number, number];
  readonly isSlanted: boolean;
  /** The font's file in base64. */
  readonly data: string;
}

/** A line of text as an outline: SVG path data in px, from its baseline's beginning, and how far it reaches. */
export interface LineOutline {
  readonly d: string;
  readonly width: number;
}

/** How a line is outlined in a font that the drawing carries; sizes in px of the drawing. */
export interface LineAsked {
  readonly text: string;
  readonly weight: number;
  readonly size: number;
  readonly letterSpacing: number;
  readonly wordSpacing: number;
}

/** Outlines a line in one of the drawing's own fonts; null where that cannot be read. */
export type OutlineText = (face: EmbeddedFace, line: LineAsked) => LineOutline | null;

const MOST_FACES = 32;
/** A font in the file itself. Source: RFC 2397, and media types that fonts are found under. */
export const FONT_DATA =
  /url\(\s*["']?data:(?:font\/[\w-]+|application\/(?:x-)?font-[\w-]+|application\/octet-stream)[^,)]*;base64,([A-Za-z0-9+/=\s]+)["']?\s*\)/i;

function weightOf(word: string): number | null {
  if (word === 'normal') return 400;
  if (word === 'bold') return 700;
  const number = Number(word);
  return Number.isFinite(number) && number >= 1 && number <= 1_000 ? number : null;
}

/** One weight or a range of them. Source: CSS Fonts 4, font-weight in @font-face. */
function weightsOf(text = '400'): readonly [number, number] {
  const [first, last] = text.trim().split(/\s+/).map(weightOf);
  return [first ?? 400, last ?? first ?? 400];
}

const plain = (family: string): string => family.trim().replace(/^["']|["']$/g, '');

/** The fonts that style sheets of a drawing carry. What would have to be fetched is none. */
export function facesIn(sheets: readonly string[]): EmbeddedFace[] {
  return sheets
    .flatMap(readFaceRules)
    .flatMap((rule): EmbeddedFace[] => {
      const data = FONT_DATA.exec(rule['src'] ?? '')?.[1]?.replace(/\s/g, '');
      const family = plain(rule['font-family'] ?? '');
      if (data === undefined || family === '') return [];
      const isSlanted = /italic|oblique/i.test(rule['font-style'] ?? '');
      return [{ family, weights: weightsOf(rule['font-weight']), isSlanted, data }];
    })
    .slice(0, MOST_FACES);
}

/** The face of a drawing that is nearest to a style; null where it carries none of that family. */
export function faceFor(faces: readonly EmbeddedFace[], family: string, style: Style): EmbeddedFace | null {
  const weight = Number(style['font-weight']) || 400;
  const wantsSlant = style['font-style'] !== 'normal';
  const apart = ({ weights: [least, most], isSlanted }: EmbeddedFace): number =>
    Math.max(0, least - weight, weight - most) + (isSlanted === wantsSlant ? 0 : 10_000);
  const own = faces.filter((face) => face.family.toLowerCase() === family.toLowerCase());
  return own.reduce<EmbeddedFace | null>((best, face) => (best && apart(best) <= apart(face) ? best : face), null);
}

/** Path data moved by a distance; outlines are made of absolute M, L, Q, C and Z alone. */
export function movedOutline(d: string, { x, y }: Point): string {
  let isAcross = false;
  return d.replace(/[A-Za-z]|[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi, (word) => {
    if (/[A-Za-z]/.test(word[0] ?? '')) {
      isAcross = true;
      return word;
    }
    const moved = Number(word) + (isAcross ? x : y);
    isAcross = !isAcross;
    return ` ${Math.round(moved * 1e4) / 1e4}`;
  });
}
