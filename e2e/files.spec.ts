import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { encode } from 'fast-png';
import { Bench, type ProjectJson, choose } from './bench';
import { expect, test } from './test';

const sign = Buffer.from(encode({ width: 8, height: 8, data: new Uint8Array(256).fill(200), channels: 4 }));
const hex = Buffer.from('; Low water\n#224455 Mud\n#88aa99 Reed\n');

/** A desk with files on it. */
class Desk extends Bench {
  says = (text: string | RegExp) => expect(this.page.getByRole('status').filter({ hasText: text })).toBeVisible();
}

test('files are dropped and pasted on every screen and on the shelf: each is known for what it is', async ({
  page,
}) => {
  const b = new Desk(page);
  await b.open();
  await b.part(/Coat/);
  // A picture has two uses where a part is in hand.
  await b.give('drop', 'sign.png', sign);
  const question = page.getByRole('dialog', { name: /sign\.png/ });
  await expect(question.getByRole('button', { name: 'Take its colours as a palette' })).toBeVisible();
  await question.getByRole('button', { name: 'Stand it behind the part as a reference' }).click();
  await expect(page.getByText('sign.png')).toBeVisible();
  await b.idle();
  const p = (await b.project()) as ProjectJson & { references: { name: string; part: string }[] };
  expect(p.references).toMatchObject([{ name: 'sign.png', part: p.parts.find((o) => o.name === 'Coat')!.id }]);
  // Let go of, it changes nothing.
  await b.give('paste', 'sign.png', sign);
  await expect(question).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(question).toBeHidden();
  await expect(page.getByRole('button', { name: 'Hide sign.png' })).toHaveCount(1);

  await b.step('Animate');
  await b.give('paste', 'low-water.hex', hex);
  await page.waitForURL(/\/build$/);
  await expect(page.getByRole('region', { name: 'Another palette' })).toContainText('Low water');

  await b.step('Rig');
  const lamp = readFileSync(join(import.meta.dirname, '../content/out/lamp-post.sphal'));
  await b.give('drop', 'post.sphal', lamp);
  await page.getByRole('button', { name: 'Put the project on the shelf' }).click();
  await b.says('“post.sphal” stands on the shelf');
  await b.give('drop', 'song.ogg', Buffer.from('OggS nothing of ours'));
  await b.says('“song.ogg” is nothing that can be brought in');
  // The newest stands in the line, those before it when one points at it.
  await page.locator('.notices').hover();
  await page.getByRole('button', { name: 'Open it' }).click();
  await page.waitForURL(/\/build$/);
  await expect(page.getByTestId('project-menu')).toContainText('Lamp post');

  await page.keyboard.press('Alt+0');
  const posts = page.locator('[data-project="Lamp post"]');
  await expect(posts).toHaveCount(2);
  await b.give('drop', 'post.sphal', lamp);
  await expect(posts).toHaveCount(3);
  await b.give('drop', 'low-water.hex', hex);
  await b.says('Open the project it is meant for');
});

test('Ship offers every output of the list; one part ships alone, in one format', async ({ page }) => {
  const b = new Desk(page);
  await b.open();
  await b.step('Ship');
  const saved = async (): Promise<Buffer> => {
    const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('e')]);
    return readFileSync(await download.path());
  };
  const format = (name: string) =>
    page.getByRole('complementary', { name: 'Tray' }).getByRole('checkbox', { name: new RegExp(`^${name}`) });
  const whole = await saved();
  await page.getByRole('checkbox', { name: /^Clips/ }).uncheck();
  await choose(page, 'What is shipped', 'Lantern');
  await b.idle();
  const one = await saved();
  expect(one.subarray(0, 4).toString()).toBe('glTF');
  expect(one.length).toBeLessThan(whole.length / 4);
  await format('Palette, hex list').check();
  await format('Game file GLB').uncheck();
  await expect(page.getByText(/Gloss, metal and glow of \d+ swatches/)).toBeVisible();
  expect((await saved()).toString()).toMatch(/^; Emberquay\n#[0-9a-f]{6} /);
});
