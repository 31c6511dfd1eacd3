import { describe, expect, it } from 'vitest';
import { type Vec3, transformPoint, mapVec } from '../../math';
import {
  type Project,
  composite,
  helperCount,
  idsFrom,
  looseParts,
  makeProject,
  partContent,
  withoutHelpers,
} from '../../model';
import { freeByte, makeSwatch } from '../../palette';
import { REST_POSE, placeParts } from '../../rig';
import { NO_SYMMETRY, type Shape, boxStroke, cutOut } from '../../sculpt';
import { CellSet, VoxelGrid } from '../../voxel';
import { type Edit, apply, editContext, heightOverFloor, restVolumes, summarize } from '..';
import * as edits from '.';

let n = 0;
function hand(project: Project = makeProject('p', 'Boathouse', idsFrom('boathouse'), 'prop', [12, 10, 12])) {
  const h = {
    p: project,
    do<A>(edit: Edit<A>, args: A) {
      h.p = apply(h.p, edit, args, editContext(`build test ${n++}`, 1000 + n));
      return h;
    },
    body: () => h.p.parts[0]!,
    seen: () => composite(h.p.parts[0]!),
    on: (i = 0) => ({ part: h.p.parts[0]!.id, layer: h.p.parts[0]!.layers[i]!.id }),
    add: (value: number, min: Vec3, size: Vec3, layer = 0) =>
      h.do(edits.strokeEdit, { ...h.on(layer), stroke: boxStroke('add', value, [{ min, size }]) }),
  };
  return h;
}
/** Where every cube's corner stands in the world, with its colour. */
const places = (p: Project): string[] => {
  const out: string[] = [];
  for (const { part, matrix } of placeParts(p, REST_POSE))
    composite(part).forEach((x, y, z, v) =>
      out.push(
        `${transformPoint(matrix, [x, y, z])
          .map((c) => Math.round(c * 1e6) / 1e6)
          .join()} ${v}`,
      ),
    );
  return out.sort();
};

describe('standing', () => {
  it('on the floor goes all that stands, bones and parts, by one step; clips and what hangs on what stay', () => {
    const h = hand().add(3, [0, -0, 0], [2, 4, 2]);
    h.do(edits.addPartEdit, { name: 'Root', bounds: { min: [0, -7, 0], size: [3, 6, 3] }, pivot: [0, 0, 0] });
    const root = h.p.parts[1]!;
    h.do(edits.strokeEdit, {
      part: root.id,
      layer: root.layers[0]!.id,
      stroke: boxStroke('add', 2, [{ min: [0, -7, 0], size: [1, 5, 1] }]),
    });
    h.do(edits.addBoneEdit, { name: 'Hip', parent: null, t: [0, 2, 0] });
    const hip = h.p.rig.bones[0]!.id;
    h.do(edits.addBoneEdit, { name: 'Leg', parent: hip, t: [0, -1, 0] });
    h.do(edits.mountPartsEdit, { pairs: [{ part: root.id, bone: h.p.rig.bones[1]!.id }] });
    expect(heightOverFloor(h.p)).toBeCloseTo(-7, 9);
    const before = places(h.p);
    h.do(edits.standOnFloorEdit, {});
    expect(heightOverFloor(h.p)).toBeCloseTo(0, 9);
    const up = (line: string): string => {
      const [place, value] = line.split(' ') as [string, string],
        [x, y, z] = place.split(',').map(Number) as [number, number, number];
      return `${x},${y + 7},${z} ${value}`;
    };
    expect(places(h.p)).toEqual(before.map(up).sort());
    expect(h.p.rig.bones.map((o) => o.rest.t)).toEqual([
      [0, 9, 0],
      [0, -1, 0],
    ]);
    // Once more changes nothing; with nothing there it says so.
    const stood = h.p;
    h.do(edits.standOnFloorEdit, {});
    expect(h.p).toBe(stood);
    expect(() => hand().do(edits.standOnFloorEdit, {})).toThrow(/Nothing stands here/);
  });
  it('a part is moved by numbers wherever it hangs, its bone staying', () => {
    const h = hand().add(3, [0, 0, 0], [2, 2, 2]);
    h.do(edits.addBoneEdit, { name: 'Hip', parent: null, t: [1, 2, 3], q: [0, Math.SQRT1_2, 0, Math.SQRT1_2] });
    h.do(edits.mountPartsEdit, { pairs: [{ part: h.body().id, bone: h.p.rig.bones[0]!.id }] });
    const before = places(h.p),
      bones = h.p.rig.bones;
    h.do(edits.shiftPartEdit, { part: h.body().id, by: [5, 0, -2] });
    expect(h.p.rig.bones).toBe(bones);
    const moved = (line: string): string => {
      const [place, value] = line.split(' ') as [string, string],
        [x, y, z] = place.split(',').map(Number) as [number, number, number];
      return `${x + 5},${y},${z - 2} ${value}`;
    };
    expect(places(h.p)).toEqual(before.map(moved).sort());
  });
  it('the volume of each part is known where it stands, hidden or not, and which hang on no bone', () => {
    const h = hand();
    h.do(edits.addPartEdit, { name: 'Keel', bounds: { min: [1, 2, 3], size: [4, 5, 6] }, at: [10, 0, -10] });
    const [body, keel] = h.p.parts.map((o) => o.id) as [string, string];
    const { lo, hi } = restVolumes(h.p).get(keel)!;
    expect(mapVec(hi, (v, i) => v - lo[i]!)).toEqual([4, 5, 6]);
    h.do(edits.shiftPartEdit, { part: keel, by: [1, 0, 0] });
    h.do(edits.setPartHiddenEdit, { part: keel, hidden: true });
    expect(restVolumes(h.p).get(keel)!.lo).toEqual([lo[0] + 1, lo[1], lo[2]]);
    h.do(edits.addBoneEdit, { name: 'Hip', parent: null, t: [0, 0, 0] });
    h.do(edits.mountPartsEdit, { pairs: [{ part: body, bone: h.p.rig.bones[0]!.id }] });
    expect(looseParts(h.p).map((o) => o.id)).toEqual([keel]);
  });
});

