import { spawn, spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './test';
import { decode, encode } from 'fast-png';
import { unzipSync } from 'fflate';
import { validate } from './glb-readers';
import { Bench, choose } from './bench';

const root = join(import.meta.dirname, '..');
// The wishes of the test runner about colours are not the command's; Node remarks on them when they disagree.
const { NO_COLOR: _no, FORCE_COLOR: _force, ...env } = process.env;
const run = (...args: string[]) =>
  spawnSync(process.execPath, [join(root, 'cli/bin/sphalerite.js'), ...args], { encoding: 'utf8', env });
const demo = join(root, 'content/out/tamsin.sphal');
const folder = mkdtempSync(join(tmpdir(), 'cli-'));

test('info names parts, bones, clips and shots', () => {
  const out = run('info', demo, '--json');
  expect(out.status).toBe(0);
  const info = JSON.parse(out.stdout) as {
    parts: { name: string; bone: string }[];
    bones: unknown[];
    clips: { name: string }[];
    shots: { name: string }[];
  };
  expect(info.parts).toHaveLength(19);
  expect(info.parts.find((p) => p.name === 'Lantern')!.bone).toBe('Lantern');
  expect(info.clips.map((c) => c.name)).toEqual(['Idle', 'Walk', 'Climb', 'Light the lamp']);
  expect(info.shots.map((s) => s.name)).toContain('Dusk, quayside');
  expect(run('info', demo).stdout).toContain('Upper arm left');
});

test('export writes a GLB without fault, render a PNG of the asked size', async () => {
  const glb = run('export', demo, '--format', 'glb', '--out', folder);
  expect(glb.status, glb.stderr).toBe(0);
  const report = await validate(readFileSync(join(folder, 'tamsin.glb')));
  // Attachment points are empty nodes, which the validator remarks on.
  expect(report.issues.messages.filter((m) => m.code !== 'NODE_EMPTY')).toEqual([]);
  const png = run(
    'render',
    demo,
    '--shot',
    'Game view',
    '--size',
    '96x64',
    '--samples',
    '2',
    '--out',
    join(folder, 'game.png'),
  );
  expect(png.status, png.stderr).toBe(0);
  const picture = decode(readFileSync(join(folder, 'game.png')));
  expect([picture.width, picture.height]).toEqual([96, 64]);
  expect(new Set(picture.data).size).toBeGreaterThan(50);
});

test('render makes a turntable, the frames of a clip, sprites and light with its passes; what only browsers write is told', () => {
  const out = (name: string): string => join(folder, name);
  const render = (...args: string[]) => run('render', demo, '--samples', '1', '--size', '40x30', ...args);
  const turn = render('--turntable', '--fps', '2', '--out', out('turn.gif'));
  expect(turn.stdout, turn.stderr).toContain('8 frames of 40×30, 4.0 s long');
  expect(readFileSync(out('turn.gif')).subarray(0, 6).toString()).toBe('GIF89a');
  // The way of the camera that the shot says: of Tamsin's, once about.
  const path = render('--path', '--fps', '1', '--out', out('path.gif'));
  expect(path.stdout, path.stderr).toContain('4 frames of 40×30, 4.0 s long');
  const clip = render('--clip', 'Walk', '--fps', '4', '--out', out('walk.zip'));
  expect(clip.stdout, clip.stderr).toContain('4 frames');
  const names = Object.keys(unzipSync(readFileSync(out('walk.zip'))));
  expect(names).toEqual([0, 1, 2, 3].map((i) => `dusk-quayside-000${i}.png`));
  const sprites = render('--sprites', '--fps', '2', '--out', out('sheet.png'));
  expect(sprites.stdout, sprites.stderr).toMatch(/16 sprites of \d+×\d+/);
  const table = JSON.parse(readFileSync(out('sheet.json'), 'utf8')) as {
    clips: { frames: unknown[] }[];
    width: number;
  };
  expect([table.clips[0]!.frames.length, decode(readFileSync(out('sheet.png'))).width]).toEqual([16, table.width]);
  expect(render('--passes', '--out', out('light.exr')).status).toBe(0);
  for (const pass of ['', '.albedo', '.normal', '.depth'])
    expect(readFileSync(out(`light${pass}.exr`)).readUInt32LE(0)).toBe(20000630);
  const video = render('--out', out('turn.mp4'));
  expect(video.status).toBe(2);
  expect(video.stderr).toMatch(/browser alone/);
  expect(render('--clip', 'Fly', '--out', out('fly.gif')).stderr).toMatch(
    /no clip "Fly". Clips in this project: "Idle"/,
  );
});

test('the browser and the command line trace the very same picture, to the last bit of its light', async ({ page }) => {
  const b = new Bench(page);
  await b.open();
  await b.step('Light');
  await b.set('Picture width', '72');
  await b.set('Picture height', '64');
  await b.set('Samples', '3');
  await b.set('Noise at which a part is done', '0');
  await choose(page, 'Kind of file', 'EXR');
  await page.getByRole('button', { name: 'Trace the picture' }).click();
  await expect(page.getByTestId('trace-state')).toContainText('done in', { timeout: 60_000 });
  await b.idle();
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the picture' }).click(),
  ]);
  const file = join(folder, 'same.exr');
  const done = run('render', demo, '--samples', '3', '--size', '72x64', '--denoise', '--out', file);
  expect(done.status, done.stderr).toBe(0);
  expect(readFileSync(await saved.path()).equals(readFileSync(file))).toBe(true);
});

