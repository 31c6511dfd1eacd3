import * as z from 'zod';
import type { MeshScene, Pixels } from '../../codec';
import type { Box, Mat4, Steps, Transform, Vec3 } from '../../math';
import { MAX_SWATCHES, type Palette, type Swatch } from '../../palette';
import { type Space, VoxelGrid, spaceOf } from '../../voxel';
import { IntakeError, MOST_CUBES } from '../picture';
import { crossed } from './crossed';
import { meetings } from './columns';
import { type CubeNode, cubeNodes, cubesSteps } from './exact';
import { insideSteps, isTooMuch } from './inside';
import { Looks } from './looks';
import { type Sightings, seen, shownOf } from './paint';
import { type Extents, type Placed, type Scaling, extentsOf, onLattice, placedTriangles, scalingOf } from './placing';
import { nodeWorlds, standingScene } from './scene-frame';
import { turnedOutward } from './sides';
import { type Soup, soupOf } from './soup';
import { spread } from './spread';
import { matchedTo, swatchesOf } from './swatches';

const about = (title: string, description: string) => ({ title, description });

/** Metres of the units that files without one may mean. */
export const MESH_UNITS = { m: 1, cm: 0.01, mm: 0.001, in: 0.0254 } as const;

/** How a mesh becomes parts. */
export const meshOptions = z.strictObject({
  cubes: z
    .enum(['found', 'assumed', 'ignored'])
    .default('found')
    .meta(
      about('Cubes', 'whether a mesh whose faces lie on cubes comes back cube for cube; assumed, plain blocks too'),
    ),
  size: z.enum(['cubes', 'true']).default('cubes').meta(about('Size', 'as high as one says, or as large as it is')),
  height: z.int().min(1).max(4096).default(64).meta(about('Height', 'of all of it, in cubes')),
  unit: z
    .enum(['m', 'cm', 'mm', 'in'])
    .default('m')
    .meta(about('Unit', 'of its numbers, where the file does not say: metre, centimetre, millimetre or inch')),
  up: z.enum(['y', 'z']).default('y').meta(about('Up', 'which way is up in the file')),
  turn: z.enum(['0', '90', '180', '270']).default('0').meta(about('Turned', 'degrees about the way up')),
  fill: z.enum(['solid', 'surface']).default('solid').meta(about('Fill', 'all that is inside, or the surface only')),
  thin: z.boolean().default(false).meta(about('Keep thin', 'every cell that a triangle goes through')),
  parts: z
    .enum(['nodes', 'one'])
    .default('nodes')
    .meta(about('Parts', 'one for each node with its name, or one of all')),
  bones: z.boolean().default(true).meta(about('Bones', 'the tree of nodes becomes bones')),
  clips: z.boolean().default(true).meta(about('Clips', 'how bones move comes along')),
  colours: z.enum(['own', 'palette']).default('own').meta(about('Colours', 'its own, or the nearest of the palette')),
  most: z.int().min(2).max(MAX_SWATCHES).default(32).meta(about('At most', 'colours of its own, over all parts')),
  blend: z
    .enum(['auto', 'sharp', 'mean'])
    .default('auto')
    .meta(about('A cube shows', 'what most of it is, or the mean of all that is there; by how many colours there are')),
});
export type MeshOptions = z.infer<typeof meshOptions>;

/** A part of a mesh. */
export interface MeshPart {
  readonly name: string;
  /** The node it was; null for all of them. */
  readonly node: number | null;
  readonly grid: VoxelGrid;
  /** Where its pivot is, in half cubes, and where that stands; null where it is nobody's business. */
  readonly pivot: { readonly at: Vec3; readonly frame: Transform } | null;
  /** Length of its cells in those of the smallest. */
  readonly cell: number;
}

/** What came of a mesh. */
export interface MeshBody {
  /** The scene as it stands, which nodes are of. */
  readonly scene: MeshScene;
  /** How long a cube was, in the scene's unit, where it came back cube for cube; else null. */
  readonly exact: number | null;
  readonly parts: readonly MeshPart[];
  readonly swatches: readonly Swatch[];
  /** Whether those are swatches of the palette that was given. */
  readonly ours: boolean;
  /** From the scene to cubes. */
  readonly scaling: Scaling;
  readonly triangles: number;
  /** Triangles that were nowhere. */
  readonly lost: number;
  /** Rims of holes that were found. */
  readonly holes: number;
  /** Colours before they were made fewer. */
  readonly colours: number;
  /** In the scene's own unit. */
  readonly extents: Extents;
}

