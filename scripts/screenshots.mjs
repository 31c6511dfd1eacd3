// Makes the pictures of docs/screenshots from the demo data. Usage: node scripts/screenshots.mjs [folder] [name …]
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';

const [folder = 'docs/screenshots', ...only] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const server = spawn(process.execPath, ['server/dist/main.js', '--port', '4390'], {
  stdio: ['ignore', 'pipe', 'inherit'],
});
const address = await new Promise((resolve) =>
  server.stdout.on('data', (d) => {
    const m = /http:\S+/.exec(String(d));
    if (m) resolve(m[0]);
  }),
);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
    '--force-color-profile=srgb',
  ],
});
const wanted = (name) => only.length === 0 || only.includes(name);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
  page.on('pageerror', (e) => console.error('page:', e.message));
  page.on('console', (m) => m.type() === 'error' && console.error('console:', m.text()));
  const calm = async () => {
    await page.waitForFunction(() => 'sphalerite' in window);
    await page.evaluate(() => window.sphalerite.idle());
  };
  const run = (id, args) => page.evaluate(([i, a]) => window.sphalerite.run(i, a), [id, args]);
  const shoot = async (name) => {
    if (!wanted(name)) return;
    await calm();
    await page.waitForTimeout(200);
    await page.screenshot({ path: `${folder}/${name}.png` });
    console.log(`${folder}/${name}.png`);
  };
  const step = async (name) => {
    await page
      .getByRole('navigation')
      .getByRole('link', { name: new RegExp(name) })
      .click();
    await page.waitForFunction((s) => location.pathname.endsWith(s), name.toLowerCase());
    await calm();
  };
  /** Sluice panels, drawn in the page: a picture of heights and one of colours, dropped together. */
  const bringIn = async () => {
    await page.evaluate(async () => {
      const [size, rows] = [384, ['#2e8c7a', '#7d8a94', '#8a4a70', '#c9641f']];
      const [heights, colours] = [0, 1].map(() =>
        Object.assign(document.createElement('canvas'), { width: size, height: size }),
      );
      const [h, c] = [heights, colours].map((o) => o.getContext('2d'));
      for (const g of [h, c]) {
        g.fillStyle = '#000';
        g.fillRect(0, 0, size, size);
      }
      let seed = 7;
      const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
      const block = (x, y, w, d, v, row) => {
        h.fillStyle = `rgb(${v} ${v} ${v})`;
        h.fillRect(x, y, w, d);
        c.fillStyle = `color-mix(in oklab, ${rows[row]} ${40 + v / 5}%, ${v > 150 ? '#f4ead6' : '#1d1512'})`;
        c.fillRect(x, y, w, d);
      };
      for (let row = 0; row < 4; row++)
        for (let n = 0; n < 4; n++) {
          const [x, y] = [n * 96 + 9 + Math.floor(random() * 9), row * 96 + 9 + Math.floor(random() * 9)];
          block(x, y, 72, 72, 50, row);
          block(x + 6, y + 6, 60, 60, 95, row);
          for (let k = 0; k < 6; k++) {
            const [w, d] = [9 + Math.floor(random() * 21), 9 + Math.floor(random() * 21)];
            block(
              x + 9 + Math.floor(random() * (54 - w)),
              y + 9 + Math.floor(random() * (54 - d)),
              w,
              d,
              120 + Math.floor(random() * 130),
              row,
            );
          }
        }
      const data = new DataTransfer();
      for (const [name, canvas] of [
        ['sluice-heights.png', heights],
        ['sluice-colours.png', colours],
      ])
        data.items.add(new File([await new Promise((done) => canvas.toBlob(done))], name));
      for (const type of ['dragover', 'drop'])
        document
          .querySelector('canvas')
          .dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: data }));
    });
    await page.waitForURL(/bring$/);
    await calm();
    await page.getByRole('radio', { name: 'pieces' }).click();
    await page.getByLabel('Width of the field in cubes').fill('112');
    await page.keyboard.press('Enter');
    await calm();
    await page.waitForTimeout(800);
    for (const c of await page.getByRole('button', { name: 'Close this card for good' }).all()) await c.click();
    await shoot('bring-in');
    await page.getByRole('button', { name: 'Cancel' }).click();
    await page.waitForFunction(() => location.pathname.endsWith('build'));
    await calm();
  };
  await page.goto(address);
  await page.waitForFunction(() => location.pathname.endsWith('stage'));
  await page.waitForSelector('.where h1');
  await calm();
  await page.waitForTimeout(2500);
  await shoot('first-run');
  await page.getByRole('button', { name: 'First steps' }).click();
  await page.waitForFunction(() => location.pathname.endsWith('build'));
  await calm();
  await page.getByRole('button', { name: 'Skip' }).click();
  for (const s of ['Build', 'Rig', 'Animate', 'Light', 'Ship']) {
    await step(s);
    for (const c of await page.getByRole('button', { name: 'Close this card for good' }).all()) await c.click();
  }
  await step('Build');
  await page.getByRole('treeitem', { name: /^Coat/ }).first().click();
  await run('mirror.x');
  await run('view.all');
  await calm();
  const at = await page.evaluate(() => window.sphalerite.screenOf({ part: 'Coat', cell: [3, 17, 3], face: [0, 0, 1] }));
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  const to = await page.evaluate(() => window.sphalerite.screenOf({ part: 'Coat', cell: [1, 15, 3], face: [0, 0, 1] }));
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await shoot('build');
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await page.keyboard.press('Escape');
  await page.mouse.move(980, 24);
  await run('mirror.x');
  const view = async (part, cell, face) => page.evaluate((w) => window.sphalerite.screenOf(w), { part, cell, face });
  await page.getByRole('treeitem', { name: /^Head/ }).first().click();
  await run('view.frame');
  await page.getByRole('button', { name: 'Add a tool' }).click();
  await page.getByRole('menuitem', { name: 'Select colour' }).click();
  const hat = await view('Head', [0, 36, 9], [0, 0, 1]);
  await page.mouse.move(hat.x, hat.y);
  await page.mouse.down();
  await page.mouse.up();
  await calm();
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageUp');
  await shoot('build-selection');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await run('cut.toggle');
  const { min, size } = await page.evaluate(
    () => window.sphalerite.project().parts.find((p) => p.name === 'Head').bounds,
  );
  const front = [min[0] + (size[0] >> 1), min[1] + (size[1] >> 1), min[2] + size[2] - 1];
  const [from, back] = [
    await view('Head', front, [0, 0, 1]),
    await view('Head', [front[0], front[1], front[2] - 9], [0, 0, 1]),
  ];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(back.x, back.y, { steps: 8 });
  await page.mouse.up();
  await run('guide.toggle');
  await page.mouse.move(980, 24);
  await run('cut.clear');
  if (wanted('colours') || wanted('colourways') || wanted('finish')) {
    await run('guide.toggle');
    await run('card.remove');
    await page.keyboard.press('1');
    await page.getByRole('treeitem', { name: /^Coat/ }).first().click();
    await run('view.all');
    await run('tab.colours');
    await page.getByRole('radio', { name: 'Verdigris', exact: true }).click();
    await page.mouse.move(980, 24);
    await page.waitForTimeout(300);
    await shoot('colours');
    await run('colourway.sideBySide');
    await page.waitForTimeout(300);
    await page.getByRole('region', { name: 'Colourways' }).evaluate((e) => e.scrollIntoView({ block: 'end' }));
    await shoot('colourways');
    await run('colourway.sideBySide');
    await run('tab.finish');
    await page.getByRole('radio', { name: 'planks' }).click();
    await page.getByRole('radio', { name: 'Hide, shade', exact: true }).click();
    for (const name of ['Bark, light', 'Hide', 'Hide, light'])
      await page.getByRole('radio', { name, exact: true }).click({ modifiers: ['Control'] });
    await page.getByRole('treeitem', { name: /^Pole/ }).first().click();
    await run('view.all');
    await shoot('finish');
    await run('tab.part');
    await run('guide.toggle');
    await page.getByRole('button', { name: 'Add a tool' }).click();
    await page.getByRole('menuitem', { name: 'Select colour' }).click();
  }
  await run('guide.toggle');
  await run('card.remove');
  await page.getByRole('treeitem', { name: /^Coat/ }).first().click();
  await run('view.all');
  await step('Rig');
  await run('rig.try');
  await page.getByRole('treeitem', { name: /^Foot goal\s*left/ }).click();
  const goal = await page.evaluate(() => window.sphalerite.screenOf({ bone: 'Foot goal left' }));
  await page.mouse.move(goal.x, goal.y - 55);
  await page.mouse.down();
  await page.mouse.move(goal.x, goal.y - 95, { steps: 6 });
  await page.mouse.up();
  if (wanted('rig')) {
    await page.getByRole('treeitem', { name: /^Thigh\s*left/ }).click();
    await page.getByRole('button', { name: 'Study the joint' }).click();
    await page.getByRole('button', { name: 'Use the best pivot' }).waitFor();
    for (const c of await page.getByRole('button', { name: 'Close', exact: true }).all()) await c.click();
    await page.mouse.move(980, 24);
    await page.waitForTimeout(6000);
  }
  await shoot('rig');
  await step('Animate');
  await page.getByRole('treeitem', { name: /^Walk/ }).click();
  await page.evaluate(() => window.sphalerite.run('anim.start'));
  for (let i = 0; i < 6; i++) await run('anim.next');
  await page.getByLabel('Show lanes whose name holds').fill('foot goal');
  await page.locator('.lane .name').first().click();
  await page.getByLabel('Show lanes whose name holds').fill('');
  await run('anim.onion');
  await run('anim.trail');
  await shoot('animate');
  await run('anim.onion');
  await run('anim.trail');
  await page.getByLabel('Show lanes whose name holds').fill('chest');
  await page.locator('.lane .name').first().click();
  await page.getByLabel('Show lanes whose name holds').fill('');
  await run('anim.sheetCurves');
  await shoot('curves');
  if (wanted('ground')) {
    await run('anim.sheetGround');
    await page.getByRole('button', { name: 'Check all' }).click();
    await page.getByRole('region', { name: 'All clips' }).getByRole('listitem').nth(3).waitFor();
  }
  await shoot('ground');
  await run('anim.sheetKeys');
  await step('Light');
  if (wanted('light')) {
    await run('light.trace');
    await page.waitForFunction(
      () => /done/.test(document.querySelector('[data-testid=trace-state]').textContent),
      undefined,
      { timeout: 180_000 },
    );
    // The other shots have their small pictures once the workers rest.
    await page.getByRole('tree', { name: 'Shots' }).locator('img').nth(2).waitFor({ timeout: 60_000 });
  }
  await shoot('light');
  await step('Ship');
  await page.waitForSelector('.face-chart .chart');
  await calm();
  await shoot('ship');
  if (wanted('ship-slots')) {
    await page.getByRole('button', { name: 'Material slots', exact: true }).click();
    for (const [label, name] of [
      ['Slot of floors', 'Top'],
      ['Slot of walls', 'Side'],
    ]) {
      await page.getByLabel(label).fill(name);
      await page.keyboard.press('Enter');
    }
    await run('ship.look.slots');
    await page.waitForTimeout(1500);
    await shoot('ship-slots');
    await run('ship.look.slots');
  }
  if (wanted('bring-in')) await bringIn();
  await run('look.theme');
  await step('Build');
  await shoot('build-dusk');
  await run('look.theme');
  await run('project.shelf');
  await page.waitForSelector('.card img');
  await page.waitForTimeout(300);
  if (wanted('shelf')) await page.screenshot({ path: `${folder}/shelf.png` });
  if (wanted('ready-rigs')) {
    await page.getByRole('button', { name: 'New project' }).click();
    await page.getByRole('radio', { name: 'Biped', exact: true }).click();
    await page.waitForTimeout(400);
    await page.screenshot({ path: `${folder}/ready-rigs.png` });
    await page.keyboard.press('Escape');
    await page.waitForTimeout(400);
  }
  if (wanted('stage')) {
    await page.getByRole('button', { name: 'Open Night market' }).first().click();
    await page.waitForFunction(() => location.pathname.endsWith('build'));
    await step('Stage');
    for (const c of await page.getByRole('button', { name: 'Close this card for good' }).all()) await c.click();
    await run('view.all');
    await page.getByRole('tree').getByRole('treeitem', { name: 'Stall' }).nth(3).click();
    await page.mouse.move(980, 24);
    await page.waitForTimeout(1500);
    await shoot('stage');
    await run('project.shelf');
    await page.waitForSelector('.card img');
  }
  if (wanted('apart')) {
    await page.getByRole('button', { name: 'Open Oswin' }).first().click();
    await page.waitForFunction(() => location.pathname.endsWith('build'));
    await calm();
    await run('tab.apart');
    await page.getByRole('button', { name: 'Cut at guide' }).waitFor();
    const piece = async (name) => {
      const field = page.getByLabel(/^Name of piece/).last();
      await field.fill(name);
      await field.press('Enter');
    };
    await run('guide.toggle');
    for (let i = 0; i < 11; i++) await run('guide.up');
    for (const name of ['Head', 'Upper neck', 'Middle neck']) {
      await page.getByRole('button', { name: 'Cut at guide' }).click();
      await piece(name);
      for (let i = 0; i < 4; i++) await run('guide.down');
    }
    await run('guide.toggle');
    await page.keyboard.press('7');
    const select = async (name, size, min) => {
      await page.getByRole('button', { name: 'by numbers' }).click();
      for (const [i, k] of ['width', 'height', 'depth'].entries())
        await page.getByLabel(`Shape ${k}`, { exact: true }).fill(String(size[i]));
      for (const [i, k] of ['X', 'Y', 'Z'].entries())
        await page.getByLabel(`Shape ${k}`, { exact: true }).fill(String(min[i]));
      await page.getByLabel('Shape Z', { exact: true }).press('Enter');
      await page.getByRole('button', { name: 'Set it' }).click();
      await run('apart.selection');
      await piece(name);
    };
    await select('Shin', [10, 7, 3], [-5, 2, -1]);
    await select('Foot', [10, 2, 9], [-5, 0, -2]);
    await page.mouse.move(980, 24);
    await page.waitForTimeout(300);
    await shoot('apart');
  }
} finally {
  await browser.close();
  server.kill();
}
