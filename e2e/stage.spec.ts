import type { Locator } from '@playwright/test';
import { Bench, choose } from './bench';
import { Counted } from './counted';
import { expect, test } from './test';

interface Placed {
  id: string;
  name: string;
  parent: string | null;
  layer: string;
  shows: { kind: string; part?: string; clip?: string | null };
  t: [number, number, number];
  q: number[];
  s: number[];
}
interface SceneJson {
  id: string;
  name: string;
  layers: { id: string; name: string; hidden: boolean; locked: boolean }[];
  placements: Placed[][];
  repeats: { kind: string; count?: number; counts?: number[]; apart?: number; placement: string }[];
}
class Stage extends Bench {
  scene = async (): Promise<SceneJson> => ((await this.project()) as unknown as { scenes: SceneJson[] }).scenes.at(-1)!;
  placements = async (): Promise<Placed[]> => (await this.scene()).placements.flat();
  row = (name: string | RegExp): Locator =>
    this.page.getByRole('tree', { name: 'What stands in the scene' }).getByRole('treeitem', { name });
  /** A place in the view, by shares of its width and height. */
  async at(x: number, y: number): Promise<{ x: number; y: number }> {
    const box = (await this.page.locator('canvas').first().boundingBox())!;
    return { x: box.x + box.width * x, y: box.y + box.height * y };
  }
  /** Where the highest cube of the first that shows a part is seen from above. */
  async topOf(part: string): Promise<{ x: number; y: number }> {
    const { min, size } = (await this.project()).parts.find((p) => p.name === part)!.bounds;
    const cells = await this.cells(part, min, size);
    let best: [number, number, number] = [0, -Infinity, 0];
    cells.forEach((v, i) => {
      const at = [i % size[0], Math.floor(i / size[0]) % size[1], Math.floor(i / (size[0] * size[1]))];
      const cell = at.map((c, a) => c + min[a]!) as [number, number, number];
      if (v !== 0 && cell[1] >= best[1]) best = cell;
    });
    return this.face(part, best, [0, 1, 0]);
  }
  async put(piece: string, ...at: readonly (readonly [number, number])[]): Promise<void> {
    await this.page.getByRole('button', { name: piece, exact: true }).click();
    for (const [x, y] of at) {
      await this.click(await this.at(x, y));
      await this.idle();
    }
    await this.page.keyboard.press('Escape');
  }
  async begin(): Promise<void> {
    await this.open();
    await this.step('Stage');
    await this.page.getByRole('button', { name: 'New scene' }).last().click();
    await this.idle();
  }
}

test('pieces are put down on the floor and on each other as linked copies, pushed, dropped, and one goes its own way', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  const before = await b.project();
  await b.put('Place Satchel', [0.5, 0.6], [0.7, 0.62]);
  const [first, second] = await b.placements();
  expect([first!.t[1], second!.t[1]].every((y) => y === first!.t[1])).toBe(true);
  expect((await b.placements()).map((p) => p.shows)).toEqual([first!.shows, first!.shows]);
  await expect(page.getByText('linked: a change shows on 2')).toBeVisible();
  // On top of the first: higher than the floor by a whole satchel.
  await page.getByRole('button', { name: 'Place Lantern', exact: true }).click();
  await b.click(await b.topOf('Satchel'));
  await b.idle();
  await page.keyboard.press('Escape');
  const lantern = (await b.placements()).at(-1)!;
  expect(lantern.t[1]).toBeGreaterThan(first!.t[1]);
  // Pushed over the ground it stays as high, and moves by whole units.
  const from = await b.at(0.7, 0.6);
  await b.drag(from, { x: from.x + 60, y: from.y + 10 });
  await b.idle();
  const pushed = (await b.placements()).find((p) => p.id === second!.id)!;
  expect(pushed.t[1]).toBe(second!.t[1]);
  expect([0, 2].some((a) => pushed.t[a]! !== second!.t[a]!)).toBe(true);
  expect([pushed.t[0] - second!.t[0], pushed.t[2] - second!.t[2]].every((v) => Number.isInteger(v))).toBe(true);
  // A number moves it up, Drop brings it down again.
  await page.getByLabel('Place Y', { exact: true }).fill('30');
  await page.getByLabel('Place Y', { exact: true }).press('Enter');
  await page.getByRole('button', { name: /^Drop onto/ }).click();
  await expect.poll(async () => (await b.placements()).find((p) => p.id === second!.id)!.t[1]).toBe(second!.t[1]);
  // In Build it is told before the first stroke how many a change shows on.
  await page.getByRole('button', { name: /Open its part in Build/ }).click();
  await expect(page.getByText('a change shows on 2 placements')).toBeVisible();
  await b.step('Stage');
  await b.row('Satchel').last().click();
  // Its own part: the other keeps the one of both.
  await page.getByRole('button', { name: /part of its own/ }).click();
  await expect.poll(async () => (await b.project()).parts.length).toBe(before.parts.length + 1);
  const [one, two] = await b.placements();
  expect(one!.shows.part).not.toBe(two!.shows.part);
  await expect(page.getByText('here alone')).toBeVisible();
  await choose(page, 'Another part in its place', 'Lantern');
  await expect.poll(async () => (await b.placements())[1]!.shows.part).toBe(lantern.shows.part);
  expect((await b.placements())[1]!.t).toEqual(two!.t);
});

