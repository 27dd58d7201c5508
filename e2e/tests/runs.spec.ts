import { expect, test, windowBeside } from '../pages/test';
import { STARTER_PRESETS, ticksFromSeconds, type Layer, type PresetItem } from '@wexikine/core';
import { expectNoFaults } from '../pages/faults';
import { applied, card, choosePreset, frames, openWith, say, sceneWith } from '../pages/made-scenes';
import { copyOf, SceneScreen } from '../pages/scene-screen';

test('any three of start, gap, length and finish give the fourth, and what cannot be met offers the nearest', async ({
  page,
}) => {
  const { screen } = await openWith(
    page,
    ['1', '2', '3'].map((id) => card(id)),
  );
  await choosePreset(screen, 'Fade in');
  await say(screen, 'order', 'As layered');
  await say(screen, 'length', 'A fixed length', { Length: '20f' });
  await say(screen, 'finish', 'The gap follows', { 'Done at': '2:00' });
  await expect(screen.field('spacing')).toHaveText('15 f');
  await expect.poll(() => screen.times('Card 3')).toEqual(['1:05', '20 f']);
  await say(screen, 'finish', 'The start follows', { 'Done at': '10f' });
  await page.getByRole('tab', { name: /findings/i }).click();
  const finding = page.getByRole('listitem').filter({ hasText: 'cannot be met' });
  await expect(finding).toContainText('The nearest that can is 2:00');
  await expect(screen.applyButton).toBeDisabled();
  await finding.getByRole('button', { name: 'Take 2:00' }).click();
  await expect(screen.field('start')).toHaveText('0:00');
  await expect(screen.applyButton).toBeEnabled();
});

test('a run is changed, switched off and on, and removed; hand keys stay, and undo leads all the way back', async ({
  page,
}) => {
  const id = await copyOf(page, 'programme-board');
  const screen = new SceneScreen(page);
  await screen.open(id);
  const before = await screen.stored(id);
  await applied(screen);

  // A value is set by hand on the second row.
  await screen.row('First light: telescopes').click();
  await page.getByRole('tab', { name: 'layer' }).click();
  const ran = await screen.stored(id);
  const row = ran.layers.find(({ id: layer }) => layer === 'row-02') as Layer;
  const keys = row.tracks.opacity ?? [];
  const version = ((await (await page.request.get(`/api/scenes/${id}`)).json()) as { version: number }).version;
  const byHand = {
    ...row,
    tracks: { ...row.tracks, opacity: [keys[0], { ...keys[1], value: 0.42 }, ...keys.slice(2)] },
  };
  const saved = await page.request.put(`/api/scenes/${id}`, {
    data: {
      base: version,
      by: 'Ada',
      what: 'Dim the second row',
      header: null,
      layers: [byHand],
      removedLayers: [],
      order: null,
      runs: [],
      removedRuns: [],
      runOrder: null,
    },
  });
  expect(saved.ok()).toBe(true);
  await expect(page.getByText('Ada: Dim the second row')).toBeVisible();

  await page.getByRole('tab', { name: /runs/i }).click();
  await page.getByRole('button', { name: 'Change run 1' }).click();
  await expect(screen.sentence).toContainText('Changing run 1');
  await say(screen, 'spacing', 'One every', { Gap: '8f' });
  await expect.poll(() => screen.times('Closing bell')).toEqual(['3:13', '20 f']);
  await page.getByRole('tab', { name: /findings/i }).click();
  await expect(page.getByText('One key changed by hand on “First light: telescopes” stays as it is.')).toBeVisible();
  await page.getByRole('button', { name: 'Change 12' }).click();
  await expect(page.getByText('The run was changed.')).toBeVisible();
  await expect.poll(async () => (await screen.stored(id)).runs[0].recipe).toMatchObject({ spacing: { gap: '8f' } });
  const changed = await screen.stored(id);
  const dimmed = changed.layers.find(({ id: layer }) => layer === 'row-02')?.tracks.opacity?.[1];
  expect(dimmed?.value).toBe(0.42);
  expect(frames(changed, (dimmed?.at ?? 0) - keys[1].at)).toBe(4);

  await page.getByRole('tab', { name: /runs/i }).click();
  await page.getByRole('button', { name: 'Switch off run 1' }).click();
  await expect.poll(async () => (await screen.stored(id)).layers).toEqual(before.layers);
  await page.getByRole('button', { name: 'Switch on run 1' }).click();
  await expect.poll(async () => (await screen.stored(id)).layers).toEqual(changed.layers);

  await page.getByRole('button', { name: 'More for run 1' }).click();
  await page.getByRole('menuitem', { name: /^Remove/ }).click();
  await expect.poll(async () => (await screen.stored(id)).runs.length).toBe(0);
  expect((await screen.stored(id)).layers).toEqual(before.layers);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect.poll(async () => (await screen.stored(id)).layers).toEqual(changed.layers);
});

