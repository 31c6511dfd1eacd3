import { Artist, top } from './artist';
import { choose } from './bench';
import { expect, test } from './test';

test('a tool is changed in the hand alone until it is kept; its sizes it remembers; eggs and cones are found under round shapes', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  const cards = page.getByRole('radiogroup', { name: 'Tool in hand' }).getByRole('radio');
  const options = page.getByRole('region', { name: 'Options of the tool' });
  await page.keyboard.press('1');
  await page.keyboard.press('e');
  await expect(options.getByRole('heading')).toHaveText('Erase box');
  await page.keyboard.press('2');
  await page.keyboard.press('1');
  await expect(options.getByRole('heading')).toHaveText('Add box');
  await b.take('Line');
  await b.number('Thickness', 3);
  await page.keyboard.press('1');
  await b.take('Line');
  await expect(page.getByLabel('Thickness', { exact: true })).toHaveValue('3');
  // What is kept is a card of its own, and there again after a reload.
  await page.keyboard.press('Shift+e');
  const count = await cards.count();
  await choose(page, 'Shape', 'egg');
  await expect(options.getByRole('heading')).toHaveText('Add egg');
  await page.getByRole('button', { name: 'keep as new tool' }).click();
  await b.idle();
  expect(await cards.count()).toBe(count + 1);
  await page.reload();
  await page.waitForURL(/\/build$/);
  await b.idle();
  await expect(cards.last()).toContainText('Add egg');
  await expect(cards.filter({ hasText: /Line$/ })).toHaveCount(1);
});

test('hollowing asks how thick, shows what goes, keeps to the selection; a window is repeated with its recess; the figures are those of the work', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Kiln', [40, 12, 9]);
  const readout = page.locator('.readout');
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'by numbers' }).click();
  await page.getByRole('button', { name: 'Fill the volume' }).click();
  await page.getByRole('button', { name: 'Set it' }).click();
  await b.idle();
  expect(await b.total()).toBe(40 * 12 * 9);
  await page.keyboard.press('Control+Alt+o');
  const takes = page.getByTestId('hollow-takes');
  await expect(takes).toContainText('2,660 cubes');
  await b.number('Thickness of the walls', 2);
  await expect(takes).toContainText('1,440 cubes');
  // Escape leaves all as it was.
  await page.getByRole('region', { name: 'View', exact: true }).focus();
  await page.keyboard.press('Escape');
  await expect(takes).toHaveCount(0);
  expect(await b.total()).toBe(4320);
  // Of a selection only what lies in it goes: its end of the hollow.
  await page.keyboard.press('7');
  await b.byNumbers([20, 12, 9], [-20, 0, -4]);
  await page.keyboard.press('Control+Alt+o');
  await expect(takes).toContainText('720 cubes');
  await page.getByRole('region', { name: 'View', exact: true }).focus();
  await page.keyboard.press('Control+Shift+a');
  await expect(takes).toContainText('1,440 cubes');
  await page.getByRole('button', { name: 'Hollow out', exact: true }).click();
  await b.idle();
  expect(await b.total()).toBe(4320 - 1440);

  // A window in the front wall, three times: frame, recess and all.
  await b.take('Window');
  const at = await b.face('Body', [-15, 6, 4], [0, 0, 1]);
  await b.click(at);
  await page.getByRole('button', { name: 'Set it' }).click();
  await b.idle();
  const one = await b.total();
  const window_ = await b.cells('Body', [-20, 0, 3], [11, 12, 3]);
  await page.getByRole('region', { name: 'View', exact: true }).focus();
  await page.keyboard.press('r');
  await expect(page.getByRole('checkbox', { name: 'empty cells too' })).toBeChecked();
  await b.number('Copies in all', 3);
  await b.number('Step X', 12);
  await page.getByRole('button', { name: 'Set the copies' }).click();
  await b.idle();
  for (const shift of [12, 24])
    expect(await b.cells('Body', [-20 + shift, 0, 3], [11, 12, 3]), `copy ${shift}`).toEqual(window_);
  const now = await b.total();
  expect(now).not.toBe(one);
  await expect(readout).toContainText(`cubes ${now.toLocaleString('en')}`);
});

