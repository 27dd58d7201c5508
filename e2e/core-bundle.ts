import { buildSync } from 'esbuild';
import { join } from 'node:path';

const root = join(import.meta.dirname, '..');

/**
 * Bundles the core and the painter for the tests, once a run: the runner would take each of their five hundred files
 * apart by itself, and each of its processes would read them one by one. `tsconfig.run.json` leads to what is made here.
 */
export function bundleCore(): void {
  // The runner's other processes read the configuration, too.
  if (process.env['TEST_WORKER_INDEX'] !== undefined) return;
  buildSync({
    absWorkingDir: root,
    entryPoints: {
      core: 'core/src/index.ts',
      drawing: 'core/src/out/drawing/index.ts',
      paint: 'paint/src/index.ts',
    },
    outdir: 'e2e/dist',
    bundle: true,
    splitting: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
    tsconfig: 'tsconfig.base.json',
    logLevel: 'warning',
  });
}
