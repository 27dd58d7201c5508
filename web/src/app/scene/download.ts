import { exportPage, exportSceneJson, FONTS, type Scene } from '@wexikine/core';

function save(name: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

/** A scene's name as a file name: letters, digits and hyphens. */
export function fileName(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'scene'
  );
}

async function embeddedFont(font: string): Promise<string> {
  const response = await fetch(`/fonts/${font.toLowerCase().replace(/ /g, '-')}.woff2`);
  if (!response.ok) return '';
  const bytes = new Uint8Array(await response.arrayBuffer());
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return `@font-face { font-family: '${font}'; font-weight: 200 900; src: url(data:font/woff2;base64,${btoa(binary)}) }\n`;
}

export function downloadJson(scene: Scene): void {
  save(`${fileName(scene.name)}.json`, 'application/json', exportSceneJson(scene));
}

/** The scene as a self-contained page, with the fonts that it uses inside. */
export async function downloadPage(scene: Scene): Promise<void> {
  const used = new Set(scene.layers.flatMap(({ source }) => (source.type === 'text' ? [source.font] : [])));
  const faces = await Promise.all(FONTS.filter((font) => used.has(font)).map(embeddedFont));
  save(`${fileName(scene.name)}.html`, 'text/html', exportPage(scene, { fontFaces: faces.join('') }));
}
