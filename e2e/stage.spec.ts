import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Locator } from '@playwright/test';
import { encode } from 'fast-png';

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
  lamps: { parent: string | null; kind: string; strength: number; t: [number, number, number] }[];
  repeats: {
    kind: string;
    count?: number;
    counts?: number[];
    apart?: number;
    placement: string;
    points?: [number, number, number][];
    vary: { turn: number; sizes: [number, number] };
    exceptions: { copy: number; gone: boolean; t: [number, number, number] }[];
  }[];
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
  /** Where a place of the world is seen. */
  placeOf = (place: [number, number, number]): Promise<{ x: number; y: number }> =>
    this.page.evaluate(
      (p) =>
        (window as never as { sphalerite: { screenOf(w: unknown): { x: number; y: number } } }).sphalerite.screenOf({
          place: p,
        }),
      place,
    );
  /** Where the outermost cube along an axis of the first that shows a part is seen: the highest from above, the foremost from the front. */
  async topOf(part: string, axis: 1 | 2 = 1): Promise<{ x: number; y: number }> {
    const { min, size } = (await this.project()).parts.find((p) => p.name === part)!.bounds;
    const cells = await this.cells(part, min, size);
    let best: [number, number, number] = [0, -Infinity, -Infinity];
    cells.forEach((v, i) => {
      const at = [i % size[0], Math.floor(i / size[0]) % size[1], Math.floor(i / (size[0] * size[1]))];
      const cell = at.map((c, a) => c + min[a]!) as [number, number, number];
      if (v !== 0 && cell[axis] >= best[axis]) best = cell;
    });
    return this.face(part, best, axis === 1 ? [0, 1, 0] : [0, 0, 1]);
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
  // Onto faces: the second climbs onto the first where the hand goes, and comes down again beside it.
  await page.getByRole('checkbox', { name: 'Onto faces' }).check({ force: true });
  await b.drag({ x: from.x + 60, y: from.y + 10 }, await b.topOf('Lantern'));
  await b.idle();
  const climbed = (await b.placements()).find((p) => p.id === second!.id)!;
  expect(climbed.t[1]).toBeGreaterThan(lantern.t[1]);
  await page.keyboard.press('Control+z');
  await page.getByRole('checkbox', { name: 'Onto faces' }).uncheck({ force: true });
  // A number moves it up, Drop brings it down again.
  await page.getByLabel('Place Y', { exact: true }).fill('30');
  await page.getByLabel('Place Y', { exact: true }).press('Enter');
  await page.getByRole('button', { name: /^Drop onto/ }).click();
  await expect.poll(async () => (await b.placements()).find((p) => p.id === second!.id)!.t[1]).toBe(second!.t[1]);
  // In Build it is told before the first stroke how many a change shows on.
  await page.getByRole('button', { name: /Edit its part in place/ }).click();
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

test('a hedge along a stroke, varied: four actions; its path is bent by a handle, one copy stands apart, one is left out', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  const counted = new Counted(page);
  await counted.press(page.getByRole('button', { name: 'Place Satchel', exact: true }));
  const [from, to] = [await b.at(0.45, 0.8), await b.at(0.8, 0.5)];
  await b.drag(from, to);
  await b.idle();
  await page.getByRole('slider', { name: 'How many there are' }).press('Home');
  for (let i = 1; i < 5; i++) await page.getByRole('slider', { name: 'How many there are' }).press('ArrowRight');
  await page.getByRole('slider', { name: /^Most that one is turned/ }).press('End');
  await page.getByRole('slider', { name: /^Per cent by which sizes/ }).press('PageUp');
  // The stroke and three sliders are one action each.
  expect(counted.actions + 4).toBe(5);
  const repeat = async (): Promise<SceneJson['repeats'][number]> => (await b.scene()).repeats[0]!;
  await expect.poll(async () => (await repeat()).vary.turn).toBe(180);
  expect(await repeat()).toMatchObject({ kind: 'path', count: 5 });
  expect((await repeat()).vary.sizes[1]).toBeGreaterThan(1);
  await page.keyboard.press('Escape');
  // The end of the path is pushed over the ground by its handle.
  await b.row('Satchel').click();
  const ends = (await repeat()).points!;
  const end = await b.placeOf(ends.at(-1)!);
  await b.drag(end, { x: end.x - 40, y: end.y + 50 });
  await expect.poll(async () => (await repeat()).points!.at(-1)).not.toEqual(ends.at(-1));
  expect((await repeat()).points![0]).toEqual(ends[0]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await repeat()).points).toEqual(ends);
  // The copy at the end by itself: the second click takes it, a push moves it alone.
  const quarter = ends[0]!.map((v, a) => v + (ends.at(-1)![a]! - v) / 4) as [number, number, number];
  const { x, y } = await b.placeOf(quarter);
  await page.getByRole('button', { name: 'Turn by rings' }).click();
  await b.click({ x, y });
  await expect(page.getByText('Copy 2', { exact: true })).toBeVisible();
  await b.drag({ x, y }, { x: x + 50, y });
  await expect.poll(async () => (await repeat()).exceptions.length).toBe(1);
  const [apart] = (await repeat()).exceptions;
  expect([apart!.copy, apart!.gone, apart!.t[1]]).toEqual([1, false, 0]);
  await page.getByRole('button', { name: 'Leave out' }).click();
  await expect.poll(async () => (await repeat()).exceptions[0]!.gone).toBe(true);
  await page.getByRole('button', { name: '1 exception' }).click();
  await expect.poll(async () => (await repeat()).exceptions).toEqual([]);
});

