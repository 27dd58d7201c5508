import { expect, test } from '@jest/globals';
import { FRAME_PLACE } from '../formula';
import { compilePreset, createColumns, limitColumn, type Parameter, type Preset } from '.';

function compiledWith(limits: Pick<Parameter, 'min' | 'max'>) {
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
  return result.compiled;
}

function limitedTo(limits: Pick<Parameter, 'min' | 'max'>, values: readonly number[]): number[] {
  const compiled = compiledWith(limits);
  const column = Float64Array.from(values);
  const columns = createColumns(compiled, values.length, { num: 25, den: 1 });
  limitColumn(compiled.parameters[0], columns, column);
  return [...column];
}

test('a parameter keeps within a least, a most, or both', () => {
  const values = [-50, 0, 50];
  expect(limitedTo({ min: '-10deg' }, values)).toEqual([-10, 0, 50]);
  expect(limitedTo({ max: '10deg' }, values)).toEqual([-50, 0, 10]);
  expect(limitedTo({ min: '-10deg', max: '10deg' }, values)).toEqual([-10, 0, 10]);
  expect(limitedTo({}, values)).toEqual(values);
});

test('each layer has the length of a frame in a column of its own, and nothing else yet', () => {
  for (const [num, layers] of [
    [25, 3],
    [50, 1],
  ]) {
    const { values, stride } = createColumns(compiledWith({}), layers, { num, den: 1 });
    expect(stride).toBe(layers);
    const frames = [...values.slice(FRAME_PLACE * layers, (FRAME_PLACE + 1) * layers)];
    expect(frames).toEqual(Array.from({ length: layers }, () => 1 / num));
    expect([...values].filter((value) => value !== 0)).toHaveLength(layers);
  }
});
