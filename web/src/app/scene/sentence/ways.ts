import type { ChannelUnit } from '@wexikine/core';
import { field, way, type Way, type WayField } from './way-fields';

const AXES = [
  ['across', 'across'],
  ['down', 'down'],
] as const;
const AXIS = field('axis', 'Along', 'choice', { options: AXES });
const POINT = [field('x', 'From the left', 'percent'), field('y', 'From the top', 'percent')];
const SNAKING = field('snaking', 'Snaking: every other one runs back', 'switch', { optional: true });

const WRAP = field('wrap', 'Those past the end begin again with the first', 'switch', { optional: true });

/** What every order can have besides its own fields. */
export const ORDER_FIELDS: readonly WayField[] = [
  field('reversed', 'The other way round', 'switch', { optional: true }),
  field('blocks', 'How many at a time', 'count', {
    least: 2,
    optional: true,
    empty: 'Leave it empty to take them one by one.',
  }),
];

/** Ways of an order. */
export const ORDER_WAYS: readonly Way[] = [
  way('layered', 'As layered', 'back to front'),
  way('name', 'By name', '2 comes before 10'),
  way('across', 'Across', 'left to right'),
  way('down', 'Down', 'top to bottom'),
  way('angle', 'Along an angle', '0° to the right, 90° down', { degrees: 45 }, [field('degrees', 'Angle', 'degrees')]),
  way('out-from', 'Out from a point', 'drag it on the preview', { x: 0.5, y: 0.5 }, POINT),
  way('grid', 'Row by row', 'or column by column', { lead: 'rows' }, [
    field('lead', 'First', 'choice', {
      options: [
        ['rows', 'along rows'],
        ['columns', 'along columns'],
      ],
    }),
    SNAKING,
  ]),
  way('in-point', 'By in point', 'the earliest first'),
  way('data', 'By a data column', 'numbers by size, texts by name', { column: '' }, [
    field('column', 'Column', 'column'),
  ]),
  way('shuffled', 'Shuffled', 'the same for the same seed', { seed: 1 }, [field('seed', 'Seed', 'seed')]),
  way('hand', 'By hand', 'drag rows in the sheet', { layers: [] }),
];

/** Ways of a start, for an operation. */
export function startWays(isExit: boolean): readonly Way[] {
  return [
    isExit
      ? way('layer', 'At each out point', 'the last one ends there')
      : way('layer', 'At each in point', 'later ones wait their turn'),
    way('time', 'At a time of the scene', '', { at: '' }, [field('at', 'Time', 'time')]),
    way('cue', 'On a cue', '', { cue: '' }, [field('cue', 'Cue', 'cue')]),
    way('finish', 'Such that the last is done at …', 'the start follows', { at: '' }, [
      field('at', 'Last one done at', 'time'),
    ]),
  ];
}

/** Ways of a spacing. */
export const SPACING_WAYS: readonly Way[] = [
  way('gap', 'One every …', 'a gap from start to start', { gap: '4f' }, [field('gap', 'Gap', 'time')]),
  way('total', 'All begun within …', 'evenly, or along a curve', { total: '1s' }, [
    field('total', 'Time', 'time'),
    field('curve', 'Along a curve', 'curve', { optional: true }),
  ]),
  way('relay', 'In relay', 'the next begins as the last one ends', { gap: '0f' }, [
    field('gap', 'Gap, negative to overlap', 'signed-time'),
  ]),
  way('cues', 'On the cues', 'one on each, from the start on', {}, [WRAP]),
  way('rows', 'Rows that are replaced', 'rows take turns', { rows: 3, apart: '1s', hold: '3s' }, [
    field('rows', 'Rows', 'count', { least: 1 }),
    field('apart', 'From row to row', 'time'),
    field('hold', 'Replaced after', 'time'),
    WRAP,
  ]),
  way('finish', 'Such that the last is done at …', 'the gap follows', { at: '' }, [
    field('at', 'Last one done at', 'time'),
  ]),
];

/** Ways of a length. */
export const LENGTH_WAYS: readonly Way[] = [
  way('preset', 'The preset’s own length', 'as it was built'),
  way('fixed', 'A fixed length', '', { length: '20f' }, [field('length', 'Length', 'time', { least: 1 })]),
  way('factor', 'Times a factor', '', { factor: 1.5 }, [
    field('factor', 'Factor', 'number', { least: 0.05, most: 20 }),
  ]),
  way('fit', 'What fits into a time', 'from the first start to the last end', { window: '2s' }, [
    field('window', 'All of it lasts', 'time', { least: 1 }),
  ]),
  way('speed', 'From a speed', 'the way of each layer over it', { speed: 800 }, [
    field('speed', 'Pixels a second', 'number', { least: 1 }),
  ]),
  way('random', 'At random', 'the same for the same seed', { from: '12f', to: '24f', seed: 1 }, [
    field('from', 'From', 'time', { least: 1 }),
    field('to', 'To', 'time', { least: 1 }),
    field('seed', 'Seed', 'seed'),
  ]),
  way('finish', 'Such that the last is done at …', 'the length follows', { at: '' }, [
    field('at', 'Last one done at', 'time'),
  ]),
];

