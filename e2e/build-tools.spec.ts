import { expect, test } from '@playwright/test';
import { Artist, floor, top } from './artist';

test.describe('Build in few actions', () => {
  // An action is one click, drag, chord or filled field; each is counted where it is done.
  test('a fence of twelve posts and a rail up a slope: six after the first post', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Fence', [72, 40, 12]);
    const oak = await b.swatch('Oak');
    await page.keyboard.press('1');
    await b.solid(floor(-34, 0), floor(-33, 1), { height: 9 });
    let actions = 0;
    const did = (): number => ++actions;
    await page.keyboard.press('r'); did();
    await page.getByLabel('Copies in all').fill('12'); await page.keyboard.press('Enter'); did();
    await page.keyboard.type('6'); await page.keyboard.press('Enter'); did();
    await page.keyboard.type('2'); await page.keyboard.press('Enter'); await page.keyboard.press('Enter'); did();
    await b.idle();
    await b.take('Line'); did();
    await b.stroke([[-33, 8, 1], [0, 0, 1]], [[33, 30, 1], [0, 0, 1]]); did();
    expect(actions).toBeLessThanOrEqual(6);
    for (let k = 0; k < 12; k++) expect((await b.cells('Body', [-34 + 6 * k, 2 * k, 0], [2, 9, 2])).every((v) => v === oak)).toBe(true);
    expect(await b.total()).toBe(12 * 36 + 67);
    expect([await b.cell('Body', [-33, 8, 2]), await b.cell('Body', [33, 30, 2])]).toEqual([oak, oak]);
  });

  test('a hollow dome with a wall of two: three; growing a symmetric model by four on both sides: two; an opening on another wall: two', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Dome', [32, 24, 32]);
    await page.keyboard.press('8');
    const [from, to] = [await b.spot(floor(-8, -8)), await b.spot(floor(8, 8))];
    await b.drag(from, to);
    await page.mouse.move(to.x, to.y - 150, { steps: 6 });
    await b.click({ x: to.x, y: to.y - 150 });
    const box = await b.content();
    expect([box.size[0], box.size[2]]).toEqual([17, 17]);
    // The wall is two cubes at the foot, and the way in from below is open.
    const foot = await b.cells('Body', [-8, 0, 0], [17, 1, 1]);
    expect(foot.map((v) => (v ? '#' : '.')).join('')).toBe('##.............##');
    expect(await b.cell('Body', [0, box.size[1] - 2, 0])).not.toBe(0);
    expect(await b.cell('Body', [0, box.size[1] - 3, 0])).toBe(0);

    const before = (await b.project()).parts[0]!;
    await page.keyboard.press('v');
    const side = await b.hint({ part: 'Body', cell: [15, 11, 0], face: [1, 0, 0] });
    const out = await b.hint({ part: 'Body', cell: [19, 11, 0], face: [1, 0, 0] });
    await page.keyboard.down('Alt');
    await b.drag(side, out);
    await page.keyboard.up('Alt');
    const after = (await b.project()).parts[0]!;
    expect([after.bounds.min[0], after.bounds.size[0]]).toEqual([before.bounds.min[0] - 4, before.bounds.size[0] + 8]);
    expect([after.pivot, after.layers[0]!.hash]).toEqual([before.pivot, before.layers[0]!.hash]);
    await page.keyboard.press('v');
  });

  test('an opening waits for its border and filling, is cut mirrored, and goes to another wall by one click', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Walls', [40, 24, 40]);
    await b.swatch('Chalk');
    await page.keyboard.press('1');
    await b.byNumbers([40, 20, 2], [-20, 0, 16]);
    await b.byNumbers([2, 20, 36], [16, 0, -20]);
    const brick = await b.swatch('Brick');
    await b.take('Window');
    await page.getByLabel('Mirror X', { exact: true }).click();
    await b.stroke([[5, 6, 17], [0, 0, 1]], [[12, 15, 17], [0, 0, 1]]);
    await b.number('Border', 2);
    const cut = await b.total();
    await expect(page.getByTestId('measure')).toHaveText('drag 8 × 10 × 1');
    await page.keyboard.press('Enter');
    await b.idle();
    expect(cut).toBe(40 * 20 * 2 + 2 * 20 * 36);
    // Frames on both sides of the middle, right through, and nothing between them.
    for (const x of [5, -13]) {
      expect((await b.cells('Body', [x, 6, 16], [8, 2, 3])).every((v) => v === brick)).toBe(true);
      expect((await b.cells('Body', [x + 2, 8, 16], [4, 6, 3])).every((v) => v === 0)).toBe(true);
    }
    await page.getByLabel('Mirror X', { exact: true }).click();
    await b.tap([[17, 10, -4], [1, 0, 0]]);
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.cell('Body', [18, 6, -4])).toBe(brick);
    expect(await b.cell('Body', [17, 10, -4])).toBe(0);
  });
});

