import type { Columns } from '../../formulas/formula';
import type { CompiledMovement, CompiledPreset } from '../../formulas/preset';
import { bounceTrouble } from '../../basics/motion';
import { bounceCourse, courseEnd } from './bounce';
import { springLasts } from './spring';

/** The numbers of a movement on all layers, each formula once over all of them. */
export type NumberColumns = ReadonlyMap<string, Float64Array>;

/** Runs formulas of a movement over all layers: those that read what a channel rests at, or those that do not. */
export function numberColumns(
  { formulas, ofChannel }: CompiledMovement,
  columns: Columns,
  isOfChannel: boolean,
): NumberColumns {
  const fields = [...formulas].filter(([field]) => ofChannel.has(field) === isOfChannel);
  return new Map(
    fields.map(([field, formula]) => {
      const values = new Float64Array(columns.stride);
      formula.run(columns, 0, columns.stride, values);
      return [field, values] as const;
    }),
  );
}

/** Whether a movement counts on a layer: where no switch says otherwise. */
export function switchOf(
  { when }: CompiledMovement,
  { places }: CompiledPreset['scope'],
  { values, stride }: Columns,
): (row: number) => boolean {
  if (when === null) return () => true;
  const first = (places.get(`@${when}`) as number) * stride;
  return (row) => values[first + row] !== 0;
}

/** One number of a layer; what is not finite counts as 0. */
export function numberOn(numbers: NumberColumns, row: number): (field: string) => number {
  return (field) => {
    const value = numbers.get(field)?.[row] ?? 0;
    return Number.isFinite(value) ? value : 0;
  };
}

function lengthOf({ movement }: CompiledMovement, number: (field: string) => number): number {
  switch (movement.type) {
    case 'bounce':
      return courseEnd(bounceCourse(movement, number));
    case 'spring':
      return springLasts(number);
    default:
      return 0;
  }
}

/**
 * When movements that end by themselves are over, in seconds from the preset's beginning, each for all layers. One that
 * is played backwards ends at its moment and needs its length before that: what is missing there is in `early`.
 */
export function movementEnds(
  { movements, scope }: CompiledPreset,
  columns: Columns,
  asked: readonly Float64Array[],
): { readonly ends: readonly Float64Array[]; readonly early: Float64Array } {
  const early = new Float64Array(columns.stride);
  const own = movements.filter(({ to }) => to === null);
  const ends = own.map((entry) => {
    const numbers = numberColumns(entry, columns, false);
    const from = asked[entry.from];
    const isOn = switchOf(entry, scope, columns);
    return from.map((seconds, row) => {
      // One that is switched off takes no time.
      if (!isOn(row)) return 0;
      const length = lengthOf(entry, numberOn(numbers, row));
      if (entry.movement.reversed !== true) return seconds + length;
      early[row] = Math.max(early[row], length - seconds);
      return seconds;
    });
  });
  return { ends, early };
}

/** Why a movement cannot be on some layers. */
export interface MovementTrouble {
  readonly why: 'no-gravity' | 'never-rests' | 'never-settles' | 'no-pace';
  readonly entry: CompiledMovement;
  readonly rows: readonly number[];
}

function troubleOf({ movement }: CompiledMovement, number: (field: string) => number): MovementTrouble['why'] | null {
  switch (movement.type) {
    case 'bounce':
      return bounceTrouble({ gravity: number('gravity'), restitution: number('restitution') });
    case 'spring':
      if (!(number('pace') > 0)) return 'no-pace';
      return number('damping') > 0 ? null : 'never-settles';
    default:
      return null;
  }
}

/** Movements whose laws would never come to an end with the numbers of some layers. */
export function movementTroubles({ movements, scope }: CompiledPreset, columns: Columns): MovementTrouble[] {
  return movements.flatMap((entry) => {
    const numbers = numberColumns(entry, columns, false);
    const isOn = switchOf(entry, scope, columns);
    const rows = Array.from({ length: columns.stride }, (_, row) => row);
    const found = rows.flatMap((row) => {
      if (!isOn(row)) return [];
      const why = troubleOf(entry, numberOn(numbers, row));
      return why === null ? [] : [{ why, row }];
    });
    const whys = [...new Set(found.map(({ why }) => why))];
    return whys.map((why) => ({ why, entry, rows: found.filter((one) => one.why === why).map(({ row }) => row) }));
  });
}
