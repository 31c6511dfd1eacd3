import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Box, type Vec3, matrixOf, quatFromAxisAngle, transformPoint, mapVec } from '../math';
import {
  EMPTY_RIG,
  type Part,
  type Project,
  composite,
  find,
  idsFrom,
  makeProject,
  projectFromJson,
  projectToJson,
} from '../model';
import { placeParts } from '../rig';
import { boxStroke } from '../sculpt';
import { VoxelGrid, mirrorImage } from '../voxel';
import { type Edit, apply, checkProject, editContext, findTwins, mirroredTransform } from '.';
import * as edits from './edits';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`twins ${n++}`, 1000));
const box = (min: Vec3, size: Vec3): Box => ({ min, size });
/** Hips with a left and a right leg of its own cubes on a bone each; the right one lacks a cube. `shift` moves all of it in the world. */
function legs(shift = 0): Project {
  let p: Project = { ...makeProject('p', 'Legs', idsFrom('legs')), parts: [], rig: EMPTY_RIG };
  p = run(p, edits.addBoneEdit, { name: 'Hips', parent: null, t: [shift, 10, 0] });
  for (const side of ['left', 'right'] as const) {
    const x = side === 'left' ? 2 : -5;
    p = run(p, edits.addBoneEdit, {
      name: 'Leg',
      side,
      parent: p.rig.bones[0]!.id,
      t: [side === 'left' ? 3.5 : -3.5, 0, 0],
    });
    p = run(p, edits.addPartEdit, {
      name: 'Leg',
      side,
      bounds: box([x, 0, -2], [3, 10, 5]),
      pivot: [2 * x + 3, 20, 0],
      bone: p.rig.bones.at(-1)!.id,
    });
    const part = p.parts.at(-1)!;
    const put = (value: number, min: Vec3, size: Vec3): void => {
      p = run(p, edits.strokeEdit, {
        part: part.id,
        layer: part.layers[0]!.id,
        stroke: boxStroke(value === 0 ? 'erase' : 'add', value, [box(min, size)]),
      });
    };
    put(3, [x, 0, -1], [3, 10, 3]);
    put(4, [side === 'left' ? 4 : -5, 3, 2], [1, 2, 1]);
    if (side === 'right') put(0, [-4, 0, 1], [1, 1, 1]);
  }
  return p;
}
const leg = (p: Project, side: 'left' | 'right'): Part => p.parts.find((o) => o.name === 'Leg' && o.side === side)!;
/** Cubes of one part, by where their middles stand in the world, with x mirrored across a plane when asked. */
const world = (p: Project, part: Part, plane: number | null = null): string[] => {
  const out: string[] = [];
  const { matrix } = placeParts(p).find((o) => o.part.id === part.id)!;
  composite(part).forEach((x, y, z, v) => {
    const w = transformPoint(matrix, [x + 0.5, y + 0.5, z + 0.5]);
    out.push(
      `${[plane === null ? w[0] : 2 * plane - w[0], w[1], w[2]].map((c) => Math.round(c * 1e5) / 1e5 || 0).join()} ${v}`,
    );
  });
  return out.sort();
};
const paired = (shift = 0): Project => {
  const p = legs(shift),
    [pair] = findTwins(p);
  return run(p, edits.makeTwinsEdit, { pairs: [{ part: pair!.other.id, source: pair!.source.id, ...pair!.twin }] });
};
const mirrored = (p: Project, plane = 0): void =>
  expect(world(p, leg(p, 'right'))).toEqual(world(p, leg(p, 'left'), plane));
const stroke = (p: Project, side: 'left' | 'right', value: number, min: Vec3, size: Vec3): Project => {
  const part = leg(p, side);
  return run(p, edits.strokeEdit, {
    part: part.id,
    layer: part.layers.at(-1)!.id,
    stroke: boxStroke('paint', value, [box(min, size)]),
  });
};

