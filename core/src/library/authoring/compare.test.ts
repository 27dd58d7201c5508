import { describe, expect, test } from '@jest/globals';
import { compareItems } from '.';
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
