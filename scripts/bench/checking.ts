import { compileScene, createFrame, findInMotion, frameTicks, sampleFrame } from '@wexikine/core';
import { mediansInTurn, report } from './measure';
import { keyedScene } from './scenes';

/** Until findings are there, milliseconds; and how many times as long as sampling the same frames takes. */
const AIM = 2_000;
const TIMES = 8;

/** A thousand layers in motion, all through each other, looked over beside the work. */
export function benchChecking(): void {
  const scene = keyedScene(1_000, 'few');
  const [looking, sampling] = mediansInTurn(
    () => findInMotion(scene, null, 0, scene.length),
    () => {
      const compiled = compileScene(scene);
      const frame = createFrame(compiled);
      for (let at = 0; at < scene.length; at += frameTicks(scene.rate)) sampleFrame(compiled, at, frame);
    },
    3,
  );
  report('looking over 1,000 moving layers for 10 s', `${looking.toFixed(0)} ms`, `under ${AIM} ms`, looking < AIM);
  const ratio = looking / sampling;
  report('  sampling the same frames', `${sampling.toFixed(0)} ms, ${ratio.toFixed(1)}×`, `${TIMES}×`, ratio <= TIMES);
}
