import { ticksFromSeconds } from '../../basics/time';
import type { LayerSource } from '../layer';
import type { Scene } from '../scene';
import { demoScene, layer } from './builder';

const SPAN = { in: 0, out: ticksFromSeconds(5) };

/** Sparks: three small shapes to be multiplied, over a dark sky. */
export function sparks(): Scene {
  const shape = (id: string, name: string, x: number, source: LayerSource) =>
    layer(
      id,
      name,
      'card',
      { x, y: 1_010, width: 56, height: 56 },
      {
        tags: ['spark'],
        span: SPAN,
        source,
        look: { fill: '#f3c98b' },
      },
    );
  return demoScene({
    id: 'sparks',
    name: 'Sparks',
    rate: { num: 25, den: 1 },
    length: SPAN.out,
    background: '#0a0d2c',
    layers: [
      shape('spark-square', 'Square', 880, { type: 'rectangle' }),
      shape('spark-dot', 'Dot', 960, { type: 'ellipse' }),
      shape('spark-star', 'Star', 1_040, {
        type: 'path',
        d: 'M50 0 L61 39 L100 50 L61 61 L50 100 L39 61 L0 50 L39 39 Z',
      }),
    ],
  });
}
