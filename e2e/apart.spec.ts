import { choose } from './bench';
import { expect, test } from './test';
import { Artist } from './artist';
import type { Triple } from './bench';

test('a four-legged creature is taken apart in eight actions: named on both sides, fitted, with pivots, on bones, cube for cube', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Ferry goat', [16, 20, 24]);
  await page.keyboard.press('1');
  const block = async (name: string, size: Triple, min: Triple): Promise<number> => {
    const byte = await b.swatch(name);
    await b.byNumbers(size, min);
    return byte;
  };
  await block('Oak', [8, 6, 14], [-4, 6, -8]);
  const head = await block('Clay', [4, 6, 4], [-2, 12, 4]);
  await page.keyboard.press('m');
  const fore = await block('Moss', [2, 6, 2], [2, 0, 3]);
  await block('Slate', [2, 6, 2], [2, 0, -7]);
  const total = await b.total();
  expect(total).toBe(8 * 6 * 14 + 4 * 6 * 4 + 4 * 24);

  // One action for the pieces, three names, one to take them apart.
  await page.getByRole('tab', { name: 'Apart' }).click();
  await page.getByRole('button', { name: 'Patches' }).click();
  await expect(page.getByLabel(/^Name of piece/)).toHaveCount(5);
  const rename = async (now: string, name: string): Promise<void> => {
    const all = page.getByLabel(/^Name of piece/);
    for (let i = 0; i < (await all.count()); i++) {
      if ((await all.nth(i).inputValue()) !== now) continue;
      await all.nth(i).fill(name);
      await all.nth(i).press('Enter');
      return;
    }
    throw new Error(`No piece is called ${now}.`);
  };
  await rename('Clay', 'Head');
  await rename('Moss', 'Fore leg');
  await rename('Slate', 'Hind leg');
  await page.getByRole('button', { name: 'Take apart into 6 parts' }).click();
  await b.idle();

  const p = await b.project();
  const full = (o: { name: string; side: string }): string => `${o.name} ${o.side}`;
  expect(p.parts.map(full).sort()).toEqual([
    'Body centre',
    'Body, whole centre',
    'Fore leg left',
    'Fore leg right',
    'Head centre',
    'Hind leg left',
    'Hind leg right',
  ]);
  expect(p.rig.bones.map(full).sort()).toEqual([
    'Body centre',
    'Fore leg left',
    'Fore leg right',
    'Head centre',
    'Hind leg left',
    'Hind leg right',
  ]);
  const part = (name: string, side: string) => p.parts.find((o) => o.name === name && o.side === side)!;
  // Fitted, with a plug of one cube inside the body, turning in the middle of its cut.
  expect(part('Fore leg', 'left').bounds).toEqual({ min: [2, 0, 3], size: [2, 7, 2] });
  expect(part('Fore leg', 'left').pivot).toEqual([6, 12, 8]);
  expect(part('Fore leg', 'right').pivot).toEqual([-6, 12, 8]);
  expect(part('Head', 'centre').pivot).toEqual([0, 24, 10]);
  expect((await b.cells('Fore leg left', [2, 0, 3], [2, 6, 2])).every((v) => v === fore)).toBe(true);
  expect((await b.cells('Head', [-2, 12, 4], [4, 6, 4])).every((v) => v === head)).toBe(true);
  expect((await b.cells('Body', [-4, 6, -8], [8, 6, 14])).every((v) => v !== 0)).toBe(true);
  // Every bone stands in its part's pivot, and all hang on the body.
  const body = p.rig.bones.find((o) => o.name === 'Body')!;
  for (const bone of p.rig.bones) {
    if (bone !== body) expect(bone.parent).toBe(body.id);
  }

  // One step back gives the sculpt again; joined by hand, two parts are one.
  await page.keyboard.press('Control+z');
  await b.idle();
  expect([(await b.project()).parts.length, await b.total()]).toEqual([1, total]);
  await page.keyboard.press('Control+Shift+Z');
  await b.idle();
  await b.part(/^Body$/);
  await choose(page, 'Join with', 'Head');
  await page.getByRole('button', { name: 'Join', exact: true }).click();
  await b.idle();
  expect((await b.project()).parts).toHaveLength(6);
  expect((await b.cells('Body', [-2, 12, 4], [4, 6, 4])).every((v) => v === head)).toBe(true);
});
