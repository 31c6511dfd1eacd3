import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

/** Lets SharedArrayBuffer and precise clocks work, in development as behind our own server. */
const isolation = { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' };

export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue()],
  worker: { format: 'es' },
  server: { host: '127.0.0.1', headers: isolation },
  preview: { host: '127.0.0.1', headers: isolation },
  build: { target: 'es2023', sourcemap: false, chunkSizeWarningLimit: 1200 },
});
