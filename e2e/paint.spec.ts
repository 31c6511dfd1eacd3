import { readFileSync } from 'node:fs';
import { choose, giveFiles, slide } from './bench';
import { expect, test } from './test';
import { Artist } from './artist';
import type { Triple } from './bench';
import { glbJson } from './glb-readers';

/** A hand that paints: swatches picked, finishes tried out and painted. */
class Painter extends Artist {
  colours = (): Promise<void> => this.page.getByRole('tab', { name: 'Colours' }).click();
  async pick(...names: string[]): Promise<void> {
    for (const [i, name] of names.entries())
      await this.page.getByRole('radio', { name, exact: true }).click(i === 0 ? {} : { modifiers: ['Control'] });
  }
  async finish(kind: string, only: boolean): Promise<void> {
    await this.page.getByRole('tab', { name: 'Finish' }).click();
    await this.page.getByRole('radiogroup', { name: 'Kind of finish' }).getByRole('radio', { name: kind }).click();
    await this.page.getByLabel(/^only cubes of/).setChecked(only);
  }
  async paint(): Promise<void> {
    await this.page.getByRole('button', { name: 'Paint it' }).click();
    await this.idle();
  }
  async bytes(...names: string[]): Promise<number[]> {
    const { swatches } = (await this.project()).palettes[0]!;
    return names.map((n) => swatches.find((s) => s.name === n)!.byte);
  }
  /** A block of one swatch. */
  async block(name: string, size: Triple, min: Triple): Promise<void> {
    await this.swatch(name);
    await this.byNumbers(size, min);
  }
  /** Every cell of the part, as a function of its place. */
  async all(min: Triple, size: Triple): Promise<(x: number, y: number, z: number) => number> {
    const cells = await this.cells('Body', min, size);
    return (x, y, z) => cells[x - min[0] + (y - min[1] + (z - min[2]) * size[1]) * size[0]]!;
  }
  async saved(kind: 'json' | 'hex' | 'png'): Promise<string> {
    const [d] = await Promise.all([
      this.page.waitForEvent('download'),
      choose(this.page, 'Save the palette', { json: 'everything', hex: 'hex list', png: 'PNG strip' }[kind]),
    ]);
    return d.path();
  }
  look = async (): Promise<{ name: string; colour: string }[]> => (await this.project()).palettes[0]!.swatches;
}

