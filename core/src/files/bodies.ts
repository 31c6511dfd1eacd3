import type { Vec3 } from '../math';
import { type Id, type Project, idsFrom, makeMount, makePart, makeProject } from '../model';
import type { Palette } from '../palette';
import type { VoxelGrid } from '../voxel';

/** Cubes that become a part. */
export interface Body {
  readonly name: string;
  readonly grid: VoxelGrid;
  /** Where its pivot stands, in cubes. */
  readonly at?: Vec3;
}

/** A project of parts that were made of something else, each standing on the middle of its base. The same for the same bodies. */
export function projectOfBodies(name: string, bodies: readonly Body[], palette: Palette): Project {
  const newId: () => Id = idsFrom(name);
  const empty = makeProject(newId(), name, newId);
  const parts = bodies.map((b) => {
    const part = makePart(newId(), newId(), b.name, palette.id, b.grid.contentBox() ?? b.grid.bounds);
    return { ...part, layers: [{ ...part.layers[0]!, grid: b.grid.withBounds(part.bounds) }] };
  });
  const mounts = bodies.map((b, i) => {
    const [x, y, z] = parts[i]!.pivot;
    return makeMount(newId(), parts[i]!.id, null, b.at ?? [x / 2, y / 2, z / 2]);
  });
  return { ...empty, palettes: [palette], parts, rig: { ...empty.rig, mounts } };
}