test.describe('Selections', () => {
  test('float along one axis, by arrow and by keys; undo lets go first; copies, turns and flips keep every cube', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Crate', [24, 20, 24]);
    const oak = await b.swatch('Oak');
    await page.keyboard.press('1');
    await b.byNumbers([6, 2, 3], [-4, 0, -2]);
    await b.swatch('Clay');
    await b.byNumbers([1, 1, 1], [-4, 2, -2]);
    await b.take('Select piece');
    await b.tap(top(0, 1, 0));
    const panel = page.getByRole('region', { name: 'Selection' });
    await expect(panel).toContainText('6×3×3 = 37');

    // The arrow in the view: red is X; the distance stands in the readout while it is dragged.
    const middle = await b.hint({ part: 'Body', cell: [-1, 1, -1], face: [0, 0, 0] });
    const far = await b.hint({ part: 'Body', cell: [8, 1, -1], face: [0, 0, 0] });
    const reach = Math.hypot(far.x - middle.x, far.y - middle.y);
    const on = (k: number) => ({ x: middle.x + ((far.x - middle.x) * k) / reach, y: middle.y + ((far.y - middle.y) * k) / reach });
    await page.mouse.move(on(70).x, on(70).y);
    await page.mouse.down();
    await page.mouse.move(on(70 + (reach / 9) * 4).x, on(70 + (reach / 9) * 4).y, { steps: 6 });
    await expect(page.getByTestId('measure')).toHaveText(/move X \+[345]/);
    await page.mouse.up();
    await expect(panel).toContainText('Floating');
    expect(await b.cell('Body', [-4, 0, -2])).toBe(oak);
    await page.keyboard.press('Control+z');
    await expect(panel).toContainText('Selection');
    expect((await b.project()).now).toBe(2);

    // Keys: three to the right, one up, then set down as one step.
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('PageUp');
    await page.keyboard.press('Enter');
    await b.idle();
    expect((await b.project()).history.at(-1)).toBe('Move 37 cubes in Body');
    expect((await b.content()).min).toEqual([-1, 1, -2]);
    expect(await b.total()).toBe(37);

    // Turned about X and back, then about Y and flipped: as many cubes, the other way round. The clay cube tells how.
    await page.keyboard.press('<');
    await page.keyboard.press('>');
    await page.keyboard.press(',');
    await page.keyboard.press('Control+Shift+Y');
    await page.keyboard.press('Enter');
    await b.idle();
    const box = await b.content();
    expect([box.size, await b.total()]).toEqual([[3, 3, 6], 37]);

    // A copy floats in place, is moved, and both stay.
    await page.keyboard.press('Control+d');
    for (let i = 0; i < 4; i++) await page.keyboard.press('PageUp');
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.total()).toBe(74);
    await page.keyboard.press('Delete');
    await b.idle();
    expect(await b.total()).toBe(37);
    // Undo brings the selection back with the cubes.
    await page.keyboard.press('Control+z');
    await expect(panel).toContainText('= 37');
    expect(await b.total()).toBe(74);
  });

  test('a square-on box takes all that lies behind and says how many; hidden cubes stay out', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Block', [12, 12, 12]);
    await page.keyboard.press('1');
    await b.byNumbers([12, 6, 12], [-6, 0, -6]);
    await page.keyboard.press('7');
    await page.keyboard.press('Control+1');
    await page.keyboard.press('o');
    await b.idle();
    await b.stroke([[-2, 1, 5], [0, 0, 1]], [[1, 2, 5], [0, 0, 1]]);
    await expect(page.getByRole('status').filter({ hasText: '96 cubes selected, all that lie behind one another' })).toBeVisible();
    await page.keyboard.press('Alt+s');
    await expect(page.getByText(/cutaway: 768 cubes hidden/)).toBeVisible();
    await page.keyboard.press('Control+a');
    await expect(page.getByRole('region', { name: 'Selection' })).toContainText('= 96');
    await page.keyboard.press('Delete');
    await page.keyboard.press('Alt+x');
    await b.idle();
    expect(await b.total()).toBe(864 - 96);
  });

  test('cut in one project, pasted in another: colours come along, and the paste floats', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.part(/^Head/);
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+c');
    const colours = (await b.project()).palettes[0]!.swatches;
    await b.fresh('Bust', [24, 24, 24]);
    await page.keyboard.press('Control+v');
    await expect(page.getByText(/Paste [\d,]+ cubes: floating/)).toBeVisible();
    expect(await b.total()).toBe(0);
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.total()).toBe(2616);
    const now = (await b.project()).palettes[0]!.swatches;
    expect(now.length).toBeGreaterThan(16);
    const used = [...new Set(await b.cells('Body', [-12, 0, -12], [24, 24, 24]))].filter((v) => v !== 0);
    for (const v of used) expect(colours.map((s) => s.colour)).toContain(now.find((s) => s.byte === v)!.colour);
  });

  test('what floats is set down where it belongs, though another part or layer is chosen', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.part(/^Skirt/);
    const before = (await b.project()).parts.map((p) => p.layers.map((l) => l.cubes));
    const skirt = (await b.project()).parts.findIndex((p) => p.name === 'Skirt');
    await page.keyboard.press('Control+a');
    await page.keyboard.press('PageUp');
    await b.part(/^Head/);
    await b.idle();
    const after = await b.project();
    expect(after.parts.map((p) => p.layers.map((l) => l.cubes)).map((l, i) => (i === skirt ? l.length : l))).toEqual(before.map((l, i) => (i === skirt ? l.length : l)));
    expect(after.history.at(-1)).toMatch(/^Move \d+ cubes in Skirt$/);
    // On a layer of its own, a piece stays with it while another layer is chosen.
    await b.fresh('Two', [12, 12, 12]);
    await page.keyboard.press('1');
    await b.byNumbers([4, 2, 4], [-2, 0, -2]);
    await page.keyboard.press('Control+Shift+L');
    await b.byNumbers([2, 1, 2], [-1, 2, -1]);
    await page.keyboard.press('Shift+J');
    await page.keyboard.press('PageUp');
    await page.getByRole('button', { name: 'Work on layer Cubes' }).click();
    await page.keyboard.press('Enter');
    await b.idle();
    expect((await b.project()).parts[0]!.layers.map((l) => l.cubes)).toEqual([32, 4]);
    expect(await b.cell('Body', [0, 3, 0])).not.toBe(0);
  });

  test('to a layer, to a part, to a stamp that clings to a wall; two selections made alike', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Shed', [32, 20, 32]);
    const oak = await b.swatch('Oak');
    await page.keyboard.press('1');
    await b.byNumbers([20, 12, 2], [-10, 0, -4]);
    await b.swatch('Lamplight');
    await b.byNumbers([2, 3, 1], [-9, 4, -2]);
    await page.keyboard.press('Shift+J');
    await page.keyboard.press('Control+b');
    await expect(page.getByRole('status').filter({ hasText: 'stamp shelf' })).toBeVisible();
    await b.take('Stamp');
    await b.tap([[4, 6, -3], [0, 0, 1]]);
    await b.idle();
    expect(await b.total()).toBe(480 + 12);
    // Mirrored, a stamp lands on both sides.
    await page.keyboard.press('m');
    await b.tap([[7, 2, -3], [0, 0, 1]]);
    expect(await b.total()).toBe(480 + 24);
    await page.keyboard.press('m');

    await b.take('Select hue');
    await b.tap([[4, 6, -2], [0, 0, 1]]);
    await page.keyboard.press('Control+l');
    await b.idle();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('layer Lifted');
    expect((await b.project()).parts[0]!.layers.map((l) => l.cubes)).toEqual([480, 24]);
    await page.keyboard.press('Control+j');
    await b.idle();
    expect((await b.project()).parts.map((p) => p.name)).toEqual(['Body', 'Piece']);
    await page.keyboard.press('Control+z');

    // Same size? The first is kept, the second made alike.
    await page.getByRole('button', { name: 'Work on layer Cubes' }).click();
    await b.swatch('Oak');
    await page.keyboard.press('1');
    await b.byNumbers([4, 4, 4], [-14, 0, 6]);
    await page.keyboard.press('Shift+J');
    await page.keyboard.press('Control+m');
    await b.byNumbers([3, 6, 4], [6, 0, 6]);
    await page.keyboard.press('Shift+J');
    await expect(page.getByTestId('same-size')).toHaveText('kept 4×4×4: X -1, Y +2');
    await page.getByRole('button', { name: 'Make as large as the kept one' }).click();
    await page.keyboard.press('Enter');
    await b.idle();
    expect((await b.cells('Body', [6, 0, 6], [4, 4, 4])).every((v) => v === oak)).toBe(true);
    expect(await b.cell('Body', [6, 5, 6])).toBe(0);
  });
});