test('a frame chooses what lies in it; a part is edited in its place among the others, and gets its own before the first stroke', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  await b.put('Place Satchel', [0.35, 0.6], [0.5, 0.6], [0.8, 0.5]);
  const all = await b.placements();
  await page.keyboard.press('f');
  await b.drag(await b.at(0.2, 0.35), await b.at(0.6, 0.85));
  const chosen = async (): Promise<unknown> =>
    page.evaluate(
      () =>
        (
          window as never as { sphalerite: { state(): { view: { chosen: { placement: string[] } } } } }
        ).sphalerite.state().view.chosen.placement,
    );
  await expect.poll(chosen).toEqual(all.slice(0, 2).map((p) => p.id));
  await page.keyboard.press('j');
  const top = await b.topOf('Satchel');
  await page.mouse.dblclick(top.x, top.y);
  await b.idle();
  await expect(page.getByText('a change shows on 3 placements')).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Scene');
  const { parts } = await b.project();
  await page.getByRole('button', { name: 'own part' }).click();
  await expect.poll(async () => (await b.project()).parts.length).toBe(parts.length + 1);
  await expect(page.getByText('a change shows on 3 placements')).toHaveCount(0);
  const own = (await b.placements())[0]!.shows.part!;
  expect((await b.placements()).slice(1).map((p) => p.shows)).toEqual(all.slice(1).map((p) => p.shows));
  // A stroke where it stands changes it alone.
  const hashes = async (): Promise<string[]> => {
    const now = await b.project();
    return [own, all[1]!.shows.part].map((id) => now.parts.find((p) => p.id === id)!.layers[0]!.grid.hash);
  };
  const before = await hashes();
  await page.getByRole('radio', { name: 'Paint fill' }).click();
  await new Counted(page).colour('Ink');
  await b.click(await b.topOf('Satchel 2', 2));
  await b.idle();
  await expect.poll(async () => (await hashes())[0]).not.toBe(before[0]);
  expect((await hashes())[1]).toBe(before[1]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/stage$/);
});