test('twelve lanterns scattered, and changed afterwards: three actions; a row, broken up, is placements of its own', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  const counted = new Counted(page);
  await counted.press(page.getByRole('button', { name: 'Place Lantern', exact: true }));
  await b.click(await b.at(0.5, 0.6));
  await b.idle();
  await counted.press(page.getByRole('button', { name: 'Scatter', exact: true }));
  // The click on the floor is one more.
  expect(counted.actions + 1).toBe(3);
  const draws = async (): Promise<number> => (await b.scene()).repeats.length;
  expect(await draws()).toBe(1);
  await expect(page.getByText('scatter 12').first()).toBeVisible();
  await page.getByRole('slider', { name: 'How many there are' }).press('ArrowRight');
  await expect.poll(async () => (await b.scene()).repeats[0]!.count).toBe(13);
  await page.keyboard.press('Escape');
  await b.row('Lantern').click();
  await page.getByRole('button', { name: 'Row', exact: true }).click();
  await page.getByLabel('Count across', { exact: true }).fill('4');
  await page.getByLabel('Count across', { exact: true }).press('Enter');
  await expect.poll(async () => (await b.scene()).repeats[0]!.counts).toEqual([4, 1, 1]);
  await page.getByRole('button', { name: 'Break up' }).click();
  await expect.poll(async () => (await b.placements()).length).toBe(4);
  expect(await draws()).toBe(0);
  const xs = (await b.placements()).map((p) => p.t[0]).sort((x, y) => x - y);
  expect(new Set(xs.slice(1).map((x, i) => x - xs[i]!)).size).toBe(1);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.placements()).length).toBe(1);
});

test('placements are grouped, hung, hidden with their layer and kept over a reload; the figure takes a clip', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  await b.put('Place the whole figure', [0.4, 0.6]);
  await choose(page, 'Clip that it is in', 'Walk');
  await expect.poll(async () => (await b.placements())[0]!.shows.clip).toBeTruthy();
  await b.put('Place Satchel', [0.6, 0.6], [0.7, 0.6]);
  await b.row('Satchel').first().click();
  await b
    .row('Satchel')
    .last()
    .click({ modifiers: ['Control'] });
  const there = (await b.placements()).slice(1).map((p) => p.t);
  await page.keyboard.press('Shift+G');
  await page.getByLabel('Name of Group').fill('Luggage');
  await page.keyboard.press('Enter');
  const group = async (): Promise<Placed> => (await b.placements()).find((p) => p.name === 'Luggage')!;
  await expect.poll(async () => (await group())?.shows.kind).toBe('group');
  const { id, t } = await group();
  const inside = (await b.placements()).filter((p) => p.parent === id);
  expect(inside.map((p) => p.t.map((v, a) => v + t[a]!))).toEqual(there);
  await page.getByRole('button', { name: 'New layer' }).click();
  await choose(page, 'Layer of what is chosen', 'Layer');
  await expect.poll(async () => (await group()).layer).toBe((await b.scene()).layers[1]!.id);
  await page.getByRole('button', { name: 'Hide the layer Layer', exact: true }).click();
  await expect.poll(async () => (await b.scene()).layers[1]!.hidden).toBe(true);
  await b.idle();
  await page.reload();
  await b.idle();
  expect((await b.placements()).length).toBe(4);
  expect((await b.scene()).layers[1]!.hidden).toBe(true);
  await expect(b.row('Luggage')).toBeVisible();
  // A part that goes to the bin takes nothing of the scene with it.
  await b.step('Build');
  await b.part(/^Satchel/);
  await page.keyboard.press('Shift+Delete');
  await b.idle();
  await b.step('Stage');
  await expect(b.row('a part in the bin').first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(b.row('a part in the bin')).toHaveCount(0);
});
