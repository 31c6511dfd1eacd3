import {
  type Mat4,
  type Steps,
  type Vec3,
  boxEnd,
  finish,
  invertMat,
  mapVec,
  mulMat,
  transformPoint,
} from '../../math';
import { type Id, type Project, must, withoutHelpers } from '../../model';
import { type Palette, hexBytes } from '../../palette';
import { type DrawInstance, type DrawList, gather } from '../../scene';
import { MAX_EDGE, VoxelGrid } from '../../voxel';
import { FileError } from '../file-error';
import { type Note, note } from '../notes';
import { PlacementTree } from './placement-tree';
import { partAlone } from './rig-model';
import type { Shipped } from './ship-model';
import { PLAIN_PROFILE, type ShipProfile } from './ship-profile';

/** Cubes that make one body, wherever they came from. */
export interface SolidBody {
  readonly name: string;
  readonly grid: VoxelGrid;
  /** Red, green and blue of each byte, 0–255. */
  readonly colours: Uint8Array;
  /** Takes the lattice to the world, in project units. */
  readonly matrix: Mat4;
}
/** What is shipped as cubes and solids: at rest, see-through cubes as solid as others, parts united wherever their cubes meet cubes. */
export interface SolidModel {
  readonly name: string;
  readonly bodies: readonly SolidBody[];
  readonly metresPerUnit: number;
  /** How high it is printed, in millimetres; 0 for its real size. */
  readonly printHeight: number;
  readonly notes: readonly Note[];
}

/** How one lattice lies in another when cubes meet cubes: quarter turns and whole shifts; null when they do not. */
function meets(a: Mat4, b: Mat4): Mat4 | null {
  const rel = mulMat(invertMat(a), b);
  const whole = rel.map(Math.round);
  // Turns are ones and zeros; a shift may be whole or, where a quarter turn goes through half a cube, whole again by the cubes.
  return rel.every((v, i) => Math.abs(v - whole[i]!) < 1e-4) &&
    [0, 1, 2].every((c) => Math.abs(whole[c * 4]!) + Math.abs(whole[c * 4 + 1]!) + Math.abs(whole[c * 4 + 2]!) === 1)
    ? whole
    : null;
}

/** Bytes by colour: bodies of several palettes share a table. */
class Colours {
  readonly table = new Uint8Array(256 * 3);
  private readonly known = new Map<string, number>();

  /** For each byte of a palette that `used` holds the byte here; null when there are more than 255 colours. */
  take(palette: Palette, used: Iterable<number>): Uint8Array | null {
    const out = new Uint8Array(256);
    const fresh: [string, number][] = [];
    for (const byte of used) {
      const colour = palette.swatches.find((s) => s.byte === byte)?.colour ?? '#808080';
      const at = this.known.get(colour) ?? fresh.find(([c]) => c === colour)?.[1] ?? this.known.size + fresh.length + 1;
      if (at > 255) return null;
      if (!this.known.has(colour) && !fresh.some(([c]) => c === colour)) fresh.push([colour, at]);
      out[byte] = at;
    }
    for (const [colour, at] of fresh) {
      this.known.set(colour, at);
      this.table.set(hexBytes(colour), at * 3);
    }
    return out;
  }
}

/** Instances whose cubes meet those of the first. */
interface Group {
  readonly first: DrawInstance;
  readonly all: { readonly grid: VoxelGrid; readonly to: Mat4; readonly bytes: Uint8Array }[];
  readonly colours: Colours;
  lo: Vec3;
  hi: Vec3;
}

const usedBytes = (grid: VoxelGrid): Set<number> => {
  const used = new Set<number>();
  grid.forEach((_x, _y, _z, v) => used.add(v));
  return used;
};

