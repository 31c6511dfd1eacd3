import type { Page } from '@playwright/test';
import { choose } from './bench';
import { Counted } from './counted';
import { expect, test } from './test';

/** What a practitioner is asked to make, in the actions that a new user's hand may need for it. */
const hand = async (page: Page): Promise<Counted> => {
  const b = new Counted(page);
  await b.open();
  return b;
};

test('a balloon in 45: striped envelope, basket with a rim, ropes on all four sides', async ({ page }) => {
  const b = await hand(page);
  await b.begin('Balloon', [24, 40, 24]);
  // The envelope, in stripes that go around it.
  await b.tool('Ball');
  await b.colour('Clay');
  await b.typed({ width: 21, height: 22, depth: 21, Y: 18 });
  expect((await b.content()).size).toEqual([21, 22, 21]);
  await b.key('Alt+r');
  await b.tool('Paint box');
  await b.colour('Straw');
  await b.typed({ width: 3, height: 22, depth: 12, X: -1, Y: 18, Z: 0 });
  await b.key('Alt+r');
  const striped = await b.total();
  // The basket: hollow, open at its top, and a rim of another wood around it.
  await b.colour('Oak');
  await b.key('1');
  await b.press(page.getByRole('radio', { name: 'hollow', exact: true }));
  await choose(page, 'Open ends', 'open at the top');
  b.actions += 2;
  await b.typed({ width: 8, height: 6, depth: 8 });
  // Ropes: one drawn, four there.
  await b.key('m');
  await b.key('Alt+m');
  await b.tool('Line');
  await b.pull(
    await page.evaluate(() => window.sphalerite.screenOf({ part: 'Body', cell: [3, 5, 3], face: [0, 1, 0] })),
    await page.evaluate(() => window.sphalerite.screenOf({ part: 'Body', cell: [5, 20, 5], face: [0, -1, 0] })),
  );
  expect(await b.total()).toBeGreaterThan(striped + 8 * 6 * 4);
  expect(b.actions).toBeLessThanOrEqual(45);
});

test('two heads switched in a clip in 15', async ({ page }) => {
  const b = await hand(page);
  await b.press(page.getByRole('complementary', { name: 'Tray' }).getByRole('treeitem', { name: /^Head/ }).first());
  await b.key('Control+Alt+a');
  await b.key('5');
  await b.colour('Verdigris');
  await b.at(await b.face('Head 2', [0, 37, 5], [0, 0, 1]).catch(() => b.joint('Head')));
  await b.to('Animate');
  await b.press(page.getByRole('treeitem', { name: /^Idle/ }));
  const ruler = (await page.getByTestId('ruler').boundingBox())!;
  const x = (frame: number): number => ruler.x + 168 + 12 + ((ruler.width - 168 - 24) * frame) / 48;
  const wears = page.getByRole('radiogroup', { name: 'Head wears' });
  for (const [frame, head] of [
    [12, 'Head'],
    [36, 'Head 2'],
  ] as const) {
    await b.at({ x: x(frame), y: ruler.y + 10 });
    await b.press(wears.getByRole('radio', { name: head, exact: true }));
  }
  const clip = (await b.project()).clips.find((c) => c.name === 'Idle') as unknown as {
    swaps: { keys: { time: number }[] }[];
  };
  expect(clip.swaps[0]!.keys.map((k) => k.time)).toEqual([0, 600, 1800]);
  expect(b.actions).toBeLessThanOrEqual(15);
});

test('a ring, closed outside, and an octagon of one bar crossed with itself, in 20', async ({ page }) => {
  const b = await hand(page);
  await b.begin('Wheel', [16, 16, 16]);
  await b.to('Rig');
  const dialog = page.getByRole('dialog');
  const ring = async (name: string, kind: RegExp): Promise<void> => {
    await b.press(b.button(/^Build a ring|^Ring…/));
    await page.getByLabel('Name of the ring').fill(name);
    await b.press(dialog.getByRole('radio', { name: kind }));
    await b.press(dialog.getByRole('button', { name: 'Build it' }));
    await expect(dialog).toHaveCount(0);
  };
  await ring('Rim', /closed outside/);
  await b.press(page.getByRole('treeitem', { name: /^Rim 1$/ }).first());
  await b.press(b.button(/^Build a ring|^Ring…/));
  await page.getByLabel('Name of the ring').fill('Octagon');
  await b.press(dialog.getByRole('radio', { name: /crossed 4 times/ }));
  await b.press(dialog.getByRole('radio', { name: 'on the floor, on no bone' }));
  await b.press(dialog.getByRole('button', { name: 'Build it' }));
  const p = await b.project();
  expect(p.parts.filter((o) => o.name.startsWith('Octagon'))).toHaveLength(1);
  expect(p.rig.bones.filter((o) => o.name.startsWith('Octagon')).map((o) => o.parent)).toEqual([
    null,
    null,
    null,
    null,
  ]);
  expect(b.actions).toBeLessThanOrEqual(20);
});

