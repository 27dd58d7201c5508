import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';
import { readBundle, type Layer } from '@wexikine/core';
import { join } from 'node:path';
import { drop } from '../pages/dropping';
import { copyOf, SceneScreen } from '../pages/scene-screen';

const pictureOf = ({ source }: Layer): string => (source.type === 'picture' ? source.href : '');

test('nine pictures and a drawing are dropped: each is a layer, whole, in a grid; what is no picture is told', async ({
  page,
}) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.openAtRest(id);
  const before = await scene.stored(id);
  const pictures = Array.from({ length: 9 }, (_, i) => ({
    name: `Night ${i + 1}.png`,
    width: i === 0 ? 3600 : 320,
    height: i === 0 ? 2400 : 200,
    type: i % 2 ? 'image/jpeg' : 'image/png',
  }));
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 80 40"><circle cx="40" cy="20" r="18" fill="teal"/></svg>';
  await drop(page, pictures, [
    { name: 'Emblem.svg', text: svg },
    { name: 'notes.txt', text: 'no picture at all' },
    { name: 'cut.png', text: '\u0089PNG\r\n' },
    { name: 'empty.jpg', text: '' },
  ]);
  const dialog = page.getByRole('dialog', { name: 'Bring in “Emblem”' });
  await dialog.getByRole('radio', { name: 'One picture' }).check();
  await dialog.getByRole('button', { name: 'Bring in 1 layer' }).click();
  const told = page.getByText(
    /9 pictures came in; 1 drawing came in; “notes” did not: it is no picture that this browser/,
  );
  await expect(told).toBeVisible({ timeout: 20_000 });
  await expect(told).toContainText('“empty” did not: it is empty');
  await scene.saved();
  const stored = await scene.stored(id);
  const came = stored.layers.slice(before.layers.length);
  expect(came.map(({ name }) => name)).toEqual([...pictures.map(({ name }) => name.replace('.png', '')), 'Emblem']);
  for (const layer of came) {
    const [width, height] = [layer.rest['size.x'] ?? 0, layer.rest['size.y'] ?? 0];
    const ratio = layer.name === 'Emblem' ? 2 : layer.name === 'Night 1' ? 1.5 : 1.6;
    expect(width / height).toBeCloseTo(ratio, 6);
    const ending = layer.name === 'Emblem' ? 'svg' : Number(layer.name.slice(6)) % 2 === 0 ? 'jpg' : 'png';
    expect(pictureOf(layer)).toMatch(new RegExp(`^files/[0-9a-f]{64}\\.${ending}$`));
    const served = await page.request.get(`/api/${pictureOf(layer)}`);
    expect([served.status(), served.headers()['cache-control']]).toEqual([200, expect.stringContaining('immutable')]);
    expect(layer.span).toEqual({ in: 0, out: before.length });
  }
  const places = came.map(({ rest }) => `${rest['position.x']} ${rest['position.y']}`);
  expect(new Set(places).size).toBe(10);
  // They are selected and picked: the sentence is about them at once.
  await expect(scene.status).toContainText('10 of ');
  await page.getByRole('button', { name: 'Undo Bring in 10 files' }).click();
  await expect.poll(async () => (await scene.stored(id)).layers.length).toBe(before.layers.length);
  expect((await scene.stored(id)).layers).toEqual(before.layers);
});

test('nine stills that came in are set out in three rows that are replaced, as long as is asked for, by the keyboard', async ({
  page,
}) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.openAtRest(id);
  const before = await scene.stored(id);
  const pictures = Array.from({ length: 9 }, (_, i) => ({
    name: `Still ${i + 1}.png`,
    width: 300,
    height: 200,
    type: 'image/png',
  }));
  await drop(page, pictures, []);
  await page.getByRole('button', { name: 'Set out…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Set out 9 pictures' });
  // The dialog puts the focus into its first field once it has opened.
  await expect(dialog.locator(':focus')).toHaveCount(1);
  await dialog.getByRole('radio', { name: /Rows that are replaced/ }).check();
  await dialog.getByRole('textbox', { name: 'Rows' }).fill('0');
  await expect(dialog.getByRole('alert')).toHaveText('Write a whole number of rows from 1 to 50.');
  await expect(dialog.getByRole('button', { name: 'Set out' })).toBeDisabled();
  await dialog.getByRole('textbox', { name: 'Rows' }).fill('3');
  await dialog.getByRole('textbox', { name: 'Each row later by' }).fill('3s');
  await dialog.getByRole('textbox', { name: 'Each is shown for' }).fill('9s');
  await expect(dialog).toContainText('They begin at 0:00, 3:00, 6:00 … 24:00; the last is over at 33:00.');
  await expect(dialog).toContainText('The scene becomes 33:00 long.');
  await expectNoFaults(page);
  await dialog.getByRole('button', { name: 'Set out' }).focus();
  await page.keyboard.press('Enter');
  const second = before.length / 6;
  await expect.poll(async () => (await scene.stored(id)).length / second).toBe(33);
  const came = (await scene.stored(id)).layers.slice(-9);
  // 3 rows × 3 stills of 9 s, rows 3 s apart (common practice).
  expect(came.map(({ span }) => span.in / second)).toEqual([0, 3, 6, 9, 12, 15, 18, 21, 24]);
  expect(new Set(came.map(({ rest }) => `${rest['position.x']} ${rest['position.y']}`)).size).toBe(3);
  await page.getByRole('button', { name: 'Undo Set out 9 pictures' }).click();
  await expect.poll(async () => (await scene.stored(id)).length).toBe(before.length);
});

