import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Vec3, decompose, length, sub, transformPoint } from '../../math';
import {
  NO_VARIATION,
  type Placement,
  type Project,
  type Variation,
  checkSound,
  idsFrom,
  makeProject,
  migrateProject,
  must,
  placementsOf,
  projectToJson,
  worldOfPlacement,
} from '../../model';
import { sceneCosts } from '../../mesh';
import { type DrawList, gather } from '../../scene';
import { ROOM, boxStroke } from '../../sculpt';
import * as edits from '..';
import { type Edit, apply, editContext } from '../edit';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`scene ${n++}`));
/** A quay of 20 × 1 × 20, a crate and a barrel of four cubes' edge, and a scene. */
function quay(): Project {
  n = 0;
  let p = makeProject('quay', 'Quay', idsFrom('quay'), 'scene', [20, 1, 20]);
  for (const name of ['Crate', 'Barrel'])
    p = run(p, edits.addPartEdit, { name, bounds: { min: [-2, 0, -2], size: [4, 4, 4] }, pivot: [0, 0, 0] });
  for (const part of p.parts) {
    const stroke = boxStroke('add', 3, [part.bounds]);
    p = run(p, edits.strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke });
  }
  return run(p, edits.addSceneEdit, { name: 'Night' });
}
const scene = (p: Project) => p.scenes[0]!;
const all = (p: Project): Placement[] => placementsOf(scene(p));
const shows = (p: Project, i: number) => ({ kind: 'part', part: p.parts[i]!.id }) as const;
const place = (p: Project, placements: Parameters<(typeof edits.placeEdit)['run']>[1]['placements']): Project =>
  run(p, edits.placeEdit, { scene: scene(p).id, placements });
const list = (p: Project): DrawList => gather(p, { of: 'scene', scene: scene(p).id });
const round = (v: readonly number[]): number[] => v.map((x) => Math.round(x * 1e6) / 1e6 + 0);
const anchors = (p: Project): number[][] => list(p).map((i) => round(transformPoint(i.matrix, [0, 0, 0])));
/** The middles of all cubes that stand in the scene. */
const cellsOf = (p: Project): number[][] =>
  list(p).flatMap(({ geometry, matrix }) => {
    const out: number[][] = [];
    if (geometry.kind === 'grid')
      geometry.grid.forEach((x, y, z) => out.push(round(transformPoint(matrix, [x + 0.5, y + 0.5, z + 0.5]))));
    return out;
  });
const of = (p: Project, ...placements: string[]) => ({ scene: scene(p).id, placements });

