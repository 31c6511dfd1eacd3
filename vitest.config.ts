import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
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
    projects: [
      // Files share what they load, which halves the time: what they test keeps nothing from one use to the next.
      {
        extends: true,
        test: {
          name: 'shared',
          include: ['{core,app,content,cli,server}/src/**/*.test.ts'],
          exclude: ['app/src/storage/**'],
          isolate: false,
        },
      },
      // But for the browser's database, which is one for all of a file.
      { extends: true, test: { name: 'storage', include: ['app/src/storage/**/*.test.ts'] } },
    ],
  },
});
