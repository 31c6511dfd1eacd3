import vue from '@vitejs/plugin-vue';
import { type Plugin, defineConfig } from 'vite';

/** Lets SharedArrayBuffer and precise clocks work, in development as behind our own server. */
const isolation = { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' };

/** Icons that the shelf and Build share with other screens. */
const FIRST_ICONS = [
  'IconX',
  'IconArrowBackUp',
  'IconPencil',
  'IconCheck',
  'IconUsers',
  'IconBrush',
  'IconPlus',
  'IconCopy',
  'IconRotate2',
  'IconTrash',
  'IconDownload',
  'IconAlertTriangle',
  'IconArrowsMaximize',
  'IconChevronDown',
  'IconDots',
  'IconLock',
  'IconRefresh',
  'IconSelectAll',
  'IconTarget',
];

/** Controls of the job line, the bench and the notices. */
const FIRST_CONTROLS = [
  'hooks/use-(?:aria|common-props|empty-values|namespace|prop|size|id)',
  'components/(?:alert|button|checkbox|form|icon|input|segmented|splitter)',
];

/**
 * Buttons of Element Plus carry a colour library for colours that are given to them one by one; ours have theirs from the tokens,
 * so the first load goes without it.
 */
const plainButtons: Plugin = {
  name: 'plain-buttons',
  enforce: 'pre',
  resolveId: (source, importer) =>
    source === '@ctrl/tinycolor' && importer?.includes('/components/button/') ? '\0no-colours' : null,
  load: (id) => (id === '\0no-colours' ? 'export class TinyColor {}' : null),
};

/** Shaders without remarks and indents, as the package's own build has them. */
const bareShaders: Plugin = {
  name: 'bare-shaders',
  transform: (code, id) =>
    /three\/src\/.*\.glsl\.js$/.test(id)
      ? code.replaceAll(
          /\/\* glsl \*\/`([^`]*)`/g,
          (_, text: string) =>
            `\`${text
              .trim()
              .replaceAll(/[ \t]*\/\/.*\n/g, '')
              .replaceAll(/[ \t]*\/\*[^]*?\*\//g, '')
              .replaceAll(/\n{2,}/g, '\n')
              .replaceAll(/^[ \t]+/gm, '')}\``,
        )
      : null,
};

export default defineConfig({
  root: import.meta.dirname,
  plugins: [plainButtons, bareShaders, vue()],
  // The build for the browsers of today, which is smaller than the one its package names first.
  resolve: {
    alias: [
      { find: /^dexie$/, replacement: 'dexie/dist/modern/dexie.mjs' },
      // By its modules instead of as one, so that what only a later screen needs comes with that screen.
      { find: /^three$/, replacement: 'three/src/Three.js' },
    ],
  },
  worker: {
    format: 'es',
    // Told apart from what the page itself waits for.
    rolldownOptions: { output: { chunkFileNames: 'assets/worker-[name]-[hash].js' } },
  },
  server: { host: '127.0.0.1', headers: isolation },
  preview: { host: '127.0.0.1', headers: isolation },
  build: {
    target: 'es2023',
    sourcemap: false,
    chunkSizeWarningLimit: 1200,
    // What the first screens need in small pieces comes in one: alone, each costs more around it than in it.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'icons', test: new RegExp(`icons-vue.*/(?:${FIRST_ICONS.join('|')})\\.mjs$`) },
            { name: 'controls', test: new RegExp(`element-plus/es/(?:${FIRST_CONTROLS.join('|')})/`) },
          ],
        },
      },
    },
  },
});
