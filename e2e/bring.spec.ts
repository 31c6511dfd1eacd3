import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { encode } from 'fast-png';
import { encode as encodeJpeg } from 'jpeg-js';
import type { Locator } from '@playwright/test';
import { expect, test } from './test';
import { Bench, choose } from './bench';
import { Counted } from './counted';

type Rgb = readonly [number, number, number];
const WOOD: Rgb = [74, 43, 26],
  HONEY: Rgb = [227, 161, 39],
  CUP: Rgb = [238, 240, 230];
/** A tea sign of 20 × 12 pixels: a frame of wood, honey within, a cup in the middle; its four corners are missing. */
const sign = (x: number, y: number): Rgb | null => {
  const rim = x === 0 || y === 0 || x === 19 || y === 11;
  if ((x === 0 || x === 19) && (y === 0 || y === 11)) return null;
  if (rim) return WOOD;
  return x >= 7 && x < 13 && y >= 4 && y < 9 ? CUP : HONEY;
};
/** It, drawn large: each pixel so many wide. */
function signPng(scale: number): Buffer {
  const [w, h] = [20 * scale, 12 * scale];
  const data = new Uint8Array(w * h * 4);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const c = sign(Math.floor(x / scale), Math.floor(y / scale));
      if (c) data.set([...c, 255], (y * w + x) * 4);
    }
  return Buffer.from(encode({ width: w, height: h, data, channels: 4, depth: 8 }));
}
const hex = (c: Rgb): string => `#${c.map((v) => v.toString(16).padStart(2, '0')).join('')}`;

test('a sign for the tea cart from a picture that was drawn large: three actions, cube for cube, one step of history', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  const counted = new Counted(page);
  await b.give('drop', 'tea_sign.png', signPng(7));
  await counted.press(page.getByRole('button', { name: 'Make it a part' }));
  await expect(page.getByText('enlarged pixels found: a cube a pixel')).toBeVisible();
  await expect(page.locator('footer')).toContainText('20 × 12 × 1');
  await expect(page.locator('footer')).toContainText('nothing is in the project yet');
  expect((await b.project()).parts).toHaveLength(before.parts.length);
  await counted.press(page.getByRole('button', { name: 'Bring it in' }));
  // The drop itself is one more.
  expect(counted.actions + 1).toBe(3);
  await page.waitForURL(/\/build$/);
  await b.idle();
  const p = await b.project();
  const part = p.parts.at(-1)!;
  expect([part.name, p.parts.length]).toEqual(['tea sign', before.parts.length + 1]);
  const swatches = p.palettes.find((o) => o.name === 'tea sign')!.swatches;
  const cells = await b.cells('tea sign', [-10, 0, 0], [20, 12, 1]);
  cells.forEach((v, i) => {
    const c = sign(i % 20, 11 - Math.floor(i / 20));
    expect(swatches.find((s) => s.byte === v)?.colour ?? null, `cube ${i}`).toBe(c && hex(c));
  });
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.project()).parts.length).toBe(before.parts.length);
});

test('a sign that was brought in is made again with other settings after a reload, in place of what it was', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.give('drop', 'tea_sign.png', signPng(7));
  await page.getByRole('button', { name: 'Make it a part' }).click();
  await expect(page.locator('footer')).toContainText('20 × 12 × 1');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await expect(page.getByRole('navigation').getByText('saved', { exact: true })).toBeVisible();
  await page.reload();
  await b.idle();
  await b.part(/^tea sign/);
  const before = await b.project();
  await page.getByRole('tab', { name: 'Part', exact: true }).click();
  await expect(page.getByText('made of tea_sign.png')).toBeVisible();
  const counted = new Counted(page);
  await counted.press(page.getByRole('button', { name: 'Make the part again with other settings' }));
  await page.waitForURL(/\/bring$/);
  await expect(page.locator('footer')).toContainText('20 × 12 × 1');
  await expect(page.getByRole('checkbox', { name: 'In place of what it was' })).toBeChecked();
  await counted.field('Thickness in cubes', 3);
  await expect(page.locator('footer')).toContainText('20 × 12 × 3');
  await counted.press(page.getByRole('button', { name: 'Bring it in' }));
  expect(counted.actions).toBe(3);
  await page.waitForURL(/\/build$/);
  await b.idle();
  const after = await b.project();
  expect(after.parts.map((p) => p.name)).toEqual(before.parts.map((p) => p.name));
  expect(after.rig.mounts).toEqual(before.rig.mounts);
  const cells = await b.cells('tea sign', after.parts.at(-1)!.bounds.min, [20, 12, 3]);
  expect(cells.filter((v) => v > 0)).toHaveLength((20 * 12 - 4) * 3);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.project()).parts.at(-1)!.bounds.size).toEqual([20, 12, 1]);
});

