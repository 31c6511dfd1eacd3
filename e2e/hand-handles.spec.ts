import { Artist } from './artist';
import type { Bench, Triple } from './bench';
import { expect, test } from './test';

interface Place {
  x: number;
  y: number;
}
/** Pixels from the middle of the gizmo to where its arrows are best taken hold of. */
const ARM = 52;
const part = async (b: Bench, name: string) => (await b.project()).parts.find((p) => p.name === name)!;

/** Square on from the front, without perspective: X goes right and Y up, a cube so many pixels wide. */
async function front(b: Bench): Promise<void> {
  await b.page.keyboard.press('o');
  await b.page.keyboard.press('Control+1');
  await b.idle();
}
/** Where a point of a part stands on screen in cubes, from two of its cells that are seen from the front. */
async function cubes(b: Bench, name: string, a: Triple, c: Triple): Promise<(at: readonly [number, number]) => Place> {
  const p = await b.face(name, a, [0, 0, 1]),
    q = await b.face(name, c, [0, 0, 1]);
  const x = (q.x - p.x) / (c[0] - a[0]),
    y = (q.y - p.y) / (c[1] - a[1]);
  return ([cx, cy]) => ({ x: p.x + (cx - a[0] - 0.5) * x, y: p.y + (cy - a[1] - 0.5) * y });
}
const beside = (p: Place, x: number, y: number): Place => ({ x: p.x + x, y: p.y - y });

test('a pivot has handles: arrows by half cubes, axes switched while it is dragged, figures typed, Esc, a dot that snaps, and places it finds itself', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Post', [16, 16, 16]);
  await page.keyboard.press('1');
  await b.byNumbers([4, 10, 4], [-2, 0, -2]);
  await front(b);
  const at = await cubes(b, 'Body', [-2, 0, 1], [1, 9, 1]);
  const pivot = async (): Promise<Triple> => (await part(b, 'Body')).pivot;
  const [px, py, pz] = await pivot();
  const dot = async (): Promise<Place> => {
    const [x, y] = await pivot();
    return at([x / 2, y / 2]);
  };
  await page.keyboard.press('j');
  await b.idle();
  const live = page.locator('output.live');
  const up = beside(await dot(), 0, ARM);
  const cube = at([1, 0]).x - at([0, 0]).x;
  // On hover it says where it stands.
  await page.mouse.move(up.x, up.y);
  await expect(live).toHaveText(`pivot  X ${px / 2}  Y ${py / 2}  Z ${pz / 2}`);
  await b.drag(up, beside(up, 7, 3 * cube));
  expect(await pivot()).toEqual([px, py + 6, pz]);

  // X comes along once its chip is switched on; Y can be switched off meanwhile.
  const again = beside(await dot(), 0, ARM);
  await page.mouse.move(again.x, again.y);
  await page.mouse.down();
  await page.mouse.move(again.x + 5, again.y - 5, { steps: 4 });
  const chip = (a: string) =>
    page.getByRole('group', { name: 'Axes of the drag' }).getByRole('button', { name: `Along ${a}` });
  await expect(chip('Y')).toHaveAttribute('aria-pressed', 'true');
  await expect(chip('X')).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.press('x');
  await expect(chip('X')).toHaveAttribute('aria-pressed', 'true');
  await page.mouse.move(again.x + 2 * cube, again.y + cube, { steps: 6 });
  await page.mouse.up();
  await b.idle();
  expect(await pivot()).toEqual([px + 4, py + 4, pz]);
  // A figure counts cubes, and Esc gives back what was.
  const third = beside(await dot(), 0, ARM);
  await page.mouse.move(third.x, third.y);
  await page.mouse.down();
  await page.keyboard.type('-1.5');
  await expect(live).toContainText(`Y ${py / 2 + 0.5}`);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await b.idle();
  expect(await pivot()).toEqual([px + 4, py + 4, pz]);

  // Carried without a button: the chips are free for the pointer, a click sets it down.
  const right = beside(await dot(), ARM, 0);
  await page.mouse.dblclick(right.x, right.y);
  await page.mouse.move(right.x + cube, right.y - 2 * cube, { steps: 6 });
  await chip('Y').click();
  await chip('X').click();
  await page.mouse.move(right.x + 5 * cube, right.y - 2 * cube, { steps: 6 });
  await b.click(beside(right, 5 * cube, 2 * cube));
  expect(await pivot()).toEqual([px + 4, py + 8, pz]);

  // By its dot onto a corner of a cube.
  const corner = at([-2, 10]);
  await page.getByRole('combobox', { name: 'A dragged pivot snaps to' }).press('Enter');
  await page.getByRole('option', { name: 'cube corners' }).click();
  await b.drag(await dot(), { x: corner.x + 2, y: corner.y + 2 });
  expect(await pivot()).toEqual([-4, 20, 4]);
  const press = async (name: string): Promise<Triple> => {
    await page.getByRole('button', { name, exact: true }).click();
    await b.idle();
    return pivot();
  };
  expect(await press('Pivot to the centre of the cubes')).toEqual([0, 10, 0]);
  expect(await press('Pivot to the centre of the base')).toEqual([0, 0, 0]);
  await press('Pivot to where the part touches its neighbour');
  await expect(page.getByText('“Body” touches no other part where it stands')).toBeVisible();
  // Everything was undone step by step, and it can be hidden.
  await page.keyboard.press('Control+z');
  await b.idle();
  expect(await pivot()).toEqual([0, 10, 0]);
  await page.getByRole('checkbox', { name: 'shown in the view' }).uncheck();
  await expect(page.getByRole('checkbox', { name: 'shown in the view' })).not.toBeChecked();
});