test('values are set by hand in the sheet and released, rows are put in order by keyboard, layers are boxed on the preview', async ({
  page,
}) => {
  const layers = ['1', '2', '3'].map((id, i) =>
    card(id, { rest: { 'position.x': 300 + 600 * i, 'position.y': 540, 'size.x': 200, 'size.y': 100 } }),
  );
  const { screen } = await openWith(page, layers);
  await say(screen, 'order', 'As layered');
  await page.getByRole('button', { name: /^Start of Card 2/ }).click();
  await page.getByRole('textbox', { name: 'Start of Card 2, by hand' }).fill('3:00');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await screen.times('Card 2'))[0]).toContain('3:00');
  await expect(page.getByRole('button', { name: 'Start of Card 2: 3:00, set by hand' })).toBeVisible();
  await page.getByRole('button', { name: 'Start of Card 2: follow the sentence again' }).click();
  await expect.poll(async () => (await screen.times('Card 2'))[0]).toBe('0:04');

  await screen.row('Card 3').click();
  await screen.row('Card 3').press('Alt+ArrowUp');
  await expect(screen.field('order')).toHaveText('in an order set by hand');
  await expect.poll(async () => (await screen.times('Card 3'))[0]).toBe('0:04');
  await expect.poll(async () => (await screen.times('Card 2'))[0]).toBe('0:08');

  await screen.setTime('5:00');
  const box = await page.getByRole('img', { name: /^Preview/ }).boundingBox();
  if (!box) throw new Error();
  await page.keyboard.down('Shift');
  await page.mouse.move(box.x + box.width * 0.03, box.y + box.height * 0.2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.62, box.y + box.height * 0.9, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect(screen.field('pick')).toHaveText('2 layers');
});