test('a ready rig, changed and kept, in 30', async ({ page }) => {
  const b = await hand(page);
  await b.key('Alt+0');
  await b.press(b.button('New project'));
  await b.press(page.getByRole('radio', { name: 'Biped', exact: true }));
  await page.getByLabel('Name', { exact: true }).fill('Porter');
  await b.press(b.button('Put it on the bench'));
  await page.waitForURL(/\/rig$/);
  await b.idle();
  await b.to('Build');
  await b.press(page.getByRole('treeitem', { name: /^Head/ }).first());
  await b.key('Control+a');
  await b.key('Shift+p');
  await b.key('1');
  await b.typed({ width: 10, height: 2, depth: 10, Y: 40 });
  await b.to('Rig');
  await b.press(b.button('Save as a ready rig…'));
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox').first().fill('Porter with a hat');
  await b.press(dialog.getByRole('button', { name: 'Save it' }));
  await expect(page.getByText('“Porter with a hat” is a ready rig now')).toBeVisible();
  expect(b.actions).toBeLessThanOrEqual(30);
});

test('an egg with a creature in it in 45: a shell with an opening, a body, a beak and two eyes', async ({ page }) => {
  const b = await hand(page);
  await b.begin('Egg', [20, 24, 20]);
  await b.tool('Egg');
  await b.colour('Chalk');
  await b.press(page.getByRole('radio', { name: 'hollow', exact: true }));
  await choose(page, 'Open ends', 'closed');
  b.actions += 2;
  await b.typed({ width: 17, height: 22, depth: 17 });
  const shell = await b.total();
  // Broken open at the front and the top.
  await b.press(page.getByRole('radio', { name: 'Erase box' }));
  await b.typed({ width: 17, height: 10, depth: 8, Y: 10, Z: 2 });
  expect(await b.total()).toBeLessThan(shell);
  // The chick: a ball, a beak, two eyes by the mirror.
  await b.tool('Ball');
  await b.colour('Straw');
  await b.typed({ width: 9, height: 10, depth: 9, Y: 5 });
  const bare = await b.total();
  await b.key('m');
  await b.key('2');
  await b.colour('Soot');
  await b.at(await b.face('Body', [2, 11, 4], [0, 0, 1]));
  await b.colour('Clay');
  await b.at(await b.face('Body', [0, 10, 4], [0, 0, 1]));
  // Two eyes; the beak is on the plane of the mirror, once.
  expect(await b.total()).toBeGreaterThanOrEqual(bare + 3);
  expect(b.actions).toBeLessThanOrEqual(45);
});

