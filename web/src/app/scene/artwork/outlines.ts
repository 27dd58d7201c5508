import type { EmbeddedFace, LineAsked, LineOutline } from '@wexikine/core/drawing';
import type { Font, FontCollection } from 'fontkit';

/** Fonts of drawings that are open, by what stands in the drawing; null for one that cannot be read. */
const open = new Map<EmbeddedFace, Font | null>();

function bytesOf(base64: string): Uint8Array {
  return Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0));
}

/** Reads the fonts that a drawing carries, so that lines can be outlined in them. */
export async function openFaces(faces: readonly EmbeddedFace[]): Promise<void> {
  if (faces.length === 0) return;
  const { create } = await import('fontkit');
  for (const face of faces) {
    let font: Font | FontCollection | null = null;
    try {
      font = create(bytesOf(face.data) as unknown as Buffer);
    } catch {
      // What is no font is passed over: its words are a picture, as the browser shows them.
    }
    open.set(face, font && !('fonts' in font) ? font : null);
  }
}

/** A line as an outline in a font that was opened. Letters that are spaced are not joined. Source: CSS Text 3, letter-spacing. */
export function outlineLine(face: EmbeddedFace, line: LineAsked): LineOutline | null {
  const font = open.get(face);
  if (!font) return null;
  try {
    return outlined(font, line);
  } catch {
    return null;
  }
}

function outlined(font: Font, { text, weight, size, letterSpacing, wordSpacing }: LineAsked): LineOutline | null {
  const axis = font.variationAxes?.wght;
  const wanted = axis ? Math.min(axis.max, Math.max(axis.min, weight)) : weight;
  const own = axis && axis.default !== wanted ? font.getVariation({ wght: wanted }) : font;
  const { glyphs, positions } = own.layout(text, letterSpacing === 0 ? {} : { liga: false, clig: false });
  // Letters that the font lacks are shown in another one, which only a picture shows.
  if (glyphs.some(({ id }) => id === 0)) return null;
  const scale = size / own.unitsPerEm;
  let x = 0;
  const parts = glyphs.map(({ path, codePoints }, i) => {
    const { xAdvance, xOffset, yOffset } = positions[i] ?? { xAdvance: 0, xOffset: 0, yOffset: 0 };
    const d = path.transform(scale, 0, 0, -scale, x + xOffset * scale, -yOffset * scale).toSVG();
    x += xAdvance * scale + letterSpacing + (codePoints[0] === 0x20 ? wordSpacing : 0);
    return d;
  });
  return { d: parts.join(''), width: x };
}
