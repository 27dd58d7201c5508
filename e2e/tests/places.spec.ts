import { expect, test } from '../pages/test';

test('scenes are made, renamed, duplicated, deleted and brought back', async ({ page }) => {
  await page.goto('/scenes');
  await page.getByRole('button', { name: 'New scene' }).click();
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused();
  await page.getByRole('textbox', { name: 'Name' }).fill('Lantern walk');
  await page.getByRole('textbox', { name: 'Length' }).fill('1:99');
  await expect(page.getByRole('alert')).toContainText('Length: At 25 frames a second');
  await page.getByRole('textbox', { name: 'Length' }).fill('4:00');
  await page.getByRole('button', { name: 'Create scene' }).click();
  await expect(page.getByText('This scene has no layers yet')).toBeVisible();
  await page.goto('/scenes');

  await page.getByRole('button', { name: 'More for Lantern walk' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'Name of the scene' }).fill('Lantern parade');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Lantern parade' })).toBeVisible();
  await page.getByRole('button', { name: 'More for Lantern parade' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('heading', { name: 'Lantern parade (copy)' })).toBeVisible();

  await page.getByRole('button', { name: 'More for Lantern parade', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByRole('heading', { name: 'Lantern parade', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: 'Lantern parade', exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Lantern parade', exact: true })).toBeVisible();
});

test('importing a file that is no scene says what is wrong; an exported one comes back', async ({ page }) => {
  await page.goto('/scenes');
  const field = page.getByLabel('Import a scene file');
  await field.setInputFiles({ name: 'notes.json', mimeType: 'application/json', buffer: Buffer.from('{"layers": 3}') });
  await expect(page.getByText(/notes\.json is not a scene of Wexikine\./)).toBeVisible();
  await field.setInputFiles({ name: 'half.json', mimeType: 'application/json', buffer: Buffer.from('{"layers": [') });
  await expect(page.getByText('half.json is not a JSON file.')).toBeVisible();
  const { scene } = await (await page.request.get('/api/scenes/constellations')).json();
  await field.setInputFiles({
    name: 'good.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify({ ...scene, name: 'Brought in' })),
  });
  await expect(page.getByRole('heading', { name: 'Brought in' })).toBeVisible();
});

test('an unknown address and an unknown scene say so and lead back', async ({ page }) => {
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible();
  await page.goto('/scenes/ghost');
  await expect(page.getByRole('alert')).toContainText('There is no scene “ghost”.');
  await page.getByRole('link', { name: 'Back to the scenes' }).click();
  await expect(page.getByRole('heading', { name: 'Scenes' })).toBeVisible();
});

test('a server that does not answer is said, with a way to try again', async ({ page }) => {
  await page.route('**/api/scenes', (route) => route.abort());
  await page.goto('/scenes');
  await expect(page.getByRole('alert')).toContainText('The server does not answer.');
  await page.unroute('**/api/scenes');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { name: 'Programme board', exact: true })).toBeVisible();
});

for (const path of ['/library', '/library/bump', '/library/curve-arrive', '/scenes', '/scenes/programme-board']) {
  test(`${path} asks the server for each thing once, and then for nothing while nobody does anything`, async ({
    page,
  }) => {
    const asked: string[] = [];
    page.on('request', (request) => {
      const { pathname } = new URL(request.url());
      if (pathname.startsWith('/api/')) asked.push(`${request.method()} ${pathname}`);
    });
    await page.goto(path);
    await expect(page.getByRole('main').first()).toBeVisible();
    await page.waitForTimeout(2_500);
    expect(asked.length).toBeGreaterThan(0);
    expect(asked).toEqual([...new Set(asked)]);
  });
}
