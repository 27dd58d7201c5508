import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { draftPresetSchema, MOVEMENTS, type Movement, type MovementType, type Preset } from '../../formulas/preset';
import { STARTER_PRESETS } from '../starter';
import {
  addMovement,
  addParameter,
  addPart,
  changeMovement,
  createMovement,
  movementChannelChoices,
  moveMovement,
  parameterUses,
  partLimits,
  removeMoment,
  removeMovement,
  removePart,
  renameParameter,
  setMovementNumber,
} from '.';

const TYPES = Object.keys(MOVEMENTS) as MovementType[];
const tip = (STARTER_PRESETS.find(({ id }) => id === 'tip-over') as (typeof STARTER_PRESETS)[number]).body;

function withMovements(...types: readonly MovementType[]): Preset {
  return types.reduce((preset, type) => addMovement(preset, createMovement(preset, type)), tip);
}

/** What is wrong with a preset, but that a channel is given keys twice: which of the two goes is for people to say. */
function problems(preset: Preset): string[] {
  const { error } = draftPresetSchema.safeParse(preset);
  return (error?.issues ?? [])
    .map(({ message }) => message)
    .filter((message) => !message.endsWith('Remove one of them.'));
}

const idsOf = ({ movements = [] }: Preset): string[] => movements.map(({ id }) => id);
const partsOf = (preset: Preset, id: string): readonly object[] => {
  const found = preset.movements?.find((movement) => movement.id === id);
  return found && 'parts' in found ? found.parts : [];
};

describe('a movement', () => {
  test.each(TYPES.map((type) => [type]))('%s begins whole, from the first moment, and can be added twice', (type) => {
    const preset = withMovements(type, type);
    expect(problems(preset)).toEqual([]);
    const [first, second] = preset.movements ?? [];
    expect([first.type, first.from]).toEqual([type, tip.moments[0].id]);
    expect(second.id).not.toBe(first.id);
    if ('to' in first) expect(first.to).toBe(tip.moments.at(-1)?.id);
  });

  test('begins on a channel that is free and counts as it does, with safe numbers in its unit', () => {
    const all = ['position.x', 'position.y', 'rotation', 'opacity', 'scale.x'] as const;
    const sway = createMovement(tip, 'sway');
    const after = addMovement(tip, sway);
    expect('channel' in sway && movementChannelChoices(tip, 'sway', all)).toContain('channel' in sway && sway.channel);
    expect(movementChannelChoices(after, 'sway', all)).not.toContain('channel' in sway && sway.channel);
    expect(movementChannelChoices(tip, 'path', all)).toEqual([]);
    const bare: Preset = { ...tip, rows: [], movements: [] };
    expect(createMovement(bare, 'sway')).toMatchObject({ channel: 'position.y', parts: [{ amount: '20px' }] });
    expect(createMovement(bare, 'spring')).toMatchObject({ numbers: { start: 'rest + 120px' } });
    // Each unit has its own amounts: the channel that is free says which.
    const only = (channel: 'rotation' | 'opacity' | 'skew') => {
      const taken = (['position.y', 'position.x', 'rotation', 'scale.x', 'scale.y', 'opacity', 'skew'] as const).filter(
        (id) => id !== channel,
      );
      const full: Preset = { ...bare, rows: taken.map((id) => ({ channel: id, cells: [] })) };
      return createMovement(full, 'spring');
    };
    expect(only('rotation')).toMatchObject({ channel: 'rotation', numbers: { start: 'rest - 30deg' } });
    expect(only('opacity')).toMatchObject({ channel: 'opacity', numbers: { start: 'rest × 40%' } });
    const taken = addMovement(bare, createMovement(bare, 'sway'));
    expect(createMovement(taken, 'sway')).toMatchObject({ channel: 'position.x', id: expect.stringMatching(/^sway/) });
  });

  test('along a path comes in for an entrance and goes out for an exit', () => {
    expect(createMovement({ ...tip, phase: 'entrance' }, 'path')).toMatchObject({ fit: 'in' });
    expect(createMovement({ ...tip, phase: 'exit' }, 'path')).toMatchObject({ fit: 'out' });
  });
});

