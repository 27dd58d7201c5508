import { expect, type Download, type Locator, type Page } from '@playwright/test';
import type { LibraryDetail, LibraryEntry } from '@wexikine/core';
import { readFileSync } from 'node:fs';

/** The library as its users name its parts. */
export class LibraryScreen {
  readonly search: Locator;
  readonly status: Locator;
  readonly facets: Locator;
  readonly drawer: Locator;
  readonly tiles: Locator;

  constructor(readonly page: Page) {
    this.search = page.getByRole('searchbox', { name: 'Search the library' });
    this.status = page.getByText(/^\d+ of \d+ items$/);
    this.facets = page.getByRole('navigation', { name: 'Facets' });
    this.drawer = page.locator('wx-library-drawer');
    this.tiles = page.locator('wx-item-tile');
  }

  async open(): Promise<void> {
    await this.page.goto('/library');
    await expect(this.status).toBeVisible();
    await expect(this.tiles.first()).toBeVisible();
  }

  tile(name: string): Locator {
    return this.tiles.filter({ has: this.page.getByText(name, { exact: true }) });
  }

  /** Finds an item by name and chooses it. */
  async choose(name: string): Promise<void> {
    await this.search.fill(name);
    await this.tile(name).getByRole('button').click();
    await expect(this.drawer.getByRole('heading', { name, exact: true })).toBeVisible();
  }

  async begin(what: string): Promise<void> {
    await this.page.getByRole('button', { name: 'New preset' }).click();
    await this.page.getByRole('menuitem', { name: what, exact: true }).click();
    await expect(this.page.getByRole('textbox', { name: 'Name', exact: true })).toBeVisible();
  }

  async select(...names: readonly string[]): Promise<void> {
    for (const name of names) await this.page.getByRole('checkbox', { name: `Select ${name}`, exact: true }).check();
  }

  facet(name: string): Locator {
    return this.facets.getByRole('button', { name: new RegExp(`^${name} ?\\d+$`, 'i') });
  }
}

/** Waits for a file that some act makes the browser save. */
export async function saved(page: Page, act: () => Promise<void>): Promise<{ name: string; bytes: Buffer }> {
  const waiting: Promise<Download> = page.waitForEvent('download');
  await act();
  const download = await waiting;
  return { name: download.suggestedFilename(), bytes: readFileSync(await download.path()) };
}

/** The library as the server has it. */
export async function storedLibrary(page: Page): Promise<LibraryEntry[]> {
  return (await (await page.request.get('/api/library')).json()) as LibraryEntry[];
}

export async function storedItem(page: Page, id: string): Promise<LibraryDetail> {
  return (await (await page.request.get(`/api/library/${id}`)).json()) as LibraryDetail;
}
