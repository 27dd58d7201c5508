import type { Preset } from '../../formulas/preset';
import type { PresetItem, RigItem } from '../library';
import { entrance, exit, lasts, moment, parameter, row } from './builder';
import { CURVES } from './curves';
import { drive, rig } from './rig-builder';

const EDGES = [moment('start', 'Start', '0f'), moment('end', 'End', '@lasts')];

/** Letters from one share of all of them to another. */
function typed(from: string, to: string, length: string): Pick<Preset, 'parameters' | 'moments' | 'rows'> {
  return {
    parameters: [lasts(length, '150f')],
    moments: EDGES,
    rows: [
      row('words.shown', [
        ['start', from, CURVES.even],
        ['end', to],
      ]),
    ],
  };
}

/** Presets for words and the numbers in them. */
export const WORD_PRESETS: readonly PresetItem[] = [
  entrance(
    {
      id: 'type-on',
      name: 'Type on',
      note: 'Words come letter by letter, each where it stands in the whole. A caret can be set in the words’ panel.',
      tags: ['words', 'steady'],
    },
    typed('0', 'rest', '24f'),
  ),
  exit(
    {
      id: 'type-off',
      name: 'Type off',
      note: 'Words go letter by letter, the last one first.',
      tags: ['words', 'steady'],
    },
    typed('rest', '0', '16f'),
  ),
  entrance(
    {
      id: 'count-to-rest',
      name: 'Count to its number',
      note: 'The number in the words runs to where it rests, fast at first. For words that show a number.',
      tags: ['words', 'numbers'],
    },
    {
      parameters: [
        lasts('36f', '200f'),
        parameter('from', 'From', 'number', '0', { from: '-1000', to: '1000', step: '1' }, 'where it begins'),
      ],
      moments: [EDGES[0], moment('seen', 'Seen', '@lasts × 0.15'), EDGES[1]],
      rows: [
        row('words.number', [
          ['start', '@from', CURVES.arrive],
          ['end', 'rest'],
        ]),
        row('opacity', [
          ['start', '0', CURVES.even],
          ['seen', 'rest'],
        ]),
      ],
    },
  ),
];

/** Rigs for words and the numbers in them. */
export const WORD_RIGS: readonly RigItem[] = [
  rig(
    'count-up',
    'Count up',
    'The number in the words goes from one to another, softly at both ends. Its decimals, thousands and unit are set in the words’ panel. Law: 3u² − 2u³ over the time it takes.',
    ['words', 'numbers'],
    {
      dials: [
        parameter('from', 'From', 'number', '0', { from: '-1000', to: '1000', step: '1' }, 'where it begins'),
        parameter('to', 'To', 'number', '100', { from: '-1000', to: '10000', step: '1' }, 'where it ends'),
        parameter('wait', 'Wait', 'time', '0f', { min: '0f', from: '0f', to: '50f', step: '1f' }, 'before it begins'),
        parameter(
          'takes',
          'Takes',
          'time',
          '2s',
          { min: '1f', from: '5f', to: '200f', step: '1f' },
          'from the one to the other',
        ),
      ],
      formulas: [
        drive(
          ['words.number'],
          'let u = clamp((t - @wait) ÷ @takes, 0, 1)',
          '@from + (@to - @from) × u × u × (3 - 2 × u)',
        ),
      ],
    },
  ),
  rig(
    'type-by-letters',
    'Type by letters',
    'Letters come at a pace of their own, however long the words are; with a caret where the words’ panel sets one.',
    ['words', 'steady'],
    {
      dials: [
        parameter('pace', 'Letters a second', 'number', '16', { min: '0.1', from: '1', to: '60', step: '1' }),
        parameter(
          'wait',
          'Wait',
          'time',
          '0f',
          { min: '0f', from: '0f', to: '50f', step: '1f' },
          'before the first letter',
        ),
        parameter(
          'uneven',
          'Uneven',
          'percent',
          '0%',
          { min: '0%', max: '100%', from: '0%', to: '100%', step: '5%' },
          '0 % is as even as a machine',
        ),
      ],
      formulas: [
        drive(
          ['words.shown'],
          'let typed = max(0, (t - @wait) ÷ 1s) × @pace',
          '# the pace wavers, but no letter is ever taken back',
          'let waver = @uneven × @pace × 0.15 × noise(t × 1.3Hz, place)',
          'clamp((typed + waver) ÷ max(1, layer.letters), 0, 1)',
        ),
      ],
    },
  ),
];
