import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Download, Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { expect, test } from './test';
import { Bench, choose } from './bench';
import { Counted } from './counted';
import { glbJson, readWithThree, validate } from './glb-readers';

const tray = (page: Page) => page.getByRole('complementary', { name: 'Tray' });
const delivery = (page: Page, name: string) => tray(page).getByRole('treeitem', { name: new RegExp(`^${name}`) });
const format = (page: Page, name: string) => tray(page).getByRole('checkbox', { name: new RegExp(`^${name}`) });
/** What the readout says behind a word. */
async function figure(page: Page, name: string): Promise<number> {
  const text = (await page.locator('footer').innerText()).replaceAll(',', '');
  const m = new RegExp(`${name}\\s+(?:\\d+ → )?(\\d+)`).exec(text);
  return m ? Number(m[1]) : -1;
}
async function shipped(page: Page): Promise<{ name: string; bytes: Buffer }> {
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('e')]);
  return saved(download);
}
async function saved(download: Download): Promise<{ name: string; bytes: Buffer }> {
  const file = join(mkdtempSync(join(tmpdir(), 'ship-')), download.suggestedFilename());
  await download.saveAs(file);
  return { name: download.suggestedFilename(), bytes: readFileSync(file) };
}

test('the GLB is without fault, and three and assimp read the same tree, counts and animation', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const project = await b.project();
  await b.step('Ship');
  await expect(page.getByText(/of 3,000 triangles/)).toBeVisible();
  const { name, bytes } = await shipped(page);
  expect(name).toBe('tamsin.glb');

  const report = await validate(bytes);
  // The validator does not know variants, which colourways ship as; it says so and looks no further.
  // Attachment points and colliders are empty nodes, which it remarks on.
  expect(report.issues.messages.filter((m) => m.code !== 'UNSUPPORTED_EXTENSION' && m.code !== 'NODE_EMPTY')).toEqual(
    [],
  );
  const three = await readWithThree(bytes);
  const suffix = (o: { name: string; side: string }) => o.name + (o.side === 'centre' ? '' : ` ${o.side}`);
  // Controls stay at home; what they do is in the clips.
  const bones = project.rig.bones.filter((o) => !/ (goal|bend)$/.test(o.name));
  for (const bone of bones) {
    const parent = bones.find((o) => o.id === bone.parent);
    expect(three.parents[suffix(bone)], suffix(bone)).toContain(parent ? suffix(parent) : project.name);
  }
  expect(three.meshes).toBe(project.parts.length);
  expect(three.clips).toEqual(
    project.clips.map((c) => ({
      name: c.name,
      seconds: expect.closeTo(c.length / 1200, 4),
      tracks: expect.any(Number),
    })),
  );
  // Tamsin stands on the floor and is 46 cubes of 4.3 cm high with her pole.
  expect(three.low).toBeCloseTo(0, 4);
  expect(three.high).toBeCloseTo(46 * 0.043, 3);
  expect(three.triangles).toBe(await figure(page, 'triangles'));

  const file = join(mkdtempSync(join(tmpdir(), 'glb-')), name);
  writeFileSync(file, bytes);
  const info = execFileSync('assimp', ['info', file], { encoding: 'utf8' });
  const told = (of: string) => Number(new RegExp(`${of}:\\s+(\\d+)`).exec(info)![1]);
  expect(told('Animations')).toBe(project.clips.length);
  expect(told('Faces')).toBe(three.triangles);
  for (const bone of bones) expect(info).toContain(suffix(bone));
});

