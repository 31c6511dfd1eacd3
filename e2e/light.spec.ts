import { readFileSync } from 'node:fs';
import { expect, test } from './test';
import { decode } from 'fast-png';
import { choose, Bench } from './bench';

test('a shot is traced with progress, stopped, traced again and saved as a PNG', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  const set = async (label: string, v: string) => {
    await page.getByLabel(label, { exact: true }).fill(v);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  await set('Picture width', '160');
  await set('Picture height', '112');
  await set('Samples', '4000');
  await page.getByRole('button', { name: 'Trace the picture' }).click();
  await expect(page.getByRole('progressbar')).toHaveAttribute('aria-valuenow', /[1-9]/);
  await page.getByRole('button', { name: 'Stop tracing' }).click();
  await expect(page.getByTestId('trace-state')).toContainText('stopped');
  await b.idle();

  await set('Samples', '6');
  await page.getByRole('button', { name: 'Trace the picture' }).click();
  await expect(page.getByTestId('trace-state')).toContainText('done in', { timeout: 60_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the picture as PNG' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('tamsin-dusk-quayside.png');
  const png = decode(readFileSync(await download.path()));
  expect([png.width, png.height]).toEqual([160, 112]);
  const colours = new Set<number>();
  for (let i = 0; i < png.data.length; i += 4)
    colours.add((png.data[i]! << 16) | (png.data[i + 1]! << 8) | png.data[i + 2]!);
  expect(colours.size).toBeGreaterThan(500);

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
