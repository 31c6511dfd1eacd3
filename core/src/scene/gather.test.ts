import { describe, expect, it } from 'vitest';
import { type Vec3, matrixOf, mulMat, quatFromAxisAngle, seededRandom, transformPoint } from '../math';
import {
  type Asset,
  NO_VARIATION,
  type Placement,
  type Project,
  type Repeat,
  idsFrom,
  makeProject,
  withPartBounds,
} from '../model';
import {
  addColourwayEdit,
  addPartEdit,
  addSceneEdit,
  apply,
  changePlacementsEdit,
  editContext,
  placeEdit,
  strokeEdit,
} from '../project';
import { placeParts } from '../rig';
import { boxStroke } from '../sculpt';
import { VoxelGrid } from '../voxel';
import { type DrawList, Gatherer, gather, listExtent, pickInstance } from '.';

let n = 0;
const ctx = () => editContext(`gather ${n++}`);

/** A yard: two parts of a few cubes, and a scene. */
function yard(): Project {
  let p = makeProject('yard', 'Yard', idsFrom('yard'), 'scene', [8, 8, 8]);
  p = apply(p, addPartEdit, { name: 'Crate', bounds: { min: [0, 0, 0], size: [4, 4, 4] }, cell: 0.5 }, ctx());
  for (const part of p.parts) {
    const stroke = boxStroke('add', 3, [{ min: [0, 0, 0], size: [2, 1, 1] }]);
    p = apply(p, strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke }, ctx());
  }
  return apply(p, addSceneEdit, { name: 'Quay' }, ctx());
}
const view = (p: Project) => ({ of: 'scene', scene: p.scenes[0]!.id }) as const;
const of = (p: Project): DrawList => gather(p, view(p));
const all = (p: Project): Placement[] => p.scenes[0]!.placements.flat();
type Wanted = Parameters<(typeof placeEdit)['run']>[1]['placements'];
const place = (p: Project, placements: Wanted): Project =>
  apply(p, placeEdit, { scene: p.scenes[0]!.id, placements }, ctx());
const change = (p: Project, id: string, to: Partial<Placement>): Project =>
  apply(p, changePlacementsEdit, { scene: p.scenes[0]!.id, changes: [{ id, change: to }] }, ctx());
const part = (p: Project, i = 0) => ({ kind: 'part', part: p.parts[i]!.id }) as const;
const withRepeats = (p: Project, repeats: readonly Repeat[]): Project => ({
  ...p,
  scenes: [{ ...p.scenes[0]!, repeats }],
});
/** Where the lattice's origin stands. */
const at = (list: DrawList): Vec3[] =>
  list.map((i) => transformPoint(i.matrix, [0, 0, 0]).map((v) => Math.round(v * 1e6) / 1e6 || 0) as unknown as Vec3);

describe('the rig', () => {
  it('stands as its mounts say, in the colourway that is asked for', () => {
    const p = apply(yard(), addColourwayEdit, { name: 'Rust' }, ctx());
    const way = {
      ...p.colourways[0]!,
      changes: [{ palette: p.palettes[0]!.id, byte: 3, look: { colour: '#aa3311' } }],
    };
    const dyed = { ...p, colourways: [way] };
    const list = gather(dyed, { of: 'rig' }, way.id);
    expect(list.map((i) => i.matrix)).toEqual(placeParts(p).map((o) => o.matrix));
    expect(list.map((i) => i.source.part)).toEqual(p.parts.map((o) => o.id));
    expect(list[0]!.palette.swatches.find((s) => s.byte === 3)!.colour).toBe('#aa3311');
    expect(gather(dyed, { of: 'rig' })[0]!.palette).toBe(p.palettes[0]);
  });
});