describe('pieces from another palette', () => {
  it('bring their colours along in the one step that sets them down, whatever stands under those bytes by then', () => {
    const h = hand();
    const piece = (byte: number) =>
      VoxelGrid.empty({ min: [0, 0, 0], size: [2, 1, 1] }).edit((d) => {
        d.set(0, 0, 0, byte);
        d.set(1, 0, 0, 1);
      });
    const swatch = (byte: number) => makeSwatch(byte, 'Foreign', '#123456');
    const colourOf = (v: number) => h.p.palettes[0]!.swatches.find((s) => s.byte === v)?.colour;
    const free = freeByte(h.p.palettes[0]!);
    const place = { ...h.on(), clear: null, title: 'Paste' };
    h.do(edits.placeCellsEdit, { ...place, put: [piece(free)], swatches: [swatch(free)] });
    expect([h.seen().get(0, 0, 0), colourOf(free), h.seen().get(1, 0, 0)]).toEqual([free, '#123456', 1]);
    const count = h.p.palettes[0]!.swatches.length;
    h.do(edits.placeCellsEdit, { ...place, put: [piece(free)], swatches: [swatch(free)] });
    expect(h.p.palettes[0]!.swatches).toHaveLength(count);
    h.do(edits.placeCellsEdit, { ...place, put: [piece(1)], swatches: [swatch(1)] });
    expect(h.p.palettes[0]!.swatches).toHaveLength(count + 1);
    expect([colourOf(h.seen().get(0, 0, 0)), colourOf(1) === '#123456']).toEqual(['#123456', false]);
  });
});

