import { chromium, type Page } from '@playwright/test';
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LAUNCH } from '../../e2e/browser';
import { report } from './measure';
import { plainScene } from './scenes';

const PORT = 4879;
const ADDRESS = `http://127.0.0.1:${PORT}`;
const LAYERS = 1_000;
const CHANGES = 15;
/** Time in which a changed field is to be on screen, milliseconds. */
const AIM = 100;
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

/** Milliseconds from a key press in a field of the sentence until the sheet shows the new dry run, painted. */
async function measureChange(page: Page, field: string): Promise<number> {
  return page.evaluate(async (name) => {
    const button = document.querySelector<HTMLElement>(`[data-field="${name}"]`);
    const row = document.querySelectorAll('.row[data-layer]')[5] as HTMLElement;
    const before = row.textContent;
    button?.focus();
    const start = performance.now();
    button?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
    await new Promise<void>((done) => {
      const look = (): void => {
        if (row.textContent === before && performance.now() - start < 5_000) requestAnimationFrame(look);
        else requestAnimationFrame(() => done());
      };
      requestAnimationFrame(look);
    });
    return performance.now() - start;
  }, field);
}

async function framesASecond(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((done) => {
        let frames = 0;
        const start = performance.now();
        const tick = (now: number): void => {
          frames++;
          if (now - start < 2_000) requestAnimationFrame(tick);
          else done((frames * 1_000) / (now - start));
        };
        requestAnimationFrame(tick);
      }),
  );
}

/** The scene screen with many layers: how soon a changed field is on screen, while the preview stands and plays. */
export async function benchScreen(): Promise<void> {
  const main = join(process.cwd(), 'server/dist/main.js');
  if (!existsSync(main)) return report('the scene on screen', 'not built', 'run npm run build first', false);
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-bench-'));
  const env = { ...process.env, PORT: String(PORT), WEXIKINE_DATA: folder };
  const server = spawn(process.execPath, [main], { env, stdio: 'ignore' });
  const browser = await chromium.launch(LAUNCH);
  try {
    await untilUp();
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const { id: _id, layers, ...plain } = plainScene(LAYERS);
    // One below the other, so that every layer has a place of its own in the order.
    const scene = {
      ...plain,
      layers: layers.map((layer, i) => ({ ...layer, rest: { ...layer.rest, 'position.y': i } })),
    };
    const made = await page.request.post(`${ADDRESS}/api/scenes`, { data: { scene, by: 'bench' } });
    const { id } = ((await made.json()) as { scene: { id: string } }).scene;
    await page.goto(`${ADDRESS}/scenes/${id}`);
    await page.getByText('if applied').waitFor();
    const idle = await framesASecond(page);
    for (const state of ['standing', 'playing'] as const) {
      if (state === 'playing') await page.getByRole('button', { name: 'Play', exact: true }).click();
      const times: number[] = [];
      for (let i = 0; i < CHANGES; i++) times.push(await measureChange(page, 'spacing'));
      times.sort((a, b) => a - b);
      const [middle, worst] = [times[Math.floor(CHANGES / 2)], times[CHANGES - 1]];
      const found = `${middle.toFixed(0)} ms, at most ${worst.toFixed(0)} ms`;
      report(`a changed gap of ${LAYERS} layers on screen, preview ${state}`, found, `${AIM} ms`, middle <= AIM);
    }
    const rate = await framesASecond(page);
    report('  frames a second meanwhile (idle, playing)', `${idle.toFixed(0)}, ${rate.toFixed(0)}`, 'any', true);
  } finally {
    await browser.close();
    server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}
