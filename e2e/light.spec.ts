import { readFileSync } from 'node:fs';
import { expect, test } from './test';
import { decode } from 'fast-png';
import { choose, Bench } from './bench';

test('a shot is traced with progress, paused, traced again and saved as a PNG', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  // Every shot has its picture, traced or not.
  const shots = page.getByRole('tree', { name: 'Shots' });
  await expect(shots.locator('img')).toHaveCount((await b.project()).shots.length);
  for (const img of await shots.locator('img').all())
    await expect.poll(() => img.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(60);
  await b.set('Picture width', '160');
  await b.set('Picture height', '112');
  await b.set('Samples', '4000');
  await b.set('Noise at which a part is done', '0');
  await page.getByRole('button', { name: 'Trace the picture' }).click();
  await expect(page.getByRole('progressbar')).toHaveAttribute('aria-valuenow', /[1-9]/);
  await page.getByRole('button', { name: 'Pause the picture' }).click();
  await expect(page.getByTestId('trace-state')).toContainText('paused');
  await b.idle();

  await b.set('Samples', '6');
  await page.getByRole('button', { name: 'Trace the picture' }).click();
  await expect(page.getByTestId('trace-state')).toContainText('done in', { timeout: 60_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the picture' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('tamsin-dusk-quayside.png');
  const png = decode(readFileSync(await download.path()));
  expect([png.width, png.height]).toEqual([160, 112]);
  const colours = new Set<number>();
  for (let i = 0; i < png.data.length; i += 4)
    colours.add((png.data[i]! << 16) | (png.data[i + 1]! << 8) | png.data[i + 2]!);
  expect(colours.size).toBeGreaterThan(500);
  const [small] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save a thumbnail of the picture' }).click(),
  ]);
  expect(small.suggestedFilename()).toBe('tamsin-dusk-quayside-thumbnail.png');
  const square = decode(readFileSync(await small.path()));
  expect([square.width, square.height]).toEqual([112, 112]);

  // The shot pictures another colourway, and remembers it.
  await choose(page, 'Colourway of the shot', 'Frost fair');
  await b.idle();
  const p = await b.project();
  expect(p.shots[0]!.colourway).toBe(p.colourways.find((c) => c.name === 'Frost fair')!.id);
  // The sun's dial is dragged to the other side: one step of the history.
  const dial = (await page.getByRole('img', { name: /Direction of the sun/ }).boundingBox())!;
  await page.mouse.click(dial.x + 70, dial.y + 30);
  expect((await b.project()).history.at(-1)).toMatch(/^Change shot/);
});

test('a ready set-up gives a draft at once; what is clicked becomes sharp; two pictures are compared, and settings are taken back', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  const draft = page.getByTestId('draft');
  await expect(draft).toBeVisible({ timeout: 30_000 });
  const shot = async () => (await b.project()).shots[0]!;
  const before = await shot();
  await page.getByRole('button', { name: 'Studio, soft' }).click();
  expect((await shot()).light.sky.kind).toBe('studio');
  // It goes and comes anew.
  await expect(draft).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Sunset' }).click();
  expect((await shot()).light.sky.kind).toBe('sunset');

  await page.getByRole('button', { name: 'Say by a click what is sharp' }).click();
  const view = (await page.getByRole('application').boundingBox())!;
  await page.mouse.click(view.x + view.width / 2, view.y + view.height / 2);
  const { camera } = await shot();
  const away = Math.hypot(...[0, 1, 2].map((a) => before.camera.eye[a]! - before.camera.target[a]!));
  expect(camera.focus! / away).toBeGreaterThan(0.7);
  expect(camera.focus! / away).toBeLessThan(1.1);
  expect(camera.aperture).toBeGreaterThan(0);
  await page.getByRole('radio', { name: 'isometric' }).check({ force: true });
  expect((await shot()).camera.kind).toBe('isometric');

  for (const [label, v] of [
    ['Picture width', '96'],
    ['Picture height', '64'],
    ['Samples', '2'],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(v);
    await page.getByLabel(label, { exact: true }).press('Enter');
  }
  const trace = async () => {
    await page.getByRole('button', { name: 'Trace the picture' }).click();
    await expect(page.getByTestId('trace-state')).toContainText('done in', { timeout: 60_000 });
    await b.idle();
  };
  await trace();
  const first = await shot();
  await page.getByRole('button', { name: 'Blue hour' }).first().click();
  await trace();
  await page.getByRole('button', { name: 'Compare with the picture before' }).click();
  await expect(page.getByRole('img', { name: /^Compared with/ })).toBeVisible();
  await page.getByRole('button', { name: 'end', exact: true }).click();
  // Any other of the strip is compared with the one that is shown.
  const made = page.getByLabel('Pictures made');
  await made.getByRole('button', { name: 'compare' }).click();
  await expect(page.getByRole('img', { name: /^Compared with/ })).toBeVisible();
  await made.getByRole('button', { name: 'compare' }).click();
  await expect(page.getByRole('img', { name: /^Compared with/ })).toBeHidden();
  // Without its grading it looks otherwise, and again as it did.
  const film = page.getByTestId('picture');
  const look = (): Promise<string> => film.evaluate((c) => (c as HTMLCanvasElement).toDataURL());
  const graded = await look();
  await page.keyboard.press('Shift+B');
  await expect.poll(look).not.toBe(graded);
  await page.keyboard.press('Shift+B');
  await expect.poll(look).toBe(graded);
  await made
    .getByRole('button')
    .filter({ has: page.getByRole('img') })
    .last()
    .click();
  await made.getByRole('button', { name: 'take back' }).click();
  expect(await shot()).toEqual(first);

  // A shot is doubled, with all that it is.
  await page.getByRole('treeitem', { name: /^Dusk/ }).first().click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Duplicate the shot' }).click();
  const shots = (await b.project()).shots;
  expect(shots.length).toBe(4);
  expect(shots[3]).toEqual({ ...first, id: shots[3]!.id, name: shots[3]!.name });
});

