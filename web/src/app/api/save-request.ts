import { difference, type SaveRequest, type Scene } from '@wexikine/core';

const MOST_WORDS = 1_000;

/** What is sent to bring a stored scene, at its version, to what it is to be. */
export function saveRequest(
  { version, scene }: { readonly version: number; readonly scene: Scene },
  next: Scene,
  { by, what }: { readonly by: string; readonly what: string },
): SaveRequest {
  const { header, layers, removedLayers, order, runs, removedRuns, runOrder } = difference(scene, next);
  return {
    base: version,
    by,
    what: what.slice(0, MOST_WORDS),
    header,
    layers: [...layers],
    removedLayers: [...removedLayers],
    order: order === null ? null : [...order],
    runs: [...runs],
    removedRuns: [...removedRuns],
    runOrder: runOrder === null ? null : [...runOrder],
  };
}
