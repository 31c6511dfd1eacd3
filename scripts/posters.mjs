// Traces the posters into docs/pictures: node scripts/posters.mjs [--size 480x270] [--samples 8] [--out folder] [names]
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import jpeg from 'jpeg-js';
import { rolldown } from 'rolldown';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { size: { type: 'string' }, samples: { type: 'string' }, out: { type: 'string', default: 'docs/pictures' } },
});
/** A poster is no larger than this. */
const MOST_BYTES = 500 * 1024;
/** Packs a picture more tightly until it is small enough. */
function fit(file) {
  for (let quality = 88; statSync(file).size > MOST_BYTES && quality > 60; quality -= 4)
    writeFileSync(file, jpeg.encode(jpeg.decode(readFileSync(file)), quality).data);
}

/** What becomes of those that move. */
const MOVING = { 'tamsin-walks': ['png', '--sprites'], 'tamsin-turns': ['gif', '--turntable'] };
const projects = 'content/dist/posters';
const bundle = await rolldown({ input: 'content/src/write-posters.ts', platform: 'node', logLevel: 'warn' });
await bundle.write({ file: 'content/dist/write-posters.js', format: 'esm', codeSplitting: false });
await bundle.close();
execFileSync(process.execPath, ['content/dist/write-posters.js', projects, ...positionals], { stdio: 'inherit' });
mkdirSync(values.out, { recursive: true });
const wishes = ['size', 'samples'].flatMap((k) => (values[k] ? [`--${k}`, values[k]] : []));
for (const file of readdirSync(projects)) {
  const name = file.replace('.sphal', '');
  if (positionals.length > 0 && !positionals.includes(name)) continue;
  const [ending, ...how] = MOVING[name] ?? ['jpg'];
  const out = `${values.out}/${name}.${ending}`;
  execFileSync(
    process.execPath,
    ['cli/dist/main.js', 'render', `${projects}/${file}`, '--denoise', ...how, ...wishes, '--out', out],
    { stdio: 'inherit' },
  );
  if (ending === 'jpg') fit(out);
  console.log(`${out}  ${Math.ceil(statSync(out).size / 1024)} KB`);
}