test('what reaches below the floor is seen and stands on it by one action; a new part stands in no other; pieces and parts are placed by numbers', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Anchor', [8, 8, 8]);
  await page.getByRole('checkbox', { name: 'strokes grow the volume' }).check();
  await page.keyboard.press('1');
  await b.byNumbers([2, 6, 2], [0, -4, 0]);
  await expect(page.getByText('reaches 4 below the floor')).toBeVisible();
  // See-through it is still there, and the pointer finds it.
  await page.keyboard.press('z');
  const foot = await page.evaluate(() =>
    window.sphalerite.screenOf({ part: 'Body', cell: [0, -4, 1], face: [0, 0, 1] }),
  );
  expect(foot.occluded).toBe(false);
  await page.keyboard.press('z');
  await page.getByRole('button', { name: 'stand on the floor' }).click();
  await b.idle();
  await expect(page.getByText('below the floor')).toHaveCount(0);
  expect((await b.project()).history.at(-1)).toBe('Stand everything on the floor');
  const lifted = (await b.project()).rig.mounts[0]!.t;
  expect(lifted).toEqual([0, 4, 0]);

  await page.keyboard.press('Shift+n');
  await b.idle();
  const p = await b.project();
  expect(p.parts[1]!.bounds.min[0]).toBeGreaterThanOrEqual(2);
  await page.getByText('More of the volume').click();
  await b.number('Part at X', 20);
  const placed = await b.project();
  expect(placed.rig.mounts[1]!.t[0] - placed.parts[1]!.pivot[0] / 2 + placed.parts[1]!.bounds.min[0]).toBe(20);
  expect(p.rig.mounts[1]!.t[0] - p.parts[1]!.pivot[0] / 2).toBe(0);

  await b.part(/^Body/);
  await page.keyboard.press('Control+a');
  await b.number('Piece at X', -3);
  await page.keyboard.press('Enter');
  await b.idle();
  expect((await b.content()).min).toEqual([-3, -4, 0]);
});

test('the guide plane is typed in its chip, neighbours come in three ways, and a forgotten mirror says so when it matters', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Mask', [12, 8, 12]);
  await page.keyboard.press('q');
  await b.number('Depth of the guide plane', 2.5);
  await expect(page.getByText('guide plane Y between layers, at')).toBeVisible();
  await b.number('Depth of the guide plane', 6);
  await expect(page.getByText('guide plane Y through layer')).toBeVisible();
  await page.keyboard.press('q');
  // Alike on both sides; then a stroke on one of them, with the mirror off.
  await page.keyboard.press('1');
  await b.byNumbers([8, 1, 8], [-4, 0, -4]);
  await page.keyboard.press('2');
  await b.tap(top(2, 0, 1));
  await expect(page.getByText('mirror X is off')).toBeVisible();
  await page.getByRole('button', { name: 'Mirror it' }).click();
  await b.idle();
  expect([await b.cell('Body', [2, 1, 1]), await b.cell('Body', [-3, 1, 1])].every((v) => v > 0)).toBe(true);
  expect(await b.total()).toBe(66);
  // On in another part it is told of too, at the first stroke there.
  await page.keyboard.press('Shift+n');
  await b.idle();
  const second = (await b.project()).parts[1]!;
  const [x, , z] = second.bounds.min;
  await page.keyboard.press('Home');
  await b.idle();
  await b.click(await b.face(second.name, [x + 2, -1, z + 2], [0, 1, 0]));
  await expect(page.getByText('Mirror X is still on')).toBeVisible();
  await page.getByRole('button', { name: 'Switch it off' }).click();
  await expect(page.getByText('mirror X at')).toHaveCount(0);

  // Like steps stand in one row of the history, and unfold.
  for (const n of [4, 6]) await b.click(await b.face(second.name, [x + n, -1, z + 3], [0, 1, 0]));
  await page.keyboard.press('Control+h');
  const history = page.getByRole('dialog', { name: 'History' });
  await expect(history.getByText('Cube of Clay ×3')).toBeVisible();
  await history.getByRole('button', { name: 'Show all 3 steps “Cube of Clay”' }).click();
  await expect(history.getByText('Cube of Clay', { exact: true })).toHaveCount(4);
  await page.keyboard.press('Escape');
  await expect(history).toHaveCount(0);

  const ways = page.getByRole('radiogroup', { name: 'Neighbours' });
  for (const way of ['coloured', 'hidden', 'faint']) {
    await ways.getByRole('radio', { name: way }).click();
    await expect(ways.getByRole('radio', { name: way })).toBeChecked();
  }
});