/** Ways of lining up. */
export const LINE_UP_WAYS: readonly Way[] = [
  way('end', 'A common end', 'out points trimmed or lengthened', { at: { by: 'latest' } }, [
    field('at', 'End at', 'edge'),
  ]),
  way('begin', 'A common beginning', 'in points trimmed or lengthened', { at: { by: 'earliest' } }, [
    field('at', 'Begin at', 'edge'),
  ]),
  way('length', 'Equal lengths', 'in points stay', { length: '2s' }, [field('length', 'Length', 'time', { least: 1 })]),
  way('butt', 'End to end', 'slid, not trimmed', { gap: '0f' }, [
    field('gap', 'Gap, negative to overlap', 'signed-time'),
  ]),
  way('relay', 'In relay', 'each trimmed to where the next begins', { overlap: '0f' }, [
    field('overlap', 'Overlap', 'signed-time'),
  ]),
  way('slide', 'One every …', 'slid, not trimmed', { to: { by: 'time', at: '0f' }, gap: '10f' }, [
    field('to', 'The first at', 'moment'),
    field('gap', 'Gap', 'signed-time'),
  ]),
  way(
    'rows',
    'Rows that are replaced',
    'rows take turns, each replaced by the next',
    { rows: 3, from: { by: 'time', at: '0f' }, apart: '1s', hold: '3s' },
    [
      field('from', 'The first at', 'moment'),
      field('rows', 'Rows', 'count', { least: 1 }),
      field('apart', 'From row to row', 'time'),
      field('hold', 'Each for', 'time', { least: 1 }),
    ],
  ),
];

/** Ways of arranging. */
export const ARRANGE_WAYS: readonly Way[] = [
  way('spread', 'Spread evenly', 'equal gaps between boxes', { axis: 'across', between: 'outer', margin: 0 }, [
    AXIS,
    field('between', 'Between', 'choice', {
      options: [
        ['outer', 'the outer two'],
        ['frame', 'the edges of the frame'],
      ],
    }),
    field('margin', 'Margin to the frame', 'pixels'),
  ]),
  way('butt', 'Edge to edge', 'from the first', { axis: 'across', gap: 0 }, [AXIS, field('gap', 'Gap', 'pixels')]),
  way('grid', 'A grid', 'from the top left of where they are', { columns: 3, gap: 24 }, [
    field('columns', 'Columns', 'count', { least: 1 }),
    field('gap', 'Gap', 'pixels'),
  ]),
  way('circle', 'A circle', 'around a point', { x: 0.5, y: 0.5, radius: 300, from: -90, round: 360, turned: false }, [
    ...POINT,
    field('radius', 'Radius', 'pixels', { least: 0 }),
    field('from', 'First at', 'degrees'),
    field('round', 'How far round', 'degrees'),
    field('turned', 'Turned outward', 'switch'),
  ]),
  way('slots', 'Slots of the frame', 'left, middle, right …', { axis: 'across', slots: 3 }, [
    AXIS,
    field('slots', 'How many', 'count', { least: 1 }),
  ]),
  way('align', 'Align', 'edges or middles', { edge: 'left', to: 'outer' }, [
    field('edge', 'On their', 'choice', {
      options: [
        ['left', 'left edges'],
        ['centre', 'centres, across'],
        ['right', 'right edges'],
        ['top', 'top edges'],
        ['middle', 'middles, down'],
        ['bottom', 'bottom edges'],
      ],
    }),
    field('to', 'To', 'choice', {
      options: [
        ['outer', 'their outer box'],
        ['frame', 'the frame'],
        ['first', 'the first of them'],
      ],
    }),
  ]),
  way('size', 'The same size', 'as it is seen, turned or not', { match: 'width', of: 'first' }, [
    field('match', 'The same', 'choice', {
      options: [
        ['width', 'width'],
        ['height', 'height'],
        ['both', 'width and height'],
      ],
    }),
    field('of', 'As the', 'choice', {
      options: [
        ['first', 'first'],
        ['largest', 'largest'],
        ['smallest', 'smallest'],
      ],
    }),
  ]),
  way('cover', 'Cover the frame', 'however they turn'),
];

