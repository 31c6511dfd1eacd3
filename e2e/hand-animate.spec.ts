import { Counted } from './counted';
import { expect, test } from './test';

test('a head is swapped and looked at in every clip in 3; its keys are dragged and moved by arrows; keys are boxed by keyboard', async ({
  page,
}) => {
  const b = new Counted(page);
  await b.open();
  await b.part(/^Head$/);
  await page.keyboard.press('Control+Alt+a');
  await b.idle();
  await b.step('Rig');
  await page.getByRole('treeitem', { name: /^Head$/ }).click();
  const set = page.getByRole('radiogroup', { name: 'Alternates Head' });
  await expect(set.getByRole('radio', { name: 'Head 2', exact: true })).toBeChecked();
  // Slowly, so that there is something left to stop on a slow machine too.
  await b.step('Animate');
  await page.getByRole('radio', { name: 'Speed 0.25' }).check({ force: true });
  await b.step('Rig');
  // One action: worn everywhere, and played from the first clip to the last.
  await page.getByRole('button', { name: 'Wear Head in every clip' }).click();
  await page.waitForURL(/\/animate$/);
  await expect(page.getByText(/one clip after another: 3 to come/)).toBeVisible();
  // It has gone on by itself.
  await expect(page.getByText(/one clip after another: 2 to come/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Walk');
  await page.getByRole('button', { name: 'stop', exact: true }).click();
  const { rig, parts } = await b.project();
  const worn = rig.mounts.find((m) => m.part === parts.find((p) => p.name === 'Head')!.id)!;
  expect(rig.alternateSets[0]!.worn).toBe(worn.id);

  // A swap key in Walk, dragged by eight frames and one more by its arrow.
  await page.getByRole('treeitem', { name: /^Walk/ }).click();
  await page.keyboard.press('<');
  for (let i = 0; i < 6; i++) await page.keyboard.press('.');
  await page.getByRole('radiogroup', { name: 'Head wears' }).getByRole('radio', { name: 'Head 2' }).click();
  await b.idle();
  const times = async (): Promise<number[]> =>
    (await b.project()).clips.find((c) => c.name === 'Walk')!.swaps[0]!.keys.map((k) => k.time / 50);
  expect(await times()).toEqual([0, 6]);
  const key = page.getByRole('button', { name: /^Head wears Head 2 from frame/ });
  await key.scrollIntoViewIfNeeded();
  const at = (await key.boundingBox())!;
  const mark = async (frame: number): Promise<number> =>
    (await page.getByTestId('ruler').getByText(String(frame), { exact: true }).first().boundingBox())!.x;
  const by = (await mark(18)) - (await mark(10));
  await b.drag({ x: at.x + 6, y: at.y + 8 }, { x: at.x + 6 + by, y: at.y + 8 });
  expect(await times()).toEqual([0, 14]);
  await key.focus();
  await page.keyboard.press('ArrowRight');
  await b.idle();
  expect(await times()).toEqual([0, 15]);
  await page.keyboard.press('Delete');
  await b.idle();
  expect(await times()).toEqual([0]);

  // From a key with Shift and the arrows: two lanes, two moments.
  await page
    .getByRole('button', { name: /^Key of .* at frame 0$/ })
    .first()
    .focus();
  const chosen = page.locator('.key.on');
  await page.keyboard.press('Shift+ArrowRight');
  const across = await chosen.count();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  expect(await chosen.count()).toBeGreaterThan(across);
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('Shift+ArrowLeft');
  expect(await chosen.count()).toBe(across);
});

test('a wheel spins ten times in 3, and in the file too', async ({ page }) => {
  const b = new Counted(page);
  await b.open();
  await b.step('Animate');
  await page.getByRole('treeitem', { name: /^Walk/ }).click();
  await b.idle();
  b.actions = 0;
  await b.press(page.getByRole('button', { name: 'Lantern', exact: true }));
  const ruler = page.getByTestId('ruler');
  const end = (await ruler.getByText('24', { exact: true }).boundingBox())!;
  await b.at({ x: end.x + end.width / 2, y: end.y + end.height / 2 });
  await b.field('Spin X', 3600);
  await b.idle();
  expect(b.actions).toBe(3);
  const walk = (await b.project()).clips.find((c) => c.name === 'Walk')!;
  const lane = walk.lanes.find((l) => l.hinge.length > 0)!;
  expect(lane.hinge.map((k) => [k.time, Math.round(k.value[0]! * 1e6) / 1e6])).toEqual([
    [0, 0],
    [1200, Math.round(20 * Math.PI * 1e6) / 1e6],
  ]);
  await page.keyboard.press('2');
  await page.getByRole('radiogroup', { name: 'Channel' }).getByRole('radio', { name: 'spin' }).click();
  await expect(page.getByText('1800°')).toBeVisible();
});

test('a clip is checked against ground of one’s own; at a bone the clips it moves in stand with the worst contact first', async ({
  page,
}) => {
  const b = new Counted(page);
  await b.open();
  await b.step('Animate');
  await page.getByRole('treeitem', { name: /^Walk/ }).click();
  await page.keyboard.press('3');
  const findings = page.getByRole('region', { name: 'Contact of this clip' });
  await expect(findings.getByText('Nothing goes through the ground.')).toBeVisible();
  const floor = async (): Promise<unknown> => {
    const { clips } = await b.project();
    return (clips.find((c) => c.name === 'Walk') as unknown as { floor: unknown }).floor;
  };
  await b.number('Height of the ground', 0.5);
  expect(await floor()).toEqual({ height: 0.5, rise: 0, run: 0 });
  await expect(
    findings.getByText(/0\.5\d? cubes through the ground|0\.[5-9]\d cubes through the ground/),
  ).toBeVisible();
  await b.number('Height of the ground', 0);
  expect(await floor()).toBeNull();
  await page.getByRole('radio', { name: 'steps', exact: true }).click();
  await b.number('Rise of a step', 2);
  await b.number('Run of a step', 10);
  expect(await floor()).toEqual({ height: 0, rise: 2, run: 10 });
  await expect(findings.getByText(/cubes through the ground/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await b.idle();

  await b.step('Rig');
  await page.getByRole('treeitem', { name: /^Shin left/ }).click();
  const moves = page.getByRole('region', { name: 'Clips it moves in' });
  await moves.getByRole('checkbox', { name: 'worst contact first' }).check();
  for (const row of await moves.locator('li').all()) await expect(row).toContainText('·');
  await b.idle();
  const bad = (await moves.locator('li').allTextContents()).map((text) => {
    const [depth, slide, cubes] = text.match(/[\d.]+(?= ·| *$)/g)!.map(Number) as [number, number, number];
    return depth + slide + cubes / 60;
  });
  expect(bad.length).toBeGreaterThan(1);
  expect(bad).toEqual([...bad].sort((x, y) => y - x));
});
