import { FACE_DIRECTIONS, type Vec3, add } from '../../math';
import {
  type Id,
  type Part,
  type Project,
  type Region,
  type Regions,
  type Side,
  composite,
  must,
  replaceRecord,
} from '../../model';
import { type NamedCells, withSides } from '../../sculpt';
import { CellSet, VoxelGrid } from '../../voxel';
import { EditError, defineEdit } from '../edit';
import { checkName } from './names';

const MOST = 64;
const known = new WeakMap<Regions, { seen: VoxelGrid; cells: Map<number, CellSet> }>();

/** The cubes of each region of a part, by its byte; 0 is the rest. Memoised. */
export function cellsByRegion(part: Part): ReadonlyMap<number, CellSet> {
  const seen = composite(part);
  const r = part.regions;
  if (!r) return new Map([[0, CellSet.filled(seen)]]);
  const old = known.get(r);
  if (old?.seen === seen) return old.cells;
  let rest = CellSet.filled(seen);
  const cells = new Map<number, CellSet>();
  for (const { byte } of r.list) {
    const mine = CellSet.ofValue(r.grid, byte).intersect(rest);
    rest = rest.minus(mine);
    cells.set(byte, mine);
  }
  cells.set(0, rest);
  known.set(r, { seen, cells });
  return cells;
}

const changeRegions = (project: Project, id: Id, change: (part: Part) => Regions | null): Project => {
  const part = must(project.parts, id, 'part');
  const regions = change(part);
  return regions === part.regions ? project : { ...project, parts: replaceRecord(project.parts, { ...part, regions }) };
};
const nameOf = (p: Project, id: Id): string => must(p.parts, id, 'part').name;
const listed = (part: Part, byte: number): Region => {
  const region = part.regions?.list.find((r) => r.byte === byte);
  if (!region) throw new EditError('regions.gone', { part: part.name });
  return region;
};

/**
 * Names shares of a part's cubes. Cubes of other regions stay where they are, unless they are `taken`. Those that mirror one
 * another across the plane `half` become a left and a right one.
 */
export const addRegionsEdit = defineEdit<{ part: Id; pieces: readonly NamedCells[]; half: number; taken?: boolean }>({
  name: 'addRegions',
  label: (a, p) =>
    `${a.pieces.length === 1 ? `Piece ${a.pieces[0]!.name}` : `${a.pieces.length} pieces`} in ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run: (project, a, ctx) =>
    changeRegions(project, a.part, (part) => {
      const now = cellsByRegion(part),
        before = part.regions?.list ?? [];
      const all = CellSet.filled(composite(part));
      let open = a.taken ? all : now.get(0)!;
      const fresh: (NamedCells & { byte: number })[] = [];
      // Bytes of regions that are gone are not used again: parts may have been taken from them.
      const used = new Set([
        ...before.map((r) => r.byte),
        ...project.parts.flatMap((p) => (p.origin?.whole === part.id ? [p.origin.region] : [])),
      ]);
      const free = Array.from({ length: 255 }, (_, i) => i + 1).filter((b) => !used.has(b));
      for (const piece of a.pieces) {
        const cells = piece.cells.intersect(open);
        if (cells.isEmpty) continue;
        open = open.minus(cells);
        fresh.push({ ...piece, name: checkName(piece.name), cells, byte: free[fresh.length] ?? 0 });
      }
      if (fresh.length === 0) throw new EditError('regions.taken');
      if (before.length + fresh.length > MOST)
        throw new EditError('regions.tooMany', { count: before.length + fresh.length, most: MOST });
      const grid = (part.regions?.grid ?? VoxelGrid.empty(part.bounds)).edit((d) =>
        fresh.forEach((p) => d.fillSet(p.cells, p.byte)),
      );
      const both = withSides(
        [...before.map((r) => ({ ...r, cells: now.get(r.byte)! })).filter((r) => !r.cells.isEmpty), ...fresh],
        a.half,
      );
      const list = [
        ...before.map((r) => both.find((b) => b.byte === r.byte) ?? r),
        ...both.filter((b) => fresh.some((f) => f.byte === b.byte)),
      ];
      return {
        id: part.regions?.id ?? ctx.newId(),
        list: list.map(({ byte, name, side }) => ({ byte, name, side })),
        grid,
      };
    }),
});

/** The cubes of two regions change places, 0 being the rest; names and sides stay. */
export const swapRegionsEdit = defineEdit<{ part: Id; region: number; other: number }>({
  name: 'swapRegions',
  label: (a, p) => `Swap the halves in ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changeRegions(project, a.part, (part) => {
      for (const byte of [a.region, a.other]) if (byte !== 0) listed(part, byte);
      const now = cellsByRegion(part);
      return {
        ...part.regions!,
        grid: part.regions!.grid.edit((d) => {
          d.fillSet(now.get(a.region)!, a.other);
          d.fillSet(now.get(a.other)!, a.region);
        }),
      };
    }),
});