test('the tea cart is painted: planks on the tray, a ramp up the awning, speckle on the wheels, a glossy kettle', async ({
  page,
}) => {
  const b = new Painter(page);
  await b.open();
  await b.fresh('Tea cart', [32, 28, 20], 'Quayside dusk');
  await page.keyboard.press('1');
  await b.block('Chestnut', [20, 3, 12], [-10, 7, -6]);
  for (const x of [-10, 8]) await b.block('Walnut', [2, 12, 2], [x, 10, -6]);
  await b.block('Tile', [24, 6, 16], [-12, 22, -8]);
  for (const z of [-7, 6]) await b.block('Slate', [7, 7, 1], [-4, 0, z]);
  await b.block('Brass', [4, 5, 4], [-2, 10, -2]);
  const total = await b.total();
  const [walnut, chestnut, tan, umber] = (await b.bytes('Walnut', 'Chestnut', 'Tan', 'Umber')) as [
    number,
    number,
    number,
    number,
  ];

  // Planks along the tray, three cubes wide, of three woods: the same board has the same wood.
  await b.pick('Chestnut', 'Walnut', 'Tan');
  await b.finish('planks', true);
  await choose(page, 'Lie on', 'a floor');
  await b.number('Grain', 0);
  await b.number('Joint', 0);
  // Tried out first: nothing has changed yet.
  expect((await b.project()).history.at(-1)).not.toMatch(/^Planks/);
  await b.paint();
  let at = await b.all([-16, 0, -10], [32, 28, 20]);
  const woods = new Set<number>();
  for (let x = -10; x < 10; x++)
    for (let z = -6; z < 6; z++) {
      woods.add(at(x, 9, z));
      expect(at(x, 9, z)).toBe(at(x, 7, z));
      // Boards are three wide, beginning at whole multiples of three.
      expect(at(x, 9, z)).toBe(at(x, 9, Math.floor(z / 3) * 3));
    }
  expect([...woods].sort()).toEqual([walnut, chestnut, tan].sort());
  expect(at(-10, 15, -6)).toBe(walnut);

  // The awning from madder below to shell above, in even bands, drawn in the view from its lower to its upper edge.
  await b.pick('Tile', 'Madder', 'Coral', 'Shell');
  await page.getByRole('button', { name: 'Turn the tones round' }).click();
  await page.getByRole('button', { name: 'Turn the tones round' }).click();
  await b.finish('height', true);
  await page.getByRole('radiogroup', { name: 'Between tones' }).getByRole('radio', { name: 'bands' }).click();
  await b.paint();
  at = await b.all([-16, 0, -10], [32, 28, 20]);
  const [tile, madder, coral, shell] = (await b.bytes('Tile', 'Madder', 'Coral', 'Shell')) as [
    number,
    number,
    number,
    number,
  ];
  // The part is 28 high and the awning its upper six cubes: the last band alone, cut where 21 is three quarters.
  expect([22, 24, 27].map((y) => at(0, y, 7))).toEqual([shell, shell, shell]);
  await page.keyboard.press('Control+z');
  await b.idle();
  await page.getByRole('radiogroup', { name: 'Kind of finish' }).getByRole('radio', { name: 'gradient' }).click();
  await page.keyboard.press('Control+1');
  await b.idle();
  const [low, high] = [await b.face('Body', [0, 22, 7], [0, 0, 1]), await b.face('Body', [0, 27, 7], [0, 0, 1])];
  await b.drag(low, high);
  await b.paint();
  at = await b.all([-16, 0, -10], [32, 28, 20]);
  const column = [22, 23, 24, 25, 26, 27].map((y) => [tile, madder, coral, shell].indexOf(at(0, y, 7)));
  expect(column[0]).toBe(0);
  expect(column[5]).toBe(3);
  expect(column.every((v, i) => i === 0 || v >= column[i - 1]!)).toBe(true);

  // Rust on the wheels: a fifth of their cubes, in single specks, the same again with the same seed.
  await b.pick('Slate', 'Rust');
  await b.finish('speckle', true);
  await page.getByRole('button', { name: 'Turn the tones round' }).click();
  await b.number('Amount', 40);
  await b.paint();
  const specks = async () => (await b.cells('Body', [-4, 0, -7], [7, 7, 1])).map((v) => (v === rust ? 1 : 0));
  const [rust] = (await b.bytes('Rust')) as [number];
  const once = await specks();
  const share = once.reduce<number>((n, v) => n + v, 0) / once.length;
  expect(share).toBeGreaterThan(0.05);
  expect(share).toBeLessThan(0.45);
  await page.keyboard.press('Control+z');
  await b.idle();
  expect((await specks()).includes(1)).toBe(false);
  await b.paint();
  expect(await specks()).toEqual(once);

  // Corners darken by each colour's own tones; nothing is added or lost in all of this.
  await b.finish('occlusion', false);
  await page.getByRole('radiogroup', { name: 'Which tones' }).getByRole('radio', { name: 'each its own' }).click();
  await b.paint();
  expect(await b.total()).toBe(total);
  at = await b.all([-16, 0, -10], [32, 28, 20]);
  expect([walnut, umber]).toContain(at(8, 10, -6));

  // The kettle gleams.
  await b.swatch('Brass');
  await b.colours();
  await page.getByRole('radiogroup', { name: 'Surface' }).getByRole('radio', { name: 'metal' }).click();
  await page.getByText('Surface by numbers').click();
  await b.number('rough', 0.1);
  expect((await b.project()).palettes[0]!.swatches.find((s) => s.name === 'Brass')).toMatchObject({
    metalness: 0.9,
    roughness: 0.1,
  });
});

