import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { writeProjectFile } from '@sphalerite/core/files';
import { DEMOS, READY_RIGS } from '.';

const folder = fileURLToPath(new URL('../out/', import.meta.url));
mkdirSync(folder, { recursive: true });
for (const [name, build] of Object.entries({ ...DEMOS, ...READY_RIGS })) {
  const bytes = writeProjectFile(build());
  writeFileSync(`${folder}${name}.sphal`, bytes);
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
