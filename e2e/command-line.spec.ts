import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './test';
import { decode } from 'fast-png';
import { validate } from './glb-readers';

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
  ]) {
    const out = run(...args);
    expect(out.status, args.join(' ')).toBe(2);
    expect(out.stderr.trim().split('\n'), out.stderr).toHaveLength(1);
  }
});
