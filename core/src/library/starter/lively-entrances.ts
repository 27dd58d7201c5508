import type { ChannelId } from '../../basics/channel';
import type { PresetItem } from '../library';
import type { Row } from '../../formulas/preset';
import { entrance, lasts, lastsAsHouse, moment, parameter, row, rows } from './builder';
import { CURVES } from './curves';

const SCALES = ['scale.x', 'scale.y'] as const;

/** A pivot other than the layer's own anchor: it is put there for as long as the preset lasts, and back at the end. */
function pivotRows(x: string, y: string, atX: string, atY: string): Row[] {
  const held = (channel: ChannelId, value: string): Row =>
    row(channel, [
      ['start', value, CURVES.hold],
      ['rest', 'rest'],
    ]);
  return [
    held('anchor.x', x),
    held('anchor.y', y),
    held('position.x', `rest - layer.x + ${atX}`),
    held('position.y', `rest - layer.y + ${atY}`),
  ];
}

const CORNERS = [
  { name: 'bottomLeft', label: 'Bottom left' },
  { name: 'bottomRight', label: 'Bottom right' },
  { name: 'topLeft', label: 'Top left' },
  { name: 'topRight', label: 'Top right' },
];

const ON_RIGHT = '@corner.bottomRight or @corner.topRight';
const ON_TOP = '@corner.topLeft or @corner.topRight';

