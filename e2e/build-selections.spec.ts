import { expect, test } from './test';
import { Artist, top } from './artist';

test.describe('Selections', () => {
  test('float along one axis, by arrow and by keys; undo lets go first; copies, turns and flips keep every cube', async ({
    page,
  }) => {
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
    const on = (k: number) => ({
      x: middle.x + ((far.x - middle.x) * k) / reach,
      y: middle.y + ((far.y - middle.y) * k) / reach,
    });
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
    await page.keyboard.press('Alt+Shift+Y');
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
    await b.stroke(
      [
        [-2, 1, 5],
        [0, 0, 1],
      ],
      [
        [1, 2, 5],
        [0, 0, 1],
      ],
    );
    await expect(
      page.getByRole('status').filter({ hasText: '96 cubes selected, all that lie behind one another' }),
    ).toBeVisible();
    await page.keyboard.press('Alt+s');
    await expect(page.getByText(/cutaway: 768 cubes hidden/)).toBeVisible();
    await page.keyboard.press('Control+a');
    await expect(page.getByRole('region', { name: 'Selection' })).toContainText('= 96');
    await page.keyboard.press('Delete');
    await page.keyboard.press('Alt+x');
    await b.idle();
    expect(await b.total()).toBe(864 - 96);
  });

  test('copied in one project, pasted in another: it floats, and is set down with its colours as one step', async ({
    page,
  }) => {
    const b = new Artist(page);
    await b.open();
    await b.part(/^Head/);
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+c');
    const colours = (await b.project()).palettes[0]!.swatches;
    await b.fresh('Bust', [24, 24, 24]);
    await page.keyboard.press('Control+v');
    await expect(page.getByText(/Paste [\d,]+ cubes: floating/)).toBeVisible();
    const before = await b.project();
    expect(await b.total()).toBe(0);
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.total()).toBe(2616);
    expect((await b.project()).history).toHaveLength(before.history.length + 1);
    const now = (await b.project()).palettes[0]!.swatches;
    expect(now.length).toBeGreaterThan(16);
    const used = [...new Set(await b.cells('Body', [-12, 0, -12], [24, 24, 24]))].filter((v) => v !== 0);
    for (const v of used) expect(colours.map((s) => s.colour)).toContain(now.find((s) => s.byte === v)!.colour);
    await page.keyboard.press('Control+z');
    await b.idle();
    const after = await b.project();
    expect([await b.total(), after.palettes]).toEqual([0, before.palettes]);
  });

  test('what floats is set down where it belongs, though another part or layer is chosen', async ({ page }) => {
    const b = new Artist(page);
    await b.open();
    await b.part(/^Skirt/);
    const before = (await b.project()).parts.map((p) => p.layers.map((l) => l.grid.cubes));
    const skirt = (await b.project()).parts.findIndex((p) => p.name === 'Skirt');
    await page.keyboard.press('Control+a');
    await page.keyboard.press('PageUp');
    await b.part(/^Head/);
    await b.idle();
    const after = await b.project();
    expect(
      after.parts.map((p) => p.layers.map((l) => l.grid.cubes)).map((l, i) => (i === skirt ? l.length : l)),
    ).toEqual(before.map((l, i) => (i === skirt ? l.length : l)));
    expect(after.history.at(-1)).toMatch(/^Move \d+ cubes in Skirt$/);
    // On a layer of its own, a piece stays with it while another layer is chosen.
    await b.fresh('Two', [12, 12, 12]);
    await page.keyboard.press('1');
    await b.byNumbers([4, 2, 4], [-2, 0, -2]);
    await page.keyboard.press('Control+Shift+L');
    await b.byNumbers([2, 1, 2], [-1, 2, -1]);
    await page.keyboard.press('Shift+J');
    await page.keyboard.press('PageUp');
    await page.getByRole('treeitem', { name: 'Cubes' }).click();
    await page.keyboard.press('Enter');
    await b.idle();
    expect((await b.project()).parts[0]!.layers.map((l) => l.grid.cubes)).toEqual([32, 4]);
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
    await b.tap([
      [4, 6, -3],
      [0, 0, 1],
    ]);
    await b.idle();
    expect(await b.total()).toBe(480 + 12);
    // Mirrored, a stamp lands on both sides.
    await page.keyboard.press('m');
    await b.tap([
      [7, 2, -3],
      [0, 0, 1],
    ]);
    expect(await b.total()).toBe(480 + 24);
    await page.keyboard.press('m');

    await b.take('Select colour');
    await b.tap([
      [4, 6, -2],
      [0, 0, 1],
    ]);
    await page.keyboard.press('Control+l');
    await b.idle();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('layer Lifted');
    expect((await b.project()).parts[0]!.layers.map((l) => l.grid.cubes)).toEqual([480, 24]);
    await page.keyboard.press('Control+j');
    await b.idle();
    expect((await b.project()).parts.map((p) => p.name)).toEqual(['Body', 'Piece']);
    await page.keyboard.press('Control+z');

    // Same size? The first is kept, the second made alike.
    await page.getByRole('treeitem', { name: 'Cubes' }).click();
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