test('the lamp post is painted: brick foot, speckled iron, a ramp of its own, and glowing glass that one sees through', async ({
  page,
}) => {
  const b = new Painter(page);
  await b.open();
  await b.fresh('Lamp post', [16, 36, 16], 'Quayside dusk');
  await page.keyboard.press('1');
  await b.block('Tile', [12, 6, 12], [-6, 0, -6]);
  await b.block('Slate', [2, 18, 2], [-1, 6, -1]);
  await b.block('Lamp glass', [2, 4, 2], [-1, 26, -1]);
  await b.block('Window', [8, 8, 8], [-4, 24, -4]);

  // Bricks with joints of stone: courses three high, the joint on top of each.
  await b.pick('Tile', 'Madder', 'Rust');
  await b.finish('bricks', true);
  for (const [label, v] of [
    ['Length of a brick', 6],
    ['Height of a brick', 2],
    ['Joint', 1],
  ] as const)
    await b.number(label, v);
  await choose(page, 'Swatch of the joints', 'Stone');
  await b.paint();
  let at = await b.all([-8, 0, -8], [16, 36, 16]);
  const [stone, tile, madder, rust] = (await b.bytes('Stone', 'Tile', 'Madder', 'Rust')) as [
    number,
    number,
    number,
    number,
  ];
  for (let x = -6; x < 6; x++) expect([at(x, 2, 5), at(x, 5, 5)]).toEqual([stone, stone]);
  for (let x = -6; x < 6; x++) {
    // A joint every seventh cube; the next course is shifted by half a brick.
    expect(at(x, 0, 5) === stone).toBe(((x % 7) + 7) % 7 === 6);
    expect(at(x, 3, 5) === stone).toBe((((x + 3) % 7) + 7) % 7 === 6);
    if (at(x, 0, 5) !== stone) expect([tile, madder, rust]).toContain(at(x, 0, 5));
  }

  // A ramp of five between two swatches, bent in hue, lies in the palette and is painted up the post.
  await b.colours();
  await b.pick('Ink', 'Stone');
  await b.number('Steps of the ramp', 4);
  await b.number('Hue shift', 30);
  await page.getByRole('button', { name: 'Add the ramp to the palette' }).click();
  const names = (await b.look()).map((s) => s.name);
  expect(names.filter((n) => n.startsWith('Ink to Stone'))).toHaveLength(2);
  await b.swatch('Slate');
  await b.finish('height', true);
  await page.getByRole('tab', { name: 'Colours' }).click();
  await b.pick('Ink', 'Ink to Stone 2', 'Ink to Stone 3', 'Stone');
  await page.getByRole('tab', { name: 'Finish' }).click();
  await page.getByRole('radiogroup', { name: 'Kind of finish' }).getByRole('radio', { name: 'height' }).click();
  await expect(page.getByTestId('ramp').locator('.tile')).toHaveCount(4);
  await page.getByLabel(/^only cubes of/).uncheck();
  await b.paint();
  at = await b.all([-8, 0, -8], [16, 36, 16]);
  const tones = await b.bytes('Ink', 'Ink to Stone 2', 'Ink to Stone 3', 'Stone');
  const up = Array.from({ length: 18 }, (_, i) => tones.indexOf(at(0, 6 + i, 0)));
  expect(up.every((v) => v >= 0)).toBe(true);
  expect(up.slice(0, 6).reduce((n, v) => n + v, 0)).toBeLessThan(up.slice(-6).reduce((n, v) => n + v, 0));
  await page.keyboard.press('Control+z');
  await b.idle();

  // Glass is see-through in the view: the flame's own faces are drawn behind it, and shipped.
  await b.step('Ship');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Ship it' }).click(),
  ]);
  const glb = glbJson(readFileSync(await download.path()));
  const { primitives } = glb.meshes[0]!;
  expect(primitives.map((p) => glb.materials[p.material]!.alphaMode ?? 'OPAQUE')).toEqual(['OPAQUE', 'BLEND']);
  const box = primitives.map(({ attributes }) =>
    [glb.accessors[attributes.POSITION]!.min!, glb.accessors[attributes.POSITION]!.max!].map((v) =>
      v.map((c) => Math.round(c / 0.05)),
    ),
  );
  // The window stands from 24 to 32; inside it the lamp's top, at 30, is solid.
  expect(box[1]).toEqual([
    [-4, 24, -4],
    [4, 32, 4],
  ]);
  expect(box[0]![1]![1]).toBe(30);
  expect(glb.materials[0]!.extensions!.KHR_materials_emissive_strength!.emissiveStrength).toBe(5);
});

