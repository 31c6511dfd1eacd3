import { expect, test } from './test';
import { Bench, giveFiles } from './bench';

/** Eight by four directions, all of one light, as a Radiance picture. */
function surroundings(width: number, height: number): Buffer {
  const pixels = Array.from({ length: width * height }, () => [200, 120, 60, 130]).flat();
  return Buffer.concat([
    Buffer.from(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`),
    Buffer.from(pixels),
  ]);
}

test('a picture begins where one wants it, is paused, and is finished while one builds elsewhere', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  await b.set('Picture width', '192');
  await b.set('Picture height', '128');
  await b.set('Samples', '240');
  await b.set('Noise at which a part is done', '0');
  await page.getByRole('button', { name: 'Say by a drag what is traced first' }).click();
  const frame = (await page.getByTestId('region').boundingBox())!;
  await page.mouse.move(frame.x + frame.width * 0.4, frame.y + frame.height * 0.2);
  await page.mouse.down();
  await page.mouse.move(frame.x + frame.width * 0.6, frame.y + frame.height * 0.5, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByTestId('region').locator('i')).toBeVisible();
  await page.getByRole('button', { name: 'Trace the picture' }).click();
  await expect(page.getByTestId('trace-state')).toContainText(/[1-9]\d? %/);
  await page.getByRole('button', { name: 'Pause the picture' }).click();
  await expect(page.getByTestId('trace-state')).toContainText('paused');
  await b.idle();
  // What was paused is there after a reload too, as it stood.
  await page.reload();
  const strip = page.getByLabel('Pictures made');
  await strip.getByRole('img').click();
  expect(await strip.getByRole('img').evaluate((i) => (i as HTMLImageElement).naturalWidth)).toBe(192);
  await expect(page.getByTestId('trace-state')).toContainText('paused');
  await page.getByRole('button', { name: 'Go on with the picture' }).click();
  // Nothing waits for it to be done.
  await page.getByRole('link', { name: /^Build/ }).click();
  const chip = page.getByTestId('traced');
  const share = async () => Number(/(\d+) %/.exec((await chip.textContent()) ?? '')?.[1] ?? 0);
  await expect.poll(share, { timeout: 120_000 }).toBeGreaterThan(40);
  // What was kept is there again after a reload, and goes on by itself.
  await page.reload();
  await expect.poll(share, { timeout: 60_000 }).toBeGreaterThan(2);
  await b.step('Light');
  await strip.getByRole('img').first().click();
  await expect(page.getByTestId('trace-state')).toContainText('done in', { timeout: 90_000 });
  await expect(page.getByLabel('Pictures made').getByRole('img')).toHaveCount(1);
  // With more samples asked for, what is there is gone on with.
  await b.set('Samples', '250');
  await expect(page.getByRole('button', { name: 'Go on with the picture' })).toBeEnabled();
  // Also one that is done stands in the strip after a reload, to be looked at and taken back.
  await page.reload();
  await strip.getByRole('img').click();
  await expect(page.getByTestId('picture')).toBeVisible();
  await strip.getByRole('button', { name: 'take back' }).click();
  expect((await b.project()).shots[0]!.output.samples).toBe(240);
});

test('light of one’s own surrounds a shot; a locked camera stays; a project keeps both', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  const shot = async () => (await b.project()).shots[0]!;
  const tile = page.getByRole('button', { name: 'Picture of your own' });
  await giveFiles(tile, { name: 'square.hdr', mimeType: 'image/vnd.radiance', buffer: surroundings(4, 4) });
  await expect(page.getByText(/“square.hdr” is 4 × 4 pixels/)).toBeVisible();
  expect((await shot()).light.sky.kind).toBe('gradient');
  await giveFiles(tile, { name: 'warm.hdr', mimeType: 'image/vnd.radiance', buffer: surroundings(8, 4) });
  await expect.poll(async () => (await shot()).light.sky.kind).toBe('picture');
  const { picture } = (await shot()).light.sky;
  expect((await b.project()).blobs.map((f) => f.id)).toContain(picture);

  await page.getByRole('button', { name: 'Turn the sun by dragging in the view' }).click();
  const before = (await shot()).light.sun;
  const over = (await page.getByTestId('sun-drag').boundingBox())!;
  await page.mouse.move(over.x + 200, over.y + 200);
  await page.mouse.down();
  await page.mouse.move(over.x + 300, over.y + 150, { steps: 4 });
  await page.mouse.up();
  const { sun } = (await shot()).light;
  expect([sun.azimuth - before.azimuth, sun.elevation - before.elevation]).toEqual([-40, 20]);
  await page.getByRole('button', { name: 'Turn the sun by dragging in the view' }).click();

  await page.getByRole('button', { name: 'Lock the view to the shot’s camera' }).click();
  const { camera } = await shot();
  expect(camera.locked).toBe(true);
  const view = (await page.getByRole('application').boundingBox())!;
  await page.mouse.move(view.x + 40, view.y + 200);
  await page.mouse.down();
  await page.mouse.move(view.x + 240, view.y + 260, { steps: 5 });
  await page.mouse.up();
  await page.getByRole('button', { name: 'Lock the view to the shot’s camera' }).click();
  await page.getByRole('button', { name: 'Set the shot’s camera from this view' }).click();
  const after = (await shot()).camera;
  for (const a of [0, 1, 2]) expect(after.eye[a]).toBeCloseTo(camera.eye[a]!, 3);
  await expect(page.getByTestId('saved')).toHaveText('saved');
  await page.reload();
  await b.idle();
  expect((await shot()).light.sky).toMatchObject({ kind: 'picture', picture });
});

test('lamps of a scene are moved for one shot; shots are ordered by keys; a traced inset stands in Stage', async ({
  page,
}) => {
  const b = new Bench(page);
  await page.goto('/project/demo-night-market/light');
  await b.idle();
  const shots = async () => (await b.project()).shots;
  await page.getByRole('button', { name: 'Trace what the view shows, in place of drawing it' }).click();
  await expect(page.getByTestId('draft')).toBeVisible({ timeout: 60_000 });
  const lamp = page.getByRole('img', { name: 'Lantern 5, to be dragged' });
  const at = (await lamp.boundingBox())!;
  await page.mouse.move(at.x + 6, at.y + 6);
  await page.mouse.down();
  await page.mouse.move(at.x + 46, at.y - 24, { steps: 5 });
  await page.mouse.up();
  const [first] = await shots();
  expect(first!.light.lamps.changes).toHaveLength(1);
  expect(Math.hypot(...first!.light.lamps.changes[0]!.by)).toBeGreaterThan(3);
  const moved = (await lamp.boundingBox())!;
  expect([Math.round(moved.x - at.x), Math.round(moved.y - at.y)].map((v) => Math.round(v / 8))).toEqual([5, -4]);

  await page.getByRole('button', { name: 'New shot from this view' }).click();
  const tree = page.getByRole('tree', { name: 'Shots' });
  await tree.getByRole('treeitem').last().click();
  await page.keyboard.press('Alt+ArrowUp');
  expect((await shots()).map((s) => s.id)[1]).toBe(first!.id);

  await b.step('Stage');
  await page.getByRole('button', { name: 'Traced inset' }).click();
  await expect(page.getByTestId('inset').getByRole('img', { name: 'Traced picture of the view' })).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole('button', { name: 'Close the traced inset' }).click();
  await expect(page.getByTestId('inset')).toHaveCount(0);
});

test('with a full disk, and while nobody looks at the page, no finished picture is lost', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  await b.set('Picture width', '96');
  await b.set('Picture height', '64');
  await b.set('Samples', '120');
  await b.set('Noise at which a part is done', '0');
  await page.getByRole('radio', { name: 'path', exact: true }).check({ force: true });
  await b.set('Frames a second', '8');
  await b.set('Seconds that it takes', '1');
  await page.evaluate(() => {
    // Two pictures find room, no more; and no frame of the page is drawn.
    const put = IDBObjectStore.prototype.put;
    let n = 0;
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...args: Parameters<IDBObjectStore['put']>) {
      if (this.name === 'takeFrames' && ++n > 2) throw new DOMException('full', 'QuotaExceededError');
      return put.apply(this, args);
    };
    Object.defineProperty(document, 'visibilityState', { get: () => 'hidden' });
    document.dispatchEvent(new Event('visibilitychange'));
  });
  await page.getByRole('button', { name: 'Make the path' }).click();
  const card = page.getByTestId('take-card').first();
  await expect(card).toContainText(/[4-7]\/8/);
  await page.getByRole('button', { name: /^Pause / }).click();
  await expect(page.getByText(/There is no room in this browser/)).toBeVisible();
  const made = Number(/(\d)\/8/.exec((await card.textContent())!)![1]);
  const [file] = await Promise.all([
    page.waitForEvent('download', { timeout: 120_000 }),
    page.getByRole('button', { name: /^Go on with / }).click(),
  ]);
  expect(made).toBeGreaterThan(3);
  expect(file.suggestedFilename()).toBe('tamsin-dusk-quayside.gif');
  await expect(card).toContainText('gif');
});
