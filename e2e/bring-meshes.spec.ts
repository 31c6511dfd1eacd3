import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { Bench, choose } from './bench';
import { bust } from './bust';
import { Counted } from './counted';
import { expect, test } from './test';

const cubes = (part: { layers: { grid: { cubes: number } }[] }): number =>
  part.layers.reduce((n, l) => n + l.grid.cubes, 0);

test('a bust from a mesh of another program, its picture dropped later: exact count first, then parts with its names', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  const { obj, mtl, face } = bust();
  const counted = new Counted(page);
  // Dropping both is one action.
  await b.giveAll('drop', [
    ['harbour master.obj', obj],
    ['harbour master.mtl', mtl],
  ]);
  await page.waitForURL(/\/bring$/);
  await expect(page.locator('footer')).toContainText('8,000 triangles');
  await expect(page.getByText('harbour face.png is missing')).toBeVisible();
  await expect(page.locator('.chips')).toContainText('its 5 colours');
  // And dropping what it named is another.
  await b.give('drop', 'harbour face.png', face);
  await expect(page.getByText('harbour face.png is missing')).toHaveCount(0);
  await expect(page.locator('.chips')).toContainText('its 13 colours');
  await b.idle();
  const told = /cubes ([\d,]+)/.exec((await page.locator('footer').textContent())!)![1]!;
  expect((await b.project()).parts).toHaveLength(before.parts.length);
  await counted.press(page.getByRole('button', { name: 'Bring it in' }));
  expect(counted.actions + 2).toBe(3);
  await page.waitForURL(/\/build$/);
  await b.idle();
  const p = await b.project();
  const own = p.parts.slice(before.parts.length);
  expect(own.map((o) => o.name)).toEqual(['head', 'nose', 'ears', 'shoulders', 'collar', 'cap', 'peak', 'badge']);
  expect(own.reduce((n, o) => n + cubes(o), 0)).toBe(Number(told.replaceAll(',', '')));
  // Coat, cap and brass are exact colours of the materials, by their names.
  const swatches = p.palettes.at(-1)!.swatches;
  expect(swatches.find((s) => s.name === 'coat')?.colour).toBe('#21384a');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.project()).parts.length).toBe(before.parts.length);
});

test('the height is wished in cubes or metres, the skin alone, by hand and by keys; nothing hinders anybody there', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const { obj, mtl, face } = bust();
  await b.giveAll('drop', [
    ['harbour master.obj', obj],
    ['harbour master.mtl', mtl],
    ['harbour face.png', face],
  ]);
  await page.waitForURL(/\/bring$/);
  await expect(page.locator('footer')).toContainText('8,000 triangles');
  await page.getByLabel('Height in cubes').fill('24');
  await page.keyboard.press('Enter');
  await expect(page.locator('.panel-head').filter({ hasText: 'Size' })).toContainText('1.032 m high');
  await page.getByLabel('Height in metres').fill('0.43');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Height in cubes')).toHaveValue('10');
  await choose(page, 'Unit of the file', 'in m');
  await page.getByRole('radio', { name: 'surface' }).click();
  await page.getByRole('radio', { name: 'one part' }).click();
  await b.idle();
  await expect(page.locator('footer')).not.toContainText('parts');
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.waitForURL(/\/build$/);
});

test('Tamsin goes out as a GLB and comes home: the parts take their cubes, mounts and clips stay, and it can be undone', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await page.getByRole('navigation').getByRole('link', { name: /Ship/ }).click();
  await page.waitForURL(/\/ship$/);
  await b.idle();
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('e')]);
  const bytes = readFileSync((await download.path())!);
  await page.getByRole('navigation').getByRole('link', { name: /Build/ }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const before = await b.project();
  await b.give('drop', 'tamsin.glb', bytes);
  await page.waitForURL(/\/bring$/);
  await expect(page.getByText('made of cubes: it comes back cube for cube')).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Into the 19 parts of the same names' })).toBeChecked();
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const home = await b.project();
  expect(home.parts.map((p) => [p.id, p.name, p.pivot])).toEqual(before.parts.map((p) => [p.id, p.name, p.pivot]));
  expect(home.rig).toEqual(before.rig);
  expect(home.clips).toEqual(before.clips);
  expect(home.palettes[0]!.swatches.map((s) => s.name)).toEqual(before.palettes[0]!.swatches.map((s) => s.name));
  const [head, old] = [home, before].map((p) => p.parts.find((o) => o.name === 'Head')!);
  const size = old!.bounds;
  expect(cubes(head!)).toBeGreaterThanOrEqual(cubes(old!));
  const middle = await b.cells('Head', size.min, size.size);
  expect(middle.filter((v) => v !== 0).length).toBe(cubes(head!));

  // Beside, with bones and clips of its own.
  await page.keyboard.press('Control+z');
  await b.idle();
  await b.give('drop', 'tamsin.glb', bytes);
  await page.getByRole('checkbox', { name: 'Into the 19 parts of the same names' }).click();
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const twice = await b.project();
  expect([twice.parts.length, twice.clips.length]).toEqual([2 * before.parts.length, 2 * before.clips.length]);
  expect(twice.parts.at(-1)!.name).toMatch(/ 2$/);
});

