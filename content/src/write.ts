import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { encodePng, writeProjectFile } from '@sphalerite/core/files';
import { projectThumbnail } from '@sphalerite/core/render';
import { DEMOS, READY_RIGS, SHELVES } from '.';

/** Pixels of a picture that comes along, so that it need not be drawn at the first visit. */
const PICTURE = 340;
const folder = fileURLToPath(new URL('../out/', import.meta.url));
mkdirSync(folder, { recursive: true });
for (const [name, build] of Object.entries({ ...DEMOS, ...READY_RIGS, ...SHELVES })) {
  const project = build();
  const bytes = writeProjectFile(project);
  writeFileSync(`${folder}${name}.sphal`, bytes);
  if (name in DEMOS)
    writeFileSync(`${folder}${name}.png`, encodePng(PICTURE, PICTURE, projectThumbnail(project, PICTURE)));
  console.log(`content/out/${name}.sphal  ${Math.ceil(bytes.length / 1024)} KB`);
}
// What there is to begin from, for the application.
const ready = Object.entries(READY_RIGS).map(([file, build]) => {
  const p = build();
  return {
    file: `${file}.sphal`,
    name: p.name,
    kind: p.kind,
    bones: p.rig.bones.length,
    parts: p.parts.length,
    clips: p.clips.map((c) => c.name),
  };
});
writeFileSync(`${folder}ready.json`, JSON.stringify(ready, null, 1));
