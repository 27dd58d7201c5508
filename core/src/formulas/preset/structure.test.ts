import { describe, expect, test } from '@jest/globals';
import { LINEAR } from '../../basics/easing';
import { ALONG, BOUNCE } from '../../testing/movements';
import { createPreset, structureProblems, type Cell, type Parameter, type Preset, type Row } from '.';

const plain = createPreset('entrance');
const parameter = (name: string, kind: Parameter['kind'], more: Partial<Parameter> = {}): Parameter => ({
  name,
  label: name,
  kind,
  default: '',
  note: '',
  ...more,
});
const cell = (moment: string, ease: Cell['ease'] = LINEAR): Cell => ({ moment, value: '0', ease }) as Cell;
const row = (channel: Row['channel'], cells: Cell[], more: Partial<Row> = {}): Row => ({ channel, cells, ...more });
const told = (more: Partial<Preset>): string[] => structureProblems({ ...plain, ...more });
const sides = parameter('side', 'choice', {
  options: ['left', 'right'].map((name) => ({ name, label: name, note: '' })),
} as Partial<Parameter>);
const eased = { type: 'parameter', name: 'way' } as const;

describe('the structure of a preset', () => {
  test('of a new one, and of one whose parts hang together, has nothing wrong', () => {
    expect(told({})).toEqual([]);
    const whole: Partial<Preset> = {
      parameters: [...plain.parameters, parameter('way', 'curve'), sides, parameter('tilted', 'switch')],
      rows: [
        row('opacity', [cell('start', eased), cell('end')]),
        row('rotation', [cell('end')], { when: 'tilted' }),
        row('position.x', [cell('start')], { when: 'side.left' }),
      ],
      movements: [BOUNCE],
    };
    expect(told(whole)).toEqual([]);
  });

  test.each<[string, Partial<Preset>, string]>([
    ['a moment twice', { moments: [...plain.moments, plain.moments[0]] }, 'The moment “start” is there twice.'],
    [
      'a parameter twice',
      { parameters: [...plain.parameters, ...plain.parameters] },
      'The parameter @lasts is there twice.',
    ],
    [
      'a choice of nothing',
      { parameters: [...plain.parameters, parameter('side', 'choice')] },
      '@side is a choice without options.',
    ],
    [
      'an option twice',
      {
        parameters: [...plain.parameters, { ...sides, options: [...(sides.options ?? []), ...(sides.options ?? [])] }],
      },
      '@side has the option “left” twice.',
    ],
    ['a length of nothing', { lasts: 'gone' }, 'The length is said to be @gone, which is not a time parameter.'],
    [
      'a length that is no time',
      { lasts: 'way', parameters: [parameter('way', 'curve')] },
      'The length is said to be @way, which is not a time parameter.',
    ],
    ['a channel twice', { rows: [row('opacity', []), row('opacity', [])] }, 'The channel opacity has two rows.'],
    [
      'two cells at a moment',
      { rows: [row('opacity', [cell('end'), cell('end')])] },
      'Row opacity has two cells at moment “end”.',
    ],
    [
      'a cell at no moment',
      { rows: [row('opacity', [cell('gone')])] },
      'A cell belongs to the moment “gone”, which is not there.',
    ],
    [
      'a cell eased by nothing',
      { rows: [row('opacity', [cell('end', eased)])] },
      'Row opacity is eased by @way, which is not a curve parameter.',
    ],
    [
      'a cell eased by what is no curve',
      {
        parameters: [...plain.parameters, parameter('way', 'length')],
        rows: [row('opacity', [cell('end', eased)])],
      },
      'Row opacity is eased by @way, which is not a curve parameter.',
    ],
    [
      'a row on no condition',
      { parameters: [...plain.parameters, sides], rows: [row('opacity', [cell('end')], { when: 'side.up' })] },
      'Row opacity depends on @side.up, which is not a switch and no option of a choice.',
    ],
    [
      'a row on what is no switch',
      { rows: [row('opacity', [cell('end')], { when: 'lasts' })] },
      'Row opacity depends on @lasts, which is not a switch and no option of a choice.',
    ],
    [
      'a movement twice',
      { movements: [BOUNCE, { ...BOUNCE, channel: 'rotation' }] },
      'The movement “drop” is there twice.',
    ],
    [
      'a channel with a row and a movement',
      { rows: [row('position.y', [cell('end')])], movements: [BOUNCE] },
      'The channel position.y has a row and a movement. Remove one of them.',
    ],
    [
      'a movement that is eased by what is no curve',
      {
        parameters: [...plain.parameters, parameter('way', 'curve'), sides],
        movements: [{ ...ALONG, ease: { type: 'parameter', name: 'side' } }],
      },
      'is eased by @side, which is not a curve parameter.',
    ],
    [
      'a channel with two movements',
      { movements: [BOUNCE, { ...BOUNCE, id: 'other' }] },
      'Two movements give keys to position.y. Remove one of them.',
    ],
  ])('%s is told', (_what, more, sentence) => expect(told(more).join('\n')).toContain(sentence));

  test('movements that hang on conditions may share a channel, as only one of them counts at a time', () => {
    const turn = { parameters: [...plain.parameters, sides] };
    const when = (id: string, option: string) => ({ ...BOUNCE, id, when: `side.${option}` });
    expect(told({ ...turn, movements: [when('a', 'left'), when('b', 'right')] })).toEqual([]);
    expect(told({ ...turn, movements: [when('a', 'left'), BOUNCE] })).toEqual([]);
    expect(told({ ...turn, movements: [BOUNCE, { ...BOUNCE, id: 'b' }, when('a', 'left')] })).toEqual([
      'Two movements give keys to position.y. Remove one of them.',
    ]);
  });
});

test('a preset begins with what its phase needs: one that goes on all the time has the length of its layer', () => {
  const { moments, ...through } = createPreset('throughout');
  expect(through).toMatchObject({ hang: 'span', stretch: 'scale', parameters: [], rows: [] });
  expect(through).not.toHaveProperty('lasts');
  expect(moments.map(({ name, at }) => [name, at])).toEqual([
    ['Start', '0f'],
    ['Rest', 'layer.length'],
  ]);
  const names = (phase: 'entrance' | 'exit' | 'accent') =>
    createPreset(phase).moments.map(({ name, at }) => [name, at]);
  expect(names('exit')[1]).toEqual(['Gone', '@lasts']);
  for (const phase of ['entrance', 'accent'] as const) expect(names(phase)[1]).toEqual(['Rest', '@lasts']);
  expect(createPreset('exit')).toMatchObject({ hang: 'out', stretch: 'keep', lasts: 'lasts' });
  expect(createPreset('entrance')).toMatchObject({ hang: 'in' });
});
