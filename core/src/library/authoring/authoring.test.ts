import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CHANNEL_IDS } from '../../basics/channel';
import { HOLD, LINEAR } from '../../basics/easing';
import {
  createPreset,
  draftPresetSchema,
  PARAMETER_KINDS,
  type ParameterKind,
  type Preset,
  type PresetEasing,
} from '../../formulas/preset';
import { STARTER_PRESETS } from '../starter';
import type { Rig } from '../../formulas/rig';
import {
  addMoment,
  addParameter,
  addRows,
  canInline,
  changeKind,
  changeMoment,
  changeParameter,
  comparePresets,
  copyRow,
  duplicateMoment,
  mentionsIn,
  moveMoment,
  moveParameter,
  moveRows,
  nameFrom,
  nameProblem,
  parameterUses,
  removeMoment,
  removeParameter,
  removeRows,
  renameOption,
  renameParameter,
  rowGroups,
  setCell,
  setCondition,
  setEase,
  linkedChannels,
  setFormula,
  setFormulaChannels,
} from '.';

function starter(id: string): Preset {
  return (STARTER_PRESETS.find((item) => item.id === id) as (typeof STARTER_PRESETS)[number]).body;
}

const pop = starter('pop-in-five-steps');
const tip = starter('tip-over');

describe('mentions of parameters', () => {
  test('are found in sound and in broken formulas, but not in comments', () => {
    expect(mentionsIn('rest × (1 + @over) - @side.left').map(({ name }) => name)).toEqual(['over', 'side.left']);
    expect(mentionsIn('rest × (1 + @over').map(({ name }) => name)).toEqual(['over']);
    expect(mentionsIn('# @not this\n@this').map(({ name }) => name)).toEqual(['this']);
  });
});

describe('renaming a parameter', () => {
  test('reaches times, cells, switches and the length, and only whole names', () => {
    const over = renameParameter(pop, 'over', 'past');
    expect(JSON.stringify(over)).not.toContain('@over');
    expect(over.rows[0].cells[1].value).toBe('rest × (1 + @past)');
    expect(renameParameter(pop, 'fade', 'dim').rows[2].when).toBe('dim');
    const lasts = renameParameter(pop, 'lasts', 'last');
    expect(lasts.lasts).toBe('last');
    expect(lasts.moments[1].at).toBe('@last × 8 ÷ 18');
    expect(renameParameter(lasts, 'last', 'lasts')).toEqual(pop);
  });

  test('of a choice and of its options reaches formulas', () => {
    expect(JSON.stringify(renameParameter(tip, 'corner', 'pivot'))).toContain(
      'if @pivot.bottomRight or @pivot.topRight',
    );
    const renamed = renameOption(tip, 'corner', 'bottomLeft', 'low');
    expect(renamed.parameters[1]).toMatchObject({ default: 'low' });
    const options = (preset: Preset) => preset.parameters[1].options?.map(({ name }) => name);
    expect(options(renamed)).toEqual(options(tip)?.map((name) => (name === 'bottomLeft' ? 'low' : name)));
    expect(renamed.parameters[0]).toEqual(tip.parameters[0]);
    const high = renameOption(tip, 'corner', 'topRight', 'high');
    expect(JSON.stringify(high)).toContain('@corner.high');
    // All else that formulas mention is what it was.
    const named = (preset: Preset, from: string) =>
      mentionsIn(preset.rows.flatMap(({ cells }) => cells.map(({ value }) => value)).join('\n')).map(({ name }) =>
        name === from ? 'corner.topRight' : name,
      );
    expect(named(high, 'corner.high')).toEqual(named(tip, 'corner.topRight'));
  });

  test('reaches conditions and easings of rows, of this parameter alone', () => {
    const row = (when: string, ease: PresetEasing) => ({
      ...pop.rows[0],
      when,
      cells: [{ moment: 'start', value: '0', ease }],
    });
    const using = {
      ...pop,
      parameters: [...pop.parameters, { ...pop.parameters[0], name: 'side' }, { ...pop.parameters[0], name: 'sides' }],
      rows: [row('side.left', { type: 'parameter', name: 'side' }), row('sides', { type: 'parameter', name: 'sides' })],
    };
    const { rows } = renameParameter(using, 'side', 'edge');
    expect(rows.map(({ when }) => when)).toEqual(['edge.left', 'sides']);
    expect(rows.map(({ cells }) => cells[0].ease)).toEqual([
      { type: 'parameter', name: 'edge' },
      { type: 'parameter', name: 'sides' },
    ]);
    expect(parameterUses(using, 'side')).toEqual(['whether scale x counts', 'easing of scale x after Start']);
    const { rows: removed } = removeParameter(using, 'sides');
    expect(removed.map(({ when }) => when)).toEqual(['side.left', undefined]);
    const { rows: optioned } = renameOption(using, 'side', 'left', 'west');
    expect(optioned.map(({ when }) => when)).toEqual(['side.west', 'sides']);
    expect(removeParameter(using, 'nowhere')).toBe(using);
  });

  test('to a name that does not work is refused with a sentence', () => {
    expect(nameProblem(pop, 'over', 'live')).toBe('@live is the name of “Liveliness” already. Choose another one.');
    expect(nameProblem(pop, 'over', 'Over x')).toContain('letters and digits');
    expect(nameProblem(pop, 'over', 'over')).toBeNull();
    expect(nameProblem(pop, 'over', 'past')).toBeNull();
  });
});

