import { Artist } from './artist';
import { Counted } from './counted';
import type { Bench } from './bench';
import { expect, test } from './test';

const bonesOf = async (b: Bench): Promise<string[]> => (await b.project()).rig.bones.map((o) => `${o.name} ${o.side}`);

test('from a bone to its part and back, in the view, in the tree, by keys and from its picture; a click on a neighbour goes on to it', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.step('Rig');
  await page.getByRole('treeitem', { name: /^Shin left/ }).click();
  const before = await b.joint('Head');
  // By keys: two actions there and back.
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/build$/);
  await b.idle();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Shin left');
  await page.keyboard.press('Shift+Home');
  await page.keyboard.press('Control+1');
  await b.idle();
  // A neighbour that stands clear of the part on the bench.
  const lantern = (await b.project()).parts.find((p) => p.name === 'Lantern')!.bounds;
  const [x, y, z] = lantern.min.map((v, i) => v + Math.floor(lantern.size[i]! / 2)) as [number, number, number];
  await b.click(await b.hint({ part: 'Lantern', cell: [x, y, z], face: [0, 0, 1] }));
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Lantern');
  await page.keyboard.press('Shift+Enter');
  await page.waitForURL(/\/rig$/);
  await b.idle();
  expect(await b.joint('Head')).toEqual(before);
  await expect(page.getByRole('treeitem', { name: /^Shin left/ })).toHaveAttribute('aria-selected', 'true');

  // In the view by a double click.
  const head = await b.face('Head', [0, 30, 8], [0, 0, 1]);
  await page.mouse.dblclick(head.x, head.y);
  await page.waitForURL(/\/build$/);
  await b.idle();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Head');
  await page.getByRole('button', { name: 'back', exact: true }).click();
  await page.waitForURL(/\/rig$/);
  await page.getByRole('treeitem', { name: 'Part Satchel' }).dblclick();
  await page.waitForURL(/\/build$/);
  await b.idle();
  await page.keyboard.press('Shift+Enter');
  await page.waitForURL(/\/rig$/);
  await b.idle();
  await page.getByRole('button', { name: 'Open Satchel in Build' }).click();
  await page.waitForURL(/\/build$/);

  // From a moment of a clip, and back to it.
  await b.step('Animate');
  await page.getByRole('treeitem', { name: /^Walk/ }).click();
  for (let i = 0; i < 5; i++) await page.keyboard.press('.');
  await page.getByRole('button', { name: 'Head', exact: true }).dblclick();
  await page.waitForURL(/\/build$/);
  await b.idle();
  await page.keyboard.press('Shift+Enter');
  await page.waitForURL(/\/animate$/);
  await b.idle();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/Walk.*frame 5/);
});

test('parts hang in the tree of bones and are dragged from bone to bone and onto nothing; sides are set for many; names that are taken say so', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.step('Rig');
  const row = (name: string | RegExp) => page.getByRole('treeitem', { name });
  const mountOf = async (part: string): Promise<string | undefined> => {
    const { rig, parts } = await b.project();
    const mount = rig.mounts.find((m) => m.part === parts.find((p) => p.name === part)!.id)!;
    return rig.bones.find((o) => o.id === mount.bone)?.name;
  };
  const middle = async (of: ReturnType<typeof row>): Promise<{ x: number; y: number }> => {
    await of.scrollIntoViewIfNeeded();
    const r = (await of.boundingBox())!;
    return { x: r.x + r.width / 2, y: r.y + 12 };
  };
  await row('Part Satchel').scrollIntoViewIfNeeded();
  // Both are in sight, whichever was asked for first.
  const tail = await middle(row(/^Coat tail right/));
  await b.drag(await middle(row('Part Satchel')), tail);
  expect(await mountOf('Satchel')).toBe('Coat tail');
  // Onto a joint in the view.
  await b.drag(await middle(row('Part Satchel')), await b.joint('Chest'));
  expect(await mountOf('Satchel')).toBe('Chest');
  expect((await b.project()).rig.alternateSets).toEqual([]);
  // And onto nothing: it stays where it is, on no bone.
  const at = await b.hint({ part: 'Satchel', cell: [0, 0, 0], face: [0, 1, 0] });
  await b.drag(await middle(row('Part Satchel')), { x: 950, y: 500 });
  expect(await mountOf('Satchel')).toBeUndefined();
  const now = await b.hint({ part: 'Satchel', cell: [0, 0, 0], face: [0, 1, 0] });
  expect(Math.hypot(now.x - at.x, now.y - at.y)).toBeLessThan(0.01);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await b.idle();
  expect(await mountOf('Satchel')).toBe('Satchel');

  // A side for two at once; mirroring does not refuse.
  await b.fresh('Signpost', [16, 24, 16]);
  await b.step('Rig');
  await page.keyboard.press('b');
  await b.idle();
  await page.keyboard.press('b');
  await b.idle();
  expect(await bonesOf(b)).toEqual(['Bone centre', 'Bone 2 centre']);
  await row(/^Bone$/).click({ modifiers: ['Control'] });
  await page.getByRole('radiogroup', { name: 'Side of the bone' }).getByRole('radio', { name: 'left' }).click();
  await b.idle();
  await page.keyboard.press('m');
  await b.idle();
  expect((await bonesOf(b)).sort()).toEqual(['Bone 2 left', 'Bone 2 right', 'Bone left', 'Bone right']);
  await row(/^Bone 2 left$/).click();
  await page.keyboard.press('F2');
  await page.keyboard.type('Bone');
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('status').filter({ hasText: '“Bone” is taken there, so it is called “Bone 2”' }),
  ).toHaveCount(0);
  await row(/^Bone left$/).click();
  await page.keyboard.press('F2');
  await page.keyboard.type('Bone 2');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“Bone 2” is taken there, so it is called “Bone 3”')).toBeVisible();
});