test('sprites of eight sides take three actions; they are made while one builds, go on after a reload, and stand where their table says', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  await page.getByLabel('Samples', { exact: true }).fill('160');
  await page.getByLabel('Samples', { exact: true }).press('Enter');
  await page.getByLabel('Noise at which a part is done', { exact: true }).fill('0');
  await page.getByLabel('Noise at which a part is done', { exact: true }).press('Enter');
  await page.getByRole('radio', { name: 'sprites' }).check({ force: true });
  await page.getByLabel('Frames a second', { exact: true }).fill('3');
  await page.getByLabel('Frames a second', { exact: true }).press('Enter');
  await expect(page.getByTestId('trace-state')).toHaveText('24 sprites');
  await page.getByRole('button', { name: 'Make the sprites' }).click();
  // Elsewhere it is told at the top; a reload goes on with what is missing.
  await page.getByRole('link', { name: /^Build/ }).click();
  await expect(page.getByTestId('take')).toContainText(/[1-9]\d?\/24/);
  const made = Number(/(\d+)\/24/.exec((await page.getByTestId('take').textContent())!)![1]);
  const files = new Map<string, Buffer>();
  const saved = new Promise<void>((resolve) =>
    page.on('download', async (d) => {
      files.set(d.suggestedFilename(), readFileSync(await d.path()));
      if (files.size === 2) resolve();
    }),
  );
  await page.reload();
  await expect
    .poll(async () => Number(/(\d+)\/24/.exec((await page.getByTestId('take').textContent()) ?? '')?.[1] ?? 0))
    .toBeGreaterThanOrEqual(made);
  await saved;
  const table = JSON.parse(files.get('tamsin-dusk-quayside.json')!.toString()) as {
    cell: { width: number; height: number };
    clips: { name: string; loop: boolean; frames: { direction: number; x: number; y: number }[] }[];
  };
  const sheet = decode(files.get('tamsin-dusk-quayside.png')!);
  const { width, height } = table.cell;
  expect([sheet.width, sheet.height]).toEqual([3 * width, 8 * height]);
  expect(table.clips).toMatchObject([{ name: 'Walk', loop: true }]);
  expect([...new Set(table.clips[0]!.frames.map((f) => f.direction))]).toEqual([0, 45, 90, 135, 180, 225, 270, 315]);
  // Each cell has her in it, and she is never the same twice.
  const cells = table.clips[0]!.frames.map(({ x, y }) => {
    const rows = Array.from({ length: height }, (_, r) => {
      const from = ((y + r) * sheet.width + x) * 4;
      return Buffer.from(sheet.data.slice(from, from + width * 4)).toString('base64');
    });
    return rows.join();
  });
  expect(new Set(cells).size).toBe(24);
});

test('a turntable becomes a GIF in two actions, drawn as well as traced, and a video; all last as long as they should', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  await b.set('Picture width', '64');
  await b.set('Picture height', '48');
  await b.set('Samples', '1');
  await page.getByRole('radio', { name: 'path', exact: true }).check({ force: true });
  await b.set('Frames a second', '6');
  await b.set('Seconds that it takes', '1');
  const make = async (): Promise<Buffer> => {
    const [file] = await Promise.all([
      page.waitForEvent('download', { timeout: 120_000 }),
      page.getByRole('button', { name: 'Make the path' }).click(),
    ]);
    return readFileSync(await file.path());
  };
  const gif = await make();
  expect(gif.subarray(0, 6).toString()).toBe('GIF89a');
  expect([gif.readUInt16LE(6), gif.readUInt16LE(8)]).toEqual([64, 48]);
  // A browser's own reader counts its frames, how long they stand and how many colours they have.
  const read = (file: Buffer) =>
    page.evaluate(
      async (bytes) => {
        const decoder = new ImageDecoder({ data: Uint8Array.from(bytes), type: 'image/gif' });
        await decoder.tracks.ready;
        const { frameCount } = decoder.tracks.selectedTrack!;
        let length = 0;
        const pictures: string[] = [],
          colours = new Set<number>();
        for (let i = 0; i < frameCount; i++) {
          const { image } = await decoder.decode({ frameIndex: i });
          length += image.duration! / 1e4;
          const c = new OffscreenCanvas(image.displayWidth, image.displayHeight).getContext('2d')!;
          c.drawImage(image, 0, 0);
          const { data } = c.getImageData(0, 0, image.displayWidth, image.displayHeight);
          pictures.push(data.join());
          for (let p = 0; p < data.length; p += 4) colours.add((data[p]! << 16) | (data[p + 1]! << 8) | data[p + 2]!);
        }
        return { frames: frameCount, length, unlike: new Set(pictures).size, colours: colours.size };
      },
      [...file],
    );
  const traced = await read(gif);
  expect(traced).toMatchObject({ frames: 6, length: 100, unlike: 6 });
  await choose(page, 'How it is made', 'drawn');
  const drawn = await read(await make());
  expect(drawn).toMatchObject({ frames: 6, length: 100, unlike: 6 });
  expect(drawn.colours).toBeGreaterThan(60);
  await choose(page, 'Kind of file', 'WebM');
  const webm = await make();
  expect(webm.readUInt32BE(0)).toBe(0x1a45dfa3);
  const video = page.getByTestId('take-card').first().locator('video');
  await expect
    .poll(() => video.evaluate((v: HTMLVideoElement) => [v.videoWidth, v.videoHeight, Math.round(v.duration * 10)]))
    .toEqual([64, 48, 10]);
});