test('a hostile drawing runs nothing and fetches nothing; one picture stands where it was dropped', async ({
  page,
}) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.openAtRest(id);
  const before = await scene.stored(id);
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  const hostile = `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="200" height="100" onload="document.title='run'">
    <script>document.title = 'run'</script><style>@import url(http://elsewhere.invalid/a.css); rect { fill: url(http://elsewhere.invalid/b) }</style>
    <image href="http://elsewhere.invalid/c.png" width="10" height="10"/><a xlink:href="javascript:alert(1)"><rect width="200" height="100" fill="navy" onclick="alert(1)"/></a>
    <foreignObject width="10" height="10"><body xmlns="http://www.w3.org/1999/xhtml"><iframe src="http://elsewhere.invalid/"/></body></foreignObject></svg>`;
  await drop(page, [], [{ name: 'Hostile.svg', text: hostile }]);
  const dialog = page.getByRole('dialog', { name: 'Bring in “Hostile”' });
  await dialog.getByRole('radio', { name: 'One picture' }).check();
  await dialog.getByRole('button', { name: 'Bring in 1 layer' }).click();
  await expect(page.getByText('1 drawing came in.')).toBeVisible();
  await scene.saved();
  const layer = (await scene.stored(id)).layers[before.layers.length];
  const text = await (await page.request.get(`/api/${pictureOf(layer)}`)).text();
  expect(text).toContain('<rect');
  for (const never of ['script', 'onload', 'onclick', 'javascript', 'elsewhere', 'foreignObject', 'iframe']) {
    expect(text.toLowerCase()).not.toContain(never.toLowerCase());
  }
  expect(await page.title()).not.toBe('run');
  expect(asked.filter((url) => url.includes('elsewhere'))).toEqual([]);
  expect(layer.rest['position.x']).toBeCloseTo(before.width / 2, -1);
  expect(layer.rest['position.y']).toBeCloseTo(before.height / 2, -1);
  await drop(page, [], [{ name: 'Broken.svg', text: '<svg xmlns="http://www.w3.org/2000/svg"><rect>' }]);
  await expect(page.getByText(/Nothing came in; “Broken” did not: it is not a whole SVG file: /)).toBeVisible();
});

test('an export says what it lacks, and why it was not written', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await screen.openAtRest(id);
  // What needs nothing of the server can be taken away without it.
  await page.route('**/*', (route) => route.abort());
  const alone = await screen.export('Scene file, to open elsewhere');
  expect(JSON.parse(alone.text)).toMatchObject({ id });
  await page.unroute('**/*');
  await drop(page, [{ name: 'Lamp.png', width: 120, height: 80, type: 'image/png' }], []);
  await expect(page.getByText('1 picture came in.')).toBeVisible();
  await screen.saved();
  const file = /\/api\/files\/[0-9a-f]{64}\.png$/;
  const ask = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: 'Export' }).click();
    await page.getByRole('menuitem', { name }).click();
  };
  await page.route(file, (route) => route.abort());
  await ask('Web page (.html), plays anywhere');
  await expect(
    page.getByText('The page was not written: the server does not answer. Export again in a moment.'),
  ).toBeVisible();
  await ask('Scene file, to open elsewhere');
  await expect(page.getByText('The scene file was not written: the server does not answer.')).toBeVisible();
  await page.unroute(file);
  await page.route(file, (route) => route.fulfill({ status: 404, body: '' }));
  const without = await screen.export('Web page (.html), plays anywhere');
  expect(without.text).not.toContain('data:image/png');
  await expect(
    page.getByText('The page lacks a file that the scene uses: it is no longer on the server.'),
  ).toBeVisible();
  await page.unroute(file);
  const whole = await screen.export('Web page (.html), plays anywhere');
  expect(whole.text).toContain('data:image/png');
  const { bytes } = await screen.export('Scene file, to open elsewhere');
  expect(readBundle(new Uint8Array(bytes))).toMatchObject({ ok: true });
});