describe('layers', () => {
  it('are added, named, ordered, hidden, locked and merged', () => {
    const h = hand().add(1, [0, 0, 0], [3, 1, 1]);
    h.do(edits.addLayerEdit, { part: h.body().id, name: 'Trim' }).add(2, [3, 0, 0], [1, 1, 1], 1);
    h.do(edits.setLayerEdit, { ...h.on(1), name: 'Cubes' });
    expect(h.body().layers.map((l) => l.name)).toEqual(['Cubes', 'Cubes 2']);
    h.do(edits.setLayerEdit, { ...h.on(1), locked: true });
    expect(() => h.add(2, [5, 0, 0], [1, 1, 1], 1)).toThrow(/locked/);
    expect(() => h.do(edits.mergeLayerEdit, h.on(1))).toThrow(/locked/);
    h.do(edits.setLayerEdit, { ...h.on(1), locked: false, hidden: true });
    expect(h.seen().count).toBe(3);
    h.do(edits.setLayerEdit, { ...h.on(1), hidden: false }).do(edits.moveLayerEdit, { ...h.on(1), index: 0 });
    expect(h.body().layers.map((l) => l.grid.count)).toEqual([1, 3]);
    h.do(edits.mergeLayerEdit, h.on(1));
    expect(h.body().layers.map((l) => l.grid.count)).toEqual([4]);
    expect(() => h.do(edits.mergeLayerEdit, h.on(0))).toThrow(/lowest layer/);
    expect(() => h.do(edits.deleteLayerEdit, h.on(0))).toThrow(/only layer/);
  });
  it('a deleted layer lies in the bin as a part and comes back to the same place', () => {
    const h = hand().add(1, [0, 0, 0], [2, 2, 2]);
    h.do(edits.addLayerEdit, { part: h.body().id, name: 'Trim' }).add(2, [4, 0, 0], [1, 1, 1], 1);
    const before = places(h.p);
    h.do(edits.deleteLayerEdit, h.on(1));
    expect(h.seen().count).toBe(8);
    h.do(edits.restoreEdit, { item: h.p.bin[0]!.id });
    expect(places(h.p)).toEqual(before);
    h.do(edits.layPartOverEdit, { part: h.body().id, other: h.p.parts[1]!.id });
    expect(h.body().layers.map((l) => l.grid.count)).toEqual([8, 1]);
    expect(places(h.p)).toEqual(before);
    expect(h.p.bin).toHaveLength(1);
    expect(() => h.do(edits.layPartOverEdit, { part: h.body().id, other: h.body().id })).toThrow(/over itself/);
  });
  it('cells go to a layer or a part of their own without moving', () => {
    const h = hand().add(1, [-2, 0, -2], [4, 4, 4]).add(3, [-2, 4, -2], [4, 1, 4]);
    const before = places(h.p);
    const top = CellSet.ofBox({ min: [-6, 3, -6], size: [12, 2, 12] });
    h.do(edits.cellsToLayerEdit, { ...h.on(), cells: top, name: 'Lid' });
    expect(h.body().layers.map((l) => [l.name, l.grid.count])).toEqual([
      ['Cubes', 48],
      ['Lid', 32],
    ]);
    h.do(edits.cellsToPartEdit, { part: h.body().id, cells: top, name: 'Lid' });
    expect(h.p.parts.map((p) => composite(p).count)).toEqual([48, 32]);
    expect(places(h.p)).toEqual(before);
    expect(() => h.do(edits.cellsToPartEdit, { part: h.body().id, cells: top, name: 'Lid' })).toThrow(
      /no cubes of “Body”/,
    );
  });
});

