import { FRAME_PLACE, type Columns } from '../formula';
import { frameTicks, TICKS_PER_SECOND, type Rate } from '../../basics/time';
import type { Box } from '../../basics/transform';
import { curveIndex, type CompiledParameter, type CompiledPreset } from './compile';
import { inputValues, type ParameterValue } from './value';

/** The inputs of a preset's formulas for so many layers, each input one column; frame lengths are filled in. */
export function createColumns({ scope }: CompiledPreset, layers: number, rate: Rate): Columns {
  const values = new Float64Array(scope.size * layers);
  values.fill(frameTicks(rate) / TICKS_PER_SECOND, FRAME_PLACE * layers, (FRAME_PLACE + 1) * layers);
  return { values, stride: layers };
}

/** Writes into the column of one name; the place of the name is looked up once. */
export type Write = (row: number, value: number) => void;

/** Finds the column of a name, of a parameter with its @. */
export function createWriter({ scope }: CompiledPreset, { values, stride }: Columns, name: string): Write {
  const at = (scope.places.get(name) as number) * stride;
  return (row, value) => void (values[at + row] = value);
}

/** Writes parameters' values into their columns; `boxOf` gives a layer's upright box in the rest pose, of null the row's own. */
export function createParameterWriter(
  compiled: CompiledPreset,
  columns: Columns,
  { parameter }: CompiledParameter,
  boxOf: (row: number, layer: string | null) => Box,
): (row: number, value: ParameterValue) => void {
  const own = columns.values;
  const place = (compiled.scope.places.get(`@${parameter.name}`) ?? 0) * columns.stride;
  const writers = new Map<string, Write>();
  const write = (name: string, row: number, value: number): void => {
    const known = writers.get(name) ?? createWriter(compiled, columns, `@${name}`);
    writers.set(name, known);
    known(row, value);
  };
  return (row, value) => {
    if (typeof value === 'number') return void (own[place + row] = value);
    if ('curve' in value) return write(parameter.name, row, curveIndex(compiled.curves, value.curve));
    for (const [name, number] of inputValues(parameter, value, (layer) => boxOf(row, layer))) write(name, row, number);
  };
}

/** Values of a parameter brought within its hard limits, in place: the greatest wins where they cross. */
export function limitColumn({ min, max }: CompiledParameter, columns: Columns, values: Float64Array): void {
  const limit = new Float64Array(values.length);
  if (min) {
    min.run(columns, 0, values.length, limit);
    for (let i = 0; i < values.length; i++) if (values[i] < limit[i]) values[i] = limit[i];
  }
  if (max) {
    max.run(columns, 0, values.length, limit);
    for (let i = 0; i < values.length; i++) if (values[i] > limit[i]) values[i] = limit[i];
  }
}
