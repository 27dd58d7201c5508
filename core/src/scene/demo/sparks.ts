import { ticksFromSeconds } from '../../basics/time';
import type { LayerSource } from '../layer';
import { SCENE_FORMAT, type Scene } from '../scene';
import { layer } from './builder';

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
  return {
    format: SCENE_FORMAT,
    id: 'sparks',
    name: 'Sparks',
    project: 'Saltmarsh Observatory',
    width: 1_920,
    height: 1_080,
    rate: { num: 25, den: 1 },
    length: SPAN.out,
    cues: [],
    background: '#0a0d2c',
    layers: [
      shape('spark-square', 'Square', 880, { type: 'rectangle' }),
      shape('spark-dot', 'Dot', 960, { type: 'ellipse' }),
      shape('spark-star', 'Star', 1_040, {
        type: 'path',
        d: 'M50 0 L61 39 L100 50 L61 61 L50 100 L39 61 L0 50 L39 39 Z',
      }),
    ],
    runs: [],
  };
}