test('fields of a panel that are set before the page is drawn again all count', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.openAtRest(id);
  await page.getByText('Title: Star party', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  await page.locator('wx-look-words').evaluate((panel) => {
    const labels = Array.from(panel.querySelectorAll('label'));
    const field = <T extends Element>(label: string): T | null | undefined =>
      labels.find(({ textContent }) => textContent?.startsWith(label))?.querySelector<T>('textarea, input, select');
    const [words, size] = ['Words', 'Size'].map((label) => field<HTMLInputElement>(label));
    const font = field<HTMLSelectElement>('Font');
    if (!words || !size || !font) throw new Error('A field is missing.');
    words.value = 'Dark night';
    words.dispatchEvent(new Event('change', { bubbles: true }));
    size.value = '48';
    size.dispatchEvent(new Event('change', { bubbles: true }));
    font.selectedIndex = font.options.length - 1;
    font.dispatchEvent(new Event('change', { bubbles: true }));
  });
  await scene.saved();
  const stored = (await scene.stored(id)).layers.find(({ name }) => name === 'Title: Star party')?.source;
  expect(stored).toMatchObject({ text: 'Dark night', size: 48 });
  expect(stored).not.toMatchObject({ font: 'Spline Sans' });
});

test('words, fonts and colours of one layer or many are set in the panel', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.openAtRest(id);
  const before = await scene.stored(id);
  await page.getByText('Title: Star party', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  const panel = page.locator('wx-layer-look');
  await panel.getByRole('textbox', { name: 'Words' }).fill('Dark night');
  await panel.getByRole('textbox', { name: 'Words' }).blur();
  await panel.getByRole('textbox', { name: 'Size' }).fill('×0.5');
  await panel.getByRole('textbox', { name: 'Size' }).press('Enter');
  await panel.getByRole('combobox', { name: 'Font' }).selectOption({ label: 'Spline Sans Mono' });
  const fill = panel.getByRole('textbox', { name: 'Fill', exact: true });
  await fill.fill('nonsense');
  await fill.press('Enter');
  await expect(panel.getByRole('alert')).toContainText('“nonsense” is not a colour');
  await fill.fill('oklch(80% 0.1 150)');
  await fill.press('Enter');
  await expectNoFaults(page);
  await scene.saved();
  const title = (of: typeof before) => of.layers.find(({ name }) => name === 'Title: Star party');
  const then = title(before)?.source;
  const now = title(await scene.stored(id));
  expect(now?.source).toMatchObject({ text: 'Dark night', font: 'Spline Sans Mono' });
  expect(now?.source.type === 'text' && then?.type === 'text' && now.source.size * 2).toBeCloseTo(
    then?.type === 'text' ? then.size : 0,
    1,
  );
  expect(now?.look.fill).toBe('oklch(80% 0.1 150)');
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: /^Undo Set/ }).click();
  await scene.saved();
  expect((await scene.stored(id)).layers).toEqual(before.layers);
});

