import { readFileSync } from 'node:fs';
import { decode } from 'fast-png';
import { Bench } from './bench';
import { expect, test } from './test';

test('a picture that is too large for memory tells what it takes, is paused, survives reloads in the middle, and is whole', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  await b.set('Picture width', '4096');
  await b.set('Picture height', '1240');
  await b.set('Samples', '1');
  await page.getByRole('button', { name: 'Without noise' }).click();
  await expect(page.getByTestId('cost')).toContainText(/about \d+ (s|min); kept as it comes, [\d.]+ MB of storage/);
  await page.getByRole('button', { name: 'Trace the picture' }).click();
  const chip = page.getByTestId('take');
  const share = async () => Number(/(\d+) %/.exec((await chip.textContent()) ?? '')?.[1] ?? 0);
  await expect.poll(share, { timeout: 120_000 }).toBeGreaterThan(10);
  // Paused, it says after a reload how far it is, and goes on when it is told to.
  const card = page.getByTestId('take-card');
  await card.getByRole('button', { name: /^Pause/ }).click();
  await expect(chip).toHaveCount(0);
  const paused = (await card.getByText(/\d+ %/).textContent())!;
  await page.reload();
  await expect(card).toContainText(paused);
  await card.getByRole('button', { name: /^Go on/ }).click();
  await expect.poll(share, { timeout: 120_000 }).toBeGreaterThan(20);
  const made = await share();
  // It goes on by itself from what was kept.
  const saved = page.waitForEvent('download', { timeout: 200_000 });
  await page.reload();
  await expect.poll(share).toBeGreaterThanOrEqual(made - 1);
  const file = await saved;
  expect(file.suggestedFilename()).toBe('tamsin-dusk-quayside.png');
  const png = decode(readFileSync(await file.path()), { checkCrc: true });
  expect([png.width, png.height, png.channels]).toEqual([4096, 1240, 4]);
  // Every tile of it has something to see.
  for (let y = 0; y < 1240; y += 64)
    for (let x = 0; x < 4096; x += 64) {
      const o = (y * 4096 + x) * 4;
      expect(png.data[o]! + png.data[o + 1]! + png.data[o + 2]!, `${x}, ${y}`).toBeGreaterThan(0);
      expect(png.data[o + 3]).toBe(255);
    }
  await expect(page.getByTestId('take-card').getByRole('img')).toBeVisible();
});

test('8192 × 8192 pixels without noise stay within 600 MB of memory', async ({ page }) => {
  test.skip(!process.env['SLOW'], 'takes a quarter of an hour: SLOW=1 runs it');
  test.setTimeout(3_600_000);
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  await b.set('Picture width', '8192');
  await b.set('Picture height', '8192');
  await b.set('Samples', '1');
  const saved = page.waitForEvent('download', { timeout: 3_500_000 });
  await page.getByRole('button', { name: 'Trace the picture' }).click();
  // What the page and its workers hold, as the browser counts it after what nobody holds has gone.
  const memory = () =>
    page.evaluate(async () => {
      const p = performance as unknown as { measureUserAgentSpecificMemory(): Promise<{ bytes: number }> };
      return (await p.measureUserAgentSpecificMemory()).bytes;
    });
  let most = 0,
    done = false;
  void saved.then(() => (done = true));
  while (!done) most = Math.max(most, await memory());
  test.info().annotations.push({ type: 'memory', description: `${Math.round(most / 1e6)} MB at most` });
  expect(most).toBeLessThan(600e6);
  const bytes = readFileSync(await (await saved).path());
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  expect([view.getUint32(16), view.getUint32(20)]).toEqual([8192, 8192]);
});
