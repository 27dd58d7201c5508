import { packLayers, type Layer, type RunRecord, type UploadPart } from '@wexikine/core';

/** Layers in one part: so many are put into text in a few milliseconds. */
const PART_LAYERS = 400;
/** Changes of so many layers, and with so many layers in their runs, go in one request. */
const SMALL = 200;

/** True for layers and runs that are better sent in parts. */
export function isLarge(layers: readonly Layer[], runs: readonly RunRecord[]): boolean {
  return layers.length + runs.reduce((sum, run) => sum + run.layers.length, 0) > SMALL;
}

/** Parts of layers and runs, each made when it is asked for, so that the page has its turn between them. */
export function partsOf(layers: readonly Layer[], runs: readonly RunRecord[]): (() => UploadPart)[] {
  const count = Math.ceil(layers.length / PART_LAYERS);
  return [
    ...Array.from({ length: count }, (_, i) => (): UploadPart => {
      const own = layers.slice(i * PART_LAYERS, (i + 1) * PART_LAYERS);
      return { layers: packLayers(own), runs: [] };
    }),
    ...runs.map((run) => (): UploadPart => ({ layers: null, runs: [run] })),
  ];
}
