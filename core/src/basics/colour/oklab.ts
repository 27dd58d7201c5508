import {
  converter,
  formatHex,
  formatHex8,
  modeA98,
  modeHsl,
  modeHwb,
  modeLab,
  modeLab65,
  modeLch,
  modeLrgb,
  modeOklab,
  modeOklch,
  modeP3,
  modeProphoto,
  modeRec2020,
  modeRgb,
  modeXyz50,
  modeXyz65,
  parse,
  useMode as registerMode,
} from 'culori/fn';

// The spaces that CSS colours and design tokens are written in; the whole package would slow every start.
const MODES = [
  modeRgb,
  modeLrgb,
  modeHsl,
  modeHwb,
  modeOklab,
  modeOklch,
  modeLab,
  modeLab65,
  modeLch,
  modeP3,
  modeA98,
  modeProphoto,
  modeRec2020,
  modeXyz50,
  modeXyz65,
];
for (const mode of MODES) registerMode(mode as typeof modeRgb);

/** A colour in OKLab with alpha: lightness [0, 1], green–red and blue–yellow about ±0.4, alpha [0, 1]. */
export interface Oklab {
  readonly l: number;
  readonly a: number;
  readonly b: number;
  readonly alpha: number;
}

const toOklab = converter('oklab');
const toRgb = converter('rgb');

/** A name, a hexadecimal number, or one function that is closed: whatever else is written would end CSS around it. */
const SHAPE = /^\s*(#[0-9a-f]{3,8}|[a-z]+|[a-z][a-z0-9-]*\([-+.,%/\w\s]*\))\s*$/i;

function parseColour(text: string): ReturnType<typeof parse> {
  try {
    return SHAPE.test(text) ? parse(text.trim()) : undefined;
  } catch {
    // The parser throws on some texts that only begin like a colour.
    return undefined;
  }
}

/** Reads a CSS colour; null when it is none. */
export function oklabFromCss(text: string): Oklab | null {
  const colour = parseColour(text);
  if (!colour) return null;
  const { l, a, b, alpha = 1 } = toOklab(colour);
  const read = { l: l ?? 0, a: a ?? 0, b: b ?? 0, alpha };
  return Object.values(read).every(Number.isFinite) ? read : null;
}

/** CSS hexadecimal text of an OKLab colour, clipped to sRGB. */
export function cssFromOklab({ l, a, b, alpha }: Oklab): string {
  const rgb = toRgb({ mode: 'oklab', l, a, b, alpha });
  return alpha < 1 ? formatHex8(rgb) : formatHex(rgb);
}

/** Red, green and blue of sRGB as they are written (with its transfer curve), each 0…1. */
export type Rgb = readonly [number, number, number];

/** Red, green and blue of an OKLab colour without its alpha, clipped to sRGB. */
export function rgbFromOklab({ l, a, b }: Omit<Oklab, 'alpha'>): Rgb {
  const { r, g, b: blue } = toRgb({ mode: 'oklab', l, a, b });
  const within = (part: number): number => Math.min(1, Math.max(0, part));
  return [within(r), within(g), within(blue)];
}