test('render ends where a part of the picture is certain, and that is nearly the picture of all samples', () => {
  const picture = (noise: string): Uint8Array => {
    const file = join(folder, `noise-${noise}.png`);
    const done = run('render', demo, '--samples', '96', '--size', '64x64', '--noise', noise, '--out', file);
    expect(done.status, done.stderr).toBe(0);
    return decode(readFileSync(file)).data as Uint8Array;
  };
  const [all, some] = [picture('0'), picture('0.2')];
  const apart = all.reduce((sum, v, i) => sum + Math.abs(v - some[i]!), 0) / all.length;
  expect(apart).toBeGreaterThan(0);
  expect(apart).toBeLessThan(6);
});

test('a placement of a scene ships by itself, by the name of what it shows', () => {
  const market = join(root, 'content/out/night-market.sphal');
  const out = run('export', market, '--placement', 'Lamp post', '--out', folder, '--json');
  expect(out.status, out.stderr).toBe(0);
  const { formats } = JSON.parse(out.stdout) as { formats: { files: { name: string }[]; counts: { parts: number } }[] };
  // It is a row of four.
  expect(formats[0]).toMatchObject({ files: [{ name: 'lamp-post.glb' }], counts: { parts: 4 } });
  const none = run('export', market, '--placement', 'Gondola', '--out', folder);
  expect(none.status).toBe(2);
  expect(none.stderr).toMatch(/There is no placement "Gondola"\. There are: "Quay"/);
});

test('help explains; bad files and words give one clear line and exit code 2', () => {
  expect(run('--help').stdout).toMatch(/info[\s\S]*export[\s\S]*render/);
  const bad = join(folder, 'bad.sphal');
  writeFileSync(bad, 'not a zip');
  for (const args of [
    ['info', bad],
    ['info', join(folder, 'nowhere.sphal')],
    ['export', demo, '--format', 'xyz'],
    ['render', demo, '--shot', 'No such', '--out', join(folder, 'x.png')],
    ['render', demo, '--size', 'wide', '--out', 'x.png'],
    ['render', demo, '--noise', 'little', '--out', 'x.png'],
    ['render', demo, '--noise', '2', '--out', 'x.png'],
  ]) {
    const out = run(...args);
    expect(out.status, args.join(' ')).toBe(2);
    expect(out.stderr.trim().split('\n'), out.stderr).toHaveLength(1);
  }
});

