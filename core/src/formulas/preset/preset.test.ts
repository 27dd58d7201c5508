import { describe, expect, test } from '@jest/globals';
import { HOLD } from '../../basics/easing';
import { STARTER_LIBRARY, STARTER_PRESETS } from '../../library/starter';
import { createShelf, libraryItemSchema, referencesOf } from '../../library/library';
import { compilePreset, describePresetProblem, PHASES, presetSchema, type Preset } from '.';

const preset: Preset = {
  phase: 'entrance',
  hang: 'in',
  stretch: 'keep',
  grid: 'frames',
  parameters: [{ name: 'over', label: 'Over', kind: 'percent', default: '20%', note: '' }],
  moments: [{ id: 'start', name: 'Start', at: '0f' }],
  rows: [{ channel: 'opacity', cells: [{ moment: 'start', value: '@over', ease: HOLD }] }],
};

describe('the starter library', () => {
  test('has at least 28 presets over all phases, 8 curves and 6 house values, each with a line of description', () => {
    expect(STARTER_PRESETS.length).toBeGreaterThanOrEqual(28);
    expect(STARTER_LIBRARY.filter(({ kind }) => kind === 'curve').length).toBeGreaterThanOrEqual(8);
    expect(STARTER_LIBRARY.filter(({ kind }) => kind === 'house').length).toBeGreaterThanOrEqual(6);
    for (const phase of PHASES) expect(STARTER_PRESETS.some(({ body }) => body.phase === phase)).toBe(true);
    for (const { note } of STARTER_LIBRARY) expect(note).toMatch(/\w.*\.$/);
    expect(createShelf(STARTER_LIBRARY).items.size).toBe(STARTER_LIBRARY.length);
  });

  test.each(STARTER_LIBRARY.map((item) => [item.name, item] as const))('%s is valid', (_, item) => {
    expect(libraryItemSchema.parse(JSON.parse(JSON.stringify(item)))).toEqual(item);
  });

  test.each(STARTER_PRESETS.map((item) => [item.name, item] as const))(
    '%s: all its formulas compile, and it knows the house values and curves that it takes',
    (_, item) => {
      const shelf = createShelf(STARTER_LIBRARY);
      const result = compilePreset(item.body, shelf);
      for (const { id } of referencesOf(item)) expect(shelf.items.has(id)).toBe(true);
      expect(result.ok ? [] : result.problems.map(describePresetProblem)).toEqual([]);
    },
  );
});

describe('a preset', () => {
  test('with a wrong formula says which one, what is wrong and what to do', () => {
    const result = compilePreset({ ...preset, moments: [{ id: 'start', name: 'Start', at: '12' }] });
    expect(!result.ok && result.problems.map(describePresetProblem)).toEqual([
      'In the time of moment Start, “12”: 12 needs a unit here. Write 12f for frames or 12s for seconds.',
    ]);
  });

  test('may not read the rest pose in a moment’s time', () => {
    const result = compilePreset({ ...preset, moments: [{ id: 'start', name: 'Start', at: 'rest' }] });
    expect(!result.ok && describePresetProblem(result.problems[0])).toContain('Nothing here is called rest');
  });

  test.each([
    [
      'a cell at a moment that is not there',
      { rows: [{ channel: 'opacity', cells: [{ moment: 'end', value: '1', ease: HOLD }] }] },
    ],
    ['two rows for a channel', { rows: [...preset.rows, ...preset.rows] }],
    ['a switch that is no parameter', { rows: [{ ...preset.rows[0], when: 'fade' }] }],
    ['a length that is no time', { lasts: 'over' }],
    ['two moments of one id', { moments: [...preset.moments, ...preset.moments] }],
  ])('with %s is refused', (_, part) => {
    expect(presetSchema.safeParse(preset).success).toBe(true);
    expect(presetSchema.safeParse({ ...preset, ...part }).success).toBe(false);
  });
});
