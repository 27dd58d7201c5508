import bezierEasing from 'bezier-easing';
import { compileScene, createFrame, sampleTrack, sampleValues, tracksOf, type Scene, type Track } from '@wexikine/core';
import { mediansInTurn, report } from './measure';
import { keyedScene } from './scenes';

/** One key pair of the reference: the package's function for the pair, as its users would keep it. */
interface ReferenceTrack {
  readonly keys: Track;
  readonly eases: readonly ((u: number) => number)[];
}

function referenceTracks(scene: Scene): ReferenceTrack[] {
  return scene.layers.flatMap((layer) =>
    tracksOf(layer).map(([, keys]) => ({
      keys,
      eases: keys.map(({ ease }) =>
        ease.type === 'bezier' ? bezierEasing(ease.x1, ease.y1, ease.x2, ease.y2) : (u: number): number => u,
      ),
    })),
  );
}

/** The same work: find the pair by bisection, ease with bezier-easing, interpolate, write. */
function sampleReference(tracks: readonly ReferenceTrack[], time: number, out: Float64Array): void {
  for (let t = 0; t < tracks.length; t++) {
    const { keys, eases } = tracks[t];
    let [low, high] = [0, keys.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (keys[middle].at <= time) low = middle;
      else high = middle - 1;
    }
    const [a, b] = [keys[low], keys[low + 1]];
    out[t] = b ? a.value + (b.value - a.value) * eases[low]((time - a.at) / (b.at - a.at)) : a.value;
  }
}

/** Frames that a second of playing samples. */
const FRAMES = 50;

/** Sampling against the same work with a general-purpose easing package. */
export async function benchSampling(): Promise<void> {
  for (const curves of ['few', 'all different'] as const) {
    const scene = keyedScene(1_000, curves);
    const compiled = compileScene(scene);
    const frame = createFrame(compiled);
    const reference = referenceTracks(scene);
    const out = new Float64Array(reference.length);
    const timeOf = (i: number): number => (scene.length * (i + 0.37)) / FRAMES;
    let [worst, far] = [0, 0];
    for (let i = 0; i < FRAMES; i++) {
      sampleValues(compiled, timeOf(i), frame);
      sampleReference(reference, timeOf(i), out);
      for (let t = 0; t < reference.length; t++) {
        const exact = sampleTrack(reference[t].keys, timeOf(i));
        far = Math.max(far, Math.abs(frame.values[compiled.tracks.target[t]] - exact));
        worst = Math.max(worst, Math.abs(out[t] - exact));
      }
    }
    const each = (work: (time: number) => void) => () => {
      for (let i = 0; i < FRAMES; i++) work(timeOf(i));
    };
    const [ours, theirs] = mediansInTurn(
      each((time) => sampleValues(compiled, time, frame)),
      each((time) => sampleReference(reference, time, out)),
    ).map((time) => time / FRAMES);
    const wanted = 3;
    report(
      `sampling 1,000 layers × 6 channels, curves ${curves}`,
      `${ours.toFixed(3)} ms a frame`,
      'under 2 ms',
      ours < 2,
    );
    report(
      '  the same with bezier-easing per key pair',
      `${theirs.toFixed(3)} ms, ${(theirs / ours).toFixed(1)}×`,
      `at least ${wanted}×`,
      theirs / ours >= wanted,
    );
    report(
      '  largest difference from the exact solver',
      `${far.toExponential(1)} (theirs ${worst.toExponential(1)})`,
      'below 1e-6',
      far < 1e-6,
    );
  }
}
