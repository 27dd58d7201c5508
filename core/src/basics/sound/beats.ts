import { LOOKS_A_SECOND, onsetStrength } from './onsets';
import { beatPeriod } from './tempo';

/** The beats of a sound. */
export interface SoundBeats {
  /** Times of the beats from the beginning of the sound, seconds, ascending. */
  readonly times: readonly number[];
  /** How fast they follow each other, beats a minute. */
  readonly perMinute: number;
}

/** How much a beat that comes too early or too late counts against one that is not heard well. */
const TIGHTNESS = 400;
/** A beat at either end that is this weak against the others is none: music begins and ends somewhere. */
const LEAST = 0.25;

/** The best way of beats that ends at each look, and the beat before it. */
function bestWays(onsets: Float64Array, period: number): { score: Float64Array; before: Int32Array } {
  const score = new Float64Array(onsets.length);
  const before = new Int32Array(onsets.length).fill(-1);
  const [near, far] = [Math.round(period / 2), Math.round(period * 2)];
  const cost = Float64Array.from({ length: far + 1 }, (_, lag) => TIGHTNESS * Math.log(Math.max(1, lag) / period) ** 2);
  for (let i = 0; i < onsets.length; i++) {
    let [best, from] = [0, -1];
    for (let lag = near; lag <= far && lag <= i; lag++) {
      const found = score[i - lag] - cost[lag];
      if (found > best) [best, from] = [found, i - lag];
    }
    score[i] = onsets[i] + best;
    before[i] = from;
  }
  return { score, before };
}

function strongest(onsets: Float64Array, at: number): number {
  return Math.max(onsets[at - 2] ?? 0, onsets[at - 1] ?? 0, onsets[at], onsets[at + 1] ?? 0, onsets[at + 2] ?? 0);
}

/** Without beats at either end where nothing is heard. */
function sounding(beats: readonly number[], onsets: Float64Array): number[] {
  const strengths = beats.map((at) => strongest(onsets, at));
  const mean = strengths.reduce((sum, one) => sum + one, 0) / Math.max(1, strengths.length);
  const isHeard = (one: number): boolean => one >= mean * LEAST;
  const [first, last] = [strengths.findIndex(isHeard), strengths.findLastIndex(isHeard)];
  return first < 0 ? [] : beats.slice(first, last + 1);
}

/**
 * Finds the beats of a sound: those that agree best with what begins in it and with an even tempo. `samples` are of one
 * channel, `rate` their number a second. Null where no beat is found: silence, speech, or less than two seconds.
 * Source: D. Ellis, Beat Tracking by Dynamic Programming, Journal of New Music Research 36 (2007).
 */
export function findBeats(samples: Float32Array, rate: number): SoundBeats | null {
  if (samples.length < rate * 2) return null;
  const onsets = onsetStrength(samples, rate);
  const period = beatPeriod(onsets);
  if (period === null) return null;
  const { score, before } = bestWays(onsets, period);
  let at = score.length - 1;
  for (let i = Math.max(0, score.length - Math.ceil(period)); i < score.length; i++) if (score[i] > score[at]) at = i;
  const beats: number[] = [];
  for (; at >= 0; at = before[at]) beats.unshift(at);
  const heard = sounding(beats, onsets);
  if (heard.length < 4) return null;
  return { times: heard.map((look) => look / LOOKS_A_SECOND), perMinute: (60 * LOOKS_A_SECOND) / period };
}
