import { describe, expect, it } from 'vitest';
import { type Project, composite, must, pivotPoint } from '../model';
import { fromAbove } from './from-above';
import type { Importer } from './importer';
import { IMPORTERS } from './importers/list';
import { QUIET_JOB } from './job';
import type { ImportJob } from './importer';

const way = (id: string): Importer => IMPORTERS.find((i) => i.id === id)!;
async function made(
  id: string,
  wishes: object,
  files: readonly (readonly [string, Uint8Array<ArrayBuffer>])[] = [],
): Promise<Project> {
  const { options, inspect, run } = way(id);
  const [find] = inspect(files.map(([name, bytes]) => ({ name, bytes })));
  const { brought } = await run(find!, options.parse(wishes), QUIET_JOB as ImportJob, null);
  if (brought.kind !== 'parts') throw new Error('no parts');
  return brought.project;
}
/** The top of each column and its colour, the far left column first. */
function columns(p: Project): string[] {
  const top = new Map<string, [number, string]>();
  let [left, far] = [Infinity, Infinity];
  for (const m of p.rig.mounts) {
    const part = must(p.parts, m.part, 'part'),
      pivot = pivotPoint(part);
    composite(part).forEach((x, y, z, byte) => {
      const [wx, wy, wz] = [x + m.t[0] - pivot[0], y + m.t[1] - pivot[1], z + m.t[2] - pivot[2]] as const;
      [left, far] = [Math.min(left, wx), Math.min(far, wz)];
      if ((top.get(`${wx} ${wz}`)?.[0] ?? -1) < wy)
        top.set(`${wx} ${wz}`, [wy, p.palettes[0]!.swatches.find((s) => s.byte === byte)!.colour]);
    });
  }
  return [...top]
    .map(([at, [y, colour]]) => {
      const [x, z] = at.split(' ').map(Number) as [number, number];
      return `${z - far} ${x - left}: ${y} ${colour}`;
    })
    .sort();
}

describe('what was made up, seen from above', () => {
  it.each(['panels', 'terrain'])('%s: comes back column for column through the form of heights', async (id) => {
    const grown = await made(id, { seed: 5, width: 40, depth: 32 });
    const { heights, colours, high, width } = fromAbove(grown);
    const wishes = { width, height: high, levels: high + 1, base: 0, empty: 0, most: 255 };
    const files = [
      ['P heights.png', heights],
      ['P colours.png', colours],
    ] as const;
    expect(columns(await made('height', wishes, files))).toEqual(columns(grown));
  });
  it('plates that stand apart come as the same number of pieces', async () => {
    const grown = await made('panels', { seed: 3, apart: 2 });
    const { heights, high, width } = fromAbove(grown);
    const again = await made('height', { width, height: high, levels: high + 1, base: 0, split: 'pieces', drop: 0 }, [
      ['P.png', heights],
    ]);
    expect(grown.parts.length).toBeGreaterThan(5);
    expect(again.parts.length).toBe(grown.parts.length);
  });
});