test('parts and a whole project are taken out of a file that is dropped; what clashes is told before', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  await b.give('drop', 'biped.sphal', readFileSync(join(import.meta.dirname, '../content/out/ready-biped.sphal')));
  await page.getByRole('button', { name: 'Take parts, bones, clips or colours from it' }).click();
  const dialog = page.getByRole('dialog', { name: 'Take from another project' });
  await dialog.getByRole('checkbox', { name: 'Head', exact: true }).check();
  // The picture of what comes, and how it will be called.
  const head = dialog.getByRole('listitem').filter({ hasText: 'Head' });
  await expect(head.locator('img')).toHaveAttribute('src', /^data:/);
  await expect(head).toContainText('as “Head 2”');
  await dialog.getByRole('checkbox', { name: 'Hand left', exact: true }).check();
  await dialog.getByRole('checkbox', { name: 'All of “Biped”, as one asset for scenes' }).check();
  await dialog.getByRole('button', { name: 'Take all of it, 2 parts' }).click();
  await expect(dialog).toHaveCount(0);
  await b.idle();
  const after = await b.project();
  expect(after.parts.slice(before.parts.length).map((p) => p.name)).toEqual(['Head 2', 'Hand']);
  expect(after.rig.bones).toEqual(before.rig.bones);
  expect(after.assets.map((a) => [a.name, a.project.parts.length])).toEqual([['Biped', 15]]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.project()).assets.length).toBe(0);
});

test('several things wait one behind the other; one that is left while it is being made leaves nothing behind', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  await b.give('drop', 'tea_sign.png', signPng(3));
  await page.getByRole('button', { name: 'Make it a part' }).click();
  await page.waitForURL(/\/bring$/);
  // A large one, whose cubes take a while, and a small one after it.
  const size = 2048;
  const data = Uint8Array.from({ length: size * size }, (_, i) => ((i * 2654435761) >>> 13) & 255);
  const field = Buffer.from(encode({ width: size, height: size, data, channels: 1, depth: 8 }));
  await b.give('drop', 'field.png', field);
  await page.getByRole('button', { name: 'Make it a relief of heights' }).click();
  await expect(page.getByText('1 more after it')).toBeVisible();
  await b.give('drop', 'small_sign.png', signPng(2));
  await page.getByRole('button', { name: 'Make it a part' }).click();
  await expect(page.getByText('2 more after it')).toBeVisible();
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page.locator('.where h1')).toContainText('field.png');
  // Left at once, whether its cubes are there by then or not.
  await page.keyboard.press('Escape');
  await expect(page.locator('.where h1')).toContainText('small_sign.png');
  await expect(page.locator('footer')).toContainText('20 × 12 × 1');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const after = await b.project();
  expect(after.parts.slice(before.parts.length).map((p) => p.name)).toEqual(['tea sign', 'small sign']);
});

test('a sheet of sprites becomes the frames of a clip, which plays through them', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  // Four flames of 6 × 8 pixels side by side, each higher than the one before.
  const [w, h] = [24, 8];
  const data = new Uint8Array(w * h * 4);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const frame = Math.floor(x / 6),
        i = x % 6;
      if (i > 0 && i < 5 && h - y <= 3 + frame)
        data.set([...(i === 2 || i === 3 ? HONEY : WOOD), 255], (y * w + x) * 4);
    }
  await b.give('drop', 'flame.png', Buffer.from(encode({ width: w, height: h, data, channels: 4, depth: 8 })));
  const counted = new Counted(page);
  await counted.press(page.getByRole('button', { name: 'Make it a part' }));
  await choose(page, 'What the picture shows', 'a sheet: frames of a clip');
  await expect(page.locator('.properties, [aria-label="Properties"]').first()).toContainText('4 of 4 × 1');
  await counted.press(page.getByRole('button', { name: 'Bring it in' }));
  await page.waitForURL(/\/build$/);
  await b.idle();
  const p = await b.project();
  expect(p.parts.slice(before.parts.length).map((o) => [o.name, ...o.bounds.size])).toEqual(
    [1, 2, 3, 4].map((i) => [`flame ${i}`, 6, 8, 1]),
  );
  const clip = p.clips.at(-1)!;
  expect([clip.name, clip.length]).toEqual(['flame', 600]);
  expect(clip.swaps[0]!.keys.map((k) => k.time)).toEqual([0, 150, 300, 450]);
  expect(p.rig.alternateSets.map((s) => s.name)).toEqual(['flame']);
  await b.step('Animate');
  await page.getByRole('treeitem', { name: /^flame/ }).click();
  await expect(page.getByRole('button', { name: /^flame wears flame 3 from frame/ })).toBeVisible();
});