describe('removing a parameter', () => {
  test('says where it is used, and writes its default in its place', () => {
    expect(parameterUses(pop, 'over')).toContain('scale x at Peak');
    expect(parameterUses(pop, 'lasts')).toEqual([
      'time of Peak',
      'time of Dip',
      'time of Echo',
      'time of Last dip',
      'time of Rest',
      'the length of the preset',
    ]);
    expect(parameterUses(pop, 'fade')).toEqual(['whether opacity counts']);
    const without = removeParameter(pop, 'over');
    expect(without.rows[0].cells[1].value).toBe('rest × (1 + 20%)');
    expect(removeParameter(pop, 'fade').rows[2].when).toBeUndefined();
    expect(removeParameter(pop, 'lasts').lasts).toBeUndefined();
    expect([canInline(pop, 'over'), canInline(tip, 'corner')]).toEqual([true, false]);
  });

  test('keeps the meaning where the default is itself a sum', () => {
    const sum = changeParameter(pop, 'over', { default: '10% + 10%' });
    expect(removeParameter(sum, 'over').rows[0].cells[2].value).toBe('rest × (1 - (10% + 10%) × @live)');
  });
});

describe('parameters', () => {
  test.each(PARAMETER_KINDS.map((kind) => [kind]))(
    'of kind %s begin as a valid preset, twice with free names',
    (kind) => {
      const twice = addParameter(addParameter(createPreset('entrance'), kind), kind);
      expect(draftPresetSchema.safeParse(twice).error?.issues ?? []).toEqual([]);
      expect(new Set(twice.parameters.map(({ name }) => name)).size).toBe(3);
    },
  );

  test('take the next free number after a name that is taken, and keep their texts in another kind', () => {
    const four = [1, 2, 3, 4].reduce((preset) => addParameter(preset, 'time', 'Fade in'), createPreset('entrance'));
    expect(four.parameters.slice(1).map(({ name }) => name)).toEqual(['fadeIn', 'fadeIn2', 'fadeIn3', 'fadeIn4']);
    const grouped = { ...four, parameters: four.parameters.map((one) => ({ ...one, group: 'Fades', note: 'How.' })) };
    const [, changed, next] = changeKind(grouped, 'fadeIn', 'angle').parameters;
    expect(changed).toMatchObject({ name: 'fadeIn', kind: 'angle', group: 'Fades', note: 'How.' });
    expect(next).toEqual(grouped.parameters[2]);
    expect(changeKind(four, 'fadeIn', 'angle').parameters[1]).not.toHaveProperty('group');
  });

  test('get a name that can stand behind an @ from any label', () => {
    expect(nameFrom('Past full size')).toBe('pastFullSize');
    expect(nameFrom('3 turns')).toBe('p3Turns');
    fc.assert(fc.property(fc.string(), (label) => expect(nameFrom(label)).toMatch(/^[a-z][A-Za-z0-9_]{0,39}$/)));
  });

  test('are moved, changed, tied, and begin anew with another kind', () => {
    expect(moveParameter(pop, 'live', -1).parameters.map(({ name }) => name)).toEqual([
      'lasts',
      'live',
      'over',
      'fade',
    ]);
    expect(moveParameter(pop, 'lasts', -5)).toEqual(pop);
    expect(changeParameter(pop, 'over', { min: undefined }).parameters[1]).not.toHaveProperty('min');
    expect(changeKind(pop, 'lasts', 'time').parameters).toEqual(pop.parameters);
    expect(changeKind(pop, 'lasts', 'percent').parameters.slice(1)).toEqual(pop.parameters.slice(1));
    const kind = changeKind(pop, 'lasts', 'angle');
    expect(kind.lasts).toBeUndefined();
    expect(kind.parameters[0]).toMatchObject({ label: 'Lasts', kind: 'angle', default: '6deg' });
  });
});