test('export takes a profile, formats and colourways; what it wrote is told as JSON, the same bytes each time', () => {
  const out = join(folder, 'phone');
  const args = [
    'export',
    demo,
    '--profile',
    'phone',
    '--format',
    'glb,obj',
    '--colourway',
    'all',
    '--out',
    out,
    '--json',
  ];
  const first = run(...args);
  expect(first.status, first.stderr).toBe(0);
  const told = JSON.parse(first.stdout) as {
    formats: { format: string; colourway: string | null; files: { name: string; bytes: number }[]; counts: object }[];
  };
  expect([...new Set(told.formats.map((f) => f.colourway))]).toEqual([
    null,
    'Night watch',
    'Frost fair',
    'Reedcutter',
    'Fair queen',
  ]);
  const names = told.formats.flatMap((f) => f.files.map((o) => o.name));
  expect(names).toEqual(expect.arrayContaining(['tamsin.glb', 'tamsin-frost-fair.glb', 'tamsin.obj', 'tamsin.mtl']));
  expect(readdirSync(out).sort()).toEqual([...new Set(names)].sort());
  const bytes = readFileSync(join(out, 'tamsin.glb'));
  expect(run(...args).status).toBe(0);
  expect(readFileSync(join(out, 'tamsin.glb')).equals(bytes)).toBe(true);
  // Wishes of the delivery are options as well.
  const closed = ['--option', 'mesh.watertight=yes', '--option', 'names.prefix=sm_', '--option', 'packing=quantized'];
  const more = run('export', demo, '--profile', 'Phone', ...closed, '--out', join(folder, 'closed'));
  expect(more.status, more.stderr).toBe(0);
  expect(readFileSync(join(folder, 'closed', 'tamsin.glb')).toString('latin1')).toContain('sm_Head');
});

test('check fails a build that is over its budget, and says so as JSON', () => {
  const good = run('check', demo, '--profile', 'phone', '--json');
  expect(good.status, good.stderr).toBe(0);
  expect(JSON.parse(good.stdout)).toMatchObject({ profile: 'Phone', passed: true, figures: { bones: 24 } });
  const over = run('check', demo, '--profile', 'phone', '--option', 'budget.triangles=100', '--json');
  expect(over.status).toBe(1);
  const { passed, findings } = JSON.parse(over.stdout) as {
    passed: boolean;
    findings: { level: string; code: string }[];
  };
  expect([passed, findings[0]]).toMatchObject([false, { level: 'over', code: 'budget.triangles' }]);
  expect(run('check', demo, '--profile', 'phone', '--strict').status).toBe(1);
  expect(run('check', demo, '--profile', 'phone').stdout).toMatch(/^look {2}/m);
});

test('watch exports again when the project file changes, waits out what cannot be read, and stops when it is asked to', async () => {
  const file = join(folder, 'watched.sphal'),
    out = join(folder, 'watched');
  copyFileSync(join(root, 'content/out/lamp-post.sphal'), file);
  const child = spawn(process.execPath, [join(root, 'cli/bin/sphalerite.js'), 'watch', file, '--out', out], { env });
  let said = '';
  for (const s of [child.stdout, child.stderr]) s.on('data', (d) => (said += String(d)));
  const ended = new Promise<number | null>((r) => child.on('close', r));
  await expect.poll(() => said).toContain('Watching');
  expect(readdirSync(out)).toEqual(['lamp-post.glb']);
  writeFileSync(file, 'half a file');
  await expect.poll(() => said).toMatch(/sphalerite: .*watched\.sphal/);
  copyFileSync(join(root, 'content/out/row-boat.sphal'), file);
  await expect.poll(() => readdirSync(out).filter((n) => n.endsWith('.glb')).length).toBe(2);
  child.kill('SIGINT');
  expect(await ended).toBe(0);
});

test('hostile words give one line, exit code 2 and nothing written', () => {
  const out = join(folder, 'never');
  for (const more of [
    ['--profile', '../../x'],
    ['--format', 'glb,'],
    ['--format', 'glb;rm'],
    ['--colourway', '$(x)'],
    ['--option', 'mesh.merge=__proto__'],
    ['--option', '__proto__=1'],
    ['--option', 'mesh.constructor=1'],
    ['--option', 'collider.tolerance=NaN'],
    ['--option', 'mesh.watertight=yes', '--option', 'mesh.dropHidden=yes'],
    ['--part', 'x'.repeat(5000)],
  ]) {
    const done = run('export', demo, ...more, '--out', out);
    expect(done.status, more.join(' ').slice(0, 80)).toBe(2);
    expect(done.stderr.trim().split('\n')).toHaveLength(1);
    expect(existsSync(out)).toBe(false);
  }
});

