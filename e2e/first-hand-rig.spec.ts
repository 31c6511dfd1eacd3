import { Bench } from './bench';
import { expect, test } from './test';

test('a limb asks where it ends; its goal is pulled by its dot in Rig and in Animate; dots on one another are told apart; the goal goes along or stays', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Rig');
  await page.getByRole('treeitem', { name: /^Forearm\s*right/ }).click();
  await page.keyboard.press('i');
  const dialog = page.getByRole('dialog', { name: /Where does the limb/ });
  const ends = dialog.getByRole('radiogroup', { name: 'The end of the limb' });
  await expect(ends.getByRole('radio').first()).toBeChecked();
  await expect(ends).toContainText('the far end of Forearm right, with a new bone there');
  await expect(dialog.getByRole('checkbox', { name: 'the goal goes along with the body' })).toBeChecked();
  await dialog.getByRole('button', { name: 'Make the limb' }).click();
  await b.idle();
  const bones = async () => (await b.project()).rig.bones;
  const made = (await bones()).slice(-3);
  expect(made.map((o) => o.name)).toEqual(['Forearm end', 'Forearm end goal', 'Forearm bend']);
  const top = (await bones()).find((o) => o.parent === null && o.name === 'Body')!;
  expect(made.slice(1).map((o) => o.parent)).toEqual([top.id, top.id]);

  // Pulled by its dot, here for a try that nothing keeps.
  const hand = await b.joint('Forearm end right'),
    steps = (await b.project()).now;
  await b.drag(await b.joint('Forearm end goal right'), { x: hand.x - 30, y: hand.y - 40 }, 6);
  const tried = await b.joint('Forearm end right');
  expect(Math.hypot(tried.x - hand.x, tried.y - hand.y)).toBeGreaterThan(15);
  expect((await b.project()).now).toBe(steps);
  await page.getByRole('checkbox', { name: 'goal goes along with the body' }).waitFor({ state: 'detached' });
  await page.getByRole('treeitem', { name: /^Forearm end\s*right/ }).click();
  await page.getByRole('checkbox', { name: 'goal goes along with the body' }).uncheck();
  await b.idle();
  expect((await bones()).find((o) => o.name === 'Forearm end goal')!.parent).toBeNull();

  await b.step('Animate');
  await page.getByRole('button', { name: 'New clip' }).first().click();
  await b.idle();
  const goal = await b.joint('Foot goal left');
  await page.mouse.move(goal.x, goal.y);
  await expect(page.getByRole('list', { name: 'Under the pointer' }).getByRole('listitem').first()).toHaveText(
    'Foot goal left',
  );
  await b.drag(goal, { x: goal.x, y: goal.y - 40 }, 6);
  const moved = await b.joint('Foot goal left');
  expect(moved.y).toBeLessThan(goal.y - 25);
  expect((await b.project()).clips.at(-1)!.lanes).toHaveLength(1);
  // Arrows stand on a goal by themselves; and its dot again is the foot under it.
  await page.keyboard.press('Control+z');
  await b.idle();
  const again = await b.joint('Foot goal left');
  await b.click(again);
  await b.click(again);
  await expect(page.getByRole('complementary', { name: 'Properties' })).toContainText('Foot');
  const chosen = await b.state();
  expect(JSON.stringify(chosen.view)).toContain(
    (await bones()).find((o) => o.name === 'Foot' && o.side === 'left')!.id,
  );
});

