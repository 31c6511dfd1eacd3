// Kills the browser in the middle of work, any number of rounds, on a machine as busy as wanted; goes on where it was left.
//   node scripts/long/kill.mjs --rounds 200 --seed 1 [--load 2] [--folder DIR] [--port 4471]
// Needs a build. Prints a line a round and a summary; results belong in docs/long-runs.md.
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { parseArgs } from 'node:util';

const { values } = parseArgs({
  options: {
    rounds: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    load: { type: 'string', default: '0' },
    folder: { type: 'string' },
    // A browser keeps what it stores by address, so rounds that go on another day need the same one.
    port: { type: 'string', default: '4471' },
  },
});
const folder = values.folder ?? join(tmpdir(), `sphalerite-kill-${values.seed}-${values.load}`);
mkdirSync(folder, { recursive: true });
// Whoever keeps the machine busy does nothing but count.
const busy = Array.from({ length: Number(values.load) }, () =>
  spawn(process.execPath, ['-e', 'for (;;) Math.random()']),
);
const test = spawn('npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts', 'safety', '-g', 'killed'], {
  env: {
    ...process.env,
    E2E_PORT: values.port,
    KILL_FOLDER: folder,
    KILL_ROUNDS: values.rounds,
    KILL_SEED: values.seed,
  },
  stdio: ['ignore', 'pipe', 'inherit'],
});
const rounds = [];
createInterface(test.stdout).on('line', (line) => {
  console.log(line);
  if (line.startsWith('{')) rounds.push(JSON.parse(line));
});
test.on('exit', (code) => {
  for (const b of busy) b.kill();
  const ages = rounds.map((r) => r.age).sort((a, b) => a - b);
  const made = rounds.reduce((n, r) => n + r.made, 0);
  const lost = rounds.filter((r) => r.lost > 0).length;
  console.log(
    `${rounds.length} rounds, seed ${values.seed}, ${values.load} busy processes beside it: ${made} changes made; ` +
      `${lost} rounds lost something, the oldest of it ${ages.at(-1) ?? 0} ms old (median ${ages[ages.length >> 1] ?? 0} ms).`,
  );
  process.exitCode = code ?? 1;
});