test('data pasted from a spreadsheet gives each layer its own value, and says what did not match', async ({ page }) => {
  const { id, screen } = await openWith(
    page,
    ['1', '2', '3'].map((name) => card(name)),
  );
  await page.getByRole('button', { name: 'Data', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Data of the layers' });
  await dialog.getByRole('textbox').fill('name\tlean\nCard 1\t4\nCard 3\t-9deg\nCard 8\t1');
  await expect(dialog).toContainText('2 layers take data from 3 rows.');
  await expect(dialog).toContainText('No layer for: Card 8.');
  await expect(dialog).toContainText('No row for: Card 2.');
  await dialog.getByRole('button', { name: 'Give data to 2' }).click();
  await page.getByRole('button', { name: 'Set another parameter' }).click();
  await screen.editor.getByRole('button', { name: /^Tilt/ }).click();
  await screen.editor.getByRole('radio', { name: /^From a data column/ }).check();
  await screen.closeEditor();
  await expect(screen.row('Card 1').getByText('4°')).toBeVisible();
  await expect(screen.row('Card 3').getByText('−9°')).toBeVisible();
  await page.getByRole('tab', { name: /findings/i }).click();
  await expect(page.getByText('“Card 2” has nothing in the data column “lean”')).toBeVisible();
  // One layer's value by hand, and a column that the scene did not have.
  await screen.row('Card 2').click();
  await page.getByRole('tab', { name: 'layer' }).click();
  await page.getByLabel('lean', { exact: true }).fill('12');
  await page.keyboard.press('Enter');
  await expect(screen.row('Card 2').getByText('12°')).toBeVisible();
  await page.getByLabel('New column').fill('score');
  await page.getByLabel('Its value here').fill('7');
  await page.keyboard.press('Enter');
  await screen.saved();
  const stored = await screen.stored(id);
  expect(stored.layers.map(({ data }) => data)).toEqual([{ lean: '4' }, { lean: '12', score: '7' }, { lean: '-9deg' }]);
});

test('versions play side by side; one is kept, its values stand in the sentence', async ({ page }) => {
  const { screen } = await openWith(
    page,
    ['1', '2', '3'].map((id) => card(id)),
  );
  await page.getByRole('button', { name: 'Variants' }).click();
  const dialog = page.getByRole('dialog', { name: 'Variants of the sentence' });
  await expect(dialog.getByRole('img', { name: 'Version 6' })).toBeVisible();
  await dialog.getByLabel('Made by').selectOption({ label: 'stepping through Tilt' });
  await expect(dialog.getByRole('img', { name: 'Version 6' })).toBeVisible();
  const said = await dialog.getByRole('listitem').nth(5).locator('p').innerText();
  await dialog.getByRole('button', { name: 'Keep version 6' }).click();
  await expect(screen.field('parameter:tilt')).toHaveText(said.replace('Tilt ', ''));
});

test('a run’s recipe goes into the library and works in a scene of another size and rate', async ({ page }) => {
  const { screen } = await openWith(
    page,
    ['1', '2', '3'].map((id) => card(id)),
  );
  await choosePreset(screen, 'Fade in');
  await applied(screen);
  await page.getByRole('tab', { name: /runs/i }).click();
  await page.getByRole('button', { name: 'More for run 1' }).click();
  await page.getByRole('menuitem', { name: 'Save as a recipe in the library' }).click();
  const dialog = page.getByRole('dialog', { name: 'A recipe in the library' });
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Cards come in');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('“Cards come in” is in the library')).toBeVisible();

  const other = await sceneWith(
    page,
    ['7', '8'].map((id) => card(id)),
    { num: 60, den: 1 },
  );
  await page.goto('/library');
  await page.getByRole('button', { name: /^Recipes/ }).click();
  await page
    .getByRole('button', { name: /Cards come in/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Use in a scene' }).click();
  await page.getByRole('menuitem', { name: 'Test 2 at 60' }).first().click();
  await expect(page).toHaveURL(new RegExp(`/scenes/${other}`));
  await screen.planned();
  await expect(screen.field('preset')).toHaveText('Fade in');
  await expect(screen.applyButton).toHaveText('Apply to 2');
});

test('a preset gets a new revision: its run says so, and the update is a dry run first', async ({ page }) => {
  const { id, screen } = await openWith(
    page,
    ['1', '2'].map((name) => card(name)),
  );
  const fade = STARTER_PRESETS.find((item) => item.id === 'fade-in') as PresetItem;
  const content = (lasts: string) => ({
    kind: 'preset' as const,
    body: {
      ...fade.body,
      parameters: fade.body.parameters.map(({ house: _house, ...entry }) =>
        entry.name === 'lasts' ? { ...entry, default: lasts } : entry,
      ),
    },
  });
  const text = { by: 'Ada', name: 'Own fade', note: '' };
  const send = async (method: 'post' | 'put', path: string, data: object) =>
    (await (await page.request[method](path, { data })).json()) as { item: { id: string }; draftVersion: number };
  const made = await send('post', '/api/library', { ...text, tags: [], collection: null, content: content('12f') });
  const publish = (base: number) =>
    send('post', `/api/library/${made.item.id}/draft/move`, { by: 'Ada', base, to: 'published', summary: 'out' });
  await publish(made.draftVersion);

  await page.goto(`/scenes/${id}?preset=${made.item.id}`);
  await screen.planned();
  await applied(screen);
  const next = await send('put', `/api/library/${made.item.id}/draft`, { ...text, base: 0, content: content('24f') });
  await publish(next.draftVersion);
  await page.goto('/scenes');
  await expect(page.getByText('1 update waiting')).toBeVisible();
  await screen.open(id);
  await page.getByRole('button', { name: 'Hide dry run' }).click();
  await page.getByRole('tab', { name: /^findings/i }).click();
  await expect(page.getByText('“Own fade” has a newer revision: 2, this run uses 1.')).toBeVisible();
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(screen.sentence).toContainText('from revision 1 to 2 of Own fade');
  await expect.poll(() => screen.times('Card 2')).toEqual(['0:00', '24 f']);
  expect((await screen.stored(id)).runs[0].preset?.revision).toBe(1);
  await page.getByRole('button', { name: 'Change 2' }).click();
  await expect.poll(async () => (await screen.stored(id)).runs[0].preset?.revision).toBe(2);
  const scene = await screen.stored(id);
  expect(scene.layers.map(({ tracks }) => frames(scene, tracks.opacity?.at(-1)?.at ?? 0))).toEqual([24, 24]);
  await expect(page.getByText('has a newer revision')).toHaveCount(0);

  // The next revision, from the list of runs: what changes layer by layer, done in one step and undone in one.
  const third = await send('put', `/api/library/${made.item.id}/draft`, { ...text, base: 0, content: content('30f') });
  await publish(third.draftVersion);
  await page.getByRole('tab', { name: /^runs/i }).click();
  await page.getByRole('button', { name: '1 update waits: see what changes' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('2 layers change')).toBeVisible();
  await expect(dialog.getByRole('row', { name: /^Card 2/ })).toContainText('0:24 → 1:05');
  await expectNoFaults(page);
  await dialog.getByRole('checkbox', { name: 'Update run 1' }).click();
  await expect(dialog.getByText('stays at the old revision')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Update 0 runs' })).toBeDisabled();
  await dialog.getByRole('checkbox', { name: 'Update run 1' }).click();
  await dialog.getByRole('button', { name: 'Update 1 run' }).click();
  await expect.poll(async () => (await screen.stored(id)).runs[0].preset?.revision).toBe(3);
  await page.getByRole('button', { name: 'Undo Update a run' }).click();
  await expect.poll(async () => (await screen.stored(id)).runs[0].preset?.revision).toBe(2);
});

test('a finding is mended by one click: the scene is lengthened by what the run lacks', async ({ page }) => {
  const { id, screen } = await openWith(
    page,
    ['1', '2'].map((name) => card(name, { span: { in: 0, out: ticksFromSeconds(20) } })),
  );
  await say(screen, 'start', 'At a time of the scene', { Time: '9:20' });
  await page.getByRole('tab', { name: /findings/i }).click();
  await page.getByRole('button', { name: /^Lengthen the scene by/ }).click();
  await expect(page.getByText(/outside the scene/)).toHaveCount(0);
  await screen.saved();
  await expect.poll(async () => (await screen.stored(id)).length).toBeGreaterThan(ticksFromSeconds(10));
});

test('two windows on one scene: a run in one appears in the other, and undo there goes on', async ({ page }) => {
  const id = await copyOf(page, 'programme-board');
  const other = await windowBeside(page);
  const [mine, theirs] = [new SceneScreen(page), new SceneScreen(other)];
  await mine.open(id);
  await mine.showAll();
  await theirs.openAtRest(id);
  await theirs.row('Moon').click();
  await other.getByRole('tab', { name: 'layer' }).click();
  await other.getByRole('textbox', { name: 'Name' }).fill('Full moon');
  await other.getByRole('textbox', { name: 'Name' }).press('Tab');
  await theirs.saved();
  await expect(mine.row('Full moon')).toBeVisible();
  await applied(mine);
  await other.getByRole('tab', { name: /runs/i }).click();
  await expect(other.getByRole('tabpanel')).toContainText('Bring in Rise & settle on 12 layers');
  await other.getByRole('button', { name: /^Undo/ }).first().click();
  await expect(mine.row('Moon')).toBeVisible();
  await expect.poll(async () => (await mine.stored(id)).runs.length).toBe(1);
});

test('10,000 layers: planning says so, can be cancelled, and the page answers meanwhile', async ({ page }) => {
  test.setTimeout(150_000);
  const layers = Array.from({ length: 10_000 }, (_, i) =>
    card(`${i}`, {
      rest: { 'position.x': (i % 125) * 15, 'position.y': Math.floor(i / 125) * 13, 'size.x': 12, 'size.y': 10 },
    }),
  );
  const id = await sceneWith(page, layers);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  await page.getByRole('button', { name: 'Dry run on 10000' }).click();
  await expect(screen.status).toContainText('Dry run:', { timeout: 60_000 });
  await screen.field('spacing').click();
  const gap = screen.editor.getByLabel('Gap', { exact: true });
  await page.evaluate(() => {
    const page = window as unknown as { worst: number };
    page.worst = 0;
    let last = performance.now();
    const tick = (now: number): void => {
      page.worst = Math.max(page.worst, now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await gap.fill('1f');
  await screen.closeEditor();
  await expect(screen.status).toContainText('Dry run:', { timeout: 60_000 });
  // Planning is over sooner than a test can point at the button, so the page itself presses it as soon as it is there.
  const said = await page.evaluate(async () => {
    const button = (name: RegExp): HTMLButtonElement | undefined =>
      Array.from(document.querySelectorAll('button')).find((one) => name.test(one.textContent?.trim() ?? ''));
    const spacing = document.querySelector<HTMLElement>('[data-field="spacing"]');
    for (let tries = 0; tries < 50; tries++) {
      spacing?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
      for (let frames = 0; frames < 30; frames++) {
        const cancel = button(/^Cancel$/);
        if (cancel) {
          const text = document.body.innerText;
          cancel.click();
          return text;
        }
        await new Promise(requestAnimationFrame);
      }
    }
    return 'never';
  });
  expect(said).toContain('planning…');
  await expect(screen.status).toContainText('The scene as it stands');
  await page.getByRole('button', { name: 'Dry run on 10000' }).click();
  await expect(screen.status).toContainText('Dry run:', { timeout: 60_000 });
  await expect(screen.applyButton).toHaveText('Apply to 10000');
  // Not a measure of speed: a page that is frozen answers nothing for many seconds.
  expect(await page.evaluate(() => (window as unknown as { worst: number }).worst)).toBeLessThan(4_000);
  // Applied, it is saved in parts: what the server then has is what stands, and undone it is as it was.
  await screen.applyButton.click();
  await expect(screen.applyButton).toHaveText('Applied', { timeout: 60_000 });
  await expect(page.getByText(/^saved/)).toBeVisible({ timeout: 60_000 });
  const stored = await screen.stored(id);
  expect(stored.runs.map((run) => run.layers.length)).toEqual([10_000]);
  expect(stored.layers.every(({ tracks, base }) => (tracks.opacity?.length ?? 0) > 0 && base !== undefined)).toBe(true);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('saving…').or(page.getByText('not saved yet'))).toHaveCount(0, { timeout: 60_000 });
  await expect.poll(async () => (await screen.stored(id)).runs.length, { timeout: 60_000 }).toBe(0);
  expect((await screen.stored(id)).layers[9_999]).toEqual(layers[9_999]);
});
