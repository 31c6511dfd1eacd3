import { Bench } from './bench';
import { expect, test } from './test';

type Triple = [number, number, number];

test('what was just made is of this part and this project, also when strokes grow the volume, which stays with its project', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.fresh('Egg', [6, 6, 6]);
  const grow = page.getByRole('checkbox', { name: 'strokes grow the volume' });
  const selected = async (): Promise<string | null> => {
    await page.keyboard.press('Shift+J');
    await b.idle();
    return page.getByRole('region', { name: 'Selection' }).textContent();
  };
  const typed = async (place: Triple, size: Triple): Promise<void> => {
    await page.keyboard.press('1');
    await page.getByRole('button', { name: 'by numbers' }).click();
    for (const [names, values] of [
      [['Shape width', 'Shape height', 'Shape depth'], size],
      [['Shape X', 'Shape Y', 'Shape Z'], place],
    ] as const)
      for (const [i, name] of names.entries()) {
        const field = page.getByRole('region', { name: 'Bench' }).getByRole('spinbutton', { name, exact: true });
        await field.fill(String(values[i]));
        await field.press('Enter');
      }
    await page.getByRole('button', { name: 'Set it' }).click();
    await b.idle();
  };
  await typed([-1, 0, -1], [2, 2, 2]);
  expect(await b.total()).toBe(8);
  await page.keyboard.press('Escape');
  await grow.check();
  await expect(page.getByText('strokes grow the volume').first()).toBeVisible();
  await typed([3, 0, 0], [4, 1, 1]);
  expect(await b.total()).toBe(12);
  expect(await selected()).toContain('= 4');
  // Another project knows neither.
  await b.fresh('Nest', [6, 6, 6]);
  await expect(grow).not.toBeChecked();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a command' }).fill('just made');
  await expect(page.getByRole('option').first()).toContainText('nothing was made in this part yet');
});

test('F2 names what is in hand on every screen, and no letter of it runs as a shortcut; what changes nothing says why', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const tray = page.getByRole('complementary', { name: 'Tray' });
  for (const [screen, row, kind] of [
    ['Build', /^Satchel/, 'parts'],
    ['Rig', /^Satchel/, 'bones'],
    ['Animate', /^Walk/, 'clips'],
    ['Light', /^Noon portrait/, 'shots'],
  ] as const) {
    await b.step(screen);
    await tray.getByRole('treeitem', { name: row }).first().click();
    await b.idle();
    await page.getByRole('region', { name: 'View', exact: true }).focus();
    await page.keyboard.press('F2');
    await page.keyboard.type('Bees');
    await page.keyboard.press('Enter');
    await b.idle();
    const p = (await b.project()) as unknown as Record<string, { name: string }[]> & {
      rig: { bones: { name: string }[] };
    };
    const names = (kind === 'bones' ? p.rig.bones : p[kind]!).map((o) => o.name);
    expect(names, screen).toContain('Bees');
  }
  await b.step('Build');
  await b.part(/^Coat$/);
  await page.keyboard.press('6');
  const at = await b.face('Coat', [4, 20, 3], [0, 0, 1]);
  await b.click(at);
  const before = (await b.project()).now;
  await b.click(at);
  expect((await b.project()).now).toBe(before);
  await expect(page.getByText(/^Nothing was painted/)).toBeVisible();
});

