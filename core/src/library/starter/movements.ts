import { READY_PATHS } from '../../basics/motion';
import type { PresetItem } from '../library';
import type { Movement, MovementOf } from '../../formulas/preset';
import { accent, entrance, exit, lasts, moment, parameter, row, through } from './builder';
import { CURVES } from './curves';

const percent = (name: string, label: string, standard: string, from: string, to: string, note = '') =>
  parameter(name, label, 'percent', standard, { min: '0%', from, to, step: '1%' }, note);
const length = (name: string, label: string, standard: string, from: string, to: string, note = '') =>
  parameter(name, label, 'length', standard, { from, to, step: '1px' }, note);

const GRAVITY = parameter(
  'gravity',
  'Gravity',
  'number',
  '5000',
  { min: '100', from: '500', to: '12000', step: '100' },
  'px per second, each second',
);
const RESTITUTION = parameter(
  'restitution',
  'Gives back',
  'percent',
  '60%',
  { min: '0%', max: '95%', from: '0%', to: '90%', step: '1%' },
  'of its speed at each contact',
);
const SQUASH = percent('squash', 'Squash', '12%', '0%', '50%', 'at the first contact; its area is kept');
const FADE = parameter('fade', 'Fade', 'time', '3f', { min: '0f', from: '0f', to: '20f', step: '1f' });
const FADE_IN = row('opacity', [
  ['start', 'rest × 0%', CURVES.even],
  ['seen', 'rest'],
]);
const START_AND_SEEN = [moment('start', 'Start', '0f'), moment('seen', 'Seen', '@fade')];

function bounce(
  id: string,
  by: MovementOf<'bounce'>['by'],
  numbers: Partial<MovementOf<'bounce'>['numbers']>,
): Movement {
  return {
    id,
    type: 'bounce',
    channel: 'position.y',
    from: 'start',
    by,
    numbers: {
      height: '240px',
      speed: '1400',
      gravity: '@gravity',
      restitution: '@restitution',
      travel: '0px',
      squash: '@squash',
      contact: '4f',
      ...numbers,
    },
  };
}

const bounceHome = entrance(
  {
    id: 'bounce-home',
    name: 'Bounce home',
    note: 'Falls and hops until it is still, as heavy things do: each flight is an exact parabola, 2v ÷ g long and v² ÷ 2g high. Its length follows from how high it falls.',
    tags: ['lively', 'bounce'],
  },
  {
    parameters: [
      length('height', 'From above', '240px', '20px', '900px'),
      GRAVITY,
      RESTITUTION,
      length('travel', 'From beside', '0px', '-600px', '600px', 'how far it comes from the left'),
      SQUASH,
      FADE,
    ],
    moments: START_AND_SEEN,
    rows: [FADE_IN],
    movements: [bounce('bounce', 'height', { height: '@height', travel: '@travel' })],
  },
);

const hop = accent(
  {
    id: 'hop',
    name: 'Hop',
    note: 'Leaves the ground, comes down and hops a little more.',
    tags: ['lively', 'bounce'],
  },
  {
    parameters: [
      parameter(
        'speed',
        'Sets off at',
        'number',
        '900',
        { min: '0', from: '100', to: '3000', step: '50' },
        'px per second',
      ),
      GRAVITY,
      { ...RESTITUTION, default: '45%' },
      SQUASH,
    ],
    moments: [moment('start', 'Off', '0f')],
    rows: [],
    movements: [bounce('hop', 'speed', { speed: '@speed × 1px ÷ 1s' })],
  },
);

const PACE = parameter(
  'pace',
  'Swings',
  'frequency',
  '2Hz',
  { min: '0.1Hz', from: '0.5Hz', to: '6Hz', step: '0.1Hz' },
  'to and fro a second',
);
const DAMPING = parameter(
  'damping',
  'Damping',
  'number',
  '0.35',
  { min: '0.05', from: '0.1', to: '2', step: '0.05' },
  'below 1 it swings past, at 1 it settles fastest, above it creeps',
);