test('colourways of Tamsin stand side by side; a change in one is in that one alone, a new swatch in all, and all ship together', async ({
  page,
}) => {
  const b = new Painter(page);
  await b.open();
  await b.colours();
  await page.getByRole('button', { name: 'Side by side' }).click();
  await b.idle();
  for (const name of ['Palette · in hand', 'Night watch', 'Frost fair', 'Reedcutter', 'Fair queen'])
    await expect(page.locator('.view .mark', { hasText: name })).toBeVisible();
  // A click on another figure takes that colourway in hand.
  const label = (await page.locator('.view .mark', { hasText: 'Reedcutter' }).boundingBox())!;
  await b.click({ x: label.x + label.width / 2, y: label.y - 60 });
  expect((await b.state()).view['colourway']).toBe(
    (await b.project()).colourways.find((c) => c.name === 'Reedcutter')!.id,
  );
  await expect(page.getByRole('region', { name: 'Swatches' })).toContainText('in Reedcutter');
  const before = await b.project();
  await b.swatch('Resin');
  await page.getByLabel('Colour as hex').fill('#225588');
  await page.getByLabel('Colour as hex').press('Enter');
  await page.getByRole('region', { name: 'Swatches' }).getByRole('button', { name: 'New swatch' }).click();
  const after = await b.project();
  const resin = before.palettes[0]!.swatches.find((s) => s.name === 'Resin')!;
  const looks = (p: typeof after) => p.colourways.map((c) => c.changes.find((o) => o.byte === resin.byte)?.look.colour);
  expect(looks(after)).toEqual(
    looks(before).map((c, i) => (before.colourways[i]!.name === 'Reedcutter' ? '#225588' : c)),
  );
  expect(after.palettes[0]!.swatches.find((s) => s.byte === resin.byte)!.colour).toBe(resin.colour);
  expect(after.palettes[0]!.swatches).toHaveLength(before.palettes[0]!.swatches.length + 1);
  expect(after.parts.map((p) => p.layers[0]!.grid.hash)).toEqual(before.parts.map((p) => p.layers[0]!.grid.hash));

  // One deleted goes to the bin and comes back as it was.
  await page.getByRole('button', { name: 'Delete Fair queen' }).click();
  await page.getByRole('button', { name: 'Restore Fair queen' }).click();
  await b.idle();
  await page.reload();
  await page.waitForURL(/\/build$/);
  await b.idle();
  expect((await b.project()).colourways.map((c) => c.name)).toEqual([
    'Night watch',
    'Frost fair',
    'Reedcutter',
    'Fair queen',
  ]);

  await b.step('Ship');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Ship it' }).click(),
  ]);
  const glb = glbJson(readFileSync(await download.path()));
  const names = glb.extensions!.KHR_materials_variants!.variants.map((v) => v.name);
  expect(names).toEqual(['Night watch', 'Frost fair', 'Reedcutter', 'Fair queen']);
  for (const p of glb.meshes.flatMap((m) => m.primitives))
    expect(p.extensions!.KHR_materials_variants!.mappings.flatMap((m) => m.variants).sort()).toEqual([0, 1, 2, 3]);
  // The cubes are there once, whatever the number of looks.
  expect(glb.meshes).toHaveLength(after.parts.length);
});