test('a room with stairs and windows in 75', async ({ page }) => {
  const b = await hand(page);
  await b.begin('Room', [32, 16, 24]);
  await b.colour('Oak');
  await b.press(b.button('by numbers'));
  await b.press(b.button('Fill the volume'));
  await b.field('Shape height', 1);
  await b.press(b.button('Set it'));
  expect(await b.total()).toBe(32 * 24);
  // Four walls without floor or ceiling.
  await b.press(page.getByRole('radio', { name: 'hollow', exact: true }));
  await choose(page, 'Open ends', 'open at both');
  b.actions += 2;
  await b.colour('Chalk');
  await b.press(b.button('by numbers'));
  await b.press(b.button('Fill the volume'));
  await b.press(b.button('Set it'));
  expect(await b.total()).toBe(32 * 24 + 15 * (2 * 32 + 2 * 22));
  const walled = await b.total();
  // Two windows in the front, the second by repeating the first.
  await b.tool('Window');
  await b.colour('Bark');
  await b.at(await b.face('Body', [-9, 8, 11], [0, 0, 1]));
  await b.press(b.button('Set it'));
  await page.getByRole('region', { name: 'View', exact: true }).focus();
  await b.key('r');
  await b.field('Copies in all', 2);
  await b.field('Step X', 14);
  await b.press(b.button('Set the copies'));
  expect(await b.cells('Body', [-14, 2, 11], [11, 13, 1])).toEqual(await b.cells('Body', [0, 2, 11], [11, 13, 1]));
  expect(await b.total()).not.toBe(walled);
  await b.tool('Door');
  await b.at(await b.face('Body', [15, 1, 2], [1, 0, 0]));
  await b.press(b.button('Set it'));
  // Stairs along the back wall, drawn from above: one looks in over the walls.
  await b.tool('Step line');
  await b.field('Thickness', 4);
  await page.keyboard.press('Control+3');
  await b.idle();
  const before = await b.total();
  await b.pull(await b.face('Body', [-10, 0, -8], [0, 1, 0]), await b.face('Body', [8, 0, -8], [0, 1, 0]));
  expect(await b.total()).toBeGreaterThan(before + 100);
  expect((await b.content()).size[1]).toBe(16);
  expect(b.actions).toBeLessThanOrEqual(75);
});

test('a brick tower with a roof, a tree and its ground in 100', async ({ page }) => {
  const b = await hand(page);
  await b.begin('Tower', [64, 64, 40]);
  await b.colour('Moss');
  await b.press(b.button('by numbers'));
  await b.press(b.button('Fill the volume'));
  await b.field('Shape height', 2);
  await b.press(b.button('Set it'));
  // The tower in two setbacks and a cone; bricks go around it.
  await b.tool('Tube');
  await b.colour('Clay');
  await b.typed({ width: 22, height: 26, depth: 22, X: -28, Y: 2, Z: -11 });
  await b.typed({ width: 18, height: 16, depth: 18, X: -26, Y: 28, Z: -9 });
  await b.press(page.getByRole('tab', { name: 'Finish' }));
  await b.press(page.getByRole('radio', { name: 'bricks' }));
  await choose(page, 'Lie on', 'around an axis');
  b.actions += 2;
  await b.press(page.getByRole('checkbox', { name: /^only cubes of/ }));
  await b.press(b.button('Paint it'));
  const painted = await b.project();
  expect(painted.history.at(-1)).toBe('Bricks on Body');
  await b.tool('Cone');
  await b.colour('Slate');
  await b.typed({ width: 24, height: 16, depth: 24, X: -29, Y: 44, Z: -12 });
  await b.tool('Door');
  await b.colour('Bark');
  await b.at(await b.face('Body', [-17, 3, 10], [0, 0, 1]));
  await b.press(b.button('Set it'));
  // The tree: a trunk that tapers, and a crown of two balls.
  await b.tool('Taper');
  await b.typed({ width: 5, height: 22, depth: 5, X: 15, Y: 2, Z: 0 });
  await b.tool('Ball');
  await b.colour('Pine');
  await b.typed({ width: 18, height: 14, depth: 18, X: 8, Y: 20, Z: -7 });
  await b.colour('Moss');
  await b.typed({ width: 12, height: 10, depth: 12, X: 15, Y: 26, Z: -2 });
  expect((await b.content()).size).toEqual([64, 60, 40]);
  expect(b.actions).toBeLessThanOrEqual(100);
});