test('a room with a door takes three actions; two things are aligned, stacked and united, which is told before it is set', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  const counted = new Counted(page);
  const { parts } = await b.project();
  await counted.press(page.getByRole('button', { name: 'Room', exact: true }));
  await counted.press(page.getByRole('button', { name: 'Door', exact: true }));
  await counted.press(page.getByRole('button', { name: 'Make it' }));
  expect(counted.actions).toBe(3);
  await expect.poll(async () => (await b.project()).parts.length).toBe(parts.length + 1);
  const room = (await b.project()).parts.at(-1)!;
  expect([room.name, room.layers[0]!.grid.cubes > 1000]).toEqual(['Room', true]);
  await b.put('Place Satchel', [0.42, 0.75], [0.7, 0.8]);
  await b.row('Satchel').first().click();
  await b
    .row('Satchel')
    .last()
    .click({ modifiers: ['Control'] });
  const two = async (): Promise<Placed[]> => (await b.placements()).filter((p) => p.shows.part !== room.id);
  const [first, second] = await two();
  expect(first!.t[0]).not.toBe(second!.t[0]);
  await page.getByRole('button', { name: 'Align middles along X' }).click();
  await expect.poll(async () => (await two()).map((p) => p.t[0])).toEqual([second!.t[0], second!.t[0]]);
  await page.getByRole('button', { name: 'Stack one on another' }).click();
  await expect.poll(async () => (await two())[1]!.t[1] - (await two())[0]!.t[1]).toBeGreaterThan(4);
  await page.getByRole('button', { name: 'Unite' }).click();
  const told = page.getByText(/^\d+ × \d+ × \d+ cubes\.$/);
  await expect(told).toBeVisible();
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect.poll(async () => (await b.placements()).length).toBe(2);
  const united = (await b.project()).parts.at(-1)!;
  expect([united.name, united.layers[0]!.grid.cubes]).toEqual(['Satchel 2', 104]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.placements()).length).toBe(3);
  // A new part is made where it stands and opens there.
  await page.getByRole('button', { name: 'Part', exact: true }).click();
  await page.getByLabel('Name of what is made').fill('Hook');
  await page.getByRole('button', { name: 'Make and build it' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Hook');
  await expect(page).toHaveURL(/build$/);
  await page.keyboard.press('Shift+Enter');
  await expect(page).toHaveURL(/stage$/);
  await expect(b.row('Hook')).toBeVisible();
});

test('a stamp from the shelf stands as linked copies, several things become one, kept for every project and for strokes in Build', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  const { parts } = await b.project();
  await page.getByRole('radio', { name: 'Stamps' }).check({ force: true });
  await expect(page.getByRole('button', { name: /^Stamp / })).toHaveCount(21);
  await page.getByRole('button', { name: 'Stamp Bucket', exact: true }).click();
  await b.click(await b.at(0.5, 0.6));
  await b.click(await b.at(0.7, 0.62));
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await b.placements()).length).toBe(2);
  const bucket = (await b.project()).parts.at(-1)!;
  expect([bucket.name, (await b.project()).parts.length]).toEqual(['Bucket', parts.length + 1]);
  expect((await b.placements()).map((p) => p.shows.part)).toEqual([bucket.id, bucket.id]);
  // Both together are a stamp of two pieces, kept on one's own shelf.
  await b.row('Bucket').first().click();
  await b
    .row('Bucket')
    .last()
    .click({ modifiers: ['Control'] });
  await b.row('Bucket').last().click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Keep as a stamp' }).click();
  const kept = page.getByRole('region', { name: 'Stamps, of this project' }).getByRole('button');
  await expect(kept).toHaveCount(1);
  await kept.click();
  await page.getByRole('button', { name: 'Keep Bucket on my shelf' }).click();
  await expect(page.getByRole('region', { name: 'Stamps, my shelf' }).getByRole('button')).toHaveCount(1);
  await page.keyboard.press('Escape');
  // It is there for another project, after a reload, and in Build as a reach of strokes.
  await page.goto('/project/demo-lamp-post/build');
  await b.idle();
  await new Counted(page).take('Stamp');
  await expect(page.getByRole('region', { name: 'Stamps, my shelf' }).getByRole('button')).toHaveCount(1);
  const total = await b.total();
  await page.getByRole('button', { name: 'Stamp Rivet', exact: true }).click();
  await b.click(await b.topOf('Post'));
  await expect.poll(() => b.total()).toBeGreaterThan(total);
});

