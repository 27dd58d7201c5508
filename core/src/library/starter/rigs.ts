import type { Parameter } from '../../formulas/preset';
import type { RigItem } from '../library';
import { parameter } from './builder';
import { rig, drive, POSITION, SCALE, LEADER, pace, calm, damping, gap, share, length } from './rig-builder';
import { RIGS_IN_FRAME } from './rigs-in-frame';

/** Time since the first contact, which flight it is, and where in it: shared by all that bounces. */
const FLIGHTS = [
  'let g = @gravity × 1px ÷ (1s × 1s)',
  'let first = 2 × sqrt(2 × @height ÷ g)',
  'let left = 1 - since × (1 - @restitution) ÷ first',
  'let n = floor(log(max(left, 0.000001)) ÷ log(@restitution))',
  'let flight = first × @restitution ^ n',
  'let u = since - first × (1 - @restitution ^ n) ÷ (1 - @restitution)',
];
const BOUNCE_DIALS: readonly Parameter[] = [
  length('height', 'First hop', '120px', '600px', 'how high the first flight goes'),
  parameter(
    'gravity',
    'Gravity',
    'number',
    '5000',
    { min: '1', from: '500', to: '12000', step: '100' },
    'px per second, each second',
  ),
  parameter(
    'restitution',
    'Restitution',
    'percent',
    '60%',
    { min: '1%', max: '99%', from: '10%', to: '95%', step: '1%' },
    'speed that each contact gives back; at 100 % or more it would never come to rest',
  ),
];

