import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { expect, test } from './test';
import { Bench } from './bench';
import { readWithThree, validate } from './glb-readers';

test('the GLB is without fault, and three and assimp read the same tree, counts and animation', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  const project = await b.project();
  await b.step('Ship');
  await expect(page.getByText('Every part is mounted and filled')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the GLB' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('tamsin.glb');
  const file = join(mkdtempSync(join(tmpdir(), 'glb-')), 'tamsin.glb');
  await download.saveAs(file);
  const bytes = readFileSync(file);

  const report = await validate(bytes);
  // The validator does not know variants, which colourways ship as; it says so and looks no further.
  // Attachment points are empty nodes, which it remarks on.
  expect(report.issues.messages.filter((m) => m.code !== 'UNSUPPORTED_EXTENSION' && m.code !== 'NODE_EMPTY')).toEqual(
    [],
  );

  const three = await readWithThree(bytes);
  const suffix = (o: { name: string; side: string }) => o.name + (o.side === 'centre' ? '' : ` ${o.side}`);
  // Controls stay at home; what they do is in the clips.
  const bones = project.rig.bones.filter((o) => !/ (goal|bend)$/.test(o.name));
  for (const bone of bones) {
    const parent = bones.find((o) => o.id === bone.parent);
    expect(three.parents[suffix(bone)], suffix(bone)).toContain(parent ? suffix(parent) : project.name);
  }
  expect(three.meshes).toBe(project.parts.length);
  expect(three.clips).toEqual(
    project.clips.map((c) => ({
      name: c.name,
      seconds: expect.closeTo(c.length / 1200, 4),
      tracks: expect.any(Number),
    })),
  );
  // Tamsin stands on the floor and is 46 cubes of 4.3 cm high with her pole.
  expect(three.low).toBeCloseTo(0, 4);
  expect(three.high).toBeCloseTo(46 * 0.043, 3);

  const info = execFileSync('assimp', ['info', file], { encoding: 'utf8' });
  const figure = (name: string) => Number(new RegExp(`${name}:\\s+(\\d+)`).exec(info)![1]);
  expect(figure('Animations')).toBe(project.clips.length);
  expect(figure('Faces')).toBe(three.triangles);
  expect(figure('Vertices')).toBe(three.vertices);
  for (const bone of bones) expect(info).toContain(suffix(bone));
});

test('the same figure as plain mesh, coloured surface and prints: assimp reads each at its size, all in one action each', async ({
  page,
}) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Ship');
  const folder = mkdtempSync(join(tmpdir(), 'formats-'));
  /** Saves an output, and gives what assimp says of it; several files come as a ZIP. */
  const saved = async (output: RegExp, name: string): Promise<string> => {
    await page.getByRole('complementary', { name: 'Tray' }).getByRole('button', { name: output }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('e')]);
    const file = join(folder, download.suggestedFilename());
    await download.saveAs(file);
    if (file.endsWith('.zip'))
      for (const [entry, bytes] of Object.entries(unzipSync(readFileSync(file))))
        writeFileSync(join(folder, entry), bytes);
    return execFileSync('assimp', ['info', join(folder, name)], { encoding: 'utf8' });
  };
  const point = (info: string, which: string): number[] =>
    new RegExp(`${which} point\\s+\\(([^)]*)\\)`).exec(info)![1]!.trim().split(/\s+/).map(Number);
  const high = (info: string, axis: number): number => point(info, 'Maximum')[axis]! - point(info, 'Minimum')[axis]!;
  const obj = await saved(/^Plain mesh/, 'tamsin.obj');
  expect(high(obj, 1)).toBeCloseTo(46 * 0.043, 2);
  expect(readFileSync(join(folder, 'tamsin.mtl'), 'utf8')).toContain('map_Kd tamsin-emberquay-colour.png');
  expect(high(await saved(/^Coloured surface/, 'tamsin.ply'), 1)).toBeCloseTo(46 * 0.043, 2);
  expect(high(await saved(/^Print, one colour/, 'tamsin.stl'), 2)).toBeCloseTo(100, 2);
  const coloured = await saved(/^Print, in colour/, 'tamsin.3mf');
  expect(high(coloured, 2)).toBeCloseTo(100, 2);
  // Closed or as rectangles, by a switch.
  await page
    .getByRole('complementary', { name: 'Tray' })
    .getByRole('button', { name: /^Game file/ })
    .click();
  const triangles = async (): Promise<number> =>
    Number((await page.locator('dt', { hasText: 'triangles' }).locator('+ dd').textContent())!.replaceAll(',', ''));
  await expect(page.locator('dt', { hasText: 'triangles' })).toBeVisible();
  const open = await triangles();
  await page.getByRole('checkbox', { name: 'Watertight' }).check();
  await expect.poll(triangles).not.toBe(open);
});