test('a delivery of every format is one file in one action; assimp reads each at its size', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Ship');
  await delivery(page, 'Print').click();
  await format(page, 'Plain mesh').check();
  await format(page, 'Coloured surface').check();
  await format(page, 'Game file, apart').check();
  await expect.poll(() => figure(page, 'triangles')).toBeGreaterThan(0);
  const { name, bytes } = await shipped(page);
  expect(name).toBe('tamsin.zip');
  const folder = mkdtempSync(join(tmpdir(), 'formats-'));
  const files = unzipSync(bytes);
  for (const [entry, data] of Object.entries(files)) writeFileSync(join(folder, entry), data);
  const point = (info: string, which: string): number[] =>
    new RegExp(`${which} point\\s+\\(([^)]*)\\)`).exec(info)![1]!.trim().split(/\s+/).map(Number);
  const high = (file: string, axis: number): number => {
    const info = execFileSync('assimp', ['info', join(folder, file)], { encoding: 'utf8' });
    return point(info, 'Maximum')[axis]! - point(info, 'Minimum')[axis]!;
  };
  expect(high('tamsin.obj', 1)).toBeCloseTo(46 * 0.043, 2);
  expect(high('tamsin.gltf', 1)).toBeCloseTo(46 * 0.043, 2);
  expect(high('tamsin.ply', 1)).toBeCloseTo(46 * 0.043, 2);
  expect(high('tamsin.stl', 2)).toBeCloseTo(120, 2);
  expect(high('tamsin.3mf', 2)).toBeCloseTo(120, 2);
  expect(new TextDecoder().decode(files['tamsin.mtl'])).toContain('map_Kd tamsin-emberquay-colour.png');
});

test('merged, joined, welded, closed: the figures follow, the file is read back and looked at, and its clip plays', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Ship');
  const counted = new Counted(page);
  const triangles = (): Promise<number> => figure(page, 'triangles');
  await expect.poll(triangles).toBeGreaterThan(0);
  const all = await triangles();
  // A mesh of clean materials: one action.
  await counted.press(page.getByRole('radio', { name: 'slot' }));
  expect(counted.actions).toBe(1);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await page.getByRole('radio', { name: 'colour', exact: true }).click();
  await expect.poll(triangles).toBeGreaterThan(all);
  const open = await triangles();
  await page.getByRole('checkbox', { name: 'Watertight' }).check();
  await expect.poll(triangles).not.toBe(open);
  await expect(page.getByText('Watertight: every edge is shared by two triangles')).toBeVisible();
  // The two exclude each other.
  await page.getByRole('checkbox', { name: 'Drop hidden' }).check();
  await expect(page.getByRole('checkbox', { name: 'Watertight' })).not.toBeChecked();
  await page.getByRole('radio', { name: 'skin' }).click();
  await expect.poll(() => figure(page, 'draws')).toBeLessThan(4);

  for (const look of [
    'Wireframe of the file',
    'Normals of the file',
    'Material slots of the file',
    'Texture without light',
  ]) {
    await page.getByRole('button', { name: look }).click();
    await expect(page.getByRole('button', { name: look })).toHaveAttribute('aria-pressed', 'true');
  }
  await page.getByRole('checkbox', { name: 'Second set' }).check();
  await page.getByRole('button', { name: 'Second coordinates' }).click();
  await page.getByRole('button', { name: 'Play the next clip of the file' }).click();
  const project = await b.project();
  await expect(page.locator('.chips')).toContainText(project.clips[0]!.name);
  const { bytes } = await shipped(page);
  expect(glbJson(bytes)).toMatchObject({ skins: [{ joints: expect.any(Array) }] });
});