/** A part under way. */
interface Draft {
  /** Null for all of them. */
  readonly node: number | null;
  readonly pivot: MeshPart['pivot'];
  readonly cell: number;
  readonly box: Box;
  readonly space: Space;
  readonly filled: Uint8Array;
  /** Cells that only the surface fills: they may be cut out. */
  readonly shell: Uint8Array | null;
  readonly sightings: Sightings;
}

/**
 * A mesh as parts of cubes that stand where its nodes stand at rest.
 *
 * @param decoded – pictures of the scene; null where one was not given
 * @param palette – the palette whose colours are taken where the options say so
 * @param cube – metres along a cube
 * @throws IntakeError when nothing comes of it, or a part would be larger than one can be
 */
export function* meshSteps(
  given: MeshScene,
  decoded: readonly (Pixels | null)[],
  options: MeshOptions,
  palette: Palette | null,
  cube: number,
): Steps<MeshBody> {
  const scene = standingScene(given, { up: options.up, turn: Number(options.turn) });
  const worlds = nodeWorlds(scene.nodes);
  const looks = new Looks(scene.surfaces, decoded);
  const cubes = options.cubes === 'ignored' ? null : cubeNodes(scene, worlds, options.cubes === 'assumed');
  if (cubes) {
    const exact = yield* exactSteps(scene, worlds, cubes, looks, options, palette);
    if (exact) return exact;
  }
  const { placed, lost } = placedTriangles(scene, worlds);
  if (placed.length === 0) throw new IntakeError('mesh.nothing');
  const extents = extentsOf(placed);
  const scaling = scalingOf(extents, cubesPerUnit(scene, extents, options, cube));
  const groups = options.parts === 'one' ? [joined(placed)] : placed;
  const drafts: Draft[] = [];
  let holes = 0;
  for (const [i, g] of groups.entries()) {
    const own = draftSteps(g, extents, scaling, options, looks);
    for (;;) {
      const s = own.next();
      if (s.done) {
        drafts.push(s.value.draft);
        holes += s.value.holes;
        break;
      }
      yield (0.9 * (i + s.value)) / groups.length;
    }
  }
  yield 0.95;
  return {
    ...finished(scene, drafts, looks, options, palette),
    ...{ exact: null, scaling, triangles: placed.reduce((n, p) => n + p.origins.length, 0), lost, holes, extents },
  };
}

/** Cube for cube; null where a part would be larger than one can be. */
function* exactSteps(
  scene: MeshScene,
  worlds: readonly Mat4[],
  nodes: readonly CubeNode[],
  looks: Looks,
  options: MeshOptions,
  palette: Palette | null,
): Steps<MeshBody | null> {
  const least = nodes.reduce((m, c) => Math.min(m, c.cell), Infinity);
  const drafts: Draft[] = [];
  for (const [i, c] of nodes.entries()) {
    const own = cubesSteps(c, worlds[c.node]!, options.fill === 'solid', looks);
    for (;;) {
      const s = own.next();
      if (!s.done) {
        yield (0.9 * (i + s.value)) / nodes.length;
        continue;
      }
      if (!s.value) return null;
      const { pivot, frame, box, space, filled, sightings } = s.value;
      drafts.push({
        node: c.node,
        pivot: { at: pivot, frame },
        cell: c.cell / least,
        box,
        space,
        filled,
        shell: null,
        sightings,
      });
      break;
    }
  }
  const { placed, lost } = placedTriangles(scene, worlds);
  return {
    ...finished(scene, drafts, looks, { ...options, most: MAX_SWATCHES, blend: 'sharp' }, palette),
    exact: least,
    scaling: { cubes: 1 / least, shift: [0, 0, 0] },
    triangles: placed.reduce((n, p) => n + p.origins.length, 0),
    ...{ lost, holes: 0, extents: extentsOf(placed) },
  };
}

function finished(
  scene: MeshScene,
  drafts: readonly Draft[],
  looks: Looks,
  options: MeshOptions,
  palette: Palette | null,
): Pick<MeshBody, 'scene' | 'parts' | 'swatches' | 'ours' | 'colours'> {
  const dyed = dye(drafts, looks, options, palette);
  const parts = drafts.flatMap(({ node, pivot, cell }, i): MeshPart[] => {
    const grid = dyed.grids[i]!;
    return grid ? [{ name: node === null ? '' : scene.nodes[node]!.name, node, grid, pivot, cell }] : [];
  });
  if (parts.length === 0) throw new IntakeError('mesh.nothing');
  return { scene, parts, swatches: dyed.swatches, ours: dyed.ours, colours: dyed.colours };
}