test('a second head in one action, worn by keys; a bone that is deleted says what went and comes back; a lane takes its colour at the lane', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.part(/^Head/);
  await page.keyboard.press('Control+Alt+a');
  await b.idle();
  const p = await b.project();
  expect(p.history.at(-1)).toBe('An alternate of Head');
  expect(p.parts[p.parts.findIndex((o) => o.name === 'Head') + 1]!.name).toBe('Head 2');
  await b.step('Rig');
  await page.getByRole('treeitem', { name: /^Head/ }).click();
  const worn = page.getByRole('radiogroup', { name: 'Alternates Head' });
  await expect(worn.getByRole('radio', { name: 'Head 2' })).toBeChecked();
  await worn.getByRole('radio', { name: 'Head', exact: true }).check();
  await b.idle();

  await page.getByRole('treeitem', { name: /^Forearm\s*left/ }).click();
  const before = (await b.project()).rig.bones;
  await page.getByRole('region', { name: 'View', exact: true }).focus();
  await page.keyboard.press('Delete');
  await expect(page.getByText(/“Forearm left” is in the bin, and with it: 1 part comes loose, \d+ keys/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Bin' })).toBeInViewport();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await b.idle();
  expect((await b.project()).rig.bones.map((o) => o.id).sort()).toEqual(before.map((o) => o.id).sort());

  await b.step('Animate');
  await page.getByRole('treeitem', { name: /^Walk/ }).click();
  await b.idle();
  await page.locator('.lane .name', { hasText: /^Upper arm left$/ }).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Colour of the lane: rust' }).click();
  await b.idle();
  const lanes = (await b.project()).rig.bones as unknown as { name: string; side: string; colour: string | null }[];
  expect(lanes.find((o) => o.name === 'Upper arm' && o.side === 'left')!.colour).toBe('#b4532a');

  // The whole clip half as long again: its length goes along, keys stand on whole frames.
  await page.getByText('Retime the clip').click();
  const field = page.getByLabel('Retime the whole clip');
  await field.fill('150');
  await field.press('Enter');
  await b.idle();
  const walk = (await b.project()).clips.find((c) => c.name === 'Walk')!;
  expect(walk.length).toBe(1800);
  expect(walk.lanes.flatMap((l) => l.turn.map((k) => k.time % 50))).toEqual(
    walk.lanes.flatMap((l) => l.turn.map(() => 0)),
  );
});

test('“Cut at guide” keeps the half at the joint, of the same side; the halves are swapped by one action; the whole is out of sight', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.fresh('Stilt', [12, 24, 6]);
  await page.keyboard.press('1');
  const typed = async (size: number[], min: number[]): Promise<void> => {
    await page.getByRole('button', { name: 'by numbers' }).click();
    for (const [names, values] of [
      [['Shape width', 'Shape height', 'Shape depth'], size],
      [['Shape X', 'Shape Y', 'Shape Z'], min],
    ] as const)
      for (const [i, name] of names.entries()) {
        const field = page.getByLabel(name, { exact: true });
        await field.fill(String(values[i]));
        await field.press('Enter');
      }
    await page.getByRole('button', { name: 'Set it' }).click();
    await b.idle();
  };
  // A trunk with a leg whose lower part is the larger one.
  await typed([8, 8, 4], [-4, 16, -2]);
  await typed([2, 16, 2], [1, 0, -1]);
  await page.keyboard.press('Shift+4');
  await page.keyboard.press('7');
  await typed([2, 16, 2], [1, 0, -1]);
  await page.getByRole('button', { name: 'From selection' }).click();
  await b.idle();
  await page.getByLabel('Name of piece 1').fill('Leg');
  await page.getByLabel('Name of piece 1').press('Enter');
  await page.getByRole('radiogroup', { name: 'Side of piece 1' }).getByRole('radio', { name: 'left' }).click();
  await page.getByRole('button', { name: 'Paint piece 1' }).click();
  await page.keyboard.press('q');
  const depth = page.getByLabel('Depth of the guide plane', { exact: true });
  await depth.fill('11.5');
  await depth.press('Enter');
  await page.getByRole('button', { name: /Cut at guide/i }).click();
  await b.idle();
  const pieces = page.getByRole('list', { name: 'Pieces' }).getByRole('listitem');
  await expect(pieces).toHaveCount(2);
  // Four rows of the leg stay at the trunk, twelve become the piece, left as the leg is.
  await expect(pieces.nth(0)).toContainText('16');
  await expect(pieces.nth(1)).toContainText('48');
  await expect(
    page.getByRole('radiogroup', { name: 'Side of piece 2' }).getByRole('radio', { name: 'left' }),
  ).toBeChecked();
  await page.getByRole('button', { name: 'Swap the halves' }).click();
  await b.idle();
  await expect(pieces.nth(0)).toContainText('48');
  await page.keyboard.press('Control+z');
  await b.idle();
  await page.getByRole('button', { name: /^Take apart into 3 parts/ }).click();
  await b.idle();
  const p = await b.project();
  const whole = p.parts.find((o) => o.hidden)!;
  expect(whole.name).toBe('Body, whole');
  const tray = page.getByRole('complementary', { name: 'Tray' });
  await expect(tray.getByRole('treeitem', { name: /whole/ })).toHaveCount(0);
  await b.step('Rig');
  await expect(tray.getByText('Not mounted')).toHaveCount(0);
  await expect(page.getByText('3 bones, 3 parts, all mounted')).toBeVisible();
});