describe('placements', () => {
  it('keep their place in the world when they are hung elsewhere, grouped and ungrouped', () => {
    const q = [0, Math.SQRT1_2, 0, Math.SQRT1_2] as const;
    let p = place(quay(), [
      { shows: { kind: 'group' }, name: 'Stalls', t: [10, 2, 0], q },
      { shows: shows(quay(), 1), t: [1, 0, 3] },
      { shows: shows(quay(), 2), t: [4, 0, 4], s: [2, 2, 2] },
    ]);
    const [group, crate, barrel] = all(p).map((o) => o.id) as [string, string, string];
    const before = anchors(p);
    p = run(p, edits.hangPlacementsEdit, { ...of(p, crate, barrel), parent: group });
    expect(anchors(p)).toEqual(before);
    expect(round(all(p)[1]!.t)).toEqual([-3, -2, -9]);
    p = run(p, edits.groupPlacementsEdit, { ...of(p, crate, barrel), name: 'Stalls' });
    expect([all(p).at(-1)!.name, all(p).at(-1)!.parent]).toEqual(['Stalls 2', group]);
    expect(anchors(p)).toEqual(before);
    const inner = all(p).at(-1)!.id;
    expect(() => run(p, edits.hangPlacementsEdit, { ...of(p, group), parent: inner })).toThrow('cannot hang on itself');
    p = run(p, edits.hangPlacementsEdit, { ...of(p, crate), parent: null });
    expect(anchors(p)).toEqual(before);
    p = run(p, edits.removePlacementsEdit, of(p, group));
    expect(all(p).map((o) => o.id)).toEqual([crate]);
  });
  it('are copied linked or with parts of their own, with what hangs on them', () => {
    let p = place(quay(), [{ shows: shows(quay(), 1), t: [1, 0, 0] }]);
    p = place(p, [{ shows: shows(p, 1), parent: all(p)[0]!.id, t: [0, 4, 0] }]);
    const top = all(p)[0]!.id;
    const linked = run(p, edits.duplicatePlacementsEdit, { ...of(p, top), shift: [6, 0, 0], linked: true });
    expect(linked.parts).toBe(p.parts);
    expect(anchors(linked).slice(2)).toEqual([
      [7, 0, 0],
      [7, 4, 0],
    ]);
    const own = run(p, edits.duplicatePlacementsEdit, { ...of(p, top), shift: [6, 0, 0], linked: false });
    expect(own.parts.map((o) => o.name)).toEqual(['Body', 'Crate', 'Crate 2', 'Barrel']);
    const copy = own.parts[2]!.id;
    expect(all(own).map((o) => o.shows)).toEqual([shows(p, 1), shows(p, 1), shows(own, 2), shows(own, 2)]);
    const filled = run(own, edits.strokeEdit, {
      part: copy,
      layer: own.parts[2]!.layers[0]!.id,
      stroke: boxStroke('erase', 0, [{ min: [-2, 0, -2], size: [1, 1, 1] }]),
    });
    const [a, , c] = list(filled).map((i) => (i.geometry.kind === 'grid' ? i.geometry.grid.count : 0));
    expect([a, c]).toEqual([64, 63]);
  });
  it('show something else in the same place; what lies in the bin is back with its part', () => {
    let p = place(quay(), [{ shows: shows(quay(), 1), t: [1, 2, 3] }]);
    p = run(p, edits.swapPlacementsEdit, { ...of(p, all(p)[0]!.id), shows: shows(p, 2) });
    expect([list(p)[0]!.source.part, anchors(p)]).toEqual([p.parts[2]!.id, [[1, 2, 3]]]);
    const gone = run(p, edits.deletePartEdit, { part: p.parts[2]!.id });
    expect(list(gone)).toEqual([]);
    checkSound(gone);
    const back = run(gone, edits.restoreEdit, { item: gone.bin[0]!.id });
    expect(anchors(back)).toEqual([[1, 2, 3]]);
  });
  it('lie on layers with names and colours; what lay on one that goes comes to the first', () => {
    let p = run(quay(), edits.addSceneLayerEdit, { scene: scene(quay()).id, name: 'Water' });
    const [first, water] = scene(p).layers.map((l) => l.id) as [string, string];
    p = place(p, [{ shows: shows(p, 1), layer: water }]);
    p = run(p, edits.changeSceneLayerEdit, {
      scene: scene(p).id,
      layer: water,
      change: { hidden: true, name: 'Canal' },
    });
    expect([list(p), scene(p).layers[1]!.name]).toEqual([[], 'Canal']);
    p = run(p, edits.removeSceneLayerEdit, { scene: scene(p).id, layer: water });
    expect([all(p)[0]!.layer, list(p).length]).toEqual([first, 1]);
    expect(() => run(p, edits.removeSceneLayerEdit, { scene: scene(p).id, layer: first })).toThrow(
      'at least one layer',
    );
  });
});