test('a root above everything in two; four wheels of one part in one dialog; a branch flipped; many names by one rule; names while bones are drawn', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Cart', [24, 16, 32]);
  await page.keyboard.press('1');
  await b.byNumbers([2, 6, 6], [8, 0, 8]);
  await b.step('Rig');
  // Drawn by clicks on the cubes: the usual name, one of one's own, and the next.
  await page.keyboard.press('Shift+b');
  const name = page.getByLabel('Name of the next bone', { exact: true });
  await b.click(await b.face('Body', [9, 5, 10], [0, 1, 0]));
  await name.fill('Wheel');
  await name.press('Enter');
  await b.click(await b.face('Body', [8, 3, 13], [0, 0, 1]));
  await page.keyboard.press('Escape');
  expect(await bonesOf(b)).toEqual(['Hips left', 'Wheel left']);
  await page.getByRole('treeitem', { name: /^Wheel left/ }).click();
  await page.keyboard.press('Control+z');
  await b.idle();
  await page.keyboard.press('Control+Shift+z');
  await b.idle();
  await page.getByRole('button', { name: 'propose bones' }).click();
  await page.getByRole('button', { name: /^Mount 1 in place/ }).click();
  await b.idle();

  // Four wheels, one part.
  const wheel = page.getByRole('treeitem', { name: /^Wheel left/ });
  await wheel.click();
  await page.keyboard.press('Control+d');
  await b.number('How many copies', 3, false);
  await b.number('Step Z', -6, false);
  await page.getByRole('button', { name: 'Duplicate', exact: true }).click();
  await b.idle();
  const made = await b.project();
  expect([made.parts.length, made.rig.bones.length]).toEqual([1, 5]);

  // A root above everything: none in hand, one key.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+b');
  await b.idle();
  const { bones } = (await b.project()).rig;
  const root = bones.find((o) => o.parent === null)!;
  expect([root.name, bones.filter((o) => o.parent === null).length]).toEqual(['Root', 1]);

  // The branch of the first wheel, front to back in its joint.
  const where = await b.joint('Wheel left');
  await page.getByRole('treeitem', { name: /^Wheel left/ }).click();
  await page.getByRole('button', { name: 'Flip otherwise' }).click();
  await page.getByRole('menuitem', { name: /what hangs on it across Z/ }).click();
  await b.idle();
  const after = await b.joint('Wheel left');
  expect(Math.hypot(after.x - where.x, after.y - where.y)).toBeLessThan(0.01);

  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+F2');
  await page.getByLabel('Replace in names', { exact: true }).fill('Wheel');
  await page.getByLabel('By', { exact: true }).fill('Rim');
  await expect(page.getByRole('list', { name: 'New names' }).getByRole('listitem')).toHaveCount(4);
  await page.getByRole('button', { name: 'Rename 4' }).click();
  await b.idle();
  expect((await bonesOf(b)).filter((n) => n.startsWith('Rim'))).toHaveLength(4);

  // A new part on a bone: named where it is opened.
  await page.getByRole('treeitem', { name: /^Rim left/ }).click();
  await page.keyboard.press('Shift+n');
  await page.waitForURL(/\/build$/);
  await b.idle();
  await page.keyboard.type('Hub');
  await page.keyboard.press('Enter');
  await b.idle();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Hub left');
});