test('deleting a swatch says who uses it, moves or removes its cubes, and is one step back', async ({ page }) => {
  const b = new Painter(page);
  await b.open();
  const total = await b.total();
  await b.part(/^Coat$/);
  await page.getByRole('radio', { name: 'Resin', exact: true }).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Delete the swatch…' }).click();
  const card = page.getByRole('region', { name: 'Delete swatches' });
  await expect(card.getByTestId('uses')).toContainText('1,250 cubes in 8 parts');
  await expect(card).toContainText(/Coat\s*643/);
  await card.getByRole('radio', { name: 'remove cubes' }).click();
  // It is tried out in the view, and stays so while the pointer passes over it.
  await expect(page.getByLabel('Readout')).toContainText('cubes 619');
  await page.mouse.move(600, 300);
  await page.mouse.move(620, 340);
  await b.idle();
  await expect(page.getByLabel('Readout')).toContainText('cubes 619');
  await card.getByRole('button', { name: 'Delete', exact: true }).click();
  await b.idle();
  expect(await b.total()).toBe(total - 1250);
  await page.keyboard.press('Control+z');
  await b.idle();
  expect(await b.total()).toBe(total);
  await b.pick('Resin', 'Resin, light');
  await page.keyboard.press('Alt+Delete');
  await expect(card).toContainText('Delete 2 swatches');
  await choose(card, 'To swatch', /^Verdigris( \(nearest\))?$/);
  await card.getByRole('button', { name: 'Delete', exact: true }).click();
  await b.idle();
  expect(await b.total()).toBe(total);
  expect((await b.look()).some((s) => s.name.startsWith('Resin, light') || s.name === 'Resin')).toBe(false);
  await page.keyboard.press('Control+z');

  // Replacing: in a selection, then in the part.
  const [green, moss] = (await b.bytes('Verdigris', 'Honey')) as [number, number];
  await b.swatch('Verdigris');
  const count = async (v: number) => (await b.cells('Coat', [-9, 13, -8], [18, 15, 15])).filter((c) => c === v).length;
  const had = await count(green);
  await page.keyboard.press('Alt+p');
  const replace = page.getByRole('region', { name: 'Replace swatches' });
  await expect(replace.getByTestId('uses')).toContainText(`${had} cubes`);
  await choose(replace, 'To swatch', /^Honey( \(nearest\))?$/);
  const honey = await count(moss);
  await replace.getByRole('button', { name: 'Replace', exact: true }).click();
  await b.idle();
  expect([await count(green), await count(moss)]).toEqual([0, honey + had]);
});

test('another palette is seen before and after, then every cube goes to its nearest; palette files go out and come back', async ({
  page,
}) => {
  const b = new Painter(page);
  await b.open();
  await b.colours();
  const before = await b.look();
  const json = readFileSync(await b.saved('json'), 'utf8'),
    hex = readFileSync(await b.saved('hex'), 'utf8');
  const png = await b.saved('png');
  expect(JSON.parse(json).swatches.map((s: { colour: string }) => s.colour)).toEqual(before.map((s) => s.colour));
  expect(hex.split('\n').slice(1, 3)).toEqual(['#e3a127 Honey', '#f6cc69 Honey, light']);

  await choose(page, 'A ready palette', /^Reedbank morning/);
  const card = page.getByRole('region', { name: 'Another palette' });
  await expect(card.getByTestId('plan')).toContainText('35 → 32');
  for (const name of ['before', 'after']) await expect(page.locator('.view .mark', { hasText: name })).toBeVisible();
  const total = await b.total();
  await card.getByRole('button', { name: 'Replace the palette' }).click();
  await b.idle();
  expect([(await b.look()).length, await b.total()]).toEqual([32, total]);
  await page.keyboard.press('Control+z');
  await b.idle();

  // The same palette from each file: all of it is there already.
  for (const file of [{ name: 'q.json', mimeType: 'application/json', buffer: Buffer.from(json) }]) {
    await giveFiles(page.getByRole('button', { name: 'From a file…' }), file);
    await card.getByRole('radio', { name: 'append', exact: true }).click();
    await expect(card.getByTestId('plan')).toContainText('0 new, 35 united with equals');
    await card.getByRole('button', { name: 'Keep' }).click();
  }
  await giveFiles(page.getByRole('button', { name: 'From a file…' }), png);
  await expect(card.getByTestId('plan')).toContainText('35 → 35');
  await card.getByRole('button', { name: 'Keep' }).click();
  // A broken one changes nothing and says where.
  await giveFiles(page.getByRole('button', { name: 'From a file…' }), {
    name: 'reeds.hex',
    mimeType: 'text/plain',
    buffer: Buffer.from('#112233\n#zz\n'),
  });
  await expect(page.getByText('“reeds.hex” was not taken. Line 2, “#zz”, is not a colour.')).toBeVisible();
  expect(await b.look()).toEqual(before);

  // Unused ones are dropped, sorting moves swatches only, and near twins are named.
  const hashes = (await b.project()).parts.map((p) => p.layers[0]!.grid.hash);
  await choose(page, 'Sort the palette', 'dark to light');
  const sorted = await b.look();
  expect(sorted.map((s) => s.name)).not.toEqual(before.map((s) => s.name));
  expect((await b.project()).parts.map((p) => p.layers[0]!.grid.hash)).toEqual(hashes);
  await page.getByRole('button', { name: 'New swatch' }).click();
  expect((await b.look()).length).toBe(36);
  await page.getByRole('button', { name: 'Drop 1 unused' }).click();
  expect(await b.look()).toEqual(sorted);
  expect((await b.project()).parts.map((p) => p.layers[0]!.grid.hash)).toEqual(hashes);
});

