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
  await b.typed({ width: 21, height: 22, depth: 21, y: 18 });
  expect((await b.content()).size).toEqual([21, 22, 21]);
  await b.key('Alt+r');
  await b.tool('Paint box');
  await b.colour('Straw');
  await b.typed({ width: 3, height: 22, depth: 12, x: -1, y: 18, z: 0 });
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
  await b.typed({ width: 10, height: 2, depth: 10, y: 40 });
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
  await b.typed({ width: 17, height: 10, depth: 8, y: 10, z: 2 });
  expect(await b.total()).toBeLessThan(shell);
  // The chick: a ball, a beak, two eyes by the mirror.
  await b.tool('Ball');
  await b.colour('Straw');
  await b.typed({ width: 9, height: 10, depth: 9, y: 5 });
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
