import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,app,content,cli,server}/src/**/*.test.ts'],
    environment: 'node',
    pool: 'threads',
    setupFiles: ['scripts/seed-properties.ts'],
  },
});
