import { Bench, type ProjectJson } from './bench';
import { expect, test } from './test';

type Chosen = { chosen: Record<'part' | 'bone' | 'clip' | 'shot', string[]> };

class Tray extends Bench {
  row = (name: RegExp) => this.page.getByRole('complementary', { name: 'Tray' }).getByRole('treeitem', { name });
  async chosen(kind: keyof Chosen['chosen']): Promise<string[]> {
    const view = (await this.state()) as unknown as { view: Chosen };
    const p = (await this.project()) as ProjectJson;
    const names = new Map([...p.parts, ...p.rig.bones, ...p.clips].map((o) => [o.id, o.name]));
    return view.view.chosen[kind].map((id) => names.get(id) ?? id);
  }
}

test('several parts are chosen with Ctrl and Shift; hiding and deleting them is one step, and undo chooses them again', async ({
  page,
}) => {
  const b = new Tray(page);
  await b.open();
  await b.row(/^Coat$/).click();
  await b.row(/Head/).click({ modifiers: ['Shift'] });
  expect(await b.chosen('part')).toEqual(['Coat', 'Skirt', 'Head']);
  await b.row(/Skirt/).click({ modifiers: ['Control'] });
  await b.row(/Satchel/).click({ modifiers: ['Control'] });
  expect(await b.chosen('part')).toEqual(['Coat', 'Head', 'Satchel']);
  await page.keyboard.press('Shift+H');
  const hidden = async (): Promise<string[]> =>
    (await b.project()).parts.filter((p) => (p as unknown as { hidden: boolean }).hidden).map((p) => p.name);
  expect(await hidden()).toEqual(['Coat', 'Head', 'Satchel']);
  await page.keyboard.press('Control+z');
  expect(await hidden()).toEqual([]);
  await page.keyboard.press('Shift+Delete');
  await b.idle();
  expect((await b.project()).parts).toHaveLength(16);
  expect((await b.project()).history.at(-1)).toBe('Delete Coat and 2 more');
  await page.keyboard.press('Control+z');
  await b.idle();
  expect((await b.project()).parts).toHaveLength(19);
  expect(await b.chosen('part')).toEqual(['Coat', 'Head', 'Satchel']);
});

test('bones are chosen together in the view and the list; the gizmo takes typed figures and a plane, and Escape puts all back', async ({
  page,
}) => {
  const b = new Tray(page);
  await b.open();
  await b.step('Rig');
  await b.row(/^Chest/).click();
  await page.keyboard.down('Control');
  const head = await b.joint('Head');
  await page.mouse.click(head.x, head.y);
  await page.keyboard.up('Control');
  expect(await b.chosen('bone')).toEqual(['Chest', 'Head']);
  await page.keyboard.press('j');
  await b.idle();
  const rest = async (): Promise<number[]> => {
    const bone = (await b.project()).rig.bones.find((o) => o.name === 'Head')!;
    return [...(bone as unknown as { rest: { t: number[] } }).rest.t];
  };
  const before = await rest();
  // The arrow along Y points straight up on the screen.
  const at = await b.joint('Head');
  const grip = { x: at.x, y: at.y - 50 };
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(grip.x, grip.y - 12, { steps: 3 });
  await page.keyboard.press('4');
  await page.mouse.up();
  await b.idle();
  // Four cubes, along the one axis that was held.
  expect((await rest()).map((v, i) => v - before[i]!)).toEqual([0, expect.closeTo(4, 6), 0]);
  await page.keyboard.press('Control+z');
  await page.mouse.move(grip.x, grip.y);
  await page.mouse.down();
  await page.mouse.move(grip.x + 5, grip.y - 30, { steps: 4 });
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await b.idle();
  expect(await rest()).toEqual(before);
});
