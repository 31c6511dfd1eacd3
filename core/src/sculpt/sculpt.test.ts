import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Box, type Vec3, boxEnd } from '../math';
import { CellSet, VoxelGrid, mirrorCell } from '../voxel';
import {
  type MirrorPlanes,
  NO_SYMMETRY,
  type StrokeVerb,
  applyStroke,
  boxStroke,
  extrude,
  faceRegion,
  columnsOf,
  mirrorBoxes,
} from '.';

const bounds: Box = { min: [-20, -20, -20], size: [40, 40, 40] };
const empty = VoxelGrid.empty(bounds);
const cell = fc.tuple(
  ...([0, 0, 0].map(() => fc.integer({ min: -22, max: 22 })) as [
    fc.Arbitrary<number>,
    fc.Arbitrary<number>,
    fc.Arbitrary<number>,
  ]),
);
const box = fc.record({
  min: cell,
  size: fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 })),
}) as fc.Arbitrary<Box>;
const plane = fc.option(fc.integer({ min: -6, max: 6 }), { nil: null });
const planes = fc.tuple(plane, plane, plane) as fc.Arbitrary<MirrorPlanes>;

/** Visits every cell of a box. */
function forCells(box: Box, visit: (x: number, y: number, z: number) => void): void {
  const [x1, y1, z1] = boxEnd(box);
  for (let z = box.min[2]; z < z1; z++)
    for (let y = box.min[1]; y < y1; y++) for (let x = box.min[0]; x < x1; x++) visit(x, y, z);
}

/** The stroke cell by cell, the slow and plain way. */
function slowly(
  layer: VoxelGrid,
  seen: VoxelGrid,
  s: { verb: StrokeVerb; value: number; boxes: readonly Box[]; mirror: MirrorPlanes },
): VoxelGrid {
  return layer.edit((d) => {
    for (const b of mirrorBoxes(s.boxes, s.mirror)) {
      forCells(b, (x, y, z) => {
        if (s.verb === 'erase') d.set(x, y, z, 0);
        else if (s.verb === 'add' ? seen.get(x, y, z) === 0 : d.get(x, y, z) !== 0) d.set(x, y, z, s.value);
      });
    }
  });
}
const filled = (boxes: readonly Box[]): VoxelGrid =>
  empty.edit((d) => boxes.forEach((b, i) => d.fillBox(b, 1 + (i % 4))));

