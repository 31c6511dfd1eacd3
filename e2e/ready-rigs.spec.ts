import { expect, test } from './test';
import { choose, slide, Bench, type ProjectJson, type Triple } from './bench';

/** A joint of an unturned skeleton, in cubes. */
function jointAt(p: ProjectJson, name: string): Triple {
  let at: Triple = [0, 0, 0];
  for (
    let b = p.rig.bones.find((o) => o.name === name || `${o.name} ${o.side}` === name);
    b;
    b = p.rig.bones.find((o) => o.id === b!.parent)
  )
    at = [at[0] + b.rest.t[0], at[1] + b.rest.t[1], at[2] + b.rest.t[2]];
  return at;
}
const chip = (b: Bench, text: string) => b.page.locator('.chip', { hasText: text });

test.describe('Ready rigs', () => {
  test('a biped is filled: three heads in turn by dropping, its bones refuse, unsealing names the clips and is undone; kept as one’s own it begins another project', async ({
    page,
  }) => {
    const b = new Bench(page);
    // Both ends of a drag in the tray are in sight.
    await page.setViewportSize({ width: 1280, height: 1200 });
    await b.open();
    await page.keyboard.press('Alt+0');
    await page.getByRole('button', { name: 'New project' }).click();
    await page.getByRole('radio', { name: 'Biped', exact: true }).click();
    await page.getByLabel('Name', { exact: true }).fill('Porter');
    await page.getByRole('button', { name: 'Put it on the bench' }).click();
    await page.waitForURL(/\/rig$/);
    await b.idle();
    await expect(chip(b, 'sealed: Biped')).toBeVisible();
    const begun = await b.project();
    expect(begun.clips.map((c) => c.name)).toEqual(['Idle', 'Walk', 'Wave']);

    // Two more heads, made of the first in Build, wait on no bone.
    await b.step('Build');
    for (let i = 0; i < 2; i++) {
      await b.part(/^Head\b/);
      await page.keyboard.press('Control+d');
      await b.idle();
    }
    await b.step('Rig');
    const head = page.getByRole('treeitem', { name: /^Head/ });
    await head.click();
    const mounted = page.getByRole('region', { name: 'Mounted' });
    for (const name of ['Head 2', 'Head 3'])
      await mounted
        .locator('.mounted', { has: page.locator('span', { hasText: new RegExp(`^${name}$`) }) })
        .getByRole('button', { name: 'Unmount' })
        .click();
    const canvas = page.locator('canvas').first(),
      box = (await canvas.boundingBox())!;
    for (const name of ['Head 2', 'Head 3']) {
      const part = page.locator('.tray .loose', { hasText: new RegExp(`^${name}$`) });
      // One onto the bone in the tray, one onto the head in the view.
      const at = await page.evaluate(() =>
        window.sphalerite.screenOf({ part: 'Head 2', cell: [0, 30, 3], face: [0, 0, 1] }),
      );
      await (name === 'Head 2'
        ? part.dragTo(head)
        : part.dragTo(canvas, { targetPosition: { x: at.x - box.x, y: at.y - box.y } }));
      await b.idle();
      await expect(
        page.getByRole('radiogroup', { name: 'Alternates Head' }).getByRole('radio', { name, exact: true }),
      ).toBeChecked();
    }
    await page
      .getByRole('radiogroup', { name: 'Alternates Head' })
      .getByRole('radio', { name: 'Head', exact: true })
      .click();
    await b.idle();
    const tried = await b.project();
    expect(tried.rig.bones).toEqual(begun.rig.bones);
    expect(tried.clips).toEqual(begun.clips);
    expect(tried.history.slice(-3)).toEqual([
      'Try Head 2 instead of Head',
      'Try Head 3 instead of Head 2',
      'Wear Head',
    ]);

    // What is sealed refuses with a sentence; unsealing says what may break and is one step.
    await page.keyboard.press('Delete');
    await expect(
      page.getByText('is a bone of the sealed rig “Biped”. Unseal it in Rig to change it.', { exact: false }).first(),
    ).toBeVisible();
    expect((await b.project()).rig.bones).toEqual(begun.rig.bones);
    await chip(b, 'sealed: Biped').getByRole('button').click();
    await expect(page.getByRole('dialog')).toContainText('Idle, Walk, Wave');
    await page.getByRole('dialog').getByRole('button', { name: 'Unseal', exact: true }).click();
    await expect(chip(b, 'sealed: Biped')).toHaveCount(0);
    await page.keyboard.press('Control+z');
    await expect(chip(b, 'sealed: Biped')).toBeVisible();

    // One's own: without parts, it begins a project that is sealed in turn.
    await page.getByRole('button', { name: 'Save as a ready rig…' }).click();
    await page.getByRole('dialog').getByLabel('Name').fill('Quay folk');
    await page.getByLabel('without its parts', { exact: false }).check();
    await page.getByRole('button', { name: 'Save it' }).click();
    await expect(page.getByText('“Quay folk” is a ready rig now', { exact: false }).first()).toBeVisible();
    await page.keyboard.press('Alt+0');
    await page.getByRole('button', { name: 'New project' }).click();
    await page.getByRole('radio', { name: 'Quay folk', exact: true }).click();
    await page.getByRole('button', { name: 'Put it on the bench' }).click();
    await page.waitForURL(/\/rig$/);
    await b.idle();
    await expect(chip(b, 'sealed: Quay folk')).toBeVisible();
    const own = await b.project();
    expect([own.parts.length, own.rig.bones.length, own.clips.length]).toEqual([0, begun.rig.bones.length, 3]);
  });

  test('a joint dragged by its dot lands on the face centre under it to the last digit; bones are set by clicks; chains are laid straight', async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Rig');
    await page.getByRole('treeitem', { name: /^Satchel/ }).click();
    await page.keyboard.press('j');
    await choose(page, 'A dragged joint snaps to', 'face centres');
    await b.idle();
    const before = await b.project();
    await b.drag(await b.joint('Satchel'), await b.face('Satchel', [-3, 10, 6], [0, 0, 1]));
    const moved = await b.project();
    expect(jointAt(moved, 'Satchel')).toEqual([-2.5, 10.5, 7]);
    expect(moved.parts.map((p) => p.layers)).toEqual(before.parts.map((p) => p.layers));
    // By corners: the corner of that face nearest to the pointer.
    await choose(page, 'A dragged joint snaps to', 'cube corners');
    await b.drag(await b.joint('Satchel'), await b.face('Satchel', [-3, 12, 6], [0, 0, 1]));
    const corner = jointAt(await b.project(), 'Satchel');
    expect([[-3, -2].includes(corner[0]), [12, 13].includes(corner[1]), corner[2]]).toEqual([true, true, 7]);

    await page.keyboard.press('Shift+B');
    await expect(chip(b, 'click where the joint goes of')).toBeVisible();
    await choose(page, 'A dragged joint snaps to', 'face centres');
    await b.click(await b.face('Coat', [-3, 16, 3], [0, 0, 1]));
    await b.click(await b.face('Coat', [-2, 19, 3], [0, 0, 1]));
    await page.keyboard.press('Escape');
    const p = await b.project(),
      [one, two] = p.rig.bones.slice(-2);
    expect([one!.name, two!.name, one!.side]).toEqual(['Satchel 2', 'Satchel 3', 'right']);
    expect([jointAt(p, 'Satchel 2'), jointAt(p, 'Satchel 3')]).toEqual([
      [-2.5, 16.5, 4],
      [-1.5, 19.5, 4],
    ]);
    expect([p.rig.bones.find((o) => o.id === one!.parent)!.name, two!.parent]).toEqual(['Satchel', one!.id]);
    await page
      .getByRole('treeitem', { name: /^Satchel 2\s*right/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Align the joints below in X' }).click();
    await b.idle();
    expect(jointAt(await b.project(), 'Satchel 3')).toEqual([-2.5, 19.5, 4]);
  });

  test('another rig comes in at an attachment point with a clip; parts of the same name take the place of one’s own; a ring closes; a reel swings', async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Rig');
    const before = await b.project();
    await page.getByRole('button', { name: 'Bring in a rig…' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('button', { name: 'Hinged prop' }).click();
    await choose(dialog, 'Where it hangs', 'Grip right');
    await dialog.getByRole('checkbox', { name: 'Open', exact: true }).check();
    await dialog.getByRole('checkbox', { name: 'Hasp', exact: true }).uncheck();
    await dialog.getByRole('button', { name: 'Take 3 bones, 2 parts, 1 clip' }).click();
    await expect(dialog).toHaveCount(0);
    await b.idle();
    const p = await b.project();
    expect(p.rig.bones.slice(before.rig.bones.length).map((o) => o.name)).toEqual(['Base', 'Lid', 'Hasp']);
    expect(jointAt(p, 'Base')).toEqual(jointAt(p, 'Forearm right').map((v, i) => v + [-3, -5.5, 0][i]!));
    expect(p.clips.at(-1)!.name).toBe('Open');
    expect(p.parts.slice(before.parts.length).map((o) => o.name)).toEqual(['Base', 'Lid']);

    await page.getByRole('button', { name: 'Bring in a rig…' }).click();
    await dialog.getByRole('button', { name: 'Biped' }).click();
    await dialog.getByRole('button', { name: 'in place of the 9 here' }).click();
    for (const name of [
      'Upper arm left',
      'Upper arm right',
      'Forearm left',
      'Forearm right',
      'Thigh left',
      'Thigh right',
      'Shin left',
      'Shin right',
    ])
      await dialog.getByRole('checkbox', { name, exact: true }).uncheck();
    await dialog.getByRole('button', { name: 'Take 1 part' }).click();
    await expect(dialog).toHaveCount(0);
    await b.idle();
    const q = await b.project(),
      was = p.parts.find((o) => o.name === 'Head')!,
      is = q.parts.find((o) => o.name === 'Head')!;
    expect([is.id, q.rig.mounts.find((m) => m.part === is.id)!.bone]).toEqual([
      was.id,
      p.rig.mounts.find((m) => m.part === was.id)!.bone,
    ]);
    expect(is.layers[0]!.grid.hash).not.toBe(was.layers[0]!.grid.hash);
    expect(q.bin).toHaveLength(p.bin.length + 1);
    await page.keyboard.press('Control+z');
    await b.idle();
    expect((await b.project()).parts.find((o) => o.name === 'Head')!.layers[0]!.grid.hash).toBe(
      was.layers[0]!.grid.hash,
    );

    await page.getByRole('treeitem', { name: /^Body/ }).click();
    await page.getByRole('button', { name: 'Build a ring of equal bars…' }).click();
    await expect(dialog.getByRole('radio', { name: /8 bars of 6/ })).toBeChecked();
    await expect(dialog.locator('.el-radio-button', { hasText: 'crossed 4 times' })).toContainText('48 triangles');
    await dialog.getByRole('button', { name: 'Build it' }).click();
    await expect(dialog).toHaveCount(0);
    await b.idle();
    const ring = (await b.project()).rig.bones.slice(p.rig.bones.length);
    expect(ring.map((o) => o.name)).toEqual([1, 2, 3, 4, 5, 6, 7, 8].map((i) => `Rim ${i}`));
    expect(ring.slice(1).map((o) => o.parent)).toEqual(ring.slice(0, -1).map((o) => o.id));

    await page.getByRole('button', { name: 'Pose-test reel' }).click();
    await page.waitForURL(/\/animate$/);
    await expect(chip(b, 'playing at 1×')).toBeVisible();
    expect((await b.project()).clips.at(-1)!.name).toBe('Pose test');
  });

  test('in Build the others stand at the pose of the clip; a pivot moved there is exact and no cube moves; a swung joint shows where light comes through', async ({
    page,
  }) => {
    const b = new Bench(page);
    await b.open();
    await b.part(/^Forearm.*left/);
    const rest = await b.page.evaluate(() =>
      window.sphalerite.screenOf({ part: 'Forearm', cell: [7, 14, 1], face: [0, 0, 1] }),
    );
    await b.step('Animate');
    await page.getByRole('treeitem', { name: /^Light the lamp/ }).click();
    for (let i = 0; i < 20; i++) await page.keyboard.press('.');
    await b.idle();
    await b.step('Build');
    await page.keyboard.press('Shift+I');
    await expect(chip(b, 'at the pose of Light the lamp, frame 20')).toBeVisible();
    await b.idle();
    const where = (): Promise<{ x: number; y: number }> =>
      b.page.evaluate(() => window.sphalerite.screenOf({ part: 'Forearm', cell: [7, 14, 1], face: [0, 0, 1] }));
    const posed = await where();
    expect(Math.hypot(posed.x - rest.x, posed.y - rest.y)).toBeGreaterThan(60);
    const forearm = (p: ProjectJson) => p.parts.find((o) => o.name === 'Forearm' && o.side === 'left')!;
    const before = forearm(await b.project()).pivot;
    // Alone, without the joint that it stands on.
    await page.getByRole('checkbox', { name: /^the joint of .* goes along/ }).uncheck();
    const pivot = page.getByLabel('Pivot Y', { exact: true });
    const y = Number(await pivot.inputValue());
    await pivot.fill(String(y - 1.5));
    await pivot.press('Enter');
    await b.idle();
    expect(forearm(await b.project()).pivot).toEqual([before[0], before[1] - 3, before[2]]);
    const after = await where();
    expect(Math.hypot(after.x - posed.x, after.y - posed.y)).toBeLessThan(0.01);
    await chip(b, 'at the pose of').getByRole('button', { name: 'at rest' }).click();
    await expect(chip(b, 'at the pose of')).toHaveCount(0);

    await b.step('Rig');
    await page.getByRole('treeitem', { name: /^Head/ }).click();
    const straight = await b.joint('Head');
    await page.keyboard.press('k');
    await slide(page.getByRole('slider', { name: 'Angle of the swing' }), 50, 10);
    await b.idle();
    const cap = await b.page.evaluate(() =>
      window.sphalerite.screenOf({ part: 'Head', cell: [0, 40, 0], face: [0, 1, 0] }),
    );
    expect(cap.y).toBeGreaterThan(straight.y - 190);
    const history = (await b.project()).history.length;
    await page.getByRole('treeitem', { name: /^Hips/ }).click();
    await b.idle();
    expect((await b.project()).history).toHaveLength(history);
  });
});
