import type { Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { FONTS, programmeBoard, ticksFromSeconds, type Layer, type Scene } from '@wexikine/core';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { compare, fontFaces, outlinesScript, paintedAt, painterScript } from '../pages/painted';

const find = createRequire(join(import.meta.dirname, '../../core/package.json'));
const folder = (name: string, path: string): string => join(dirname(find.resolve(`${name}/package.json`)), path);
const flag = (name: string): string => readFileSync(join(folder('flag-icons', 'flags/4x3'), `${name}.svg`), 'utf8');
const icon = (name: string): string =>
  readFileSync(join(folder('feather-icons', 'dist/icons'), `${name}.svg`), 'utf8').replace('currentColor', '#f3c98b');
const svg = (inside: string, more = 'viewBox="0 0 400 300"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${more}>${inside}</svg>`;

/** A font that a drawing carries in itself, in base64. */
function carried(): string {
  const file = 'files/bricolage-grotesque-latin-wght-normal.woff2';
  const root = join(import.meta.dirname, '../../node_modules/@fontsource-variable/bricolage-grotesque');
  return readFileSync(join(root, file)).toString('base64');
}

/** Files of packages, and one of ours for each thing that a drawing can do. */
const FILES: Readonly<Record<string, string>> = {
  ...Object.fromEntries(['br', 'mx', 'gb', 'za', 'np', 'pt', 'bt'].map((name) => [`flag ${name}`, flag(name)])),
  ...Object.fromEntries(
    ['sun', 'aperture', 'coffee', 'feather', 'scissors'].map((name) => [`icon ${name}`, icon(name)]),
  ),
  transforms: svg(
    '<g transform="translate(100 50) rotate(20) scale(1.5 .8) skewX(15)"><rect width="80" height="60" rx="12" fill="#e05577"/><circle cx="140" cy="40" r="30" fill="none" stroke="#58b79c" stroke-width="8"/></g><path d="M40 250 A60 30 -20 1 1 160 240 T 300 200 S 330 260 380 220" fill="none" stroke="#f3c98b" stroke-width="6" stroke-linecap="square"/>',
  ),
  gradients: svg(
    '<defs><linearGradient id="a" x1="0" y1="0" x2="1" y2="1"><stop offset=".1" stop-color="#e05577"/><stop offset=".4" stop-color="#f3c98b"/><stop offset="1" stop-color="#30418f" stop-opacity=".3"/></linearGradient><radialGradient id="b" gradientUnits="userSpaceOnUse" cx="300" cy="80" r="90" gradientTransform="rotate(10)"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#146"/></radialGradient></defs><rect x="10" y="10" width="180" height="90" fill="url(#a)"/><ellipse cx="300" cy="150" rx="90" ry="120" fill="url(#b)"/><path transform="rotate(-12)" d="M20 160 h150 l-40 110 z" fill="url(#a)"/>',
  ),
  'rules and joins': svg(
    '<path d="M80 20 L130 170 L5 75 H155 L30 170 Z" fill="#f3c98b" fill-rule="evenodd"/><path d="M220 40 l60 100 l60 -100" fill="none" stroke="#58b79c" stroke-width="24"/><path d="M220 180 l60 80 l60 -80" fill="none" stroke="#e05577" stroke-width="24" stroke-linejoin="bevel" opacity=".6"/><path d="M20 280 H190" stroke="#fff" stroke-width="8" stroke-dasharray="20 10 4" stroke-linecap="round"/>',
  ),
  'clips, masks and filters': svg(
    '<defs><clipPath id="c"><circle cx="100" cy="100" r="70"/></clipPath><mask id="m"><linearGradient id="g"><stop stop-color="#fff"/><stop offset="1"/></linearGradient><rect width="400" height="300" fill="url(#g)"/></mask><filter id="f"><feGaussianBlur stdDeviation="6"/></filter></defs><g clip-path="url(#c)"><rect x="20" y="20" width="90" height="160" fill="#e05577"/><rect x="90" y="40" width="120" height="90" fill="#58b79c"/></g><rect x="200" y="30" width="190" height="90" fill="#f3c98b" mask="url(#m)"/><circle cx="300" cy="210" r="50" fill="#7aa2ff" filter="url(#f)"/>',
  ),
  'clips of every kind': svg(
    '<defs><clipPath id="a" transform="translate(10 5)"><rect x="30" y="30" width="60" height="90"/><path transform="rotate(20 90 80)" d="M60 40h70v70h-70z"/></clipPath><clipPath id="b" clipPathUnits="objectBoundingBox"><ellipse cx=".5" cy=".5" rx=".5" ry=".3"/></clipPath><clipPath id="c"><path clip-rule="evenodd" d="M300 20 L350 170 L225 75 H375 L250 170 Z"/></clipPath><circle id="dot" r="40"/><clipPath id="d"><use href="#dot" x="70" y="230"/></clipPath><clipPath id="e"><path d="M300 200 L350 290 L225 235 H375 L250 290 Z"/></clipPath></defs><g clip-path="url(#a)" opacity=".8"><rect width="140" height="80" fill="#e05577"/><circle cx="90" cy="100" r="50" fill="#58b79c"/></g><rect x="150" y="20" width="60" height="120" fill="#f3c98b" clip-path="url(#b)" transform="rotate(8 180 80)"/><rect x="210" y="10" width="180" height="170" fill="#7aa2ff" clip-path="url(#c)"/><rect x="20" y="190" width="120" height="100" fill="#30418f" stroke="#fff" stroke-width="10" clip-path="url(#d)"/><g clip-path="url(#e)" transform="translate(-20 -5) scale(1.05)"><rect x="200" y="190" width="200" height="110" fill="#c96"/></g>',
  ),
  'masks of every kind': svg(
    '<defs><mask id="a"><rect width="400" height="300" fill="#fff"/><circle cx="90" cy="80" r="40" fill="#000"/><circle cx="140" cy="110" r="30" fill="#808080"/></mask><mask id="b" maskContentUnits="objectBoundingBox"><circle cx=".5" cy=".5" r=".5" fill="#fff"/></mask><mask id="c" mask-type="alpha"><path d="M40 190 L180 190 L110 290 z" fill="#000" fill-opacity=".7"/></mask><mask id="d" maskUnits="userSpaceOnUse" x="240" y="190" width="60" height="80"><rect width="400" height="300" fill="#ccc"/></mask></defs><rect x="20" y="20" width="170" height="140" rx="20" fill="#e05577" mask="url(#a)"/><rect x="220" y="20" width="150" height="120" fill="#f3c98b" mask="url(#b)"/><g mask="url(#c)"><rect x="20" y="180" width="90" height="110" fill="#58b79c"/><rect x="110" y="180" width="90" height="110" fill="#7aa2ff"/></g><rect x="220" y="170" width="160" height="120" fill="#fff" mask="url(#d)"/>',
  ),
  'patterns and marks': svg(
    '<defs><pattern id="p" width="20" height="20" patternUnits="userSpaceOnUse"><circle cx="10" cy="10" r="6" fill="#f3c98b"/></pattern><marker id="k" markerWidth="6" markerHeight="6" refX="3" refY="3" orient="auto"><path d="M0 0 L6 3 L0 6 z" fill="#e05577"/></marker></defs><rect x="20" y="20" width="150" height="220" fill="url(#p)"/><path d="M220 60 L360 60 L300 220" fill="none" stroke="#fff" stroke-width="4" marker-start="url(#k)" marker-end="url(#k)" marker-mid="url(#k)"/>',
  ),
  'use, symbols and nested views': svg(
    '<symbol id="s" viewBox="0 0 10 20"><path d="M0 20 L5 0 L10 20 z"/></symbol><use href="#s" x="20" y="20" width="80" height="80" fill="#e05577"/><g id="t"><circle cx="60" cy="200" r="30" fill="inherit"/></g><use xlink:href="#t" transform="translate(120 0)" fill="#58b79c"/><svg x="250" y="100" width="120" height="180" viewBox="0 0 40 40"><rect width="40" height="40" fill="#f3c98b" rx="6"/></svg>',
  ),
  'style sheets': svg(
    '<style>.st0{fill:#58b79c;stroke:#fff;stroke-width:5}#x{fill:#e05577}polygon.st0{fill-opacity:.4}</style><g class="st0"><rect x="20" y="20" width="120" height="80"/><rect id="x" x="180" y="20" width="120" height="80"/></g><polygon class="st0" points="200,140 340,140 270,280"/><polyline style="fill:none;stroke:#f3c98b;stroke-width:6" points="20,150 80,280 140,150"/>',
  ),
  words: svg(
    `<text x="20" y="60" font-family="Bricolage Grotesque" font-size="44" font-weight="700" fill="#f3c98b">Star party</text><text x="200" y="130" text-anchor="middle" font-family="Spline Sans" font-size="28" fill="#fff">the second of two nights</text><text x="380" y="190" text-anchor="end" font-family="Spline Sans Mono" font-size="24" letter-spacing="2" fill="#58b79c">21:15</text><text transform="translate(40 280) rotate(-15)" font-family="Spline Sans" font-size="26" fill="#e05577">leaning</text>`,
  ),
  'words in fonts of its own': svg(
    `<style>@font-face{font-family:"Marsh Own";font-weight:800;src:url("data:font/woff2;base64,${carried()}") format("woff2")}.own{font-family:'Marsh Own';font-weight:800}</style><text class="own" x="20" y="70" font-size="52" fill="#f3c98b">AV Tide to fly</text><text class="own" x="200" y="130" text-anchor="middle" font-size="30" letter-spacing="3" fill="#e05577" stroke="#fff" stroke-width="1">Wave office</text><g transform="translate(380 190) rotate(-6)"><text class="own" text-anchor="end" font-size="26" fill="#58b79c"><tspan x="0" y="0">two lines</tspan><tspan x="0" y="34">one below</tspan></text></g><text class="own" x="30" y="280" font-size="28" fill="#7aa2ff" rotate="8">placed</text>`,
  ),
  'opacity of groups': svg(
    '<g opacity=".5"><rect x="40" y="40" width="160" height="160" fill="#e05577"/><rect x="120" y="100" width="160" height="160" fill="#58b79c"/></g><circle cx="320" cy="80" r="50" fill="#f3c98b" stroke="#fff" stroke-width="20" opacity=".6"/>',
  ),
};

/** Mean difference of a colour part (0 to 255), and share of pixels that differ visibly, that edges smoothed in two ways make. */
const MOST_MEAN = 1.6;
const MOST_APART = 0.012;

const [WIDTH, HEIGHT] = [640, 480];

const EMPTY: Scene = {
  ...programmeBoard(),
  width: WIDTH,
  height: HEIGHT,
  length: ticksFromSeconds(1),
  layers: [],
  runs: [],
};

async function openPainter(page: Page): Promise<void> {
  await page.setViewportSize({ width: WIDTH, height: HEIGHT });
  const faces = FONTS.map((font) => `<b style="font-family:'${font}'">a<b style="font-weight:700">a</b></b>`).join('');
  await page.setContent(`<style>${fontFaces()}</style>${faces}`);
  await page.evaluate(() => document.fonts.ready);
  await page.addScriptTag({ content: painterScript() });
  await page.addScriptTag({ content: outlinesScript() });
}

interface Made {
  readonly layers: Layer[];
  readonly width: number;
  readonly height: number;
}

async function layersOf(page: Page, text: string, level: 'one' | 'top' | 'all'): Promise<Made> {
  return page.evaluate(
    ([given, place, depth]) =>
      (globalThis as unknown as { layersOfDrawing: (t: string, p: object, l: string) => Made }).layersOfDrawing(
        given,
        place,
        depth,
      ),
    [text, { width: WIDTH, height: HEIGHT }, level] as const,
  );
}

/** The file as the browser itself draws it, with its fonts. */
async function drawnByBrowser(page: Page, text: string, { width, height }: Made): Promise<Buffer> {
  await page.evaluate(
    ([given, w, h]) => {
      document.body.style.cssText = 'margin:0;background:#000;overflow:hidden';
      document.body.innerHTML = given;
      const root = document.body.querySelector('svg');
      if (!root) throw new Error('no drawing');
      root.setAttribute('width', String(w));
      root.setAttribute('height', String(h));
      root.style.cssText = `position:absolute;left:${(innerWidth - w) / 2}px;top:${(innerHeight - h) / 2}px`;
    },
    [text, width, height] as const,
  );
  await page.waitForTimeout(50);
  return page.screenshot();
}

test('every drawing looks as the browser draws it, taken apart as far as it goes and by its groups', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await openPainter(page);
  const far: string[] = [];
  let sum = 0;
  for (const [name, text] of Object.entries(FILES)) {
    for (const level of ['all', 'top'] as const) {
      const made = await layersOf(page, text, level);
      const scene: Scene = { ...EMPTY, layers: made.layers };
      const own = await drawnByBrowser(page, text, made);
      const painted = await paintedAt(page, scene, 0);
      const { mean, share } = await compare(page, own, painted);
      sum += mean;
      if (mean > MOST_MEAN || share > MOST_APART)
        far.push(
          `${name}, ${level}: mean ${mean.toFixed(2)}, ${(share * 100).toFixed(2)} %, ${made.layers.length} layers`,
        );
    }
  }
  expect(far).toEqual([]);
  const count = Object.keys(FILES).length;
  expect(count).toBeGreaterThanOrEqual(20);
  test.info().annotations.push({ type: 'mean difference', description: `${(sum / count / 2).toFixed(3)} of 255` });
});
