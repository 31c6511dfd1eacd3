import { type Page } from '@playwright/test';
import { choose } from './bench';
import { expect, test } from './test';
import { Artist } from './artist';
import type { Triple } from './bench';

/** A hand that takes sculpts apart. */
class Dissector extends Artist {
  private readonly list = this.page.getByRole('list', { name: 'Pieces' });
  constructor(page: Page) {
    super(page);
  }
  async demo(name: string): Promise<void> {
    await this.page.keyboard.press('Alt+0');
    await this.page
      .getByRole('button', { name: `Open ${name}` })
      .first()
      .click();
    await this.page.waitForURL(/\/build$/);
    await expect(this.page.getByRole('heading', { level: 1 })).toContainText(name);
    await this.idle();
  }
  /** Names the newest piece; a pair has one name. */
  async call(name: string, of = -1): Promise<void> {
    const field = this.page
      .getByLabel(/^Name of piece/)
      .nth(of === -1 ? (await this.list.getByRole('listitem').count()) - 1 : of);
    await field.fill(name);
    await field.press('Enter');
    await this.idle();
  }
  async button(name: string): Promise<void> {
    await this.page.getByRole('button', { name, exact: true }).click();
    await this.idle();
  }
  async press(key: string, times = 1): Promise<void> {
    for (let i = 0; i < times; i++) await this.page.keyboard.press(key);
    await this.idle();
  }
  /** Every cube of the visible parts by its cell, in the lattice they share; a part that comes later in the tray fills only gaps. */
  async cubes(): Promise<Map<string, { byte: number; part: string }[]>> {
    const out = new Map<string, { byte: number; part: string }[]>();
    for (const p of (await this.project()).parts.filter((o) => !o.hidden)) {
      const { min, size } = p.bounds,
        name = p.name + (p.side === 'centre' ? '' : ` ${p.side}`),
        cells = await this.cells(name, min, size);
      let i = 0;
      for (let z = 0; z < size[2]; z++)
        for (let y = 0; y < size[1]; y++)
          for (let x = 0; x < size[0]; x++, i++) {
            if (cells[i] === 0) continue;
            const at = [x + min[0], y + min[1], z + min[2]].join();
            out.set(at, [...(out.get(at) ?? []), { byte: cells[i]!, part: name }]);
          }
    }
    return out;
  }
  /** Where a cell stands on the page. */
  where = (part: string, cell: Triple): Promise<{ x: number; y: number }> => this.hint({ part, cell, face: [0, 0, 0] });
}

