// Draws every demo clip as an animated picture into docs/clips (or a folder that is named).
import { execFileSync } from 'node:child_process';
import { rolldown } from 'rolldown';

const bundle = await rolldown({ input: 'content/src/clip-pictures.ts', platform: 'node', logLevel: 'warn' });
await bundle.write({ file: 'content/dist/clip-pictures.js', format: 'esm', codeSplitting: false });
await bundle.close();
execFileSync(process.execPath, ['content/dist/clip-pictures.js', ...process.argv.slice(2)], { stdio: 'inherit' });
