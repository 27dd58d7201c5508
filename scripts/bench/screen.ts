import { chromium, type Page } from '@playwright/test';
import type { Scene } from '@wexikine/core';
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LAUNCH } from '../../e2e/browser';
import { framesWhile, SCREEN_FRAME } from './frames';
import { benchLooks } from './looks';
import { report } from './measure';
import { keyedScene, plainScene } from './scenes';

const PORT = 4879;
const ADDRESS = `http://127.0.0.1:${PORT}`;
const CHANGES = 15;
/** Time in which a changed field is to be on screen, and the longest, milliseconds. */
const [AIM, MOST] = [60, 100];
/** The longest task in which nobody notices that the page was busy, milliseconds. */
const TASK = 50;
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

/** What changes a field: a key on it, or a click on something in the popover that is open. */
type Change = { readonly key: string; readonly on: string } | { readonly click: string; readonly text?: string };

/** Milliseconds from a change until the sheet shows the new dry run, painted. */
async function measureChange(page: Page, change: Change): Promise<number> {
  return page.evaluate(async (wanted) => {
    const row = document.querySelectorAll('.row[data-layer]')[5] as HTMLElement;
    const before = row.textContent;
    const start = performance.now();
    if ('key' in wanted) {
      const field = document.querySelector<HTMLElement>(wanted.on);
      field?.focus();
      field?.dispatchEvent(new KeyboardEvent('keydown', { key: wanted.key, bubbles: true }));
    } else {
      const all = Array.from(document.querySelectorAll<HTMLElement>(wanted.click));
      all.find(({ textContent }) => textContent?.trim().startsWith(wanted.text ?? ''))?.click();
    }
    await new Promise<void>((done) => {
      const look = (): void => {
        const now = document.querySelectorAll('.row[data-layer]')[5];
        if (now?.textContent === before && performance.now() - start < 5_000) requestAnimationFrame(look);
        else requestAnimationFrame(() => done());
      };
      requestAnimationFrame(look);
    });
    return performance.now() - start;
  }, change);
}

/** How many frames a second the page draws, and the longest task meanwhile. */
async function watchFrames(page: Page, milliseconds: number): Promise<{ rate: number; longest: number }> {
  return page.evaluate(
    (length) =>
      new Promise((done) => {
        let [frames, longest] = [0, 0];
        const start = performance.now();
        new PerformanceObserver((list) => {
          for (const { duration } of list.getEntries()) longest = Math.max(longest, duration);
        }).observe({ type: 'longtask' });
        const tick = (now: number): void => {
          frames++;
          if (now - start < length) requestAnimationFrame(tick);
          else setTimeout(() => done({ rate: (frames * 1_000) / (now - start), longest }), 50);
        };
        requestAnimationFrame(tick);
      }),
    milliseconds,
  );
}

async function openScene(page: Page, layers: number): Promise<string> {
  const { id: _id, layers: plain, ...rest } = plainScene(layers);
  // One below the other, so that every layer has a place of its own in the order.
  const scene = {
    ...rest,
    layers: plain.map((layer, i) => ({ ...layer, rest: { ...layer.rest, 'position.y': i } })),
  };
  const made = await page.request.post(`${ADDRESS}/api/scenes`, { data: { scene, by: 'bench' } });
  const { id } = ((await made.json()) as { scene: { id: string } }).scene;
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByRole('button', { name: /^Dry run on/ }).click();
  await page.getByText('Dry run:').first().waitFor();
  await page.waitForTimeout(1_500);
  return id;
}

async function toggleField(page: Page, field: string): Promise<void> {
  await page.locator(`[data-field="${field}"]`).click();
  await page.getByRole('dialog').waitFor();
}