test('a pivot takes the joint it stands on along; bones, how parts are mounted, and keys are scaled by pulling', async ({
  page,
}) => {
  const b = new Artist(page);
  await b.open();
  await b.fresh('Crane', [16, 16, 16]);
  await page.keyboard.press('1');
  await b.byNumbers([4, 10, 4], [-2, 0, -2]);
  await front(b);
  const at = await cubes(b, 'Body', [-2, 0, 1], [1, 9, 1]);
  await b.step('Rig');
  await page.keyboard.press('b');
  await b.idle();
  const bone = async () => (await b.project()).rig.bones[0]!;
  const mount = async () => (await b.project()).rig.mounts[0]!;
  const row = (name: RegExp) => page.getByRole('treeitem', { name });
  // The part, on the bone that is proposed for it.
  await page.getByRole('button', { name: 'propose bones' }).click();
  await page.getByRole('button', { name: /^Mount/ }).click();
  await b.idle();
  expect((await mount()).bone).toBe((await bone()).id);
  await row(/^Bone/).click();
  // A pull on one cube of the gizmo scales all alike; it stands where the joint is.
  await page.keyboard.press('w');
  await b.idle();
  const joint = await b.joint('Bone');
  await b.drag(beside(joint, 0, 64), beside(joint, 0, 96));
  expect((await bone()).rest.s).toEqual([1.5, 1.5, 1.5]);
  await page.keyboard.press('Control+z');
  // Each axis its own, once that is unlocked; in per cent, typed.
  await page.getByRole('button', { name: 'Scale of the bone' }).click();
  await page.getByRole('checkbox', { name: 'each axis its own' }).check();
  const up = beside(joint, 0, 64);
  await page.mouse.move(up.x, up.y);
  await page.mouse.down();
  await page.keyboard.type('80');
  await page.mouse.up();
  await b.idle();
  expect((await bone()).rest.s).toEqual([1, 0.8, 1]);
  await page.keyboard.press('Control+z');

  // The same handles on how the part is mounted.
  await page.keyboard.press('p');
  await page.keyboard.press('j');
  await b.idle();
  await b.drag(beside(joint, ARM, 0), beside(joint, ARM + 3 * (at([1, 0]).x - at([0, 0]).x), 0));
  expect((await mount()).t).toEqual([3, 0, 0]);
  await page.keyboard.press('w');
  await b.idle();
  const moved = beside(joint, 3 * (at([1, 0]).x - at([0, 0]).x), 0);
  await b.drag(beside(moved, 0, 64), beside(moved, 0, 80));
  expect((await mount()).s).toEqual([1, 1.25, 1]);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await b.idle();
  expect([(await mount()).t, (await mount()).s]).toEqual([
    [0, 0, 0],
    [1, 1, 1],
  ]);

  // In Build the pivot takes the joint along, whatever hangs on it staying.
  await b.step('Build');
  await page.getByRole('button', { name: 'Pivot to the centre of the cubes' }).click();
  await b.idle();
  expect([(await bone()).rest.t, (await mount()).t, (await part(b, 'Body')).pivot]).toEqual([
    [0, 5, 0],
    [0, 0, 0],
    [0, 10, 0],
  ]);

  // A scale is keyed by pulling too.
  await b.step('Animate');
  await page.getByRole('button', { name: 'New clip' }).first().click();
  await b.idle();
  await page.keyboard.press('w');
  await b.idle();
  const there = await b.joint('Bone');
  await b.drag(beside(there, 0, 64), beside(there, 0, 48));
  const { lanes } = (await b.project()).clips[0]!;
  expect(lanes.map((l) => l.scale.map((k) => k.value))).toEqual([[[1, 0.75, 1]]]);
});
