import { spawnSync } from 'node:child_process';
import { parseArgs } from 'node:util';

/** Runs one unit test for long: its count goes to it by the environment, and the seed to whatever is random in it. */
export function runUnit(file, counter, count) {
  const { values } = parseArgs({
    options: { count: { type: 'string', default: count }, seed: { type: 'string', default: '1' } },
  });
  const env = { ...process.env, [counter]: values.count, FC_SEED: values.seed };
  const begun = Date.now();
  const { status } = spawnSync('npx', ['vitest', 'run', file], { env, stdio: 'inherit' });
  const minutes = ((Date.now() - begun) / 60_000).toFixed(1);
  console.log(`${file}: ${values.count}, seed ${values.seed}, ${minutes} min, ${status === 0 ? 'green' : 'FAILED'}.`);
  process.exitCode = status ?? 1;
}
