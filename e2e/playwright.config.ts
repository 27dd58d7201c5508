import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LAUNCH } from './browser';
import { bundleCore } from './core-bundle';
import { portOf } from './pages/ports';

/** How many files of tests run side by side, each over a server, a new folder and a browser of its own. */
const WORKERS = Number(process.env['E2E_WORKERS'] ?? 1);

bundleCore();

/** The real server over a real, new folder; within a file one test after the other. */
export default defineConfig({
  testDir: './tests',
  tsconfig: './tsconfig.run.json',
  build: { external: ['**/e2e/dist/*.js'] },
  outputDir: `./test-results/${portOf(0)}`,
  workers: WORKERS,
  timeout: 120_000,
  expect: { timeout: 10_000, toPass: { intervals: [50, 100, 200] } },
  retries: process.env['CI'] ? 1 : 0,
  reporter: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ? [['list'], ['json']] : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: LAUNCH,
    acceptDownloads: true,
  },
  webServer: Array.from({ length: WORKERS }, (_, worker) => ({
    command: 'node ../server/dist/main.js',
    url: `http://127.0.0.1:${portOf(worker)}/api/health`,
    timeout: 120_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 5_000 },
    env: { PORT: String(portOf(worker)), WEXIKINE_DATA: mkdtempSync(join(tmpdir(), 'wexikine-e2e-')) },
  })),
});
