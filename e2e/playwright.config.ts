import { execFileSync } from 'node:child_process';
import { defineConfig } from '@playwright/test';
import { CHROMIUM, CHROMIUM_ARGS, profileOf } from './launch';

// A free port for each run, chosen once and handed on to the workers, so that nothing left over can be in the way.
const free =
  "const s = require('net').createServer().listen(0, '127.0.0.1', () => { console.log(s.address().port); s.close(); })";
const PORT = Number(
  (process.env['E2E_PORT'] ??= execFileSync(process.execPath, ['-e', free], { encoding: 'utf8' }).trim()),
);

export default defineConfig({
  testDir: '.',
  globalSetup: './profile.ts',
  // A test waits for one thing after another: two side by side take two thirds of the time on two cores.
  workers: 2,
  // Without a graphics card a busy machine may be five times slower than an idle one; time is no verdict here.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  retries: process.env['CI'] ? 1 : 0,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    deviceScaleFactor: 1,
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: { executablePath: CHROMIUM, args: CHROMIUM_ARGS },
    // What a test sees comes from the server; what is kept for use without it has a test of its own.
    serviceWorkers: 'block',
    storageState: profileOf(`http://127.0.0.1:${PORT}`),
    acceptDownloads: true,
    actionTimeout: 45_000,
    navigationTimeout: 60_000,
    // Recording every step costs as much as the step.
    trace: 'on-first-retry',
  },
  webServer: {
    command: `node ../server/dist/main.js --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}`,
    reuseExistingServer: false,
  },
});
