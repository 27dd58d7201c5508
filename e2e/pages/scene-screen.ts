import { expect, type Download, type Locator, type Page } from '@playwright/test';
import { constellations, programmeBoard, type Scene } from '@wexikine/core';
import { readFileSync } from 'node:fs';
import { untilText } from './until';

/** Where the scene screen says what is shown. */
const STATUS = 'wx-scene-foot';

/** The scene screen as its users name its parts. */
export class SceneScreen {
  readonly sentence: Locator;
  readonly sheet: Locator;
  readonly applyButton: Locator;
  readonly editor: Locator;
  readonly status: Locator;
  readonly time: Locator;

  constructor(readonly page: Page) {
    this.sentence = page.getByRole('region', { name: 'The run as a sentence' });
    this.sheet = page.getByRole('treegrid', { name: 'Layers of the scene' });
    this.applyButton = page.getByRole('button', { name: /^(Appl(y to \d+|ied)|Dry run on \d+)$/ });
    this.editor = page.getByRole('dialog');
    this.status = page.getByRole('status').last();
    this.time = page.getByRole('textbox', { name: 'Time of the playhead' });
  }

  /** Opens a scene, which then stands as it is. */
  async openAtRest(id: string): Promise<void> {
    await this.page.goto(`/scenes/${id}`);
    await untilText(this.page, STATUS, /as it stands/);
  }

  /** Opens a scene and asks for the dry run of the sentence that waits in it. */
  async open(id: string): Promise<void> {
    await this.openAtRest(id);
    await this.dryRun();
  }

  /** Applies the dry run, and waits until it is done: what was saved before says so until then. */
  async apply(): Promise<void> {
    await this.applyButton.click();
    await untilText(this.page, 'wx-say button.main', /^Applied$/);
  }

  async dryRun(): Promise<void> {
    await this.page.getByRole('button', { name: /^Dry run on \d+$/ }).click();
    await this.planned();
  }

  /** Shows the rows of all layers, those too that do not take part, and waits until they are there. */
  async showAll(): Promise<void> {
    const all = this.page.getByRole('button', { name: /^All \d+$/ });
    await all.click();
    await expect(all).toHaveAttribute('aria-pressed', 'true');
    await this.page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  }

  /** Waits until a dry run is on screen. */
  async planned(): Promise<void> {
    await untilText(this.page, STATUS, /Dry run:/);
  }

  field(name: string): Locator {
    return this.sentence.locator(`[data-field="${name}"]`);
  }

  row(name: string): Locator {
    return this.sheet.getByRole('row').filter({ has: this.page.getByText(name, { exact: true }) });
  }

  /** Start and length of a layer as the sheet shows them. */
  async times(name: string): Promise<string[]> {
    const cells = await this.row(name).getByRole('gridcell').allInnerTexts();
    return cells.slice(2, 4);
  }

  async setTime(text: string): Promise<void> {
    await this.time.fill(text);
    await this.time.press('Enter');
    // What is done next is done at that time.
    await this.drawn();
  }

  async closeEditor(): Promise<void> {
    await this.page.keyboard.press('Escape');
    await expect(this.editor).toHaveCount(0);
  }

  /** Waits until the page has drawn what was done last: it says by then that it saves. */
  private async drawn(): Promise<void> {
    await this.page.evaluate(
      () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(null)))),
    );
  }

  async saved(): Promise<void> {
    await this.drawn();
    await untilText(this.page, '.chip[role="status"]', /^saved/);
  }

  /** The scene as the server has it. */
  async stored(id: string): Promise<Scene> {
    const response = await this.page.request.get(`/api/scenes/${id}`);
    return ((await response.json()) as { scene: Scene }).scene;
  }

  /** The scene as it is saved once something is so. */
  async storedWhen(id: string, isSo: (scene: Scene) => boolean): Promise<Scene> {
    let scene = await this.stored(id);
    await expect.poll(async () => isSo((scene = await this.stored(id))), { intervals: [50] }).toBe(true);
    return scene;
  }

  async export(name: string): Promise<{ name: string; text: string; bytes: Buffer }> {
    await this.page.getByRole('button', { name: 'Export' }).click();
    const waiting: Promise<Download> = this.page.waitForEvent('download');
    await this.page.getByRole('menuitem', { name }).click();
    const download = await waiting;
    const bytes = readFileSync(await download.path());
    return { name: download.suggestedFilename(), text: bytes.toString('utf8'), bytes };
  }

  /** Colour of the preview's canvas at a place given in shares of the frame. */
  async pixel(x: number, y: number): Promise<number[]> {
    return (await this.pixels([{ x, y }]))[0];
  }

  /** Colours of the preview's canvas at places given in shares of the frame; it is read once for all of them. */
  async pixels(places: readonly { readonly x: number; readonly y: number }[]): Promise<number[][]> {
    return this.page.getByRole('img', { name: /^Preview/ }).evaluate((canvas: HTMLCanvasElement, asked) => {
      const scale = Math.min((canvas.clientWidth - 32) / 1920, (canvas.clientHeight - 32) / 1080);
      const ratio = canvas.width / canvas.clientWidth;
      const [left, top] = [(canvas.clientWidth - 1920 * scale) / 2, (canvas.clientHeight - 1080 * scale) / 2];
      const context = canvas.getContext('2d') as CanvasRenderingContext2D;
      const { data, width } = context.getImageData(0, 0, canvas.width, canvas.height);
      return asked.map(({ x, y }) => {
        const [across, down] = [(left + x * 1920 * scale) * ratio, (top + y * 1080 * scale) * ratio].map(Math.round);
        const first = (down * width + across) * 4;
        return [...data.subarray(first, first + 3)];
      });
    }, places);
  }

  /** Where a share of the frame lies on the screen, with the frame fitted into the preview. */
  async onScreen(x: number, y: number): Promise<{ x: number; y: number }> {
    return this.page.getByRole('img', { name: /^Preview/ }).evaluate(
      (canvas: HTMLCanvasElement, at) => {
        const scale = Math.min((canvas.clientWidth - 32) / 1920, (canvas.clientHeight - 32) / 1080);
        const { left, top } = canvas.getBoundingClientRect();
        return {
          x: left + (canvas.clientWidth - 1920 * scale) / 2 + at.x * 1920 * scale,
          y: top + (canvas.clientHeight - 1080 * scale) / 2 + at.y * 1080 * scale,
        };
      },
      { x, y },
    );
  }
}

/** A copy of a demo scene as it was made, so that a test has it for itself whatever others did. */
export async function copyOf(page: Page, demo: 'programme-board' | 'constellations'): Promise<string> {
  const { id: _id, ...scene } = demo === 'programme-board' ? programmeBoard() : constellations();
  const data = { scene: { ...scene, name: `${scene.name} (copy)` }, by: 'Test' };
  const response = await page.request.post('/api/scenes', { data });
  return ((await response.json()) as { scene: Scene }).scene.id;
}
