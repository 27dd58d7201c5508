import { strToU8, zipSync } from 'fflate';
import { readJson } from '../../basics/text';
import { endingOf, fileAddress, fileAt, fileNameSchema, fileType, MOST_FILE_BYTES, ownFamily } from '../../scene/file';
import { filesOf } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { exportSceneJson, type PageOptions } from '../export';
import { describePackProblem, unzip, type ZipLimits } from '../pack';

const MEGABYTE = 1024 * 1024;

/** What a bundle may be at most: what a browser can hold at once. */
const LIMITS: ZipLimits = { file: 600 * MEGABYTE, unpacked: 700 * MEGABYTE, entries: 5_000 };

const SCENE_FILE = 'scene.json';
const NO_TIME = new Date(1980, 0, 1);

/** A bundle that was read: the scene as data that is still to be checked, and its files by name. */
export type BundleResult =
  | { readonly ok: true; readonly data: unknown; readonly files: ReadonlyMap<string, Uint8Array> }
  | { readonly ok: false; readonly message: string };

/** Names of all files that a scene's layers use, each once. */
export function filesOfScene({ layers }: Pick<Scene, 'layers'>): string[] {
  return [...new Set(layers.flatMap(filesOf))];
}

/** A scene with files by name as a zip file. The same scene always gives the same bytes. */
export function writeBundle(scene: Scene, files: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const kept = [...files].map(([name, bytes]) => [`files/${name}`, [bytes, { level: 0 }]] as const);
  const entries = { [SCENE_FILE]: strToU8(exportSceneJson(scene)), ...Object.fromEntries(kept) };
  return zipSync(entries as Parameters<typeof zipSync>[0], { mtime: NO_TIME, level: 6 });
}

/** Reads a bundle. Files that are not what their name says are refused; whatever else is in it is left alone. */
export function readBundle(bytes: Uint8Array): BundleResult {
  if (bytes.length > LIMITS.file) return { ok: false, message: 'It is larger than 600 MB.' };
  const read = unzip(bytes, LIMITS);
  if (!read.ok) return { ok: false, message: describePackProblem(read.problem) };
  const scene = read.files.get(SCENE_FILE);
  if (!scene) return { ok: false, message: `There is no ${SCENE_FILE} in it. Choose a scene that Wexikine exported.` };
  const data = readJson(new TextDecoder().decode(scene));
  if (!data.ok) return { ok: false, message: `${SCENE_FILE}: ${data.message}` };
  const files = new Map<string, Uint8Array>();
  for (const [path, contents] of read.files) {
    const name = fileAt(path);
    if (name === null || !fileNameSchema.safeParse(name).success) continue;
    if (!name.endsWith(`.${endingOf(contents) ?? ''}`) || contents.length > MOST_FILE_BYTES)
      return { ok: false, message: `${path} is not what its name says. Export the scene again.` };
    files.set(name, contents);
  }
  return { ok: true, data: data.data, files };
}

/** Bytes that are turned into letters at once; more arguments than this a call cannot have. */
const SLICE = 32_768;

function base64Of(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += SLICE) parts.push(String.fromCharCode(...bytes.subarray(i, i + SLICE)));
  return btoa(parts.join(''));
}

/** Files as an exported page holds them: pictures and sounds by their address, fonts as CSS. */
export function embedFiles(files: ReadonlyMap<string, Uint8Array>): Required<PageOptions> {
  const embedded = new Map<string, string>();
  let fontFaces = '';
  for (const [name, bytes] of files) {
    const { kind, media } = fileType(name);
    const address = `data:${media};base64,${base64Of(bytes)}`;
    if (kind !== 'font') embedded.set(fileAddress(name), address);
    else
      fontFaces += `@font-face { font-family: '${ownFamily(fileAddress(name))}'; font-weight: 1 1000; src: url(${address}) }\n`;
  }
  return { embedded, fontFaces };
}