const tipOver = entrance(
  {
    id: 'tip-over',
    name: 'Tip over',
    note: 'Lies on its side and is tipped up about one of its corners until it stands. For upright layers.',
    tags: ['lively'],
  },
  {
    parameters: [
      lasts('18f'),
      { ...parameter('corner', 'About', 'choice', 'bottomLeft'), options: CORNERS },
      parameter('angle', 'From', 'angle', '90deg', { from: '-180deg', to: '180deg', step: '5deg' }),
      parameter('over', 'Past upright', 'angle', '4deg', { min: '0deg', from: '0deg', to: '30deg', step: '1deg' }),
    ],
    moments: [
      moment('start', 'Lying', '0f'),
      moment('seen', 'Seen', '@lasts × 15%'),
      moment('past', 'Past', '@lasts × 70%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: [
      row('rotation', [
        ['start', 'rest + @angle', CURVES.arrive],
        ['past', 'rest - @over × sign(@angle)', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('opacity', [
        ['start', '0', CURVES.even],
        ['seen', 'rest'],
      ]),
      ...pivotRows(
        `if ${ON_RIGHT} then 1 else 0`,
        `if ${ON_TOP} then 0 else 1`,
        `(if ${ON_RIGHT} then layer.right else layer.left)`,
        `(if ${ON_TOP} then layer.top else layer.bottom)`,
      ),
    ],
  },
);

const swingIn = entrance(
  {
    id: 'swing-in',
    name: 'Swing in',
    note: 'Hangs from the middle of its top edge and swings to and fro until it hangs still.',
    tags: ['lively'],
  },
  {
    parameters: [
      lasts('30f', '90f'),
      parameter('angle', 'First swing', 'angle', '35deg', { from: '-90deg', to: '90deg', step: '1deg' }),
      parameter('calm', 'Calms by', 'percent', '55%', { min: '0%', max: '100%', from: '10%', to: '90%', step: '5%' }),
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('seen', 'Seen', '@lasts × 12%'),
      moment('first', 'First', '@lasts × 28%'),
      moment('second', 'Second', '@lasts × 52%'),
      moment('third', 'Third', '@lasts × 76%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: [
      row('rotation', [
        ['start', 'rest + @angle', CURVES.soft],
        ['first', 'rest - @angle × (1 - @calm)', CURVES.soft],
        ['second', 'rest + @angle × (1 - @calm) ^ 2', CURVES.soft],
        ['third', 'rest - @angle × (1 - @calm) ^ 3', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('opacity', [
        ['start', '0', CURVES.even],
        ['seen', 'rest'],
      ]),
      ...pivotRows('0.5', '0', '(layer.left + layer.right) ÷ 2', 'layer.top'),
    ],
  },
);

const EDGES = [
  { name: 'top', label: 'Top' },
  { name: 'bottom', label: 'Bottom' },
  { name: 'left', label: 'Left' },
  { name: 'right', label: 'Right' },
];

const unfold = entrance(
  {
    id: 'unfold',
    name: 'Unfold',
    note: 'Folds open from one of its edges, as a blind or a door does. For upright layers.',
    tags: ['plain'],
  },
  {
    parameters: [lastsAsHouse('steady'), { ...parameter('edge', 'From', 'choice', 'top'), options: EDGES }],
    moments: [moment('start', 'Start', '0f'), moment('rest', 'Rest', '@lasts')],
    rows: [
      row('scale.x', [
        ['start', 'if @edge.left or @edge.right then 0 else rest', CURVES.arrive],
        ['rest', 'rest'],
      ]),
      row('scale.y', [
        ['start', 'if @edge.left or @edge.right then rest else 0', CURVES.arrive],
        ['rest', 'rest'],
      ]),
      ...pivotRows(
        'if @edge.left then 0 else if @edge.right then 1 else 50%',
        'if @edge.top then 0 else if @edge.bottom then 1 else 50%',
        '(if @edge.left then layer.left else if @edge.right then layer.right else (layer.left + layer.right) ÷ 2)',
        '(if @edge.top then layer.top else if @edge.bottom then layer.bottom else (layer.top + layer.bottom) ÷ 2)',
      ),
    ],
  },
);

const spinIn = entrance(
  {
    id: 'spin-in',
    name: 'Spin in',
    note: 'Turns more than once about its anchor while it grows to its size, and stops upright.',
    tags: ['lively'],
  },
  {
    parameters: [
      lastsAsHouse('slow'),
      parameter('turns', 'Turns', 'number', '1.5', { from: '-4', to: '4', step: '0.25' }),
      parameter('from', 'From size', 'percent', '0%', { min: '0%', from: '0%', to: '150%', step: '5%' }),
    ],
    moments: [moment('start', 'Start', '0f'), moment('rest', 'Rest', '@lasts')],
    rows: [
      row('rotation', [
        ['start', 'rest - @turns × turn', CURVES.arrive],
        ['rest', 'rest'],
      ]),
      ...rows(SCALES, [
        ['start', 'rest × @from', CURVES.arrive],
        ['rest', 'rest'],
      ]),
    ],
  },
);

const dropAndSquash = entrance(
  {
    id: 'drop-and-squash',
    name: 'Drop & squash',
    note: 'Falls from above, is squashed as it lands and stretches once; its area stays the same.',
    tags: ['lively'],
  },
  {
    parameters: [
      lasts('22f'),
      parameter('fall', 'Falls from', 'length', '240px', { min: '0px', from: '0px', to: '1000px', step: '10px' }),
      parameter('squash', 'Squash', 'percent', '30%', { min: '0%', max: '80%', from: '0%', to: '60%', step: '1%' }),
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('seen', 'Seen', '@lasts × 20%'),
      moment('lands', 'Lands', '@lasts × 40%'),
      moment('flat', 'Flat', '@lasts × 54%'),
      moment('long', 'Long', '@lasts × 76%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: [
      row('position.y', [
        ['start', 'rest - @fall', CURVES.depart],
        ['lands', 'rest', CURVES.soft],
        ['flat', 'rest + (layer.bottom - layer.y) × @squash', CURVES.soft],
        ['long', 'rest - (layer.bottom - layer.y) × @squash ÷ 3', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('scale.y', [
        ['lands', 'rest', CURVES.arrive],
        ['flat', 'rest × (1 - @squash)', CURVES.soft],
        ['long', 'rest × (1 + @squash ÷ 3)', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('scale.x', [
        ['lands', 'rest', CURVES.arrive],
        ['flat', 'rest ÷ (1 - @squash)', CURVES.soft],
        ['long', 'rest ÷ (1 + @squash ÷ 3)', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('opacity', [
        ['start', '0', CURVES.even],
        ['seen', 'rest'],
      ]),
    ],
  },
);

const bounceIn = entrance(
  {
    id: 'drop-and-bounce',
    name: 'Drop & bounce',
    note: 'Falls into its place from above and bounces until it lies still.',
    tags: ['lively'],
  },
  {
    parameters: [
      lastsAsHouse('slow'),
      parameter('fall', 'Falls from', 'length', '200px', { from: '0px', to: '1000px', step: '10px' }),
    ],
    moments: [moment('start', 'Start', '0f'), moment('seen', 'Seen', '@lasts × 20%'), moment('rest', 'Rest', '@lasts')],
    rows: [
      row('position.y', [
        ['start', 'rest - @fall', CURVES.drop],
        ['rest', 'rest'],
      ]),
      row('opacity', [
        ['start', '0', CURVES.even],
        ['seen', 'rest'],
      ]),
    ],
  },
);

const spiralHome = entrance(
  {
    id: 'spiral-home',
    name: 'Spiral home',
    note: 'Comes to its place on a spiral, turning and growing on the way.',
    tags: ['lively'],
  },
  {
    parameters: [
      lastsAsHouse('slow'),
      parameter('radius', 'From distance', 'length', '160px', { min: '0px', from: '0px', to: '600px', step: '5px' }),
      parameter('from', 'From size', 'percent', '30%', { min: '0%', from: '0%', to: '150%', step: '5%' }),
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('second', 'A third', '@lasts ÷ 4'),
      moment('third', 'Two thirds', '@lasts ÷ 2'),
      moment('fourth', 'Nearly', '@lasts × 75%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: [
      row('position.x', [
        ['start', 'rest - @radius', CURVES.soft],
        ['second', 'rest', CURVES.soft],
        ['third', 'rest + @radius × 45%', CURVES.soft],
        ['fourth', 'rest', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('position.y', [
        ['start', 'rest', CURVES.soft],
        ['second', 'rest - @radius × 70%', CURVES.soft],
        ['third', 'rest', CURVES.soft],
        ['fourth', 'rest + @radius × 20%', CURVES.soft],
        ['rest', 'rest'],
      ]),
      row('rotation', [
        ['start', 'rest - turn', CURVES.gentle],
        ['rest', 'rest'],
      ]),
      ...rows(SCALES, [
        ['start', 'rest × @from', CURVES.gentle],
        ['rest', 'rest'],
      ]),
      row('opacity', [
        ['start', '0', CURVES.even],
        ['second', 'rest'],
      ]),
    ],
  },
);

const cutIn = entrance(
  {
    id: 'cut-in',
    name: 'Cut in',
    note: 'Is simply there after a wait; nothing moves. Good where others around it move.',
    tags: ['plain'],
  },
  {
    parameters: [parameter('wait', 'After', 'time', '6f', { min: '1f', from: '1f', to: '50f', step: '1f' })],
    moments: [moment('start', 'Hidden', '0f'), moment('rest', 'There', '@wait')],
    rows: [
      row('opacity', [
        ['start', '0', CURVES.hold],
        ['rest', 'rest'],
      ]),
    ],
  },
);

/** Entrances that turn, fall, unfold and swing. */
export const LIVELY_ENTRANCES: readonly PresetItem[] = [
  tipOver,
  swingIn,
  unfold,
  spinIn,
  dropAndSquash,
  bounceIn,
  spiralHome,
  cutIn,
];
