import type { Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';
import { ticksFromSeconds, type Layer, type Scene } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { SceneScreen } from '../pages/scene-screen';

const rest = (x: number, y: number, w = 300, h = 200) => ({
  'position.x': x,
  'position.y': y,
  'size.x': w,
  'size.y': h,
});

/** Opens three cards, and gives where a place of the scene is on the page. */
async function openCards(page: Page) {
  const way = [0, 1, 2].map((i) => ({
    at: ticksFromSeconds(i),
    value: 400 + i * 300,
    ease: { type: 'linear' as const },
  }));
  const cards: Layer[] = [
    card('a', { rest: rest(400, 300) }),
    card('b', { rest: rest(1000, 520), look: { fill: '#58b79c' } }),
    card('c', { rest: rest(1500, 700), look: { fill: '#e05577' }, tracks: { 'position.y': way } }),
  ];
  const id = await sceneWith(page, cards);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  await screen.setTime('0:00');
  const box = (await page.locator('wx-preview > canvas').boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const zoom = Math.min((box.width - 32) / 1920, (box.height - 32) / 1080);
  const onPage = (x: number, y: number): [number, number] => [
    box.x + (box.width - 1920 * zoom) / 2 + x * zoom,
    box.y + (box.height - 1080 * zoom) / 2 + y * zoom,
  ];
  return { id, screen, onPage, zoom };
}

const of = (scene: Scene, name: string): Layer => scene.layers.find((layer) => layer.name === name) as Layer;

test('layers are grouped, copied, put behind, aligned and taken apart, by keys and by the menu; undone to the start', async ({
  page,
}) => {
  const { id, screen, onPage } = await openCards(page);
  const before = await screen.stored(id);
  await page.mouse.click(...onPage(400, 300));
  await page.keyboard.down('Control');
  await page.mouse.click(...onPage(1000, 520));
  await page.keyboard.up('Control');

  await page.keyboard.press('g');
  const grouped = await screen.storedWhen(id, ({ layers }) => layers.length === 4);
  const group = of(grouped, 'Group 1');
  // Around both: from 250 to 1150 across, from 200 to 620 down.
  expect(group.rest).toMatchObject({ 'position.x': 700, 'position.y': 410, 'size.x': 900, 'size.y': 420 });
  expect([of(grouped, 'Card a').parent, of(grouped, 'Card a').rest['position.x']]).toEqual([group.id, 150]);

  await page.keyboard.press('d');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('d');
  const copied = await screen.storedWhen(id, ({ layers }) => layers.length === 10);
  // The first copy goes 40 aside and was then moved by 10 more; the next one goes as far from there.
  expect(['Group 1', 'Group 2', 'Group 3'].map((name) => of(copied, name).rest['position.x'])).toEqual([700, 750, 800]);
  await page.keyboard.press('Delete');
  await expect(page.getByText('“Group 3” was removed.')).toBeVisible();

  await page.mouse.click(...onPage(420, 260), { button: 'right' });
  const menu = page.getByRole('menu').first();
  await expect(menu.getByRole('menuitem', { name: 'Take the group apart' })).toBeVisible();
  await expectNoFaults(page, '.mat-mdc-menu-panel');
  // The pointer lies beside it, so that no menu of its own has opened over it; what holds layers cannot be a guide.
  await expect(page.getByRole('menu')).toHaveCount(1);
  await expect(menu.getByRole('menuitem', { name: /^Make a guide/ })).toHaveCount(0);
  await menu.getByRole('menuitem', { name: 'Take the group apart' }).click();
  await screen.storedWhen(id, ({ layers }) => layers.every(({ name }) => name !== 'Group 2'));

  await page.mouse.click(...onPage(1500, 400), { button: 'right' });
  await page.getByRole('menuitem', { name: 'Left sides' }).click();
  await page.getByRole('menuitem', { name: 'Anchor top left' }).click();
  await page.keyboard.press('Escape');
  const aligned = await screen.storedWhen(id, (scene) => of(scene, 'Card c').rest['anchor.y'] === 0);
  expect(of(aligned, 'Card c').rest).toMatchObject({
    'position.x': 0,
    'anchor.x': 0,
    'anchor.y': 0,
    'position.y': 600,
  });
  expect(of(aligned, 'Card c').tracks['position.y']?.map(({ value }) => value)).toEqual([300, 600, 900]);

  for (let i = 0; i < 12; i++) await page.keyboard.press('Control+z');
  const again = await screen.storedWhen(id, ({ layers }) => layers.length === 3);
  expect(again.layers).toEqual(before.layers);
});

test('what lies under another is chosen from the list; a key of its way is dragged; the anchor with Alt; layers go into another scene', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const { id, screen, onPage, zoom } = await openCards(page);
  await page.mouse.click(...onPage(1500, 400));
  // Its way runs from 400 to 1000 down; the key in the middle is taken 100 to the left and 50 up.
  await page.mouse.move(...onPage(1500, 700));
  await page.mouse.down();
  await page.mouse.move(...onPage(1400, 650), { steps: 4 });
  await page.mouse.up();
  const moved = of(
    await screen.storedWhen(id, (scene) => of(scene, 'Card c').tracks['position.x'] !== undefined),
    'Card c',
  );
  const atSecond = (channel: 'position.x' | 'position.y') =>
    moved.tracks[channel]?.find(({ at }) => at === ticksFromSeconds(1))?.value ?? NaN;
  expect(Math.abs(atSecond('position.x') - 1400)).toBeLessThan(1.5 / zoom);
  expect(Math.abs(atSecond('position.y') - 650)).toBeLessThan(1.5 / zoom);

  await page.mouse.click(...onPage(400, 300));
  await page.keyboard.down('Alt');
  await page.mouse.move(...onPage(400, 300));
  await page.mouse.down();
  await page.mouse.move(...onPage(252, 202), { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  const anchored = await screen.storedWhen(id, (scene) => of(scene, 'Card a').rest['anchor.x'] === 0);
  expect(of(anchored, 'Card a').rest).toMatchObject({
    'anchor.x': 0,
    'anchor.y': 0,
    'position.x': 250,
    'position.y': 200,
  });

  await page.keyboard.press('Control+c');
  await expect(page.getByText('“Card a” can be pasted, here or in another scene.')).toBeVisible();
  const other = await sceneWith(page, [card('x', { rest: rest(250, 200, 900, 700) })]);
  await screen.openAtRest(other);
  await page.mouse.click(...onPage(1800, 1000));
  await page.keyboard.press('Control+v');
  await expect
    .poll(async () => (await screen.stored(other)).layers.map(({ name }) => name))
    .toEqual(['Card x', 'Card a 2']);
  await page.mouse.click(...onPage(400, 300), { button: 'right' });
  await page.getByRole('menuitem', { name: 'Select under the pointer' }).hover();
  await page.getByRole('menuitem', { name: 'Card x', exact: true }).click();
  await expect(page.getByRole('row', { selected: true })).toContainText('Card x');
  await expect(page.getByRole('menu')).toHaveCount(0);
  await page.mouse.click(...onPage(1600, 200), { button: 'right' });
  await page.getByRole('menuitem', { name: 'New shape or words' }).hover();
  await page.getByRole('menuitem', { name: 'Star' }).click();
  const star = of(await screen.storedWhen(other, ({ layers }) => layers.length === 3), 'Star 1');
  expect(
    [star.rest['position.x'], star.rest['position.y']].every(
      (value, i) => Math.abs((value ?? 0) - [1600, 200][i]) < 2 / zoom,
    ),
  ).toBe(true);
});

test('layers are put elsewhere in depth and into a group by dragging their rows, and by keys; nothing moves on screen', async ({
  page,
}) => {
  const group = card('g', {
    name: 'Group',
    kind: 'group',
    source: { type: 'none' },
    look: {},
    rest: { ...rest(900, 500), 'scale.x': 2, 'scale.y': 2 },
  });
  const id = await sceneWith(page, [
    card('a', { rest: rest(400, 300) }),
    group,
    card('inside', { parent: 'g', rest: rest(100, 80, 60, 40) }),
    card('b', { rest: rest(1000, 520), look: { fill: '#58b79c' } }),
  ]);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  const pixelOfB = await screen.pixel(1000 / 1920, 520 / 1080);
  const name = (of: string) => screen.row(of).getByRole('gridcell').nth(1);
  const middle = async (of: string, share: number): Promise<[number, number]> => {
    const box = await name(of).boundingBox();
    if (!box) throw new Error(`no row ${of}`);
    return [box.x + 40, box.y + box.height * share];
  };
  const drag = async (from: string, to: string, share: number): Promise<void> => {
    await page.mouse.move(...(await middle(from, 0.5)));
    await page.mouse.down();
    await page.mouse.move(...(await middle(from, 0.9)), { steps: 2 });
    await page.mouse.move(...(await middle(to, share)), { steps: 6 });
    await page.mouse.up();
  };
  const order = ({ layers }: Scene): string[] => layers.map((layer) => layer.id);

  await drag('Card b', 'Card a', 0.1);
  await screen.storedWhen(id, (scene) => order(scene).join() === 'b,a,g,inside');
  // Into the group, by the middle of its row: what it draws stays where it is.
  await drag('Card b', 'Group', 0.5);
  const nested = await screen.storedWhen(id, (scene) => of(scene, 'Card b').parent === 'g');
  expect(of(nested, 'Card b').rest).toMatchObject({ 'scale.x': 0.5, 'scale.y': 0.5 });
  expect(await screen.pixel(1000 / 1920, 520 / 1080)).toEqual(pixelOfB);

  // Out of it and to the back by the keyboard.
  await screen.row('Group').focus();
  await page.keyboard.press('ArrowRight');
  await screen.row('Card b').focus();
  await page.keyboard.press('Control+Shift+ArrowLeft');
  const out = await screen.storedWhen(id, (scene) => of(scene, 'Card b').parent === null);
  expect(of(out, 'Card b').rest).toMatchObject({ 'position.x': 1000, 'position.y': 520, 'scale.x': 1, 'scale.y': 1 });
  await page.keyboard.press('Control+Shift+ArrowUp');
  await screen.storedWhen(id, (scene) => order(scene).indexOf('b') < order(scene).indexOf('g'));
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: /^Undo/ }).first().click();
  await screen.storedWhen(id, (scene) => order(scene).join() === 'a,g,inside,b');
});

test('rows go on while one is held at the edge of the sheet, and it is let go beside the names', async ({ page }) => {
  const id = await sceneWith(
    page,
    Array.from({ length: 60 }, (_, i) => card(`l${i}`, { name: `Layer ${i}`, rest: rest(400 + i, 300) })),
  );
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  const list = page.locator('#sheet-rows');
  const seen = await list.boundingBox();
  const first = await screen.row('Layer 0').getByRole('gridcell').nth(1).boundingBox();
  if (!seen || !first) throw new Error('no rows');
  await page.mouse.move(first.x + 40, first.y + 10);
  await page.mouse.down();
  await page.mouse.move(first.x + 40, first.y + 60, { steps: 3 });
  // Held near the lower edge, over the strips: the rows go on by themselves to the last one.
  await page.mouse.move(seen.x + seen.width - 60, seen.y + seen.height - 4, { steps: 4 });
  await expect
    .poll(() => list.evaluate((rows) => rows.scrollHeight - rows.scrollTop - rows.clientHeight))
    .toBeLessThan(2);
  await page.mouse.up();
  const moved = await screen.storedWhen(id, ({ layers }) => layers[0].name !== 'Layer 0');
  expect(moved.layers.findIndex(({ name }) => name === 'Layer 0')).toBeGreaterThanOrEqual(57);
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await screen.storedWhen(id, ({ layers }) => layers[0].name === 'Layer 0');
});

test('ghosts show what is selected before and after; ways of several layers are mirrored at once, and undone', async ({
  page,
}) => {
  const { id, screen, onPage } = await openCards(page);
  await screen.setTime('1:00');
  await page.mouse.click(...onPage(1500, 700));
  const sum = (): Promise<number> =>
    page.locator('wx-stage-ghosts canvas').evaluate((canvas) => {
      const { width, height } = canvas as HTMLCanvasElement;
      const data = (canvas as HTMLCanvasElement).getContext('2d')?.getImageData(0, 0, width, height).data ?? [];
      let seen = 0;
      for (let i = 3; i < data.length; i += 4) if (data[i] > 0) seen++;
      return seen;
    });
  const choose = async (...names: (string | RegExp)[]): Promise<void> => {
    await page.mouse.click(...onPage(1500, 700), { button: 'right' });
    for (const name of names)
      await page.getByRole('menuitem', { name }).or(page.getByRole('menuitemradio', { name })).click();
  };
  await choose('Ways of what moves', 'Ghosts before and after', 'every 5 frames');
  // Of the card that moves, three before and three after; where there is nothing of it, nothing is drawn.
  await expect.poll(sum).toBeGreaterThan(500);
  await expectNoFaults(page);

  const before = of(await screen.stored(id), 'Card c');
  await choose('Ways of what moves', 'Mirrored up and down');
  const mirrored = await screen.storedWhen(id, (scene) => of(scene, 'Card c').tracks['position.y']?.[0].value !== 400);
  // About where it rests, 700.
  expect(of(mirrored, 'Card c').tracks['position.y']?.map(({ value }) => value)).toEqual([1000, 700, 400]);
  await page.getByRole('button', { name: /^Undo/ }).first().click();
  await screen.storedWhen(id, (scene) => of(scene, 'Card c').tracks['position.y']?.[0].value === 400);
  expect(of(await screen.stored(id), 'Card c')).toEqual(before);

  // What stands still has neither.
  await page.mouse.click(...onPage(400, 300));
  await expect.poll(sum).toBe(0);
  await page.mouse.click(...onPage(400, 300), { button: 'right' });
  await page.getByRole('menuitem', { name: 'Ways of what moves' }).click();
  await page.getByRole('menuitem', { name: 'Twice as far' }).click();
  await expect(page.getByText('No way was changed. That needs keys of the position')).toBeVisible();
});
