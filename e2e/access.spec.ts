import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './test';
import { Bench } from './bench';

test('no screen has a serious fault of accessibility, in either theme', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const faults: string[] = [];
  const look = async (where: string) => {
    const { violations } = await new AxeBuilder({ page }).disableRules(['landmark-one-main', 'region']).analyze();
    for (const v of violations) {
      if (v.impact === 'serious' || v.impact === 'critical')
        faults.push(
          `${where}: ${v.id}: ${v.nodes
            .slice(0, 3)
            .map((n) => n.html.slice(0, 140))
            .join(' | ')}`,
        );
    }
  };
  for (const theme of ['Daylight', 'Dusk']) {
    for (const s of await b.screens()) {
      await b.step(s);
      await look(`${s} in ${theme}`);
      if (s !== 'Build') continue;
      // One of the side panels in each theme: both are made of the same pieces.
      const tab = theme === 'Dusk' ? 'Finish' : 'Colours';
      await page.getByRole('tab', { name: tab }).click();
      await b.idle();
      await look(`${tab} in ${theme}`);
    }
    await page.keyboard.press('Alt+T');
  }
  await page.keyboard.press('Alt+0');
  await page.getByRole('button', { name: 'New project' }).waitFor();
  await look('Shelf');
  expect(faults).toEqual([]);
});

test('every command is found by its words, with its shortcut, and runs from there', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a command' }).fill('mirror x');
  const first = page.getByRole('listbox', { name: 'Commands' }).getByRole('option').first();
  await expect(first).toContainText('Mirror X');
  await expect(first).toContainText('M');
  await page.keyboard.press('Enter');
  await expect(page.getByText('mirror X at 0, between cubes')).toBeVisible();
  // The trade's words, and those that people bring along.
  const meant: Record<string, Record<string, RegExp>> = {
    Build: {
      ortho: /Orthographic/,
      'zoom out': /Zoom out/,
      redo: /Redo/,
      bucket: /Reach: fill/,
      eyedropper: /colour/,
      hollow: /Hollow/i,
      wireframe: /lines|edges/i,
      isometric: /Isometric view/,
      import: /Bring in a file/,
      export: /Save a project file/,
      sphere: /ellipsoid/i,
      ruler: /Measure|ruler/i,
      'dark mode': /theme/,
      'x-ray': /through/i,
      tutorial: /first steps/,
    },
    Rig: { 'rest pose': /Reset/, ik: /limb/, skeleton: /New bone/, rotate: /Rotate the bone/, cancel: /Cancel/ },
    Animate: {
      keyframe: /Set a key/,
      loop: /last pose/,
      'graph editor': /Curves/,
      'onion skin': /Onion skin/,
      pause: /Play or stop/,
    },
    Light: { render: /Trace the picture/, screenshot: /Save the picture/ },
  };
  for (const [screen, words] of Object.entries(meant)) {
    await b.step(screen);
    await page.keyboard.press('Control+k');
    for (const [word, title] of Object.entries(words)) {
      await page.getByRole('combobox', { name: 'Find a command' }).fill(word);
      await expect(first, `${word} on ${screen}`).toContainText(title);
    }
    await page.keyboard.press('Escape');
  }
  // What belongs to a screen goes with it.
  await page.keyboard.press('Alt+0');
  await page.getByRole('button', { name: 'New project' }).waitFor();
  await page.keyboard.press('Control+k');
  const commands = page.getByRole('listbox', { name: 'Commands' }).getByRole('option');
  await expect(commands.filter({ hasText: 'Find a command' })).toHaveCount(1);
  await expect(commands.filter({ hasText: /Verb: |Trace the picture|New bone|Isometric/ })).toHaveCount(0);
});

test('at 1024 wide nothing is cut off and the view keeps its share', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 700 });
  const b = new Bench(page);
  await b.open();
  const overflow = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
  expect(overflow).toBeLessThanOrEqual(0);
  await page.setViewportSize({ width: 1280, height: 800 });
  await b.idle();
  const share = async () => {
    const v = (await page.getByRole('region', { name: 'View', exact: true }).boundingBox())!;
    return (v.width * v.height) / (1280 * 800);
  };
  expect(await share()).toBeGreaterThan(0.4);
  await page.keyboard.press('\\');
  await b.idle();
  expect(await share()).toBeGreaterThan(0.7);
});
