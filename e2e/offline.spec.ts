import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { FIRST_VISIT, expect, test } from './test';
import { Bench } from './bench';

/** A server of its own over a copy of the built application, to be stopped and brought up to date. */
class Site {
  private readonly folder = mkdtempSync(join(tmpdir(), 'site-'));
  private server: ChildProcess | null = null;
  address = '';

  async start(port = 0): Promise<void> {
    if (!this.address) cpSync(`${import.meta.dirname}/../app/dist`, this.folder, { recursive: true });
    const main = `${import.meta.dirname}/../server/dist/main.js`;
    this.server = spawn(process.execPath, [main, '--port', String(port), '--site', this.folder]);
    const [words] = (await once(this.server.stdout!, 'data')) as [Buffer];
    this.address = /http:\S+/.exec(words.toString())![0];
  }
  async stop(): Promise<void> {
    const gone = once(this.server!, 'exit');
    this.server!.kill();
    await gone;
  }
  /** A next version, in which the list of ready rigs is another. */
  update(): void {
    const worker = join(this.folder, 'service-worker.js');
    const listed = /(\/content\/ready\.json[`"'],revision:[`"'])\w+/;
    const text = readFileSync(worker, 'utf8');
    expect(text).toMatch(listed);
    writeFileSync(join(this.folder, 'content/ready.json'), '[]');
    writeFileSync(worker, text.replace(listed, '$1next'));
  }
  remove = (): void => rmSync(this.folder, { recursive: true });
}

const keptOffline = (page: Page): Promise<boolean> =>
  page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    return Boolean(navigator.serviceWorker.controller);
  });
const version = (page: Page): Promise<unknown> =>
  page.evaluate(() => fetch('/content/ready.json').then((r) => r.json()));

test.describe('without its server', () => {
  test.use({ ...FIRST_VISIT, serviceWorkers: 'allow' });
  const site = new Site();
  test.beforeEach(() => site.start());
  test.afterEach(async () => {
    await site.stop().catch(() => undefined);
    site.remove();
  });

  test('once opened, it opens and works; what is made is kept; a newer version is told, and comes when it is taken', async ({
    page,
    context,
  }) => {
    await page.goto(site.address);
    const b = new Bench(page);
    await b.firstSteps();
    await page.getByTestId('coach').getByRole('button', { name: 'Skip' }).click();
    await b.idle();
    await expect.poll(() => keptOffline(page)).toBe(true);
    const at = page.url();
    const port = Number(new URL(at).port);

    await site.stop();
    await expect(fetch(site.address)).rejects.toThrow();
    await page.reload();
    await b.idle();
    expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
    // Screens that were never opened before come from what is kept.
    const before = await b.total();
    await b.swatch('Honey, light');
    await page.keyboard.press('N');
    await b.drag(await b.face('Coat', [4, 20, 3], [0, 0, 1]), await b.face('Coat', [4, 19, 3], [0, 0, 1]));
    await page.keyboard.press('Enter');
    await b.idle();
    for (const step of ['animate', 'ship']) {
      await page.goto(at.replace(/build$/, step));
      await b.idle();
    }
    await page.goto(at);
    await b.idle();
    expect(await b.total()).toBe(before + 2);
    await page.goto(site.address);
    await expect(page.getByText('Row boat').first()).toBeVisible();

    // The server is back with a newer version, and a second window is open.
    site.update();
    await site.start(port);
    const was = await version(page);
    await page.goto(at);
    await b.idle();
    await expect(page.getByText('A newer version of Sphalerite is ready.')).toBeVisible();
    expect(await version(page)).toEqual(was);
    const other = await context.newPage();
    await other.goto(site.address);
    await expect(other.getByText('Row boat').first()).toBeVisible();
    await page.getByRole('button', { name: 'Take it now' }).click();
    await expect(page.getByText('Sphalerite is open in 1 more window.')).toBeVisible();
    expect(await version(page)).toEqual(was);
    await other.close();
    const loaded = page.waitForEvent('load');
    await page.getByRole('button', { name: 'Take it now' }).click();
    await loaded;
    await b.idle();
    expect(await version(page)).toEqual([]);
    expect(was).not.toEqual([]);
    expect(await b.total()).toBe(before + 2);
    await expect(page.getByText('A newer version of Sphalerite is ready.')).toHaveCount(0);
  });
});
