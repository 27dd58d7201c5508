import { chromium, type Page } from '@playwright/test';
import type { Scene } from '@wexikine/core';
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LAUNCH } from '../../../e2e/browser';
import { report } from '../measure';
import { benchHundreds, benchThousand } from './fields';
import { benchKeys, benchManyKeys } from './keys';
import { benchLooks } from './looks';
import { benchOpening } from './opening';
import { ADDRESS, PORT } from './page';
import { benchStage } from './stage';

const WAIT = 250;

async function untilUp(): Promise<void> {
  for (let tries = 0; tries < WAIT; tries++) {
    const isUp = await fetch(`${ADDRESS}/api/health`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (isUp) return;
    await new Promise((done) => setTimeout(done, 200));
  }
  throw new Error('The server does not answer.');
}

/** The scene screen with many layers; only one part of it where that is named. */
export async function benchScreen(large: () => Scene, only?: string): Promise<void> {
  const main = join(process.cwd(), 'server/dist/main.js');
  if (!existsSync(main)) return report('the scene on screen', 'not built', 'run npm run build first', false);
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-bench-'));
  const env = { ...process.env, PORT: String(PORT), WEXIKINE_DATA: folder };
  const server = spawn(process.execPath, [main], { env, stdio: 'ignore' });
  const browser = await chromium.launch(LAUNCH);
  const parts: Readonly<Record<string, (page: Page) => Promise<void>>> = {
    thousand: benchThousand,
    hundreds: benchHundreds,
    keys: benchKeys,
    'many-keys': benchManyKeys,
    stage: benchStage,
    looks: benchLooks,
    opening: (page) => benchOpening(page, large()),
  };
  const wanted = only === undefined ? Object.values(parts) : [parts[only]].filter(Boolean);
  try {
    await untilUp();
    for (const part of wanted) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await part(page).catch((error: Error) =>
        report('the scene on screen', error.message.split('\n')[0], 'any', false),
      );
      await page.close();
    }
  } finally {
    await browser.close();
    server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}
