import { readFileSync } from 'node:fs';
import { expect, test } from './test';
import { giveFiles, Bench } from './bench';

test('the shelf: new, rename, duplicate, bin and restore, with pictures', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.fresh('Crate', [12, 10, 12]);
  await page.keyboard.press('Alt+0');
  const card = (name: string) => page.locator(`[data-project="${name}"]`);
  await expect(card('Tamsin').getByRole('img', { name: 'Picture of Tamsin' })).toBeVisible();
  await card('Crate').getByRole('button', { name: 'Rename Crate' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Pear crate');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  await expect(card('Pear crate')).toBeVisible();
  await card('Tamsin').getByRole('button', { name: 'Duplicate Tamsin' }).click();
  await expect(card('Tamsin copy')).toContainText('6,447 cubes');
  await card('Pear crate').getByRole('button', { name: 'Move Pear crate to the bin' }).click();
  await expect(card('Pear crate')).toHaveCount(0);
  await page.getByRole('button', { name: /^Bin/ }).click();
  await card('Pear crate').getByRole('button', { name: 'Restore', exact: true }).click();
  await page.getByRole('button', { name: /^Bin/ }).click();
  await expect(card('Pear crate')).toBeVisible();
  await card('Pear crate').getByRole('button', { name: 'Open Pear crate' }).first().click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  expect((await b.project()).history).toContain('Rename the project to Pear crate');
});

test('a project file goes out and comes back the same; a damaged one gets a sentence', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Control+Shift+S')]);
  expect(download.suggestedFilename()).toBe('tamsin.sphal');
  const bytes = readFileSync(await download.path());
  await page.keyboard.press('Alt+0');
  const files = page.getByRole('button', { name: 'Open a file…' });
  await giveFiles(files, { name: 'again.sphal', mimeType: 'application/zip', buffer: bytes });
  await expect(page.locator('[data-project="Tamsin"]')).toHaveCount(2);
  await giveFiles(files, {
    name: 'half.sphal',
    mimeType: 'application/zip',
    buffer: bytes.subarray(0, bytes.length / 2),
  });
  await expect(page.getByText(/half\.sphal: This is not a Sphalerite project file/)).toBeVisible();
  await expect(page.locator('[data-project="Tamsin"]')).toHaveCount(2);
  await page.locator('[data-project="Tamsin"]').first().getByRole('button', { name: 'Open Tamsin' }).first().click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const after = await b.project();
  expect(after.parts).toEqual(before.parts);
  expect(after.rig).toEqual(before.rig);
  expect(after.clips).toEqual(before.clips);
});

test('a project that is open in another window is neither deleted nor renamed from the shelf', async ({
  page,
  context,
}) => {
  const b = new Bench(page);
  await b.open();
  const shelf = await context.newPage();
  await shelf.goto('/');
  const card = shelf.locator('[data-project="Tamsin"]');
  await card.getByRole('button', { name: /to the bin/i }).click();
  await shelf.getByRole('button', { name: /^Bin/ }).click();
  await card.getByRole('button', { name: /for good/i }).click();
  await expect(shelf.getByText(/“Tamsin” is open in another window and cannot be deleted here/)).toBeVisible();
  await expect(card).toHaveCount(1);
  // The window at work goes on as if nothing had been asked.
  await page.getByLabel('Width', { exact: true }).fill('20');
  await page.getByLabel('Width', { exact: true }).press('Enter');
  await b.idle();
  await page.reload();
  await b.idle();
  expect((await b.project()).parts[0]!.bounds.size[0]).toBe(20);
});

test('two projects opened in quick succession: the second one is there, and each is saved as itself', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await page.keyboard.press('Alt+0');
  await page.locator('[data-project="Lamp post"]').getByRole('button', { name: 'Open Lamp post' }).first().click();
  await b.idle();
  const lamp = page.url();
  // Back and forth faster than either of them can be read.
  for (let i = 0; i < 3; i++) {
    await page.evaluate(() => history.go(-2));
    await page.waitForURL(/demo-tamsin/);
    await page.evaluate(() => history.go(2));
    await page.waitForURL(lamp);
  }
  await b.idle();
  expect((await b.project()).name).toBe('Lamp post');
  await page.getByLabel('Width', { exact: true }).fill('31');
  await page.getByLabel('Width', { exact: true }).press('Enter');
  await b.idle();
  await b.open();
  expect((await b.project()).name).toBe('Tamsin');
  expect((await b.project()).parts).toHaveLength(19);
});

test('a project that a newer version wrote is refused with a way out, and is as it was afterwards', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await page.keyboard.press('Alt+0');
  const written = (format: number): Promise<void> =>
    page.evaluate(
      (f) =>
        new Promise((done, failed) => {
          const open = indexedDB.open('sphalerite');
          open.onerror = () => failed(open.error);
          open.onsuccess = () => {
            const tx = open.result.transaction('heads', 'readwrite');
            const heads = tx.objectStore('heads');
            heads.openCursor().onsuccess = (e) => {
              const cursor = (e.target as IDBRequest<IDBCursorWithValue | null>).result;
              if (!cursor) return;
              const head = cursor.value as { name: string };
              if (head.name === 'Row boat') cursor.update({ ...head, format: f });
              cursor.continue();
            };
            tx.oncomplete = () => {
              open.result.close();
              done();
            };
          };
        }),
      format,
    );
  const open = (): Promise<void> =>
    page.locator('[data-project="Row boat"]').getByRole('button', { name: 'Open Row boat' }).first().click();
  await written(99);
  await open();
  await expect(page.getByText(/This project is of format 99.*newer Sphalerite/)).toBeVisible();
  await expect(page).toHaveURL(/\/$/);
  const again = page.waitForEvent('load');
  await page.getByRole('button', { name: 'Load the page again' }).click();
  await again;
  await written(7);
  await open();
  await page.waitForURL(/\/build$/);
  await b.idle();
  expect((await b.project()).parts.length).toBeGreaterThan(0);
});