describe('movements of a preset', () => {
  const three = withMovements('sway', 'draw', 'framing');
  const [a, b, c] = idsOf(three);

  test('are changed by their id, one alone', () => {
    const changed = changeMovement(three, b, (movement) => ({ ...movement, from: 'elsewhere' }));
    expect(changed.movements?.map(({ from }) => from === 'elsewhere')).toEqual([false, true, false]);
    expect(changeMovement(three, 'gone', () => null as never)).toEqual(three);
    expect(changeMovement(tip, a, () => null as never)).toBe(tip);
  });

  test('that begin or end at a moment which is removed take the one before it, at the first one the one after', () => {
    const ids = three.moments.map(({ id }) => id);
    const at = (from: string) => changeMovement(three, b, (movement) => ({ ...movement, from }));
    const [before, middle, after] = ids;
    const fromOf = (preset: Preset) => preset.movements?.map(({ from }) => from)[1];
    expect(fromOf(removeMoment(at(middle), middle))).toBe(before);
    expect(fromOf(removeMoment(at(before), before))).toBe(middle);
    expect(fromOf(removeMoment(at(after), middle))).toBe(after);
  });

  test('are moved up and down, and stay at the ends', () => {
    expect(idsOf(moveMovement(three, a, 1))).toEqual([b, a, c]);
    expect(idsOf(moveMovement(three, c, -2))).toEqual([c, a, b]);
    expect(idsOf(moveMovement(three, a, -1))).toEqual([a, b, c]);
    expect(moveMovement(tip, a, 1)).toBe(tip);
  });

  test('are removed; a preset without any is as if it never had one', () => {
    expect(idsOf(removeMovement(three, b))).toEqual([a, c]);
    const none = [a, b, c].reduce(removeMovement, three);
    expect(none).toEqual(tip);
    expect(none).not.toHaveProperty('movements');
    expect(removeMovement(tip, a)).toEqual(tip);
  });

  test('have numbers that are written by their names, also those of their parts', () => {
    const [name] = Object.keys(MOVEMENTS.draw.numbers);
    if (name)
      expect(changeOf(setMovementNumber(three, b, name, '@mine'), b).numbers).toMatchObject({ [name]: '@mine' });
    const zoomed = setMovementNumber(three, c, '1.zoom', '200%');
    expect(partsOf(zoomed, c)).toEqual([partsOf(three, c)[0], { ...partsOf(three, c)[1], zoom: '200%' }]);
    expect(setMovementNumber(three, b, '0.zoom', '1')).toEqual(three);
  });

  function changeOf(preset: Preset, id: string): Movement {
    return preset.movements?.find((movement) => movement.id === id) as Movement;
  }

  test('have as many parts as may be, each new one like the last', () => {
    for (const id of [a, c]) {
      const [least, most] = partLimits(changeOf(three, id).type);
      const full = Array.from({ length: 20 }).reduce<Preset>((preset) => addPart(preset, id), three);
      expect(partsOf(full, id)).toHaveLength(most);
      expect(partsOf(full, id).at(-1)).toEqual(partsOf(three, id).at(-1));
      expect(problems(full)).toEqual([]);
      const bare = Array.from({ length: 20 }).reduce<Preset>((preset) => removePart(preset, id, 0), full);
      expect(partsOf(bare, id)).toHaveLength(least);
    }
    expect(addPart(three, b)).toEqual(three);
    expect(removePart(three, b, 0)).toEqual(three);
    const [first, , third] = partsOf(addPart(three, c), c);
    expect(partsOf(removePart(addPart(three, c), c, 1), c)).toEqual([first, third]);
  });

  test('whatever is done to them, the preset hangs together', () => {
    const step = fc.record({ at: fc.nat(5), by: fc.integer({ min: -3, max: 3 }), what: fc.nat(4) });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        const end = steps.reduce<Preset>((preset, { at, by, what }) => {
          const id = idsOf(preset)[at] ?? 'gone';
          const actions = [
            () => addMovement(preset, createMovement(preset, TYPES[at % TYPES.length])),
            () => moveMovement(preset, id, by),
            () => removeMovement(preset, id),
            () => addPart(preset, id),
            () => removePart(preset, id, Math.abs(by)),
          ];
          return actions[what]();
        }, tip);
        expect(new Set(idsOf(end)).size).toBe(idsOf(end).length);
        expect(problems(end)).toEqual([]);
      }),
    );
  });
});

describe('parameters that movements use', () => {
  const base = addParameter(addParameter(withMovements('draw', 'framing'), 'curve', 'Ease of it'), 'switch', 'On it');
  const [ease, on] = base.parameters.slice(-2).map(({ name }) => name);
  const [draw, framing] = idsOf(base);
  const used = setMovementNumber(
    changeMovement(base, draw, (movement) => {
      return { ...movement, when: on, ease: { type: 'parameter', name: ease } } as Movement;
    }),
    framing,
    '0.zoom',
    '100% + @turn × 1%',
  );

  test('are told with what uses them', () => {
    expect(parameterUses(used, on)).toEqual([expect.stringMatching(/^whether .* counts$/)]);
    expect(parameterUses(used, ease)).toEqual([expect.stringMatching(/^easing of /)]);
    expect(parameterUses(used, 'turn')).toHaveLength(1);
  });

  test('are renamed wherever these say them', () => {
    const renamed = [on, ease, 'turn'].reduce((preset, name) => renameParameter(preset, name, `${name}2`), used);
    const text = JSON.stringify(renamed.movements);
    expect(text).toContain(`"when":"${on}2"`);
    expect(text).toContain(`"name":"${ease}2"`);
    expect(text).toContain('@turn2 × 1%');
    for (const name of [on, ease, 'turn']) expect(parameterUses(renamed, name)).toEqual([]);
    expect(parameterUses(renamed, `${on}2`)).toHaveLength(1);
  });
});
