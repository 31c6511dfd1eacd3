import { describe, expect, it } from 'vitest';
import { type Vec3, quatFromAxisAngle, seededRandom, transformPoint } from '../math';
import {
  type Clip,
  EMPTY_RIG,
  PLAIN_BONE,
  PLAIN_CLIP,
  type Project,
  composite,
  idsFrom,
  makePart,
  makeProject,
  makeMount,
} from '../model';
import { VoxelGrid } from '../voxel';
import { placeParts } from '../rig';
import { frameTimes, sampleClip } from '../motion';
import { clashes, contactReport, outerCorners } from '.';

/** A foot on a bone at a height: a slab of 3 × 1 × 5 with a toe, and a post that stands beside it. */
function figure(height = 0): Project {
  const p = makeProject('p', 'P', idsFrom('p')),
    box = { min: [-4, 0, -4] as Vec3, size: [9, 9, 9] as Vec3 };
  const fill = (cells: [Vec3, Vec3][]): VoxelGrid =>
    VoxelGrid.empty(box).edit((d) => cells.forEach(([min, size]) => d.fillBox({ min, size }, 2)));
  const part = (id: string, grid: VoxelGrid) => ({
    ...makePart(id, `${id}l`, id, p.palettes[0]!.id, box, { pivot: [0, 0, 0] }),
    layers: [{ id: `${id}l`, name: 'Cubes', hidden: false, locked: false, grid }],
  });
  const bone = (id: string, t: Vec3) => ({
    ...PLAIN_BONE,
    id,
    name: id,
    side: 'centre' as const,
    parent: null,
    rest: { t, q: [0, 0, 0, 1] as const, s: [1, 1, 1] as const },
  });
  return {
    ...p,
    parts: [
      part(
        'foot',
        fill([
          [
            [-1, 0, -2],
            [3, 1, 5],
          ],
          [
            [0, 1, 2],
            [1, 1, 1],
          ],
        ]),
      ),
      part(
        'post',
        fill([
          [
            [0, 0, 0],
            [2, 6, 2],
          ],
        ]),
      ),
    ],
    rig: {
      ...EMPTY_RIG,
      bones: [bone('f', [0, height, 0]), bone('s', [10, 0, 0])],
      mounts: [makeMount('mf', 'foot', 'f'), makeMount('ms', 'post', 's')],
    },
  };
}
const clip = (lanes: Clip['lanes'], length = 600): Clip => ({
  ...PLAIN_CLIP,
  id: 'c',
  name: 'C',
  length,
  fps: 24,
  loop: false,
  lanes,
});
const moves = (bone: string, ...keys: [number, Vec3][]): Clip['lanes'][number] => ({
  bone,
  turn: [],
  hinge: [],
  scale: [],
  move: keys.map(([time, value]) => ({ time, ease: 'linear', value })),
});

describe('contact', () => {
  it('the lowest of the outer corners is the lowest of all corners, whichever way a heap is turned', () => {
    const random = seededRandom(11);
    for (let n = 0; n < 12; n++) {
      const grid = VoxelGrid.empty({ min: [-3, -3, -3], size: [7, 7, 7] }).edit((d) => {
        for (let i = 0; i < 30; i++)
          d.set(Math.floor(random() * 7) - 3, Math.floor(random() * 7) - 3, Math.floor(random() * 7) - 3, 1);
      });
      const all: Vec3[] = [];
      grid.forEach((x, y, z) => {
        for (let c = 0; c < 8; c++) all.push([x + (c & 1), y + ((c >> 1) & 1), z + (c >> 2)]);
      });
      const outer = outerCorners(grid);
      expect(outer.length).toBeLessThan(all.length);
      for (let k = 0; k < 20; k++) {
        const d = [random() - 0.5, random() - 0.5, random() - 0.5],
          low = (list: readonly Vec3[]): number =>
            Math.min(...list.map((v) => v[0] * d[0]! + v[1] * d[1]! + v[2] * d[2]!));
        expect(low(outer)).toBeCloseTo(low(all), 12);
      }
    }
  });
  it('depth and height agree with every corner of every cube at every frame', () => {
    const p = figure(1),
      c = clip([
        {
          bone: 'f',
          move: [
            { time: 0, ease: 'ease', value: [0, 0, 0] },
            { time: 600, ease: 'ease', value: [0, -2, 1] },
          ],
          turn: [
            { time: 0, ease: 'ease', value: [0, 0, 0, 1] },
            { time: 500, ease: 'ease', value: quatFromAxisAngle([1, 0, 0], 0.7) },
          ],
          hinge: [],
          scale: [],
        },
      ]);
    const report = contactReport(p, c),
      foot = report.tracks.find((t) => t.part === 'foot')!;
    const brute = frameTimes(c).map((t) => {
      const { part, matrix } = placeParts(p, sampleClip(c, p.rig, t)).find((o) => o.part.id === 'foot')!;
      let low = Infinity;
      composite(part).forEach((x, y, z) => {
        for (let k = 0; k < 8; k++)
          low = Math.min(low, transformPoint(matrix, [x + (k & 1), y + ((k >> 1) & 1), z + (k >> 2)])[1]);
      });
      return low;
    });
    foot.height.forEach((h, i) => expect(h).toBeCloseTo(brute[i]!, 9));
    expect(report.depth.by).toBeCloseTo(-Math.min(...brute), 9);
    expect(brute[report.depth.frame]).toBeCloseTo(Math.min(...brute), 9);
    expect(report.times).toHaveLength(13);
  });
  it('a foot that goes over still ground slides by what it moves; on the spot the ground goes with it, until it is faster', () => {
    const p = figure(),
      steady = clip([moves('f', [0, [0, 0, 6]], [600, [0, 0, -6]])]);
    const still = contactReport(p, steady, [0, 0]);
    expect([still.slide.by, still.slide.part]).toEqual([expect.closeTo(1, 9), 'foot']);
    expect(still.tracks.find((t) => t.part === 'post')!.slide.every((v) => v === 0)).toBe(true);
    // Without the post, which stands still, the ground is found to go back by one a frame.
    const walk = contactReport(
      { ...p, parts: p.parts.slice(0, 1), rig: { ...p.rig, mounts: p.rig.mounts.slice(0, 1) } },
      steady,
    );
    expect([walk.ground[1], walk.slide.by]).toEqual([expect.closeTo(-1, 9), expect.closeTo(0, 9)]);
    const jerk = contactReport(
      { ...p, parts: p.parts.slice(0, 1), rig: { ...p.rig, mounts: p.rig.mounts.slice(0, 1) } },
      clip([moves('f', [0, [0, 0, 6]], [500, [0, 0, -4]], [550, [0, 0, -8]], [600, [0, 0, -9]])]),
    );
    expect([jerk.slide.by, jerk.slide.frame]).toEqual([expect.closeTo(3, 9), 10]);
    // In the air nothing slides.
    expect(contactReport(p, clip([moves('f', [0, [0, 3, 6]], [600, [0, 3, -6]])]), [0, 0]).slide.by).toBe(0);
  });
});

