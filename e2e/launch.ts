import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Debian's Chromium, without what its own windows need. */
export const CHROMIUM = join(import.meta.dirname, 'chromium.sh');
/** How it draws WebGL 2 without a graphics card or a monitor. */
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  // Without a graphics card the page itself is put together quicker by the processor than by a card that is played.
  '--disable-gpu-compositing',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-quic',
  '--no-first-run',
  '--force-color-profile=srgb',
];

/** Where the profile lies that the tests of a run begin from, by the address that they visit. */
export const profileOf = (baseURL: string): string =>
  join(tmpdir(), `sphalerite-profile-${new URL(baseURL).port}.json`);
