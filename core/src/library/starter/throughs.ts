import type { PresetItem } from '../library';
import { through, moment, parameter, row, rows } from './builder';
import { CURVES } from './curves';

const WHOLE = [moment('start', 'In', '0f'), moment('end', 'Out', 'layer.length')];

const FADE_LIMITS = { min: '0f', from: '0f', to: '50f', step: '1f' };

const drift = through(
  {
    id: 'drift',
    name: 'Drift',
    note: 'Moves slowly through its place over the whole span, half the way before and half after.',
    tags: ['calm'],
  },
  {
    parameters: [
      parameter('way', 'Way', 'length', '40px', { from: '0px', to: '400px', step: '1px' }),
      parameter(
        'angle',
        'Towards',
        'angle',
        '0deg',
        { from: '-180deg', to: '180deg', step: '5deg' },
        '0° is to the right, 90° down',
      ),
    ],
    moments: WHOLE,
    rows: [
      row('position.x', [
        ['start', 'rest - @way ÷ 2 × cos(@angle)', CURVES.even],
        ['end', 'rest + @way ÷ 2 × cos(@angle)'],
      ]),
      row('position.y', [
        ['start', 'rest - @way ÷ 2 × sin(@angle)', CURVES.even],
        ['end', 'rest + @way ÷ 2 × sin(@angle)'],
      ]),
    ],
  },
);

const slowZoom = through(
  {
    id: 'slow-zoom',
    name: 'Slow zoom',
    note: 'Grows slowly over the whole span and ends at its own size.',
    tags: ['calm'],
  },
  {
    parameters: [parameter('from', 'From size', 'percent', '94%', { min: '1%', from: '60%', to: '140%', step: '1%' })],
    moments: WHOLE,
    rows: rows(
      ['scale.x', 'scale.y'],
      [
        ['start', 'rest × @from', CURVES.even],
        ['end', 'rest'],
      ],
    ),
  },
);

const twinkle = through(
  {
    id: 'twinkle',
    name: 'Twinkle',
    note: 'Dims and brightens three times over the whole span, each layer in its own way by seed.',
    tags: ['lights'],
  },
  {
    parameters: [
      parameter('depth', 'Depth', 'percent', '50%', { min: '0%', max: '100%', from: '0%', to: '100%', step: '5%' }),
    ],
    moments: [
      moment('start', 'In', '0f'),
      moment('first', 'First dip', 'layer.length × (20% + random(seed + place) × 10%)'),
      moment('second', 'Second dip', 'layer.length × (45% + random(seed + place + 1000) × 10%)'),
      moment('third', 'Third dip', 'layer.length × (70% + random(seed + place + 2000) × 10%)'),
      moment('end', 'Out', 'layer.length'),
    ],
    rows: [
      row('opacity', [
        ['start', 'rest', CURVES.soft],
        ['first', 'rest × (1 - @depth)', CURVES.soft],
        ['second', 'rest × (1 - @depth × random(seed + place + 3000))', CURVES.soft],
        ['third', 'rest × (1 - @depth)', CURVES.soft],
        ['end', 'rest'],
      ]),
    ],
  },
);

const fadeBoth = through(
  {
    id: 'fade-in-and-out',
    name: 'Fade in and out',
    note: 'Four keys: in to the opacity that the layer has, and out again before its out point.',
    tags: ['calm', 'plain'],
  },
  {
    parameters: [
      { ...parameter('in', 'Fades in', 'time', '14f', FADE_LIMITS), house: 'house-steady' },
      { ...parameter('out', 'Fades out', 'time', '14f', FADE_LIMITS), house: 'house-steady' },
    ],
    moments: [
      moment('start', 'In', '0f'),
      moment('there', 'There', 'min(@in, layer.length ÷ 2)'),
      moment('leaves', 'Leaves', 'layer.length - min(@out, layer.length ÷ 2)'),
      moment('gone', 'Gone', 'layer.length'),
    ],
    rows: [
      row('opacity', [
        ['start', '0', CURVES.even],
        ['there', 'rest', CURVES.hold],
        ['leaves', 'rest', CURVES.even],
        ['gone', '0'],
      ]),
    ],
  },
);

const slowTurn = through(
  {
    id: 'slow-turn',
    name: 'Slow turn',
    note: 'Turns evenly over the whole span, half of it before its own angle and half after.',
    tags: ['calm'],
  },
  {
    parameters: [parameter('angle', 'By', 'angle', '12deg', { from: '-360deg', to: '360deg', step: '1deg' })],
    moments: WHOLE,
    rows: [
      row('rotation', [
        ['start', 'rest - @angle ÷ 2', CURVES.even],
        ['end', 'rest + @angle ÷ 2'],
      ]),
    ],
  },
);

/** What a new library has for moving throughout. */
export const THROUGHS: readonly PresetItem[] = [drift, slowZoom, twinkle, fadeBoth, slowTurn];
