import { cssFromOklab, oklabFromCss } from './oklab';

/** What is taken out of a picture: a colour and those near it, or its dark or its light part. */
export type CutOutBy = { readonly by: 'colour'; readonly colour: string } | { readonly by: 'dark' | 'light' };

/** How a picture is cut out. */
export interface CutOut {
  readonly what: CutOutBy;
  /** Up to this all is taken out: distance from the colour, 1 being 0.4 in OKLab; or brightness from the dark or light end. */
  readonly tolerance: number;
  /** Over so much more it comes back, evenly. 0 makes a hard edge. */
  readonly softness: number;
  /** Share of what the colour has cast on the rest that is taken back, 0…1. */
  readonly spill: number;
}

/** A distance of 1. Source: CSS Color 4, section 9.3 (100 % of chroma in OKLCH is 0.4). */
const FAR = 0.4;
/** Light and shade count so much less beside a colour of at least this chroma, since it is lit unevenly. Our own choice. */
const LIT = 0.25;
const COLOURFUL = 0.1;
/** Weights of red, green and blue in brightness. Source: W3C Compositing 1, section 13. */
const [RED, GREEN, BLUE] = [0.2125, 0.7154, 0.0721];

/** Linear light of the 256 steps of sRGB. Source: CSS Color 4, section 10.2. */
const LINEAR = Float64Array.from({ length: 256 }, (_, i) => {
  const part = i / 255;
  return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
});

function encoded(linear: number): number {
  const part = Math.min(1, Math.max(0, linear));
  return 255 * (part <= 0.0031308 ? part * 12.92 : 1.055 * part ** (1 / 2.4) - 0.055);
}

/** OKLab of a pixel into `lab`. Source: Ottosson, A perceptual color space for image processing (2020). */
function writeLab(lab: Float64Array, r: number, g: number, b: number): void {
  const [x, y, z] = [LINEAR[r], LINEAR[g], LINEAR[b]];
  const l = Math.cbrt(0.4122214708 * x + 0.5363325363 * y + 0.0514459929 * z);
  const m = Math.cbrt(0.2119034982 * x + 0.6806995451 * y + 0.1073969566 * z);
  const s = Math.cbrt(0.0883024619 * x + 0.2817188376 * y + 0.6299787005 * z);
  lab[0] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
  lab[1] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
  lab[2] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
}

function writePixel(data: Uint8ClampedArray, at: number, [light, a, b]: Float64Array): void {
  const l = (light + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (light - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (light - 0.0894841775 * a - 1.291485548 * b) ** 3;
  data[at] = encoded(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s);
  data[at + 1] = encoded(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s);
  data[at + 2] = encoded(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s);
}

/** The colour that is taken out, 0…255 each. */
function colourOf(what: CutOutBy): readonly [number, number, number] {
  if (what.by !== 'colour') return what.by === 'dark' ? [0, 0, 0] : [255, 255, 255];
  const hex = cssFromOklab({ ...(oklabFromCss(what.colour) ?? { l: 0, a: 0, b: 0 }), alpha: 1 });
  return [1, 3, 5].map((place) => parseInt(hex.slice(place, place + 2), 16)) as [number, number, number];
}

/** How far a pixel is from what is taken out, 0…1 and beyond. */
function createDistance(what: CutOutBy, colour: readonly [number, number, number]) {
  const [key, lab] = [new Float64Array(3), new Float64Array(3)];
  writeLab(key, ...colour);
  const weight = 1 - (1 - LIT) * Math.min(1, Math.hypot(key[1], key[2]) / COLOURFUL);
  return (r: number, g: number, b: number): number => {
    if (what.by !== 'colour') {
      const brightness = (RED * r + GREEN * g + BLUE * b) / 255;
      return what.by === 'dark' ? brightness : 1 - brightness;
    }
    writeLab(lab, r, g, b);
    return Math.hypot((lab[0] - key[0]) * weight, lab[1] - key[1], lab[2] - key[2]) / FAR;
  };
}

/** Takes a colour's cast out of pixels: what of their own colour lies along its hue. */
function createCleaning(colour: readonly [number, number, number], spill: number) {
  const [key, lab] = [new Float64Array(3), new Float64Array(3)];
  writeLab(key, ...colour);
  const chroma = Math.hypot(key[1], key[2]);
  const [a, b] = chroma > 0 ? [key[1] / chroma, key[2] / chroma] : [0, 0];
  return (data: Uint8ClampedArray, at: number): void => {
    writeLab(lab, data[at], data[at + 1], data[at + 2]);
    const along = lab[1] * a + lab[2] * b;
    if (along <= 0) return;
    lab[1] -= spill * along * a;
    lab[2] -= spill * along * b;
    writePixel(data, at, lab);
  };
}

/**
 * Cuts a picture out, in place: RGBA of 0…255 with colours that are not multiplied by alpha, as in ImageData. A pixel that is
 * kept in part is a mixture with what is taken out; that part of its colour is taken out too, so that edges are neither darkened
 * nor tinted: colour = (mixture − (1 − kept) · taken) ÷ kept. What was transparent stays so.
 */
export function cutOut(data: Uint8ClampedArray, { what, tolerance, softness, spill }: CutOut): void {
  const colour = colourOf(what);
  const distance = createDistance(what, colour);
  const clean = what.by === 'colour' && spill > 0 ? createCleaning(colour, Math.min(1, spill)) : null;
  for (let at = 0; at < data.length; at += 4) {
    if (data[at + 3] === 0) continue;
    const beyond = distance(data[at], data[at + 1], data[at + 2]) - tolerance;
    const kept = beyond <= 0 ? 0 : softness <= 0 ? 1 : Math.min(1, beyond / softness);
    if (kept > 0 && kept < 1) {
      for (let part = 0; part < 3; part++) {
        data[at + part] = (data[at + part] - (1 - kept) * colour[part]) / kept;
      }
    }
    if (clean && kept > 0) clean(data, at);
    data[at + 3] = data[at + 3] * kept;
  }
}

/** Makes of a picture that was cut out a view of what is kept: white, and black where nothing is. */
export function showKept(data: Uint8ClampedArray): void {
  for (let at = 0; at < data.length; at += 4) {
    data[at] = data[at + 1] = data[at + 2] = data[at + 3];
    data[at + 3] = 255;
  }
}

/** The colour that most of a picture's edge has, as CSS text: what is likely to be taken out. Colours are told apart by 16 steps. */
export function edgeColour(data: Uint8ClampedArray, width: number, height: number): string {
  const counts = new Map<number, { count: number; sum: [number, number, number] }>();
  const look = (x: number, y: number): void => {
    const at = (y * width + x) * 4;
    if (data[at + 3] < 128) return;
    const name = ((data[at] >> 4) << 8) | ((data[at + 1] >> 4) << 4) | (data[at + 2] >> 4);
    const known = counts.get(name) ?? { count: 0, sum: [0, 0, 0] };
    known.count++;
    for (let part = 0; part < 3; part++) known.sum[part] += data[at + part];
    counts.set(name, known);
  };
  for (let x = 0; x < width; x++) for (const y of [0, height - 1]) look(x, y);
  for (let y = 1; y < height - 1; y++) for (const x of [0, width - 1]) look(x, y);
  const most = [...counts.values()].sort((a, b) => b.count - a.count)[0];
  if (!most) return '#00b140';
  return `#${most.sum
    .map((sum) =>
      Math.round(sum / most.count)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}
