import type { PresetItem } from '../library';
import { accent, lasts, lastsAsHouse, moment, parameter, row, rows } from './builder';
import { CURVES } from './curves';

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

const shake = accent(
  {
    id: 'shake',
    name: 'Shake',
    note: 'At a given time the layer shakes from side to side, less each time, and stands still again.',
    tags: ['attention'],
  },
  {
    parameters: [
      lastsAsHouse('steady'),
      parameter('way', 'Way', 'length', '12px', { min: '0px', from: '0px', to: '80px', step: '1px' }),
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('one', 'Right', '@lasts × 15%'),
      moment('two', 'Left', '@lasts × 35%'),
      moment('three', 'Right again', '@lasts × 55%'),
      moment('four', 'Left again', '@lasts × 75%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: [
      row('position.x', [
        ['start', 'here', CURVES.soft],
        ['one', 'here + @way', CURVES.soft],
        ['two', 'here - @way × 80%', CURVES.soft],
        ['three', 'here + @way × 50%', CURVES.soft],
        ['four', 'here - @way × 25%', CURVES.soft],
        ['rest', 'here'],
      ]),
    ],
  },
);

const breathe = accent(
  {
    id: 'take-a-breath',
    name: 'Take a breath',
    note: 'At a given time the layer swells a little, waits and settles, by as much as the house has it.',
    tags: ['attention', 'calm'],
  },
  {
    parameters: [
      lastsAsHouse('slow'),
      {
        ...parameter('swell', 'Swells', 'number', '0.08', { min: '0', max: '1', from: '0', to: '0.5', step: '0.01' }),
        house: 'house-breath',
      },
    ],
    moments: [
      moment('start', 'Start', '0f'),
      moment('full', 'Full', '@lasts × 40%'),
      moment('wait', 'Waits', '@lasts × 55%'),
      moment('rest', 'Rest', '@lasts'),
    ],
    rows: rows(
      ['scale.x', 'scale.y'],
      [
        ['start', 'here', CURVES.soft],
        ['full', 'here × (1 + @swell)', CURVES.hold],
        ['wait', 'here × (1 + @swell)', CURVES.soft],
        ['rest', 'here'],
      ],
    ),
  },
);

const glow = accent(
  {
    id: 'catch-the-light',
    name: 'Catch the light',
    note: 'At a given time the fill turns to a colour and back, through colours of even steps.',
    tags: ['attention', 'colour'],
  },
  {
    parameters: [
      lastsAsHouse('slow'),
      { ...parameter('light', 'Light', 'colour', '#f3c98b'), house: 'house-lamplight' },
      parameter('share', 'How much', 'percent', '100%', { min: '0%', max: '100%', from: '0%', to: '100%', step: '5%' }),
    ],
    moments: [moment('start', 'Start', '0f'), moment('lit', 'Lit', '@lasts × 35%'), moment('rest', 'Rest', '@lasts')],
    rows: rows(
      ['fill.l', 'fill.a', 'fill.b'],
      [
        ['start', 'here', CURVES.soft],
        ['lit', 'mix(here, @light, @share)', CURVES.gentle],
        ['rest', 'here'],
      ],
    ),
  },
);

const freeze = accent(
  {
    id: 'freeze',
    name: 'Freeze',
    note: 'From a given time on the layer stands still for a while, then goes on from where it stood.',
    tags: ['hold'],
  },
  {
    parameters: [lasts('25f', '150f')],
    moments: [moment('start', 'Freeze', '0f'), moment('end', 'Go on', '@lasts')],
    rows: rows(
      ['position.x', 'position.y', 'scale.x', 'scale.y', 'rotation', 'opacity'],
      [
        ['start', 'here', CURVES.hold],
        ['end', 'here'],
      ],
    ),
  },
);

const SWAPS = 'place mod 2 = 0';

const tradeSizes = accent(
  {
    id: 'trade-sizes',
    name: 'Trade sizes',
    note: 'Layers side by side, every other one large: at a given time the large become small and the small large.',
    tags: ['pairs'],
  },
  {
    parameters: [
      lastsAsHouse('steady'),
      parameter('large', 'Large', 'percent', '120%', { min: '1%', from: '100%', to: '200%', step: '1%' }),
      parameter('small', 'Small', 'percent', '70%', { min: '1%', from: '20%', to: '100%', step: '1%' }),
    ],
    moments: [moment('start', 'Start', '0f'), moment('end', 'Traded', '@lasts')],
    rows: rows(
      ['scale.x', 'scale.y'],
      [
        ['start', `rest × (if ${SWAPS} then @large else @small)`, CURVES.soft],
        ['end', `rest × (if ${SWAPS} then @small else @large)`],
      ],
    ),
  },
);

/** The accents that a new library has. */
export const ACCENTS: readonly PresetItem[] = [bump, nod, shake, breathe, glow, freeze, tradeSizes];
