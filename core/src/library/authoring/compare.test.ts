import { describe, expect, test } from '@jest/globals';
import { compareItems } from '.';
import type { ChannelId } from '../../basics/channel';
import type { Preset, PresetEasing, Row } from '../../formulas/preset';
import type { LibraryItem } from '../library';
import { STARTER_LIBRARY } from '../starter';
import { BOUNCE } from '../../testing/movements';

type Kind = LibraryItem['kind'];
type Of<K extends Kind> = Extract<LibraryItem, { kind: K }>;

function first<K extends Kind>(kind: K, id?: string): Of<K> {
  return STARTER_LIBRARY.find((item) => item.kind === kind && (id === undefined || item.id === id)) as Of<K>;
}

/** What differs after a change, as part, what, before and after. */
function told<K extends Kind>(item: Of<K>, body: Partial<Of<K>['body']>, nameOf?: (id: string) => string) {
  const after = { ...item, body: { ...item.body, ...body } } as LibraryItem;
  return compareItems(item, after, nameOf).map(({ part, what, before, after: now }) => [part, what, before, now]);
}

describe('what differs between two revisions', () => {
  test.each(STARTER_LIBRARY.map((item) => [item.id, item] as const))('nothing of %s and itself', (_, item) => {
    expect(compareItems(item, structuredClone(item))).toEqual([]);
  });

  test('name and note of whatever it is; a note that is empty is none', () => {
    for (const kind of ['preset', 'rig', 'look', 'palette', 'curve', 'house', 'recipe'] as const) {
      const item = first(kind);
      const before = { ...item, note: '' } as LibraryItem;
      expect(compareItems(before, { ...item, name: 'Other', note: 'Why.' } as LibraryItem)).toEqual([
        { part: 'texts', what: 'name', before: item.name, after: 'Other' },
        { part: 'texts', what: 'note', before: null, after: 'Why.' },
      ]);
    }
  });

  test('a curve, in its words', () => {
    const linear = { easing: { type: 'linear' } } as const;
    const [[part, what, before, after]] = told(first('curve'), linear);
    expect([part, what, after]).toEqual(['value', 'curve', 'linear']);
    expect(before).not.toBe('linear');
  });

  test('a house value, and what it follows', () => {
    const house = { ...first('house'), body: { type: 'duration', value: '10f' } } as Of<'house'>;
    expect(told(house, { value: '14f' } as never)).toEqual([['value', 'value', '10f', '14f']]);
    expect(told(house, { as: 'h1' } as never, () => 'Margin')).toEqual([['value', 'follows', null, 'Margin']]);
  });

  test('dials, roles and formulas of a rig', () => {
    const rig = first('rig', 'rig-carry-and-settle');
    const [dial, ...others] = rig.body.dials;
    expect(told(rig, { dials: [{ ...dial, default: '50%' }, ...others] })).toEqual([
      ['parameters', `default of @${dial.name}`, dial.default, '50%'],
    ]);
    expect(told(rig, { dials: others })).toEqual([['parameters', `@${dial.name}`, 'there', null]]);
    expect(told({ ...rig, body: { ...rig.body, dials: others } }, { dials: rig.body.dials })).toEqual([
      ['parameters', `@${dial.name}`, null, 'there'],
    ]);
    const { note: _note, ...unsaid } = dial;
    expect(told(rig, { dials: [unsaid as never, ...others] })).toEqual([
      ['parameters', `note of @${dial.name}`, dial.note, null],
    ]);
    const [formula, ...rest] = rig.body.formulas;
    const [channel] = formula.channels;
    expect(
      told(rig, { formulas: [{ ...formula, channels: [channel], text: 'rest' }] }).filter(
        ([, what]) => what === channel,
      ),
    ).toEqual([['value', channel, formula.text, 'rest']]);
    expect(told(rig, { formulas: rest }).every(([, , before, after]) => before !== null && after === null)).toBe(true);
    const roles = [
      { name: 'leader', note: '' },
      { name: 'end', note: '' },
    ] as never;
    expect(told({ ...rig, body: { ...rig.body, roles: [] } }, { roles })).toEqual([
      ['parameters', 'roles', null, 'leader, end'],
    ]);
  });

  test('parts, numbers, parameters, formulas and tied colours of a look', () => {
    const look = first('look', 'look-raised');
    expect(told(look, { parts: ['shadow', 'glow'] })).toEqual([['value', 'parts', 'shadow', 'shadow, glow']]);
    expect(told(look, { look: { shadow: '#102030' } })).toEqual([['value', 'shadow', '#000000', '#102030']]);
    expect(told(look, { rest: { ...look.body.rest, 'shadow.y': 20 } })).toEqual([
      ['value', 'shadow y', '12 px', '20 px'],
    ]);
    const { 'shadow.x': _x, ...fewer } = look.body.rest;
    expect(told(look, { rest: fewer })).toEqual([['value', 'shadow x', '0 px', null]]);
    const [, ...formulas] = look.body.formulas ?? [];
    expect(told(look, { formulas })).toEqual([['value', 'formula for shadow.y', '@height', null]]);
    expect(told(look, { colours: {} })).toEqual([['value', 'colour of the shadow', '@tone', null]]);
    const [height, tone] = look.body.parameters ?? [];
    expect(told(look, { parameters: [{ ...height, default: '20px' }, tone] })).toEqual([
      ['parameters', '@height, default', '12px', '20px'],
    ]);
  });

  describe('a preset', () => {
    const soft = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 } as const;
    const row = (channel: ChannelId, end = 'rest'): Row => ({
      channel,
      cells: [
        { moment: 'a', value: '0', ease: soft },
        { moment: 'b', value: end, ease: { type: 'linear' } },
      ],
    });
    const time = { name: 'lasts', label: 'Lasts', kind: 'time', default: '20f', note: '' } as const;
    const body: Preset = {
      ...first('preset').body,
      phase: 'entrance',
      hang: 'in',
      stretch: 'scale',
      grid: 'frames',
      lasts: 'lasts',
      parameters: [time],
      moments: [
        { id: 'a', name: 'Start', at: '0f' },
        { id: 'b', name: 'Rest', at: '@lasts' },
      ],
      rows: [row('opacity')],
      movements: [],
    };
    const preset = { ...first('preset'), body };
    const [start, rest] = body.moments;

    test('where it hangs, how it is stretched, on what it lands, and what its length is', () => {
      const { lasts: _lasts, ...without } = body;
      const other = { ...preset, body: { ...without, phase: 'exit', hang: 'out', stretch: 'keep', grid: 'exact' } };
      expect(compareItems(preset, other as LibraryItem)).toEqual(
        [
          ['phase', 'entrance', 'exit'],
          ['when it starts', 'from the in point', 'to the out point'],
          ['when its layer is stretched', 'scales', 'keeps its length'],
          ['moments land on', 'whole frames', 'exact times'],
          ['its length', '@lasts', null],
        ].map(([what, before, after]) => ({ part: 'hanging', what, before, after })),
      );
    });

    test('moments that come, go, are renamed or moved', () => {
      const past = { id: 'c', name: 'Past', at: '5f' };
      expect(told(preset, { moments: [start, past, rest] })).toEqual([['moments', 'Past', null, '5f']]);
      expect(told({ ...preset, body: { ...body, moments: [start, past, rest] } }, { moments: [start, rest] })).toEqual([
        ['moments', 'Past', '5f', null],
      ]);
      expect(told(preset, { moments: [start, { ...rest, name: 'End', at: '9f' }] })).toEqual([
        ['moments', 'Rest, name', 'Rest', 'End'],
        ['moments', 'End', '@lasts', '9f'],
      ]);
    });

    test('parameters that come, go, change or take turns', () => {
      const far = { name: 'far', label: 'Far', kind: 'length', default: '9px', note: '' } as const;
      const both = { ...preset, body: { ...body, parameters: [time, far] } };
      expect(told(preset, { parameters: [time, far] })).toEqual([['parameters', '@far', null, '9px']]);
      expect(told(both, { parameters: [time] })).toEqual([['parameters', '@far', '9px', null]]);
      expect(told(both, { parameters: [far, time] })).toEqual([
        ['parameters', 'order', '@lasts, @far', '@far, @lasts'],
      ]);
      const tied = { ...far, house: 'margin', min: '0px', note: 'How far.' };
      expect(told(both, { parameters: [time, tied] }, () => 'Margin')).toEqual([
        ['parameters', '@far, house value', null, 'Margin'],
        ['parameters', '@far, least value', null, '0px'],
        ['parameters', '@far, note', null, 'How far.'],
      ]);
      const options = [{ name: 'left', label: 'Left', value: '0' }] as never;
      expect(told(both, { parameters: [time, { ...far, options }] })).toEqual([
        ['parameters', '@far, options', null, 'left (Left)'],
      ]);
    });

    test('cells, easings and conditions of rows; channels that were linked and no longer are, each by itself', () => {
      const [opacity] = body.rows;
      expect(told(preset, { rows: [{ ...opacity, cells: opacity.cells.slice(0, 1) }] })).toEqual([
        ['cells', 'opacity at Rest', 'rest', null],
      ]);
      expect(told(preset, { rows: [{ ...opacity, when: 'fades' }] })).toEqual([
        ['cells', 'opacity, counts', 'always', 'if @fades'],
      ]);
      expect(told(preset, { rows: [] })).toEqual([
        ['cells', 'opacity, counts', 'always', null],
        ['cells', 'opacity at Start', '0', null],
        ['cells', 'opacity at Rest', 'rest', null],
      ]);
      const eased = (ease: PresetEasing): Row => ({
        ...opacity,
        cells: [{ ...opacity.cells[0], ease }, opacity.cells[1]],
      });
      const wordsOf = (ease: PresetEasing) => told(preset, { rows: [eased(ease)] }, () => 'House soft')[0][3];
      expect(wordsOf({ type: 'linear' })).toBe('linear');
      const kept = { type: 'curve', id: 'soft', revision: 1, is: soft } as const;
      expect(wordsOf({ ...kept, reversed: true })).toBe('House soft, backwards');
      expect(wordsOf(kept)).toBe('House soft');
      expect(wordsOf({ type: 'parameter', name: 'how' })).toBe('@how');
      expect(wordsOf({ type: 'parameter', name: 'how', reversed: true })).toBe('@how, backwards');
      const free = { time: 0.3, value: 4 };
      expect(wordsOf({ type: 'handles', leave: free, arrive: free })).toBe('free handles');
      const scales = (x: string, y: string) => [row('scale.x', x), row('scale.y', y)];
      const linked = { ...preset, body: { ...body, rows: scales('rest', 'rest') } };
      expect(told(linked, { rows: scales('rest', 'rest × 2') })).toEqual([
        ['cells', 'scale y at Rest', 'rest', 'rest × 2'],
      ]);
      expect(told(linked, { rows: scales('rest × 2', 'rest × 2') })).toEqual([
        ['cells', 'scale at Rest', 'rest', 'rest × 2'],
      ]);
      const split = { ...preset, body: { ...body, rows: scales('rest', 'rest × 2') } };
      expect(told(split, { rows: scales('rest', 'rest') })).toEqual([['cells', 'scale y at Rest', 'rest × 2', 'rest']]);
    });

    test('movements that come and go are told as a whole', () => {
      const moving = { ...preset, body: { ...body, movements: [BOUNCE] } };
      const come = told(preset, { movements: [BOUNCE] });
      expect(come.map(([, , before]) => before)).toEqual(come.map(() => null));
      expect(told(moving, { movements: [] })).toEqual(come.map(([part, what, , now]) => [part, what, now, null]));
      expect(told(moving, { movements: [{ ...BOUNCE, when: 'fades' }] })[0][3]).toContain(', if @fades');
    });
  });

  test('what is chosen of a movement, with its moments by their names', () => {
    const preset = first('preset');
    const [{ id: from, name }] = preset.body.moments;
    const bounce = { ...BOUNCE, from };
    const before = { ...preset, body: { ...preset.body, movements: [bounce] } };
    const [[, , was, is]] = told(before, { movements: [{ ...bounce, by: 'speed' as const }] });
    expect([was, is]).toEqual([`from ${name}, height`, `from ${name}, speed`]);
    const [[, , , gone]] = told(before, { movements: [{ ...bounce, from: 'nowhere' }] });
    expect(gone).toBe('from nowhere, height');
  });

  test('fields of a palette and of a recipe', () => {
    const palette = first('palette');
    expect(told(palette, { colours: [] } as never).map(([part, what]) => [part, what])).toContainEqual([
      'value',
      'colours',
    ]);
    const recipe = first('recipe');
    expect(
      told(recipe, { seed: 99 } as never)
        .filter(([, what]) => what === 'seed')
        .map(([, , , after]) => after),
    ).toEqual(['99']);
  });

  test('of two kinds only the texts are told', () => {
    expect(
      compareItems(first('curve'), { ...first('palette'), name: first('curve').name, note: first('curve').note }),
    ).toEqual([]);
  });
});
