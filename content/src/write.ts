import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { writeProjectFile } from '@sphalerite/core/files';
import { DEMOS } from '.';

const folder = fileURLToPath(new URL('../out/', import.meta.url));
mkdirSync(folder, { recursive: true });
for (const [name, build] of Object.entries(DEMOS)) {
  const bytes = writeProjectFile(build());
  writeFileSync(`${folder}${name}.sphal`, bytes);
  console.log(`content/out/${name}.sphal  ${Math.ceil(bytes.length / 1024)} KB`);
}
