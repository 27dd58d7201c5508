import { ask } from '../files/ask';
import { holdsLongList, jsonBlob } from '../files/json-blob';
import { base64Of, fileName, saveFile } from '../files/save-file';
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

/** A file from the server, or null where it is not kept any more; throws where the server does not answer. */
async function fileAt(address: string): Promise<Blob | null> {
  const answer = await ask(address);
  if (!answer.ok) return null;
  return answer.blob().catch(() => {
    throw new Error('the server stopped answering');
  });
}

async function embeddedFont(font: string): Promise<string> {
  const file = await fileAt(`/fonts/${font.toLowerCase().replace(/ /g, '-')}.woff2`);
  if (!file) return '';
  const address = `data:font/woff2;base64,${await base64Of(file)}`;
  return `@font-face { font-family: '${font}'; font-weight: 200 900; src: url(${address}) }\n`;
}

/** The files that a scene uses, by name, and how many of them are not kept any more. */
async function filesFor(scene: Scene): Promise<{ files: ReadonlyMap<string, Uint8Array>; gone: number }> {
  const files = new Map<string, Uint8Array>();
  const names = filesOfScene(scene);
  for (const name of names) {
    const file = await fileAt(`/api/${fileAddress(name)}`);
    if (file) files.set(name, new Uint8Array(await file.arrayBuffer()));
  }
  return { files, gone: names.length - files.size };
}

/** The scene as a file: with its pictures and fonts as a zip, else JSON. A large one is written in turns. Gives how many files are gone and left out. */
export async function downloadScene(scene: Scene): Promise<number> {
  const { files, gone } = await filesFor(scene);
  if (files.size > 0) {
    const bytes = writeBundle(scene, files) as Uint8Array<ArrayBuffer>;
    saveFile(`${fileName(scene.name)}.zip`, new Blob([bytes], { type: 'application/zip' }));
    return gone;
  }
  const isLong = holdsLongList(scene);
  const contents = isLong ? await jsonBlob(scene) : new Blob([exportSceneJson(scene)], { type: 'application/json' });
  saveFile(`${fileName(scene.name)}.json`, contents);
  return gone;
}

/** The scene as a self-contained page, with the pictures and fonts that it uses inside. Gives how many files are gone and left out. */
export async function downloadPage(scene: Scene): Promise<number> {
  const used = new Set(scene.layers.flatMap(({ source }) => (source.type === 'text' ? [source.font] : [])));
  const faces = await Promise.all(FONTS.filter((font) => used.has(font)).map(embeddedFont));
  const { files, gone } = await filesFor(scene);
  const { fontFaces, embedded } = embedFiles(files);
  const page = exportPage(scene, { fontFaces: faces.join('') + fontFaces, embedded });
  saveFile(`${fileName(scene.name)}.html`, new Blob([page], { type: 'text/html' }));
  return gone;
}