/** Takes an instance into a group; gives whether it fits there. */
function joins(group: Group, { geometry, matrix, palette }: DrawInstance): boolean {
  if (geometry.kind !== 'grid') return false;
  const to = meets(group.first.matrix, matrix);
  const box = geometry.grid.contentBox();
  if (!to || !box) return false;
  const [p, q] = [transformPoint(to, box.min), transformPoint(to, boxEnd(box))];
  const lo = mapVec(group.lo, (v, i) => Math.min(v, p[i]!, q[i]!)),
    hi = mapVec(group.hi, (v, i) => Math.max(v, p[i]!, q[i]!));
  if (hi.some((v, i) => v - lo[i]! > MAX_EDGE)) return false;
  const bytes = group.colours.take(palette, usedBytes(geometry.grid));
  if (!bytes) return false;
  group.all.push({ grid: geometry.grid, to, bytes });
  [group.lo, group.hi] = [lo, hi];
  return true;
}

function bodyOf({ first, all, colours, lo, hi }: Group, name: string): SolidBody {
  const size = mapVec(hi, (v, i) => v - lo[i]!);
  const grid = VoxelGrid.empty({ min: lo, size }).edit((d) => {
    for (const { grid, to, bytes } of all)
      grid.forEach((x, y, z, v) => {
        const [a, b, c] = transformPoint(to, [x + 0.5, y + 0.5, z + 0.5]);
        d.set(Math.floor(a), Math.floor(b), Math.floor(c), bytes[v]!);
      });
  });
  return { name, grid, colours: colours.table, matrix: first.matrix };
}

function listOf(project: Project, what: Shipped): DrawList {
  switch (what.of) {
    case 'rig':
      return gather(project, { of: 'rig' });
    case 'scene':
      return gather(project, { of: 'scene', scene: what.scene });
    case 'group': {
      const placements = must(project.scenes, what.scene, 'scene').placements.flat();
      const tree = new PlacementTree(new Map(placements.map((p) => [p.id, p])));
      return gather(project, { of: 'scene', scene: what.scene }).filter((i) =>
        tree.hangsOn(i.source.path[0]!, what.placement),
      );
    }
    case 'part':
      return [partAlone(project, must(project.parts, what.part, 'part'))];
  }
}

/** The parts that something shows that is shipped; those of other projects among them. */
export const shippedParts = (project: Project, what: Shipped): ReadonlySet<Id> =>
  new Set(listOf(project, what).flatMap((i) => i.source.part ?? []));

/** What is shipped as solids. @throws FileError when there is nothing */
export const solidOf = (
  project: Project,
  what: Shipped,
  profile: Pick<ShipProfile, 'print'> = PLAIN_PROFILE,
): SolidModel => finish(solidSteps(project, what, profile));

/** {@link solidOf} in pieces. */
export function* solidSteps(
  whole: Project,
  what: Shipped,
  { print }: Pick<ShipProfile, 'print'> = PLAIN_PROFILE,
): Steps<SolidModel> {
  const project = withoutHelpers(whole);
  const groups: Group[] = [];
  const list = listOf(project, what);
  for (const [i, instance] of list.entries()) {
    yield (0.5 * i) / list.length;
    if (instance.geometry.kind !== 'grid' || instance.geometry.grid.count === 0) continue;
    if (groups.some((g) => joins(g, instance))) continue;
    const group: Group = {
      first: instance,
      all: [],
      colours: new Colours(),
      lo: [Infinity, Infinity, Infinity],
      hi: [-Infinity, -Infinity, -Infinity],
    };
    if (joins(group, instance)) groups.push(group);
  }
  const name = what.of === 'part' ? must(project.parts, what.part, 'part').name : project.name;
  if (groups.length === 0) throw new FileError('ship.noCubes', { title: name });
  const partName = (g: Group): string => project.parts.find((p) => p.id === g.first.source.part)?.name ?? name;
  const bodies: SolidBody[] = [];
  for (const [i, g] of groups.entries()) {
    bodies.push(bodyOf(g, groups.length === 1 ? name : partName(g)));
    yield 0.5 + (0.5 * i) / groups.length;
  }
  return {
    name,
    bodies,
    metresPerUnit: project.metresPerUnit,
    printHeight: print.height,
    notes: groups.length > 1 ? [note('bodiesApart', '', { n: groups.length })] : [],
  };
}
