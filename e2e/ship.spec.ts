import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
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
