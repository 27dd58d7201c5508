import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { buildRestIfChanged, buildServerIfChanged } from './build.mjs';
import { findBrowser, installIfNeeded, root } from './steps.mjs';

/**
 * Bundles the benchmarks as the application is bundled and runs them in a process of their own. What they measure, the
 * application as it is built and its page in a browser, is built and installed first.
 */
const browserThere = findBrowser();
installIfNeeded({ forTests: true });
await buildServerIfChanged();
await buildRestIfChanged({ checksTypes: false });
await browserThere;
const { build } = await import('esbuild');
const outfile = join(root, 'scripts/dist/bench.mjs');
await build({
  absWorkingDir: root,
  entryPoints: ['scripts/bench/main.ts'],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  tsconfig: 'tsconfig.base.json',
});
const { status } = spawnSync(process.execPath, ['--expose-gc', '--no-warnings', outfile, ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(status ?? 1);