test('Oswin, sculpted as one piece, becomes body, neck in three, head, beak, wings, legs in two and feet, cube for cube; twins follow; a change of the whole goes through in two actions', async ({
  page,
}) => {
  const b = new Dissector(page);
  await b.open();
  await b.demo('Oswin');
  const sculpt = await b.cubes(),
    total = await b.total();
  await page.getByRole('tab', { name: 'Apart' }).click();
  await b.idle();

  // Head and neck by the guide plane, from above downwards.
  await b.press('q');
  await b.press(']', 11);
  await b.button('Cut at guide');
  await b.call('Head');
  for (const name of ['Upper neck', 'Middle neck']) {
    await b.press('[', 4);
    await b.button('Cut at guide');
    await b.call(name);
  }
  // The beak out of the head: the plane cuts what is in hand.
  await page.getByLabel('Paint piece 1').click();
  await b.press('Alt+q');
  await b.press(']', 11);
  await b.button('Cut at guide');
  await b.call('Beak');
  await page.locator('.chip', { hasText: 'strokes paint a piece' }).getByRole('button', { name: 'end' }).click();
  await b.press('q');
  // By numbers: the lower neck with its scarf, and both wings at once.
  await b.press('7');
  await b.byNumbers([6, 6, 5], [-3, 19, 5]);
  await b.button('From selection');
  await b.call('Lower neck');
  await b.press('m');
  await b.byNumbers([3, 9, 21], [5, 13, -15]);
  await b.button('From selection');
  await b.call('Wing');
  await b.press('m');
  // Legs by boxes from the front, which go through; two halves are a left and a right one.
  await b.press('Control+1');
  await b.press('o');
  for (const [name, from, to] of [
    ['Thigh', [4, 12, 2], [-5, 9, 1]],
    ['Shin', [4, 8, 1], [-5, 2, 1]],
    ['Foot', [4, 1, 2], [-5, 0, 5]],
  ] as [string, Triple, Triple][]) {
    await b.drag(await b.face('Oswin', from, [0, 0, 1]), await b.face('Oswin', to, [0, 0, 1]));
    await b.press('Alt+j');
    await b.call(name);
  }
  await expect(page.getByLabel(/^Name of piece/)).toHaveCount(13);

  // A plug of none gapes, and the panel says where; one that is deep enough does not.
  await b.number('Plug in cubes', 0);
  await expect(page.getByTestId('gaps')).toContainText(/gapes most: \d+ %/);
  await b.number('Plug in cubes', 2);
  const places = await Promise.all(
    [...sculpt.keys()]
      .filter((_, i) => i % 97 === 0)
      .map(async (k) => [k, await b.where('Oswin', k.split(',').map(Number) as unknown as Triple)] as const),
  );
  await b.button('Take apart into 14 parts');
  const p = await b.project();
  expect(
    p.parts
      .filter((o) => !o.hidden)
      .map((o) => `${o.name} ${o.side}`)
      .sort(),
  ).toEqual([
    'Beak centre',
    'Foot left',
    'Foot right',
    'Head centre',
    'Lower neck centre',
    'Middle neck centre',
    'Oswin centre',
    'Shin left',
    'Shin right',
    'Thigh left',
    'Thigh right',
    'Upper neck centre',
    'Wing left',
    'Wing right',
  ]);
  const after = await b.cubes();
  expect([...after.keys()].sort()).toEqual([...sculpt.keys()].sort());
  for (const [at, here] of after)
    expect(
      here.map((c) => c.byte),
      at,
    ).toContain(sculpt.get(at)![0]!.byte);
  // Each cube is in the part it was given to; more than one only where a plug stands inside.
  const owner = (at: string): string[] => after.get(at)!.map((c) => c.part);
  expect([
    owner('0,34,18'),
    owner('0,38,7'),
    owner('-1,30,7'),
    owner('4,5,0'),
    owner('-5,5,0'),
    owner('6,18,0'),
  ]).toEqual([['Beak'], ['Head'], ['Upper neck'], ['Shin left'], ['Shin right'], ['Wing left']]);
  // And it stands where it stood.
  for (const [k, was] of places) {
    const is = await b.where(owner(k)[0]!, k.split(',').map(Number) as unknown as Triple);
    expect(Math.hypot(is.x - was.x, is.y - was.y), k).toBeLessThan(0.01);
  }
  const bone = (name: string, side = 'centre') => p.rig.bones.find((o) => o.name === name && o.side === side)!;
  expect([bone('Beak').parent, bone('Foot', 'left').parent, bone('Shin', 'right').parent]).toEqual([
    bone('Head').id,
    bone('Shin', 'left').id,
    bone('Thigh', 'right').id,
  ]);

  // The tray by names, by pictures, by both.
  await b.button('Show parts as names alone');
  await expect(page.getByRole('complementary', { name: 'Tray' }).locator('.picture')).toHaveCount(0);
  await b.button('Show parts as pictures alone');
  await expect(page.getByRole('complementary', { name: 'Tray' }).locator('.picture')).toHaveCount(14);
  await b.button('Show parts as pictures and names');

  // One cube is knocked off the right wing: the pair is found all the same, and the cube is told.
  await b.part(/^Wing right/);
  await b.take('Erase box');
  await b.byNumbers([1, 1, 1], [-8, 16, -4]);
  await expect(
    page.getByRole('region', { name: 'Left and right' }).getByRole('button', { name: '1 cube differs' }),
  ).toBeVisible();
  // Left and right, kept alike: what is painted on one side is on both.
  await b.button('Keep all 4 pairs alike');
  await b.part(/^Wing left/);
  await b.press('Control+4');
  await page.getByRole('tab', { name: 'Part', exact: true }).click();
  const honey = await b.swatch('Honey');
  await b.take('Paint brush');
  const wing = (await b.project()).parts.find((o) => o.name === 'Wing' && o.side === 'left')!;
  const on: Triple = [7, 18, 0];
  await b.click(await b.hint({ part: 'Wing left', cell: on, face: [1, 0, 0] }));
  expect(await b.cell('Wing left', on)).toBe(honey);
  expect(await b.cell('Wing right', [-1 - on[0], on[1], on[2]])).toBe(honey);
  expect((await b.project()).parts.find((o) => o.name === 'Wing' && o.side === 'right')!.pivot).toEqual([
    -wing.pivot[0],
    wing.pivot[1],
    wing.pivot[2],
  ]);
  await b.press('Control+z');
  // A twin made independent stays as it is; one step back, it follows again.
  const twins = async (): Promise<number> => (await b.project()).parts.filter((o) => o.twin !== null).length;
  await page.getByRole('tab', { name: 'Apart' }).click();
  await b.part(/^Wing right/);
  await b.button('Make independent');
  expect(await twins()).toBe(3);
  await b.press('Control+z');
  expect(await twins()).toBe(4);

  // The sculpt changes: the whole on the bench, a stroke, and all parts have it.
  await page.getByRole('tab', { name: 'Apart' }).click();
  await b.part(/^Head/);
  await b.button('Work on the whole');
  await b.take('Erase box');
  await b.byNumbers([6, 1, 5], [-3, 39, 5]);
  const cut = (await b.project()).parts.find((o) => o.name === 'Oswin, whole')!.layers[0]!.grid.cubes;
  await b.button('Take apart again');
  expect(total - cut).toBe(30);
  const again = await b.cubes();
  expect([...sculpt.keys()].filter((k) => !again.has(k))).toHaveLength(30);
  expect([...again.keys()].every((k) => sculpt.has(k))).toBe(true);
  const q = await b.project();
  expect([q.parts.length, q.rig.bones]).toEqual([15, p.rig.bones]);
  expect(q.parts.find((o) => o.name === 'Head')!.bounds.size[1]).toBe(
    p.parts.find((o) => o.name === 'Head')!.bounds.size[1] - 1,
  );

  // All of it is there after a reload, regions too.
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await page.reload();
  await b.idle();
  expect([...(await b.cubes()).keys()].sort()).toEqual([...again.keys()].sort());
  await page.getByRole('tab', { name: 'Apart' }).click();
  // The whole is out of sight but for this.
  await b.part(/^Head/);
  await b.button('Work on the whole');
  await expect(page.getByLabel(/^Name of piece/)).toHaveCount(13);
  await page.getByRole('region', { name: 'View', exact: true }).focus();
  await b.press('Control+z');

  // Rigged: a leg of his left side, the other side from it, a neck whose upper bones turn with the lowest.
  await b.step('Rig');
  await page
    .getByRole('button', { name: 'Close this card for good' })
    .click({ timeout: 2000 })
    .catch(() => undefined);
  await page.getByRole('treeitem', { name: /^Foot\s*left/ }).click();
  await b.press('i');
  // Whatever has wings or a beak bends its knees backward.
  await page.getByRole('treeitem', { name: /^Foot\s*left/ }).click();
  await expect(page.getByRole('region', { name: 'Steering' })).toContainText('It bends backward.');
  await b.press('m');
  for (const [bone, below] of [
    ['Middle neck', 'Lower neck'],
    ['Upper neck', 'Middle neck'],
  ]) {
    await page.getByRole('treeitem', { name: new RegExp(`^${bone}`) }).click();
    await choose(page, 'New constraint', 'Match turn');
    await choose(page, 'Its target', below!);
    await b.button('Add');
  }
  await expect(page.getByRole('region', { name: 'Checks' })).toContainText('all mounted');
  const rigged = await b.project();
  expect(
    rigged.rig.bones
      .filter((o) => /goal|bend/.test(o.name))
      .map((o) => `${o.name} ${o.side}`)
      .sort(),
  ).toEqual(['Foot goal left', 'Foot goal right', 'Shin bend left', 'Shin bend right']);
  // Tried: the goal is pulled up, the foot follows it; nothing of it is kept.
  await b.press('y');
  const pull = async (side: string): Promise<number> => {
    await page.getByRole('treeitem', { name: new RegExp(`Foot goal\\s*${side}`) }).click();
    const [goal, foot] = [await b.joint(`Foot goal ${side}`), await b.joint(`Foot ${side}`)];
    await page.mouse.move(goal.x, goal.y - 55);
    await page.mouse.down();
    await page.mouse.move(goal.x, goal.y - 80, { steps: 4 });
    await page.mouse.up();
    await b.idle();
    const [to, along] = [await b.joint(`Foot goal ${side}`), await b.joint(`Foot ${side}`)];
    expect(Math.hypot(along.x - foot.x - (to.x - goal.x), along.y - foot.y - (to.y - goal.y))).toBeLessThan(1.5);
    return goal.y - to.y;
  };
  if ((await page.getByRole('button', { name: 'Try a pose' }).getAttribute('aria-pressed')) !== 'true')
    await b.press('y');
  expect(await pull('left')).toBeGreaterThan(8);
  expect(await pull('right')).toBeGreaterThan(8);
  expect((await b.project()).rig).toEqual(rigged.rig);
});

