import { choose, giveFiles } from './bench';
import { expect, test } from './test';
import { Artist, floor, top } from './artist';

test('at 1280×800 and 1920×1080, in both themes, every tool’s options stand in their place', async ({ page }) => {
  const b = new Artist(page);
  await b.open();
  await b.part(/^Coat/);
  await page.keyboard.press('m');
  await page.locator('.el-select', { has: page.getByRole('combobox', { name: 'Reach' }) }).click();
  const reaches = await page.getByRole('option').allTextContents();
  await page.keyboard.press('Escape');
  expect(reaches.length).toBe(10);
  for (const [width, height] of [
    [1280, 800],
    [1920, 1080],
  ] as const) {
    await page.setViewportSize({ width, height });
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme });
      for (const r of reaches) {
        await page.keyboard.press('1');
        await choose(page, 'Reach', r);
        const wide = await page.evaluate(() =>
          [...document.querySelectorAll('.build-bench > *, .side')]
            .filter((e) => e.scrollWidth > e.clientWidth + 1)
            .map((e) => e.className),
        );
        expect(wide, `${r} at ${width} in ${colorScheme}`).toEqual([]);
      }
    }
  }
});

test.describe('Layers, volumes and looks', () => {
  test('layers: drawn on, hidden, locked, merged, deleted and back from the bin', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Sleeve', [12, 12, 12]);
    await page.keyboard.press('1');
    await b.byNumbers([6, 4, 6], [-3, 0, -3]);
    await page.keyboard.press('Control+Shift+L');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('layer Layer 2');
    await b.swatch('Straw');
    await b.byNumbers([6, 1, 6], [-3, 4, -3]);
    const layers = async () => (await b.project()).parts[0]!.layers.map((l) => l.grid.cubes);
    expect(await layers()).toEqual([144, 36]);
    await page.getByRole('treeitem', { name: 'Layer 2' }).hover();
    await page.getByRole('button', { name: 'Lock layer Layer 2' }).click();
    await b.byNumbers([1, 1, 1], [0, 6, 0]);
    await expect(page.getByRole('status').filter({ hasText: /Layer 2.*is locked/ })).toBeVisible();
    await page.getByRole('button', { name: 'Unlock layer Layer 2' }).click();
    await page.getByRole('button', { name: 'Hide layer Layer 2' }).click();
    await b.idle();
    expect((await b.cells('Body', [-3, 4, -3], [6, 1, 6])).every((v) => v === 0)).toBe(true);
    await page.getByRole('button', { name: 'Show layer Layer 2' }).click();
    await page.getByRole('treeitem', { name: 'Layer 2' }).hover();
    await page.getByRole('button', { name: 'Delete layer Layer 2' }).click();
    await b.idle();
    expect(await layers()).toEqual([144]);
    expect((await b.project()).bin).toHaveLength(1);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+Shift+E');
    await b.idle();
    expect(await layers()).toEqual([180]);
  });

  test('refine, coarsen, fit, rows and shrinking that would cut: cubes stay in the world, and all of it is history', async ({
    page,
  }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Bench', [16, 12, 16]);
    await page.keyboard.press('1');
    await b.byNumbers([8, 4, 6], [-4, 0, -3]);
    const corner = await b.hint({ part: 'Body', cell: [3, 3, 2], face: [1, 0, 0] });
    await page.getByRole('button', { name: 'Refine ×2' }).first().click();
    await b.idle();
    expect(await b.total()).toBe(8 * 4 * 6 * 8);
    const fine = await b.hint({ part: 'Body', cell: [7, 6, 5], face: [1, 0, 0] });
    expect(Math.hypot(fine.x - corner.x, fine.y - corner.y)).toBeLessThan(16);
    await page.getByRole('button', { name: 'Coarsen ÷2' }).first().click();
    await b.idle();
    expect(await b.total()).toBe(192);
    await page.getByText('More of the volume').click();
    await b.number('Fit height', 5);
    await expect(page.getByText('Y doubles rows 3')).toBeVisible();
    await page.getByRole('button', { name: 'Fit', exact: true }).click();
    await b.idle();
    expect((await b.content()).size).toEqual([8, 5, 6]);
    await page.getByRole('button', { name: 'Add a row in the middle along X' }).click();
    await b.idle();
    expect((await b.content()).size).toEqual([9, 5, 6]);
    await b.number('Width', 4);
    const asked = page.getByRole('status').filter({ hasText: /would cut off \d+ cubes/ });
    await expect(asked).toBeVisible();
    expect((await b.content()).size[0]).toBe(9);
    await asked.getByRole('button', { name: 'Cut them off' }).click();
    await b.idle();
    expect((await b.project()).parts[0]!.bounds.size[0]).toBe(4);
    const steps = (await b.project()).now;
    for (let i = 0; i < steps; i++) await page.keyboard.press('Control+z');
    expect([await b.total(), (await b.project()).parts[0]!.bounds.size]).toEqual([0, [16, 12, 16]]);
  });

  test('the mirror plane is dragged off the middle; cubes without a twin are tinted, counted and mended', async ({
    page,
  }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Mask', [16, 12, 6]);
    await page.keyboard.press('2');
    await page.keyboard.press('m');
    await b.number('Mirror X at', 1.5);
    await expect(page.getByText('mirror X at 1.5, through cubes')).toBeVisible();
    await b.tap(floor(4, 0));
    expect([await b.cell('Body', [4, 0, 0]), await b.cell('Body', [-2, 0, 0]), await b.total()]).toEqual([1, 1, 2]);
    await page.keyboard.press('m');
    await b.tap(floor(6, 1));
    await page.keyboard.press('m');
    await page.keyboard.press('y');
    await expect(page.getByText('1 cube without a twin across X')).toBeVisible();
    await page
      .getByRole('region', { name: 'Symmetry' })
      .getByRole('button', { name: /low half over|−X onto/i })
      .click();
    await b.idle();
    await expect(page.getByText('every cube has its twin across X')).toBeVisible();
    expect(await b.total()).toBe(2);
  });

  test('a shape that leaves the volume is tinted and told; one click grows the volume to fit', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Pier', [10, 8, 10]);
    await page.keyboard.press('1');
    await b.byNumbers([4, 12, 2], [0, 0, 0]);
    const told = page.getByRole('status').filter({ hasText: 'outside the volume' });
    await expect(told).toBeVisible();
    expect(await b.total()).toBe(4 * 8 * 2);
    await told.getByRole('button', { name: 'Grow to fit' }).click();
    await b.idle();
    expect([await b.total(), (await b.project()).parts[0]!.bounds.size]).toEqual([96, [10, 12, 10]]);
  });

  test('a reference picture stands behind the part; the silhouette check counts what differs', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Sign', [12, 12, 4]);
    await page.keyboard.press('1');
    await b.byNumbers([8, 8, 1], [-4, 0, 0]);
    // A picture of 8×8 pixels: a full square but for its upper two rows and one pixel below.
    const { encode } = await import('fast-png');
    const data = new Uint8Array(8 * 8 * 4);
    for (let y = 0; y < 8; y++)
      for (let x = 0; x < 8; x++) if (y >= 2 && !(x === 3 && y === 5)) data.set([30, 60, 50, 255], (x + y * 8) * 4);
    await giveFiles(page.getByRole('button', { name: 'Reference picture…' }), {
      name: 'sign.png',
      mimeType: 'image/png',
      buffer: Buffer.from(encode({ width: 8, height: 8, data, channels: 4 })),
    });
    await expect(page.getByText('sign.png')).toBeVisible();
    // Hidden, it is let go by the graphics card too.
    await b.idle();
    const { textures } = await b.state();
    for (const [name, held] of [
      ['Hide sign.png', textures - 1],
      ['Show sign.png', textures],
    ] as const) {
      await page.getByRole('button', { name }).click();
      await b.idle();
      await expect.poll(async () => (await b.state()).textures).toBe(held);
    }
    await page.getByRole('button', { name: 'Silhouette check' }).click();
    await expect(page.getByText('silhouette: 17 places differ')).toBeVisible();
    await page.keyboard.press('4');
    await b.byNumbers([8, 2, 1], [-4, 6, 0]);
    await b.byNumbers([1, 1, 1], [-1, 2, 0]);
    await expect(page.getByText('the silhouette is that of the picture')).toBeVisible();
    await giveFiles(page.getByRole('button', { name: 'Reference picture…' }), {
      name: 'notes.png',
      mimeType: 'image/png',
      buffer: Buffer.from('no picture'),
    });
    await expect(page.getByRole('status').filter({ hasText: '“notes.png” cannot be read as a picture' })).toBeVisible();
  });

  test('the target sheet has a live meter; a scale figure stands beside; helper cubes are not counted', async ({
    page,
  }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Stool', [16, 16, 16]);
    await page.keyboard.press('1');
    await b.byNumbers([8, 10, 8], [-4, 0, -4]);
    await page.getByText('Target sheet').click();
    await b.number('Target height in metres', 0.45);
    await b.number('Target triangles', 500);
    await expect(page.getByLabel('Readout')).toContainText('height 0.50 / 0.45 m');
    await expect(page.getByLabel('Readout')).toContainText(/tris \d+ \/ 500/);
    await choose(page, 'Scale figure', /^adult/);
    const straw = await b.swatch('Straw');
    await b.byNumbers([1, 1, 1], [5, 0, 5]);
    await page.getByRole('button', { name: 'Edit swatch Straw' }).click();
    await page.getByText('Surface by numbers').click();
    await page.getByLabel(/helper: a spacer/).check();
    await page.getByRole('tab', { name: 'Part', exact: true }).click();
    await expect(page.getByLabel('Readout')).toContainText('cubes 640 + 1 helpers');
    expect(await b.cell('Body', [5, 0, 5])).toBe(straw);
    await page.getByRole('button', { name: 'Find loose cubes and holes' }).click();
    await expect(page.getByText(/1 loose cube in 1 piece,/)).toBeVisible();
    await page.getByRole('button', { name: 'Remove all helper cubes' }).click();
    await b.idle();
    expect(await b.total()).toBe(640);
  });

  test('tools of one’s own are added, named, kept for the project and there again after a reload', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.take('Egg');
    await page.getByRole('radio', { name: /Egg$/ }).dblclick();
    await page.getByLabel('Name of the tool').fill('Lamp glass');
    await page.getByLabel('Name of the tool').press('Enter');
    await b.idle();
    await page.reload();
    await page.waitForURL(/\/build$/);
    await b.idle();
    await expect(
      page.getByRole('radiogroup', { name: 'Tool in hand' }).getByRole('radio', { name: /Lamp glass$/ }),
    ).toBeVisible();
    await page.keyboard.press('9');
    await expect(page.locator('.el-select', { has: page.getByRole('combobox', { name: 'Shape' }) })).toContainText(
      'egg',
    );
  });

  test('the ruler reads between two cubes, and the colour under the pointer is taken by a key', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Plank', [20, 6, 6]);
    await b.swatch('Moss');
    await page.keyboard.press('1');
    await b.byNumbers([12, 1, 2], [-6, 0, 0]);
    await page.keyboard.press('u');
    await b.stroke(top(-6, 0, 0), top(5, 0, 1));
    await expect(page.getByText('12 × 1 × 2 cubes, apart 10, 0, 0').first()).toBeVisible();
    await page.keyboard.press('u');
    await b.swatch('Clay');
    const spot = await b.spot(top(0, 0, 0));
    await page.mouse.move(spot.x, spot.y);
    await page.keyboard.press('c');
    await expect(page.getByRole('radio', { name: 'Moss' })).toBeChecked();
    // Everything can be found by its name.
    await page.keyboard.press('Control+k');
    await page.keyboard.type('guide plane');
    await page.keyboard.press('Enter');
    await expect(page.getByText(/guide plane Y/).first()).toBeVisible();
  });
});

