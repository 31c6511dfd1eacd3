// Runs the state-machine test of storage with many seeds: edits, undo, saves, sweeps, failures, reloads, take-overs.
//   node scripts/long/storage.mjs --count 3000 --seed 1
import { runUnit } from './unit.mjs';

runUnit('app/src/storage/storage-machine.test.ts', 'STORAGE_RUNS', '3000');
