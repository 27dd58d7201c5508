import { parse, converter } from 'culori';

const toRgb = converter('rgb');

/** Weights of red, green and blue in a grey. Source: W3C Filter Effects 1, section 6.4 (grayscale). */
const WEIGHTS = [0.2126, 0.7152, 0.0722] as const;

/**
 * The matrix that draws in two colours: black becomes the dark one, white the light one, greys lie between them, by an amount
 * from 0 (as it is) to 1. Rows of red, green, blue and opacity, each by four parts of a colour and a constant, all 0…1 and not
 * multiplied by opacity, as `feColorMatrix` takes them (W3C Filter Effects 1, section 9.6). Colours are CSS; one that cannot be
 * read counts as black. What they say of opacity is not used.
 */
export function twoColourMatrix(dark: string, light: string, amount: number): number[] {
  const partsOf = (text: string): readonly number[] => {
    const colour = parse(text);
    const { r, g, b } = colour ? toRgb(colour) : { r: 0, g: 0, b: 0 };
    return [r, g, b];
  };
  const [low, high] = [partsOf(dark), partsOf(light)];
  const rows = [0, 1, 2].map((row) => {
    const own = [0, 1, 2].map(
      (part) => (part === row ? 1 - amount : 0) + amount * WEIGHTS[part] * (high[row] - low[row]),
    );
    return [...own, 0, amount * low[row]];
  });
  return [...rows.flat(), 0, 0, 0, 1, 0];
}

/** Does such a matrix to pixels where they are: red, green, blue and opacity, 0…255 each, not multiplied by opacity. */
export function drawInMatrix(pixels: Uint8ClampedArray, matrix: readonly number[]): void {
  const [rr, rg, rb, , r0, gr, gg, gb, , g0, br, bg, bb, , b0] = matrix;
  const [addR, addG, addB] = [r0 * 255, g0 * 255, b0 * 255];
  for (let i = 0; i < pixels.length; i += 4) {
    if (pixels[i + 3] === 0) continue;
    const [r, g, b] = [pixels[i], pixels[i + 1], pixels[i + 2]];
    pixels[i] = rr * r + rg * g + rb * b + addR;
    pixels[i + 1] = gr * r + gg * g + gb * b + addG;
    pixels[i + 2] = br * r + bg * g + bb * b + addB;
  }
}
