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

export function downloadJson(scene: Scene): void {
  saveFile(`${fileName(scene.name)}.json`, new Blob([exportSceneJson(scene)], { type: 'application/json' }));
}

/** The scene as a self-contained page, with the fonts that it uses inside. */
export async function downloadPage(scene: Scene): Promise<void> {
  const used = new Set(scene.layers.flatMap(({ source }) => (source.type === 'text' ? [source.font] : [])));
  const faces = await Promise.all(FONTS.filter((font) => used.has(font)).map(embeddedFont));
  const page = exportPage(scene, { fontFaces: faces.join('') });
  saveFile(`${fileName(scene.name)}.html`, new Blob([page], { type: 'text/html' }));
}