describe('the matrix', () => {
  test('shows channels that are keyed alike as one row, and apart once they differ', () => {
    expect(rowGroups(pop).map(({ label }) => label)).toEqual(['scale', 'opacity']);
    const apart = setCell(pop, ['scale.x'], 'peak', 'rest × 2');
    expect(rowGroups(apart).map(({ label }) => label)).toEqual(['scale x', 'scale y', 'opacity']);
    expect(copyRow(apart, 'blur', ['scale.y'])).toBe(apart);
    expect(rowGroups(copyRow(apart, 'scale.x', ['scale.y'])).map(({ label }) => label)).toEqual(['scale', 'opacity']);
  });

  test('takes moments in, moves, copies and removes them with their cells in order', () => {
    const added = addMoment(pop, 'peak', 'Peak', '@lasts × 50%');
    expect(added.moments.map(({ id }) => id).slice(0, 3)).toEqual(['start', 'peak', 'peak-2']);
    const moved = moveMoment(pop, 'peak', 1);
    expect(moved.rows[0].cells.map(({ moment }) => moment).slice(0, 3)).toEqual(['start', 'dip', 'peak']);
    const copied = duplicateMoment(pop, 'peak');
    expect(copied.rows.map(({ cells }) => cells.length)).toEqual([7, 7, 3]);
    expect(removeMoment(copied, copied.moments[2].id)).toEqual(pop);
    expect(changeMoment(pop, 'peak', { name: 'Top' }).moments[1].name).toBe('Top');
    const single = createPreset('entrance');
    expect(removeMoment(removeMoment(single, 'end'), 'start').moments).toHaveLength(1);
  });

  test('takes rows in and out, moves linked rows together, sets cells, easings and conditions', () => {
    const empty = addRows(createPreset('entrance'), ['scale.x', 'scale.y']);
    const first = setCell(empty, ['scale.x', 'scale.y'], 'end', 'rest');
    const both = setCell(first, ['scale.x', 'scale.y'], 'start', '0');
    expect(both.rows[1].cells.map(({ moment, value }) => [moment, value])).toEqual([
      ['start', '0'],
      ['end', 'rest'],
    ]);
    expect(setCell(both, ['scale.x'], 'start', ' ').rows[0].cells).toHaveLength(1);
    expect(setEase(both, ['scale.x'], 'start', HOLD).rows[0].cells[0].ease).toEqual(HOLD);
    expect(moveRows(pop, ['opacity'], -1).rows.map(({ channel }) => channel)).toEqual([
      'opacity',
      'scale.x',
      'scale.y',
    ]);
    expect(removeRows(pop, ['scale.x', 'scale.y']).rows).toHaveLength(1);
    expect(setCondition(pop, ['opacity'], null).rows[2]).not.toHaveProperty('when');
    expect(addRows(pop, ['opacity'])).toEqual(pop);
  });

  test('whatever is done to it, the parts of a preset hang together', () => {
    type Step = (preset: Preset) => Preset;
    const pick = fc.nat(40);
    const step: fc.Arbitrary<Step> = fc.oneof(
      fc.tuple(pick, pick).map(
        ([i, j]): Step =>
          (p) =>
            setCell(p, [p.rows[i % p.rows.length]?.channel ?? 'blur'], p.moments[j % p.moments.length].id, 'rest'),
      ),
      pick.map(
        (i): Step =>
          (p) =>
            addRows(p, [CHANNEL_IDS[i % CHANNEL_IDS.length]]),
      ),
      pick.map(
        (i): Step =>
          (p) =>
            removeMoment(p, p.moments[i % p.moments.length].id),
      ),
      pick.map(
        (i): Step =>
          (p) =>
            duplicateMoment(p, p.moments[i % p.moments.length].id),
      ),
      pick.map(
        (i): Step =>
          (p) =>
            moveMoment(p, p.moments[i % p.moments.length].id, (i % 5) - 2),
      ),
      pick.map(
        (i): Step =>
          (p) =>
            p.moments.length > 40 ? p : addMoment(p, null, `M ${i}`, '0f'),
      ),
      fc.constantFrom<ParameterKind>(...PARAMETER_KINDS).map(
        (kind): Step =>
          (p) =>
            p.parameters.length > 20 ? p : addParameter(p, kind),
      ),
      pick.map((i): Step => (p) => {
        const name = p.parameters[i % Math.max(1, p.parameters.length)]?.name;
        return name === undefined ? p : removeParameter(p, name);
      }),
      pick.map(
        (i): Step =>
          (p) =>
            p.rows.length === 0 ? p : copyRow(p, p.rows[0].channel, [CHANNEL_IDS[i % CHANNEL_IDS.length]]),
      ),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
        const result = steps.reduce((preset, change) => change(preset), pop);
        expect(draftPresetSchema.safeParse(result).error?.issues ?? []).toEqual([]);
      }),
    );
  });
});