/** A drawing of groups, shapes and words. */
const TOWER = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 240"><g id="Tower"><rect id="Body" x="40" y="90" width="60" height="120" fill="#3f5d7d"/><path id="Dome" d="M30 90 a40 40 0 0 1 80 0 z" fill="#8a6a4f"/></g>
  <g id="Stars" fill="#f4ecdc"><circle id="Star one" cx="200" cy="40" r="5"/><circle id="Star two" cx="260" cy="80" r="8"/></g><text id="Name" x="200" y="210" font-family="Bricolage Grotesque" font-size="34" fill="#f4ecdc">Saltmarsh</text></svg>`;

const FONT = join(
  import.meta.dirname,
  '../../node_modules/@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2',
);

const NARROW_FONT = FONT.replace('-wght-', '-wdth-');

test('words in a font of one’s own are as wide as its axis says, on the stage and on the page', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await screen.openAtRest(id);
  await page.getByRole('button', { name: 'Layers', exact: true }).click();
  await page.getByLabel('Files to bring in').setInputFiles(NARROW_FONT);
  await expect(page.getByText('The font “Bricolage Grotesque” is at hand for words now.')).toBeVisible();
  await page.getByRole('searchbox', { name: /Find/ }).fill('Radio sky, name');
  await page.getByText('Radio sky, name', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  const look = page.locator('wx-layer-look');
  await look.getByRole('combobox', { name: 'Font' }).selectOption({ label: 'Bricolage Grotesque (own, width)' });
  const width = look.getByRole('textbox', { name: 'Width', exact: true });
  await expect(width).toHaveValue('100');
  await width.fill('9');
  await width.press('Enter');
  // Held within the axis.
  await expect(width).toHaveValue('75');
  await width.fill('narrow');
  await width.press('Enter');
  await expect(look.getByRole('alert')).toHaveText('Write a number from 75 to 100, or +5 to change each.');
  await screen.saved();
  const word = (await screen.stored(id)).layers.find(({ source }) => source.type === 'text' && source.axes);
  expect(word?.source).toMatchObject({ axes: { wdth: 75 } });
  const { text: html } = await screen.export('Web page (.html), plays anywhere');
  const shown = await page.context().newPage();
  await shown.setContent(html);
  await shown.evaluate(() => document.fonts.ready);
  const across = async (): Promise<number> =>
    shown.evaluate(() => {
      const varied = [...document.querySelectorAll<HTMLElement>('.word')].find(
        (one) => getComputedStyle(one).fontVariationSettings !== 'normal',
      );
      const words = varied?.querySelector('span');
      return words ? words.offsetWidth : 0;
    });
  const narrow = await across();
  await shown.addStyleTag({ content: '.word { font-variation-settings: "wdth" 100 !important }' });
  expect(narrow).toBeGreaterThan(0);
  expect(narrow / (await across())).toBeLessThan(0.8);
});

test('a drawing is taken apart, words stand in a font of one’s own, a picture is replaced; all of it travels in a file', async ({
  page,
}, { retry, repeatEachIndex }) => {
  test.setTimeout(180_000);
  // Files of its own each time: the same bytes would be in the scenes of an attempt before, too.
  const width = 400 + 3 * repeatEachIndex + retry;
  const screen = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await screen.openAtRest(id);
  const before = await screen.stored(id);
  const red = { name: 'Red.png', width, height: 300, type: 'image/png' };
  await drop(page, [red], [{ name: 'Tower.svg', text: TOWER }]);
  const dialog = page.getByRole('dialog', { name: 'Bring in “Tower”' });
  await dialog.getByRole('radio', { name: 'Every part' }).check();
  await dialog.getByRole('checkbox', { name: 'Take Stars apart' }).uncheck();
  await expectNoFaults(page, 'wx-drawing-dialog');
  await dialog.getByRole('button', { name: 'Bring in 6 layers' }).click();
  await expect(page.getByText('1 picture came in; 1 drawing came in.')).toBeVisible();
  await screen.saved();
  const came = (await screen.stored(id)).layers.slice(before.layers.length);
  expect(came.map(({ name, kind }) => `${name} ${kind}`)).toEqual([
    'Red picture',
    'Tower group',
    'Tower group',
    'Body card',
    'Dome card',
    'Stars picture',
    'Saltmarsh word',
  ]);
  const [, drawing, tower, body] = came;
  const share = (drawing.rest['size.x'] ?? 0) / 400;
  // The tower's box runs from 30, 50 to 110, 210 of the drawing, its body from 40, 90 to 100, 210.
  expect(tower.rest['position.x']).toBeCloseTo(70 * share, 2);
  expect(tower.rest['position.y']).toBeCloseTo(130 * share, 2);
  expect([body.rest['position.x'], body.rest['position.y']].map((value) => Math.round((value ?? 0) / share))).toEqual([
    40, 100,
  ]);

  await page.getByRole('button', { name: 'Layers', exact: true }).click();
  await page.getByLabel('Files to bring in').setInputFiles(FONT);
  await expect(page.getByText('The font “Bricolage Grotesque” is at hand for words now.')).toBeVisible();
  const find = page.getByRole('searchbox', { name: /Find/ });
  await find.fill('Saltmarsh');
  await page.getByText('Saltmarsh', { exact: true }).first().click({ timeout: 5_000 });
  await find.fill('');
  await page.getByRole('tab', { name: 'Layer' }).click();
  await page
    .locator('wx-layer-look')
    .getByRole('combobox', { name: 'Font' })
    .selectOption({ label: 'Bricolage Grotesque (own)' });
  await page.getByText('Red', { exact: true }).first().click({ timeout: 5_000 });
  const blue = await page.evaluate(async (across) => {
    const context = new OffscreenCanvas(across, 60).getContext('2d');
    if (!context) return [];
    context.fillStyle = 'blue';
    context.fillRect(0, 0, across, 60);
    return [...new Uint8Array(await (await context.canvas.convertToBlob()).arrayBuffer())];
  }, width);
  await page
    .getByLabel('Picture to take its place')
    .setInputFiles({ name: 'Blue.png', mimeType: 'image/png', buffer: Buffer.from(blue) });
  await expect(page.getByText('“Blue” took the place of a picture.')).toBeVisible();
  await screen.saved();
  const stored = await screen.stored(id);
  const words = stored.layers.find(({ name }) => name === 'Saltmarsh');
  expect(words?.source).toMatchObject({
    font: 'Bricolage Grotesque',
    fontFile: expect.stringMatching(/\.woff2$/),
  });
  const picture = stored.layers.find(({ name }) => name === 'Red');
  expect(picture?.rest).toEqual(came[0].rest);
  expect(pictureOf(picture as Layer)).not.toBe(pictureOf(came[0]));

  const { bytes: bundle } = await screen.export('Scene file, to open elsewhere');
  const read = readBundle(new Uint8Array(bundle));
  if (!read.ok) throw new Error(read.message);
  expect([...read.files.keys()].map((name) => name.split('.')[1]).sort()).toEqual(['png', 'svg', 'woff2']);
  const { text: html } = await screen.export('Web page (.html), plays anywhere');
  expect(html).not.toMatch(/["(]files\//);
  expect(html.match(/data:(image|font)\/[a-z+0-9]+;base64/g)?.length).toBeGreaterThanOrEqual(3);
  await page.goto('/scenes');
  await page
    .getByLabel('Import a scene file')
    .setInputFiles({ name: 'Elsewhere.zip', mimeType: 'application/zip', buffer: bundle });
  await expect(page).toHaveURL(/scenes\/(?!.*programme)/);
  const imported = await screen.stored(page.url().split('/').at(-1) ?? '');
  expect(imported.layers).toEqual(stored.layers);

  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Files' }).click();
  const rows = page.getByRole('listitem');
  await expect(rows.filter({ hasText: 'WOFF2, weights 200 to 800' }).first()).toContainText('Bricolage Grotesque');
  const rowOfBlue = rows.filter({ hasText: `PNG, ${width} × 60 px` });
  await expect(rowOfBlue).toContainText('Blue');
  await expect(rowOfBlue.getByRole('button', { name: 'Remove Blue' })).toBeDisabled();
  await expectNoFaults(page);
  // The first picture was replaced everywhere: nothing uses it any more.
  const unused = rows.filter({ hasText: `PNG, ${width} × 300 px` });
  await expect(unused).toContainText('not used');
  await unused.getByRole('button', { name: 'Remove Red' }).click();
  await expect(page.getByText('“Red” was removed.')).toBeVisible();
  await expect(unused).toHaveCount(0);

  // Another file in its place in both scenes at once, which one takes back; what does not fit gets a sentence.
  const replaceBlue = rowOfBlue.getByLabel('Replace Blue in all 2 scenes that use it');
  await replaceBlue.setInputFiles(FONT);
  await expect(
    page.getByText('“Blue” was not replaced: it is a font, and a picture or a clip is needed here.'),
  ).toBeVisible();
  await replaceBlue.setInputFiles({
    name: 'Beacon.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(`${TOWER}<!-- ${width} -->`),
  });
  await expect(page.getByText('“Beacon” took the place of “Blue” on 2 layers in 2 scenes.')).toBeVisible();
  await expect(rowOfBlue).toContainText('not used');
  const shownIn = async (scene: string): Promise<string> => {
    const layer = (await screen.stored(scene)).layers.find(({ name }) => name === 'Red');
    expect(layer?.rest).toEqual(came[0].rest);
    return pictureOf(layer as Layer);
  };
  const both = [id, imported.id];
  for (const scene of both) expect(await shownIn(scene)).toMatch(/\.svg$/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('“Blue” is back where it was.')).toBeVisible();
  for (const scene of both) expect(await shownIn(scene)).toBe(pictureOf(picture as Layer));
});