test('cut by its frame, matched to the palette, puffed, left and begun again; leaving changes nothing', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  await b.give('paste', 'tea_sign.png', signPng(5));
  await page.getByRole('button', { name: 'Make it a part' }).click();
  await expect(page.locator('footer')).toContainText('20 × 12 × 1');
  // The left edge is dragged in by a quarter of the picture, the top one goes by keys.
  const edge = page.getByRole('slider', { name: 'Cut off at the left' });
  const [box, picture] = [(await edge.boundingBox())!, (await page.locator('.picture img').boundingBox())!];
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(picture.x + picture.width / 4, box.y + 10, { steps: 4 });
  await page.mouse.up();
  await expect(page.locator('footer')).toContainText('15 × 12 × 1');
  await page.getByRole('slider', { name: 'Cut off at the top' }).focus();
  for (let n = 0; n < 5; n++) await page.keyboard.press('ArrowDown');
  await expect(page.locator('footer')).toContainText('15 × 11 × 1');
  await page.getByRole('radio', { name: 'palette', exact: true }).click();
  await choose(page, 'Relief', 'puffed from its outline');
  await expect(page.locator('footer')).toContainText('15 × 11 × 5');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  expect(await b.project()).toEqual(before);

  await b.give('drop', 'tea_sign.png', signPng(5));
  await page.getByRole('button', { name: 'Make it a part' }).click();
  await page.getByRole('radio', { name: 'palette', exact: true }).click();
  await expect(page.locator('footer')).toContainText('20 × 12 × 1');
  await b.idle();
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/build$/);
  await b.idle();
  const p = await b.project();
  expect(p.palettes.length).toBe(before.palettes.length);
  const known = new Set(p.palettes[0]!.swatches.map((s) => s.byte));
  const cells = await b.cells('tea sign', [-10, 0, 0], [20, 12, 1]);
  expect(cells.filter((v) => v !== 0)).toHaveLength(20 * 12 - 4);
  expect(cells.every((v) => v === 0 || known.has(v))).toBe(true);
});

test('on the shelf a photograph begins a project of its own; what cannot be read is told', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await page.keyboard.press('Alt+0');
  await page.waitForURL((u) => u.pathname === '/');
  const [width, height] = [300, 200];
  const data = new Uint8Array(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const [x, y] = [i % width, Math.floor(i / width)];
    data.set([90 + 80 * Math.sin(x / 40), 100 + y / 3, 200 - (x + y) / 5, 255], i * 4);
  }
  const photo = Buffer.from(encodeJpeg({ width, height, data }, 90).data);
  await b.give('drop', 'low_water.jpg', photo);
  await page.getByRole('button', { name: 'Make it a part' }).click();
  await page.waitForURL(/\/bring$/);
  await expect(page.locator('footer')).toContainText('64 × 43 × 1');
  await expect(page.locator('.chips')).toContainText(/^24 of [\d,]+ colours/);
  await page.getByLabel('Width in cubes').fill('120');
  await page.keyboard.press('Enter');
  await expect(page.locator('footer')).toContainText('120 × 80 × 1');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const p = await b.project();
  expect([p.name, p.parts.map((o) => o.name)]).toEqual(['low_water', ['low water']]);
  expect(p.parts[0]!.bounds.size).toEqual([120, 80, 1]);

  await b.give('drop', 'torn.jpg', photo.subarray(0, 200));
  await page.getByRole('button', { name: 'Make it a part' }).click();
  await expect(page.locator('.chips')).toContainText('It is damaged and cannot be decoded.');
  await expect(page.getByRole('button', { name: 'Bring it in' })).toBeDisabled();
  await page.keyboard.press('Escape');
  await page.waitForURL(/\/build$/);
});

