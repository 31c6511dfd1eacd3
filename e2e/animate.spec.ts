import { expect, test } from './test';
import { Bench } from './bench';

test.describe('Animate', () => {
  test('the walk plays, loops and is scrubbed', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Animate');
    await page.getByRole('treeitem', { name: /^Walk/ }).click();
    await b.idle();
    const rest = await b.joint('Foot left');
    const ruler = (await page.getByTestId('ruler').boundingBox())!;
    const x = (frame: number) => ruler.x + 168 + 12 + ((ruler.width - 168 - 24) * frame) / 24;
    await page.mouse.move(x(2), ruler.y + 10);
    await page.mouse.down();
    await page.mouse.move(x(12), ruler.y + 10, { steps: 4 });
    await page.mouse.up();
    await expect(page.getByTestId('frame')).toContainText('frame 12 of 24');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('frame 12');
    await b.idle();
    const half = await b.joint('Foot left');
    expect(Math.hypot(half.x - rest.x, half.y - rest.y)).toBeGreaterThan(15);
    await page.mouse.click(x(24), ruler.y + 10);
    await b.idle();
    const end = await b.joint('Foot left');
    expect(Math.hypot(end.x - rest.x, end.y - rest.y)).toBeLessThan(0.5);

    await page.keyboard.press('p');
    const seen = new Set<string>();
    await expect
      .poll(
        async () => {
          seen.add((await page.getByTestId('frame').textContent())!);
          return seen.size;
        },
        { intervals: [60] },
      )
      .toBeGreaterThan(4);
    await page.keyboard.press('p');
    await b.idle();
    const frames = (await b.state()).frames;
    await b.framesPass();
    expect((await b.state()).frames).toBe(frames);
  });

  test('a clip of one’s own: a turn sets a key, keys move, ease and go away', async ({ page }) => {
    const b = new Bench(page);
    await b.open();
    await b.step('Animate');
    await page.getByRole('button', { name: 'New clip' }).click();
    await b.idle();
    await b.click(await b.joint('Head'));
    await page.getByLabel('Turn Y').fill('20');
    await page.getByLabel('Turn Y').press('Enter');
    for (let i = 0; i < 12; i++) await page.keyboard.press('.');
    await page.getByLabel('Turn Y').fill('-40');
    await page.getByLabel('Turn Y').press('Enter');
    const lane = async () => (await b.project()).clips.at(-1)!.lanes[0]!;
    expect((await lane()).turn.map((k) => k.time)).toEqual([0, 600]);
    for (let i = 0; i < 6; i++) await page.keyboard.press(',');
    await b.idle();
    expect(Number(await page.getByLabel('Turn Y').inputValue())).toBeCloseTo(-10, 1);

    const key = (await page.getByRole('button', { name: 'Key of Head at frame 12' }).boundingBox())!;
    const ruler = (await page.getByTestId('ruler').boundingBox())!;
    const frame = (ruler.width - 168 - 24) / 24;
    await b.drag({ x: key.x + 5, y: key.y + 5 }, { x: key.x + 5 + frame * 6, y: key.y + 5 });
    expect((await lane()).turn.map((k) => k.time)).toEqual([0, 900]);
    await page.getByRole('radio', { name: 'step', exact: true }).click();
    await page.keyboard.press('Delete');
    expect((await lane()).turn.map((k) => k.time)).toEqual([0]);
    await page.keyboard.press('Control+z');
    expect((await lane()).turn.length).toBe(2);
    await page.getByRole('button', { name: 'Loop', exact: true }).click();
    expect((await b.project()).clips.at(-1)!.loop).toBe(false);
  });
});
