import type { Locator, Page } from '@playwright/test';
import { Bench } from './bench';
import { expect, test } from './test';

const properties = (page: Page): Locator => page.getByRole('complementary', { name: 'Properties' });
const rows = (page: Page, name: RegExp): Locator =>
  page.getByRole('complementary', { name: 'Tray' }).getByRole('treeitem', { name });
const middle = async (what: Locator): Promise<{ x: number; y: number }> => {
  const box = (await what.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

test('a number is dragged by its letter, worked out from a sum, and counts for all that are chosen, whose numbers differ', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.part(/^Head$/);
  const field = page.getByRole('spinbutton', { name: 'Pivot Y' });
  const pivot = async (part: string): Promise<number> => {
    const p = (await b.project()).parts.find((o) => o.name === part)!;
    return (p as unknown as { pivot: number[] }).pivot[1]! / 2;
  };
  const before = Number(await field.inputValue());
  const letter = await middle(properties(page).locator('.number-field', { has: field }).locator('.letter'));
  await b.drag(letter, { x: letter.x + 20, y: letter.y });
  await expect(field).toHaveValue(String(before + 2));
  expect((await b.project()).history.at(-1)).toBe('Move the pivot of Head');
  await field.fill('3*4+1/2');
  await field.press('Enter');
  await expect(field).toHaveValue('12.5');
  await rows(page, /^Coat$/).click({ modifiers: ['Control'] });
  await expect(field).toHaveValue('');
  await expect(field).toHaveAttribute('placeholder', 'differ');
  await field.fill('7');
  await field.press('Enter');
  await expect(field).toHaveValue('7');
  expect([await pivot('Head'), await pivot('Coat')]).toEqual([7, 7]);
  await page.keyboard.press('Control+z');
  await b.idle();
  expect(await pivot('Head')).toBe(12.5);
  await field.fill('no number');
  await field.press('Enter');
  await expect(field).toHaveValue('');

  await b.step('Rig');
  await rows(page, /^Upper arm left/).click();
  await rows(page, /^Upper arm right/).click({ modifiers: ['Control'] });
  const turn = page.getByRole('spinbutton', { name: 'Turn X' });
  await turn.fill('20');
  await turn.press('Enter');
  await b.idle();
  const turns = (await b.project()).rig.bones
    .filter((o) => o.name === 'Upper arm')
    .map((o) => (o as unknown as { rest: { q: number[] } }).rest.q[0]!);
  for (const x of turns) expect(x).toBeCloseTo(Math.sin(Math.PI / 18), 6);
  expect(turns).toHaveLength(2);
});

test('bars move by arrows, rows by Alt and arrows; trees fold and walk by keys', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const bar = page.getByRole('separator', { name: 'Size of the tray' });
  const tray = page.getByRole('complementary', { name: 'Tray' });
  const wide = async (): Promise<number> => (await tray.boundingBox())!.width;
  const width = await wide();
  await bar.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await expect.poll(wide).toBeGreaterThan(width + 40);
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
  await expect.poll(wide).toBeCloseTo(width, 0);

  const names = async (): Promise<string[]> => (await b.project()).parts.map((p) => p.name).slice(0, 3);
  expect(await names()).toEqual(['Coat', 'Skirt', 'Head']);
  await rows(page, /^Coat$/).click();
  await rows(page, /^Coat$/).focus();
  await page.keyboard.press('ArrowDown');
  await expect(rows(page, /^Skirt$/)).toBeFocused();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(names).toEqual(['Skirt', 'Coat', 'Head']);
  await expect(rows(page, /^Skirt$/)).toBeFocused();
  await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(names).toEqual(['Coat', 'Skirt', 'Head']);

  await b.step('Rig');
  const bone = rows(page, /^Chest/);
  await bone.click();
  await bone.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
  await expect(rows(page, /^Head/)).toHaveCount(1);
  await page.keyboard.press('ArrowLeft');
  await expect(rows(page, /^Head/)).toHaveCount(0);
  await expect(bone).toHaveAttribute('aria-expanded', 'false');
  await page.keyboard.press('ArrowRight');
  await expect(rows(page, /^Head/)).toHaveCount(1);
});

test.describe('with fingers', () => {
  test.use({ hasTouch: true });
  test('a held row is dragged, one finger turns the view and draws, two come nearer', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    const cdp = await page.context().newCDPSession(page);
    type At = { x: number; y: number };
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...touchPoints: At[]) =>
      cdp.send('Input.dispatchTouchEvent', { type, touchPoints });
    const swipe = async (from: At, to: At, hold = 0): Promise<void> => {
      await touch('touchStart', from);
      await page.waitForTimeout(hold);
      for (let i = 1; i <= 5; i++)
        await touch('touchMove', { x: from.x + ((to.x - from.x) * i) / 5, y: from.y + ((to.y - from.y) * i) / 5 });
      await touch('touchEnd');
      await b.idle();
    };
    const cubes = await b.total();
    const names = async (): Promise<string[]> => (await b.project()).parts.map((p) => p.name).slice(0, 3);
    const below = (await rows(page, /^Head$/).boundingBox())!;
    await swipe(await middle(rows(page, /^Coat$/)), { x: below.x + 40, y: below.y + below.height - 2 }, 600);
    await expect.poll(names).toEqual(['Skirt', 'Head', 'Coat']);

    // Where two cubes of her stand on the page tells how the view is turned and how near it is.
    const seen = async (): Promise<At[]> =>
      page.evaluate(() =>
        (
          [
            [9, 0, 0],
            [0, 14, 0],
          ] as const
        ).map((cell) => window.sphalerite.screenOf({ part: 'Coat', cell: [...cell] })),
      );
    const apart = ([a, c]: At[]): number => Math.hypot(a!.x - c!.x, a!.y - c!.y);
    const first = await seen();
    const view = (await page.getByRole('region', { name: 'View', exact: true }).boundingBox())!;
    const ground = { x: view.x + view.width - 220, y: view.y + view.height * 0.7 };
    await swipe(ground, { x: ground.x + 50, y: ground.y });
    const turned = await seen();
    expect(apart([turned[0]!, first[0]!])).toBeGreaterThan(5);
    expect(await b.total()).toBe(cubes);
    const [p, q] = [ground, { x: ground.x + 100, y: ground.y }];
    await touch('touchStart', p, q);
    for (let i = 1; i <= 5; i++) await touch('touchMove', { x: p.x - i * 8, y: p.y }, { x: q.x + i * 8, y: q.y });
    await touch('touchEnd');
    await b.idle();
    expect(apart(await seen())).toBeGreaterThan(apart(turned) * 1.2);

    await page.keyboard.press('Home');
    await b.idle();
    await b.part(/^Coat$/);
    await page.keyboard.press('2');
    const at = await b.face('Coat', [4, 20, 3], [0, 0, 1]);
    await touch('touchStart', at);
    await touch('touchEnd');
    await b.idle();
    expect(await b.total()).toBe(cubes + 1);
  });
});

test('a project of one’s own has no lesson about another’s figure, and the search says why', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.fresh('Mooring bollard', [7, 9, 6]);
  await expect(page.getByTestId('coach')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a command' }).fill('first steps');
  const found = page.getByRole('option', { name: /Show the first steps again/ });
  await expect(found).toHaveAttribute('aria-disabled', 'true');
  await expect(found).toContainText(/Tamsin/);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('coach')).toHaveCount(0);
});