test('colliders are seen over the file, named by their pattern; exact and moving is answered with convex', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Ship');
  await expect(page.locator('.chips')).toContainText(/\d+ colliders, static/);
  const told = async (): Promise<number> =>
    Number(/(\d+) colliders?/.exec(await page.locator('.chips').innerText())?.[1]);
  const boxes = await told();
  await choose(page, 'Collider', 'one box');
  await expect.poll(told).toBeLessThan(boxes);
  await choose(page, 'Collider', 'exact surface');
  await page.getByRole('radio', { name: 'moving' }).click();
  await expect(
    page.locator('.el-select', { has: page.getByRole('combobox', { name: 'Collider', exact: true }) }),
  ).toContainText('convex');
  await expect(page.locator('.chips')).toContainText(/colliders, moving/);
  await page.getByLabel('Names of colliders').fill('UCX_{name}_{n}');
  await page.keyboard.press('Enter');
  await b.idle();
  await expect.poll(told).toBeGreaterThan(0);
  const { bytes } = await shipped(page);
  const nodes = glbJson(bytes).nodes.filter((o) => o.extras?.collider);
  expect(nodes.length).toBeGreaterThan(10);
  expect(nodes.every((o) => o.extras!.collider === 'hull' && o.extras!.moves === 'moving')).toBe(true);
  expect(nodes.every((o) => /^UCX_/.test(o.name))).toBe(true);
});

test('faces are picked in the view for a slot, which ships as a material; undo gives them back', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Ship');
  await page.getByRole('button', { name: 'Material slots', exact: true }).click();
  await page.getByRole('button', { name: 'Pick faces for a slot' }).click();
  await page.getByLabel('Slot that faces are picked for').fill('Brim');
  await page.keyboard.press('Enter');
  const canvas = (await page.locator('.view canvas').boundingBox())!;
  const spot = { x: canvas.x + canvas.width * 0.42, y: canvas.y + canvas.height * 0.35 };
  await page.mouse.move(spot.x, spot.y);
  await page.mouse.click(spot.x, spot.y);
  await expect.poll(async () => (await b.project()).parts.filter((o) => o.faceSlots !== null).length).toBe(1);
  await page.locator('.chips').getByRole('button', { name: 'done' }).click();
  const { bytes } = await shipped(page);
  expect(glbJson(bytes).materials.map((m) => m.name)).toContain('Brim');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.project()).parts.every((o) => o.faceSlots === null)).toBe(true);
});

test('dropped into a linked folder in two actions, again in one; what is not ours is left alone', async ({ page }) => {
  const b = new Bench(page);
  // The browser's own folder stands in for one that a person would point at.
  await page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('game', { create: true }),
    });
  });
  await b.open();
  await b.step('Ship');
  await expect.poll(() => figure(page, 'triangles')).toBeGreaterThan(0);
  const files = (): Promise<Record<string, number>> =>
    page.evaluate(async () => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('game', { create: true });
      const out: Record<string, number> = {};
      for await (const [name, handle] of (
        folder as unknown as { entries(): AsyncIterable<[string, FileSystemFileHandle]> }
      ).entries()) {
        // While a file is written anew there stands another beside it, which may be gone by now.
        const file = await handle.getFile().catch(() => null);
        if (file) out[name] = file.size;
      }
      return out;
    });
  const counted = new Counted(page);
  await counted.press(page.getByRole('button', { name: 'link a folder' }));
  await counted.key('e');
  expect(counted.actions).toBe(2);
  await expect(page.getByText(/Shipped into “game”: 1 new, 0 changed, 0 as they were/)).toBeVisible();
  expect(Object.keys(await files()).sort()).toEqual(['.sphalerite-delivery.json', 'tamsin.glb']);
  const before = (await files())['tamsin.glb']!;

  // Somebody else's file stands where a new format would write.
  await page.evaluate(async () => {
    const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('game');
    const w = await (await folder.getFileHandle('tamsin.obj', { create: true })).createWritable();
    await w.write('mine');
    await w.close();
  });
  await page.getByRole('radio', { name: 'colour', exact: true }).click();
  await format(page, 'Plain mesh').check();
  await b.idle();
  await page.keyboard.press('e');
  await expect(page.getByText(/tamsin\.obj stands in “game” already and is not from here/)).toBeVisible();
  const after = await files();
  expect(after['tamsin.obj']).toBe(4);
  expect(after['tamsin.glb']).not.toBe(before);
  expect(after['tamsin.mtl']).toBeGreaterThan(0);

  // A file that another program holds: what is told names it, and nothing of it is lost.
  await page.evaluate(async () => {
    const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('game');
    const file = (await folder.getFileHandle('tamsin.glb')) as unknown as {
      createWritable(o: { mode: 'exclusive'; keepExistingData: true }): Promise<FileSystemWritableFileStream>;
    };
    Object.assign(window, { held: await file.createWritable({ mode: 'exclusive', keepExistingData: true }) });
  });
  await page.getByRole('radio', { name: 'slot', exact: true }).click();
  await b.idle();
  await page.keyboard.press('e');
  await expect(page.getByText('tamsin.glb in “game” is held by another program')).toBeVisible();
  expect((await files())['tamsin.glb']).toBe(after['tamsin.glb']);
  await page.evaluate(() => (window as unknown as { held: WritableStream }).held.abort());
  await page.keyboard.press('e');
  await expect.poll(async () => (await files())['tamsin.glb']).not.toBe(after['tamsin.glb']);

  // The folder is known after a reload, but the browser may have taken back what it allowed.
  await page.reload();
  await b.idle();
  await expect(page.getByText('into game')).toBeVisible();
  await page.evaluate(() =>
    Object.assign(FileSystemDirectoryHandle.prototype, { requestPermission: () => Promise.resolve('denied') }),
  );
  await page.keyboard.press('e');
  await expect(page.getByText(/may not write into “game” any more/)).toBeVisible();
  await page.evaluate(() =>
    Object.assign(FileSystemDirectoryHandle.prototype, { requestPermission: () => Promise.resolve('granted') }),
  );
  await page.keyboard.press('e');
  await expect(page.getByText(/Shipped into “game”: 0 new, 0 changed, \d+ as they were/)).toBeAttached();
});