test.describe('Symmetry with every reach', () => {
  test('mirrored and turned: fills, faces pulled out and selections moved keep both sides alike, on cubes and between', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Gate', [25, 16, 25]);
    const oak = await b.swatch('Oak');
    await page.keyboard.press('1');
    await page.keyboard.press('m');
    await expect(page.getByText('mirror X at 0.5, through cubes')).toBeVisible();
    await b.byNumbers([3, 4, 3], [5, 0, 0]);
    expect(await b.total()).toBe(72);
    // A fill on one side paints the other.
    const moss = await b.swatch('Moss');
    await page.keyboard.press('5');
    await b.tap(top(6, 3, 1));
    expect((await b.cells('Body', [-7, 0, 0], [3, 4, 3])).every((v) => v === moss)).toBe(true);
    // A face pulled out on one side is pulled out on the other.
    await page.keyboard.press('3');
    const lid = await b.spot(top(6, 3, 1));
    const up = await b.hint({ part: 'Body', cell: [6, 5, 1], face: [0, 1, 0] });
    await b.drag(lid, up);
    expect(await b.total()).toBe(72 + 36);
    expect((await b.cells('Body', [-7, 4, 0], [3, 2, 3])).every((v) => v === moss)).toBe(true);
    // A selection moved on one side moves its image the other way.
    await b.take('Select piece');
    await page.getByLabel('Mirror X', { exact: true }).click();
    await b.tap(top(6, 5, 1));
    await page.getByLabel('Mirror X', { exact: true }).click();
    await expect(page.getByRole('region', { name: 'Selection' })).toContainText('3×6×3 = 54');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.total()).toBe(108);
    for (const x of [7, -9]) expect((await b.cells('Body', [x, 0, 0], [3, 6, 3])).every((v) => v === moss)).toBe(true);
    await page.getByLabel('Mirror X', { exact: true }).click();
    await page.keyboard.press('Control+Shift+A');

    // Four about Y: a box stands four times, and pulling one out pulls out all.
    await b.swatch('Oak');
    await page.keyboard.press('Alt+r');
    await b.number('Radial copies', 4);
    await page.keyboard.press('1');
    await b.byNumbers([2, 2, 1], [3, 0, 0]);
    const posts = [[3, 0, 0, 2, 1], [-4, 0, 0, 2, 1], [0, 0, 3, 1, 2], [0, 0, -4, 1, 2]] as const;
    for (const [x, y, z, w, d] of posts) expect((await b.cells('Body', [x, y, z], [w, 2, d])).every((v) => v === oak)).toBe(true);
    await page.keyboard.press('3');
    await b.drag(await b.spot(top(3, 1, 0)), await b.hint({ part: 'Body', cell: [3, 3, 0], face: [0, 1, 0] }));
    for (const [x, , z, w, d] of posts) expect((await b.cells('Body', [x, 2, z], [w, 2, d])).every((v) => v === oak)).toBe(true);
    expect(await b.total()).toBe(108 + 32);
  });

  test('a stroke to and fro clings to the surface it began on: one layer, no gaps, nothing on top of itself', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.fresh('Path', [60, 12, 20]);
    await page.keyboard.press('2');
    const [from, to] = [await b.spot(floor(-25, 0)), await b.spot(floor(25, 0))];
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(to.x, to.y, { steps: 1 });
    await page.mouse.move(from.x, from.y, { steps: 2 });
    await page.mouse.move(to.x, to.y, { steps: 3 });
    await page.mouse.up();
    await b.idle();
    expect((await b.cells('Body', [-25, 0, 0], [51, 1, 1])).every((v) => v !== 0)).toBe(true);
    expect((await b.content()).size[1]).toBe(1);
    expect((await b.project()).now).toBe(1);
  });
});