test('a part and a bone are scaled in per cent, evenly or axis by axis; a scale is keyed', async ({ page }) => {
  const b = new Artist(page);
  await b.open();
  await b.step('Rig');
  await page.getByRole('treeitem', { name: /^Lantern$/ }).click();
  const mount = async () => {
    const { rig, parts } = await b.project();
    return rig.mounts.find((m) => m.part === parts.find((p) => p.name === 'Lantern')!.id)!;
  };
  await page.getByText('Place on the bone').click();
  await b.number('Mount scale', 150);
  expect((await mount()).s).toEqual([1.5, 1.5, 1.5]);
  await page.getByRole('region', { name: 'Mounted' }).getByText('each axis its own').click();
  await b.number('Mount scale Y', 50);
  expect((await mount()).s).toEqual([1.5, 0.5, 1.5]);
  await b.number('Mount at X', 2);
  expect((await mount()).t[0]).toBe(2);
  await page.getByText('Scale of the bone').click();
  // Locked again: the bone's is one number.
  await page.getByRole('checkbox', { name: 'each axis its own' }).uncheck();
  await b.number('Scale', 80);
  expect((await b.project()).rig.bones.find((o) => o.name === 'Lantern')!.rest.s).toEqual([0.8, 0.8, 0.8]);

  await b.step('Animate');
  await page.getByRole('treeitem', { name: /^Idle/ }).click();
  await page.keyboard.press('.');
  // As it is seen, rest included: twice the size of the drawing board.
  await b.number('Scale', 160);
  const { clips, rig } = await b.project();
  const lantern = rig.bones.find((o) => o.name === 'Lantern')!.id;
  const keys = clips.find((c) => c.name === 'Idle')!.lanes.find((l) => l.bone === lantern)!.scale;
  expect(keys.map((k) => [k.time, k.value])).toEqual([[50, [2, 2, 2]]]);
});

test('of a figure rigged from nothing the other side of five parts is made in 1, its four limbs in 5', async ({
  page,
}) => {
  const b = new Counted(page);
  await b.open();
  await b.fresh('Mannequin', [24, 24, 24]);
  await b.step('Rig');
  const row = (name: string | RegExp) => page.getByRole('treeitem', { name });
  /** A bone below the one in hand, its joint at a place. */
  const bone = async (name: string, at: readonly [number, number, number]): Promise<void> => {
    await page.keyboard.press('b');
    await b.idle();
    await page.keyboard.press('F2');
    await page.keyboard.type(name);
    await page.keyboard.press('Enter');
    await b.idle();
    for (const [i, axis] of (['X', 'Y', 'Z'] as const).entries()) await b.number(`Joint ${axis}`, at[i]!);
  };
  await bone('Hips', [0, 10, 0]);
  await bone('Thigh', [2, 9, 0]);
  await page.getByRole('radiogroup', { name: 'Side of the bone' }).getByRole('radio', { name: 'left' }).click();
  await bone('Shin', [2, 5, 0]);
  await bone('Foot', [2, 1, 0]);
  await row(/^Hips/).click();
  await bone('Upper arm', [3, 17, 0]);
  await page.getByRole('radiogroup', { name: 'Side of the bone' }).getByRole('radio', { name: 'left' }).click();
  await bone('Forearm', [7, 17, 0]);
  await bone('Hand', [11, 17, 0]);
  // Five parts of the left side, each on its bone.
  for (const name of ['Thigh', 'Shin', 'Foot', 'Upper arm', 'Forearm']) {
    await row(new RegExp(`^${name} left`)).click();
    await page.keyboard.press('Shift+n');
    await page.waitForURL(/\/build$/);
    await b.idle();
    await page.keyboard.press('Escape');
    await page.keyboard.press('1');
    await b.byNumbers([2, 2, 2], [0, 0, 0]);
    await b.step('Rig');
  }
  const made = async () => {
    const { parts, rig } = await b.project();
    return {
      right: parts
        .filter((p) => p.side === 'right')
        .map((p) => p.name)
        .sort(),
      limbs: rig.constraints.filter((c) => c.kind === 'ik').length,
    };
  };
  b.actions = 0;
  await b.key('m');
  expect((await made()).right).toEqual(['Foot', 'Forearm', 'Shin', 'Thigh', 'Upper arm']);
  expect(b.actions).toBe(1);
  await page.keyboard.press('Control+z');
  await b.idle();

  b.actions = 0;
  for (const end of ['Foot', 'Hand']) {
    await b.press(row(new RegExp(`^${end} left`)));
    await b.key('i');
  }
  await b.key('m');
  expect((await made()).limbs).toBe(4);
  expect(b.actions).toBeLessThanOrEqual(5);
});