describe('volumes', () => {
  it('growing, shrinking, halving: cubes, pivot and mount stay in the world; cutting is refused unless told', () => {
    const h = hand()
      .add(1, [-3, 0, -3], [6, 8, 6])
      .do(edits.addBoneEdit, { name: 'Post', parent: null, t: [1, 2, 3] });
    h.do(edits.mountPartEdit, { part: h.body().id, bone: h.p.rig.bones[0]!.id }).do(edits.setPivotEdit, {
      part: h.body().id,
      pivot: [1, 3, 5],
    });
    const before = places(h.p),
      pivot = h.body().pivot;
    h.do(edits.resizePartEdit, { part: h.body().id, bounds: { min: [-10, 0, -10], size: [20, 10, 20] } });
    h.do(edits.shrinkPartsEdit, { parts: h.p.parts.map((p) => p.id) });
    expect(h.body().bounds).toEqual({ min: [-3, 0, -3], size: [6, 8, 6] });
    expect(places(h.p)).toEqual(before);
    expect(h.body().pivot).toBe(pivot);
    expect(() =>
      h.do(edits.resizePartEdit, { part: h.body().id, bounds: edits.resizedBox(h.body().bounds, [3, 4, 3]) }),
    ).toThrow(/cut off 252 cubes/);
    h.do(edits.resizePartEdit, { part: h.body().id, bounds: edits.resizedBox(h.body().bounds, [4, 4, 4]), cut: true });
    expect(h.seen().count).toBe(64);
  });
  it('a stroke may grow the volume, as far as a part goes', () => {
    const h = hand();
    h.do(edits.strokeEdit, {
      ...h.on(),
      grow: true,
      stroke: boxStroke('add', 1, [{ min: [4, 0, 0], size: [10, 1, 1] }], [0, null, null]),
    });
    expect([h.body().bounds.min[0], h.body().bounds.size[0], h.seen().count]).toEqual([-14, 28, 20]);
    expect(() =>
      h.do(edits.strokeEdit, {
        ...h.on(),
        grow: true,
        stroke: boxStroke('add', 1, [{ min: [0, 0, 0], size: [1, 400, 1] }]),
      }),
    ).toThrow(/at most 256 along an axis/);
  });
  it('the cutaway keeps what it hides from every stroke', () => {
    const h = hand().add(1, [-6, 0, -6], [12, 10, 12]);
    const limit = { min: [-6, 0, -6] as Vec3, size: [12, 10, 3] as Vec3 };
    h.do(edits.strokeEdit, {
      ...h.on(),
      limit,
      stroke: boxStroke('erase', 0, [{ min: [-6, 0, -6], size: [12, 10, 12] }]),
    });
    expect(h.seen().count).toBe(12 * 10 * 9);
    h.do(edits.extrudeEdit, {
      ...h.on(),
      limit: { min: [-6, 0, -6], size: [12, 9, 12] },
      extrusion: { cell: [0, 8, 0], normal: [0, 1, 0], reach: 'face', layers: -2, value: null, symmetry: NO_SYMMETRY },
    });
    expect(h.seen().get(0, 9, 0)).toBe(1);
    expect(h.seen().get(0, 8, 0)).toBe(0);
  });
  it('centre, clear and rows', () => {
    const h = hand().add(1, [-6, 3, -6], [2, 1, 2]);
    h.do(edits.centrePartEdit, { part: h.body().id, down: true });
    expect(h.seen().contentBox()).toEqual({ min: [-1, 0, -1], size: [2, 1, 2] });
    h.do(edits.setRowEdit, { part: h.body().id, axis: 0, at: 0, by: 1 });
    expect([h.seen().contentBox()!.size[0], h.body().bounds.size[0]]).toEqual([3, 13]);
    h.do(edits.setRowEdit, { part: h.body().id, axis: 0, at: 0, by: -1 }).do(edits.clearPartEdit, {
      part: h.body().id,
    });
    expect([h.seen().count, h.body().bounds.size[0]]).toEqual([0, 12]);
    expect(() => h.do(edits.centrePartEdit, { part: h.body().id })).toThrow(/empty/);
  });
  it('refined, nothing grows in the world; coarsened again it is as it was', () => {
    const h = hand().add(1, [-3, 0, -3], [6, 4, 6]);
    h.do(edits.setPivotEdit, { part: h.body().id, pivot: [1, 3, -1] });
    const corner = (p: Project) =>
      placeParts(p, REST_POSE).map(({ part, matrix }) => {
        const b = partContent(part)!;
        return [
          transformPoint(matrix, b.min),
          transformPoint(
            matrix,
            mapVec(b.min, (v, i) => v + b.size[i]!),
          ),
        ];
      });
    const before = h.p;
    h.do(edits.refinePartEdit, { part: h.body().id, by: 2 });
    expect(h.seen().count).toBe(144 * 8);
    expect(corner(h.p)).toEqual(corner(before));
    h.do(edits.coarsenPartEdit, { part: h.body().id, by: 2 });
    expect(composite(h.body()).equals(composite(before.parts[0]!))).toBe(true);
    expect(h.body().pivot).toEqual(before.parts[0]!.pivot);
    expect(() =>
      h
        .do(edits.resizePartEdit, { part: h.body().id, bounds: { min: [-80, 0, -80], size: [160, 10, 160] } })
        .do(edits.refinePartEdit, { part: h.body().id, by: 2 }),
    ).toThrow(/at most 256/);
  });
  it('fits to a size with its floor and middle in place', () => {
    const h = hand().add(1, [-2, 0, -2], [4, 4, 4]);
    h.do(edits.fitPartEdit, { part: h.body().id, size: [8, 5, 4] });
    expect(h.seen().contentBox()).toEqual({ min: [-4, 0, -2], size: [8, 5, 4] });
    expect(() => h.do(edits.fitPartEdit, { part: h.body().id, size: [300, 5, 4] })).toThrow(/at most 256/);
    expect(() => h.do(edits.fitPartEdit, { part: h.body().id, size: [0, 5, 4] })).toThrow(/whole cubes/);
  });
});

