import { deflateRawSync, inflateRawSync } from 'node:zlib';
import {
  curvesOfPacked,
  filesOf,
  packLayers,
  slicePacked,
  unpackLayers,
  type ItemRevision,
  type Layer,
  type PackedLayers,
  type RunRecord,
} from '@wexikine/core';

/** Layers in one stored chunk; a change of one of them writes one of its own. */
const CHUNK_LAYERS = 64;
/** Bytes in one stored slice of a run. */
const SLICE_BYTES = 512 * 1024;
/** Packing harder costs more time than it saves room. */
const LEVEL = 1;

/** What decides whether the groups of a scene hang together, and in which chunk a layer is. */
export interface OutlineEntry extends Pick<Layer, 'id' | 'name' | 'kind' | 'parent'> {
  /** Names of the files that it uses. */
  readonly files: readonly string[];
  /** The curves of the library that its keys are linked to. */
  readonly curves: readonly ItemRevision[];
  readonly chunk: number;
}

/** Layers that are ready to be written. */
export interface PreparedChunk {
  readonly entries: readonly Omit<OutlineEntry, 'chunk'>[];
  readonly body: Uint8Array;
}

/** What is asked of runs without reading them. */
export interface RunRow {
  readonly id: string;
  /** The preset or the rig that it used. */
  readonly preset: { readonly id: string; readonly revision: number } | null;
  readonly uses: readonly { readonly id: string; readonly revision: number }[];
  readonly layers: number;
  readonly off: boolean;
}

/** A run that is ready to be written. */
export interface PreparedRun {
  readonly row: RunRow;
  readonly slices: readonly Uint8Array[];
}

/** Layers and runs that are checked, packed and ready to be written. */
export interface Prepared {
  readonly chunks: readonly PreparedChunk[];
  readonly runs: readonly PreparedRun[];
}

/** Packs text. */
export function deflate(text: string): Uint8Array {
  return deflateRawSync(text, { level: LEVEL });
}

/** The text of packed bytes. */
export function inflate(bytes: Uint8Array): string {
  return inflateRawSync(bytes).toString('utf8');
}

function chunkOf(packed: PackedLayers): PreparedChunk {
  const curves = curvesOfPacked(packed);
  return {
    entries: packed.layers.map((layer, i) => {
      const { id, name, kind, parent } = layer;
      return { id, name, kind, parent, files: filesOf(layer), curves: curves[i] };
    }),
    body: deflate(JSON.stringify(packed)),
  };
}

/** Something for each chunk of so many layers: of those from one place to before another. */
function forChunks<T>(count: number, make: (from: number, to: number) => T): T[] {
  const chunks = Math.ceil(count / CHUNK_LAYERS);
  return Array.from({ length: chunks }, (_, i) => make(i * CHUNK_LAYERS, (i + 1) * CHUNK_LAYERS));
}

/** Layers in chunks of bounded length. */
export function prepareLayers(layers: readonly Layer[]): PreparedChunk[] {
  return forChunks(layers.length, (from, to) => chunkOf(packLayers(layers.slice(from, to))));
}

/** The same of layers that came packed. */
export function preparePacked(packed: PackedLayers): PreparedChunk[] {
  return forChunks(packed.layers.length, (from, to) => chunkOf(slicePacked(packed, from, to)));
}

/** A run’s record in slices of bounded size. */
export function prepareRun(run: RunRecord): PreparedRun {
  const bytes = deflate(JSON.stringify(run));
  const count = Math.ceil(bytes.length / SLICE_BYTES);
  const { id, uses, layers, off } = run;
  const item = run.preset ?? run.rig;
  return {
    row: {
      id,
      preset: item ? { id: item.id, revision: item.revision } : null,
      uses: (uses ?? []).map((use) => ({ id: use.id, revision: use.revision })),
      layers: layers.length,
      off: off === true,
    },
    slices: Array.from({ length: count }, (_, i) => bytes.subarray(i * SLICE_BYTES, (i + 1) * SLICE_BYTES)),
  };
}

/** Layers and runs, packed. */
export function prepare(layers: readonly Layer[], runs: readonly RunRecord[]): Prepared {
  return { chunks: prepareLayers(layers), runs: runs.map(prepareRun) };
}

/** The layers of a stored chunk. */
export function readChunk(body: Uint8Array): Layer[] {
  return unpackLayers(JSON.parse(inflate(body)) as PackedLayers);
}

/** The text of a run's record from its slices. */
export function runText(slices: readonly Uint8Array[]): string {
  return inflate(Buffer.concat(slices));
}
