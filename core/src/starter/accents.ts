import type { LibraryItem } from '../preset';
import { CURVES, accent, lasts, moment, parameter, row, rows } from './builder';

const bump = accent(
  {
    id: 'bump',
    name: 'Bump',
    note: 'At a given time the layer swells and comes back, to draw the eye.',
    tags: ['attention'],
  },
  {
    parameters: [
      lasts('12f'),
      parameter('swell', 'Swell', 'percent', '12%', { min: '0%', from: '0%', to: '60%', step: '1%' }),
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('peak', 'Peak', '@lasts × 35%'),
      moment('back', 'Back', '@lasts × 75%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: rows(
      ['scale.x', 'scale.y'],
      [
        ['start', 'here', CURVES.arrive],
        ['peak', 'here × (1 + @swell)', CURVES.soft],
        ['back', 'here × (1 - @swell × 20%)', CURVES.soft],
        ['rest', 'here'],
      ],
    ),
  },
);

const nod = accent(
  {
    id: 'nod',
    name: 'Nod',
    note: 'At a given time the layer tilts one way, then the other, and stands straight again.',
    tags: ['attention'],
  },
  {
    parameters: [
      lasts('16f'),
      parameter('tilt', 'Tilt', 'angle', '8deg', { from: '-45deg', to: '45deg', step: '1deg' }),
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('one', 'One way', '@lasts × 25%'),
      moment('other', 'Other way', '@lasts × 60%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: [
      row('rotation', [
        ['start', 'here', CURVES.soft],
        ['one', 'here + @tilt', CURVES.soft],
        ['other', 'here - @tilt ÷ 2', CURVES.soft],
        ['rest', 'here'],
      ]),
    ],
  },
);

export const ACCENTS: readonly LibraryItem[] = [bump, nod];
