import { embedFiles, exportPage, exportSceneJson, FONTS, type Scene } from '@wexikine/core';
import { existsSync, readFileSync } from 'node:fs';
import { Failure } from '../failure';
import { readSceneWithFiles } from '../files';

/** Font files that the build puts beside the bundle. */
function fontFaces(scene: Scene): string {
  const used = new Set(scene.layers.flatMap(({ source }) => (source.type === 'text' ? [source.font] : [])));
  return FONTS.filter((font) => used.has(font))
    .map((font) => {
      const file = new URL(`./fonts/${font.toLowerCase().replace(/ /g, '-')}.woff2`, import.meta.url);
      if (!existsSync(file)) return '';
      const data = readFileSync(file).toString('base64');
      return `@font-face { font-family: '${font}'; font-weight: 200 900; src: url(data:font/woff2;base64,${data}) }\n`;
    })
    .join('');
}

function withFonts(options: ReturnType<typeof embedFiles>, shipped: string): ReturnType<typeof embedFiles> {
  return { ...options, fontFaces: shipped + options.fontFaces };
}

/** `wexikine export`: a scene as a page with CSS keyframes, or as JSON. */
export function exportCommand(path: string, to: string): string {
  const { scene, files } = readSceneWithFiles(path);
  switch (to) {
    case 'css':
      return exportPage(scene, withFonts(embedFiles(files), fontFaces(scene)));
    case 'json':
      return exportSceneJson(scene);
    default:
      throw new Failure(`--to “${to}”: Give css (a page that plays in a browser) or json.`);
  }
}
