import type { Page } from '@playwright/test';
import type { Scene } from '@wexikine/core';
import { report } from '../measure';
import { ADDRESS } from './page';

/** A scene of ten thousand layers and ten runs: from the click until it stands on screen. */
export async function benchOpening(page: Page, scene: Scene): Promise<void> {
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
  const { partsOf } = await import('../../../web/src/app/api/scene-parts');
  return {
    packed: partsOf(layers, runs).map((part) => part()),
    header: headerOf(scene),
    order: layers.map(({ id }) => id),
    runs: runs.map(({ id }) => id),
    by: 'bench',
  };
}
