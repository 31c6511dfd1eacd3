import { expect, test } from './test';
import { Bench } from './bench';

test.describe('Build', () => {
  test('points: add, paint and erase do what the hover showed; undo and redo take every step back and forth', async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    await b.part(/^Coat/);
    await page.keyboard.press('N');
    const teal = await b.swatch('Verdigris');
    await page.keyboard.press('2');
    const before = await b.total();
    const spot = await b.face('Coat', [4, 20, 3], [0, 0, 1]);
    await page.mouse.move(spot.x, spot.y);
    await expect(page.getByLabel('Readout')).toContainText('cursor 4, 20, 4');
    await b.click(spot);
    expect(await b.cell('Coat', [4, 20, 4])).toBe(teal);
    expect(await b.total()).toBe(before + 1);

    const ink = await b.swatch('Ink');
    await page.keyboard.press('p');
    await b.click(await b.face('Coat', [4, 20, 4], [0, 0, 1]));
    expect(await b.cell('Coat', [4, 20, 4])).toBe(ink);

    await page.keyboard.press('e');
    await b.click(await b.face('Coat', [4, 20, 4], [0, 0, 1]));
    expect(await b.cell('Coat', [4, 20, 4])).toBe(0);

    await page.keyboard.press('Control+z');
    expect(await b.cell('Coat', [4, 20, 4])).toBe(ink);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    expect(await b.total()).toBe(before);
    await page.keyboard.press('Control+Shift+Z');
    expect(await b.cell('Coat', [4, 20, 4])).toBe(teal);
  });

  test('a box is footprint, then height, with live figures, mirrored on both sides', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.fresh('Crate', [16, 16, 16]);
    const byte = await b.swatch('Oak');
    await page.keyboard.press('1');
    await page.keyboard.press('m');
    await expect(page.getByText('mirror X at 0, between cubes')).toBeVisible();
    const floor = (x: number, z: number) => b.face('Body', [x, -1, z], [0, 1, 0]);
    const [from, to] = [await floor(2, -3), await floor(4, 1)];
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(to.x, to.y, { steps: 5 });
    await expect(page.getByTestId('measure')).toHaveText('drag 3 × 1 × 5 = 15, 30 with its images');
    await page.mouse.up();
    await page.mouse.move(to.x, to.y - 60, { steps: 8 });
    await expect(page.getByTestId('measure')).toContainText(/drag 3 × [2-9] × 5/);
    const tall = Number(/3 × (\d+) × 5/.exec((await page.getByTestId('measure').textContent())!)![1]);
    await page.mouse.down();
    await page.mouse.up();
    await b.idle();
    expect((await b.cells('Body', [2, 0, -3], [3, tall, 5])).every((v) => v === byte)).toBe(true);
    expect((await b.cells('Body', [-5, 0, -3], [3, tall, 5])).every((v) => v === byte)).toBe(true);
    expect(await b.total()).toBe(3 * tall * 5 * 2);
    const p = await b.project();
    expect(p.history.at(-1)).toBe(`Box 3×${tall}×5 of Oak`);
    expect(p.history.length).toBe(2);

    // Escape in the middle of a drag leaves nothing behind.
    await page.keyboard.press('4');
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(to.x, to.y, { steps: 4 });
    await page.keyboard.press('Escape');
    await page.mouse.up();
    await b.idle();
    expect(await b.total()).toBe(3 * tall * 5 * 2);
    expect((await b.project()).history.length).toBe(2);
  });

  test('a face is pulled out and pushed in, counting layers', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.fresh('Block', [12, 12, 12]);
    await b.swatch('Clay');
    await page.keyboard.press('1');
    const f = (x: number, y: number, z: number) => b.face('Body', [x, y, z], [0, 1, 0]);
    await b.drag(await f(-2, -1, -2), await f(1, -1, 1));
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.total()).toBe(16);
    await page.keyboard.press('3');
    const top = await f(0, 0, 0);
    await page.mouse.move(top.x, top.y);
    await page.mouse.down();
    const up = await b.page.evaluate(() =>
      window.sphalerite.screenOf({ part: 'Body', cell: [0, 3, 0], face: [0, 1, 0] }),
    );
    await page.mouse.move(up.x, up.y, { steps: 6 });
    await expect(page.getByTestId('measure')).toHaveText('extrude 3 layers = 48');
    await page.mouse.up();
    await b.idle();
    expect(await b.total()).toBe(64);
    const lid = await f(0, 3, 0);
    const down = await b.page.evaluate(() =>
      window.sphalerite.screenOf({ part: 'Body', cell: [0, 1, 0], face: [0, 1, 0] }),
    );
    await b.drag(lid, down);
    expect(await b.total()).toBe(32);
  });

  test('swatches are chosen and edited; size and pivot change by numbers and cubes stay', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.part(/^Coat/);
    await b.swatch('Resin');
    await page.getByRole('button', { name: /^Edit swatch/ }).click();
    await page.getByLabel('Colour as hex').fill('#336699');
    await page.getByLabel('Colour as hex').press('Enter');
    await page.getByRole('tab', { name: 'Part', exact: true }).click();
    expect((await b.project()).palettes[0]!.swatches.find((s) => s.name === 'Resin')!.colour).toBe('#336699');
    const coat = async () => (await b.project()).parts.find((p) => p.name === 'Coat')!;
    const was = await coat();
    await page.getByLabel('Width', { exact: true }).fill('22');
    await page.getByLabel('Width', { exact: true }).press('Enter');
    expect((await coat()).bounds.size[0]).toBe(22);
    expect((await coat()).layers[0]!.grid.hash).toBe(was.layers[0]!.grid.hash);
    const spot = await b.face('Coat', [4, 20, 3], [0, 0, 1]);
    await page.getByLabel('Pivot Y').fill('15.5');
    await page.getByLabel('Pivot Y').press('Enter');
    await b.idle();
    expect((await coat()).pivot).toEqual([0, 31, 0]);
    const after = await b.face('Coat', [4, 20, 3], [0, 0, 1]);
    expect(Math.hypot(after.x - spot.x, after.y - spot.y)).toBeLessThan(0.01);
    await page.getByLabel('Width', { exact: true }).fill('4');
    await page.getByLabel('Width', { exact: true }).press('Enter');
    await expect(page.getByRole('status').filter({ hasText: /would cut off \d+ cubes of “?"?Coat/ })).toBeVisible();
    expect((await coat()).bounds.size[0]).toBe(22);
  });

  test('a lantern is built with the keyboard alone', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.fresh('Lantern', [9, 12, 9]);
    const press = async (...keys: string[]) => {
      for (const k of keys) await page.keyboard.press(k);
    };
    const times = (k: string, n: number) => new Array<string>(n).fill(k);
    await page.getByRole('radio', { name: 'Soot' }).focus();
    await page.keyboard.press('Space');
    await press('1', 'k');
    await expect(page.getByLabel('Readout')).toContainText('cursor 0, 0, 0');
    // A foot of 5×1×5, from corner to corner.
    await press(
      ...times('ArrowLeft', 2),
      ...times('ArrowDown', 2),
      'Enter',
      ...times('ArrowRight', 4),
      ...times('ArrowUp', 4),
    );
    await expect(page.getByTestId('measure')).toHaveText('box 5 × 1 × 5 = 25');
    await press('Enter');
    await b.idle();
    expect(await b.total()).toBe(25);
    await page.getByRole('radio', { name: 'Lamplight' }).focus();
    await page.keyboard.press('Space');
    await press(
      'PageUp',
      'ArrowLeft',
      'ArrowDown',
      'Enter',
      ...times('ArrowLeft', 2),
      ...times('ArrowDown', 2),
      ...times('PageUp', 3),
      'Enter',
    );
    await b.idle();
    expect(await b.total()).toBe(25 + 36);
    await press('2', 'PageUp', 'ArrowRight', 'ArrowUp', 'Enter');
    await b.idle();
    expect(await b.total()).toBe(25 + 37);
    expect(await b.cell('Body', [0, 5, 0])).toBe(
      (await b.project()).palettes[0]!.swatches.find((w) => w.name === 'Lamplight')!.byte,
    );
  });

  test('a full 256³ part opens, and one cube changes without meshing the rest', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.fresh('Mountain', [256, 256, 256]);
    await b.swatch('Slate');
    await page.keyboard.press('1');
    await page.keyboard.press('Shift+L');
    await page.keyboard.press('k');
    await page.getByLabel('View', { exact: true }).first().focus();
    // From one corner of the volume to the other with the keyboard cursor: the box covers all of it.
    for (const key of ['Shift+ArrowLeft', 'Shift+ArrowDown'])
      for (let i = 0; i < 16; i++) await page.keyboard.press(key);
    await page.keyboard.press('Enter');
    for (const key of ['Shift+ArrowRight', 'Shift+ArrowUp', 'Shift+PageUp'])
      for (let i = 0; i < 32; i++) await page.keyboard.press(key);
    await expect(page.getByTestId('measure')).toHaveText('box 256 × 256 × 256 = 16777216');
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.total()).toBe(256 ** 3);
    await page.keyboard.press('Escape');
    await page.keyboard.press('2');
    await page.keyboard.press('e');
    await b.click(await b.face('Body', [0, 255, 0], [0, 1, 0]));
    expect(await b.total()).toBe(256 ** 3 - 1);
    expect((await b.state()).lastSaveBytes).toBeLessThan(64 * 1024);
    const frames = (await b.state()).frames;
    await b.framesPass();
    expect((await b.state()).frames).toBe(frames);
  });
});