test('a new project: Enter in its name goes on to the next field, a click on a name opens it, its kind can be changed; its first shot shows all of it', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await page.keyboard.press('Alt+0');
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Buoy');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  await expect(page.getByRole('radiogroup', { name: 'Kind' }).getByRole('radio', { checked: true })).toBeFocused();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Tamsin', exact: true }).click();
  await page.waitForURL(/\/build$/);
  await b.idle();
  await b.fresh('Mast', [6, 120, 6]);
  await page.getByText('Target sheet').click();
  await page
    .locator('.el-select')
    .filter({ has: page.getByRole('combobox', { name: 'Kind of the project' }) })
    .click();
  await page.getByRole('option', { name: 'creature', exact: true }).click();
  await page.getByRole('button', { name: 'Make it a creature' }).click();
  await b.idle();
  await expect(page.getByTestId('project-menu')).toContainText('creature');
  await page.keyboard.press('1');
  await b.byNumbers([4, 120, 4], [-2, 0, -2]);
  await b.step('Light');
  const [foot, head] = await page.evaluate(() =>
    [0, 119].map((y) => window.sphalerite.screenOf({ part: 'Body', cell: [0, y, 0] })),
  );
  const view = (await page.getByRole('region', { name: 'View', exact: true }).boundingBox())!;
  for (const s of [foot!, head!]) {
    expect(s.y).toBeGreaterThan(view.y);
    expect(s.y).toBeLessThan(view.y + view.height);
  }
});

test('a new volume is whole in the view, from every direction; looked straight along, a height comes from wheel, keys or a number', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Counting house', [48, 24, 40]);
  const view = (await page.getByRole('region', { name: 'View', exact: true }).boundingBox())!;
  const whole = async (from: string): Promise<void> => {
    for (const x of [-24, 23])
      for (const y of [0, 23])
        for (const z of [-20, 19]) {
          const at = await b.hint({ part: 'Body', cell: [x, y, z], face: [Math.sign(x), 0, 0] });
          expect(Math.abs(at.x - view.x - view.width / 2), `${from}: ${x}, ${y}, ${z}`).toBeLessThan(view.width / 2);
          expect(Math.abs(at.y - view.y - view.height / 2), `${from}: ${x}, ${y}, ${z}`).toBeLessThan(view.height / 2);
        }
  };
  await whole('at first');
  for (const keys of ['Control+1', 'Control+Alt+1', 'Control+2', 'Control+Alt+2', 'Control+Alt+3', 'Control+3']) {
    await page.keyboard.press(keys);
    await b.idle();
    await whole(keys);
  }

  await page.keyboard.press('1');
  const footprint = async (from: [number, number], to: [number, number]): Promise<void> => {
    await b.drag(await b.spot(top(from[0], -1, from[1])), await b.spot(top(to[0], -1, to[1])));
    await expect(page.getByText(/you look straight along the height/).first()).toBeVisible();
  };
  const high = async (cell: [number, number]): Promise<number> =>
    (await b.cells('Body', [cell[0], 0, cell[1]], [1, 24, 1])).filter((v) => v !== 0).length;
  await footprint([-20, -10], [-15, -6]);
  for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -100);
  await b.idle();
  await page.mouse.down();
  await page.mouse.up();
  await b.idle();
  expect(await high([-18, -8])).toBe(5);
  // The camera has not come nearer by it.
  await whole('after the wheel');
  await footprint([-5, -10], [0, -6]);
  for (const key of ['PageUp', 'PageUp', 'PageDown', 'PageUp', 'Enter']) await page.keyboard.press(key);
  await b.idle();
  expect(await high([-3, -8])).toBe(3);
  await footprint([8, -10], [13, -6]);
  await b.number('Shape height', 9, false);
  await page.getByRole('button', { name: 'Set it' }).click();
  await b.idle();
  expect(await high([10, -8])).toBe(9);
});
