import { type Vec3, sub } from '../math';
import { type Id, type Project, idsFrom, makeMount, makePart, makeProject } from '../model';
import type { Palette } from '../palette';
import type { VoxelGrid } from '../voxel';

/** Cubes that become a part. */
export interface Body {
  readonly name: string;
  readonly grid: VoxelGrid;
  /** Where its pivot stands, in cubes. */
  readonly at?: Vec3;
  /** Whether its volume is all of the grid's rather than what its cubes take up, so that several lie over each other as they are. */
  readonly whole?: boolean;
}

/** A project of parts that were made of something else, each standing on the middle of its base; several lie in a group of
 * that name. The same for the same bodies. */
export function projectOfBodies(name: string, bodies: readonly Body[], palette: Palette): Project {
  const newId: () => Id = idsFrom(name);
  const empty = makeProject(newId(), name, newId);
  const parts = bodies.map((b) => {
    const part = makePart(
      newId(),
      newId(),
      b.name,
      palette.id,
      (b.whole ? null : b.grid.contentBox()) ?? b.grid.bounds,
    );
    return {
      ...part,
      group: bodies.length > 1 ? name : null,
      layers: [{ ...part.layers[0]!, grid: b.grid.withBounds(part.bounds) }],
    };
  });
  const mounts = bodies.map((b, i) => {
    const [x, y, z] = parts[i]!.pivot;
    return makeMount(newId(), parts[i]!.id, null, b.at ?? [x / 2, y / 2, z / 2]);
  });
  return { ...empty, palettes: [palette], parts, rig: { ...empty.rig, mounts } };
}

/** Cubes between parts that come together. */
const GAP = 3;

/** Several parts side by side, in about as many rows as columns unless it is said how many stand in a row. */
export function inRows(parts: readonly Body[], columns = Math.ceil(Math.sqrt(parts.length))): Body[] {
  let [x, z, deep, wide] = [0, 0, 0, 0];
  const placed = parts.map((body, i): Body & { at: Vec3 } => {
    const { grid } = body;
    if (i > 0 && i % columns === 0) [x, z, deep] = [0, z + deep + GAP, 0];
    const { size } = grid.contentBox() ?? grid.bounds;
    const at: Vec3 = [x + size[0] / 2, 0, z + size[2] / 2];
    x += size[0] + GAP;
    wide = Math.max(wide, x - GAP);
    deep = Math.max(deep, size[2]);
    return { ...body, at };
  });
  // Their middle is over the origin.
  const middle: Vec3 = [Math.round(wide / 2), 0, Math.round((z + deep) / 2)];
  return placed.map((p) => ({ ...p, at: sub(p.at, middle) }));
}