async function measureFields(page: Page, state: string): Promise<void> {
  const told = (name: string, times: number[]): void => {
    times.sort((a, b) => a - b);
    const [middle, worst] = [times[Math.floor(times.length / 2)], times[times.length - 1]];
    report(
      `a changed ${name} of 1,000 layers on screen, ${state}`,
      `${middle.toFixed(0)}, at most ${worst.toFixed(0)} ms`,
      `${AIM}, at most ${MOST} ms`,
      middle <= AIM && worst <= MOST,
    );
  };
  const many = async (one: (i: number) => Promise<number>): Promise<number[]> => {
    const times: number[] = [];
    for (let i = 0; i < CHANGES; i++) times.push(await one(i));
    return times;
  };
  told('gap', await many(() => measureChange(page, { key: 'ArrowUp', on: '[data-field="spacing"]' })));
  await toggleField(page, 'order');
  const turned = 'wx-field-editor label, wx-field-editor mat-checkbox label';
  told('order', await many(() => measureChange(page, { click: turned, text: 'The other way round' })));
  await page.keyboard.press('Escape');
  if ((await page.locator('[data-field^="parameter:"]').count()) === 0) {
    await toggleField(page, 'add-parameter');
    await page.getByRole('dialog').getByRole('button', { name: /^Tilt/ }).first().click();
    await page.keyboard.press('Escape');
  }
  await page.waitForTimeout(400);
  const parameter = '[data-field^="parameter:"]';
  told('parameter', await many(() => measureChange(page, { key: 'ArrowUp', on: parameter })));
  const presets = ['Fade in', 'Rise & settle'];
  const times: number[] = [];
  for (let i = 0; i < 6; i++) {
    await toggleField(page, 'preset');
    times.push(await measureChange(page, { click: 'wx-preset-editor .choice span', text: presets[i % 2] }));
    await page.keyboard.press('Escape');
    await page.waitForTimeout(300);
  }
  told('preset', times);
}

/** A thousand layers: how soon a changed field is on screen, while the preview stands and plays. */
async function benchThousand(page: Page): Promise<void> {
  await openScene(page, 1_000);
  await measureFields(page, 'standing');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(1_000);
  const { rate, longest } = await watchFrames(page, 4_000);
  const found = `${rate.toFixed(1)} fps, ${longest.toFixed(0)} ms`;
  report('1,000 layers play; the longest task', found, `25 fps, ${TASK} ms`, rate >= 24.5 && longest <= TASK);
  await measureFields(page, 'playing');
}

/** Three hundred layers: scrolling the sheet, and applying. */
async function benchHundreds(page: Page): Promise<void> {
  await openScene(page, 300);
  const worst = await page.evaluate(async () => {
    const list = document.querySelector('cdk-virtual-scroll-viewport') as HTMLElement;
    let [most, last] = [0, performance.now()];
    for (let i = 0; i < 60; i++) {
      list.scrollTop = (i % 30) * 300;
      await new Promise(requestAnimationFrame);
      const now = performance.now();
      most = Math.max(most, now - last);
      last = now;
    }
    return most;
  });
  report('300 layers: the longest frame while scrolling', `${worst.toFixed(0)} ms`, `${TASK} ms`, worst <= TASK);
  const applied = await page.evaluate(async () => {
    const button = Array.from(document.querySelectorAll('button')).find((one) =>
      one.textContent?.trim().startsWith('Apply'),
    );
    const start = performance.now();
    button?.click();
    while (!Array.from(document.querySelectorAll('button')).some((one) => one.textContent?.trim() === 'Applied')) {
      await new Promise(requestAnimationFrame);
      if (performance.now() - start > 5_000) break;
    }
    return performance.now() - start;
  });
  report('  applying', `${applied.toFixed(0)} ms`, '150 ms', applied <= 150);
}

/** Keys that are picked and dragged, and the frames in which that is to be seen, milliseconds. */
const PICKED = 1_000;
const KEY_FRAME = 20;

