import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,app,content,cli,server}/src/**/*.test.ts'],
    environment: 'node',
    pool: 'threads',
    // As many as the machine has; the default leaves one core idle.
    maxWorkers: availableParallelism(),
    // A busy machine may be several times slower than an idle one; time is no verdict here.
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // Its files name each other without endings, which bundlers take and Node does not.
    server: { deps: { inline: ['quickhull3d'] } },
    setupFiles: ['scripts/seed-properties.ts'],
  },
});
