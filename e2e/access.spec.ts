import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { Bench } from './bench';

/** What is serious or critical on the page as it stands, in both themes. */
async function faultsOf(page: Page, where: string, within?: string): Promise<string[]> {
  const faults: string[] = [];
  const root = page.locator('html');
  const before = await root.getAttribute('data-theme');
  for (const theme of ['daylight', 'dusk']) {
    await root.evaluate((html, t) => {
      html.dataset['theme'] = t;
      html.classList.toggle('dark', t === 'dusk');
    }, theme);
    const axe = new AxeBuilder({ page }).disableRules(['landmark-one-main', 'region']);
    const { violations } = await (within ? axe.include(within) : axe).analyze();
    for (const v of violations) {
      if (v.impact === 'serious' || v.impact === 'critical') {
        const nodes = v.nodes.slice(0, 3).map((n) => n.html.slice(0, 140));
        faults.push(`${where} in ${theme}: ${v.id}: ${nodes.join(' | ')}`);
      }
    }
  }
  await root.evaluate((html, t) => {
    html.dataset['theme'] = t!;
    html.classList.toggle('dark', t === 'dusk');
  }, before);
  return faults;
}

test('no screen has a serious fault of accessibility, in either theme', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const faults: string[] = [];
  for (const s of await b.screens()) {
    await b.step(s);
    faults.push(...(await faultsOf(page, s)));
    if (s !== 'Build') continue;
    for (const tab of ['Colours', 'Finish', 'Apart']) {
      await page.getByRole('tab', { name: tab }).click();
      await b.idle();
      faults.push(...(await faultsOf(page, tab)));
    }
  }
  await page.keyboard.press('Alt+0');
  await page.getByRole('button', { name: 'New project' }).waitFor();
  faults.push(...(await faultsOf(page, 'Shelf')));
  expect(faults).toEqual([]);
});

test('no dialog, menu or list that opens has one; Escape closes it, and the keys are where they were', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  const faults: string[] = [];
  const command = async (words: string) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find a command' }).fill(words);
    await page.getByRole('listbox', { name: 'Commands' }).getByRole('option').first().waitFor();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('combobox', { name: 'Find a command' })).toHaveCount(0);
  };
  /** Opens, looks, and closes by Escape. */
  const look = async (where: string, open: () => Promise<unknown>, role: 'dialog' | 'menu' | 'listbox' = 'dialog') => {
    await open();
    const opened = page.getByRole(role).filter({ visible: true });
    await expect(opened, where).not.toHaveCount(0);
    await b.idle();
    faults.push(...(await faultsOf(page, where, `[role=${role}]`)));
    await page.keyboard.press('Escape');
    await expect(opened, `${where} is closed by Escape`).toHaveCount(0);
  };
  await look('Search', () => page.keyboard.press('Control+k'));
  await look('Shortcuts', () => page.keyboard.press('?'));
  await look('History', () => page.keyboard.press('Control+h'));
  await look('Rename', () => command('rename the project'));
  await look(
    'Menu of a part',
    async () => {
      const { x, y } = await b.face('Coat', [4, 20, 3], [0, 0, 1]);
      await page.mouse.click(x, y, { button: 'right' });
    },
    'menu',
  );
  await look('More tools', () => page.getByRole('button', { name: 'Add a tool' }).click(), 'menu');
  await look('A list', () => page.getByRole('combobox', { name: 'Reach' }).press('Enter'), 'listbox');
  await b.step('Rig');
  await look('Bringing in', () => command('bring in a rig'));
  await look('Ready rig', () => command('save as a ready rig'));
  await look('Ring', () => command('ring of equal bars'));
  await look('Many names', () => command('rename many bones'));
  await page.getByRole('treeitem', { name: /^Satchel$/ }).click();
  await look('Duplicating', () => page.keyboard.press('Control+d'));
  await b.step('Animate');
  await look('A clip of another', () => page.getByRole('button', { name: /another figure|another project/i }).click());
  await page.keyboard.press('Alt+0');
  const opener = page.getByRole('button', { name: 'New project' });
  await opener.waitFor();
  await look('New project', () => opener.press('Enter'));
  await expect(opener).toBeFocused();
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
      bucket: /Fill/,
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
  await expect(commands.filter({ hasText: /\(verb\)|Trace the picture|New bone|Isometric/ })).toHaveCount(0);
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
  await expect.poll(share).toBeGreaterThan(0.4);
  await page.keyboard.press('\\');
  await b.idle();
  await expect.poll(share).toBeGreaterThan(0.7);
});
