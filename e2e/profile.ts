import { chromium, type FullConfig } from '@playwright/test';
import { Bench } from './bench';
import { CHROMIUM, CHROMIUM_ARGS, profileOf } from './launch';

/** Before all tests: one first visit with the coach put away, kept for every test to begin from. */
export default async function makeProfile(config: FullConfig): Promise<void> {
  const { baseURL, viewport } = config.projects[0]!.use;
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_ARGS });
  const context = await browser.newContext({ baseURL: baseURL!, viewport: viewport!, reducedMotion: 'reduce' });
  const bench = new Bench(await context.newPage());
  await bench.firstVisit();
  await bench.drawQuick();
  await context.storageState({ path: profileOf(baseURL!), indexedDB: true });
  await browser.close();
}