test.describe('Full volumes', () => {
  test('on 256³ a brush of radius 8 keeps the hand free, and a finish in the background can be stopped', async ({
    page,
  }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Mountain', [256, 256, 256]);
    await b.swatch('Slate');
    await page.keyboard.press('Shift+L');
    await page.keyboard.press('1');
    await b.byNumbers([256, 200, 256], [-128, 0, -128]);
    expect(await b.total()).toBe(256 * 200 * 256);
    await b.swatch('Moss');
    await b.take('Add brush');
    await b.number('Size of the brush', 17);
    await page.getByLabel('grow colour').uncheck();
    // The page's own thread is watched while the brush moves; drawing by software is left out of it.
    await page.evaluate(() => {
      const w = window as unknown as { worst: number; seen: PerformanceObserver };
      w.worst = 0;
      w.seen = new PerformanceObserver((list) =>
        list.getEntries().forEach((e) => (w.worst = Math.max(w.worst, e.duration))),
      );
      w.seen.observe({ type: 'longtask' });
    });
    const [from, to] = [await b.spot(top(-20, 199, 0)), await b.spot(top(30, 199, 10))];
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    // Three leaps: the hand is far quicker than the eye.
    await page.mouse.move(to.x, to.y, { steps: 3 });
    await page.mouse.up();
    await b.idle();
    const grown = await b.total();
    expect(grown).toBeGreaterThan(256 * 200 * 256 + 3000);
    // No gap along the stroke: its ridge is one piece of height.
    const ridge = await b.cells('Body', [-20, 200, 0], [40, 1, 1]);
    expect(ridge.every((v) => v !== 0)).toBe(true);
    test.info().annotations.push({
      type: 'longest task while brushing, ms',
      description: String(await page.evaluate(() => (window as unknown as { worst: number }).worst)),
    });

    await b.take('Paint fill');
    await page.getByRole('radiogroup', { name: 'What it fills' }).getByRole('radio', { name: 'piece' }).click();
    const at = await b.spot(top(100, 199, 100));
    await b.click(at);
    expect((await b.project()).history.at(-1)).toMatch(/^[\d,]+ cubes painted /);
    expect(await b.total()).toBe(grown);

    // Thirteen million cubes are speckled in a worker; stopped, nothing has changed, and the next edit goes through.
    await page.getByRole('tab', { name: 'Finish' }).click();
    await page.getByRole('radiogroup', { name: 'Kind of finish' }).getByRole('radio', { name: 'Speckle' }).click();
    const painted = (await b.project()).history;
    await page.getByRole('button', { name: 'Paint it' }).click();
    await page.getByRole('button', { name: 'stop', exact: true }).click();
    await b.idle();
    expect((await b.project()).history).toEqual(painted);
    await page.getByRole('tab', { name: 'Part', exact: true }).click();
    await b.take('Erase point');
    await b.click(await b.spot(top(60, 199, 60)));
    expect(await b.total()).toBe(grown - 1);

    // Edits of every cell are made in the background: half of the mountain mirrored over, stopped once, then done.
    await page.keyboard.press('m');
    await page.keyboard.press('Alt+[');
    await page.keyboard.press('Escape');
    await b.idle();
    expect((await b.project()).history.at(-1)).toBe('Cube erased');
    await page.keyboard.press('Alt+[');
    await b.idle();
    expect((await b.project()).history.at(-1)).toBe('Mirror X over in Body');
    const [left, right] = [
      await b.cells('Body', [-40, 200, -8], [40, 8, 16]),
      await b.cells('Body', [0, 200, -8], [40, 8, 16]),
    ];
    expect(left.length).toBe(right.length);
    for (let i = 0; i < left.length; i += 40) expect(left.slice(i, i + 40)).toEqual(right.slice(i, i + 40).reverse());

    // So are very large shapes: an ellipsoid of two million cells' box taken out of the rock.
    await page.keyboard.press('m');
    await b.take('Ellipsoid');
    await page.keyboard.press('e');
    const rock = await b.total();
    await b.byNumbers([200, 60, 200], [-100, 100, -100]);
    const taken = rock - (await b.total());
    expect(taken / ((Math.PI / 6) * 200 * 60 * 200)).toBeCloseTo(1, 2);
  });
});