test('deliveries are made, renamed, shared as files and taken back; budgets are told, and lead to where the faces are', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Ship');
  await page.getByRole('button', { name: 'Add a delivery' }).click();
  await page.getByRole('menuitem', { name: 'New delivery like the one in hand' }).click();
  await expect(delivery(page, 'My delivery')).toBeVisible();
  await page.getByRole('button', { name: 'Budget' }).click();
  await page.getByLabel('Budget of triangles').fill('100');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/triangles are more than the 100 of the budget/)).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    (async () => {
      await page.getByRole('button', { name: 'What to do with My delivery' }).click();
      await page.getByRole('menuitem', { name: 'Save it as a file, to share' }).click();
    })(),
  ]);
  const shared = await saved(file);
  expect(shared.name).toBe('my-delivery.delivery.json');
  expect(JSON.parse(shared.bytes.toString())).toMatchObject({ delivery: 'My delivery', budget: { triangles: 100 } });
  await b.give('drop', shared.name, shared.bytes);
  await expect(delivery(page, 'My delivery 2')).toBeVisible();
  // Where the faces are: a part that is clicked is opened in Build.
  const chart = page.getByRole('img', { name: /^Triangles: / });
  await chart.scrollIntoViewIfNeeded();
  const box = (await chart.boundingBox())!;
  await page.mouse.click(box.x + 20, box.y + box.height / 2);
  await page.waitForURL(/build$/);
});

test('which way is up, how far it is, what things are called: as the target wants it', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Ship');
  await choose(page, 'Axis that points up', '+Z up');
  await page.getByLabel('Units a metre').fill('100');
  await page.keyboard.press('Enter');
  await page.getByLabel('Prefix of names').fill('sm_');
  await page.keyboard.press('Enter');
  await choose(page, 'How names are spelt', 'small_letters');
  await expect(page.locator('.chips')).toContainText('+Z up, faces -Y');
  await b.idle();
  const three = await readWithThree((await shipped(page)).bytes);
  expect(Object.keys(three.parents)).toContain('sm_upper_arm left');
  // Her height runs along Z now: what the reader calls up is her depth.
  expect(three.high - three.low).toBeLessThan(46 * 4.3);
});
