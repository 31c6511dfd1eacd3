import { hash32, seededRandom } from '@sphalerite/core/math';
import { VoxelGrid } from '@sphalerite/core/voxel';

/** The lamp-keepers' boathouse at 120³: plank walls, floor boards, shuttered openings, gable roof, shelves, crates and oars. */
export function boathouse(): VoxelGrid {
  const random = seededRandom(7);
  return VoxelGrid.empty({ min: [0, 0, 0], size: [120, 120, 120] }).edit((d) => {
    const box = (x: number, y: number, z: number, w: number, h: number, l: number, v: number): void =>
      d.fillBox({ min: [x, y, z], size: [w, h, l] }, v);
    const board = (lo: number, hi: number, put: (at: number, length: number, v: number) => void): void => {
      for (let at = lo; at < hi;) {
        const length = Math.min(hi - at, 7 + Math.floor(random() * 14));
        put(at, length, 1 + Math.floor(random() * 3));
        at += length;
      }
    };
    for (let x = 4; x < 116; x += 3) board(4, 116, (z, l, v) => box(x, 0, z, 3, 2, l, v));
    for (let y = 2; y < 62; y += 3) {
      board(4, 116, (x, l, v) => box(x, y, 4, l, 3, 3, v + 3));
      board(4, 116, (x, l, v) => box(x, y, 113, l, 3, 3, v + 3));
      board(4, 116, (z, l, v) => box(4, y, z, 3, 3, l, v + 3));
      board(4, 116, (z, l, v) => box(113, y, z, 3, 3, l, v + 3));
    }
    for (const z of [4, 113])
      for (const x of [24, 72]) {
        box(x, 22, z, 20, 22, 3, 0);
        box(x - 2, 20, z, 2, 26, 3, 8);
        box(x + 20, 20, z, 2, 26, 3, 8);
      }
    box(46, 2, 4, 26, 40, 3, 0);
    for (let i = 0; i < 50; i++) {
      for (let z = 2; z < 118; z += 4) {
        const v = 9 + Math.floor(random() * 3);
        box(2 + i, 62 + i + (z & 4 ? 0 : 1), z, 3, 2, 4, v);
        box(115 - i, 62 + i + (z & 4 ? 1 : 0), z, 3, 2, 4, v);
      }
    }
    for (let s = 0; s < 5; s++) {
      box(8, 10 + s * 9, 40, 10, 1, 60, 12);
      for (let k = 0; k < 10; k++)
        box(
          9 + Math.floor(random() * 4),
          11 + s * 9,
          41 + k * 6,
          3,
          2 + Math.floor(random() * 5),
          4,
          13 + Math.floor(random() * 8),
        );
    }
    for (let k = 0; k < 16; k++) {
      const x = 30 + Math.floor(random() * 60),
        z = 20 + Math.floor(random() * 70),
        e = 5 + Math.floor(random() * 6);
      box(x, 2, z, e, e, e, 21);
      box(x, 2, z, e, 1, e, 22);
      box(x, 1 + e, z, e, 1, e, 22);
    }
    for (let o = 0; o < 6; o++) box(100, 8 + o * 6, 20, 1, 1, 70, 23);
  });
}

/** A solid terrain of 256³ with noisy colours. */
export function terrain(): VoxelGrid {
  const height = (x: number, z: number): number =>
    Math.floor(
      110 + 42 * Math.sin(x / 29) * Math.cos(z / 37) + 18 * Math.sin((x + z) / 13) + (hash32(x * 131 + z) % 5),
    );
  return VoxelGrid.empty({ min: [0, 0, 0], size: [256, 256, 256] }).edit((d) => {
    for (let z = 0; z < 256; z++) {
      for (let x = 0; x < 256; x++) {
        const h = height(x, z);
        d.fillBox({ min: [x, 0, z], size: [1, h - 3, 1] }, 1);
        for (let y = h - 3; y < h; y++) d.set(x, y, z, 2 + (hash32(x * 7919 + y * 104729 + z * 1299709) % 4));
      }
    }
  });
}

/** Rooms of a plan at 64 × 64 × 8: a floor of tiles in two colours, walls in courses of the same two, with doors. */
export function walledPlan(): VoxelGrid {
  return VoxelGrid.empty({ min: [0, 0, 0], size: [64, 8, 64] }).edit((d) => {
    for (let z = 0; z < 64; z += 4)
      for (let x = 0; x < 64; x += 4) d.fillBox({ min: [x, 0, z], size: [4, 1, 4] }, 1 + (((x + z) >> 2) & 1));
    for (let at = 0; at < 64; at += 21)
      for (let y = 1; y < 8; y++)
        for (let along = 0; along < 64; along += 4) {
          const value = 1 + ((y + (along >> 2)) & 1);
          d.fillBox({ min: [along, y, at], size: [4, 1, 1] }, value);
          d.fillBox({ min: [at, y, along], size: [1, 1, 4] }, value);
        }
    for (const [x, z] of [
      [8, 21],
      [30, 21],
      [50, 42],
      [10, 42],
    ] as const)
      d.fillBox({ min: [x, 1, z], size: [4, 5, 1] }, 0);
    for (const [x, z] of [
      [21, 10],
      [42, 28],
      [21, 50],
    ] as const)
      d.fillBox({ min: [x, 1, z], size: [1, 5, 4] }, 0);
  });
}
