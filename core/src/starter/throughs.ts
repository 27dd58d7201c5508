import type { LibraryItem } from '../preset';
import { CURVES, through, moment, parameter, row, rows } from './builder';

const WHOLE = [moment('start', 'In', '0f'), moment('end', 'Out', 'layer.length')];

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

export const THROUGHS: readonly LibraryItem[] = [drift, slowZoom, twinkle];