describe('a scene', () => {
  it('places parts by their pivots in their parents’ space; linked copies share one geometry', () => {
    let p = yard();
    p = { ...p, parts: p.parts.map((o, i) => (i === 1 ? { ...o, pivot: [2, 0, 0] } : o)) };
    const q = quatFromAxisAngle([0, 1, 0], Math.PI / 2);
    p = place(p, [{ shows: { kind: 'group' }, t: [10, 0, 0], q }]);
    p = place(p, [
      { shows: part(p, 1), t: [0, 0, 4], parent: all(p)[0]!.id },
      { shows: part(p, 1), t: [3, 0, 0], s: [2, 2, 2] },
    ]);
    const list = of(p);
    // By hand: the pivot is one cube of half a unit along x; the group turns z into x, and x into −z.
    expect(at(list)).toEqual([
      [14, 0, 0.5],
      [2, 0, 0],
    ]);
    expect(list[0]!.geometry).toBe(list[1]!.geometry);
    expect(list.map((i) => i.source)).toEqual(
      all(p)
        .slice(1)
        .map((o) => ({ path: [o.id], part: p.parts[1]!.id, mount: null, copy: 0 })),
    );
  });

  it('leaves out what is hidden, with what hangs on it, and layers that are', () => {
    let p = yard();
    p = place(p, [{ shows: part(p) }]);
    const [top] = all(p);
    p = place(p, [{ shows: part(p), parent: top!.id }]);
    expect(of(p)).toHaveLength(2);
    expect(of(change(p, top!.id, { hidden: true }))).toHaveLength(0);
    const dark = { ...p.scenes[0]!, layers: [{ ...p.scenes[0]!.layers[0]!, hidden: true }] };
    expect(of({ ...p, scenes: [dark] })).toHaveLength(0);
    expect(of({ ...p, parts: p.parts.map((o) => ({ ...o, hidden: true })) })).toHaveLength(0);
  });

  it('shows the rig, terrain cubes, and other projects as large as they are there', () => {
    let p = yard();
    const picture = VoxelGrid.empty({ min: [0, 0, 0], size: [16, 16, 1] });
    const face = { picture: 'f', turns: 0, mirrored: false };
    const set = {
      id: 'set',
      name: 'Turf',
      texels: 16 as const,
      palette: p.palettes[0]!.id,
      pictures: [{ id: 'f', name: 'Top', grid: picture }],
      cubes: [{ id: 'turf', name: 'Turf', faces: [face, face, face, face, face, face] as const, flow: null }],
    };
    const asset: Asset = {
      id: 'other',
      name: 'Lamp',
      source: { project: 'lamp', revision: '1' },
      project: { ...yard(), metresPerUnit: p.metresPerUnit * 4 },
    };
    p = { ...p, terrainSets: [set], assets: [asset] };
    p = place(p, [
      { shows: { kind: 'rig', clip: null, time: 0 }, t: [0, 5, 0] },
      { shows: { kind: 'cube', cube: 'turf' } },
      { shows: { kind: 'asset', asset: 'other', clip: null, time: 0 } },
      { shows: { kind: 'asset', asset: 'other', clip: null, time: 0 }, t: [1, 0, 0] },
    ]);
    const list = of(p);
    expect(list.map((i) => i.geometry.kind)).toEqual(['grid', 'grid', 'cube', 'grid', 'grid', 'grid', 'grid']);
    placeParts(p).forEach((o, i) =>
      expect(list[i]!.matrix).toEqual(mulMat(matrixOf({ t: [0, 5, 0], q: [0, 0, 0, 1], s: [1, 1, 1] }), o.matrix)),
    );
    expect(at(list)[2]).toEqual([-8, 0, -8]);
    const inThere = placeParts(asset.project).map((o) => transformPoint(o.matrix, [1, 2, 3]));
    expect(list.slice(3, 5).map((i) => transformPoint(i.matrix, [1, 2, 3]))).toEqual(
      inThere.map((v) => v.map((c) => c * 4)),
    );
    expect(list[5]!.geometry).toBe(list[3]!.geometry);
  });
});

describe('a list', () => {
  it('is met by rays at its nearest, and has a box around all its cubes', () => {
    let p = yard();
    p = place(p, [
      { shows: part(p), t: [0, 0, -20] },
      { shows: part(p), t: [0, 0, -5] },
      { shows: part(p), t: [9, 2, 0], s: [2, 2, 2] },
    ]);
    const list = of(p);
    // The part is two cubes, from 0 to 2 along x, one high and one deep.
    const hit = pickInstance(list, [0.5, 0.5, 30], [0, 0, -1])!;
    expect([hit.instance, hit.t]).toEqual([list[1], 34]);
    expect(pickInstance(list, [0.5, 0.5, -7], [0, 0, -1])!.instance).toBe(list[0]);
    expect(pickInstance(list, [5, 5, 30], [0, 0, -1])).toBeNull();
    expect(listExtent(list)).toEqual({ lo: [0, 0, -20], hi: [13, 4, 2] });
    expect(listExtent([])).toBeNull();
  });
});

