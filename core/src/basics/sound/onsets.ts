/** How many times a second the sound is looked at. */
export const LOOKS_A_SECOND = 200;

/** Bands that are looked at one by one, so that a drum is heard beside a voice: their edges in Hz. */
const BANDS: readonly (readonly [number, number])[] = [
  [20, 150],
  [150, 600],
  [600, 2_400],
  [2_400, 10_000],
];

/** A second-order band pass as five numbers. Source: R. Bristow-Johnson, Audio EQ Cookbook (W3C note, 2021), BPF. */
function bandPass(from: number, to: number, rate: number): readonly [number, number, number, number] {
  const top = Math.min(to, rate * 0.45);
  const centre = Math.sqrt(from * top);
  const q = centre / Math.max(1, top - from);
  const w = (2 * Math.PI * centre) / rate;
  const alpha = Math.sin(w) / (2 * q);
  const a0 = 1 + alpha;
  return [alpha / a0, -alpha / a0, (-2 * Math.cos(w)) / a0, (1 - alpha) / a0];
}

/** Energy of one band at each look. */
function energies(
  samples: Float32Array,
  rate: number,
  [from, to]: readonly [number, number],
  count: number,
): Float64Array {
  const [b0, b2, a1, a2] = bandPass(from, to, rate);
  const found = new Float64Array(count);
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  let at = 0;
  for (let look = 0; look < count; look++) {
    const end = Math.min(samples.length, Math.round(((look + 1) * rate) / LOOKS_A_SECOND));
    let sum = 0;
    const first = at;
    for (; at < end; at++) {
      const x = samples[at];
      const y = b0 * x + b2 * x2 - a1 * y1 - a2 * y2;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      sum += y * y;
    }
    found[look] = sum / Math.max(1, at - first);
  }
  return found;
}

/** Energies are compressed as loudness is heard; what lies this far under the loudest is silence. */
const FLOOR = 1e-5;
/** Looks over which a rise is measured: shorter ones see the wave itself in the lowest band. */
const REACH = 3;

/**
 * How strongly something begins at each of 200 looks a second: the rise of the logarithm of the energy, band by band,
 * and of the sum its deviation from its mean in standard deviations, never below 0.
 * Source: S. Dixon, Onset Detection Revisited (2006), spectral flux, with a bank of filters in place of a transform.
 */
export function onsetStrength(samples: Float32Array, rate: number): Float64Array {
  const count = Math.floor((samples.length / rate) * LOOKS_A_SECOND);
  const strength = new Float64Array(count);
  for (const band of BANDS) {
    if (band[0] > rate * 0.4) continue;
    const energy = energies(samples, rate, band, count);
    const loudest = energy.reduce((most, one) => Math.max(most, one), 0);
    if (loudest <= 0) continue;
    const level = energy.map((one) => Math.log(one / loudest + FLOOR));
    for (let i = REACH; i < count; i++) strength[i] += Math.max(0, level[i] - level[i - REACH]);
    for (let i = 0; i < Math.min(REACH, count); i++) strength[i] += Math.max(0, level[i] - Math.log(FLOOR));
  }
  return standardised(strength);
}

function standardised(list: Float64Array): Float64Array {
  const mean = list.reduce((sum, one) => sum + one, 0) / Math.max(1, list.length);
  const deviation = Math.sqrt(list.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, list.length));
  return deviation > 1e-9 ? list.map((one) => Math.max(0, (one - mean) / deviation)) : new Float64Array(list.length);
}
