/** Writes the icons that the web application uses, each as one SVG, from the Material Symbols package. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

const ICONS = [
  'add',
  'arrow_back',
  'arrow_forward',
  'check',
  'check_circle',
  'chevron_right',
  'close',
  'content_copy',
  'dark_mode',
  'delete',
  'download',
  'edit',
  'error',
  'keyboard_arrow_down',
  'fit_screen',
  'flag',
  'frame_inspect',
  'grid_on',
  'history',
  'info',
  'keyboard',
  'light_mode',
  'lock',
  'more_vert',
  'pause',
  'play_arrow',
  'redo',
  'repeat',
  'search',
  'skip_next',
  'skip_previous',
  'chevron_left',
  'undo',
  'upload',
  'visibility_off',
  'warning',
  'zoom_in',
  'zoom_out',
  'texture',
  'fullscreen_exit',
  'casino',
  'remove',
  'sync_problem',
  'cloud_done',
  'movie',
  'tune',
  'checklist',
];

const root = resolve(import.meta.dirname, '..');
const lines = ICONS.map((name) => {
  const svg = readFileSync(join(root, 'node_modules/@material-symbols/svg-400/rounded', `${name}.svg`), 'utf8').trim();
  return `  ${name}:\n    '${svg}',`;
});
const text = `/** Written by scripts/icons.mjs from the package @material-symbols/svg-400 (Apache 2.0). */
export const ICONS: Readonly<Record<string, string>> = {\n${lines.join('\n')}\n};\n`;
writeFileSync(join(root, 'web/src/app/icons/icons.generated.ts'), text);
