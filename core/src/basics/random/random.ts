/** 32-bit finaliser of MurmurHash3 (public domain, A. Appleby): every input bit reaches every output bit. */
function mix32(value: number): number {
  let h = value | 0;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

/**
 * The `index`-th random number of a seed, in [0, 1). The same on every machine, and independent of the order in
 * which the numbers are asked for.
 */
export function randomAt(seed: number, index: number): number {
  const mixed = mix32(mix32(Math.floor(seed)) ^ Math.imul(Math.floor(index) + 1, 0x9e3779b1));
  return mixed / 2 ** 32;
}

/** Seed of a text (FNV-1a, 32 bit), for numbers that shall follow a name. */
export function seedFromText(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

/** A seeded shuffle (Fisher–Yates) of a copy. */
export function shuffled<T>(items: readonly T[], seed: number): T[] {
  const copy = [...items];
  for (let i = copy.length - 1; i > 0; i--) {
    const j = Math.floor(randomAt(seed, i) * (i + 1));
    [copy[i], copy[j]] = [copy[j], copy[i]];
  }
  return copy;
}

/** Quintic fade of gradient noise, 6u⁵ − 15u⁴ + 10u³. Source: K. Perlin, "Improving Noise", 2002. */
function fade(u: number): number {
  return u * u * u * (u * (u * 6 - 15) + 10);
}

/** Gradient noise whose slope in each cell, within [−1, 1], is asked for. */
export function noiseOfSlopes(x: number, slopeAt: (cell: number) => number): number {
  const cell = Math.floor(x);
  const u = x - cell;
  const [left, right] = [slopeAt(cell) * u, slopeAt(cell + 1) * (u - 1)];
  return 2 * (left + (right - left) * fade(u));
}

/**
 * One-dimensional gradient noise, 0 at whole x, within [−1, 1], smooth to the second derivative.
 * Source: K. Perlin, "Improving Noise", 2002; slopes drawn by `randomAt`.
 */
export function gradientNoise(x: number, seed: number): number {
  return noiseOfSlopes(x, (at) => randomAt(seed, at) * 2 - 1);
}
