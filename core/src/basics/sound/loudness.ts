/** How many values a second of sound gives. */
export const PEAKS_A_SECOND = 100;

/** The largest amplitude, 0…1, in each hundredth of a second. `samples` are of one channel, `rate` their number a second. */
export function peaksOf(samples: Float32Array, rate: number): Float32Array {
  const count = Math.ceil((samples.length / rate) * PEAKS_A_SECOND);
  const peaks = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    const end = Math.min(samples.length, Math.round(((i + 1) * rate) / PEAKS_A_SECOND));
    let most = 0;
    for (let at = Math.round((i * rate) / PEAKS_A_SECOND); at < end; at++) most = Math.max(most, Math.abs(samples[at]));
    peaks[i] = Math.min(1, most);
  }
  return peaks;
}
