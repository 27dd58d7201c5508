import { holdsLongList, jsonBlob } from '../files/json-blob';
import { fileName, saveFile } from '../files/save-file';
import {
  embedFiles,
  exportPage,
  exportSceneJson,
  fileAddress,
  filesOfScene,
  FONTS,
  writeBundle,
  type Scene,
} from '@wexikine/core';

async function embeddedFont(font: string): Promise<string> {
  const response = await fetch(`/fonts/${font.toLowerCase().replace(/ /g, '-')}.woff2`);
  if (!response.ok) return '';
  const bytes = new Uint8Array(await response.arrayBuffer());
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return `@font-face { font-family: '${font}'; font-weight: 200 900; src: url(data:font/woff2;base64,${btoa(binary)}) }\n`;
}

/** The files that a scene uses, by name; those that are not kept any more are left out. */
async function filesFor(scene: Scene): Promise<ReadonlyMap<string, Uint8Array>> {
  const files = new Map<string, Uint8Array>();
  for (const name of filesOfScene(scene)) {
    const response = await fetch(`/api/${fileAddress(name)}`);
    if (response.ok) files.set(name, new Uint8Array(await response.arrayBuffer()));
  }
  return files;
}

/** The scene as a file: with its pictures and fonts as a zip, else JSON. A large one is written in turns. */
export async function downloadScene(scene: Scene): Promise<void> {
  const files = await filesFor(scene);
  if (files.size > 0) {
    const bytes = writeBundle(scene, files) as Uint8Array<ArrayBuffer>;
    return saveFile(`${fileName(scene.name)}.zip`, new Blob([bytes], { type: 'application/zip' }));
  }
  const isLong = holdsLongList(scene);
  const contents = isLong ? await jsonBlob(scene) : new Blob([exportSceneJson(scene)], { type: 'application/json' });
  saveFile(`${fileName(scene.name)}.json`, contents);
}

/** The scene as a self-contained page, with the pictures and fonts that it uses inside. */
export async function downloadPage(scene: Scene): Promise<void> {
  const used = new Set(scene.layers.flatMap(({ source }) => (source.type === 'text' ? [source.font] : [])));
  const faces = await Promise.all(FONTS.filter((font) => used.has(font)).map(embeddedFont));
  const { fontFaces, embedded } = embedFiles(await filesFor(scene));
  const page = exportPage(scene, { fontFaces: faces.join('') + fontFaces, embedded });
  saveFile(`${fileName(scene.name)}.html`, new Blob([page], { type: 'text/html' }));
}