describe('pieces, stamps, helpers, references', () => {
  it('a move clears and puts down in one step; openings are mirrored', () => {
    const h = hand().add(1, [-6, 0, 2], [12, 10, 2]);
    const cells = CellSet.ofBox({ min: [-6, 9, 2], size: [2, 1, 2] });
    const piece = cutOut(h.seen(), cells)!;
    h.do(edits.placeCellsEdit, {
      ...h.on(),
      clear: cells,
      put: [VoxelGrid.fromDense({ min: [-6, 9, -6], size: [2, 1, 2] }, piece.readBox(piece.bounds))],
      title: 'Move 4 cubes',
    });
    expect([h.seen().count, h.seen().get(-6, 9, -6), h.seen().get(-6, 9, 2)]).toEqual([240, 1, 0]);
    h.do(edits.openingEdit, {
      ...h.on(),
      symmetry: { mirror: [0, null, null], radial: null },
      opening: {
        face: { min: [-5, 2, 3], size: [3, 3, 1] },
        normal: [0, 0, 1],
        border: 0,
        sill: true,
        proud: 0,
        recess: 1,
        frame: 2,
        filling: 5,
      },
    });
    expect([h.seen().get(-4, 3, 3), h.seen().get(-4, 3, 2), h.seen().get(3, 3, 2)]).toEqual([0, 5, 5]);
  });
  it('helper cubes are kept and left out of counts and of what is shipped', () => {
    const h = hand().add(1, [0, 0, 0], [2, 2, 2]).add(2, [3, 0, 0], [1, 1, 1]);
    h.do(edits.editSwatchEdit, { palette: h.p.palettes[0]!.id, byte: 2, change: { helper: true } });
    expect(helperCount(h.body(), h.p.palettes[0]!)).toBe(1);
    expect(summarize(h.p).cubes).toBe(8);
    expect(composite(withoutHelpers(h.p).parts[0]!).count).toBe(8);
    expect(h.seen().count).toBe(9);
  });
  it('stamps and reference pictures', () => {
    const h = hand().add(1, [0, 0, 0], [2, 3, 2]);
    h.do(edits.addStampEdit, { name: 'Post', cells: h.seen(), palette: h.body().palette, cell: 1 }).do(
      edits.addStampEdit,
      { name: 'Post', cells: h.seen(), palette: h.body().palette, cell: 1 },
    );
    expect(h.p.stamps.map((s) => [s.name, s.bounds.size.join('×')])).toEqual([
      ['Post', '2×3×2'],
      ['Post 2', '2×3×2'],
    ]);
    h.do(edits.renameStampEdit, { stamp: h.p.stamps[1]!.id, name: 'Pile' }).do(edits.deleteStampEdit, {
      stamp: h.p.stamps[0]!.id,
    });
    expect([h.p.stamps.map((s) => s.name), h.p.bin.length]).toEqual([['Pile'], 1]);
    const bytes = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
    h.do(edits.addReferenceEdit, {
      name: 'front',
      part: h.body().id,
      plane: 'front',
      bytes,
      at: [-6, 0],
      size: [12, 10],
    });
    h.do(edits.setReferenceEdit, { reference: h.p.references[0]!.id, change: { opacity: 0.3, at: [-5, 0] } });
    expect(h.p.references[0]).toMatchObject({ opacity: 0.3, at: [-5, 0] });
    expect(() => h.do(edits.setReferenceEdit, { reference: h.p.references[0]!.id, change: { size: [0, 1] } })).toThrow(
      /size above zero/,
    );
    h.do(edits.deletePartEdit, { part: h.body().id });
    expect(h.p.references).toEqual([]);
    h.do(edits.restoreEdit, { item: h.p.bin.at(-1)!.id });
    expect(h.p.references).toHaveLength(1);
    expect(() => h.do(edits.setProjectEdit, { target: { faces: -1 } })).toThrow(/zero means no limit/);
    expect(h.do(edits.setProjectEdit, { target: { faces: 4000 } }).p.target).toEqual({ ...h.p.target, faces: 4000 });
  });
});

describe('what the history says of a stroke', () => {
  const h = hand();
  const { name, byte } = h.p.palettes[0]!.swatches[0]!;
  const label = (verb: 'add' | 'erase' | 'paint', ...shapes: readonly Shape[]): string =>
    edits.strokeEdit.label({ ...h.on(), stroke: { verb, value: byte, shapes, symmetry: NO_SYMMETRY } }, h.p);
  const box = { min: [0, 0, 0], size: [5, 3, 1] } as const;
  const tip = { form: 'cube', size: 1, axis: 1 } as const;
  it('names the shape, its size and the swatch', () => {
    expect(label('add', { kind: 'box', box })).toBe(`Box 5×3×1 of ${name}`);
    expect(label('paint', { kind: 'ellipsoid', box })).toBe(`Ellipsoid 5×3×1 painted ${name}`);
    expect(label('erase', { kind: 'set', set: CellSet.ofBox(box) })).toBe('15 cubes erased');
    expect(label('erase', { kind: 'dabs', tip, centres: [[1, 1, 1]] })).toBe('Cube erased');
    expect(label('add', { kind: 'dabs', tip: { ...tip, size: 3 }, centres: [[1, 1, 1]] })).toBe(`Brush of ${name}`);
    expect(label('add', { kind: 'box', box }, { kind: 'box', box })).toBe(`2 shapes of ${name}`);
  });
});