/** The rigs that a new library begins with. */
export const STARTER_RIGS: readonly RigItem[] = [
  rig(
    'carry-and-settle',
    'Carry and settle',
    'Goes on with the speed at which each key was reached, swings about it and calms down. Law: the damped oscillator with an initial speed, from any mechanics handbook. Needs keys that arrive with speed.',
    ['settle', 'overshoot'],
    {
      dials: [
        share('carry', 'Carry', '85%', '200%', 'how much of the speed is carried on; 100 % goes through unbroken'),
        pace('1.8Hz'),
        calm('3'),
      ],
      formulas: [
        drive(
          [...POSITION, ...SCALE, 'rotation', 'opacity'],
          '# keeps moving with the speed it arrived at, then calms down',
          'let swing = sin(turn × @pace × since) ÷ (tau × @pace)',
          'keyed + arrival × swing × @carry × exp(-@calm × since ÷ 1s)',
        ),
      ],
    },
  ),
  rig(
    'spring-to-keys',
    'Spring to each key',
    'A mass on a spring follows what the keys give: it lags, passes and settles. Below damping 1 it swings, at 1 it is quickest without a swing, above it creeps. Law: the damped oscillator in its three cases.',
    ['spring', 'overshoot'],
    {
      dials: [pace('2Hz'), damping('0.4')],
      formulas: [drive([...POSITION, ...SCALE, 'rotation'], 'chase(keyed, @pace, @damping)')],
    },
  ),
  rig(
    'floor-bounce',
    'Floor bounce',
    'Hops on after each key and comes to rest. Each flight is a parabola, 2v ÷ g long and v² ÷ 2g high, and v shrinks by the restitution. Law: any mechanics handbook. At each contact it is squashed with its area kept.',
    ['bounce', 'squash'],
    {
      dials: [
        ...BOUNCE_DIALS,
        length('drift', 'Sideways', '0px', '400px', 'how far it travels until it rests'),
        share('squash', 'Squash', '20%', '60%', 'at the first contact'),
      ],
      formulas: [
        drive(
          ['position.y'],
          ...FLIGHTS,
          'keyed - (if since > 0s and left > 0 then 0.5 × g × u × (flight - u) else 0px)',
        ),
        drive(
          ['position.x'],
          'let first = 2 × sqrt(2 × @height ÷ (@gravity × 1px ÷ (1s × 1s)))',
          'keyed + @drift × min(1, since × (1 - @restitution) ÷ first)',
        ),
        drive(
          ['scale.y'],
          ...FLIGHTS,
          'let near = max(0, 1 - min(u, flight - u) ÷ 0.06s)',
          'keyed ÷ (1 + (if since > 0s and left > 0 then @squash × near × @restitution ^ n else 0))',
        ),
        drive(
          ['scale.x'],
          ...FLIGHTS,
          'let near = max(0, 1 - min(u, flight - u) ÷ 0.06s)',
          'keyed × (1 + (if since > 0s and left > 0 then @squash × near × @restitution ^ n else 0))',
        ),
      ],
    },
  ),
  rig(
    'follow-down-the-line',
    'Follow down a line',
    'Each does what the leader did, later by its place in the order, from where it rests itself.',
    ['follow', 'stagger'],
    {
      dials: [gap('3f'), share('amount', 'Amount', '100%', '200%', 'of what the leader does')],
      roles: [LEADER],
      formulas: [
        drive(POSITION, 'keyed + (follow(leader.position, place × @gap) - leader.rest) × @amount'),
        drive(['rotation'], 'keyed + (follow(leader.rotation, place × @gap) - leader.rest) × @amount'),
      ],
    },
  ),
  rig(
    'stagger-time',
    'Play the leader’s keys later',
    'Scale, turn and opacity are those of the leader, later by place: one set of keys for all of them.',
    ['follow', 'stagger'],
    {
      dials: [gap('4f')],
      roles: [LEADER],
      formulas: [
        drive(SCALE, 'follow(leader.scale, place × @gap)'),
        drive(['rotation'], 'follow(leader.rotation, place × @gap)'),
        drive(['opacity'], 'follow(leader.opacity, place × @gap)'),
      ],
    },
  ),
  rig(
    'spring-follow',
    'Spring after a leader',
    'Pulled after the leader by a spring, each from where it rests. Worked out from its in point on one grid, so that any time gives the same frame however it is reached.',
    ['follow', 'spring'],
    {
      dials: [pace('1.5Hz'), damping('0.35')],
      roles: [LEADER],
      formulas: [drive(POSITION, 'keyed + chase(leader.position, @pace, @damping) - leader.rest')],
    },
  ),
  rig(
    'sway',
    'Sway',
    'Two rates of seeded gradient noise, one slow and wide, one quick and small, each layer with a course of its own. It begins again without a seam after the loop. Law: K. Perlin, 2002.',
    ['sway', 'loop'],
    {
      dials: [
        length('across', 'Across', '20px', '200px', 'how far to each side'),
        length('upright', 'Up and down', '12px', '200px', 'how far up and down'),
        parameter('tilt', 'Tilt', 'angle', '3deg', { from: '0deg', to: '30deg', step: '1deg' }, 'how far it turns'),
        parameter(
          'rate',
          'Rate',
          'frequency',
          '0.4Hz',
          { min: '0.01Hz', from: '0.1Hz', to: '4Hz', step: '0.1Hz' },
          'turns of the way a second',
        ),
        share('fine', 'Quick part', '15%', '100%', 'of the amount, at six times the rate'),
        parameter(
          'loop',
          'Loop',
          'time',
          '10s',
          { min: '0.5s', from: '1s', to: '20s', step: '0.5s' },
          'after which it begins again',
        ),
      ],
      formulas: (
        [
          [['position.x'], '@across', 11],
          [['position.y'], '@upright', 12],
          [['rotation'], '@tilt', 13],
        ] as const
      ).map(([channels, amount, seed]) =>
        drive(
          channels,
          'let u = (t mod @loop) ÷ @loop',
          'let n = max(1, round(@rate × @loop))',
          `let own = seed × 100 + place × 7 + ${seed}`,
          'let slow = mix(noise(u × n, own), noise((u - 1) × n, own), u)',
          'let quick = mix(noise(u × n × 6, own + 1), noise((u - 1) × n × 6, own + 1), u)',
          `keyed + ${amount} × (slow + quick × @fine)`,
        ),
      ),
    },
  ),
  rig(
    'pendulum',
    'Pendulum',
    'Swings from its anchor as a pendulum as long as the layer, and dies away. Law: the pendulum at small angles, pace = √(g ÷ length) ÷ 2π. Set the anchor to the top first.',
    ['swing'],
    {
      dials: [
        parameter(
          'angle',
          'Angle',
          'angle',
          '12deg',
          { from: '0deg', to: '45deg', step: '1deg' },
          'how far it swings at first',
        ),
        parameter(
          'gravity',
          'Gravity',
          'number',
          '2500',
          { min: '1', from: '200', to: '12000', step: '100' },
          'px per second, each second',
        ),
        calm('0.8'),
        gap('2f'),
      ],
      formulas: [
        drive(
          ['rotation'],
          'let g = @gravity × 1px ÷ (1s × 1s)',
          'let pace = sqrt(g ÷ max(layer.height, 1px)) ÷ tau',
          'let s = t - place × @gap',
          'keyed + (if s > 0s then @angle × sin(turn × pace × s) × exp(-@calm × s ÷ 1s) else 0deg)',
        ),
      ],
    },
  ),
  rig(
    'breathe',
    'Breathe',
    'Grows and shrinks a little, for ever, each a little later than the one before it.',
    ['idle', 'loop'],
    {
      dials: [
        share('depth', 'Depth', '5%', '40%', 'how much it grows'),
        pace('0.3Hz', '3Hz'),
        parameter(
          'apart',
          'Apart',
          'angle',
          '30deg',
          { from: '0deg', to: '180deg', step: '5deg' },
          'from one to the next, of a whole breath of 360°',
        ),
      ],
      formulas: [drive(SCALE, 'keyed × (1 + @depth × sin(turn × @pace × t - place × @apart))')],
    },
  ),
  rig('orbit', 'Orbit', 'Circles about where it is, all of them spread evenly around.', ['idle', 'loop'], {
    dials: [length('radius', 'Radius', '40px', '400px', 'of the circle'), pace('0.25Hz', '2Hz')],
    formulas: [
      drive(['position.x'], 'keyed + @radius × cos(turn × (@pace × t + place ÷ count))'),
      drive(['position.y'], 'keyed + @radius × sin(turn × (@pace × t + place ÷ count))'),
    ],
  }),
  rig(
    'travel-along-its-path',
    'Travel along its path',
    'Goes along the motion path of its layer at even speed, round and round where the path is closed; one behind the other. Give its layers a path first.',
    ['path', 'loop'],
    {
      dials: [
        parameter('lap', 'Once along', 'time', '4s', { min: '1f', from: '0.5s', to: '20s', step: '0.5s' }),
        share('apart', 'Apart', '0%', '100%', 'of the way, from one to the next in the order'),
      ],
      formulas: [drive(['path.distance'], 'keyed + t ÷ @lap - place × @apart')],
    },
  ),
  rig('look-at', 'Look at a layer', 'Turns so that its right side points at the target.', ['look'], {
    dials: [
      parameter(
        'offset',
        'Offset',
        'angle',
        '0deg',
        { from: '-180deg', to: '180deg', step: '5deg' },
        'added to the direction',
      ),
    ],
    roles: [{ name: 'target', note: 'what they look at' }],
    formulas: [
      drive(
        ['rotation'],
        'let x = target.position.x - each.position.x',
        'let y = target.position.y - each.position.y',
        'let near = if abs(x) > 0.001px then x else 0.001px',
        '@offset + atan(y ÷ near) + (if x < 0px then 180deg else 0deg)',
      ),
    ],
  }),
  rig(
    'parallax',
    'Parallax by depth',
    'Moves against the guide’s way, the further along the order the more, as what is near does.',
    ['depth'],
    {
      dials: [share('depth', 'Depth', '40%', '200%', 'how much the last one moves of the guide’s way')],
      roles: [{ name: 'guide', note: 'the layer whose way counts' }],
      formulas: [drive(POSITION, 'keyed - (guide.position - guide.rest) × @depth × share')],
    },
  ),
  rig('stay-upright', 'Stay upright', 'Turns back by what its group turns, so that it stays upright in it.', ['turn'], {
    dials: [share('amount', 'Amount', '100%', '100%', 'of the group’s turn')],
    roles: [{ name: 'group', note: 'the group that turns' }],
    formulas: [drive(['rotation'], 'keyed - (group.rotation - group.rest) × @amount')],
  }),
  rig('stepped-time', 'Stepped time', 'Plays its keys in steps, as if drawn on every few frames.', ['time'], {
    dials: [
      parameter(
        'step',
        'Step',
        'time',
        '3f',
        { min: '1f', from: '1f', to: '12f', step: '1f' },
        'how long each picture is held',
      ),
    ],
    formulas: [drive([...POSITION, ...SCALE, 'rotation', 'opacity'], 'follow(keyed, t mod @step)')],
  }),
  rig('repeat', 'Repeat', 'Plays a stretch of its keys again and again.', ['time', 'loop'], {
    dials: [
      parameter(
        'begin',
        'Begins',
        'time',
        '0f',
        { min: '0f', from: '0f', to: '100f', step: '1f' },
        'after the in point',
      ),
      parameter(
        'period',
        'Lasts',
        'time',
        '25f',
        { min: '1f', from: '1f', to: '100f', step: '1f' },
        'until it begins again',
      ),
    ],
    formulas: [
      drive(
        [...POSITION, ...SCALE, 'rotation', 'opacity'],
        'follow(keyed, floor(max(t - @begin, 0s) ÷ @period) × @period)',
      ),
    ],
  }),
  rig('to-and-fro', 'To and fro', 'Plays a stretch of its keys forwards and backwards by turns.', ['time', 'loop'], {
    dials: [
      parameter(
        'begin',
        'Begins',
        'time',
        '0f',
        { min: '0f', from: '0f', to: '100f', step: '1f' },
        'after the in point',
      ),
      parameter('period', 'Lasts', 'time', '25f', { min: '1f', from: '1f', to: '100f', step: '1f' }, 'one way'),
    ],
    formulas: [
      drive(
        [...POSITION, ...SCALE, 'rotation', 'opacity'],
        'let u = max(t - @begin, 0s)',
        'let k = u mod (2 × @period)',
        'follow(keyed, u - min(k, 2 × @period - k))',
      ),
    ],
  }),
  rig(
    'go-on',
    'Go on at the last speed',
    'Keeps the speed at which the last key was reached, and loses it by and by.',
    ['time'],
    {
      dials: [calm('0')],
      formulas: [
        drive(
          [...POSITION, ...SCALE, 'rotation'],
          'keyed + arrival × (if @calm > 0 then (1 - exp(-@calm × since ÷ 1s)) ÷ @calm × 1s else since)',
        ),
      ],
    },
  ),
  ...RIGS_IN_FRAME,
];