describe('live repeats', () => {
  const one = (): Project => place(quay(), [{ shows: shows(quay(), 1), t: [2, 0, 1] }]);
  const wished = (p: Project, wishes: edits.RepeatWishes): Project =>
    run(p, edits.repeatEdit, { scene: scene(p).id, placement: all(p)[0]!.id, wishes });

  it('along a path at even ways, turned the way it goes', () => {
    const points: Vec3[] = [
      [2, 0, 1],
      [2, 0, 11],
      [12, 0, 11],
    ];
    const p = wished(one(), { kind: 'path', count: 5, points, closed: false, facing: true, vary: NO_VARIATION });
    expect(anchors(p)).toEqual([
      [2, 0, 1],
      [2, 0, 6],
      [2, 0, 11],
      [7, 0, 11],
      [12, 0, 11],
    ]);
    // The first way goes along z, the second along x: a quarter turn.
    const ahead = list(p).map((i) =>
      round(sub(transformPoint(i.matrix, [0, 0, 1]), transformPoint(i.matrix, [0, 0, 0]))),
    );
    expect([ahead[1], ahead[4]]).toEqual([
      [0, 0, 1],
      [1, 0, 0],
    ]);
  });
  it('scattered keep their distance, their number and their places while the count changes', () => {
    const scatter = (count: number, apart = 3): edits.RepeatWishes => ({
      ...{ kind: 'scatter', count, area: [60, 60], apart, on: null, off: [], sources: [] },
      vary: { seed: 4, turn: 180, sizes: [0.5, 1.5], lean: 20 },
    });
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 60 }), fc.double({ min: 0.5, max: 6, noNaN: true }), (count, apart) => {
        const at = anchors(wished(one(), scatter(count, apart)));
        at.forEach((a, i) =>
          at
            .slice(i + 1)
            .forEach((b) => expect(Math.hypot(a[0]! - b[0]!, a[2]! - b[2]!)).toBeGreaterThanOrEqual(apart - 1e-6)),
        );
      }),
      { numRuns: 40 },
    );
    const many = anchors(wished(one(), scatter(100)));
    expect(many).toHaveLength(100);
    expect(anchors(wished(one(), scatter(30)))).toEqual(many.slice(0, 30));
    // No room for so many.
    expect(anchors(wished(one(), scatter(500, 12))).length).toBeLessThan(60);
  });
  it('scattered over a surface stand on it, and come from several sources by their weights', () => {
    let p = place(one(), [{ shows: shows(one(), 0), t: [0, -3, 0] }]);
    const [, ground] = all(p);
    p = wished(p, {
      ...{
        kind: 'scatter',
        count: 400,
        area: [60, 60],
        apart: 0,
        on: ground!.id,
        off: [],
        vary: { ...NO_VARIATION, seed: 9 },
      },
      sources: [{ shows: shows(p, 2), weight: 3 }],
    });
    const copies = list(p).filter((i) => i.source.copy > 0);
    // The quay is 20 × 20 of the 60 × 60 that are tried, its top at −2.
    expect(copies.length).toBeGreaterThan(20);
    expect(copies.length).toBeLessThan(80);
    for (const c of copies) expect(round(transformPoint(c.matrix, [0, 0, 0]))[1]).toBe(-2);
    const barrels = copies.filter((c) => c.source.part === p.parts[2]!.id).length;
    expect(barrels / copies.length).toBeGreaterThan(0.55);
    expect(barrels / copies.length).toBeLessThan(0.95);
    const broken = run(p, edits.breakRepeatEdit, { scene: scene(p).id, placement: all(p)[0]!.id });
    expect(scene(broken).repeats).toEqual([]);
    expect(anchors(broken).map(String).sort()).toEqual(anchors(p).map(String).sort());
  });
  it('one copy is left out or stands otherwise, whatever the count becomes; all of it can be taken back', () => {
    const line = (count: number): edits.RepeatWishes => ({
      ...{ kind: 'line', counts: [count, 1, 1], step: [5, 0, 0], second: null, vary: NO_VARIATION },
    });
    let p = wished(one(), line(4));
    const { id } = scene(p).repeats[0]!;
    const except = (copy: number, is: Parameters<(typeof edits.repeatExceptionEdit)['run']>[1]['is']): void => {
      p = run(p, edits.repeatExceptionEdit, { scene: scene(p).id, repeat: id, copy, is });
    };
    const still = { gone: false, t: [0, 0, 0], q: [0, 0, 0, 1], s: [1, 1, 1] } as const;
    except(1, { ...still, gone: true });
    except(3, { ...still, t: [0, 1, 2], s: [2, 2, 2] });
    expect(anchors(p)).toEqual([
      [2, 0, 1],
      [12, 0, 1],
      [17, 1, 3],
    ]);
    expect(round(decompose(list(p)[2]!.matrix).s)).toEqual([2, 2, 2]);
    p = wished(p, line(3));
    expect(anchors(p)).toHaveLength(2);
    p = wished(p, line(5));
    expect(anchors(p)[2]).toEqual([17, 1, 3]);
    except(1, null);
    expect(anchors(p)).toHaveLength(5);
    checkSound(p);
    // A cube of four shows six faces of sixteen, as often as it stands.
    expect(sceneCosts(scene(p), list(p))).toEqual([{ placements: [all(p)[0]!.id], faces: 5 * 96 }]);
    expect(edits.summarize(p).scenes).toEqual([
      { name: 'Night', placements: 1, repeats: 1, lamps: 0, layers: ['Layer 1'] },
    ]);
    p = run(p, edits.endRepeatEdit, { scene: scene(p).id, placement: all(p)[0]!.id });
    expect(anchors(p)).toEqual([[2, 0, 1]]);
  });
  it('vary alike for the same seed, and only where that is wished', () => {
    const line = (vary: Partial<Variation>): edits.RepeatWishes => ({
      ...{ kind: 'line', counts: [60, 1, 1], step: [5, 0, 0], second: null },
      vary: { ...NO_VARIATION, ...vary },
    });
    const made = (vary: Partial<Variation>) => list(wished(one(), line(vary))).map((i) => decompose(i.matrix));
    const varied = made({ turn: 40, sizes: [0.5, 2] });
    expect(made({ turn: 40, sizes: [0.5, 2] })).toEqual(varied);
    expect(made({ turn: 40, sizes: [0.5, 2], seed: 2 })).not.toEqual(varied);
    // Each stays where the row has it, and the first is as it was.
    expect(varied.map((m) => round(m.t))).toEqual(made({}).map((m) => round(m.t)));
    expect([varied[0]!.q, varied[0]!.s]).toEqual([made({})[0]!.q, [1, 1, 1]]);
    const sizes = varied.slice(1).map((m) => m.s[1]),
      turns = varied.slice(1).map((m) => 2 * Math.acos(Math.min(1, Math.abs(m.q[3]))));
    expect([Math.min(...sizes) >= 0.5, Math.max(...sizes) <= 2, Math.max(...sizes) > 1.7]).toEqual([true, true, true]);
    expect(Math.max(...turns)).toBeLessThanOrEqual((40 * Math.PI) / 180 + 1e-6);
    expect(new Set(turns).size).toBe(59);
  });
  it('of two tiles make a chess floor', () => {
    const p = one();
    const board = wished(p, { ...edits.freshGrid([4, 4, 4]), second: shows(p, 2) } as edits.RepeatWishes);
    const tiles = list(board);
    expect(tiles).toHaveLength(144);
    for (const i of tiles) {
      const [x, , z] = round(sub(transformPoint(i.matrix, [0, 0, 0]), [2, 0, 1]));
      expect(i.source.part).toBe(p.parts[(x! / 4 + z! / 4) % 2 === 0 ? 1 : 2]!.id);
    }
  });
  it('mirrored show the image of all that hangs there, live and broken alike', () => {
    let p = one();
    p = run(p, edits.strokeEdit, {
      part: p.parts[1]!.id,
      layer: p.parts[1]!.layers[0]!.id,
      stroke: boxStroke('erase', 0, [{ min: [-2, 1, -2], size: [3, 3, 4] }]),
    });
    p = place(p, [
      { shows: shows(p, 1), parent: all(p)[0]!.id, t: [0, 4, 1], q: [0, Math.sin(0.3), 0, Math.cos(0.3)] },
    ]);
    const before = cellsOf(p);
    for (const axis of [0, 1, 2] as const) {
      const image = wished(p, { kind: 'mirror', axis, at: 9, vary: NO_VARIATION });
      const wanted = [...before, ...before.map((c) => c.map((v, a) => (a === axis ? round([18 - v])[0]! : v)))];
      expect(cellsOf(image).map(String).sort()).toEqual(wanted.map(String).sort());
      const broken = run(image, edits.breakRepeatEdit, { scene: scene(p).id, placement: all(p)[0]!.id });
      expect(cellsOf(broken).map(String).sort()).toEqual(wanted.map(String).sort());
      expect(broken.parts.map((o) => o.twin?.source ?? null)).toEqual([null, null, null, p.parts[1]!.id]);
      checkSound(broken);
    }
    const figure = place(quay(), [{ shows: { kind: 'rig', clip: null, time: 0 } }]);
    const seen = wished(figure, { kind: 'mirror', axis: 0, at: 9, vary: NO_VARIATION });
    expect(() => run(seen, edits.breakRepeatEdit, { scene: scene(seen).id, placement: all(seen)[0]!.id })).toThrow(
      'cannot be an image',
    );
  });
  it('scattered keep off what they shall keep off, and are lifted from the ground by exceptions', () => {
    let p = place(one(), [{ shows: shows(one(), 0), t: [0, -3, 0] }, { shows: shows(one(), 2) }]);
    const [, ground, stall] = all(p);
    p = wished(p, {
      ...{ kind: 'scatter', count: 90, area: [18, 18], apart: 0, on: ground!.id, off: [stall!.id], sources: [] },
      vary: NO_VARIATION,
    });
    const copies = list(p).filter((i) => i.source.copy > 0);
    expect(copies.length).toBeGreaterThan(50);
    for (const c of copies) {
      const [x, , z] = transformPoint(c.matrix, [0, 0, 0]);
      expect(Math.abs(x) < 2 && Math.abs(z) < 2).toBe(false);
    }
    const { copy } = copies[0]!.source;
    const lifted = run(p, edits.repeatExceptionEdit, {
      ...{ scene: scene(p).id, repeat: scene(p).repeats[0]!.id, copy },
      is: { gone: false, t: [0, 7, 0], q: [0, 0, 0, 1], s: [1, 1, 1] },
    });
    const there = list(lifted).find((i) => i.source.copy === copy)!;
    expect(round(transformPoint(there.matrix, [0, 0, 0]))[1]).toBe(5);
    p = run(p, edits.deletePartEdit, { part: p.parts[2]!.id });
    expect(list(p).filter((i) => i.source.copy > 0).length).toBeGreaterThan(copies.length);
  });
  it('broken up take along what hangs on them', () => {
    let p = one();
    p = place(p, [{ shows: shows(p, 2), parent: all(p)[0]!.id, t: [0, 4, 0] }]);
    p = wished(p, { kind: 'line', counts: [3, 1, 1], step: [6, 0, 0], second: null, vary: NO_VARIATION });
    const live = anchors(p).map(String).sort();
    p = run(p, edits.breakRepeatEdit, { scene: scene(p).id, placement: all(p)[0]!.id });
    expect([all(p).length, anchors(p).map(String).sort()]).toEqual([6, live]);
    checkSound(p);
  });
  it('of format 11 get no exceptions, and scatters keep to what they kept to', () => {
    const p = wished(one(), {
      ...{
        kind: 'scatter',
        count: 9,
        area: [9, 9],
        apart: 0,
        on: null,
        off: [],
        sources: [],
        vary: { seed: 2, turn: 90, sizes: [1, 2], lean: 0 },
      },
    });
    const json = JSON.parse(JSON.stringify(projectToJson(p))) as {
      formatVersion: number;
      scenes: { repeats: Record<string, unknown>[] }[];
      parts: Record<string, unknown>[];
      shots: unknown[];
    };
    json.formatVersion = 11;
    // Shots had another form.
    json.shots = [];
    for (const r of json.scenes[0]!.repeats) {
      const { seed, turn, sizes } = r['vary'] as Variation;
      Object.assign(r, { seed, turn, sizes });
      for (const key of ['exceptions', 'apart', 'on', 'off', 'vary', 'sources']) delete r[key];
    }
    for (const part of json.parts) delete part['group'];
    const old = migrateProject(json) as unknown as Project;
    expect(old.scenes[0]!.repeats).toEqual(JSON.parse(JSON.stringify(scene(p).repeats)));
  });
});