describe('ground of one’s own', () => {
  const alone = (): Project => {
    const p = figure();
    return { ...p, parts: p.parts.slice(0, 1), rig: { ...p.rig, mounts: p.rig.mounts.slice(0, 1) } };
  };
  const on = (floor: Clip['floor'], ...keys: [number, Vec3][]): Clip => ({ ...clip([moves('f', ...keys)]), floor });
  const STAIRS = { height: 0, rise: 3, run: 6 };
  // The foot is five long, from −2 to 3: on the first step at z = 2, on the next at z = 8.
  it('steps are climbed over their edge, not through it', () => {
    const through = contactReport(alone(), on(STAIRS, [0, [0, 0, 2]], [600, [0, 3, 8]]), [0, 0]);
    // From a sixth of the way on the toe is beyond the edge, and as high as it has come by then.
    const brute = frameTimes(on(null)).map((t) => (t / 600 > 1 / 6 + 1e-9 ? (3 * t) / 600 - 3 : (3 * t) / 600));
    through.tracks[0]!.height.forEach((h, i) => expect(h).toBeCloseTo(brute[i]!, 6));
    expect(through.depth.by).toBeCloseTo(-Math.min(...brute), 6);
    const over = on(STAIRS, [0, [0, 0, 2]], [300, [0, 3, 2]], [600, [0, 3, 8]]);
    expect(contactReport(alone(), over, [0, 0]).depth.by).toBeCloseTo(0, 9);
  });
  it('on the spot steps come towards the figure and sink, a slope stays; what stands on them goes along', () => {
    // Half a unit back and, as the stairs rise by half, a quarter down a frame.
    const steady = on(STAIRS, [0, [0, 0, 2]], [600, [0, -3, -4]]);
    const climbed = contactReport(alone(), steady);
    expect(climbed.ground[1]).toBeCloseTo(-0.5, 9);
    expect([climbed.depth.by, climbed.slide.by]).toEqual([expect.closeTo(0, 6), expect.closeTo(0, 6)]);
    const slope = { height: -2.5, rise: 0.5, run: 0 };
    const flat = contactReport(alone(), on(slope, [0, [0, 0, 2]], [600, [0, -3, -4]]));
    // Its toe touches at z = 5, where the slope has come up to nothing, and goes on doing so.
    expect(flat.tracks[0]!.height.every((h) => Math.abs(h) < 1e-9)).toBe(true);
    expect([flat.ground[1], flat.slide.by]).toEqual([expect.closeTo(-0.5, 9), expect.closeTo(0, 9)]);
  });
});

describe('parts that pass through each other', () => {
  it('are counted by cubes beyond those at rest, at the worst frame; bones of one joint are left alone', () => {
    const p = figure(),
      c = clip([moves('f', [0, [0, 0, 0]], [500, [10, 0, 0]], [600, [10, 1, 0]])]);
    expect(clashes(p, c)).toEqual([{ a: 'foot', b: 'post', cubes: 4, frame: 10 }]);
    const joined: Project = {
      ...p,
      rig: { ...p.rig, bones: p.rig.bones.map((b) => (b.id === 's' ? { ...b, parent: 'f', rest: { ...b.rest } } : b)) },
    };
    expect(clashes(joined, c)).toEqual([]);
    const inside: Project = {
      ...p,
      rig: {
        ...p.rig,
        bones: p.rig.bones.map((b) => (b.id === 's' ? { ...b, rest: { ...b.rest, t: [0, 0, 0] } } : b)),
      },
    };
    expect(clashes(inside, clip([moves('f', [0, [0, 0, 0]])]))).toEqual([]);
  });
});
