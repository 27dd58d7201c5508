import type { Page } from '@playwright/test';
import type { Scene } from '@wexikine/core';

export const PORT = 4879;
/** Where the server that is measured answers. */
export const ADDRESS = `http://127.0.0.1:${PORT}`;
/** Changes of a field from which the middle one is told. */
export const CHANGES = 15;
/** The longest task in which nobody notices that the page was busy, milliseconds. */
export const TASK = 50;

/** Stores a scene; gives its id. */
export async function store(page: Page, scene: Omit<Scene, 'id'>): Promise<string> {
  const made = await page.request.post(`${ADDRESS}/api/scenes`, { data: { scene, by: 'bench' } });
  return ((await made.json()) as { scene: { id: string } }).scene.id;
}

/** What changes a field: a key on it, or a click on something in the popover that is open. */
export type Change = { readonly key: string; readonly on: string } | { readonly click: string; readonly text?: string };

/**
 * Milliseconds from a change until the frame in which the sheet shows the new dry run has been painted. It is looked for in
 * each frame after all callbacks of that frame (an observer of sizes is told then): in a callback of its own it would not see
 * what a later callback draws in the same frame, and count one frame more.
 */
export async function measureChange(page: Page, change: Change): Promise<number> {
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
    const probe = document.createElement('div');
    probe.style.cssText = 'position: fixed; left: 0; top: 0; width: 0; height: 0; contain: strict; visibility: hidden';
    document.body.append(probe);
    let wide = 0;
    const askInNextFrame = (): number => requestAnimationFrame(() => (probe.style.width = `${++wide % 2}px`));
    await new Promise<void>((done) => {
      const observer = new ResizeObserver(() => {
        const now = document.querySelectorAll('.row[data-layer]')[5];
        if (now?.textContent === before && performance.now() - start < 5_000) return askInNextFrame();
        observer.disconnect();
        return requestAnimationFrame(() => done());
      });
      observer.observe(probe);
      askInNextFrame();
    });
    const took = performance.now() - start;
    probe.remove();
    return took;
  }, change);
}