test('another project stands in the scene whole, lit by a lamp that hangs on it; what is odd is found, shown and linked', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  await page.getByRole('radio', { name: 'Whole projects of the shelf' }).check({ force: true });
  await page.getByRole('button', { name: 'Place Lamp post', exact: true }).click();
  await expect.poll(async () => (await b.project()).assets.map((a) => a.name)).toEqual(['Lamp post']);
  await b.click(await b.at(0.55, 0.6));
  await page.keyboard.press('Escape');
  await expect(b.row('Lamp post')).toBeVisible();
  await page.getByRole('button', { name: 'Bring up to date' }).click();
  await expect(page.getByText('“Lamp post” is as its project is now.')).toBeVisible();
  const [post] = await b.placements();
  await page.getByRole('button', { name: 'New lamp' }).click();
  const lamps = async () => (await b.scene()).lamps;
  await expect.poll(async () => (await lamps())[0]?.parent).toBe(post!.id);
  await page.getByRole('radio', { name: 'In a cone' }).check({ force: true });
  await page.getByRole('slider', { name: 'Strength, in candela' }).press('ArrowRight');
  await expect.poll(async () => (await lamps())[0]).toMatchObject({ kind: 'spot', strength: 41 });
  // Up by the arrow of the gizmo it goes with the hand, alone.
  const before = (await lamps())[0]!.t;
  await page.getByLabel('Place of the lamp Y', { exact: true }).fill(String(before[1] + 4));
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await lamps())[0]!.t[1]).toBe(before[1] + 4);
  expect((await b.placements())[0]!.t).toEqual(post!.t);
  // Two that are alike, and one of them in the air.
  await page.getByRole('radio', { name: 'Parts and projects' }).check({ force: true });
  await b.put('Place Satchel', [0.75, 0.6], [0.85, 0.55]);
  await page.keyboard.press('Shift+I');
  await page.getByLabel('Place Y', { exact: true }).fill('40');
  await page.getByLabel('Place Y', { exact: true }).press('Enter');
  await page.getByRole('radio', { name: 'What to look at' }).check({ force: true });
  await expect(page.getByText(/hangs in the air/)).toBeVisible();
  await page.getByRole('button', { name: 'Link', exact: true }).click();
  await expect.poll(async () => new Set((await b.placements()).slice(1).map((p) => p.shows.part)).size).toBe(1);
});

test('a chess floor of two pieces takes four actions; in Build two parts are united where they stand', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  const counted = new Counted(page);
  await counted.press(page.getByRole('button', { name: 'Place Satchel', exact: true }));
  await counted.at(await b.at(0.55, 0.6));
  await counted.press(page.getByRole('button', { name: 'Grid', exact: true }));
  await choose(page, 'What every second one is', 'Lantern');
  expect(counted.actions + 1).toBe(4);
  await expect(page.getByLabel('Readout')).toContainText('drawn 144');
  await expect.poll(async () => (await b.scene()).repeats[0]!.counts).toEqual([12, 1, 12]);
  await page.keyboard.press('Escape');
  // What the scene would ship as stands against the target at once.
  const meter = page.getByLabel('Readout').getByRole('button', { name: 'Target sheet' });
  await meter.click();
  await page.getByLabel('Target draw calls', { exact: true }).fill('100');
  await page.getByLabel('Target draw calls', { exact: true }).press('Enter');
  await page.keyboard.press('Escape');
  await expect(meter).toContainText('draws 144 / 100 over');
  await b.step('Build');
  const before = await b.project();
  const cubes = (name: string): number => before.parts.find((p) => p.name === name)!.layers[0]!.grid.cubes;
  await b.part(/^Satchel/);
  await page.getByRole('treeitem', { name: /^Pole/ }).click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Unite', exact: true }).click();
  await expect(page.getByText(/^\d+ × \d+ × \d+ cubes\./)).toBeVisible();
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect.poll(async () => (await b.project()).parts.length).toBe(before.parts.length - 1);
  const united = (await b.project()).parts.find((p) => p.name === 'Pole')!.layers[0]!.grid.cubes;
  expect(united).toBeGreaterThan(Math.max(cubes('Pole'), cubes('Satchel')));
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.project()).parts.length).toBe(before.parts.length);
});

