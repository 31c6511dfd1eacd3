import { FIRST_VISIT, expect, test } from './test';
import { Bench } from './bench';

test.describe('on a first visit', () => {
  test.use(FIRST_VISIT);
  test('the first visit greets with the night market, and Tamsin leads through the six steps', async ({ page }) => {
    await page.goto('/', { waitUntil: 'commit' });
    // Its stored picture stands until the live view does.
    const stored = page.getByRole('img', { name: 'Night market on the quay' });
    await expect(stored).toBeVisible();
    await page.waitForURL(/\/stage$/);
    const coach = page.getByTestId('coach');
    await expect(coach).toContainText('Night market on the quay');
    const b = new Bench(page);
    await b.idle();
    await expect(stored).toBeHidden();
    // At once, though she may still be on her way to the shelf.
    await coach.getByRole('button', { name: 'First steps' }).click();
    await page.waitForURL(/\/demo-tamsin\/build$/);
    await expect(coach).toContainText('1 of 6');
    await b.idle();
    // The first useful change: a swatch, a footprint, a height.
    await b.swatch('Honey, light');
    await page.keyboard.press('N');
    const before = await b.total();
    await b.drag(await b.face('Coat', [4, 20, 3], [0, 0, 1]), await b.face('Coat', [4, 19, 3], [0, 0, 1]));
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.total()).toBe(before + 2);
    await expect(coach.getByRole('button', { name: 'Well done. Next' })).toBeVisible();
    for (const [step, words] of [
      ['rig', 'Bend her'],
      ['animate', 'Let her walk'],
      ['stage', 'Give her a place'],
      ['light', 'Make a picture'],
      ['ship', 'Send her out'],
    ] as const) {
      await coach.getByRole('button', { name: /Next/ }).click();
      await page.waitForURL(new RegExp(`/${step}$`));
      await expect(coach).toContainText(words);
    }
    // It speaks of the screen that one is on, however one came there.
    await b.step('Animate');
    await expect(coach).toContainText('Let her walk');
    await b.step('Ship');
    await coach.getByRole('button', { name: 'Done' }).click();
    await expect(coach).toHaveCount(0);
    await b.idle();
    await page.reload();
    await b.idle();
    await expect(coach).toHaveCount(0);
  });
});

test('parts are renamed, reordered by drag, hidden and brought back from the bin, each one step that undoes', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const names = async () => (await b.project()).parts.map((p) => p.name);
  const tray = page.getByRole('complementary', { name: 'Tray' });
  await page.getByRole('button', { name: 'Name of the part: Coat' }).click();
  await page.getByLabel('Name of the part').fill('Jacket');
  await page.getByLabel('Name of the part').press('Enter');
  expect((await names())[0]).toBe('Jacket');
  await tray
    .getByRole('treeitem', { name: /^Head/ })
    .dragTo(tray.getByRole('treeitem', { name: /^Jacket/ }), { targetPosition: { x: 60, y: 8 } });
  expect((await names()).slice(0, 2)).toEqual(['Head', 'Jacket']);
  await tray.getByRole('treeitem', { name: /^Skirt/ }).hover();
  await tray.getByRole('button', { name: 'Hide Skirt centre' }).click();
  await expect(tray.getByRole('button', { name: 'Show Skirt centre' })).toBeVisible();
  const mounts = (await b.project()).rig.mounts.length;
  await tray.getByRole('treeitem', { name: /^Skirt/ }).hover();
  await tray.getByRole('button', { name: 'Delete Skirt centre' }).click();
  expect((await b.project()).rig.mounts.length).toBe(mounts - 1);
  await tray.getByRole('button', { name: 'Restore Skirt' }).click();
  expect((await b.project()).rig.mounts.length).toBe(mounts);
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
  expect((await b.project()).now).toBe(0);
  expect((await names()).slice(0, 3)).toEqual(['Coat', 'Skirt', 'Head']);
});

test('any step of the history is jumped to, and undo offers the screen on which the step was made', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  for (const w of ['19', '20', '21']) {
    await page.getByLabel('Width', { exact: true }).fill(w);
    await page.getByLabel('Width', { exact: true }).press('Enter');
    await expect.poll(async () => (await b.project()).parts[0]!.bounds.size[0]).toBe(Number(w));
  }
  await b.step('Ship');
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/Undid: Resize Coat to 21×15×15 \(in Build\)/)).toBeVisible();
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await page.waitForURL(/\/build$/);
  await page.keyboard.press('Control+h');
  await page
    .getByRole('dialog', { name: 'History' })
    .getByRole('button', { name: /Resize Coat to 19/ })
    .click();
  expect((await b.project()).parts[0]!.bounds.size[0]).toBe(19);
  await page
    .getByRole('dialog', { name: 'History' })
    .getByRole('button', { name: /Resize Coat to 21/ })
    .click();
  expect((await b.project()).parts[0]!.bounds.size[0]).toBe(21);
});

test('when the browser has no room left, it says so, keeps the work open, and saves again once there is room', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (...args: Parameters<typeof put>) {
      if ((window as unknown as { full?: boolean }).full) throw new DOMException('No room', 'QuotaExceededError');
      return put.apply(this, args);
    };
  });
  const b = new Bench(page);
  await b.open();
  await page.evaluate(() => ((window as unknown as { full: boolean }).full = true));
  await page.getByLabel('Width', { exact: true }).fill('20');
  await page.getByLabel('Width', { exact: true }).press('Enter');
  await expect(page.getByText(/no room left to save in.*save the project as a file/)).toBeVisible();
  await expect(page.getByTestId('saved')).toContainText('not saved');
  expect((await b.project()).parts[0]!.bounds.size[0]).toBe(20);
  // Leaving asks, and staying keeps the work and the notice.
  await page.keyboard.press('Alt+0');
  await page.getByRole('dialog').getByRole('button', { name: 'Stay' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page).toHaveURL(/\/build$/);
  await expect(page.getByText(/no room left to save in/)).toBeVisible();
  // With room again it saves by itself: nothing is changed and nothing pressed.
  await page.evaluate(() => ((window as unknown as { full: boolean }).full = false));
  await expect(page.getByTestId('saved')).toHaveText('saved');
  await expect(page.getByText(/no room left to save in/)).toHaveCount(0);
  await page.reload();
  await b.idle();
  expect((await b.project()).parts[0]!.bounds.size[0]).toBe(20);
  expect((await b.project()).history).toHaveLength(2);
});
