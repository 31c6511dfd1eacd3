import { encode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { idsFrom, makeMount, makePart, makeProject, migrateProject, projectToJson } from '../../model';
import { makeSwatch } from '../../palette';
import { VoxelGrid } from '../../voxel';
import { Refusal } from '../../words';
import { type GivenFile, type ImportJob, IMPORTERS, QUIET_JOB, findsIn, runExport } from '..';
import { mutatedFile } from '../mutations';

const FILES = Number(process.env['FUZZ_FILES'] ?? 240);
const FIRST = Number(process.env['FC_SEED'] ?? 20) * 1_000_000;
/** No file takes longer than this, in milliseconds. */
const HANG = 10_000;
/** What this program has worked, in milliseconds, whatever else the machine does. */
const worked = (): number => process.cpuUsage().user / 1000;
const JOB: ImportJob = {
  ...QUIET_JOB,
  pictureSize: () => Promise.resolve({ width: 8, height: 8 }),
};

/** A lamp of two parts on a bone that swings. */
function lamp() {
  const newId = idsFrom('lamp');
  const p = makeProject('lamp', 'Lamp', newId);
  const parts = ['Post', 'Light'].map((name, i) => {
    const bounds = { min: [-1, 0, -1], size: [3, 4, 3] } as const;
    const part = makePart(`p${i}`, newId(), name, 'own', bounds);
    const grid = VoxelGrid.empty(bounds).edit((d) => {
      d.fillBox({ min: [-1, 0, -1], size: [3, 2, 3] }, 1);
      d.set(0, 3, 0, 2);
      d.set(1, 2, 1, 1);
    });
    return { ...part, layers: [{ ...part.layers[0]!, grid }] };
  });
  const rest = { t: [0, 4, 0], q: [0, 0, 0, 1], s: [1, 1, 1] } as const;
  const bone = { id: 'b', name: 'Arm', side: 'centre', parent: null, rest, colour: null, ships: true } as const;
  const key = (time: number, z: number) => ({
    time,
    ease: 'linear' as const,
    value: [0, 0, z, Math.sqrt(1 - z * z)] as const,
  });
  const lane = { bone: 'b', move: [], turn: [key(0, 0), key(600, 0.2), key(1200, 0)], hinge: [], scale: [] };
  const clip = {
    id: 'c',
    name: 'Swing',
    length: 1200,
    fps: 30,
    loop: true,
    ships: true,
    floor: null,
    lanes: [lane],
    swaps: [],
  };
  return {
    ...p,
    palettes: [
      {
        id: 'own',
        name: 'Own',
        swatches: [makeSwatch(1, 'iron', '#334455'), makeSwatch(2, 'flame', '#ffcc55', { emissive: 2 })],
      },
    ],
    parts,
    rig: { ...p.rig, bones: [bone], mounts: [makeMount('m0', 'p0', null), makeMount('m1', 'p1', 'b')] },
    clips: [clip],
  };
}

async function samples(): Promise<Record<string, GivenFile[]>> {
  const write = async (exporter: string, options: object = {}): Promise<GivenFile[]> =>
    (await runExport(lamp(), { exporter, subject: { of: 'rig' }, options }, QUIET_JOB)).files.filter(
      (f) => !f.name.includes('collider'),
    );
  const data = Uint8Array.from({ length: 12 * 9 * 4 }, (_, i) => (i * 37) % 256);
  const png = new Uint8Array(encode({ width: 12, height: 9, data, channels: 4, depth: 8 }));
  return {
    picture: [{ name: 'sign.png', bytes: png }],
    height: [
      { name: 'quay-heights.png', bytes: png },
      { name: 'quay-colours.png', bytes: png },
    ],
    glb: await write('glb'),
    packed: await write('glb', { packing: 'meshopt' }),
    gltf: await write('gltf'),
    obj: await write('obj'),
    ply: await write('ply'),
    points: await write('ply', { points: true }),
    stl: await write('stl'),
    slices: await write('slices'),
    list: [
      {
        name: 'cubes.xyz',
        bytes: new TextEncoder().encode('0 0 0 9 9 9\n1 0 0 200 9 9\n0 1 1 9 200 9\n') as Uint8Array<ArrayBuffer>,
      },
    ],
    palette: await write('palette-json').catch(() => []),
  };
}

/** As little work as the options allow: what is looked for are sentences, not cubes. */
const small: Readonly<Record<string, object>> = {
  mesh: { height: 12 },
  picture: { width: 12 },
  height: { width: 12, height: 4 },
};

describe('spoilt files that come in', () => {
  it(
    `become sound parts or one sentence, by every importer (${FILES} from ${FIRST})`,
    { timeout: 60_000 + FILES * 400 },
    async () => {
      const all = Object.entries(await samples()).filter(([, files]) => files.length > 0);
      const came = new Map<string, number>(),
        sentences = new Set<string>();
      for (let seed = FIRST; seed < FIRST + FILES; seed++) {
        const [, files] = all[seed % all.length]!;
        const which = seed % files.length;
        const given = files.map((f, i) =>
          i === which ? { name: f.name, bytes: mutatedFile(f.name, f.bytes, seed) } : { ...f },
        );
        for (const { find, uses } of findsIn(given, IMPORTERS).found)
          for (const use of uses.filter((u) => u.needs === 'project' && u.id !== 'delivery')) {
            const begun = worked();
            try {
              const { brought } = await use.run(find, use.options.parse(small[use.id] ?? {}), JOB, null);
              if (brought.kind === 'parts')
                expect(() => migrateProject(projectToJson(brought.project)), `${use.id} ${seed}`).not.toThrow();
              came.set(use.id, (came.get(use.id) ?? 0) + 1);
            } catch (e) {
              if (!(e instanceof Refusal))
                throw new Error(`Mutation ${seed} of ${find.title} let out of ${use.id}: ${String(e)}`, { cause: e });
              expect(e.message, `mutation ${seed}`).toMatch(/^[A-Z“"].{15,}\.$/s);
              sentences.add(e.message.replace(/“[^”]*”|\d[\d,.]*/g, '…'));
            }
            expect(worked() - begun, `mutation ${seed} of ${find.title} hangs`).toBeLessThan(HANG);
          }
      }
      // It is no test when nothing gets through, or nothing is refused.
      for (const id of ['mesh', 'picture', 'height', 'slices'])
        expect(came.get(id) ?? 0, id).toBeGreaterThan(FILES / 60);
      expect(sentences.size).toBeGreaterThan(8);
    },
  );
});
