import { frameTicks, ticksFromSeconds, type Rate } from '../../basics/time';
import type { Key, Layer } from '../layer';
import type { Scene } from '../scene';
import { demoScene, layer, text } from './builder';

const RATE: Rate = { num: 25, den: 1 };
const SPAN = { in: 0, out: ticksFromSeconds(5) };
const BARS = 5;
const COLOURS = ['#1e6a59', '#2f8a76', '#c7761b', '#e0a155', '#f3c98b'];
const SWEEP = { type: 'bezier', x1: 0.7, y1: 0, x2: 0.2, y2: 1 } as const;

function key(frame: number, value: number): Key {
  return { at: frame * frameTicks(RATE), value, ease: SWEEP };
}

/** A bar that crosses the frame twice: it closes the gate, and opens it again. */
function bar(number: number): Layer {
  const width = 1_920 / BARS;
  const [shut, later] = [540, number * 3];
  return layer(
    `bar-${number + 1}`,
    `Bar ${number + 1}`,
    'card',
    { x: width * (number + 0.5), y: -560, width: width + 2, height: 1_080 },
    {
      tags: ['bar'],
      span: SPAN,
      look: { fill: COLOURS[number] },
      tracks: {
        'position.y': [key(later, -560), key(later + 18, shut), key(later + 76, shut), key(later + 94, 1_640)],
      },
    },
  );
}

const EMBLEM = 'M50 2 L61 38 L98 38 L68 60 L79 96 L50 74 L21 96 L32 60 L2 38 L39 38 Z';

/** Gate wipe: five bars close before the frame; an emblem is revealed by a matte that grows, and hidden again. */
export function gateWipe(): Scene {
  const middle = { x: 960, y: 500 };
  return demoScene({
    id: 'gate-wipe',
    name: 'Gate wipe',
    rate: RATE,
    length: SPAN.out,
    cues: [
      { id: 'cue-shut', name: 'Shut', at: 30 * frameTicks(RATE) },
      { id: 'cue-open', name: 'Open', at: 76 * frameTicks(RATE) },
    ],
    background: '#0b1230',
    layers: [
      ...Array.from({ length: BARS }, (_, number) => bar(number)),
      layer(
        'gate-matte',
        'Matte: a growing circle',
        'card',
        { ...middle, width: 620, height: 620 },
        {
          tags: ['matte'],
          span: SPAN,
          source: { type: 'ellipse' },
          look: { fill: '#ffffff' },
          tracks: {
            'scale.x': [key(30, 0), key(52, 1.1), key(64, 1.1), key(76, 0)],
            'scale.y': [key(30, 0), key(52, 1.1), key(64, 1.1), key(76, 0)],
          },
        },
      ),
      layer(
        'emblem',
        'Emblem',
        'card',
        { x: 960, y: 460, width: 360, height: 360 },
        {
          tags: ['emblem'],
          span: SPAN,
          source: { type: 'path', d: EMBLEM },
          look: {
            fill: { from: '#fdf3d7', to: '#f3c98b', angle: 0 },
            shadow: '#0b1230',
            matte: { layer: 'gate-matte', how: 'reveals', isShown: false },
          },
          rest: { 'shadow.y': 12, 'shadow.blur': 10, 'shadow.opacity': 0.5 },
          tracks: { rotation: [key(30, -30), key(60, 0)] },
        },
      ),
      layer(
        'gate-words',
        'Words: Saltmarsh Observatory',
        'word',
        { x: 960, y: 690, width: 1_200, height: 90 },
        {
          tags: ['title'],
          span: SPAN,
          look: { fill: '#fdf3d7', matte: { layer: 'gate-matte', how: 'reveals', isShown: false } },
          source: text('Saltmarsh Observatory', {
            font: 'Bricolage Grotesque',
            weight: 700,
            size: 42,
            align: 'middle',
          }),
        },
      ),
    ],
  });
}
