import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './test';
import { Bench } from './bench';
import { killRounds } from './kill-rounds';

async function addCube(b: Bench, x: number): Promise<void> {
  await b.page.keyboard.press('2');
  const spot = await b.face('Coat', [x, 20, 3], [0, 0, 1]);
  await b.page.mouse.click(spot.x, spot.y);
}

test('work, history and selection survive a reload', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.part(/^Coat/);
  await page.keyboard.press('N');
  for (const x of [2, 4]) await addCube(b, x);
  await expect(page.getByTestId('saved')).toContainText('saved');
  await b.idle();
  const before = await b.project();
  expect((await b.state()).lastSaveBytes).toBeLessThan(64 * 1024);
  await page.reload();
  await b.idle();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Coat');
  expect(await b.project()).toEqual(before);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await b.idle();
  expect(await b.cell('Coat', [4, 20, 4])).toBe(0);
  await page.reload();
  await b.idle();
  await page.keyboard.press('Control+Shift+Z');
  await b.idle();
  expect(await b.cell('Coat', [2, 20, 4])).not.toBe(0);
});

test('a second window only looks, and can take over', async ({ page, context }) => {
  const b = new Bench(page);
  await b.open();
  const other = new Bench(await context.newPage());
  await other.page.goto(page.url());
  await expect(other.page.getByRole('alert')).toContainText('Another window is working');
  await other.page.getByRole('button', { name: 'Take over' }).click();
  await expect(other.page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByRole('alert')).toContainText('Another window is working');
  await other.idle();
  expect((await b.state()).writable).toBe(false);
  expect((await other.state()).writable).toBe(true);
});

test('the browser is killed in the middle of work, again and again, and nothing older than two seconds is lost', async ({
  baseURL,
}) => {
  const folder = process.env['KILL_FOLDER'] ?? mkdtempSync(join(tmpdir(), 'kill-'));
  const rounds = Number(process.env['KILL_ROUNDS'] ?? 2);
  test.setTimeout(300_000 + rounds * 90_000);
  const seen = await killRounds(folder, baseURL!, rounds, Number(process.env['KILL_SEED'] ?? 1), (r) => {
    if (process.env['KILL_FOLDER']) process.stdout.write(`${JSON.stringify(r)}\n`);
  });
  expect(seen).toHaveLength(rounds);
  // Now and then the blow falls before the first change.
  expect(seen.reduce((n, r) => n + r.made, 0)).toBeGreaterThanOrEqual(rounds);
  expect(Math.max(...seen.map((r) => r.age))).toBeLessThanOrEqual(2000);
});