/** Three hundred layers of forty keys in rows of channels: scrolled, a thousand picked, and dragged. */
async function benchKeys(page: Page): Promise<void> {
  const { id: _id, ...scene } = keyedScene(300, 'few');
  const layers = scene.layers.map((layer) => ({
    ...layer,
    // Ten keys on each of four channels: those that are made twice, the second time in the other half of the scene.
    tracks: Object.fromEntries(
      Object.entries(layer.tracks)
        .slice(0, 4)
        .map(([channel, keys]) => [
          channel,
          [0, Math.round(scene.length / 2)].flatMap((from) =>
            keys.map((key) => ({ ...key, at: from + Math.floor(key.at / 2.2) })),
          ),
        ]),
    ),
  }));
  const made = await page.request.post(`${ADDRESS}/api/scenes`, { data: { scene: { ...scene, layers }, by: 'bench' } });
  const { id } = ((await made.json()) as { scene: { id: string } }).scene;
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByRole('button', { name: 'Keys', exact: true }).click();
  const view = page.locator('wx-keys-view');
  await view.getByRole('row').first().waitFor();
  await page.waitForTimeout(1_000);
  const strip = await view.locator('.strip').nth(1).boundingBox();
  if (!strip) throw new Error('The keys are not there.');
  const told = (name: string, frames: readonly number[]): void => {
    const [middle, most] = [frames[frames.length >> 1] ?? 0, frames[frames.length - 1] ?? 0];
    const figure = `${middle.toFixed(0)} ms, at most ${most.toFixed(0)} ms`;
    report(name, figure, `${KEY_FRAME} ms, ${TASK} ms`, middle <= KEY_FRAME && most <= TASK);
  };
  await page.mouse.move(strip.x + 60, strip.y + 200);
  told(
    'keys of 300 layers: frames while scrolling',
    await framesWhile(page, async () => {
      for (let i = 0; i < 30; i++) {
        await page.mouse.wheel(0, i % 2 === 0 ? 600 : -300);
        await page.waitForTimeout(30);
      }
    }),
  );
  await page.evaluate(() =>
    (document.querySelector('wx-keys-view cdk-virtual-scroll-viewport') as HTMLElement).scrollTo(0, 0),
  );
  await page.waitForTimeout(300);
  // One moment of all layers: a key on each of four channels.
  await view.getByLabel('A press picks').selectOption('moment');
  const drag = await framesWhile(page, async () => {
    await page.mouse.move(strip.x + 1, strip.y + 14);
    await page.mouse.down();
    for (let i = 1; i <= 40; i++) {
      await page.mouse.move(strip.x + 1 + i * 3, strip.y + 14);
      await page.waitForTimeout(16);
    }
  });
  const picked = Number(/\d+/.exec((await view.getByText(/keys picked/).textContent()) ?? '')?.[0] ?? 0);
  await page.mouse.up();
  told(`  picking and dragging ${picked} keys`, picked >= PICKED ? drag : []);
  await benchAdjusted(page);
}

/** Keys that an adjustment is measured with at least, and the time until it is on screen, milliseconds. */
const ADJUSTED = 10_000;
const ADJUST_AIM = 100;

/** All keys of the scene adjusted by a sentence whose number is changed. */
async function benchAdjusted(page: Page): Promise<void> {
  const view = page.locator('wx-keys-view');
  await page.keyboard.press('Control+a');
  const picked = Number(/\d+/.exec((await view.getByText(/keys picked/).textContent()) ?? '')?.[0] ?? 0);
  await view.getByRole('button', { name: 'Adjust these…' }).click();
  await page.getByText('Dry run:').first().waitFor();
  await page.getByRole('button', { name: 'Run sheet', exact: true }).click();
  await page.waitForTimeout(1_500);
  const times: number[] = [];
  for (let i = 0; i < CHANGES; i++)
    times.push(await measureChange(page, { key: 'ArrowUp', on: '[data-field^="parameter:"]' }));
  times.sort((a, b) => a - b);
  const middle = times[times.length >> 1];
  report(
    `  an adjustment of ${picked} keys on screen`,
    `${middle.toFixed(0)} ms, at most ${times[times.length - 1].toFixed(0)} ms`,
    `${ADJUST_AIM} ms`,
    picked >= ADJUSTED && middle <= ADJUST_AIM,
  );
}

/** A scene of ten thousand layers and ten runs: from the click until it stands on screen. */
async function benchOpening(page: Page, scene: Scene): Promise<void> {
  const { id: _id, ...plain } = scene;
  await page.goto(ADDRESS);
  const id = await page.evaluate(
    async (body) => {
      const upload = 'bench';
      const { packed, header, order, runs, by } = body;
      for (const [i, part] of packed.entries()) {
        await fetch(`/api/scenes/uploads/${upload}/${i}`, { method: 'PUT', body: JSON.stringify(part) });
      }
      const answer = await fetch('/api/scenes/from-parts', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ header, order, runOrder: runs, upload: { id: upload, parts: packed.length }, by }),
      });
      return ((await answer.json()) as { id: string }).id;
    },
    await uploadOf(plain),
  );
  const began = performance.now();
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByText('as it stands').first().waitFor({ timeout: 60_000 });
  const took = performance.now() - began;
  report('opening 10,000 layers × 10 runs', `${took.toFixed(0)} ms`, '3,000 ms', took <= 3_000);
}