test('Home frames what is in hand, on every screen, and nothing of it is cut off', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const view = (await page.getByRole('region', { name: 'View', exact: true }).boundingBox())!;
  /** How far apart two cubes of the coat stand on the page: how near one is. */
  const near = (): Promise<number> =>
    page.evaluate(() => {
      const [a, c] = [0, 14].map((y) => window.sphalerite.screenOf({ part: 'Coat', cell: [0, y, 0] }));
      return Math.hypot(a!.x - c!.x, a!.y - c!.y);
    });
  const inside = async (bone: string): Promise<void> => {
    const at = await b.joint(bone);
    expect(at.x, bone).toBeGreaterThan(view.x);
    expect(at.x, bone).toBeLessThan(view.x + view.width);
    expect(at.y, bone).toBeGreaterThan(view.y);
    expect(at.y, bone).toBeLessThan(view.y + view.height);
  };
  await page.keyboard.press('Shift+Home');
  await b.idle();
  const whole = await near();
  await b.part(/^Head$/);
  await page.keyboard.press('Home');
  await b.idle();
  const head = await near();
  expect(head).toBeGreaterThan(whole * 1.5);
  await b.step('Rig');
  await page.getByRole('treeitem', { name: /^Foot left/ }).click();
  await page.keyboard.press('Home');
  await b.idle();
  await inside('Foot left');
  expect(await near()).toBeGreaterThan(whole * 1.5);
  await page.getByRole('treeitem', { name: /^Lantern/ }).click({ modifiers: ['Control'] });
  await page.keyboard.press('Home');
  await b.idle();
  await inside('Foot left');
  await inside('Lantern');
});

test('what stands in cubes goes along when they become finer; the key of the cutaway ends it; nothing stays for the next project', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.fresh('Tower', [8, 8, 8]);
  await page.keyboard.press('m');
  await expect(page.getByText('mirror X at 0, between cubes')).toBeVisible();
  await page.keyboard.press('q');
  for (let i = 0; i < 3; i++) await page.keyboard.press(']');
  const place = Number(await b.guideDepth.inputValue());
  await page.keyboard.press('Alt+=');
  await b.idle();
  // In half cubes it stands twice as far: through a layer it is then between two.
  expect(Number(await b.guideDepth.inputValue())).toBe(2 * place + 0.5);
  await page.keyboard.press('Control+z');
  await b.idle();
  expect(Number(await b.guideDepth.inputValue())).toBe(place);

  await page.keyboard.press('Control+a');
  await page.keyboard.press('o');
  await expect(page.getByRole('button', { name: /^Orthographic view/ })).toHaveAttribute('aria-pressed', 'true');
  await b.fresh('Tree', [8, 8, 8]);
  await expect(page.getByRole('button', { name: /^Orthographic view/ })).toHaveAttribute('aria-pressed', 'false');
  await expect(b.guideDepth).toHaveCount(0);
});

test('a part that is dropped on a bone keeps its place; a bone below another is of its side and goes on from it', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Rig');
  const row = (name: RegExp) => page.getByRole('treeitem', { name });
  const bones = async () =>
    (await b.project()).rig.bones as unknown as { name: string; side: string; rest: { t: number[] } }[];
  await row(/^Foot left/).click();
  await page.keyboard.press('b');
  await b.idle();
  const made = (await bones()).at(-1)!;
  expect(made.side).toBe('left');
  // The shin leads down to the foot, so what comes after it goes on downwards.
  expect(made.rest.t[1]).toBeLessThan(0);

  await row(/^Satchel/).click();
  const where = () => page.evaluate(() => window.sphalerite.screenOf({ part: 'Satchel', cell: [0, 0, 0] }));
  const before = await where();
  await page.getByRole('button', { name: 'Unmount' }).first().click();
  await b.idle();
  // Scrolled into sight, with the bone to drop it on.
  await page.locator('span.loose', { hasText: 'Satchel' }).scrollIntoViewIfNeeded();
  const loose = (await page.locator('span.loose', { hasText: 'Satchel' }).boundingBox())!;
  const tail = (await row(/^Coat tail right/).boundingBox())!;
  await b.drag({ x: loose.x + 30, y: loose.y + loose.height / 2 }, { x: tail.x + 60, y: tail.y + tail.height / 2 }, 12);
  expect((await b.project()).history.at(-1)).toBe('Mount Satchel');
  const after = await where();
  expect(Math.hypot(after.x - before.x, after.y - before.y)).toBeLessThan(0.5);
});
