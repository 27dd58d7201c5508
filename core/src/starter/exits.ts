import type { LibraryItem } from '../preset';
import { CURVES, exit, lasts, moment, parameter, row, rows } from './builder';

const START_AND_GONE = [moment('start', 'Rest', '0f'), moment('gone', 'Gone', '@lasts')];

const fadeOut = exit(
  {
    id: 'fade-out',
    name: 'Fade out',
    note: 'Fades from the opacity that the layer has to nothing, and is gone at its out point.',
    tags: ['calm', 'plain'],
  },
  {
    parameters: [lasts('12f')],
    moments: START_AND_GONE,
    rows: [
      row('opacity', [
        ['start', 'rest', CURVES.even],
        ['gone', '0'],
      ]),
    ],
  },
);

const sinkAway = exit(
  {
    id: 'sink-away',
    name: 'Sink away',
    note: 'Gathers itself upwards a little, then sinks and fades.',
    tags: ['calm', 'rows'],
  },
  {
    parameters: [
      lasts('16f'),
      parameter('fall', 'Fall', 'length', '60px', { from: '0px', to: '300px', step: '1px' }),
      parameter('gather', 'Gathers', 'percent', '12%', { min: '0%', max: '100%', from: '0%', to: '50%', step: '1%' }),
    ],
    moments: [
      moment('start', 'Rest', '0f'),
      moment('up', 'Gathered', '@lasts × 30%'),
      moment('dim', 'Dimming', '@lasts × 60%'),
      moment('gone', 'Gone', '@lasts'),
    ],
    rows: [
      row('position.y', [
        ['start', 'rest', CURVES.soft],
        ['up', 'rest - @fall × @gather', CURVES.depart],
        ['gone', 'rest + @fall'],
      ]),
      row('opacity', [
        ['start', 'rest', CURVES.hold],
        ['dim', 'rest', CURVES.even],
        ['gone', '0'],
      ]),
    ],
  },
);

const slideToRight = exit(
  {
    id: 'slide-to-right-edge',
    name: 'Slide to right edge',
    note: 'Leaves until it is just outside the frame on the right.',
    tags: ['edge'],
  },
  {
    parameters: [lasts('14f')],
    moments: START_AND_GONE,
    rows: [
      row('position.x', [
        ['start', 'rest', CURVES.depart],
        ['gone', 'rest + frame.width - layer.left'],
      ]),
    ],
  },
);

const shrinkAway = exit(
  {
    id: 'shrink-away',
    name: 'Shrink away',
    note: 'Swells a little and shrinks into its anchor point.',
    tags: ['lively'],
  },
  {
    parameters: [
      lasts('12f'),
      parameter('over', 'Swells first', 'percent', '10%', { min: '0%', from: '0%', to: '50%', step: '1%' }),
    ],
    moments: [
      moment('start', 'Rest', '0f'),
      moment('swell', 'Swell', '@lasts × 35%'),
      moment('gone', 'Gone', '@lasts'),
    ],
    rows: rows(
      ['scale.x', 'scale.y'],
      [
        ['start', 'rest', CURVES.soft],
        ['swell', 'rest × (1 + @over)', CURVES.depart],
        ['gone', '0'],
      ],
    ),
  },
);

const undrawTheLine = exit(
  {
    id: 'undraw-the-line',
    name: 'Undraw the line',
    note: 'Takes a line away from its beginning to its end.',
    tags: ['lines'],
  },
  {
    parameters: [lasts('14f')],
    moments: START_AND_GONE,
    rows: [
      row('stroke.start', [
        ['start', 'rest', CURVES.gentle],
        ['gone', '1'],
      ]),
    ],
  },
);

export const EXITS: readonly LibraryItem[] = [fadeOut, sinkAway, slideToRight, shrinkAway, undrawTheLine];