test('a wall of sluice panels with its colours becomes forty props, each in its place: three actions', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  // Eight by five panels of 10 × 8 pixels, 4 apart, each with a lid half as wide and twice as high.
  const [w, h] = [8 * 14, 5 * 12];
  const inside = (x: number, y: number): readonly [number, number] | null =>
    x % 14 < 10 && y % 12 < 8 ? [x % 14, y % 12] : null;
  const heights = new Uint8Array(w * h * 3),
    colours = new Uint8Array(w * h * 3);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const at = inside(x, y);
      if (!at) continue;
      const lid = at[0] > 2 && at[0] < 8 && at[1] > 1 && at[1] < 6;
      heights.fill(lid ? 255 : 128, (y * w + x) * 3, (y * w + x) * 3 + 3);
      colours.set(lid ? [200, 150, 60] : [40, 100 + 20 * Math.floor(y / 12), 95], (y * w + x) * 3);
    }
  const png = (data: Uint8Array): Buffer => Buffer.from(encode({ width: w, height: h, data, channels: 3, depth: 8 }));
  await b.giveAll('drop', [
    ['sluice-heights.png', png(heights)],
    ['sluice-colours.png', png(colours)],
  ]);
  await page.waitForURL(/\/bring$/);
  const counted = new Counted(page);
  await counted.press(page.getByRole('radio', { name: 'pieces' }));
  await expect(page.locator('footer')).toContainText('parts 40');
  await b.idle();
  await counted.press(page.getByRole('button', { name: 'Bring it in' }));
  expect(counted.actions + 1).toBe(3);
  await page.waitForURL(/\/build$/);
  await b.idle();
  const p = await b.project();
  const made = p.parts.slice(before.parts.length);
  expect(made.map((o) => o.name)).toEqual(Array.from({ length: 40 }, (_, i) => `sluice ${i + 1}`));
  expect(made.every((o) => o.bounds.size.join() === '10,13,8')).toBe(true);
  // Six colours as they were, none of what lies between the panels.
  const palette = p.palettes.find((o) => o.name === 'sluice')!;
  expect(palette.swatches.map((s) => s.colour).sort()).toEqual(
    ['#28645f', '#28785f', '#288c5f', '#28a05f', '#28b45f', '#c8963c'].sort(),
  );
  // They lie in one group of the tray, which folds.
  const tray = page.getByRole('tree', { name: 'Parts' });
  const group = tray.getByRole('treeitem', { name: 'Group sluice' });
  await expect(group).toContainText('40 parts');
  await expect(tray.getByRole('treeitem', { name: 'sluice 1', exact: true })).toHaveAttribute('aria-level', '2');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await b.project()).parts.length).toBe(before.parts.length);
});

test('panels are made up, go on as heights, and lie in a group that is renamed, left by one part and taken apart', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  await page.getByRole('button', { name: 'Make something up' }).click();
  await page.waitForURL(/\/bring$/);
  await page.getByRole('button', { name: 'Panels', exact: true }).click();
  await expect(page.locator('footer')).toContainText('parts 12');
  await b.idle();
  await page.getByRole('button', { name: 'Shape it as heights' }).click();
  await page.getByRole('radio', { name: 'pieces' }).click();
  await expect(page.locator('footer')).toContainText('parts 12');
  await b.idle();
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const made = (await b.project()).parts.slice(before.parts.length);
  expect(made.map((p) => p.group)).toEqual(made.map(() => 'Panels'));
  const tray = page.getByRole('tree', { name: 'Parts' });
  const row = (name: string): Locator => tray.getByRole('treeitem', { name, exact: true });
  await row('Group Panels').locator('.tree-name').dblclick();
  await page.getByLabel('Name of Panels').fill('Sluice wall');
  await page.keyboard.press('Enter');
  await expect(row('Group Sluice wall')).toBeVisible();
  const groupOf = async (name: string): Promise<string | null> =>
    (await b.project()).parts.find((p) => p.name === name)!.group;
  // Beside what lies in no group it comes out of its own; onto the group it goes in again.
  const within = async (name: string, y: number): Promise<{ x: number; y: number }> => {
    const box = (await row(name).boundingBox())!;
    return { x: box.x + 100, y: box.y + y };
  };
  await row('Panels 2').click();
  await b.drag(await within('Panels 2', 20), await within('Lantern', 4));
  await expect.poll(() => groupOf('Panels 2')).toBeNull();
  await b.drag(await within('Panels 2', 20), await within('Group Sluice wall', 25));
  await expect.poll(() => groupOf('Panels 2')).toBe('Sluice wall');
  await row('Group Sluice wall').click();
  await expect(row('Panels 7')).toHaveAttribute('aria-selected', 'true');
  await row('Group Sluice wall').getByRole('button', { name: 'Hide Sluice wall' }).click();
  await expect.poll(async () => (await b.project()).parts.filter((p) => p.hidden).length).toBe(12);
  await page.keyboard.press('Control+z');
  await row('Group Sluice wall').locator('.tree-row').first().click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Ungroup the parts' }).click();
  await expect.poll(async () => (await b.project()).parts.filter((p) => p.group !== null).length).toBe(0);
  expect((await b.project()).parts).toHaveLength(before.parts.length + 12);
});

