import { FACE_DIRECTIONS, type Steps } from '../../math';
import {
  type AtlasPlace,
  type FaceLabels,
  type FlatSurface,
  closedSurfaceSteps,
  openSurfaceSteps,
  packSkyline,
  planeAxes,
  withoutTransparent,
} from '../../mesh';
import { type Part, pivotPoint } from '../../model';
import type { Palette } from '../../palette';
import { BYTE_VALUES, type VoxelGrid, byteTable } from '../../voxel';
import { type ShipMaterials, commonest } from './ship-materials';
import type { ShipCover, ShipShape } from './ship-model';
import type { ShipProfile } from './ship-profile';
import { type ShipSlots, byteOfLabel, slotOfLabel } from './ship-slots';

/** The solid or the see-through surface of a grid, with the slots that show on it. */
export interface Stretch {
  readonly surface: FlatSurface;
  readonly transparent: boolean;
  readonly slots: readonly number[];
}

/** Surfaces by grid and by how its faces are told apart: what did not change is not merged again. */
const known = new WeakMap<VoxelGrid, Map<string, readonly Stretch[]>>();
const serials = new WeakMap<object, number>();
let serial = 0;
const serialOf = (o: object | null | undefined): number => {
  if (!o) return 0;
  let n = serials.get(o);
  if (n === undefined) serials.set(o, (n = ++serial));
  return n;
};
/** Ways of one grid that are kept: someone who tries options goes back and forth between few. */
const MOST_KEPT = 6;

/** The surfaces of a part, in pieces; memoised for as long as the grid lives. */
export function* stretchSteps(
  grid: VoxelGrid,
  part: Part,
  palette: Palette,
  materials: ShipMaterials,
  slots: ShipSlots,
  mesh: ShipProfile['mesh'],
  dropped: FaceLabels['dropped'] = undefined,
): Steps<readonly Stretch[]> {
  const clear = materials.transparentIn(palette);
  const solid = slots.labels(
    palette,
    part,
    byteTable((b) => 1 - clear[b]!),
  );
  const glass = clear.includes(1) ? slots.labels(palette, part, clear) : null;
  const key = [
    mesh.watertight,
    mesh.merge !== 'colour',
    serialOf(part.faceSlots),
    slots.names.join('\n'),
    serialOf(dropped),
    ...solid.tables.map((t, d) => (t === solid.tables[d - 1] ? '' : t.join())),
  ].join();
  let ofGrid = known.get(grid);
  if (!ofGrid) known.set(grid, (ofGrid = new Map()));
  let out = ofGrid.get(key);
  if (!out) {
    const make = mesh.watertight ? closedSurfaceSteps : openSurfaceSteps;
    const texels = mesh.merge !== 'colour';
    const stretch = (surface: FlatSurface, transparent: boolean): Stretch => ({
      surface,
      transparent,
      slots: [...new Set(surface.labels)].map(slotOfLabel).filter((s, i, all) => all.indexOf(s) === i),
    });
    const whole = yield* make(withoutTransparent(grid, clear), { ...solid, dropped }, texels);
    // What is seen through is no solid: in an open mesh it shows only what looks into the open.
    const through = glass
      ? yield* make(
          mesh.watertight
            ? withoutTransparent(
                grid,
                byteTable((b) => 1 - clear[b]!),
              )
            : grid,
          { ...glass, dropped },
          texels,
        )
      : null;
    out = [stretch(whole, false), ...(through ? [stretch(through, true)] : [])].filter((s) => s.slots.length > 0);
    if (ofGrid.size >= MOST_KEPT) ofGrid.delete(ofGrid.keys().next().value!);
    ofGrid.set(key, out);
  }
  return out;
}

/** Where the points of a surface find their colour: a number that tells coordinates apart, and the coordinates. */
interface Coordinates {
  u: number;
  v: number;
  /** @param x – in half cubes of the lattice, as y and z */
  at(triangle: number, x: number, y: number, z: number): number;
}

/** How the colours of each region of a surface are found, told before any shape of it is made. */
export type Colouring =
  | { readonly kind: 'byte'; readonly bytes: Uint8Array }
  | { readonly kind: 'atlas'; readonly places: readonly AtlasPlace[] }
  | { readonly kind: 'tiling' };