function cubesPerUnit(scene: MeshScene, { lo, hi }: Extents, options: MeshOptions, cube: number): number {
  const unit = scene.metres ? 1 : MESH_UNITS[options.unit];
  if (options.size === 'true') return unit / cube;
  const high = hi[1] - lo[1];
  // What is flat is as wide as it would be high.
  const long = high > 0 ? high : Math.max(hi[0] - lo[0], hi[2] - lo[2]);
  return long > 0 ? options.height / long : 1;
}

const joined = (placed: readonly Placed[]): Placed => {
  const corners = new Float64Array(placed.reduce((n, p) => n + p.corners.length, 0));
  let at = 0;
  for (const p of placed) {
    corners.set(p.corners, at);
    at += p.corners.length;
  }
  return { node: placed[0]!.node, corners, origins: placed.flatMap((p) => p.origins) };
};

function* draftSteps(
  placed: Placed,
  extents: Extents,
  scaling: Scaling,
  options: MeshOptions,
  looks: Looks,
): Steps<{ draft: Draft; holes: number }> {
  const own = extentsOf([placed]);
  const wide = Math.max(...own.hi.map((v, a) => (v - own.lo[a]!) * scaling.cubes));
  if (wide > MOST_CUBES + 1e-6) throw tooLarge(wide, options);
  const { min, size, fine } = onLattice(placed.corners, extents, scaling);
  const space = spaceOf(size);
  const given = soupOf(fine, size);
  if (isTooMuch(given)) throw new IntakeError('mesh.mess');
  yield 0.1;
  let soup: Soup,
    filled: Uint8Array,
    shell: Uint8Array | null = null,
    holes = 0;
  if (options.fill === 'solid') {
    const inside = insideSteps(given);
    for (;;) {
      const s = inside.next();
      if (s.done) {
        ({ soup, cells: filled, holes } = s.value);
        break;
      }
      yield 0.1 + 0.6 * s.value;
    }
  } else {
    soup = turnedOutward(given);
    filled = new Uint8Array(space.count);
    shell = filled;
    eachTriangle(soup, (corner) => surfaceCells(corner, space, filled));
  }
  yield 0.7;
  if (options.thin) {
    if (!shell) shell = new Uint8Array(space.count);
    const mark = shell;
    eachTriangle(soup, (corner) =>
      crossed(corner, size, (x, y, z) => (mark[x + y * space.strides[1] + z * space.strides[2]] = 1)),
    );
    if (mark !== filled)
      for (let i = 0; i < filled.length; i++) {
        if (filled[i] === 1) mark[i] = 0;
        else if (mark[i] === 1) filled[i] = 1;
      }
  }
  yield 0.8;
  const sightings = seen(soup, placed.origins, filled, space, looks);
  const node = options.parts === 'one' ? null : placed.node;
  return { draft: { node, pivot: null, cell: 1, box: { min, size }, space, filled, shell, sightings }, holes };
}

function tooLarge(wide: number, options: MeshOptions): IntakeError {
  const most = Math.floor((options.height * MOST_CUBES) / wide);
  return options.size === 'true'
    ? new IntakeError('mesh.trueTooLarge', { wide: Math.ceil(wide) })
    : new IntakeError('mesh.tooLarge', { wide: Math.ceil(wide), most });
}

function eachTriangle({ points, triangles }: Soup, visit: (corner: Int32Array) => void): void {
  const corner = new Int32Array(9);
  for (let t = 0; t < triangles.length; t += 3) {
    for (let k = 0; k < 9; k++) corner[k] = points[triangles[t + Math.floor(k / 3)]! * 3 + (k % 3)]!;
    visit(corner);
  }
}

/** Cells whose middle lines a triangle meets: as many as no way from face to face gets through between them. */
function surfaceCells(corner: Int32Array, space: Space, out: Uint8Array): void {
  for (const axis of [0, 1, 2] as const) {
    const [i, j] = [(axis + 1) % 3, (axis + 2) % 3] as [0 | 1 | 2, 0 | 1 | 2];
    meetings(corner, axis, space.size[i], space.size[j], (m) => {
      out[m.cell * space.strides[axis] + m.u * space.strides[i] + m.v * space.strides[j]] = 1;
    });
  }
}

