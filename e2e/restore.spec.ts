import { Artist } from './artist';
import { choose } from './bench';
import { expect, test } from './test';

test('restore points outlive undo, new steps and a reload; risky steps make their own; going back is a step; one that was deleted comes back', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Bollard', [16, 16, 16]);
  await page.keyboard.press('1');
  await b.byNumbers([8, 10, 8], [-4, 0, -4]);
  const points = page.getByRole('dialog', { name: 'History' }).getByRole('listitem');
  const dialog = async (): Promise<void> => {
    await page.keyboard.press('Control+Alt+p');
    await expect(page.getByLabel('Name of the restore point', { exact: true })).toBeVisible();
  };
  const close = async (): Promise<void> => {
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog', { name: 'History' })).toBeHidden();
    await b.idle();
  };
  await dialog();
  await page.getByLabel('Name of the restore point', { exact: true }).fill('Plain post');
  await page.getByRole('button', { name: 'Keep this moment' }).click();
  await expect(points).toHaveText([/Plain post/]);
  await close();
  await b.byNumbers([2, 2, 2], [-2, 10, -2]);
  // Half as fine: that is hard to take back later, so it keeps what was.
  const steps = (await b.project()).history.length;
  await page
    .getByRole('button', { name: /^Coarsen by two|Coarsen ÷2/ })
    .first()
    .click();
  await b.idle();
  expect(await b.total()).toBe(81);
  // Undone, and something else made instead: nothing of the history leads there any more.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await b.idle();
  expect(await b.total()).toBe(0);
  await b.byNumbers([2, 2, 2], [0, 0, 0]);
  expect((await b.project()).history.length).toBeLessThanOrEqual(steps);
  await page.reload();
  await page.waitForURL(/\/build$/);
  await b.idle();
  await dialog();
  await expect(points).toHaveText([/Before: Coarsen.*made by itself/, /Plain post/]);
  await points.filter({ hasText: 'Plain post' }).getByRole('button', { name: 'Go back' }).click();
  await b.idle();
  expect(await b.total()).toBe(640);
  await expect(points).toHaveCount(3);
  await points.filter({ hasText: 'Plain post' }).getByRole('button', { name: 'Delete Plain post' }).click();
  await expect(points).toHaveCount(2);
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(points).toHaveCount(3);
  await close();
  await page.keyboard.press('Control+z');
  await b.idle();
  expect(await b.total()).toBe(8);
});

test('the target meter stands in every screen and leads to the sheet; a change of kind says what follows; a download says what was written', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  const meter = page.getByLabel('Readout').getByRole('button', { name: 'Target sheet' });
  for (const screen of await b.screens()) {
    await b.step(screen);
    await expect(meter).toContainText(/height \d\.\d\d/);
  }
  await meter.click();
  const sheet = page.getByRole('dialog', { name: 'Target sheet' });
  await sheet.getByLabel('Target bones', { exact: true }).fill('20');
  await sheet.getByLabel('Target bones', { exact: true }).press('Enter');
  await expect(meter).toContainText('bones 24 / 20 over');
  await choose(sheet, 'Kind of the project', 'wearable');
  await expect(sheet.getByText(/hangs at an attachment point of another figure/)).toBeVisible();
  const kind = async (): Promise<string> => ((await b.project()) as unknown as { kind: string }).kind;
  expect(await kind()).toBe('character');
  await sheet.getByRole('button', { name: 'Make it a wearable' }).click();
  await b.idle();
  expect(await kind()).toBe('wearable');
  await page.keyboard.press('Escape');
  await b.step('Ship');
  const [file] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('e')]);
  await expect(
    page.getByText(
      new RegExp(
        `Wrote ${file.suggestedFilename().replaceAll('.', '\\.')} \\([\\d,.]+ [KM]B\\) to the browser’s downloads`,
      ),
    ),
  ).toBeVisible();
});
