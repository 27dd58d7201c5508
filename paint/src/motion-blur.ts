import { createFrame, sampleFrame, type CompiledScene, type Frame, type MotionBlur, type Ticks } from '@wexikine/core';

/**
 * Times at which a shutter is looked through, from when it opens to when it closes; opened `amount` times as long, 1 as it
 * is set.
 */
export function shutterTimes(
  { angle, phase, samples }: MotionBlur,
  { at, step }: { readonly at: Ticks; readonly step: Ticks },
  amount = 1,
): number[] {
  const [opens, open] = [at + (phase / 360) * step * amount, (angle / 360) * step * amount];
  return Array.from({ length: samples }, (_, i) => opens + (open * (i + 0.5)) / samples);
}

/** Samples a scene at other times than its frame's, each once for a picture. Make one and keep it: it keeps its room. */
export function createMoments(): {
  readonly begin: (compiled: CompiledScene) => void;
  readonly at: (time: number) => Frame;
} {
  let scene: CompiledScene | null = null;
  let room: Frame[] = [];
  const sampled = new Map<number, Frame>();
  return {
    begin: (compiled) => {
      if (compiled !== scene) room = [];
      else room.push(...sampled.values());
      scene = compiled;
      sampled.clear();
    },
    at: (time) => {
      const known = sampled.get(time);
      if (known || !scene) return known as Frame;
      const frame = room.pop() ?? createFrame(scene);
      sampleFrame(scene, time, frame);
      sampled.set(time, frame);
      return frame;
    },
  };
}