test('files dropped onto the scene stand where they were dropped: a picture as a part, a project as it is', async ({
  page,
}) => {
  const b = new Stage(page);
  await b.begin();
  await b.put('Place Satchel', [0.5, 0.6], [0.75, 0.62]);
  // What would stand at that point, by a hand.
  const meant = (await b.placements()).at(-1)!.t;
  await page.keyboard.press('Control+z');
  const parts = (await b.project()).parts.length,
    mounts = (await b.project()).rig.mounts.length;
  const red = encode({
    width: 8,
    height: 6,
    channels: 4,
    depth: 8,
    data: Uint8Array.from({ length: 192 }, (_, i) => (i % 4 === 1 || i % 4 === 2 ? 40 : 220)),
  });
  await b.dropAt(await b.at(0.75, 0.62), 'sign.png', Buffer.from(red));
  await page.waitForURL(/\/bring$/);
  await b.idle();
  await page.getByRole('button', { name: /^Bring it in/ }).click();
  await page.waitForURL(/\/stage$/);
  await b.idle();
  expect((await b.project()).parts).toHaveLength(parts + 1);
  expect((await b.project()).rig.mounts).toHaveLength(mounts);
  const sign = (await b.placements()).at(-1)!;
  expect(Math.hypot(sign.t[0] - meant[0], sign.t[2] - meant[2])).toBeLessThan(8);
  // A stamp is dragged there by its picture.
  await page.getByRole('radio', { name: 'Stamps' }).check({ force: true });
  await b.idle();
  const gear = (await page.getByRole('button', { name: 'Stamp Gear' }).boundingBox())!;
  await b.drag({ x: gear.x + gear.width / 2, y: gear.y + 20 }, await b.at(0.45, 0.8));
  await expect.poll(async () => (await b.project()).parts.at(-1)!.name).toBe('Gear');
  expect((await b.placements()).at(-1)!.shows.part).toBe((await b.project()).parts.at(-1)!.id);
  // A project file goes onto the shelf, and stands here.
  await b.dropAt(
    await b.at(0.6, 0.75),
    'row-boat.sphal',
    readFileSync(join(import.meta.dirname, '../content/out/row-boat.sphal')),
  );
  await expect.poll(async () => (await b.placements()).at(-1)!.shows.kind).toBe('asset');
  await expect(
    page.getByRole('tree', { name: 'What stands in the scene' }).getByRole('treeitem', { name: /^Row boat/ }),
  ).toBeVisible();
});

test('in the market a shutter changes on every house in two actions, a stall gets a copy with other wares in five, and ships alone', async ({
  page,
}) => {
  const b = new Stage(page);
  await page.goto('/project/demo-night-market/build');
  await b.idle();
  const shelf = page.getByRole('radio', { name: 'Paint fill' });
  await shelf.click();
  await new Counted(page).colour('Awning');
  await b.step('Stage');
  const house = (await b.project()).parts.find((p) => p.name === 'Tall house')!;
  const grid = (): Promise<string> =>
    b.project().then((p) => p.parts.find((o) => o.id === house.id)!.layers[0]!.grid.hash);
  const before = await grid();
  const counted = new Counted(page);
  const front = await b.topOf('Tall house', 2);
  await page.mouse.dblclick(front.x, front.y);
  counted.actions++;
  await b.idle();
  await expect(page.getByText('a change shows on 2 placements')).toBeVisible();
  await counted.at(await b.topOf('Tall house', 2));
  await b.idle();
  expect(counted.actions).toBe(2);
  expect(await grid()).not.toBe(before);
  await b.step('Stage');
  const stalls = (await b.placements()).filter((p) => p.name === '' && p.parent === null).length;
  const five = new Counted(page);
  await five.press(b.row(/^Stall/).first());
  await five.key('Control+d');
  await five.key('Shift+i');
  const own = (await b.placements()).at(-3)!;
  const parts = (await b.project()).parts;
  expect(parts.find((p) => p.id === own.shows.part)!.name).toBe('Stall 2');
  expect((await b.placements()).filter((p) => p.parent === own.id).length).toBeGreaterThan(0);
  await five.press(b.row(/^Fruit/).last());
  await choose(page, 'Another part in its place', 'Fish');
  expect(five.actions + 1).toBe(5);
  expect(stalls).toBeGreaterThan(5);
  const wares = (await b.placements())
    .filter((p) => p.parent === own.id)
    .map((p) => parts.find((o) => o.id === p.shows.part)!.name);
  expect(wares).toContain('Fish');
  // It goes out with its wares and without the market.
  await b.row(/^Stall 2/).click();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a command' }).fill('ship this alone');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/ship$/);
  await b.idle();
  await expect(page.locator('.el-select', { hasText: 'Stall 2' })).toBeVisible();
  const readout = page.getByLabel('Readout');
  await expect(readout).toContainText(`draws ${wares.length + 1}`);
  // The colours of the market are too many for the delivery that is chosen: it is counted all the same.
  await b.step('Stage');
  const meter = readout.getByRole('button', { name: 'Target sheet' });
  await meter.click();
  await page.getByLabel('Target triangles', { exact: true }).fill('90000');
  await page.getByLabel('Target triangles', { exact: true }).press('Enter');
  await page.keyboard.press('Escape');
  await expect(meter).toContainText(/tris [\d,]{6,} \/ 90,000/, { timeout: 60_000 });
  await expect(meter).toHaveAttribute('data-tip', /Counted by the roomiest delivery/);
  await expect(page.getByText(/cubes of “Row boat” hang on nothing/)).toHaveCount(0);
});