test('a tree is made up: another of ten is chosen, it is made higher, and stands in the project as a part like any other', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  const counted = new Counted(page);
  await counted.press(page.getByRole('button', { name: 'Make something up' }));
  await page.waitForURL(/\/bring$/);
  await expect(page.locator('footer')).toContainText('39 × 48 × 38');
  const others = page.getByRole('radiogroup', { name: 'Others, by their seeds' });
  await expect(others.locator('img')).toHaveCount(10);
  await counted.press(others.locator('label').filter({ hasText: /^Seed 4$/ }));
  await expect(page.getByLabel('Seed', { exact: true })).toHaveValue('4');
  const told = async (): Promise<number> =>
    Number(/cubes ([\d,]+)/.exec((await page.locator('footer').textContent())!)![1]!.replaceAll(',', ''));
  await b.idle();
  const low = await told();
  await page.getByRole('slider', { name: /^Height: in cubes/ }).focus();
  for (let n = 0; n < 12; n++) await page.keyboard.press('ArrowRight');
  await b.idle();
  expect(await told()).not.toBe(low);
  const exact = await told();
  // Another kind of thing and back, without a word of the tree lost.
  await page.getByRole('button', { name: 'Rock' }).click();
  await expect(page.locator('.where h1')).toContainText('Rock');
  await page.getByRole('button', { name: 'Panels' }).click();
  await expect(page.locator('footer')).toContainText('parts 12');
  await page.getByRole('button', { name: 'Tree', exact: true }).click();
  await expect(page.locator('footer')).toContainText('39 × 48 × 38');
  await counted.press(page.getByRole('button', { name: 'Bring it in' }));
  expect(counted.actions).toBe(3);
  await page.waitForURL(/\/build$/);
  await b.idle();
  const p = await b.project();
  expect(p.parts.at(-1)!.name).toBe('Tree');
  expect(exact).toBeGreaterThan(low);
  expect(p.parts).toHaveLength(before.parts.length + 1);
});

test('a rope is drawn by hand: pulled in the view it gets a place there, which is taken out again; an end goes farther', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await page.getByRole('button', { name: 'Make something up' }).click();
  await page.waitForURL(/\/bring$/);
  await page.getByRole('button', { name: 'Rope or chain' }).click();
  await expect(page.getByText('3 places: drag one, or pull the rope anywhere')).toBeVisible();
  const path = page.getByLabel(/^Path: places/);
  await expect(path).toHaveValue('-40,30,0;0,14,0;40,30,0');
  await b.idle();
  // Between the first place and the second, where the rope hangs.
  const view = (await page.locator('canvas').first().boundingBox())!;
  const at = { x: view.x + view.width * 0.36, y: view.y + view.height * 0.47 };
  await b.drag(at, { x: at.x, y: at.y - 120 });
  await expect(page.getByText('4 places: drag one, or pull the rope anywhere')).toBeVisible();
  const places = (await path.inputValue()).split(';').map((p) => p.split(',').map(Number));
  expect(places).toHaveLength(4);
  expect(places[1]![1]!).toBeGreaterThan(26);
  await page.keyboard.press('Delete');
  await expect(path).toHaveValue('-40,30,0;0,14,0;40,30,0');
  await page.getByRole('button', { name: 'longer' }).click();
  await expect(path).toHaveValue('-40,30,0;0,14,0;40,30,0;62,39,0');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const rope = (await b.project()).parts.at(-1)!;
  expect([rope.name, rope.bounds.size[0] > 100]).toEqual(['Rope', true]);
});