function dye(
  drafts: readonly Draft[],
  looks: Looks,
  options: MeshOptions,
  palette: Palette | null,
): {
  readonly grids: readonly (VoxelGrid | null)[];
  readonly swatches: readonly Swatch[];
  readonly ours: boolean;
  readonly colours: number;
} {
  const sharp = options.blend === 'sharp' || (options.blend === 'auto' && looks.count <= MAX_SWATCHES);
  const shown = drafts.map((d) => {
    const of = shownOf(d.sightings, d.space, looks, sharp);
    for (const c of of.cut) if (d.shell?.[c] === 1) d.filled[c] = 0;
    return { looks: of.looks, seen: of.seen, near: spread(of.looks, of.seen, d.filled, d.space) };
  });
  // What nobody saw is grey.
  const grey = looks.place(153, 153, 153, '', 1, 0.8, 0, 0);
  const used = new Float64Array(looks.count);
  const inner = shown.map(({ looks: of, seen, near }, i) => innerOf(of, [seen, near], drafts[i]!.filled, used, grey));
  const ours = options.colours === 'palette' && palette !== null && palette.swatches.length > 0;
  const dyed = ours ? matchedTo(palette, looks, used) : swatchesOf(looks, used, options.most);
  const grids = shown.map(({ looks: of }, i): VoxelGrid | null => {
    const { box, filled } = drafts[i]!,
      inside = dyed.bytes[inner[i]!.look]!;
    // A cell takes its byte where it says that it is filled.
    for (let c = 0; c < filled.length; c++)
      if (filled[c] === 1) filled[c] = of[c] === 0 ? inside : dyed.bytes[of[c]! - 1]!;
    return inner[i]!.any ? cropped(box, filled) : null;
  });
  return { grids, swatches: dyed.swatches, ours, colours: used.reduce((n, c) => n + (c > 0 ? 1 : 0), 0) };
}

/**
 * Counts how many cells of a body show each look.
 *
 * @param lists – cells that show one
 * @returns the look of all others, far inside, which is the commonest; and whether there is any cell at all
 */
function innerOf(
  of: Int32Array,
  lists: readonly ArrayLike<number>[],
  filled: Uint8Array,
  used: Float64Array,
  grey: number,
): { readonly look: number; readonly any: boolean } {
  const own = new Map<number, number>();
  let all = 0,
    shown = 0;
  for (let c = 0; c < filled.length; c++) all += filled[c]!;
  for (const list of lists)
    for (let k = 0; k < list.length; k++) {
      const c = list[k]!;
      if (of[c] === 0 || filled[c] === 0) continue;
      own.set(of[c]! - 1, (own.get(of[c]! - 1) ?? 0) + 1);
      shown++;
    }
  const look = [...own].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0]?.[0] ?? grey;
  own.set(look, (own.get(look) ?? 0) + all - shown);
  for (const [l, n] of own) used[l]! += n;
  return { look, any: all > 0 };
}

/** Cells in the smallest box that holds them; two more than the longest part are worked with. */
function cropped({ min, size }: Box, bytes: Uint8Array): VoxelGrid {
  const lo = [size[0], size[1], size[2]],
    hi = [-1, -1, -1];
  for (let z = 0, row = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++, row += size[0]) {
      let from = row;
      const to = row + size[0];
      while (from < to && bytes[from] === 0) from++;
      if (from === to) continue;
      let last = to - 1;
      while (bytes[last] === 0) last--;
      lo[0] = Math.min(lo[0]!, from - row);
      hi[0] = Math.max(hi[0]!, last - row);
      lo[1] = Math.min(lo[1]!, y);
      hi[1] = Math.max(hi[1]!, y);
      lo[2] = Math.min(lo[2]!, z);
      hi[2] = z;
    }
  const own = hi.map((v, a) => v - lo[a]! + 1) as unknown as Vec3,
    out = new Uint8Array(own[0] * own[1] * own[2]);
  for (let z = 0; z < own[2]; z++)
    for (let y = 0; y < own[1]; y++) {
      const from = lo[0]! + size[0] * (lo[1]! + y + size[1] * (lo[2]! + z));
      out.set(bytes.subarray(from, from + own[0]), own[0] * (y + own[1] * z));
    }
  if (Math.max(...own) > MOST_CUBES) throw new IntakeError('mesh.edge');
  return VoxelGrid.fromDense({ min: min.map((v, a) => v + lo[a]!) as unknown as Vec3, size: own }, out);
}