describe('strokes', () => {
  it('agree with the plain way for every verb, box and mirror', () => {
    fc.assert(
      fc.property(
        fc.array(box, { maxLength: 4 }),
        fc.array(box, { minLength: 1, maxLength: 3 }),
        planes,
        fc.constantFrom('add', 'erase', 'paint'),
        (before, boxes, mirror, verb) => {
          const layer = filled(before);
          const v = verb as StrokeVerb;
          expect(
            applyStroke(layer, layer, boxStroke(v, 9, boxes, mirror)).equals(
              slowly(layer, layer, { verb: v, value: 9, boxes, mirror }),
            ),
          ).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('mirrored on a symmetric body, the result is symmetric, on cubes and between', () => {
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 3 }), fc.integer({ min: -1, max: 1 }), (boxes, h) => {
        const grid = applyStroke(empty, empty, boxStroke('add', 2, boxes, [h, null, null]));
        grid.forEach((x, y, z) => {
          const twin = mirrorCell(x, h);
          if (twin >= -20 && twin < 20) expect(grid.get(twin, y, z)).toBe(2);
        });
      }),
      { numRuns: 40 },
    );
  });
  it('three planes make eight of a box; what lies on a plane is not doubled', () => {
    expect(mirrorBoxes([{ min: [2, 2, 2], size: [1, 1, 1] }], [0, 0, 0])).toHaveLength(8);
    expect(mirrorBoxes([{ min: [-1, 4, 4], size: [2, 1, 1] }], [0, null, null])).toHaveLength(1);
    expect(mirrorBoxes([{ min: [0, 4, 4], size: [1, 1, 1] }], [1, null, null])).toHaveLength(1);
  });
  it('add leaves what shows on other layers alone', () => {
    const other = empty.edit((d) => d.set(1, 1, 1, 7));
    const out = applyStroke(empty, other, boxStroke('add', 3, [{ min: [0, 1, 1], size: [3, 1, 1] }]));
    expect([out.get(0, 1, 1), out.get(1, 1, 1), out.get(2, 1, 1)]).toEqual([3, 0, 3]);
  });
});

describe('extrude', () => {
  // Seen from above: a 4×4 plate with a notch, two colours, a step of one cube on one side.
  const plate = empty.edit((d) => {
    d.fillBox({ min: [0, 0, 0], size: [4, 1, 4] }, 1);
    d.fillBox({ min: [0, 0, 0], size: [2, 1, 4] }, 2);
    d.set(3, 0, 3, 0);
    d.fillBox({ min: [0, 1, 0], size: [1, 1, 4] }, 2);
    d.fillBox({ min: [8, 0, 8], size: [2, 1, 2] }, 1);
  });
  const up: Vec3 = [0, 1, 0];
  it('finds the whole face, the face of one colour, and the whole plane', () => {
    expect(faceRegion(plate, [2, 0, 0], up, 'face')).toHaveLength(11);
    expect(faceRegion(plate, [2, 0, 0], up, 'colour')).toHaveLength(7);
    expect(faceRegion(plate, [2, 0, 0], up, 'plane')).toHaveLength(15);
    expect(faceRegion(plate, [0, 0, 0], up, 'face')).toHaveLength(0);
  });
  it('pulls out keeping each cube’s colour, pushes in until it is through, and stops at what stands above', () => {
    const pull = {
      cell: [2, 0, 0] as Vec3,
      normal: up,
      reach: 'face' as const,
      layers: 3,
      value: null,
      symmetry: NO_SYMMETRY,
    };
    const out = extrude(plate, plate, pull);
    expect(out.count).toBe(plate.count + 33);
    expect([out.get(1, 3, 0), out.get(2, 3, 0)]).toEqual([2, 1]);
    expect(extrude(out, out, { ...pull, cell: [2, 3, 0], layers: -3 }).equals(plate)).toBe(true);
    expect(extrude(plate, plate, { ...pull, layers: -5 }).count).toBe(plate.count - 11);
    const roof = plate.edit((d) => d.set(2, 2, 2, 5));
    expect(extrude(roof, roof, pull).get(2, 3, 2)).toBe(0);
  });
  it('pulls the other side too when mirrored', () => {
    const pair = empty.edit((d) => {
      d.fillBox({ min: [4, 0, 0], size: [2, 2, 2] }, 1);
      d.fillBox({ min: [-6, 0, 0], size: [2, 2, 2] }, 1);
    });
    const out = extrude(pair, pair, {
      cell: [5, 0, 0],
      normal: [1, 0, 0],
      reach: 'face',
      layers: 2,
      value: 4,
      symmetry: { mirror: [0, null, null], radial: null },
    });
    expect([out.get(7, 1, 1), out.get(-8, 1, 1), out.count]).toEqual([4, 4, 32]);
  });
  it('turned copies repeat what the first face did, quarter turns exactly', () => {
    const radial = { axis: 1 as const, count: 4, centre: [0, 0] as [number, number] };
    const posts = applyStroke(empty, empty, {
      verb: 'add',
      value: 2,
      shapes: [{ kind: 'box', box: { min: [4, 0, -1], size: [2, 2, 2] } }],
      symmetry: { mirror: [null, null, null], radial },
    });
    expect(posts.count).toBe(32);
    const out = extrude(posts, posts, {
      cell: [5, 0, 0],
      normal: [1, 0, 0],
      reach: 'face',
      layers: 2,
      value: null,
      symmetry: { mirror: [null, null, null], radial },
    });
    expect(out.count).toBe(64);
    expect([out.get(7, 0, 0), out.get(-8, 0, 0), out.get(0, 0, 7), out.get(0, 0, -8)]).toEqual([2, 2, 2, 2]);
  });
});

describe('columns', () => {
  it('of cells reach through a box along an axis, and hold nothing that does not lie before or behind one of them', () => {
    const box: Box = { min: [-2, 1, 0], size: [5, 4, 6] };
    const cells = CellSet.ofCells([
      [-1, 2, 3],
      [0, 2, 3],
      [2, 4, 0],
      [9, 2, 3],
    ]);
    for (const axis of [0, 1, 2] as const) {
      const out = columnsOf(cells, axis, box);
      const meant = new CellSet(box);
      for (let x = -2; x < 3; x++)
        for (let y = 1; y < 5; y++)
          for (let z = 0; z < 6; z++) {
            let seen = false;
            cells.forEach((...c) => (seen ||= c.every((v, i) => i === axis || v === [x, y, z][i])));
            if (seen) meant.addRun(x, x + 1, y, z);
          }
      expect(out.count).toBe(meant.count);
      expect(out.minus(meant).isEmpty).toBe(true);
    }
  });
});