/** Cells that go to a region, 0 for the rest; with `other`, each goes to the region beside the one that has it. */
export interface RegionShare {
  readonly cells: CellSet;
  readonly region: number | 'other';
}

/** Gives cells to regions. What one side of a cut loses, the other side gains: a cube is always on exactly one. */
export const assignRegionEdit = defineEdit<{ part: Id; shares: readonly RegionShare[] }>({
  name: 'assignRegion',
  label: (a, p) => {
    const part = must(p.parts, a.part, 'part');
    const to = a.shares[0]?.region ?? 0;
    return to === 'other'
      ? `Cubes to the piece beside, in ${part.name}`
      : `Cubes to ${to === 0 ? 'the rest' : listed(part, to).name} of ${part.name}`;
  },
  touches: (a) => [a.part],
  run: (project, a) =>
    changeRegions(project, a.part, (part) => {
      const r = part.regions;
      if (!r) return r;
      const seen = composite(part),
        filled = CellSet.filled(seen);
      for (const { region } of a.shares) if (typeof region === 'number' && region !== 0) listed(part, region);
      const grid = a.shares.reduce(
        (before, share) =>
          before.edit((d) => {
            const cells = share.cells.intersect(filled);
            if (share.region !== 'other') return d.fillSet(cells, share.region);
            const to: [Vec3, number][] = [];
            cells.forEach((x, y, z) => {
              const mine = before.get(x, y, z),
                votes = new Map<number, number>();
              for (const s of FACE_DIRECTIONS) {
                const n = add([x, y, z], s);
                if (seen.get(...n) === 0 || cells.has(...n)) continue;
                const v = before.get(...n);
                if (v !== mine) votes.set(v, (votes.get(v) ?? 0) + 1);
              }
              const best = [...votes].sort((p, q) => q[1] - p[1] || p[0] - q[0])[0];
              to.push([[x, y, z], best ? best[0] : 0]);
            });
            for (const [c, v] of to) d.set(...c, v);
          }),
        r.grid,
      );
      return grid === r.grid ? r : { ...r, grid };
    }),
});

/** Another name or side. A pair has one name: whoever renames one means both. */
export const changeRegionEdit = defineEdit<{ part: Id; region: number; name?: string; side?: Side }>({
  name: 'changeRegion',
  label: (a, p) =>
    `Piece ${a.name ?? listed(must(p.parts, a.part, 'part'), a.region).name}${a.side && a.side !== 'centre' ? ` ${a.side}` : ''}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changeRegions(project, a.part, (part) => {
      const region = listed(part, a.region),
        r = part.regions!;
      const name = a.name === undefined ? region.name : checkName(a.name),
        side = a.side ?? region.side;
      if (name === region.name && side === region.side) return r;
      return {
        ...r,
        list: r.list.map((o) =>
          o === region
            ? { ...o, name, side }
            : a.name !== undefined &&
                o.name === region.name &&
                o.side !== 'centre' &&
                region.side !== 'centre' &&
                o.side !== region.side
              ? { ...o, name }
              : o,
        ),
      };
    }),
});

/** Gives the cubes of a region back to the rest. */
export const dropRegionEdit = defineEdit<{ part: Id; region: number }>({
  name: 'dropRegion',
  label: (a, p) => `No piece ${listed(must(p.parts, a.part, 'part'), a.region).name}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changeRegions(project, a.part, (part) => {
      listed(part, a.region);
      const r = part.regions!;
      const list = r.list.filter((o) => o.byte !== a.region);
      return list.length === 0
        ? null
        : { ...r, list, grid: r.grid.edit((d) => d.fillSet(CellSet.ofValue(r.grid, a.region), 0)) };
    }),
});
