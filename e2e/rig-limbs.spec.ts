import { expect, test } from './test';
import { choose, Bench } from './bench';

test.describe('Limbs and joints', () => {
  test('a leg becomes a limb with one key, the other side with another; pulled by its goal it bends forward, and nothing is kept', async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Rig');
    await b.dropControls();
    const before = await b.project();
    await page.getByRole('treeitem', { name: /^Foot\s*left/ }).click();
    await page.keyboard.press('i');
    await expect(page.getByText('It bends forward.', { exact: false }).first()).toBeVisible();
    await page.keyboard.press('m');
    await b.idle();
    const p = await b.project();
    expect(
      p.rig.bones
        .map((o) => `${o.name} ${o.side}`)
        .filter((n) => /goal|bend/.test(n))
        .sort(),
    ).toEqual(['Foot goal left', 'Foot goal right', 'Shin bend left', 'Shin bend right']);
    expect(p.parts.map((o) => o.id)).toEqual(before.parts.map((o) => o.id));
    await expect(page.getByRole('region', { name: 'Checks' })).toContainText('all mounted');

    // The goal is pulled up by its arrow: the foot goes along, the knee forward.
    await page.getByRole('treeitem', { name: /^Foot goal\s*left/ }).click();
    const goal = await b.joint('Foot goal left'),
      knee = await b.joint('Shin left'),
      foot = await b.joint('Foot left');
    await page.mouse.move(goal.x, goal.y - 55);
    await page.mouse.down();
    await page.mouse.move(goal.x, goal.y - 95, { steps: 6 });
    await expect(page.getByTestId('measure')).toContainText(/moved 0, \+\d/);
    await page.mouse.up();
    await b.idle();
    const [goal2, knee2, foot2] = [
      await b.joint('Foot goal left'),
      await b.joint('Shin left'),
      await b.joint('Foot left'),
    ];
    expect(goal2.y).toBeLessThan(goal.y - 10);
    expect(Math.hypot(foot2.x - foot.x - (goal2.x - goal.x), foot2.y - foot.y - (goal2.y - goal.y))).toBeLessThan(1.5);
    // Forward is to the lower left of this view.
    expect(knee2.x).toBeLessThan(knee.x - 3);
    await page.locator('.chip', { hasText: 'a pose for a try' }).getByRole('button', { name: 'back to rest' }).click();
    await b.idle();
    expect(Math.round((await b.joint('Foot left')).y)).toBe(Math.round(foot.y));
    expect((await b.project()).rig).toEqual(p.rig);

    // Bent the other way, looked at: each a step of the history; a circle gets a sentence and changes nothing.
    await page.getByRole('treeitem', { name: /^Foot\s*left/ }).click();
    await page.getByRole('button', { name: 'Bend the other way' }).click();
    await expect(page.getByRole('region', { name: 'Steering' })).toContainText('It bends backward.');
    await page.getByRole('treeitem', { name: /^Head/ }).click();
    await choose(page, 'Its target', 'Lantern');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await b.idle();
    const history = (await b.project()).history;
    expect(history.slice(-2)).toEqual(['Bend the limb to Foot left the other way', 'Look at on Head']);
    await page.getByRole('treeitem', { name: /^Lantern/ }).click();
    await choose(page, 'New constraint', 'Match turn');
    await choose(page, 'Its target', 'Head');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByText('“Lantern” would steer itself in a circle', { exact: false }).first()).toBeVisible();
    expect((await b.project()).history).toEqual(history);
  });

  test('in Animate a goal is moved by its arrows, which sets a key, and the leg follows; undo takes it back', async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Rig');
    await b.dropControls();
    await page.getByRole('treeitem', { name: /^Foot\s*left/ }).click();
    await page.keyboard.press('i');
    await b.idle();
    await b.step('Animate');
    await page.getByRole('button', { name: 'New clip' }).first().click();
    await b.idle();
    await page.keyboard.press('a');
    await expect(page.getByText('moving a bone sets a key')).toBeVisible();
    const goal = await b.joint('Foot goal left'),
      foot = await b.joint('Foot left');
    await b.click(goal);
    await page.mouse.move(goal.x, goal.y - 55);
    await page.mouse.down();
    await page.mouse.move(goal.x, goal.y - 90, { steps: 5 });
    await page.mouse.up();
    await b.idle();
    const [moved, along] = [await b.joint('Foot goal left'), await b.joint('Foot left')];
    expect(moved.y).toBeLessThan(goal.y - 10);
    expect(Math.hypot(along.x - foot.x - (moved.x - goal.x), along.y - foot.y - (moved.y - goal.y))).toBeLessThan(1.5);
    await page.keyboard.press('Control+z');
    await b.idle();
    expect(Math.abs((await b.joint('Foot left')).y - foot.y)).toBeLessThan(0.01);
  });

  test('the best pivot of an elbow: study, use; parts keep their place', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Rig');
    await page.getByRole('treeitem', { name: /^Forearm\s*right/ }).click();
    await b.idle();
    const places = () =>
      page.evaluate(() =>
        ['Forearm right', 'Upper arm right']
          .map((part) => window.sphalerite.screenOf({ part, cell: [-8, 14, 0] }))
          .map((s) => [Math.round(s.x * 10), Math.round(s.y * 10)]),
      );
    const at = async () =>
      (await b.project()).rig.bones.find((o) => o.name === 'Forearm' && o.side === 'right')!.rest.t;
    const before = await places(),
      was = await at();
    await page.getByRole('button', { name: 'Study the joint' }).click();
    const list = page.getByRole('list', { name: 'Pivots' });
    await expect(list.getByRole('listitem').first()).toContainText('as it is');
    await expect(
      page.getByRole('img', { name: 'Gap and overlap over the angle, for each pivot' }).locator('path').first(),
    ).toBeAttached();
    const figures = async (): Promise<number> =>
      ((await list.getByRole('listitem').first().innerText()).match(/\d+\.\d/g) ?? [])
        .map(Number)
        .reduce((x, y) => x + y, 0);
    const cost = await figures();
    await page.getByRole('button', { name: 'Use the best pivot' }).click();
    await expect(page.getByRole('button', { name: 'Use the best pivot' })).toHaveCount(0);
    await expect(list.getByRole('listitem').first()).toContainText('as it is');
    await b.idle();
    expect(await figures()).toBeLessThan(cost);
    expect(await at()).not.toEqual(was);
    expect(await places()).toEqual(before);
  });

  test('loose parts are mounted by proposal, in place, the others untouched; many bones are renamed at once', async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Rig');
    const hint = (part: string) => page.evaluate((w) => window.sphalerite.screenOf(w), { part, cell: [0, 30, 0] });
    const where = await hint('Head');
    for (const bone of [/^Head/, /^Satchel/]) {
      await page.getByRole('treeitem', { name: bone }).click();
      await page.getByRole('button', { name: 'Unmount' }).first().click();
      await b.idle();
    }
    await expect(page.getByRole('region', { name: 'Checks' })).toContainText('hangs on no bone');
    const others = (await b.project()).rig.mounts.filter((m) => m.bone !== null);
    await page.getByRole('button', { name: 'propose bones' }).click();
    await expect(
      page.locator('.el-select', { has: page.getByRole('combobox', { name: 'Bone for Head' }) }),
    ).toContainText('Head');
    await choose(page, 'Bone for Satchel', 'Hips');
    const loose = await hint('Head');
    await page.getByRole('button', { name: 'Mount 2 in place' }).click();
    await b.idle();
    const p = await b.project();
    expect(p.rig.mounts.filter((m) => others.some((o) => o.part === m.part))).toEqual(others);
    expect(p.rig.mounts.every((m) => m.bone !== null)).toBe(true);
    const then = await hint('Head');
    expect(Math.hypot(then.x - loose.x, then.y - loose.y)).toBeLessThan(0.01);
    for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
    await b.idle();
    const back = await hint('Head');
    expect(Math.hypot(back.x - where.x, back.y - where.y)).toBeLessThan(0.01);

    await page.getByRole('button', { name: 'Rename many…' }).click();
    await page.getByLabel('Replace in names').fill('arm');
    await page.getByLabel('By', { exact: true }).fill('sleeve');
    await page.getByRole('button', { name: /^Rename \d+$/ }).click();
    await b.idle();
    expect(
      (await b.project()).rig.bones
        .filter((o) => /sleeve/.test(o.name))
        .map((o) => `${o.name} ${o.side}`)
        .sort(),
    ).toEqual(['Foresleeve left', 'Foresleeve right', 'Upper sleeve left', 'Upper sleeve right']);
  });

  test('another rest: clips keep their look when told so; carried, parts go along; alone, what hangs below stays', async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Animate');
    await page.getByRole('treeitem', { name: /^Walk/ }).click();
    await b.idle();
    for (let i = 0; i < 6; i++) await page.keyboard.press('.');
    await b.idle();
    const shin = await b.joint('Pole'),
      boot = await b.joint('Lantern');
    await b.step('Rig');
    await page.getByRole('treeitem', { name: /^Forearm\s*left/ }).click();
    await expect(page.getByRole('region', { name: 'Clips it moves in' })).toContainText('Walk');
    await page.getByLabel('when the rest changes, clips keep their look').check();
    await page.getByLabel('Turn X', { exact: true }).fill('25');
    await page.getByLabel('Turn X', { exact: true }).press('Enter');
    await b.idle();
    await page.getByRole('region', { name: 'Clips it moves in' }).getByRole('button', { name: 'Walk' }).click();
    await page.waitForURL(/animate$/);
    await b.idle();
    await page.keyboard.press('<');
    for (let i = 0; i < 6; i++) await page.keyboard.press('.');
    await b.idle();
    const [shin2, boot2] = [await b.joint('Pole'), await b.joint('Lantern')];
    expect(
      Math.hypot(shin2.x - shin.x, shin2.y - shin.y) + Math.hypot(boot2.x - boot.x, boot2.y - boot.y),
    ).toBeLessThan(0.1);
    await b.step('Rig');
    await page.keyboard.press('Control+z');
    await page.getByLabel('alone: what hangs on it stays').check();
    const rest = await b.joint('Lantern');
    await page.getByLabel('Turn X', { exact: true }).fill('25');
    await page.getByLabel('Turn X', { exact: true }).press('Enter');
    await b.idle();
    const stays = await b.joint('Lantern');
    expect(Math.hypot(stays.x - rest.x, stays.y - rest.y)).toBeLessThan(0.01);
    await page.keyboard.press('Control+z');
    await page.getByLabel('carry parts and bones along').check();
    await page.getByLabel('Joint Y', { exact: true }).fill('17');
    await page.getByLabel('Joint Y', { exact: true }).press('Enter');
    await b.idle();
    expect((await b.joint('Lantern')).y).toBeLessThan(rest.y - 3);
  });
});
