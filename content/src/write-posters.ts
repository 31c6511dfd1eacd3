import { mkdirSync, writeFileSync } from 'node:fs';
import { writeProjectFile } from '@sphalerite/core/files';
import { MOVING, POSTERS } from './posters';

/** Writes the projects of the posters that are named, or of all, into a folder. */
const [folder = 'content/dist/posters', ...names] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
for (const [name, build] of Object.entries({ ...POSTERS, ...MOVING }))
  if (names.length === 0 || names.includes(name)) writeFileSync(`${folder}/${name}.sphal`, writeProjectFile(build()));
