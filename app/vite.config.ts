import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

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
];

export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue()],
  worker: { format: 'es' },
  server: { host: '127.0.0.1', headers: isolation },
  preview: { host: '127.0.0.1', headers: isolation },
  build: {
    target: 'es2023',
    sourcemap: false,
    chunkSizeWarningLimit: 1200,
    // Icons of the first screens come in one piece: alone, each costs more around it than in it.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [{ name: 'icons', test: new RegExp(`icons-vue.*/(?:${FIRST_ICONS.join('|')})\\.mjs$`) }],
        },
      },
    },
  },
});
