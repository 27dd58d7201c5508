import { expect, test } from '@jest/globals';
import { compilePreset, createColumns, limitColumn, type Parameter, type Preset } from '.';

function limitedTo(limits: Pick<Parameter, 'min' | 'max'>, values: readonly number[]): number[] {
  const preset: Preset = {
    phase: 'entrance',
    hang: 'in',
    stretch: 'keep',
    grid: 'frames',
    parameters: [{ name: 'tilt', label: 'Tilt', kind: 'angle', default: '0deg', note: '', ...limits }],
    moments: [{ id: 'start', name: 'Start', at: '0f' }],
    rows: [],
  };
  const result = compilePreset(preset);
  if (!result.ok) throw new Error(result.problems[0].message);
  const column = Float64Array.from(values);
  const columns = createColumns(result.compiled, values.length, { num: 25, den: 1 });
  limitColumn(result.compiled.parameters[0], columns, column);
  return [...column];
}

test('a parameter keeps within a least, a most, or both', () => {
  const values = [-50, 0, 50];
  expect(limitedTo({ min: '-10deg' }, values)).toEqual([-10, 0, 50]);
  expect(limitedTo({ max: '10deg' }, values)).toEqual([-50, 0, 10]);
  expect(limitedTo({ min: '-10deg', max: '10deg' }, values)).toEqual([-10, 0, 10]);
  expect(limitedTo({}, values)).toEqual(values);
});
