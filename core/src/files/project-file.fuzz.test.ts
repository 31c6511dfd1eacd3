import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type Project, migrateProject, projectToJson } from '../model';
import { FileError, readProjectFile, writeProjectFile } from '.';
import { mutatedProjectFile } from './mutations';

const FILES = Number(process.env['FUZZ_FILES'] ?? 240);
const FIRST = Number(process.env['FC_SEED'] ?? 20) * 1_000_000;
/** No file takes longer than this, in milliseconds: a thousand times what a whole one takes. */
const HANG = 10_000;
/** What this program has worked, in milliseconds, whatever else the machine does. */
const worked = (): number => process.cpuUsage().user / 1000;

/** Whether a project is one that the rest of the program may be given. */
function expectSound(p: Project, seed: number): void {
  expect(() => migrateProject(projectToJson(p)), `mutation ${seed}`).not.toThrow();
  for (const part of [...p.parts, ...p.stamps])
    for (const { grid } of [...part.layers, ...(part.regions ? [part.regions] : [])])
      expect(grid.bounds, `mutation ${seed}`).toEqual(part.bounds);
  const again = readProjectFile(writeProjectFile(p)).result;
  expect(projectToJson(again), `mutation ${seed}`).toEqual(projectToJson(p));
}

describe('mutated project files', () => {
  const whole = new Uint8Array(readFileSync(new URL('../../../cli/fixtures/tamsin-format-5.sphal', import.meta.url)));
  // Of today's format too, so that no migration stands before what is looked at.
  const file = writeProjectFile(readProjectFile(whole).result);

  it(
    `give a sound project or one sentence, never anything else (${FILES} from ${FIRST})`,
    { timeout: 60_000 + FILES * 400 },
    () => {
      const sentences = new Map<string, number>();
      let read = 0;
      for (let seed = FIRST; seed < FIRST + FILES; seed++) {
        const bytes = mutatedProjectFile(seed % 3 === 0 ? whole : file, seed);
        const begun = worked();
        try {
          expectSound(readProjectFile(bytes).result, seed);
          read++;
        } catch (e) {
          if (!(e instanceof FileError)) throw new Error(`Mutation ${seed} let out: ${String(e)}`, { cause: e });
          expect(e.message, `mutation ${seed}`).toMatch(/^[A-Z“"].{20,}\.$/s);
          const kind = e.message.replace(/"[^"]*"|“[^”]*”|\d[\d,.]*|at .*:/g, '…');
          sentences.set(kind, (sentences.get(kind) ?? 0) + 1);
        }
        expect(worked() - begun, `mutation ${seed} hangs`).toBeLessThan(HANG);
      }
      // It is no test when nothing gets past the ZIP, or nothing is found wrong inside.
      expect(read).toBeGreaterThan(FILES / 50);
      const inside = [...sentences]
        .filter(([s]) => /damaged|incomplete|picture/i.test(s))
        .reduce((n, [, k]) => n + k, 0);
      expect(inside).toBeGreaterThan(FILES / 4);
      expect(sentences.size).toBeGreaterThan(8);
    },
  );
});