it('a placement stands where all that it hangs on puts it', () => {
  let p = place(quay(), [{ shows: { kind: 'group' }, t: [5, 0, 0], s: [2, 2, 2] }]);
  p = place(p, [{ shows: shows(p, 1), parent: all(p)[0]!.id, t: [1, 1, 1] }]);
  expect(worldOfPlacement(scene(p), all(p)[1]!.id)).toEqual({ t: [7, 2, 2], q: [0, 0, 0, 1], s: [2, 2, 2] });
  expect(length(sub(must(all(p), all(p)[1]!.id, 'placement').t, [1, 1, 1]))).toBe(0);
});

describe('things are combined where they stand', () => {
  const combine = (p: Project, op: 'unite' | 'subtract' | 'intersect', ids: string[], more = {}): Project =>
    run(p, edits.combinePlacementsEdit, { scene: scene(p).id, home: ids[0]!, others: ids.slice(1), op, ...more });
  const ids = (p: Project): string[] => all(p).map((o) => o.id);
  const total = (p: Project): number => cellsOf(p).length;

  it('in one lattice, counted cube for cube; a part that stands elsewhere too stays as it is there', () => {
    // Two crates of 64 that share 2 × 4 × 4 cubes, one of them turned by a quarter, and a third far off.
    const q = [0, Math.SQRT1_2, 0, Math.SQRT1_2] as const;
    const p = place(quay(), [
      { shows: shows(quay(), 1), t: [0, 0, 0] },
      { shows: shows(quay(), 1), t: [2, 0, 0], q },
      { shows: shows(quay(), 1), t: [50, 0, 0] },
    ]);
    const pair = ids(p).slice(0, 2);
    for (const [op, n] of [
      ['unite', 64 + 64 - 32],
      ['subtract', 32],
      ['intersect', 32],
    ] as const) {
      const done = combine(p, op, pair);
      expect([all(done).length, total(done) - 64]).toEqual([2, n]);
      expect(done.parts.map((o) => o.name)).toEqual(['Body', 'Crate', 'Barrel', 'Crate 2']);
      expect(all(done)[0]!.id).toBe(pair[0]);
      checkSound(done);
    }
    const kept = combine(p, 'subtract', pair, { keep: true });
    expect([all(kept).length, total(kept)]).toEqual([3, 32 + 64 + 64]);
    // A part of the figure is no scene’s own.
    const two = place(quay(), [{ shows: shows(quay(), 1) }, { shows: shows(quay(), 2), t: [3, 0, 0] }]);
    const alone = combine(two, 'unite', ids(two));
    expect(total(alone)).toBe(64 + 64 - 16);
    // What stands nowhere else becomes it itself.
    const loose = { ...two, rig: { ...two.rig, mounts: [] } };
    expect(combine(loose, 'unite', ids(two)).parts.map((o) => o.name)).toEqual(['Body', 'Crate', 'Barrel']);
  });
  it('half a cube apart they are cut in two, turned freely they are looked up, and both is told before', () => {
    const p = place(quay(), [{ shows: shows(quay(), 1) }, { shows: shows(quay(), 2), t: [3.5, 0, 0] }]);
    const args = { scene: scene(p).id, home: ids(p)[0]!, others: [ids(p)[1]!], op: 'unite' } as const;
    const plan = edits.planCombinePlacements(p, args);
    expect([plan.meeting.factor, plan.resampled, plan.size, plan.tiles]).toEqual([2, [], [15, 8, 8], 1]);
    const done = run(p, edits.combinePlacementsEdit, args);
    expect([total(done), done.parts.at(-1)!.cell]).toEqual([(64 + 64 - 8) * 8, 0.5]);
    const turned = place(quay(), [
      { shows: shows(quay(), 1) },
      { shows: shows(quay(), 2), t: [9, 0, 0], q: [0, Math.sin(0.2), 0, Math.cos(0.2)] },
    ]);
    expect(
      edits.planCombinePlacements(turned, { ...args, home: ids(turned)[0]!, others: [ids(turned)[1]!] }).resampled,
    ).toEqual(['Barrel']);
    const figure = place(p, [{ shows: { kind: 'rig', clip: null, time: 0 } }]);
    expect(() => combine(figure, 'unite', ids(figure))).toThrow('is a figure');
    const apart = place(quay(), [{ shows: shows(quay(), 1) }, { shows: shows(quay(), 2), t: [40, 0, 0] }]);
    expect(() => combine(apart, 'intersect', ids(apart))).toThrow('Nothing would be left');
    const far = place(quay(), [{ shows: shows(quay(), 1) }, { shows: shows(quay(), 2), t: [9000, 9000, 9000] }]);
    expect(() => combine(far, 'unite', ids(far))).toThrow('Bring them nearer');
    const wide = place(quay(), [{ shows: shows(quay(), 1) }, { shows: shows(quay(), 2), t: [300, 0, 0] }]);
    const tiled = combine(wide, 'unite', ids(wide));
    expect([all(tiled).length, total(tiled), tiled.parts.every((o) => o.bounds.size.every((s) => s <= 256))]).toEqual([
      2,
      128,
      true,
    ]);
  });
  it('overlaps are cut away from the others, groups come whole, and a body falls into its pieces', () => {
    let p = place(quay(), [{ shows: { kind: 'group' }, name: 'Stall', t: [1, 0, 0] }]);
    p = place(p, [
      { shows: shows(p, 1), parent: ids(p)[0]!, t: [0, 0, 0] },
      { shows: shows(p, 2), parent: ids(p)[0]!, t: [20, 0, 0] },
      { shows: shows(p, 2), t: [3, 0, 0] },
    ]);
    const [stall, , , barrel] = ids(p) as [string, string, string, string];
    const cut = run(p, edits.carvePlacementsEdit, { scene: scene(p).id, home: barrel, others: [ids(p)[1]!] });
    expect([total(cut), all(cut).length]).toEqual([64 + 64 + 64 - 32, 4]);
    const before = cellsOf(p).slice(0, 128).map(String).sort();
    const whole = combine(p, 'unite', [stall, barrel], {});
    expect(all(whole).map((o) => o.name)).toEqual(['Stall']);
    const one = cellsOf(whole).map(String);
    expect(before.every((c) => one.includes(c))).toBe(true);
    const split = run(whole, edits.splitPlacementEdit, { scene: scene(p).id, placement: stall });
    expect(all(split).map((o) => o.shows.kind)).toEqual(['group', 'part', 'part']);
    expect(cellsOf(split).map(String).sort()).toEqual(one.sort());
    checkSound(split);
    expect(() => run(split, edits.splitPlacementEdit, { scene: scene(p).id, placement: ids(split)[1]! })).toThrow(
      'hang together',
    );
  });
  it('parts are combined where they stand at rest', () => {
    const p = quay();
    const list = [p.parts[1]!.id, p.parts[2]!.id];
    const done = run(p, edits.combinePartsEdit, { parts: list, op: 'unite' });
    expect([done.parts.map((o) => o.name), done.parts[1]!.layers[0]!.grid.count]).toEqual([['Body', 'Crate'], 64]);
    expect(done.bin.map((b) => b.kind)).toEqual(['part']);
    expect(() => run(p, edits.combinePartsEdit, { parts: list, op: 'subtract' })).toThrow('Nothing would be left');
    expect(edits.planCombineParts(p, { parts: list, op: 'unite' }).tiles).toBe(1);
  });
});