test('at 1280×800 and 1920×1080, in both themes, every tool’s options stand in their place', async ({ page }) => {
  const b = new Artist(page);
  await b.open();
  await b.part(/^Coat/);
  await page.keyboard.press('m');
  const reaches = await page.getByLabel('Reach').locator('option').allTextContents();
  expect(reaches.length).toBe(10);
  for (const [width, height] of [[1280, 800], [1920, 1080]] as const) {
    await page.setViewportSize({ width, height });
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme });
      for (const r of reaches) {
        await page.keyboard.press('1');
        await page.getByLabel('Reach').selectOption(r);
        const wide = await page.evaluate(() => [...document.querySelectorAll('.build-bench > *, .side')].filter((e) => e.scrollWidth > e.clientWidth + 1).map((e) => e.className));
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
    const layers = async () => (await b.project()).parts[0]!.layers.map((l) => l.cubes);
    expect(await layers()).toEqual([144, 36]);
    await page.getByRole('button', { name: 'Lock layer Layer 2' }).click();
    await b.byNumbers([1, 1, 1], [0, 6, 0]);
    await expect(page.getByRole('status').filter({ hasText: /Layer 2.*is locked/ })).toBeVisible();
    await page.getByRole('button', { name: 'Unlock layer Layer 2' }).click();
    await page.getByRole('button', { name: 'Hide layer Layer 2' }).click();
    await b.idle();
    expect((await b.cells('Body', [-3, 4, -3], [6, 1, 6])).every((v) => v === 0)).toBe(true);
    await page.getByRole('button', { name: 'Show layer Layer 2' }).click();
    await page.getByRole('button', { name: 'Delete layer Layer 2' }).click();
    await b.idle();
    expect(await layers()).toEqual([144]);
    expect((await b.project()).bin).toHaveLength(1);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+Shift+E');
    await b.idle();
    expect(await layers()).toEqual([180]);
  });

  test('refine, coarsen, fit, rows and shrinking that would cut: cubes stay in the world, and all of it is history', async ({ page }) => {
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

  test('the mirror plane is dragged off the middle; cubes without a twin are tinted, counted and mended', async ({ page }) => {
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
    await expect(page.getByText('1 cubes without a twin across X')).toBeVisible();
    await page.getByRole('region', { name: 'Symmetry' }).getByRole('button', { name: /low half over/i }).click();
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
    for (let y = 0; y < 8; y++) for (let x = 0; x < 8; x++) if (y >= 2 && !(x === 3 && y === 5)) data.set([30, 60, 50, 255], (x + y * 8) * 4);
    await page.getByLabel('Reference picture', { exact: true }).setInputFiles({ name: 'sign.png', mimeType: 'image/png', buffer: Buffer.from(encode({ width: 8, height: 8, data, channels: 4 })) });
    await expect(page.getByText('sign.png')).toBeVisible();
    await page.getByRole('button', { name: 'Silhouette check' }).click();
    await expect(page.getByText('silhouette: 17 places differ')).toBeVisible();
    await page.keyboard.press('4');
    await b.byNumbers([8, 2, 1], [-4, 6, 0]);
    await b.byNumbers([1, 1, 1], [-1, 2, 0]);
    await expect(page.getByText('the silhouette is that of the picture')).toBeVisible();
    await page.getByLabel('Reference picture', { exact: true }).setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
    await expect(page.getByRole('status').filter({ hasText: '“notes.png” cannot be read as a picture' })).toBeVisible();
  });

  test('the target sheet has a live meter; a scale figure stands beside; helper cubes are not counted', async ({ page }) => {
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
    await page.getByLabel('Scale figure').selectOption('adult');
    const straw = await b.swatch('Straw');
    await b.byNumbers([1, 1, 1], [5, 0, 5]);
    await page.getByRole('button', { name: 'Edit swatch Straw' }).click();
    await page.getByLabel(/helper: a spacer/).check();
    await page.keyboard.press('Escape');
    await expect(page.getByLabel('Readout')).toContainText('cubes 640 + 1 helpers');
    expect(await b.cell('Body', [5, 0, 5])).toBe(straw);
    await page.getByRole('button', { name: 'Find loose cubes and holes' }).click();
    await expect(page.getByText(/1 loose cubes in 1 pieces/)).toBeVisible();
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
    await expect(page.getByRole('radiogroup', { name: 'Tool in hand' }).getByRole('radio', { name: /Lamp glass$/ })).toBeVisible();
    await page.keyboard.press('9');
    await expect(page.getByLabel('Profile')).toHaveValue('egg');
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
  test('on 256³ a brush of radius 8 keeps the hand free, and a fill in the background can be stopped', async ({ page }) => {
    test.setTimeout(240_000);
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
      w.seen = new PerformanceObserver((list) => list.getEntries().forEach((e) => (w.worst = Math.max(w.worst, e.duration))));
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
    test.info().annotations.push({ type: 'longest task while brushing, ms', description: String(await page.evaluate(() => (window as unknown as { worst: number }).worst)) });

    await b.take('Paint fill');
    await page.getByRole('group', { name: 'Region' }).getByRole('button', { name: 'piece' }).click();
    const at = await b.spot(top(100, 199, 100));
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.mouse.up();
    await page.getByRole('button', { name: 'Stop' }).click({ timeout: 3000 }).catch(() => undefined);
    await b.idle();
    const stopped = (await b.project()).history.at(-1);
    await b.click(at);
    await b.idle();
    expect((await b.project()).history.at(-1)).toBe('Paint in Body');
    expect(['Add in Body', 'Paint in Body']).toContain(stopped);
    expect(await b.total()).toBe(grown);

    // Edits of every cell are made in the background: half of the mountain mirrored over, stopped once, then done.
    await page.keyboard.press('m');
    await page.keyboard.press('Alt+[');
    await page.keyboard.press('Escape');
    await b.idle();
    expect((await b.project()).history.at(-1)).toBe('Paint in Body');
    await page.keyboard.press('Alt+[');
    await b.idle();
    expect((await b.project()).history.at(-1)).toBe('Mirror X over in Body');
    const [left, right] = [await b.cells('Body', [-40, 200, -8], [40, 8, 16]), await b.cells('Body', [0, 200, -8], [40, 8, 16])];
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
