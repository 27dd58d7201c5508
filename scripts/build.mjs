import { copyFileSync, existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { buildIfChanged, installIfNeeded, root, runBeside } from './steps.mjs';

const FONTS = ['bricolage-grotesque', 'spline-sans', 'spline-sans-mono'];

async function bundle(options) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    tsconfig: 'tsconfig.base.json',
    logLevel: 'warning',
    ...options,
  });
}

async function buildServer() {
  await bundle({
    entryPoints: ['main.ts', 'serve.ts', 'api.worker.ts', 'checking/check.worker.ts'].map(
      (file) => `server/src/${file}`,
    ),
    entryNames: '[name]',
    outdir: 'server/dist',
    packages: 'external',
    sourcemap: true,
  });
}

/** The command line is one file with everything in it, so that it starts fast and can be copied. */
async function buildCli() {
  const banner = "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);";
  await bundle({
    entryPoints: ['cli/src/main.ts'],
    outfile: 'cli/dist/wexikine.mjs',
    banner: { js: banner },
    minify: true,
    mainFields: ['module', 'main'],
  });
  copyFonts('cli/dist/fonts');
}

/** Font files under plain names: the command line embeds them in the pages that it exports. */
function copyFonts(folder) {
  mkdirSync(join(root, folder), { recursive: true });
  for (const font of FONTS) {
    const file = `node_modules/@fontsource-variable/${font}/files/${font}-latin-wght-normal.woff2`;
    const target = join(root, folder, `${font}.woff2`);
    // A copy that is already there stays untouched: its time of change belongs to the fingerprint of the sources.
    if (!existsSync(target)) copyFileSync(join(root, file), target);
  }
}

/** Builds the server where it changed. */
export async function buildServerIfChanged() {
  await buildIfChanged('the server', ['core/src', 'server/src'], 'server/dist', buildServer);
}

/** Builds the command line and the page where they changed. Checking the page's types takes a third of the time. */
export async function buildRestIfChanged({ checksTypes }) {
  await buildIfChanged('the command line', ['core/src', 'cli/src'], 'cli/dist', buildCli);
  copyFonts('web/public/fonts');
  const env = checksTypes ? {} : { NG_BUILD_TYPE_CHECK: '0' };
  const buildPage = () => runBeside('node', ['scripts/build-web.mjs'], env);
  await buildIfChanged('the page', ['core/src', 'paint/src', 'web'], 'web/dist', buildPage, checksTypes);
}

if (process.argv[1] === import.meta.filename) {
  installIfNeeded({ forTests: false });
  await buildServerIfChanged();
  await buildRestIfChanged({ checksTypes: true }).catch(({ message }) => {
    process.stderr.write(`${message}\n`);
    process.exit(1);
  });
}
