import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Bench, giveFiles } from './bench';
import { expect, test } from './test';

const CATALOGUE = join(import.meta.dirname, '../app/src/shell/shortcuts/catalogue.json');

// UPDATE_SHORTCUTS=1 writes the catalogue anew.
test('the sheet of shortcuts holds every command of every screen', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const all = new Map<string, unknown>();
  const note = async (): Promise<void> => {
    for (const c of await page.evaluate(() => window.sphalerite.commands())) all.set(`${c.screen} ${c.id}`, c);
  };
  for (const s of await b.screens()) {
    await b.step(s);
    await note();
  }
  // Beside the line: what is about to come in.
  await b.step((await b.screens())[0]!);
  await page.getByRole('button', { name: 'Make something up' }).click();
  await page.waitForURL(/\/bring$/);
  await b.idle();
  await note();
  const list = [...all].sort(([a], [c]) => (a < c ? -1 : 1)).map(([, c]) => c);
  if (process.env['UPDATE_SHORTCUTS']) writeFileSync(CATALOGUE, `${JSON.stringify(list, null, 1)}\n`);
  expect(list).toEqual(JSON.parse(readFileSync(CATALOGUE, 'utf8')));
});

test('a shortcut is changed, warns of a clash, works, is there after a reload, and goes to others as a file', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await page.keyboard.press('?');
  const sheet = page.getByRole('dialog', { name: 'Shortcuts' });
  // On paper it stands alone and whole.
  await sheet.getByText('Shrink to fit').waitFor();
  await page.emulateMedia({ media: 'print' });
  await expect(sheet.getByText('Shrink to fit')).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Steps of the work' })).toBeHidden();
  await expect(sheet.getByRole('button', { name: 'Print' })).toBeHidden();
  await page.emulateMedia({ media: null });
  await sheet.getByLabel('Shortcuts whose name holds').fill('grid');
  const key = sheet.getByRole('button', { name: /^Shortcut of .*grid.*: G/i }).first();
  const name = (await key.getAttribute('aria-label'))!.replace(/^Shortcut of (.*): .*/, '$1');
  await key.click();
  await page.keyboard.press('m');
  // M mirrors in Build.
  await expect(sheet.getByRole('alert').first()).toContainText(/M means .*Mirror X/);
  await sheet.getByRole('button', { name: new RegExp(`^Shortcut of ${name}`) }).click();
  await page.keyboard.press('Shift+F8');
  await expect(sheet.getByRole('alert')).toHaveCount(0);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    sheet.getByRole('button', { name: 'Save mine as a file' }).click(),
  ]);
  const mine = readFileSync(await download.path());
  expect(JSON.parse(mine.toString())).toEqual({ kind: 'shortcuts', version: 1, keys: { 'view.grid': ['Shift+F8'] } });
  await page.keyboard.press('Escape');
  await expect(sheet).toHaveCount(0);

  const grid = page.locator('[data-command="view.grid"]');
  const on = async (): Promise<boolean> => (await grid.getAttribute('aria-pressed')) === 'true';
  const before = await on();
  await page.keyboard.press('g');
  expect(await on()).toBe(before);
  await page.keyboard.press('Shift+F8');
  await expect.poll(on).toBe(!before);
  await b.idle();
  await page.reload();
  await b.idle();
  await expect(grid).toHaveAttribute('data-keys', 'Shift+F8');

  // As it comes; then the file brings it back. One that is none changes nothing.
  await page.keyboard.press('?');
  await sheet.getByRole('button', { name: 'All as they come' }).click();
  await expect(grid).toHaveAttribute('data-keys', 'G');
  const read = sheet.getByRole('button', { name: 'Read from a file…' });
  await giveFiles(read, { name: 'notes.json', mimeType: 'application/json', buffer: Buffer.from('{"a":1}') });
  await expect(page.getByText('“notes.json” is not a file of shortcuts')).toBeVisible();
  await expect(grid).toHaveAttribute('data-keys', 'G');
  await giveFiles(read, { name: 'mine.json', mimeType: 'application/json', buffer: mine });
  await expect(grid).toHaveAttribute('data-keys', 'Shift+F8');
});
