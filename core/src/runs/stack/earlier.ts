import { seedFromText } from '../../basics/random';
import type { Layer } from '../../scene/layer';
import { createMadeReader, packMade, type LayerMade, type RunRecord } from '../../scene/scene';
import type { Reads } from '../operation';
import { unnamed } from './fold';

/** What a run made on a layer in other surroundings, to which its plan of now does not lead back. */
export interface Earlier {
  /** Name of the surroundings. */
  readonly under: string;
  readonly made: LayerMade;
}

const known = new WeakMap<RunRecord, ReadonlyMap<string, Earlier>>();

/** What a run made earlier, by layer. */
export function earlierOf(run: RunRecord): ReadonlyMap<string, Earlier> {
  const before = known.get(run);
  if (before) return before;
  const { earlier } = run;
  const read = earlier && createMadeReader(run.id, earlier.layers, earlier.made);
  const map = new Map(
    read ? earlier.layers.map((layer, i) => [layer, { under: earlier.under[i], made: read(i) }] as const) : [],
  );
  known.set(run, map);
  return map;
}

/** A record with what it made earlier; without any it has no list of it. */
export function withEarlier(run: RunRecord, entries: ReadonlyMap<string, Earlier>): RunRecord {
  const { earlier: _before, ...rest } = run;
  if (entries.size === 0) return _before === undefined ? run : rest;
  const list = [...entries.values()];
  return {
    ...rest,
    earlier: {
      layers: [...entries.keys()],
      under: list.map(({ under }) => under),
      made: packMade(list.map(({ made }) => made)),
    },
  };
}

/** A short name of all that a run's plan may depend on in the layers under it: the same for the same. */
export function nameOfSurroundings(layers: readonly Layer[], reads: Reads): string {
  const parts = layers.map((layer) => [
    layer.id,
    reads.spans ? layer.span : 0,
    reads.rest ? layer.rest : 0,
    reads.looks === true ? layer.look : 0,
    reads.keys ? unnamed(layer).tracks : 0,
  ]);
  const text = JSON.stringify(parts);
  return `${seedFromText(text)}-${seedFromText(`again ${text}`)}-${text.length}`;
}
