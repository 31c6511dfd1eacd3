import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type BrowserContext, chromium } from '@playwright/test';
import { expect, test } from './test';
import { Bench } from './bench';
import { CHROMIUM, CHROMIUM_ARGS } from './launch';

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

// A killed process proves that finished writes outlive the program; it says nothing about a cut of power.
test('the browser is killed in the middle of work, again and again, and nothing older than two seconds is lost', async ({
  baseURL,
}) => {
  const rounds = Number(process.env['KILL_ROUNDS'] ?? 3);
  const folder = mkdtempSync(join(tmpdir(), 'kill-'));
  const open = (): Promise<BrowserContext> =>
    chromium.launchPersistentContext(folder, {
      executablePath: CHROMIUM,
      args: CHROMIUM_ARGS,
      viewport: { width: 1280, height: 800 },
      baseURL,
      reducedMotion: 'reduce',
    });
  let certain = 0;
  for (let round = 0; round < rounds; round++) {
    const context = await open();
    const page = context.pages()[0] ?? (await context.newPage());
    const b = new Bench(page);
    if (round === 0) {
      await b.firstVisit();
      await b.part(/^Coat/);
    } else {
      await page.goto('/');
      await page.locator('[data-project="Tamsin"]').getByRole('button', { name: 'Open Tamsin' }).first().click();
      await page.waitForURL(/\/build$/);
      await b.idle();
      await b.part(/^Coat/);
    }
    const found = (await b.project()).now;
    expect(found, `round ${round}`).toBeGreaterThanOrEqual(certain);
    // Edits by the keyboard cursor, quick after each other; the last ones are under way when the process dies.
    // One round takes cubes out of the coat, the next puts them back.
    await page.keyboard.press('2');
    await page.keyboard.press(round % 2 === 0 ? 'e' : 'a');
    await page.keyboard.press('k');
    for (let i = 0; i < 4; i++) {
      await page.keyboard.press('PageUp');
      await page.keyboard.press('ArrowRight');
      await page.keyboard.press('Enter');
    }
    await expect(page.getByTestId('saved')).toContainText('saved');
    certain = (await b.project()).now;
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('Enter');
    const pid = await browserPid(folder);
    process.kill(pid, 'SIGKILL');
    await context.close().catch(() => undefined);
  }
  expect(certain).toBeGreaterThan(rounds);
});

/** The process of the browser that this test started, found by its own profile folder. */
async function browserPid(folder: string): Promise<number> {
  const { readdirSync, readFileSync } = await import('node:fs');
  for (const pid of readdirSync('/proc').filter((d) => /^\d+$/.test(d))) {
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      if (line.includes(`--user-data-dir=${folder}`) && !line.includes('--type=')) return Number(pid);
    } catch {
      // That process is gone already.
    }
  }
  throw new Error('The browser of this test was not found.');
}