test('numbered slices come in cube for cube, from the floor up or from the back', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const [w, h, n] = [6, 5, 4];
  const value = (x: number, y: number, k: number): number =>
    (x * 7 + y * 5 + k * 3) % 4 === 0 ? 0 : 1 + ((x + y * k) % 3);
  const palette = [
    [0, 0, 0, 0],
    [186, 66, 40, 255],
    [64, 120, 96, 255],
    [222, 190, 120, 255],
  ];
  const slice = (k: number): Buffer => {
    const data = new Uint8Array(w * h);
    for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) data[y * w + x] = value(x, y, k);
    return Buffer.from(encode({ width: w, height: h, data, channels: 1, depth: 8, palette: palette as never }));
  };
  await b.giveAll(
    'drop',
    Array.from({ length: n }, (_, k) => [`kiln ${k + 1}.png`, slice(k)] as const),
  );
  await page.waitForURL(/\/bring$/);
  await expect(page.locator('footer')).toContainText(`${w} × ${n} × ${h}`);
  await choose(page, 'The way from slice to slice', 'seen from the front, back to front');
  await expect(page.locator('footer')).toContainText(`${w} × ${h} × ${n}`);
  await b.idle();
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const part = (await b.project()).parts.at(-1)!;
  expect(part.bounds.size).toEqual([w, h, n]);
  const cells = await b.cells(part.name, part.bounds.min, part.bounds.size);
  const at = (x: number, y: number, z: number): number => cells[x + w * (y + h * z)]!;
  for (let k = 0; k < n; k++)
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) expect(at(x, h - 1 - y, k), `${x} ${y} ${k}`).toBe(value(x, y, k));
});

test('a piece is dragged onto another in the view and they come in as one part', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const before = await b.project();
  // Three panels of 16 × 20 pixels, 8 apart.
  const [w, h] = [64, 20],
    data = new Uint8Array(w * h);
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) data[y * w + x] = x % 24 < 16 ? 200 : 0;
  await b.give('drop', 'quay-heights.png', Buffer.from(encode({ width: w, height: h, data, channels: 1, depth: 8 })));
  await page.getByRole('button', { name: 'Make it a relief of heights' }).click();
  await page.waitForURL(/\/bring$/);
  await page.getByRole('radio', { name: 'pieces' }).click();
  await expect(page.locator('footer')).toContainText('parts 3');
  await b.idle();
  // What the pointer is over is told: a walk over the view finds each.
  const view = (await page.locator('canvas').first().boundingBox())!;
  const found = new Map<string, readonly [number, number]>();
  for (let j = 3; j < 9 && found.size < 3; j++)
    for (let i = 2; i < 19; i++) {
      const at = [view.x + (view.width * i) / 20, view.y + (view.height * j) / 10] as const;
      await page.mouse.move(...at);
      const name = /quay \d/.exec((await page.locator('.chips').textContent()) ?? '')?.[0];
      if (name && !found.has(name)) found.set(name, at);
    }
  expect([...found.keys()].sort()).toEqual(['quay 1', 'quay 2', 'quay 3']);
  await page.mouse.move(...found.get('quay 1')!);
  await page.mouse.down();
  await page.mouse.move(...found.get('quay 3')!, { steps: 4 });
  await page.mouse.up();
  await expect(page.locator('footer')).toContainText('parts 2');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const made = (await b.project()).parts.slice(before.parts.length);
  expect(made.map((p) => p.bounds.size[0]).sort((x, y) => x - y)).toEqual([16, 64]);
});

test('a drawing comes in by a few swatches of the palette that were pressed', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const palette = (await b.project()).palettes[0]!.swatches;
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><rect width="40" height="20" fill="#fff"/><rect x="10" y="5" width="20" height="10" fill="#222"/></svg>';
  await b.give('drop', 'harbour sign.svg', Buffer.from(svg));
  await page.getByRole('button', { name: 'Make it a part' }).click();
  await page.waitForURL(/\/bring$/);
  await expect(page.locator('footer')).toContainText('1,024 × 512');
  await page.getByRole('radio', { name: 'palette', exact: true }).click();
  const wanted = [palette[0]!, palette[5]!];
  const only = page.getByRole('group', { name: 'Swatches that may be used' });
  for (const s of wanted) await only.getByRole('button', { name: s.name, exact: true }).click();
  await expect(page.getByText(`2 of ${palette.length}`)).toBeVisible();
  await b.idle();
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  const part = (await b.project()).parts.at(-1)!;
  const cells = await b.cells(part.name, part.bounds.min, part.bounds.size);
  expect([...new Set(cells)].filter((v) => v > 0).sort((x, y) => x - y)).toEqual(
    wanted.map((s) => s.byte).sort((x, y) => x - y),
  );
});