describe('repeats', () => {
  const standing = (t: Vec3): Project => {
    const p = yard();
    return place(p, [{ shows: part(p), t }]);
  };
  it('in lines hold every count along every axis; copies follow their placement', () => {
    let p = standing([1, 0, 0]);
    const id = all(p)[0]!.id;
    p = withRepeats(p, [
      {
        id: 'r',
        placement: id,
        exceptions: [],
        vary: NO_VARIATION,
        second: null,
        kind: 'line',
        counts: [3, 1, 2],
        step: [5, 9, 7],
      },
    ]);
    expect(new Set(at(of(p)).map(String))).toEqual(
      new Set([1, 6, 11].flatMap((x) => [0, 7].map((z) => `${x},0,${z}`))),
    );
    expect(of(p).map((i) => i.source.copy)).toEqual([0, 1, 2, 3, 4, 5]);
    expect(at(of(change(p, id, { t: [2, 0, 0] })))[1]).toEqual([7, 0, 0]);
  });
  it('in rings close on themselves, turning along or not', () => {
    const p = standing([4, 1, 0]);
    const ring = {
      id: 'r',
      placement: all(p)[0]!.id,
      exceptions: [],
      vary: NO_VARIATION,
      kind: 'ring',
      count: 4,
      degrees: 360,
    } as const;
    const turning = of(withRepeats(p, [{ ...ring, turning: true }]));
    expect(at(turning)).toEqual([
      [4, 1, 0],
      [0, 1, -4],
      [-4, 1, 0],
      [0, 1, 4],
    ]);
    expect(transformPoint(turning[2]!.matrix, [1, 0, 0])[0]).toBeCloseTo(-5);
    const still = of(withRepeats(p, [{ ...ring, turning: false }]));
    expect(at(still)).toEqual(at(turning));
    expect(transformPoint(still[2]!.matrix, [1, 0, 0])[0]).toBeCloseTo(-3);
    const arc = of(withRepeats(p, [{ ...ring, count: 3, degrees: 180, turning: false }]));
    expect(at(arc)[2]).toEqual([-4, 1, 0]);
  });
  it('scattered stay in their area, and another count moves none of those that stay', () => {
    const p = standing([0, 2, 0]);
    const scatter = (count: number): Repeat => ({
      id: 'r',
      placement: all(p)[0]!.id,
      exceptions: [],
      kind: 'scatter',
      count,
      area: [20, 6],
      apart: 0,
      on: null,
      off: [],
      sources: [],
      vary: { seed: 5, turn: 180, sizes: [0.5, 1.5], lean: 0 },
    });
    const many = of(withRepeats(p, [scatter(200)]));
    expect(many).toHaveLength(200);
    for (const [x, y, z] of at(many)) expect([Math.abs(x) <= 10, y, Math.abs(z) <= 3]).toEqual([true, 2, true]);
    expect(new Set(at(many).map(String)).size).toBe(200);
    expect(at(of(withRepeats(p, [scatter(50)])))).toEqual(at(many).slice(0, 50));
  });
});

/** Nothing below zero differs from nothing. */
const plainZeros = (list: DrawList): DrawList => list.map((i) => ({ ...i, matrix: i.matrix.map((v) => v + 0) }));

/** One placement hung on another, unless that hangs on it. */
function hungOn(p: Project, id: string, parent: string): Project {
  const placements = new Map(all(p).map((o) => [o.id, o]));
  for (let at: string | null = parent; at !== null; at = placements.get(at)!.parent) if (at === id) return p;
  const scene = p.scenes[0]!;
  const groups = scene.placements.map((g) =>
    g.some((o) => o.id === id) ? g.map((o) => (o.id === id ? { ...o, parent } : o)) : g,
  );
  return { ...p, scenes: [{ ...scene, placements: groups }] };
}

describe('a gatherer', () => {
  it.each([1, 2, 3])('gives what a fresh one gives, and the same objects where nothing changed (seed %i)', (seed) => {
    const random = seededRandom(seed);
    const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    let p = yard();
    p = place(
      p,
      Array.from({ length: 100 }, (_, i) => ({ shows: part(p, i % 2), t: [i, 0, 0] as const })),
    );
    for (let i = 0; i < 20; i++) p = place(p, [{ shows: part(p), parent: any(all(p)).id, t: [0, i, 0] }]);
    p = withRepeats(p, [
      {
        id: 'r',
        placement: all(p)[3]!.id,
        exceptions: [],
        vary: NO_VARIATION,
        second: null,
        kind: 'line',
        counts: [4, 1, 1],
        step: [0, 0, 3],
      },
      {
        id: 's',
        placement: all(p)[7]!.id,
        exceptions: [],
        vary: NO_VARIATION,
        kind: 'ring',
        count: 5,
        degrees: 360,
        turning: true,
      },
    ]);
    const kept = new Gatherer();
    let before = kept.gather(p, view(p));
    expect(kept.gather(p, view(p))).toBe(before);
    for (let i = 0; i < 60; i++) {
      const what = random();
      if (what < 0.6) p = change(p, any(all(p)).id, { t: [random() * 9, random(), 0] });
      else if (what < 0.75) p = change(p, any(all(p)).id, { hidden: random() < 0.3 });
      else if (what < 0.8) p = hungOn(p, any(all(p)).id, any(all(p)).id);
      else if (what < 0.9) p = place(p, [{ shows: part(p, 1), parent: any([null, any(all(p)).id]) }]);
      else p = { ...p, parts: p.parts.with(1, withPartBounds(p.parts[1]!, { min: [0, 0, 0], size: [4, 4, 5 + i] })) };
      const after = kept.gather(p, view(p));
      expect(plainZeros(after), `step ${i}`).toEqual(plainZeros(gather(p, view(p))));
      before = after;
    }
    const leaf = all(p).find((o) => !all(p).some((c) => c.parent === o.id) && !o.hidden && o.parent === null)!;
    const moved = kept.gather(change(p, leaf.id, { t: [0, 0, 99] }), view(p));
    const same = new Set<unknown>(before);
    expect(moved.filter((i) => !same.has(i)).length).toBeLessThanOrEqual(8);
  });
});