test('a figure from nothing to IK in 90: sculpted by the mirror, taken apart by colour, bones, limbs, the other side', async ({
  page,
}) => {
  const b = await hand(page);
  await b.begin('Figure', [24, 32, 12]);
  await b.key('m');
  const block = async (colour: string, numbers: Parameters<Counted['typed']>[0]): Promise<void> => {
    await b.colour(colour);
    await b.typed(numbers);
  };
  await b.key('1');
  await block('Slate', { width: 8, height: 10, depth: 5, Y: 14 });
  await block('Blush', { height: 7, depth: 6, Y: 24 });
  await block('Pine', { width: 3, height: 6, depth: 3, X: 4, Y: 18, Z: -1 });
  await block('Reed', { X: 5, Y: 12, Z: -1 });
  await block('Bark', { height: 7, X: 1, Y: 7, Z: -1 });
  await block('Soot', { X: 1, Z: -1 });
  // One piece a patch of colour; left and right are told by the mirror.
  await b.key('Shift+4');
  await b.press(b.button('Patches'));
  for (const [was, is] of [
    ['Blush', 'Head'],
    ['Pine', 'Upper arm'],
    ['Reed', 'Forearm'],
    ['Bark', 'Thigh'],
    ['Soot', 'Shin'],
  ] as const)
    for (const field of await page.getByRole('list', { name: 'Pieces' }).getByRole('textbox').all())
      if ((await field.inputValue()) === was) {
        await field.fill(is);
        await field.press('Enter');
        await b.idle();
      }
  await b.press(b.button(/^Take apart into/));
  const parts = (await b.project()).parts.filter((o) => !o.hidden).map((o) => `${o.name} ${o.side}`);
  expect(parts.sort()).toEqual(
    [
      'Body centre',
      'Head centre',
      ...['Forearm', 'Shin', 'Thigh', 'Upper arm'].flatMap((n) => [`${n} left`, `${n} right`]),
    ].sort(),
  );
  await b.to('Rig');
  const dialog = page.getByRole('dialog', { name: /Where does the limb/ });
  for (const bone of [/^Forearm\s*left/, /^Shin\s*left/]) {
    await b.press(page.getByRole('treeitem', { name: bone }).first());
    await b.key('i');
    await b.press(dialog.getByRole('button', { name: 'Make the limb' }));
    await expect(dialog).toHaveCount(0);
  }
  await b.press(b.button('Mirror the left side to the right'));
  const { constraints } = (await b.project()).rig as unknown as { constraints: { kind: string }[] };
  expect(constraints.map((c) => c.kind)).toEqual(['ik', 'ik', 'ik', 'ik']);
  expect(b.actions).toBeLessThanOrEqual(90);
});

test('a walk and a wave in 60', async ({ page }) => {
  const b = await hand(page);
  await b.to('Animate');
  // From the front the two feet stand apart.
  await page.keyboard.press('Control+1');
  await b.idle();
  const ruler = (await page.getByTestId('ruler').boundingBox())!;
  const frame = (n: number): Promise<void> =>
    b.at({ x: ruler.x + 168 + 12 + ((ruler.width - 168 - 24) * n) / 24, y: ruler.y + 10 });
  const rest = (await b.project()).rig.bones;
  const put = async (side: 'left' | 'right', axis: 'X' | 'Y' | 'Z', by: number): Promise<void> => {
    const t = rest.find((o) => o.name === 'Foot goal' && o.side === side)!.rest.t;
    await b.at(await b.joint(`Foot goal ${side}`));
    await b.field(`Place ${axis}`, t['XYZ'.indexOf(axis)]! + by);
  };
  await b.press(page.getByRole('button', { name: 'New clip' }).first());
  await put('left', 'Z', 4);
  await put('right', 'Z', -4);
  await frame(6);
  await put('right', 'Y', 3);
  await b.press(b.button('Half a walk makes the other half'));
  const walk = (await b.project()).clips.at(-1)! as unknown as {
    lanes: { bone: string; move: { time: number; value: number[] }[] }[];
  };
  const goal = rest.find((o) => o.name === 'Foot goal' && o.side === 'left')!.id;
  const left = walk.lanes.find((l) => l.bone === goal)!.move;
  expect(left.find((k) => k.time === 600)!.value[2]).toBeCloseTo(-4, 6);

  await b.press(page.getByRole('button', { name: 'New clip' }).first());
  await b.at(await b.joint('Upper arm right'));
  await b.field('Turn Z', -140);
  await b.at(await b.joint('Forearm right'));
  for (const [n, angle] of [
    [6, 30],
    [12, -30],
    [18, 30],
    [24, 0],
  ] as const) {
    await frame(n);
    await b.field('Turn Z', angle);
  }
  expect((await b.project()).clips.at(-1)!.lanes).toHaveLength(2);
  expect(b.actions).toBeLessThanOrEqual(60);
});
