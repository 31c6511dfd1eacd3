import type { Box, Vec3 } from '../math';
import { VoxelGrid } from '../voxel';

/** Sides of a room as they lie seen from above: −X, +X, −Z and +Z, the side that one looks at from the front. */
export const SIDES = ['left', 'right', 'back', 'front'] as const;
export type RoomSide = (typeof SIDES)[number];

/** A way through a wall. */
export interface Doorway {
  readonly side: RoomSide;
  /** Width and height in cubes, and how high its sill lies: 0 for a door, more for a window. */
  readonly width: number;
  readonly height: number;
  readonly sill: number;
  /** From the middle of the wall, in cubes. */
  readonly shift: number;
}

/** Walls round a floor, in cubes. */
export interface Room {
  /** Inside: wide, high and deep. */
  readonly size: Vec3;
  /** Thickness of walls and floor; a floor of 0 leaves it out. */
  readonly wall: number;
  readonly floor: number;
  readonly ceiling: number;
  /** Sides without a wall. */
  readonly open: readonly RoomSide[];
  readonly doors: readonly Doorway[];
  /** Swatches. */
  readonly wallByte: number;
  readonly floorByte: number;
}

export const ROOM: Room = {
  ...{ size: [40, 30, 32], wall: 2, floor: 2, ceiling: 0, open: ['front', 'right'], doors: [] },
  ...{ wallByte: 1, floorByte: 1 },
};

/** A door as wide and high as a person needs, in a cube's metres. */
export const doorFor = (side: RoomSide, metres: number): Doorway => ({
  ...{ side, sill: 0, shift: 0 },
  width: Math.max(2, Math.round(0.9 / metres)),
  height: Math.max(3, Math.round(2.05 / metres)),
});

/** The box of a room's cubes: its floor lies on 0 below, and the middle of what is inside over the origin. */
export function roomBox({ size: [w, h, d], wall, floor, ceiling, open }: Room): Box {
  const on = (side: RoomSide): number => (open.includes(side) ? 0 : wall);
  const x = -Math.floor(w / 2),
    z = -Math.floor(d / 2);
  return {
    min: [x - on('left'), 0, z - on('back')],
    size: [w + on('left') + on('right'), h + floor + ceiling, d + on('back') + on('front')],
  };
}

/** The cubes of a room. @throws GridError where it is larger than a part can be */
export function roomGrid(room: Room): VoxelGrid {
  const box = roomBox(room),
    { size, wall, floor, ceiling, open, doors, wallByte, floorByte } = room;
  const [w, h, d] = size,
    x = -Math.floor(w / 2),
    z = -Math.floor(d / 2);
  return VoxelGrid.empty(box).edit((draft) => {
    draft.fillBox(box, wallByte);
    // What is inside, out to where no wall stands.
    draft.fillBox({ min: [x, floor, z], size }, 0);
    if (floor > 0) draft.fillBox({ min: box.min, size: [box.size[0], floor, box.size[2]] }, floorByte);
    if (ceiling > 0)
      draft.fillBox({ min: [box.min[0], floor + h, box.min[2]], size: [box.size[0], ceiling, box.size[2]] }, wallByte);
    for (const { side, width, height, sill, shift } of doors) {
      if (open.includes(side)) continue;
      const along = side === 'left' || side === 'right',
        long = along ? d : w,
        wide = Math.min(width, long);
      const from = Math.max(0, Math.min(long - wide, Math.floor((long - wide) / 2) + shift)),
        tall = Math.max(0, Math.min(height, h - sill));
      const edge = side === 'left' ? x - wall : side === 'right' ? x + w : side === 'back' ? z - wall : z + d;
      const min: Vec3 = along ? [edge, floor + sill, z + from] : [x + from, floor + sill, edge];
      draft.fillBox({ min, size: along ? [wall, tall, wide] : [wide, tall, wall] }, 0);
    }
  });
}

/** One layer of the ground, from above. */
export interface GroundLayer {
  readonly byte: number;
  readonly thick: number;
}

/** A slab of ground by its layers, the first on top, its top on 0 and its middle over the origin. */
export function groundGrid(wide: number, deep: number, layers: readonly GroundLayer[]): VoxelGrid {
  const thick = layers.reduce((n, l) => n + l.thick, 0);
  const min: Vec3 = [-Math.floor(wide / 2), -thick, -Math.floor(deep / 2)];
  return VoxelGrid.empty({ min, size: [wide, thick, deep] }).edit((draft) => {
    let top = 0;
    for (const { byte, thick: t } of layers) {
      top -= t;
      draft.fillBox({ min: [min[0], top, min[2]], size: [wide, t, deep] }, byte);
    }
  });
}