describe('mirrored twins', () => {
  it('are found though a cube differs, with the cube and the plane between them', () => {
    for (const shift of [0, 3.5]) {
      const pairs = findTwins(legs(shift));
      expect(pairs).toHaveLength(1);
      expect([pairs[0]!.source.side, pairs[0]!.other.side, pairs[0]!.twin]).toEqual([
        'left',
        'right',
        { axis: 0, plane: shift },
      ]);
      const odd: Vec3[] = [];
      pairs[0]!.differ.forEach((...c) => odd.push(c));
      expect(odd).toEqual([[-4, 0, 1]]);
    }
  });
  it('become the mirror image at once, and stay so whichever side is worked on', () => {
    let p = paired(2);
    mirrored(p, 2);
    p = stroke(p, 'left', 7, [2, 4, -1], [1, 3, 1]);
    expect(composite(leg(p, 'left')).get(2, 5, -1)).toBe(7);
    mirrored(p, 2);
    const image = leg(p, 'right').bounds;
    p = stroke(p, 'right', 9, image.min, [3, 1, 3]);
    expect(world(p, leg(p, 'left')).some((s) => s.endsWith(' 9'))).toBe(true);
    mirrored(p, 2);
    for (const side of ['left', 'right'] as const) {
      p = run(p, edits.refinePartEdit, { part: leg(p, side).id, by: 2 });
      p = run(p, edits.addLayerEdit, { part: leg(p, side).id, name: `On ${side}`, above: leg(p, side).layers[0]!.id });
      p = run(p, edits.coarsenPartEdit, { part: leg(p, side).id, by: 2 });
      p = run(p, edits.shrinkPartEdit, { part: leg(p, side).id });
      mirrored(p, 2);
    }
    expect(leg(p, 'left').layers.map((l) => l.name)).toEqual(leg(p, 'right').layers.map((l) => l.name));
    const ids = p.parts.flatMap((o) => o.layers.map((l) => l.id));
    expect(new Set(ids).size).toBe(ids.length);
    expect([checkProject(p).length, checkProject(legs(2)).map((f) => f.text)]).toEqual([
      0,
      ['“Leg right” has 91 cubes, its other side 92.'],
    ]);
  });
  it('pivot and mount go along, on turned bones too; with a joint moved, the other side’s joint', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: -8, max: 8 }), fc.integer({ min: -8, max: 8 }), fc.integer({ min: -8, max: 8 })),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.boolean(),
        (by, angle, left) => {
          let p = paired();
          p = run(p, edits.setRestEdit, {
            bone: p.rig.bones[2]!.id,
            rest: { q: quatFromAxisAngle([0, 0.6, 0.8], angle) },
          });
          const side = left ? ('left' as const) : ('right' as const);
          // The twin's own bone was turned, and the twin with it; the next change of a mount mirrors its place again.
          p = run(p, edits.setPivotEdit, {
            part: leg(p, side).id,
            pivot: mapVec(leg(p, side).pivot, (v, i) => v + by[i]! + (i === 0 && by.every((d) => d === 0) ? 1 : 0)),
          });
          mirrored(p);
        },
      ),
      { numRuns: 25 },
    );
    const p = paired();
    const joint = (q: Project, side: string): Vec3 => q.rig.bones.find((b) => b.side === side)!.rest.t;
    const moved = run(p, edits.moveJointEdit, { bone: p.rig.bones[1]!.id, delta: [1, -2, 0.5] });
    expect([joint(moved, 'left'), joint(moved, 'right')]).toEqual([
      [4.5, -2, 0.5],
      [-4.5, -2, 0.5],
    ]);
    expect(leg(moved, 'right').pivot).toEqual([
      -leg(moved, 'left').pivot[0],
      leg(moved, 'left').pivot[1],
      leg(moved, 'left').pivot[2],
    ]);
    for (const side of ['left', 'right'] as const)
      expect(world(moved, leg(moved, side))).toEqual(world(p, leg(p, side)));
  });
  it('stand for themselves when told so, or when their source is gone; twins of twins are refused', () => {
    const p = paired(),
      right = leg(p, 'right'),
      left = leg(p, 'left');
    const free = run(p, edits.makeIndependentEdit, { part: right.id });
    expect(world(stroke(free, 'left', 7, [2, 4, -1], [1, 3, 1]), right)).toEqual(world(p, right));
    const alone = run(p, edits.deletePartEdit, { part: left.id });
    expect([leg(alone, 'right').twin, composite(leg(alone, 'right')).count]).toEqual([null, composite(right).count]);
    const third = run(p, edits.duplicatePartEdit, { part: left.id }),
      copy = third.parts.find((o) => o.name === 'Leg 2')!;
    const twins = (part: string, source: string) => (): Project =>
      run(third, edits.makeTwinsEdit, { pairs: [{ part, source, axis: 0, plane: 0 }] });
    expect(twins(copy.id, right.id)).toThrow(/follows another part already/);
    expect(twins(left.id, copy.id)).toThrow(/Another part follows “Leg”/);
    expect(twins(left.id, left.id)).toThrow(/cannot follow itself/);
    expect(() =>
      run(p, edits.cellsToPartEdit, { part: right.id, cells: findTwins(legs())[0]!.differ, name: 'Chip' }),
    ).toThrow(/follows its other side/);
    // Only the shape is shared: hiding one hides one.
    expect(find(run(p, edits.setPartHiddenEdit, { part: right.id, hidden: true }).parts, left.id)!.hidden).toBe(false);
  });
  it('come back from storage as they were', () => {
    const p = paired();
    const grids: VoxelGrid[] = [];
    const { formatVersion: _, ...json } = projectToJson(p, {
      cells: (grid) => grids.push(grid) - 1,
      bytes: () => null,
    });
    const again = projectFromJson(JSON.parse(JSON.stringify(json)), {
      cells: (i) => grids[i as number]!,
      bytes: () => new Uint8Array(),
    });
    expect(again.parts).toEqual(p.parts);
    mirrored(stroke(again, 'left', 7, [2, 4, -1], [1, 3, 1]));
  });
});

