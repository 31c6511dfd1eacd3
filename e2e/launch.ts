/** How Debian's Chromium draws WebGL 2 without a graphics card or a monitor. */
export const CHROMIUM = '/usr/bin/chromium';
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-quic',
  '--no-first-run',
  '--force-color-profile=srgb',
];
