import { matchingExit } from '../authoring';
import type { PresetItem } from '../library';
import { exit, lasts, moment, parameter, row, rows } from './builder';
import { CURVES } from './curves';
import { ENTRANCES } from './entrances';

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

/** The exit that mirrors one of the entrances, under its name. */
function mirrored(id: string, entrance: string, name: string, note: string): PresetItem {
  const source = ENTRANCES.find((item) => item.id === entrance) as PresetItem;
  return { ...source, id, name, note, tags: [...source.tags, 'matching'], body: matchingExit(source.body, entrance) };
}

const MATCHING: readonly PresetItem[] = [
  mirrored('rise-and-settle-exit', 'rise-and-settle', 'Rise & settle (exit)', 'Mirrors the entrance Rise & settle.'),
  mirrored('pop-exit', 'pop-in-five-steps', 'Pop in five steps (exit)', 'Mirrors the entrance Pop in five steps.'),
  mirrored('slide-to-left-edge', 'slide-from-left-edge', 'Slide to left edge', 'Leaves as it came, to the left.'),
  mirrored('slide-to-top-edge', 'slide-from-top-edge', 'Slide to top edge', 'Leaves as it came, to the top.'),
  mirrored('slide-to-bottom-edge', 'slide-from-bottom-edge', 'Slide to bottom edge', 'Leaves as it came, downwards.'),
  mirrored(
    'slide-to-any-angle',
    'slide-from-any-angle',
    'Slide to any angle',
    'Leaves in a direction that you choose.',
  ),
  mirrored('fold-away', 'unfold', 'Fold away', 'Folds up into one of its edges. Mirrors Unfold.'),
  mirrored('spin-out', 'spin-in', 'Spin out', 'Turns more than once while it shrinks. Mirrors Spin in.'),
];

/** The exits that a new library has. */
export const EXITS: readonly PresetItem[] = [fadeOut, sinkAway, slideToRight, shrinkAway, undrawTheLine, ...MATCHING];
