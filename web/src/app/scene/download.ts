import { holdsLongList, jsonBlob } from '../files/json-blob';
import { fileName, saveFile } from '../files/save-file';
import { exportPage, exportSceneJson, FONTS, type Scene } from '@wexikine/core';

async function embeddedFont(font: string): Promise<string> {
  const response = await fetch(`/fonts/${font.toLowerCase().replace(/ /g, '-')}.woff2`);
  if (!response.ok) return '';
  const bytes = new Uint8Array(await response.arrayBuffer());
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return `@font-face { font-family: '${font}'; font-weight: 200 900; src: url(data:font/woff2;base64,${btoa(binary)}) }\n`;
}

/** The scene as a file; a large one is written in turns, longer than any one text can be. */
export async function downloadJson(scene: Scene): Promise<void> {
  const isLong = holdsLongList(scene);
  const contents = isLong ? await jsonBlob(scene) : new Blob([exportSceneJson(scene)], { type: 'application/json' });
  saveFile(`${fileName(scene.name)}.json`, contents);
}

/** The scene as a self-contained page, with the fonts that it uses inside. */
export async function downloadPage(scene: Scene): Promise<void> {
  const used = new Set(scene.layers.flatMap(({ source }) => (source.type === 'text' ? [source.font] : [])));
  const faces = await Promise.all(FONTS.filter((font) => used.has(font)).map(embeddedFont));
  const page = exportPage(scene, { fontFaces: faces.join('') });
  saveFile(`${fileName(scene.name)}.html`, new Blob([page], { type: 'text/html' }));
}
