import type { PresetItem } from '../library';
import { entrance, lasts, lastsAsHouse, moment, parameter, row, rows } from './builder';
import { CURVES } from './curves';
import { LIVELY_ENTRANCES } from './lively-entrances';

const SCALES = ['scale.x', 'scale.y'] as const;

const popInFiveSteps = entrance(
  {
    id: 'pop-in-five-steps',
    name: 'Pop in five steps',
    note: 'Grows from nothing past its full size and swings in to it in five steps.',
    tags: ['lively'],
  },
  {
    parameters: [
      lasts('18f', '90f'),
      parameter(
        'over',
        'Past full size',
        'percent',
        '20%',
        { min: '0%', max: '100%', from: '0%', to: '60%', step: '1%' },
        'first peak; later ones follow',
      ),
      parameter(
        'live',
        'Liveliness',
        'percent',
        '100%',
        { min: '0%', max: '200%', from: '0%', to: '150%', step: '5%' },
        '0 is a plain grow',
      ),
      parameter('fade', 'Fade in first', 'switch', 'off'),
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('peak', 'Peak', '@lasts × 8 ÷ 18'),
      moment('dip', 'Dip', '@lasts × 11 ÷ 18'),
      moment('echo', 'Echo', '@lasts × 14 ÷ 18'),
      moment('last', 'Last dip', '@lasts × 16 ÷ 18'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: [
      ...rows(SCALES, [
        ['start', '0', CURVES.arrive],
        ['peak', 'rest × (1 + @over)', CURVES.soft],
        ['dip', 'rest × (1 - @over × @live)', CURVES.soft],
        ['echo', 'rest × (1 + @over × @live ÷ 2)', CURVES.soft],
        ['last', 'rest × (1 - @over × @live ÷ 2)', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row(
        'opacity',
        [
          ['start', '0', CURVES.even],
          ['peak', 'rest'],
        ],
        'fade',
      ),
    ],
  },
);

const riseAndSettle = entrance(
  {
    id: 'rise-and-settle',
    name: 'Rise & settle',
    note: 'Comes up from below, passes its place once and settles.',
    tags: ['calm', 'rows'],
  },
  {
    parameters: [
      lasts('20f'),
      parameter('rise', 'Rise', 'length', '60px', { from: '0px', to: '300px', step: '1px' }),
      parameter('over', 'Past its place', 'percent', '12%', {
        min: '0%',
        max: '100%',
        from: '0%',
        to: '50%',
        step: '1%',
      }),
      parameter('tilt', 'Tilt', 'angle', '6deg', { from: '-30deg', to: '30deg', step: '1deg' }),
      parameter('fade', 'Fades in', 'time', '5f', { min: '0f', from: '0f', to: '20f', step: '1f' }),
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('seen', 'Seen', 'min(@fade, @lasts)'),
      moment('past', 'Past', '@lasts × 55%'),
      moment('back', 'Back', '@lasts × 80%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: [
      row('position.y', [
        ['start', 'rest + @rise', CURVES.arrive],
        ['past', 'rest - @rise × @over', CURVES.soft],
        ['back', 'rest + @rise × @over × 30%', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('rotation', [
        ['start', 'rest + @tilt', CURVES.arrive],
        ['past', 'rest - @tilt × @over', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('opacity', [
        ['start', '0', CURVES.even],
        ['seen', 'rest'],
      ]),
    ],
  },
);

const EDGE_PARAMETERS = [
  lasts('16f'),
  parameter('over', 'Past its place', 'length', '24px', { min: '0px', from: '0px', to: '120px', step: '1px' }),
];

const EDGE_MOMENTS = [
  moment('start', 'Start', '0f'),
  moment('past', 'Past', '@lasts × 70%'),
  moment('rest', 'Rest', '@lasts'),
];

const slideFromLeft = entrance(
  {
    id: 'slide-from-left-edge',
    name: 'Slide from left edge',
    note: 'Begins just outside the frame on the left, whatever the size of layer and frame.',
    tags: ['edge'],
  },
  {
    parameters: EDGE_PARAMETERS,
    moments: EDGE_MOMENTS,
    rows: [
      row('position.x', [
        ['start', 'rest - layer.right', CURVES.arrive],
        ['past', 'rest + @over', CURVES.soft],
        ['rest', 'rest'],
      ]),
    ],
  },
);

const slideFromTop = entrance(
  {
    id: 'slide-from-top-edge',
    name: 'Slide from top edge',
    note: 'Begins just outside the frame at the top, whatever the size of layer and frame.',
    tags: ['edge'],
  },
  {
    parameters: EDGE_PARAMETERS,
    moments: EDGE_MOMENTS,
    rows: [
      row('position.y', [
        ['start', 'rest - layer.bottom', CURVES.arrive],
        ['past', 'rest + @over', CURVES.soft],
        ['rest', 'rest'],
      ]),
    ],
  },
);

const slideFromBottom = entrance(
  {
    id: 'slide-from-bottom-edge',
    name: 'Slide from bottom edge',
    note: 'Begins just outside the frame at the bottom, whatever the size of layer and frame.',
    tags: ['edge'],
  },
  {
    parameters: EDGE_PARAMETERS,
    moments: EDGE_MOMENTS,
    rows: [
      row('position.y', [
        ['start', 'rest + frame.height - layer.top', CURVES.arrive],
        ['past', 'rest - @over', CURVES.soft],
        ['rest', 'rest'],
      ]),
    ],
  },
);

const slideAtAngle = entrance(
  {
    id: 'slide-from-any-angle',
    name: 'Slide from any angle',
    note: 'Comes from a direction that you choose, over a distance that you choose, and fades in on the way.',
    tags: ['calm'],
  },
  {
    parameters: [
      lastsAsHouse('steady'),
      parameter(
        'angle',
        'From',
        'angle',
        '135deg',
        { from: '-180deg', to: '180deg', step: '5deg' },
        '0° is from the right, 90° from below',
      ),
      parameter('way', 'Distance', 'length', '160px', { min: '0px', from: '0px', to: '1000px', step: '5px' }),
      parameter('fade', 'Fades in', 'switch', 'on'),
    ],
    moments: [moment('start', 'Start', '0f'), moment('seen', 'Seen', '@lasts × 40%'), moment('rest', 'Rest', '@lasts')],
    rows: [
      row('position.x', [
        ['start', 'rest + @way × cos(@angle)', CURVES.arrive],
        ['rest', 'rest'],
      ]),
      row('position.y', [
        ['start', 'rest + @way × sin(@angle)', CURVES.arrive],
        ['rest', 'rest'],
      ]),
      row(
        'opacity',
        [
          ['start', '0', CURVES.even],
          ['seen', 'rest'],
        ],
        'fade',
      ),
    ],
  },
);

const slideFromRight = entrance(
  {
    id: 'slide-from-right-edge',
    name: 'Slide from right edge',
    note: 'Begins just outside the frame on the right, whatever the size of layer and frame.',
    tags: ['edge'],
  },
  {
    parameters: EDGE_PARAMETERS,
    moments: EDGE_MOMENTS,
    rows: [
      row('position.x', [
        ['start', 'rest + frame.width - layer.left', CURVES.arrive],
        ['past', 'rest - @over', CURVES.soft],
        ['rest', 'rest'],
      ]),
    ],
  },
);

const fadeWithZoom = entrance(
  {
    id: 'fade-with-a-breath',
    name: 'Fade with a breath',
    note: 'Fades in while it grows by a little, as if it drew breath.',
    tags: ['calm'],
  },
  {
    parameters: [
      lastsAsHouse('steady'),
      parameter('from', 'From size', 'percent', '92%', { min: '0%', from: '70%', to: '130%', step: '1%' }),
    ],
    moments: [moment('start', 'Start', '0f'), moment('rest', 'Rest', '@lasts')],
    rows: [
      row('opacity', [
        ['start', '0', CURVES.gentle],
        ['rest', 'rest'],
      ]),
      ...rows(SCALES, [
        ['start', 'rest × @from', CURVES.arrive],
        ['rest', 'rest'],
      ]),
    ],
  },
);

const fadeIn = entrance(
  {
    id: 'fade-in',
    name: 'Fade in',
    note: 'Fades in to the opacity that the layer has, not to full opacity.',
    tags: ['calm', 'plain'],
  },
  {
    parameters: [lasts('12f')],
    moments: [moment('start', 'Start', '0f'), moment('rest', 'Rest', '@lasts')],
    rows: [
      row('opacity', [
        ['start', '0', CURVES.even],
        ['rest', 'rest'],
      ]),
    ],
  },
);

const growFromAnchor = entrance(
  {
    id: 'grow-from-anchor',
    name: 'Grow from anchor',
    note: 'Grows from its anchor point to its full size without passing it.',
    tags: ['plain'],
  },
  {
    parameters: [lasts('12f')],
    moments: [moment('start', 'Start', '0f'), moment('rest', 'Rest', '@lasts')],
    rows: rows(SCALES, [
      ['start', '0', CURVES.arrive],
      ['rest', 'rest'],
    ]),
  },
);

const drawTheLine = entrance(
  {
    id: 'draw-the-line',
    name: 'Draw the line',
    note: 'Draws an outline or a line from its beginning to its end.',
    tags: ['lines'],
  },
  {
    parameters: [lasts('18f')],
    moments: [moment('start', 'Start', '0f'), moment('rest', 'Drawn', '@lasts')],
    rows: [
      row('stroke.end', [
        ['start', '0', CURVES.gentle],
        ['rest', 'rest'],
      ]),
    ],
  },
);

const lettersOpen = entrance(
  {
    id: 'letters-open',
    name: 'Letters open',
    note: 'A word fades in while its letters move apart to their places.',
    tags: ['words'],
  },
  {
    parameters: [
      lasts('22f'),
      parameter('tight', 'Tighter by', 'length', '10px', { from: '-40px', to: '40px', step: '1px' }),
    ],
    moments: [moment('start', 'Start', '0f'), moment('seen', 'Seen', '@lasts × 60%'), moment('rest', 'Rest', '@lasts')],
    rows: [
      row('letterSpacing', [
        ['start', 'rest - @tight', CURVES.arrive],
        ['rest', 'rest'],
      ]),
      row('opacity', [
        ['start', '0', CURVES.even],
        ['seen', 'rest'],
      ]),
    ],
  },
);

/** The entrances that a new library has. */
export const ENTRANCES: readonly PresetItem[] = [
  riseAndSettle,
  popInFiveSteps,
  slideFromLeft,
  slideFromRight,
  slideFromTop,
  slideFromBottom,
  slideAtAngle,
  fadeWithZoom,
  fadeIn,
  growFromAnchor,
  drawTheLine,
  lettersOpen,
  ...LIVELY_ENTRANCES,
];