const springHome = entrance(
  {
    id: 'spring-home',
    name: 'Spring home',
    note: 'Let go away from its place, and pushed if you like: a damped spring, with its initial speed, in all three cases of damping.',
    tags: ['lively', 'settle'],
  },
  {
    parameters: [
      length('away', 'From below', '120px', '-400px', '400px'),
      parameter(
        'push',
        'Pushed at',
        'number',
        '0',
        { from: '-3000', to: '3000', step: '50' },
        'px per second; below 0 is upwards',
      ),
      PACE,
      DAMPING,
      FADE,
    ],
    moments: START_AND_SEEN,
    rows: [FADE_IN],
    movements: [
      {
        id: 'spring',
        type: 'spring',
        channel: 'position.y',
        from: 'start',
        numbers: { start: 'rest + @away', speed: '@push × 1px ÷ 1s', pace: '@pace', damping: '@damping' },
      },
    ],
  },
);

function along(id: string, ready: string, turns: boolean, [from, to]: readonly [string, string]): Movement {
  const { d, fit } = READY_PATHS.find((path) => path.id === ready) ?? READY_PATHS[0];
  return {
    id,
    type: 'path',
    from,
    to,
    d,
    fit,
    turns,
    ease: fit === 'out' ? CURVES.depart : fit === 'in' ? CURVES.arrive : CURVES.gentle,
    numbers: { size: fit === 'round' ? '@size' : '100%', begin: '0%', end: '100%' },
  };
}

const arcHome = entrance(
  {
    id: 'arc-home',
    name: 'Arc home',
    note: 'Comes in an arc from beyond the left edge, at even speed along the line.',
    tags: ['path'],
  },
  {
    parameters: [lasts('24f')],
    moments: [moment('start', 'Start', '0f'), moment('end', 'Rest', '@lasts')],
    rows: [],
    movements: [along('path', 'arc-left', false, ['start', 'end'])],
  },
);

const SIZE = parameter('size', 'Size', 'percent', '100%', { min: '1%', from: '20%', to: '300%', step: '5%' });

const loop = accent(
  {
    id: 'loop-the-loop',
    name: 'Loop the loop',
    note: 'Goes once round a loop and is back in its place.',
    tags: ['path', 'lively'],
  },
  {
    parameters: [lasts('30f', '120f'), SIZE],
    moments: [moment('start', 'Off', '0f'), moment('end', 'Back', '@lasts')],
    rows: [],
    movements: [along('path', 'loop', false, ['start', 'end'])],
  },
);

const flyOff = exit(
  {
    id: 'fly-off',
    name: 'Fly off',
    note: 'Dips, rises in an arc and leaves the frame, at even speed along the line.',
    tags: ['path'],
  },
  {
    parameters: [lasts('24f')],
    moments: [moment('start', 'Rest', '0f'), moment('end', 'Gone', '@lasts')],
    rows: [],
    movements: [along('path', 'fly-off', false, ['start', 'end'])],
  },
);

const WHOLE = [moment('start', 'In', '0f'), moment('end', 'Out', 'layer.length')];

function sway(channel: MovementOf<'sway'>['channel'], seed: string, parts: MovementOf<'sway'>['parts']): Movement {
  return {
    id: channel === 'rotation' ? 'tilt' : 'sway',
    type: 'sway',
    channel,
    from: 'start',
    to: 'end',
    isLoop: false,
    parts,
    numbers: { fade: '@fade', seed, within: '1%' },
  };
}