/** Ways in which a colour differs from layer to layer. */
export const COLOUR_WAYS: readonly Way[] = [
  way('step', 'A step further each', 'from the colour that is there', { lightness: -0.06, chroma: 0, hue: 0 }, [
    field('lightness', 'Lighter; darker below 0', 'percent', { least: -100, most: 100 }),
    field('chroma', 'More colourful; greyer below 0', 'percent', { least: -40, most: 40 }),
    field('hue', 'Hue turned by', 'degrees', { least: -360, most: 360 }),
  ]),
  way('colours', 'From a list of colours', 'by turns, by chance or as a ramp', {
    colours: ['#1e6a59', '#c7761b', '#8b4fa0'],
    how: 'turns',
  }),
  way('palette', 'From a palette', 'of the library, or one of its ramps', { id: '', how: 'turns' }),
  way('data', 'From a data column', 'a colour in it for each layer', { column: '' }, [
    field('column', 'Column', 'column'),
  ]),
];

/** Ways in which a number of a style differs from layer to layer, typed in the unit of its channel. */
export function numberWays(unit: ChannelUnit): readonly Way[] {
  const kind = unit === 'share' ? 'percent' : unit === 'deg' ? 'degrees' : unit === 'px' ? 'pixels' : 'number';
  const number = (key: string, label: string): WayField => field(key, label, kind, { least: -1e6, most: 1e6 });
  const [one, two] = unit === 'share' ? [0.1, 1] : [2, 12];
  return [
    way('fixed', 'The same for all', '', { value: one }, [number('value', 'How much')]),
    way('step', 'A step more each', 'less below 0', { step: one }, [number('step', 'Step')]),
    way('ramp', 'Evenly along the order', 'from one end to the other', { from: one, to: two }, [
      number('from', 'The first'),
      number('to', 'The last'),
    ]),
    way('random', 'At random', 'between two', { from: one, to: two }, [
      number('from', 'At least'),
      number('to', 'At most'),
    ]),
    way('data', 'From a data column', 'a number in it for each layer', { column: '' }, [
      field('column', 'Column', 'column'),
    ]),
  ];
}

const AREA = [
  field('x', 'Its middle, from the left', 'percent', { least: -1000 }),
  field('y', 'Its middle, from the top', 'percent', { least: -1000 }),
  field('width', 'Width of it', 'percent'),
  field('height', 'Height of it', 'percent'),
];
const WHOLE = { x: 0.5, y: 0.5, width: 1, height: 1 };

/** Ways in which copies begin. */
export const COPY_BEGINS: readonly Way[] = [
  way('spread', 'A spread', 'at random in a part of the frame', { shape: 'box', ...WHOLE }, [
    field('shape', 'Shape of the part', 'choice', {
      options: [
        ['box', 'a box'],
        ['ellipse', 'an ellipse'],
      ],
    }),
    ...AREA,
  ]),
  way('apart', 'Places apart', 'at random, none too near another', { ...WHOLE, gap: 60 }, [
    field('gap', 'At least so far apart', 'pixels', { least: 1 }),
    ...AREA,
  ]),
  way('grid', 'Columns and rows', 'in a part of the frame', { columns: 6, ...WHOLE }, [
    field('columns', 'Columns', 'count', { least: 1 }),
    ...AREA,
  ]),
  way('own', 'Their own place', 'where the layer rests'),
  way('direction', 'A direction', 'from where the layer rests', { degrees: 0, distance: 0.5, stray: 0 }, [
    field('degrees', 'Angle, 90° down', 'degrees', { least: -3600 }),
    field('distance', 'So far, of the frame', 'percent', { least: -1000 }),
    field('stray', 'Straying to either side', 'degrees', { least: 0, most: 180 }),
  ]),
  way('line', 'Along a line', 'evenly from its first to its last place', { d: 'M200 540 C700 140 1220 940 1720 540' }, [
    field('d', 'Line, SVG path in px', 'path'),
  ]),
];

/** Ways in which copies end. */
export const COPY_ENDS: readonly Way[] = [
  way('stays', 'Where they began', 'they do not travel'),
  ...COPY_BEGINS.map((one) =>
    one.value === 'direction' ? { ...one, label: 'Off in a direction', note: 'from where each began' } : one,
  ),
];

/** Ways of how long copies live. */
export const LIFE_WAYS: readonly Way[] = [
  way('fixed', 'Each as long', '', { length: '1s' }, [field('length', 'Life', 'time', { least: 1 })]),
  way('random', 'At random', 'the same for the same seed', { least: '12f', most: '2s' }, [
    field('least', 'From', 'time', { least: 1 }),
    field('most', 'To', 'time', { least: 1 }),
  ]),
  way('rest', 'Until the end of the stretch', 'the first ones live longest'),
];