test('a colour is changed by wheel and sliders in one step; swatches have names, marks and arrows; the view is seen with other eyes', async ({
  page,
}) => {
  const b = new Painter(page);
  await b.open();
  await b.swatch('Verdigris');
  await b.colours();
  const colour = async () => (await b.look()).find((s) => s.name === 'Verdigris')!.colour;
  const was = await colour(),
    steps = (await b.project()).now;
  const wheel = (await page.getByRole('slider', { name: 'Hue and chroma' }).boundingBox())!;
  await b.drag({ x: wheel.x + 30, y: wheel.y + 60 }, { x: wheel.x + 90, y: wheel.y + 40 }, 8);
  const turned = await colour();
  expect(turned).not.toBe(was);
  expect((await b.project()).now).toBe(steps + 1);
  await page.getByRole('radio', { name: 'HSV' }).click();
  await page.getByRole('slider', { name: 'Value' }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
  expect(await colour()).not.toBe(turned);
  await page.getByRole('radio', { name: 'RGB' }).click();
  await slide(page.getByRole('slider', { name: 'Red' }), 200);
  expect((await colour()).slice(1, 3)).toBe('c8');
  await page.getByLabel('Colour as hex').fill('no such colour');
  await page.getByLabel('Colour as hex').press('Enter');
  await expect(page.getByText(/is not a colour. Write it as #rrggbb/)).toBeVisible();

  // Harmonies are added as swatches.
  const many = (await b.look()).length;
  await page.getByText('Colours that go with it').click();
  await page.getByRole('button', { name: /^Add opposite/ }).click();
  expect((await b.look()).at(-1)!.name).toBe('Verdigris, opposite');
  expect((await b.look()).length).toBe(many + 1);

  // By name, with counts, and by the keys alone.
  await page.getByRole('button', { name: 'Swatches by name' }).click();
  await expect(page.getByRole('radio', { name: 'Skin', exact: true })).toContainText('1,305');
  await page.getByRole('radio', { name: 'Verdigris', exact: true }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('radio', { name: 'Verdigris, light' })).toHaveAttribute('aria-checked', 'true');
  await page.getByRole('button', { name: 'Swatches as tiles' }).click();

  // The colour under the pointer is told by name.
  await b.part(/^Head/);
  const cheek = await b.face('Head', [0, 28, 6], [0, 0, 1]).catch(() => b.joint('Head'));
  await page.mouse.move(cheek.x, cheek.y);
  await b.idle();
  await expect(page.getByLabel('Readout')).toContainText(/colour (Skin|Blush|Lip|Ink|Milk|Plum|Verdigris)/);
  for (const seen of ['without red', 'without green', 'without blue', 'lightness alone']) {
    await page.keyboard.press('Control+Alt+c');
    await expect(page.getByText(new RegExp(`seen ${seen}`))).toBeVisible();
  }
  const filter = await page.locator('.view .host').evaluate((e) => getComputedStyle(e).filter);
  expect(filter).toContain('see-grey');
  await page.locator('.chip').getByRole('button', { name: 'end' }).click();
  expect(await page.locator('.view .host').evaluate((e) => getComputedStyle(e).filter)).toBe('none');
});