/** What each region shows; images go into the atlas of the palette. */
export function colouringOf(
  { surface, transparent }: Stretch,
  palette: Palette,
  materials: ShipMaterials,
  slots: ShipSlots,
  profile: ShipProfile,
): Colouring {
  const bytes = new Uint8Array(surface.regions),
    slotOf = new Uint8Array(surface.regions);
  surface.labels.forEach((label, t) => {
    bytes[surface.regionOf[t]!] = byteOfLabel(label);
    slotOf[surface.regionOf[t]!] = slotOfLabel(label);
  });
  const { merge } = profile.mesh;
  if (merge === 'slot') {
    // In each part a slot is as most of it is.
    const counts = new Map<number, Float64Array>();
    surface.texels!.forEach((image, r) => {
      let mine = counts.get(slotOf[r]!);
      if (!mine) counts.set(slotOf[r]!, (mine = new Float64Array(BYTE_VALUES)));
      for (const b of image) if (b !== 0) mine[b]!++;
    });
    for (const [slot, mine] of counts)
      mine.forEach((n, b) => n > 0 && materials.show(palette, slots.names[slot]!, transparent, b, n));
    for (let r = 0; r < bytes.length; r++) bytes[r] = commonest(counts.get(slotOf[r]!)!);
  }
  switch (profile.picture.layout) {
    case 'tiling':
      return { kind: 'tiling' };
    case 'strip':
      return { kind: 'byte', bytes };
    case 'atlas': {
      const places: AtlasPlace[] = [];
      for (let r = 0; r < surface.regions; r++)
        places.push(
          merge === 'all'
            ? materials.place(palette, surface.spans[r * 4 + 2]!, surface.spans[r * 4 + 3]!, surface.texels![r]!)
            : materials.place(palette, 1, 1, bytes.subarray(r, r + 1)),
        );
      return { kind: 'atlas', places };
    }
  }
}

function coordinatesOf(
  { surface }: Stretch,
  colouring: Colouring,
  palette: Palette,
  materials: ShipMaterials,
  profile: ShipProfile,
): Coordinates {
  const { regionOf, directions, spans } = surface;
  switch (colouring.kind) {
    case 'byte':
      return {
        u: 0,
        v: 0.5,
        at(t) {
          const byte = colouring.bytes[regionOf[t]!]!;
          this.u = (byte + 0.5) / BYTE_VALUES;
          return byte;
        },
      };
    case 'atlas': {
      const atlas = materials.packed(palette),
        rows = 2 * atlas.height + 1;
      return {
        u: 0,
        v: 0,
        at(t, ...p) {
          const region = regionOf[t]!,
            place = colouring.places[region]!;
          const [a, b] = planeAxes(directions[t]!);
          // An image of one colour may stand for a region of any size.
          const whole = place.wide > 1 || place.high > 1;
          const [x, y] = atlas.at(
            place,
            whole ? p[a]! / 2 - spans[region * 4]! : 0.5,
            whole ? p[b]! / 2 - spans[region * 4 + 1]! : 0.5,
          );
          this.u = x / atlas.width;
          this.v = y / atlas.height;
          return 2 * x * rows + 2 * y;
        },
      };
    }
    case 'tiling': {
      const long = 2 * profile.picture.cubes;
      return {
        u: 0,
        v: 0,
        at(t, x, y, z) {
          const d = directions[t]!;
          // Upright on walls, seen from outside; on floors and ceilings X runs to the right.
          const [right, up] = [
            [-z, y],
            [z, y],
            [x, -z],
            [x, z],
            [x, y],
            [-x, y],
          ][d] as [number, number];
          this.u = right / long;
          this.v = -up / long;
          return d;
        },
      };
    }
  }
}

/** Where each region of a mesh finds its baked light, in cubes; see {@link secondPlaces}. */
export interface SecondPlaces {
  readonly at: Int32Array;
  readonly width: number;
  readonly height: number;
  /** The number of its first region among all of the mesh. */
  readonly first: number;
}

/**
 * The shape of a slot on a surface: corners of one place and one coordinate are one vertex, and of one direction too where normals are
 * told.
 *
 * @param unit – length of a cube in the target
 */
