// Builds the Node programs, writes the demo projects, then builds the application around them.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { rolldown } from 'rolldown';

const only = process.argv[2];
const nodePrograms = [
  ['cli/src/main.ts', 'cli/dist/main.js'],
  ['content/src/write.ts', 'content/dist/write.js'],
  ['server/src/main.ts', 'server/dist/main.js'],
  ['benchmarks/src/main.ts', 'benchmarks/dist/main.js'],
];
for (const [input, file] of nodePrograms) {
  // What stays outside the bundle is installed beside it; our own packages and those that ship no plain ESM go in.
  const bundle = await rolldown({
    input,
    platform: 'node',
    resolve: { mainFields: ['module', 'main'] },
    external: [/^fake-indexeddb/, /^express$/, /^helmet$/, /^three/, /^commander$/],
    logLevel: 'warn',
  });
  await bundle.write({ file, format: 'esm', sourcemap: false, codeSplitting: false });
  await bundle.close();
}
execFileSync(process.execPath, ['content/dist/write.js'], { stdio: 'inherit' });
rmSync('app/public/content', { recursive: true, force: true });
mkdirSync('app/public/content', { recursive: true });
cpSync('content/out', 'app/public/content', { recursive: true });
if (only !== 'node') {
  execFileSync(process.execPath, ['node_modules/vite/bin/vite.js', 'build', 'app', '--logLevel', 'error'], {
    stdio: 'inherit',
  });
  await buildServiceWorker('app/dist');
}

/** The service worker knows every built file and its version: a build that differs in anything is a newer one. */
async function buildServiceWorker(folder) {
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile() && !f.name.endsWith('.woff')) // fonts as older browsers want them
    .map((f) => `${f.parentPath}/${f.name}`.slice(folder.length))
    .sort()
    .map((url) => ({
      url,
      // A file whose name carries its version needs no second.
      revision: url.startsWith('/assets/')
        ? null
        : createHash('sha256')
            .update(readFileSync(folder + url))
            .digest('hex')
            .slice(0, 16),
    }));
  const bundle = await rolldown({
    input: 'app/src/shell/offline/service-worker.ts',
    transform: { define: { BUILT_FILES: JSON.stringify(files), 'process.env.NODE_ENV': '"production"' } },
  });
  await bundle.write({ file: `${folder}/service-worker.js`, format: 'iife', minify: true });
  await bundle.close();
}
