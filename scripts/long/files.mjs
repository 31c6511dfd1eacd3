// Reads mutated project files, any number of them: cut and flipped bytes, broken values inside the JSON, damaged pictures.
//   node scripts/long/files.mjs --count 20000 --seed 1
import { runUnit } from './unit.mjs';

runUnit('core/src/files/project-file.fuzz.test.ts', 'FUZZ_FILES', '20000');
