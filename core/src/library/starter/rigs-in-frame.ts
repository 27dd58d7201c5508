import type { RigItem } from '../library';
import { parameter } from './builder';
import { rig, drive, SCALE, share, length } from './rig-builder';

/** Rigs that go by the frame, by each other's distance, or for many layers together. */
export const RIGS_IN_FRAME: readonly RigItem[] = [
  rig('stay-inside', 'Stay inside the frame', 'Is kept inside the frame, by half its size and a margin.', ['limit'], {
    dials: [length('margin', 'Margin', '20px', '200px', 'to the edge of the frame')],
    formulas: [
      drive(['position.x'], 'clamp(keyed, @margin + layer.width ÷ 2, frame.width - @margin - layer.width ÷ 2)'),
      drive(['position.y'], 'clamp(keyed, @margin + layer.height ÷ 2, frame.height - @margin - layer.height ÷ 2)'),
    ],
  }),
  rig('fade-by-distance', 'Fade by distance', 'Is clear near the lamp and fades with the distance to it.', ['fade'], {
    dials: [
      length('near', 'Near', '120px', '1000px', 'clear up to here'),
      length('far', 'Far', '600px', '3000px', 'faintest from here'),
      share('least', 'Faintest', '15%', '100%', 'what is left far away'),
    ],
    roles: [{ name: 'lamp', note: 'what it is measured from' }],
    formulas: [
      drive(
        ['opacity'],
        'let x = lamp.position.x - each.position.x',
        'let y = lamp.position.y - each.position.y',
        'keyed × mix(1, @least, smooth(@near, @far, sqrt(x × x + y × y)))',
      ),
    ],
  }),
  rig(
    'all-copies',
    'All copies together',
    'Size, turn, spread, wind, sway and clearness of many layers at once, over their own ways. Made for the copies of a run.',
    ['copies'],
    {
      dials: [
        share('size', 'Size', '100%', '300%', 'of each one’s own'),
        parameter(
          'turn',
          'Turn',
          'angle',
          '0deg',
          { from: '-180deg', to: '180deg', step: '1deg' },
          'beside each one’s own',
        ),
        share('spread', 'Spread', '100%', '300%', 'from the middle of the frame'),
        parameter(
          'wind',
          'Wind',
          'length',
          '0px',
          { from: '-400px', to: '400px', step: '1px' },
          'to the right, in a second',
        ),
        length('sway', 'Sway', '0px', '200px', 'each at its own beat'),
        share('clear', 'Clearness', '100%', '100%', 'of each one’s own'),
      ],
      formulas: [
        drive(
          ['position.x'],
          'let middle = frame.width ÷ 2',
          'middle + (keyed - middle) × @spread + @wind × (t ÷ 1s) + @sway × noise(t × 0.7Hz, place × 2)',
        ),
        drive(
          ['position.y'],
          'let middle = frame.height ÷ 2',
          'middle + (keyed - middle) × @spread + @sway × noise(t × 0.7Hz, place × 2 + 1)',
        ),
        drive(SCALE, 'keyed × @size'),
        drive(['rotation'], 'keyed + @turn'),
        drive(['opacity'], 'keyed × @clear'),
      ],
    },
  ),
];
