import { expect, type Locator, type Page } from '@playwright/test';
import { untilText } from './until';

/** The bench as its users name its parts. */
export class BenchScreen {
  readonly name: Locator;
  readonly matrix: Locator;
  readonly parameters: Locator;
  readonly note: Locator;
  readonly publishButton: Locator;

  constructor(readonly page: Page) {
    this.name = page.getByRole('textbox', { name: 'Name', exact: true });
    this.matrix = page.getByRole('grid', { name: 'Moments and channels' });
    this.parameters = page.getByRole('table', { name: 'Parameters' });
    this.note = page.locator('wx-bench-note');
    this.publishButton = page.getByRole('button', { name: 'Publish', exact: true });
  }

  async open(id: string): Promise<void> {
    await this.page.goto(`/library/${id}`);
    await expect(this.name).toBeVisible();
  }

  get id(): string {
    return new URL(this.page.url()).pathname.split('/').pop() as string;
  }

  /** A cell by its label, such as "scale at Peak" or "Time of Peak". */
  cell(label: string): Locator {
    return this.matrix.getByRole('gridcell', { name: new RegExp(`^${label}:`) });
  }

  /** Types a formula into a cell, over what stood there. */
  async write(label: string, formula: string): Promise<void> {
    await this.cell(label).click();
    const editor = this.page.getByRole('textbox', { name: label, exact: true });
    await editor.press('Control+a');
    await this.page.keyboard.insertText(formula);
    await this.page.keyboard.press('Enter');
    await expect(this.cell(label)).toBeVisible();
  }

  async addMoment(name: string, at: string): Promise<void> {
    await this.page.getByRole('button', { name: 'moment', exact: true }).click();
    const added = this.matrix.getByText(/^Moment \d+$/);
    await added.dblclick();
    const field = this.page.getByRole('textbox', { name: 'Name of the moment' });
    await field.fill(name);
    await field.press('Enter');
    await this.write(`Time of ${name}`, at);
  }

  async addChannel(name: string): Promise<void> {
    await this.page.getByRole('button', { name: 'channel', exact: true }).click();
    await this.page.getByRole('menuitem', { name, exact: true }).click();
  }

  async addParameter(kind: string): Promise<void> {
    await this.page.getByRole('button', { name: 'Add a parameter' }).click();
    await this.page.getByRole('menuitem', { name: kind, exact: true }).click();
  }

  async openParameter(label: string): Promise<void> {
    const button = this.parameters.getByRole('button', { name: label, exact: true });
    if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click();
  }

  field(label: string): Locator {
    const form = this.page.locator('wx-parameter-form');
    const name = new RegExp(`^${label}`);
    return form.getByRole('textbox', { name }).or(form.getByRole('combobox', { name }));
  }

  /** Takes the completion offered first. A list that has only just opened does not yet take Enter away from typing. */
  async takeCompletion(offered: string): Promise<void> {
    await expect(this.page.locator('.cm-tooltip-autocomplete')).toContainText(offered);
    await this.page.waitForTimeout(150);
    await this.page.keyboard.press('Enter');
  }

  async kept(): Promise<void> {
    await untilText(this.page, 'wx-bench-note', /draft kept/);
  }

  /** Sends the draft for review and publishes it. */
  async publish(summary = ''): Promise<void> {
    await this.kept();
    await this.page.getByRole('button', { name: 'Send for review' }).click();
    await this.publishButton.click();
    const dialog = this.page.getByRole('dialog');
    await dialog.getByRole('textbox', { name: 'What changed, for those who use it' }).fill(summary);
    await dialog.getByRole('button', { name: 'Publish', exact: true }).click();
    await expect(this.note).toHaveText('as published');
  }
}
