import { expect, test } from './test';
import { Bench } from './bench';

test.describe('Rig', () => {
  test('a joint is clicked in the view, a ring turns the bone, children follow; numbers agree', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Rig');
    await b.click(await b.joint('Upper arm right'));
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Upper arm right');
    const hand = await b.joint('Forearm right');
    // The rings stand 58 pixels around the joint; the one about Z is met at its side when seen nearly from the front.
    const at = await b.joint('Upper arm right');
    const ring = await grabRing(b, at);
    await page.mouse.move(ring.x, ring.y);
    await page.mouse.down();
    await page.mouse.move(at.x + (ring.y - at.y), at.y - (ring.x - at.x), { steps: 10 });
    await expect(page.getByTestId('measure')).toContainText(/turn [XYZ] -?\d+°/);
    await page.mouse.up();
    await b.idle();
    const moved = await b.joint('Forearm right');
    expect(Math.hypot(moved.x - hand.x, moved.y - hand.y)).toBeGreaterThan(10);
    expect((await b.project()).history.at(-1)).toBe('Turn Upper arm');

    await page.getByRole('treeitem', { name: /^Head/ }).click();
    await page.getByLabel('Turn Y').fill('30');
    await page.getByLabel('Turn Y').press('Enter');
    const head = (await b.project()).rig.bones.find((o) => o.name === 'Head')!;
    expect(head.rest.q[1]).toBeCloseTo(Math.sin(Math.PI / 12), 9);
    expect(head.rest.q[3]).toBeCloseTo(Math.cos(Math.PI / 12), 9);
    await page.keyboard.press('Control+z');
    expect((await b.project()).rig.bones.find((o) => o.name === 'Head')!.rest.q).toEqual([0, 0, 0, 1]);
  });

  test('a joint moves on half cubes while no cube and no child moves', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Rig');
    await page.getByRole('treeitem', { name: /^Thigh\s*left/ }).click();
    const places = () =>
      page.evaluate(() =>
        [
          window.sphalerite.screenOf({ part: 'Thigh left', cell: [2, 7, 1] }),
          window.sphalerite.screenOf({ part: 'Boot left', cell: [2, 0, 1] }),
          window.sphalerite.screenOf({ bone: 'Shin left' }),
        ].map((p) => [Math.round(p.x * 10), Math.round(p.y * 10)]),
      );
    const before = await places();
    await page.keyboard.press('j');
    await expect(page.getByText('the parts keep their place')).toBeVisible();
    const joint = await b.joint('Thigh left');
    // The arrow up is 64 pixels long on screen.
    await page.mouse.move(joint.x, joint.y - 55);
    await page.mouse.down();
    await page.mouse.move(joint.x, joint.y - 90, { steps: 6 });
    await expect(page.getByTestId('measure')).toContainText(/joint 0, \+\d/);
    await page.mouse.up();
    await b.idle();
    expect(await places()).toEqual(before);
    const p = await b.project();
    const moved = p.rig.bones.find((o) => o.name === 'Thigh' && o.side === 'left')!;
    expect((moved.rest.t[1] * 2) % 1).toBe(0);
    expect(moved.rest.t[1]).toBeGreaterThan(-0.5);
    expect(p.history.at(-1)).toBe('Move the joint of Thigh');
  });

  test('bones are made, hung elsewhere keeping their place, deleted and restored with their keys', async ({ page }) => {
    const b = new Bench(page);
    // Both ends of a drag in the tray are in sight.
    await page.setViewportSize({ width: 1280, height: 1200 });
    await b.open();
    await b.step('Rig');
    const keys = async () =>
      (await b.project()).clips.reduce((n, c) => n + c.lanes.reduce((m, l) => m + l.turn.length, 0), 0);
    const before = await keys();
    await page.getByRole('treeitem', { name: /^Lantern/ }).click();
    const was = await b.joint('Lantern');
    await page.keyboard.press('Delete');
    expect((await b.project()).rig.bones.some((o) => o.name === 'Lantern')).toBe(false);
    expect(await keys()).toBeLessThan(before);
    await page.getByRole('button', { name: 'Restore Lantern' }).click();
    await b.idle();
    expect(await keys()).toBe(before);
    expect(await b.joint('Lantern')).toEqual(was);
    await page.getByRole('treeitem', { name: /^Lantern/ }).dragTo(page.getByRole('treeitem', { name: /^Head/ }));
    await b.idle();
    const p = await b.project();
    expect(p.rig.bones.find((o) => o.name === 'Lantern')!.parent).toBe(p.rig.bones.find((o) => o.name === 'Head')!.id);
    const now = await b.joint('Lantern');
    expect(Math.hypot(now.x - was.x, now.y - was.y)).toBeLessThan(0.01);
  });
});

/** A point where the pointer takes hold of a ring: the cursor tells. */
async function grabRing(b: Bench, at: { x: number; y: number }): Promise<{ x: number; y: number }> {
  // From the top of the joint on: there the rings about X and Z pass, about which an arm swings.
  for (let a = 46; a < 110; a++) {
    for (const r of [56, 48, 38]) {
      const p = { x: at.x + Math.cos(a / 10) * r, y: at.y + Math.sin(a / 10) * r };
      await b.page.mouse.move(p.x, p.y);
      if (
        (await b.page
          .locator('canvas')
          .first()
          .evaluate((c) => (c as HTMLElement).style.cursor)) === 'grab'
      )
        return p;
    }
  }
  throw new Error('No ring was found around the joint.');
}