describe('things are made where they stand', () => {
  const made = (p: Project) => ({
    scene: scene(p).id,
    palette: p.palettes[0]!.id,
    cell: 0.5,
    place: { t: [5, 1, 5] as const },
  });
  it('rooms, blocks, empty parts and ground, which comes in linked tiles when it is wide', () => {
    let p = quay();
    p = run(p, edits.newPartHereEdit, { ...made(p), name: 'Sign', size: [8, 8, 2] });
    expect([p.parts.at(-1)!.name, p.parts.at(-1)!.cell, all(p)[0]!.t]).toEqual(['Sign', 0.5, [5, 1, 5]]);
    p = run(p, edits.addBlockEdit, { ...made(p), name: 'Block', size: [4, 3, 2], byte: 3 });
    p = run(p, edits.addRoomEdit, { ...made(p), name: 'Room', room: { ...ROOM, size: [4, 4, 4] } });
    const before = cellsOf(p).length;
    p = run(p, edits.addGroundEdit, {
      ...made(p),
      name: 'Ground',
      wide: 300,
      deep: 20,
      layers: [{ byte: 2, thick: 1 }],
    });
    expect([p.parts.at(-1)!.bounds.size, scene(p).repeats[0]]).toMatchObject([
      [150, 1, 20],
      { kind: 'line', counts: [2, 1, 1], step: [75, 0, 10] },
    ]);
    const xs = cellsOf(p)
      .slice(before)
      .map((c) => c[0]!);
    expect([xs.length, Math.min(...xs), Math.max(...xs), new Set(xs).size]).toEqual([
      6000,
      5 - 75 + 0.25,
      5 + 75 - 0.25,
      300,
    ]);
    expect(() => run(p, edits.addBlockEdit, { ...made(p), name: 'Block', size: [999, 3, 2], byte: 3 })).toThrow(
      'too large',
    );
    checkSound(p);
  });
});