async function uploadOf({ layers, runs, ...scene }: Omit<Scene, 'id'>) {
  const { headerOf } = await import('@wexikine/core');
  const { partsOf } = await import('../../web/src/app/api/scene-parts');
  return {
    packed: partsOf(layers, runs).map((part) => part()),
    header: headerOf(scene),
    order: layers.map(({ id }) => id),
    runs: runs.map(({ id }) => id),
    by: 'bench',
  };
}

/** One layer dragged by hand among three hundred that have keys. */
async function benchStage(page: Page): Promise<void> {
  const { id: _id, ...scene } = keyedScene(300, 'few');
  const made = await page.request.post(`${ADDRESS}/api/scenes`, { data: { scene, by: 'bench' } });
  const { id } = ((await made.json()) as { scene: { id: string } }).scene;
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByText('as it stands').first().waitFor();
  await page.getByRole('tab', { name: 'Cues' }).click();
  await page.locator('wx-run-sheet [role=row][data-layer]').nth(3).click();
  const corners = page.locator('[data-grip^=corner]');
  await corners.first().waitFor();
  const [a, b] = [await corners.nth(0).boundingBox(), await corners.nth(2).boundingBox()];
  if (!a || !b) throw new Error('Nothing is selected.');
  const [x, y] = [(a.x + b.x + a.width) / 2, (a.y + b.y + a.height) / 2];
  await page.waitForTimeout(800);
  const frames = await framesWhile(page, async () => {
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let i = 1; i <= 60; i++) {
      await page.mouse.move(x + i, y + Math.sin(i / 6) * 20);
      await page.waitForTimeout(12);
    }
  });
  await page.mouse.up();
  const [middle, most] = [frames[frames.length >> 1] ?? 0, frames[frames.length - 1] ?? 0];
  report(
    'a layer dragged among 300: frames',
    `${middle.toFixed(1)} ms, at most ${most.toFixed(0)} ms`,
    `${SCREEN_FRAME.toFixed(1)} ms, ${TASK} ms`,
    middle <= SCREEN_FRAME + 1 && most <= TASK,
  );
}

/** Five thousand layers of ten keys: opened, shown as keys, and all of them picked. */
async function benchManyKeys(page: Page): Promise<void> {
  const { id: _id, layers: plain, ...scene } = keyedScene(5_000, 'few');
  const key = (at: number, value: number) => ({ at, value, ease: { type: 'linear' as const } });
  const layers = plain.map((layer, i) => ({
    ...layer,
    tracks: { opacity: Array.from({ length: 10 }, (_, n) => key((i + n * 7) * 1_000_000, n / 10)) },
  }));
  const made = await page.request.post(`${ADDRESS}/api/scenes`, { data: { scene: { ...scene, layers }, by: 'bench' } });
  const { id } = ((await made.json()) as { scene: { id: string } }).scene;
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByText('as it stands').first().waitFor({ timeout: 60_000 });
  const took = async (work: () => Promise<void>): Promise<number> => {
    const began = performance.now();
    await work();
    return performance.now() - began;
  };
  const view = page.locator('wx-keys-view');
  const opening = await took(async () => {
    await page.getByRole('button', { name: 'Keys', exact: true }).click();
    await view.getByRole('row').nth(3).waitFor();
  });
  const picking = await took(async () => {
    await page.keyboard.press('Control+a');
    await view.getByText('50000 of 50000 keys picked').waitFor();
  });
  const figure = `${opening.toFixed(0)} ms, ${picking.toFixed(0)} ms`;
  report(
    '50,000 keys of 5,000 layers: shown, all picked',
    figure,
    '1,000 ms, 1,000 ms',
    opening < 1_000 && picking < 1_000,
  );
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
    looks: (page) => benchLooks(page, ADDRESS),
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
