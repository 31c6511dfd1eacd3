import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Bench } from './bench';
import { expect, test } from './test';

const program = join(import.meta.dirname, '../benchmarks/dist/main.js');
const folder = mkdtempSync(join(tmpdir(), 'large-'));
test.beforeAll(() => {
  const made = spawnSync(process.execPath, [program, '--scenes', folder], { encoding: 'utf8' });
  expect(made.stderr).toBe('');
});
test.afterAll(() => rmSync(folder, { recursive: true }));

/** Most that the level of detail lets be drawn at once. */
const MOST = 300_000;

class Large extends Bench {
  /** Brings a scene onto the shelf and opens it on Stage. */
  async stand(name: 'Market' | 'Hills'): Promise<void> {
    await this.page.goto('/');
    await this.idle();
    await this.giveAll('drop', [[`${name}.sphal`, readFileSync(join(folder, `${name.toLowerCase()}.sphal`))]]);
    await this.page
      .getByRole('button', { name: `Open ${name}`, exact: true })
      .first()
      .click();
    await this.page.waitForURL(/\/build$/);
    await this.idle();
    await this.step('Stage');
    await this.idle();
  }
  quads = async (): Promise<number> => (await this.state()).quads;
  /** Turns the view by the hand, and gives how much was drawn on the way. */
  async turned(): Promise<number[]> {
    const box = (await this.page.locator('canvas').first().boundingBox())!;
    const [x, y] = [box.x + box.width - 40, box.y + 80];
    const seen: number[] = [];
    await this.page.mouse.move(x, y);
    await this.page.mouse.down();
    for (let i = 1; i <= 4; i++) {
      await this.page.mouse.move(x - 60 * i, y + 10 * i);
      await this.framesPass();
      seen.push(await this.quads());
    }
    await this.page.mouse.up();
    await this.idle();
    return seen;
  }
}

test('a hundred million cubes in linked copies are drawn by few quads from wherever one looks, and worked on', async ({
  page,
}) => {
  const b = new Large(page);
  await b.stand('Hills');
  const readout = page.getByLabel('Readout');
  await expect(readout).toContainText('cubes 117,723,824');
  expect(await b.quads()).toBeGreaterThan(30_000);
  for (const n of [await b.quads(), ...(await b.turned())]) expect(n).toBeLessThanOrEqual(MOST);
  // Near one of them its own cubes are drawn.
  const hills = (await b.project()).parts[0]!;
  expect(hills.bounds.size).toEqual([256, 256, 256]);
  await page.getByRole('tree', { name: 'What stands in the scene' }).getByRole('treeitem').first().click();
  await page.keyboard.press('Home');
  await b.idle();
  expect(await b.quads()).toBeLessThanOrEqual(MOST);
  await page.getByLabel('Place Y', { exact: true }).fill('40');
  await page.getByLabel('Place Y', { exact: true }).press('Enter');
  await page.keyboard.press('Control+z');
  await b.idle();
  expect((await b.project()).now).toBe(0);
});

test('of five thousand placements those in a frame are chosen, turned in one step, and come back; saving writes little', async ({
  page,
}) => {
  const b = new Large(page);
  await b.stand('Market');
  await expect(page.getByLabel('Readout')).toContainText('drawn 5,000');
  for (const n of [await b.quads(), ...(await b.turned())]) expect(n).toBeLessThanOrEqual(MOST);
  const box = (await page.locator('canvas').first().boundingBox())!;
  await page.keyboard.down('Control');
  await b.drag({ x: box.x + 6, y: box.y + 70 }, { x: box.x + box.width - 6, y: box.y + box.height - 6 });
  await page.keyboard.up('Control');
  const chosen = async (): Promise<string[]> =>
    ((await b.state()).view as unknown as { chosen: { placement: string[] } }).chosen.placement;
  await expect.poll(async () => (await chosen()).length).toBeGreaterThan(4000);
  const turns = async (): Promise<string> => {
    const [scene] = ((await b.project()) as unknown as { scenes: { placements: { q: number[] }[][] }[] }).scenes;
    return scene!.placements
      .flat()
      .map((p) => p.q.map((v) => v.toFixed(3)).join())
      .join(' ');
  };
  const before = await turns();
  await page.getByRole('button', { name: 'Turn by a quarter', exact: true }).click();
  await b.idle();
  expect(await turns()).not.toBe(before);
  await page.keyboard.press('Control+z');
  await b.idle();
  expect(await turns()).toBe(before);
  // One by itself is a small piece of the scene: two kilobytes, and what was chosen with it.
  await page.getByRole('tree', { name: 'What stands in the scene' }).getByRole('treeitem').nth(2).click();
  await page.getByLabel('Place Y', { exact: true }).fill('8');
  await page.getByLabel('Place Y', { exact: true }).press('Enter');
  await b.idle();
  expect((await b.state()).lastSaveBytes).toBeLessThanOrEqual(2200);
});