test('pictures become a project file: the same as in the interface, the same bytes twice, and what is wrong is one line', () => {
  const folder = mkdtempSync(join(tmpdir(), 'bring-'));
  const [w, h] = [24, 16];
  const bytes = (at: (x: number, y: number) => readonly [number, number, number]): Buffer =>
    Buffer.from(
      encode({
        width: w,
        height: h,
        data: Uint8Array.from(
          { length: w * h * 3 },
          (_, k) => at(Math.floor(k / 3) % w, Math.floor(k / 3 / w))[k % 3]!,
        ),
        channels: 3,
        depth: 8,
      }),
    );
  // Two panels apart, one twice as high as the other, and their colours.
  const panel = (x: number, y: number): number =>
    y < 2 || y > 13 ? 0 : x > 1 && x < 10 ? 255 : x > 13 && x < 22 ? 128 : 0;
  const [heights, colours] = [join(folder, 'sluice-heights.png'), join(folder, 'sluice-colours.png')];
  writeFileSync(
    heights,
    bytes((x, y) => [panel(x, y), panel(x, y), panel(x, y)]),
  );
  writeFileSync(
    colours,
    bytes((x) => (x < 12 ? [160, 70, 30] : [40, 110, 100])),
  );
  const out = join(folder, 'sluice.sphal');
  const words = ['bring', heights, colours, '--as', 'height', '--out', out, '--json'];
  const options = ['split=pieces', 'base=2', 'height=10'].flatMap((o) => ['--option', o]);
  const made = run(...words, ...options);
  expect(made.status).toBe(0);
  const told = JSON.parse(made.stdout) as { parts: { name: string; size: number[]; cubes: number }[] };
  expect(told.parts.map((p) => [p.name, p.size, p.cubes])).toEqual([
    ['sluice 1', [8, 12, 12], 8 * 12 * 12],
    ['sluice 2', [8, 7, 12], 8 * 7 * 12],
  ]);
  const first = readFileSync(out);
  expect(run(...words, ...options).status).toBe(0);
  expect(readFileSync(out).equals(first)).toBe(true);
  for (const bad of [
    ['bring', join(folder, 'none.png'), '--as', 'picture', '--out', join(folder, 'x.sphal')],
    ['bring', heights, '--as', 'carpet', '--out', join(folder, 'x.sphal')],
    ['bring', heights, '--as', 'picture', '--option', 'most=1', '--out', join(folder, 'x.sphal')],
    ['bring', out, '--as', 'picture', '--out', join(folder, 'x.sphal')],
  ]) {
    const { status, stderr } = run(...bad);
    expect(status, bad.join(' ')).toBe(2);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  }
  expect(existsSync(join(folder, 'x.sphal'))).toBe(false);
});

test('meshes, slices and what is made up become project files: cube for cube where they were cubes', () => {
  const folder = mkdtempSync(join(tmpdir(), 'bring-'));
  const lamp = join(import.meta.dirname, '../app/public/content/lamp-post.sphal');
  const cubesOf = (file: string): number => (JSON.parse(run('info', file, '--json').stdout) as { cubes: number }).cubes;
  const bring = (as: string, files: string[], ...more: string[]) => {
    const out = join(folder, `${as}.sphal`);
    const made = run('bring', ...files, '--as', as, '--out', out, '--json', ...more);
    expect(made.stderr).not.toContain('Error');
    expect(made.status, made.stderr).toBe(0);
    const first = readFileSync(out);
    run('bring', ...files, '--as', as, '--out', out, '--json', ...more);
    expect(readFileSync(out).equals(first)).toBe(true);
    return JSON.parse(made.stdout) as { parts: { name: string; size: number[]; cubes: number }[]; cubes: number };
  };
  for (const format of ['glb', 'slices'])
    expect(run('export', lamp, '--format', format, '--out', join(folder, format)).status).toBe(0);
  const files = (of: string): string[] => readdirSync(join(folder, of)).map((f) => join(folder, of, f));
  expect(bring('mesh', files('glb')).cubes).toBe(cubesOf(lamp));
  const stack = bring('slices', files('slices'));
  expect([stack.parts.length, stack.cubes]).toEqual([1, cubesOf(lamp)]);
  const rock = bring('rock', [], '--option', 'seed=7', '--option', 'width=12');
  expect(rock.parts[0]!.size[0]).toBeLessThanOrEqual(12);
  const bad = run('bring', files('glb')[0]!, '--as', 'rock', '--out', join(folder, 'x.sphal'));
  expect([bad.status, bad.stderr.trim()]).toEqual([2, expect.stringContaining('takes no file')]);
});