test('pieces are painted: surface and what lies under it; a cut with teeth, where what one side loses the other gains; undo and reload keep them', async ({
  page,
}) => {
  const b = new Dissector(page);
  await b.open();
  await b.fresh('Mooring', [16, 16, 16]);
  await b.press('1');
  await b.byNumbers([8, 12, 8], [-4, 0, -4]);
  await page.getByRole('tab', { name: 'Apart' }).click();
  const count = async (i: number): Promise<number> =>
    Number(
      (
        await page.getByRole('list', { name: 'Pieces' }).getByRole('listitem').nth(i).locator('.figures').innerText()
      ).replace(',', ''),
    );
  const all = async (): Promise<number> => b.total();

  // A box drawn over the top's face: its cubes and the inside under it are a piece.
  await page.getByRole('button', { name: 'Paint one' }).click();
  await b.take('Paint brush');
  await b.click(
    await b.spot([
      [0, 11, 0],
      [0, 1, 0],
    ]),
  );
  const painted = await count(0);
  expect(painted).toBeGreaterThan(20);
  await b.call('Cap');
  await b.click(
    await b.spot([
      [-3, 11, 3],
      [0, 1, 0],
    ]),
  );
  const more = await count(0);
  expect(more).toBeGreaterThan(painted);
  await b.press('Control+z');
  expect(await count(0)).toBe(painted);
  await b.press('Control+Shift+Z');
  expect(await count(0)).toBe(more);
  expect(await all()).toBe(8 * 12 * 8);
  await page.locator('.chip', { hasText: 'strokes paint a piece' }).getByRole('button', { name: 'end' }).click();

  // Teeth: the guide plane cuts the rest so that both sides hold each other.
  await b.press('q');
  await b.press('[', 4);
  await b.number('Teeth of the cut in cubes', 2);
  await b.button('Cut at guide');
  await b.call('Foot');
  const foot = await count(1);
  // Four layers, and two of teeth over half of the field.
  expect(foot).toBe(4 * 64 + 2 * 32);
  // A cube taken from the foot with Erase goes to the other side.
  await page.getByLabel('Paint piece 2').click();
  await b.take('Erase point');
  await b.click(
    await b.spot([
      [3, 2, 3],
      [0, 0, 1],
    ]),
  );
  expect(await count(1)).toBe(foot - 1);
  expect(await b.cell('Body', [3, 2, 3])).not.toBe(0);

  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await page.reload();
  await b.idle();
  await page.getByRole('tab', { name: 'Apart' }).click();
  expect([await count(0), await count(1)]).toEqual([more, foot - 1]);
  await b.button('Take apart into 3 parts');
  const parts = (await b.project()).parts.filter((o) => !o.hidden);
  expect(parts.map((o) => o.name).sort()).toEqual(['Body', 'Cap', 'Foot']);
  const cubes = await b.cubes();
  expect(cubes.size).toBe(8 * 12 * 8);

  // Parts by now, they still fit: a tooth's cube erased from one is the other's.
  await b.part(/^Foot/);
  await page.getByLabel('Erase gives cubes to the part beside').check();
  await expect(page.locator('.chip', { hasText: 'Erase gives cubes to the part beside' })).toBeVisible();
  await b.take('Erase point');
  const byte = await b.cell('Foot', [3, 5, 3]);
  await b.click(await b.face('Foot', [3, 5, 3], [0, 0, 1]));
  expect([await b.cell('Foot', [3, 5, 3]), await b.cell('Body', [3, 5, 3])]).toEqual([0, byte]);
  expect((await b.cubes()).size).toBe(8 * 12 * 8);
});
