import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LAUNCH } from './browser';

/** Another port lets a second half of the tests run beside the first, over a server of its own. */
const PORT = Number(process.env['E2E_PORT'] ?? 4877);

/** The real server over a real, new folder; one browser, one test after the other. */
export default defineConfig({
  testDir: './tests',
  outputDir: `./test-results/${PORT}`,
  workers: 1,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  retries: process.env['CI'] ? 1 : 0,
  reporter: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ? [['list'], ['json']] : [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: LAUNCH,
    acceptDownloads: true,
  },
  webServer: {
    command: 'node ../server/dist/main.js',
    url: `http://127.0.0.1:${PORT}/api/health`,
    timeout: 120_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5_000 },
    env: { PORT: String(PORT), WEXIKINE_DATA: mkdtempSync(join(tmpdir(), 'wexikine-e2e-')) },
  },
});
