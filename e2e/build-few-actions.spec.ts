import { expect, test } from './test';
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
    await page.keyboard.press('r');
    did();
    await page.getByLabel('Copies in all').fill('12');
    await page.keyboard.press('Enter');
    did();
    await page.keyboard.type('6');
    await page.keyboard.press('Enter');
    did();
    await page.keyboard.type('2');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    did();
    await b.idle();
    await b.take('Line');
    did();
    await b.stroke(
      [
        [-33, 8, 1],
        [0, 0, 1],
      ],
      [
        [33, 30, 1],
        [0, 0, 1],
      ],
    );
    did();
    expect(actions).toBeLessThanOrEqual(6);
    for (let k = 0; k < 12; k++)
      expect((await b.cells('Body', [-34 + 6 * k, 2 * k, 0], [2, 9, 2])).every((v) => v === oak)).toBe(true);
    expect(await b.total()).toBe(12 * 36 + 67);
    expect([await b.cell('Body', [-33, 8, 2]), await b.cell('Body', [33, 30, 2])]).toEqual([oak, oak]);
  });

  test('a hollow dome with a wall of two: three; growing a symmetric model by four on both sides: two; an opening on another wall: two', async ({
    page,
  }) => {
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
    expect([after.pivot, after.layers[0]!.grid.hash]).toEqual([before.pivot, before.layers[0]!.grid.hash]);
    await page.keyboard.press('v');
  });

  test('an opening waits for its border and filling, is cut mirrored, and goes to another wall by one click', async ({
    page,
  }) => {
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
    await b.stroke(
      [
        [5, 6, 17],
        [0, 0, 1],
      ],
      [
        [12, 15, 17],
        [0, 0, 1],
      ],
    );
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
    await b.tap([
      [17, 10, -4],
      [1, 0, 0],
    ]);
    await page.keyboard.press('Enter');
    await b.idle();
    expect(await b.cell('Body', [18, 6, -4])).toBe(brick);
    expect(await b.cell('Body', [17, 10, -4])).toBe(0);
  });
});

test.describe('Symmetry with every reach', () => {
  test('mirrored and turned: fills, faces pulled out and selections moved keep both sides alike, on cubes and between', async ({
    page,
  }) => {
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
    const posts = [
      [3, 0, 0, 2, 1],
      [-4, 0, 0, 2, 1],
      [0, 0, 3, 1, 2],
      [0, 0, -4, 1, 2],
    ] as const;
    for (const [x, y, z, w, d] of posts)
      expect((await b.cells('Body', [x, y, z], [w, 2, d])).every((v) => v === oak)).toBe(true);
    await page.keyboard.press('3');
    await b.drag(await b.spot(top(3, 1, 0)), await b.hint({ part: 'Body', cell: [3, 3, 0], face: [0, 1, 0] }));
    for (const [x, , z, w, d] of posts)
      expect((await b.cells('Body', [x, 2, z], [w, 2, d])).every((v) => v === oak)).toBe(true);
    expect(await b.total()).toBe(108 + 32);
  });

  test('a stroke to and fro clings to the surface it began on: one layer, no gaps, nothing on top of itself', async ({
    page,
  }) => {
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