describe('mirror images', () => {
  it('of grids hold every cube once, mirrored, whatever the place; twice is the grid itself; an edit makes only its bricks anew', () => {
    const cells = fc.array(
      fc.tuple(
        fc.integer({ min: -40, max: 40 }),
        fc.integer({ min: -20, max: 20 }),
        fc.integer({ min: -5, max: 30 }),
        fc.integer({ min: 1, max: 255 }),
      ),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(cells, fc.constantFrom(0 as const, 1 as const, 2 as const), (list, axis) => {
        const grid = VoxelGrid.empty(box([-40, -20, -5], [81, 41, 36])).edit((d) =>
          list.forEach(([x, y, z, v]) => d.set(x, y, z, v)),
        );
        const image = mirrorImage(grid, axis);
        expect(image.count).toBe(grid.count);
        grid.forEach((x, y, z, v) => {
          const c: [number, number, number] = [x, y, z];
          c[axis] = -1 - c[axis]!;
          expect(image.get(...c)).toBe(v);
        });
        expect(mirrorImage(image, axis)).toBe(grid);
      }),
      { numRuns: 30 },
    );
    const full = VoxelGrid.empty(box([0, 0, 0], [64, 64, 64])).edit((d) => {
      for (let i = 0; i < 64; i++) d.fillBox(box([i, 0, 0], [1, 64, 64]), 1 + (i % 3));
    });
    expect(
      mirrorImage(
        full.edit((d) => d.set(3, 3, 3, 9)),
        0,
      ).changedBricks(mirrorImage(full, 0)),
    ).toEqual([[-1, 0, 0]]);
  });
  it('of places take points of the mirrored lattice to the mirrored points', () => {
    const t = { t: [1, 2, 3] as Vec3, q: quatFromAxisAngle([0.6, 0, 0.8], 0.9), s: [2, 2, 2] as Vec3 };
    for (const axis of [0, 1, 2] as const) {
      const at = (v: Vec3, plane: number): Vec3 => mapVec(v, (c, i) => (i === axis ? 2 * plane - c : c));
      const p: Vec3 = [0.5, -1, 4];
      transformPoint(matrixOf(mirroredTransform(t, axis, 5)), at(p, 0)).forEach((c, i) =>
        expect(c).toBeCloseTo(at(transformPoint(matrixOf(t), p), 5)[i]!, 9),
      );
    }
  });
});