describe('comparing two revisions', () => {
  test('finds nothing between equal ones', () => {
    for (const { body } of STARTER_PRESETS) expect(comparePresets(body, structuredClone(body))).toEqual([]);
  });

  test('tells in words what differs, linked channels once', () => {
    let next = changeParameter(pop, 'over', { default: '18%' });
    next = setCell(next, ['scale.x', 'scale.y'], 'peak', 'rest × 120%');
    next = setEase(next, ['scale.x', 'scale.y'], 'start', LINEAR);
    next = addParameter(next, 'angle', 'Lean');
    next = changeMoment(next, 'peak', { at: '@lasts × 44%' });
    next = { ...setCondition(next, ['opacity'], null), stretch: 'scale' };
    expect(comparePresets(pop, next, (id) => `“${id}”`)).toEqual([
      { part: 'hanging', what: 'when its layer is stretched', before: 'keeps its length', after: 'scales' },
      { part: 'parameters', what: '@over, default', before: '20%', after: '18%' },
      { part: 'parameters', what: '@lean', before: null, after: '6deg' },
      { part: 'moments', what: 'Peak', before: '@lasts × 8 ÷ 18', after: '@lasts × 44%' },
      { part: 'easings', what: 'scale after Start', before: '“curve-arrive”', after: 'linear' },
      { part: 'cells', what: 'scale at Peak', before: 'rest × (1 + @over)', after: 'rest × 120%' },
      { part: 'cells', what: 'opacity, counts', before: 'if @fade', after: 'always' },
    ]);
  });

  test('tells channels one by one where only one of the two revisions has them linked', () => {
    const apart = setCell(pop, ['scale.y'], 'dip', 'rest');
    expect(comparePresets(pop, apart).map(({ what }) => what)).toEqual(['scale y at Dip']);
  });

  test('tells of another order of parameters, and of what is gone', () => {
    expect(comparePresets(pop, moveParameter(pop, 'live', -1)).map(({ what }) => what)).toEqual(['order']);
    expect(comparePresets(pop, removeRows(pop, ['opacity'])).filter(({ after }) => after === null)).toHaveLength(3);
  });
});

describe('formulas of a rig', () => {
  const rig: Rig = {
    dials: [],
    roles: [],
    formulas: [
      { channels: ['position.x', 'position.y'], text: 'keyed' },
      { channels: ['opacity'], text: '50%' },
    ],
  };

  test('get another text, others channels, and go without any', () => {
    expect(setFormula(rig, 1, '20%').formulas.map(({ text }) => text)).toEqual(['keyed', '20%']);
    const other = setFormulaChannels(rig, 0, ['rotation']);
    expect(other.formulas.map(({ channels }) => channels)).toEqual([['rotation'], ['opacity']]);
    expect(setFormulaChannels(rig, 0, []).formulas).toEqual([rig.formulas[1]]);
    expect(rig.formulas).toHaveLength(2);
  });
});

test('channels that are shown together where they are keyed alike', () => {
  expect(linkedChannels('scale.x')).toEqual(linkedChannels('scale.y'));
  expect(linkedChannels('scale.x')).toEqual(['scale.x', 'scale.y']);
  expect(linkedChannels('rotation')).toEqual(['rotation']);
});
