import { isSame } from '../../scene/layer';
import { packMade, type LayerPatch, type RunRecord } from '../../scene/scene';
import { earlierOf, withEarlier } from './earlier';
import { entryOn, madeBy, type Entry } from './fold';
import type { Anew } from './follow';

/** A record with other patches; without any it has no list of them. */
export function withPatches(run: RunRecord, patches: readonly LayerPatch[]): RunRecord {
  const { patches: before, ...rest } = run;
  if (isSame(before ?? [], patches)) return run;
  return patches.length > 0 ? { ...rest, patches: [...patches] } : rest;
}

/**
 * A record with what stands of it on some layers: their patches, and where it was planned anew what it makes on them. The
 * same record where nothing changed.
 */
export function withEntries(run: RunRecord, entries: readonly Entry[], anew: Anew | null): RunRecord {
  const known = new Map(entries.map((entry) => [entry.made.layer, entry]));
  const onLayer = (layer: string): Entry | null => known.get(layer) ?? entryOn(run, layer);
  const patched = withPatches(
    run,
    run.layers.flatMap((layer) => onLayer(layer)?.patch ?? []),
  );
  if (!anew) return patched;
  const made = packMade(madeBy(run).map((entry) => known.get(entry.layer)?.made ?? entry));
  const earlier = new Map(
    run.layers.flatMap((layer) => {
      const before = anew.has(layer) ? anew.get(layer)?.earlier : earlierOf(run).get(layer);
      return before ? [[layer, before] as const] : [];
    }),
  );
  return withEarlier(isSame(made, run.made) ? patched : { ...patched, made }, earlier);
}
