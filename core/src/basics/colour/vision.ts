import { converter, formatHex } from 'culori/fn';
import { oklabFromCss } from './oklab';

/** Eyes that see colours otherwise. */
export type Sight = 'protan' | 'deutan' | 'tritan';

/** Kinds of sight, with words for people. */
export const SIGHTS: readonly { readonly id: Sight; readonly label: string }[] = [
  { id: 'protan', label: 'without red cones' },
  { id: 'deutan', label: 'without green cones' },
  { id: 'tritan', label: 'without blue cones' },
];

/**
 * What a kind of sight makes of linear red, green and blue, row by row. Source: Machado, Oliveira and Fernandes, A
 * physiologically-based model for simulation of color vision deficiency (2009), severity 1.
 */
const MATRICES: Readonly<Record<Sight, readonly number[]>> = {
  protan: [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
  deutan: [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  tritan: [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039],
};

const toLinear = converter('lrgb');

/** The matrix of a kind of sight as `feColorMatrix` takes it, over linear light (W3C Filter Effects 1, section 9.6). */
export function sightMatrix(sight: Sight): string {
  const m = MATRICES[sight];
  return [0, 3, 6].map((row) => `${m[row]} ${m[row + 1]} ${m[row + 2]} 0 0`).join(' ') + ' 0 0 0 1 0';
}

/** A colour as somebody sees it who lacks one kind of cones; hexadecimal text, alpha left out. */
export function seenAs(text: string, sight: Sight): string {
  const lab = oklabFromCss(text);
  if (!lab) return text;
  const { r, g, b } = toLinear({ mode: 'oklab', l: lab.l, a: lab.a, b: lab.b });
  const m = MATRICES[sight];
  const part = (row: number): number => m[row] * r + m[row + 1] * g + m[row + 2] * b;
  return formatHex({ mode: 'lrgb', r: part(0), g: part(3), b: part(6) });
}