const swayInTheWind = through(
  {
    id: 'sway-in-the-wind',
    name: 'Sway in the wind',
    note: 'Drifts and tilts about its place, each layer in its own way by seed: seeded gradient noise of two rates that add up.',
    tags: ['calm', 'sway'],
  },
  {
    parameters: [
      length('across', 'Across', '16px', '0px', '120px', 'at most, to either side'),
      parameter('tilt', 'Tilt', 'angle', '4deg', { min: '0deg', from: '0deg', to: '30deg', step: '1deg' }, 'at most'),
      parameter('rate', 'Rate', 'frequency', '0.4Hz', { min: '0.05Hz', from: '0.1Hz', to: '4Hz', step: '0.1Hz' }),
      parameter('fade', 'Grows over', 'time', '0.5s', { min: '0s', from: '0s', to: '3s', step: '0.1s' }),
    ],
    moments: WHOLE,
    rows: [],
    movements: [
      sway('position.x', 'seed × 31 + place', [
        { rate: '@rate', amount: '@across' },
        { rate: '@rate × 3', amount: '@across × 20%' },
      ]),
      sway('rotation', 'seed × 31 + place + 500', [{ rate: '@rate', amount: '@tilt' }]),
    ],
  },
);

const framing = (way: MovementOf<'framing'>['way'], parts: MovementOf<'framing'>['parts']): Movement => ({
  id: 'framing',
  type: 'framing',
  from: 'start',
  to: 'end',
  way,
  ease: CURVES.soft,
  parts,
  numbers: { hold: '@hold', seed: 'seed' },
});

const ZOOM = parameter('zoom', 'Zoom', 'percent', '140%', { min: '100%', from: '100%', to: '300%', step: '5%' });
const HOLD = parameter('hold', 'Holds for', 'time', '0.5s', { min: '0s', from: '0s', to: '3s', step: '0.1s' });

const lookOver = through(
  {
    id: 'look-over',
    name: 'Look over a picture',
    note: 'Goes from all of a picture to a part of it, smoothly, and never shows beyond it. For pictures.',
    tags: ['picture', 'calm'],
  },
  {
    parameters: [
      ZOOM,
      percent('across', 'Across', '60%', '0%', '100%', 'where to, of the width'),
      percent('down', 'Down', '45%', '0%', '100%', 'where to, of the height'),
      HOLD,
    ],
    moments: WHOLE,
    rows: [],
    movements: [
      framing('all', [
        { x: '50%', y: '50%', zoom: '100%' },
        { x: '@across', y: '@down', zoom: '@zoom' },
      ]),
    ],
  },
);

const lookByTurns = through(
  {
    id: 'look-by-turns',
    name: 'Look here and there',
    note: 'Each picture of a run goes another way over itself, by seed, and no two neighbours the same. For pictures.',
    tags: ['picture', 'calm'],
  },
  {
    parameters: [ZOOM, HOLD],
    moments: WHOLE,
    rows: [],
    movements: [
      framing('turns', [
        { x: '50%', y: '50%', zoom: '100%' },
        { x: '35%', y: '40%', zoom: '@zoom' },
        { x: '65%', y: '40%', zoom: '@zoom' },
        { x: '50%', y: '62%', zoom: '@zoom' },
      ]),
    ],
  },
);

const drawFromTheMiddle = entrance(
  {
    id: 'draw-from-the-middle',
    name: 'Draw from the middle',
    note: 'The outline draws itself from its middle to both ends. For layers with a stroke.',
    tags: ['line'],
  },
  {
    parameters: [lasts('16f')],
    moments: [moment('start', 'Start', '0f'), moment('end', 'Rest', '@lasts')],
    rows: [],
    movements: [
      {
        id: 'draw',
        type: 'draw',
        from: 'start',
        to: 'end',
        way: 'middle',
        ease: CURVES.soft,
        numbers: { piece: '20%' },
      },
    ],
  },
);

/** Presets whose movement is more than keys at moments. */
export const STARTER_MOVEMENTS: readonly PresetItem[] = [
  bounceHome,
  springHome,
  arcHome,
  drawFromTheMiddle,
  hop,
  loop,
  swayInTheWind,
  lookOver,
  lookByTurns,
  flyOff,
];