export function shapeOf(
  stretch: Stretch,
  slot: number,
  { part, unit, second }: { readonly part: Part; readonly unit: number; readonly second: SecondPlaces | null },
  colouring: Colouring,
  palette: Palette,
  materials: ShipMaterials,
  profile: ShipProfile,
): ShipShape {
  const { surface } = stretch;
  const { positions: half, triangles, directions, labels, regionOf, spans } = surface;
  const pivot = pivotPoint(part),
    { weld } = profile.mesh;
  const coordinates = coordinatesOf(stretch, colouring, palette, materials, profile);
  const tiling = colouring.kind === 'tiling';
  const positions: number[] = [],
    normals: number[] = [],
    uv: number[] = [],
    uv2: number[] = [],
    indices: number[] = [];
  // Vertices of one point of the surface, told apart by what else they have.
  const first = new Map<number, number>(),
    next: number[] = [],
    marks: number[] = [];
  for (let t = 0; t < labels.length; t++) {
    if (slotOfLabel(labels[t]!) !== slot) continue;
    const d = directions[t]!,
      region = regionOf[t]!;
    for (let k = 0; k < 3; k++) {
      const v = triangles[t * 3 + k]!;
      const [x, y, z] = [half[v * 3]!, half[v * 3 + 1]!, half[v * 3 + 2]!];
      const colour = coordinates.at(t, x, y, z);
      // Coordinates in whole cubes differ by direction whether or not normals do.
      const [facing, own] = [weld && !tiling ? 0 : d, second ? region : 0];
      let at = first.get(v) ?? -1;
      while (at >= 0 && (marks[at * 3] !== colour || marks[at * 3 + 1] !== facing || marks[at * 3 + 2] !== own))
        at = next[at]!;
      if (at < 0) {
        at = next.push(first.get(v) ?? -1) - 1;
        first.set(v, at);
        marks.push(colour, facing, own);
        positions.push((x / 2 - pivot[0]) * unit, (y / 2 - pivot[1]) * unit, (z / 2 - pivot[2]) * unit);
        if (!weld) normals.push(...FACE_DIRECTIONS[d]!);
        uv.push(coordinates.u, coordinates.v);
        if (second) {
          const [a, b] = planeAxes(d),
            p = [x, y, z],
            n = second.first + region;
          uv2.push(
            (second.at[n * 2]! + 1 + p[a]! / 2 - spans[region * 4]!) / second.width,
            (second.at[n * 2 + 1]! + 1 + p[b]! / 2 - spans[region * 4 + 1]!) / second.height,
          );
        }
      }
      indices.push(at);
    }
  }
  return {
    positions: Float32Array.from(positions),
    normals: weld ? null : Float32Array.from(normals),
    uv: Float32Array.from(uv),
    uv2: second ? Float32Array.from(uv2) : null,
    indices: Uint32Array.from(indices),
    step: unit / 2,
    joints: null,
  };
}

/** What the faces of a slot are. */
export function coverOf({ surface }: Stretch, slot: number): ShipCover {
  const { positions: p, triangles, labels, directions, regionOf, spans } = surface;
  let area = 0,
    spots = 0,
    stairs = 0;
  for (let t = 0; t < labels.length; t++) {
    if (slotOfLabel(labels[t]!) !== slot) continue;
    const [a, b] = planeAxes(directions[t]!);
    const [wide, high] = [spans[regionOf[t]! * 4 + 2]!, spans[regionOf[t]! * 4 + 3]!];
    if (wide * high <= 2) spots++;
    else if (wide === 1 || high === 1) stairs++;
    const [i, j, k] = [triangles[t * 3]! * 3, triangles[t * 3 + 1]! * 3, triangles[t * 3 + 2]! * 3];
    area += Math.abs(
      (p[j + a]! - p[i + a]!) * (p[k + b]! - p[i + b]!) - (p[j + b]! - p[i + b]!) * (p[k + a]! - p[i + a]!),
    );
  }
  // Twice the area of each triangle, in half cubes.
  return { faces: Math.round(area / 8), spots, stairs };
}

/** Places for all regions of a mesh side by side, none over another, with a cube free around each. */
export function secondPlaces(stretches: readonly Stretch[]): SecondPlaces[] {
  const sizes: number[] = [];
  const firsts = stretches.map(({ surface: { spans, regions } }) => {
    const first = sizes.length / 2;
    for (let r = 0; r < regions; r++) sizes.push(spans[r * 4 + 2]! + 2, spans[r * 4 + 3]! + 2);
    return first;
  });
  let area = 0,
    widest = 1;
  for (let i = 0; i < sizes.length; i += 2) {
    area += sizes[i]! * sizes[i + 1]!;
    widest = Math.max(widest, sizes[i]!);
  }
  const width = Math.max(widest, Math.ceil(Math.sqrt(area) * 1.02));
  const { at, height } = packSkyline(Int32Array.from(sizes), width);
  return firsts.map((first) => ({ at, width, height: Math.max(1, height), first }));
}
