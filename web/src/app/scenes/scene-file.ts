import { dataProblems, filesOf, readBundle, sceneSchema, upgradeScene, type Scene } from '@wexikine/core';

/** A picture or a font that came with a scene. */
export interface SceneFilePart {
  readonly contents: Blob;
  readonly title: string;
  /** What a font is set as. */
  readonly family?: string;
}

/** A scene of a file with what came along, or why it cannot be read, as a sentence. */
export type SceneFile =
  | { readonly ok: true; readonly scene: Omit<Scene, 'id'>; readonly parts: readonly SceneFilePart[] }
  | { readonly ok: false; readonly message: string };

/** What a file is called in a scene: by the first layer that uses it, and a font's family. */
function calledIn({ layers }: Pick<Scene, 'layers'>, name: string): Omit<SceneFilePart, 'contents'> {
  const layer = layers.find((one) => filesOf(one).includes(name));
  if (layer?.source.type === 'text') return { title: layer.source.font, family: layer.source.font };
  return { title: layer?.name ?? name.slice(0, 12) };
}

function checked(name: string, data: unknown): SceneFile {
  const parsed = sceneSchema.safeParse(upgradeScene(data));
  if (parsed.success) {
    const { id: _id, ...scene } = parsed.data;
    return { ok: true, scene, parts: [] };
  }
  const [{ path, message }] = dataProblems(parsed.error);
  return { ok: false, message: `${name} is not a scene of Wexikine. ${path}: ${message}` };
}

/** A zip file begins with these letters. Source: the .ZIP file format specification, 4.3.7. */
const [P, K] = [0x50, 0x4b];

/** Reads a scene: its JSON, or a zip file of it and its pictures and fonts. */
export function readSceneFile(name: string, bytes: Uint8Array): SceneFile {
  if (bytes[0] !== P || bytes[1] !== K) {
    try {
      return checked(name, JSON.parse(new TextDecoder().decode(bytes)));
    } catch {
      return { ok: false, message: `${name} is not a JSON file. Choose a scene that Wexikine exported.` };
    }
  }
  const read = readBundle(bytes);
  if (!read.ok) return { ok: false, message: `${name} cannot be imported. ${read.message}` };
  const made = checked(name, read.data);
  if (!made.ok) return made;
  const parts = [...read.files].map(([file, contents]) => ({
    ...calledIn(made.scene, file),
    contents: new Blob([contents as Uint8Array<ArrayBuffer>]),
  }));
  return { ...made, parts };
}
