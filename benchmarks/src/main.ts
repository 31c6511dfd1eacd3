import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { writeProjectFile } from '@sphalerite/core/files';
import { manyCubes, manyPlacements } from './large-scenes';
import { servesLane } from './lanes';
import { ROWS, type Row } from './rows';

async function main(): Promise<void> {
  const { values } = parseArgs({
    options: { json: { type: 'boolean', default: false }, only: { type: 'string' }, scenes: { type: 'string' } },
  });
  // The large scenes as project files, for tests of the interface.
  if (values.scenes !== undefined) {
    writeFileSync(join(values.scenes, 'market.sphal'), writeProjectFile(manyPlacements()));
    writeFileSync(join(values.scenes, 'hills.sphal'), writeProjectFile(manyCubes()));
    return;
  }
  if (values.only !== undefined && !(values.only in ROWS)) {
    console.error(`There is no benchmark "${values.only}". There are: ${Object.keys(ROWS).join(', ')}.`);
    process.exit(2);
  }
  const rows: Row[] = [];
  for (const [name, make] of Object.entries(ROWS))
    if (values.only === undefined || values.only === name) rows.push(...(await make()));
  if (values.json) console.log(JSON.stringify(rows, null, 2));
  else {
    console.log('work | ours | compared with | ratio | goal');
    for (const r of rows)
      console.log(`${r.name} | ${r.ours} | ${r.theirs} | ${r.ratio.toFixed(2)} | ${r.goal} ${r.ok ? '✓' : '✗'}`);
  }
}

if (!servesLane()) await main();
