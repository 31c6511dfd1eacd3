import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Box, type Vec3, quatFromAxisAngle, transformPoint } from '../../math';
import { type Project, composite, idsFrom, makeProject } from '../../model';
import { REST_POSE, placeParts } from '../../rig';
import { boxStroke, contactOf, formOf, hangingOn, mirrorShare, plugOf, splitByColour, splitByPatches, splitByPieces, splitByPlane } from '../../sculpt';
import { CellSet, VoxelGrid } from '../../voxel';
import { type Edit, apply, editContext } from '..';
import * as edits from '.';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`apart ${n++}`, 1000));
const boxes = (...list: [Vec3, Vec3][]): CellSet => CellSet.ofBoxes(list.map(([min, size]): Box => ({ min, size })));
/** Where every visible cube's corner stands in the world, with its colour. */
const places = (p: Project): string[] => {
  const out = new Set<string>();
  for (const { part, matrix } of placeParts(p, REST_POSE)) composite(part).forEach((x, y, z, v) => out.add(`${transformPoint(matrix, [x, y, z]).map((c) => Math.round(c * 1e6) / 1e6 || 0).join()} ${v}`));
  return [...out].sort();
};
/** A beast of one piece: body, neck with head, four legs; on a bone that is turned and shifted, unless told otherwise. */
function beast(turned = true): Project {
  let p = makeProject('p', 'Beast', idsFrom('beast'), 'creature', [20, 20, 24]);
  const body = p.parts[0]!;
  const add = (value: number, min: Vec3, size: Vec3): void => {
    p = run(p, edits.strokeEdit, { part: body.id, layer: body.layers[0]!.id, stroke: boxStroke('add', value, [{ min, size }]) });
  };
  add(4, [-4, 6, -8], [8, 6, 14]);
  add(5, [-2, 12, 4], [4, 4, 3]);
  add(6, [-3, 14, 7], [6, 5, 4]);
  for (const x of [-4, 2]) for (const z of [-7, 3]) add(7, [x, 0, z], [2, 6, 2]);
  if (turned) {
    p = run(p, edits.addBoneEdit, { name: 'Root', parent: null, t: [3, 1, -2], q: quatFromAxisAngle([0, 1, 0], 0.7) });
    p = run(p, edits.mountPartEdit, { part: body.id, bone: p.rig.bones[0]!.id });
  }
  return p;
}
const LEGS = [['left', -7], ['left', 3], ['right', -7], ['right', 3]] as const;
const pieces = [
  { name: 'Head', side: 'centre' as const, cells: boxes([[-3, 14, 7], [6, 5, 4]]) }, { name: 'Neck', side: 'centre' as const, cells: boxes([[-2, 12, 4], [4, 4, 3]]) },
  ...LEGS.map(([side, z]) => ({ name: z < 0 ? 'Hind leg' : 'Fore leg', side, cells: boxes([[side === 'left' ? 2 : -4, 0, z], [2, 6, 2]]) })),
];
const args = { rest: 'Body', plug: 0, clearance: 0, socket: false, bones: true, keepWhole: true };
/** The beast with its pieces as regions. */
const named = (turned = true): Project => {
  const p = beast(turned);
  return run(p, edits.addRegionsEdit, { part: p.parts[0]!.id, pieces, half: 0 });
};

describe('taking apart', () => {
  it.each([true, false])('keeps every cube in its place and colour, on a bone turned (%s) or on none', (turned) => {
    const p = named(turned), before = places(p);
    for (const [bones, keepWhole] of [[true, true], [true, false], [false, true]] as const) {
      const q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id, bones, keepWhole });
      expect(places(q)).toEqual(before);
      expect(q.parts.filter((o) => !o.hidden).map((o) => `${o.name} ${o.side}`)).toEqual(['Body centre', 'Head centre', 'Neck centre', 'Hind leg left', 'Fore leg left', 'Hind leg right', 'Fore leg right']);
    }
  });
  it('shrinks each to fit, sets its pivot in the middle of the cut, and hangs bones as the pieces hang together', () => {
    const p = named();
    const q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id });
    const part = (name: string, side = 'centre') => q.parts.find((o) => o.name === name && o.side === side)!;
    expect(part('Hind leg', 'left').bounds).toEqual({ min: [2, 0, -7], size: [2, 6, 2] });
    // The leg meets the body in a square of 2×2 at height 6.
    expect(part('Hind leg', 'left').pivot).toEqual([6, 12, -12]);
    // The neck stands on the body's top, 12 high; the head lies against the neck's front and over it.
    expect(part('Neck').pivot).toEqual([0, 24, 10]);
    const bone = (name: string, side = 'centre') => q.rig.bones.find((b) => b.name === name && b.side === side)!;
    const above = (name: string, side = 'centre') => q.rig.bones.find((b) => b.id === bone(name, side).parent)!.name;
    expect([above('Head'), above('Neck'), above('Hind leg', 'left'), above('Fore leg', 'right')]).toEqual(['Neck', 'Root', 'Root', 'Root']);
    const whole = q.parts.find((o) => o.hidden)!;
    expect([whole.name, composite(whole).count]).toEqual(['Body, whole', composite(p.parts[0]!).count]);
    for (const m of q.rig.mounts) if (m.part !== whole.id && m.part !== part('Body').id) expect(m.t).toEqual([0, 0, 0]);
  });
  it('plugs go into the body in the limb’s colours, no deeper than asked, and nothing shows at rest', () => {
    const p = named(), before = places(p);
    const q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id, plug: 2 });
    const leg = q.parts.find((o) => o.name === 'Hind leg' && o.side === 'left')!;
    expect(leg.bounds).toEqual({ min: [2, 0, -7], size: [2, 8, 2] });
    expect([6, 7].map((y) => composite(leg).get(2, y, -7))).toEqual([7, 7]);
    // What is new lies inside the body, where all six neighbours of a cube are filled: nothing of it is seen.
    const seen = composite(p.parts[0]!);
    const shows = q.parts.filter((o) => !o.hidden).flatMap((o) => {
      const out: string[] = [];
      composite(o).forEach((x, y, z, v) => {
        const open = [[1, 0, 0], [-1, 0, 0], [0, 1, 0], [0, -1, 0], [0, 0, 1], [0, 0, -1]].some(([a, b, c]) => seen.get(x + a!, y + b!, z + c!) === 0);
        if (seen.get(x, y, z) !== v && open) out.push(`${x},${y},${z}`);
      });
      return out;
    });
    expect(shows).toEqual([]);
    const at = new Set(before.map((s) => s.split(' ')[0]));
    expect(places(q).every((s) => at.has(s.split(' ')[0]!))).toBe(true);
    expect(() => run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id, plug: 99 })).toThrow(/0 to 32/);
    expect(() => run(beast(), edits.takeApartEdit, { ...args, part: p.parts[0]!.id })).toThrow(/No piece holds a cube/);
  });
  it('joined again, the parts are the sculpt they came from', () => {
    const p = named(), before = places(p);
    const q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id, keepWhole: false, bones: false });
    const r = run(q, edits.joinPartsEdit, { parts: q.parts.map((o) => o.id) });
    expect([r.parts.length, r.parts[0]!.name]).toEqual([1, 'Body']);
    expect(places(r)).toEqual(before);
    const half = { ...q, rig: { ...q.rig, mounts: q.rig.mounts.map((m) => (m.part === q.parts[1]!.id ? { ...m, t: [m.t[0] + 0.25, m.t[1], m.t[2]] as Vec3 } : m)) } };
    expect(() => run(half, edits.joinPartsEdit, { parts: q.parts.map((o) => o.id) })).toThrow(/between the cubes of "Body"/);
    expect(() => run(q, edits.joinPartsEdit, { parts: [q.parts[0]!.id] })).toThrow(/two parts or more/);
  });
});

describe('equal parts', () => {
  it('have one form wherever they stand; another colour or cube is another form', () => {
    const at = (x: number, value = 3, more = 0) => VoxelGrid.empty({ min: [-20, 0, 0], size: [60, 20, 20] }).edit((d) => {
      d.fillBox({ min: [x, 2, 3], size: [4, 5, 6] }, 3);
      d.set(x + 1, 2, 3, value);
      if (more) d.set(x + 4, 2, 3, more);
    });
    expect(formOf(at(0))).toBe(formOf(at(-17)));
    expect(new Set([formOf(at(0)), formOf(at(0, 4)), formOf(at(0, 3, 3)), formOf(VoxelGrid.empty({ min: [0, 0, 0], size: [4, 4, 4] }))]).size).toBe(4);
  });
});

describe('ways to find pieces', () => {
  const random = fc.array(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 }), fc.integer({ min: 1, max: 4 })), { minLength: 1, maxLength: 30 })
    .map((l) => VoxelGrid.empty({ min: [0, 0, 0], size: [14, 14, 14] }).edit((d) => l.forEach(([x, y, z, v]) => d.fillBox({ min: [x, y, z], size: [3, 2, 2] }, v))));
  it('every cube belongs to exactly one piece, whichever way', () => {
    fc.assert(fc.property(random, fc.integer({ min: 0, max: 14 }), fc.constantFrom(0, 1, 2), (grid, at, axis) => {
      for (const sets of [splitByPieces(grid), splitByColour(grid).map((c) => c.cells), splitByPatches(grid).map((c) => c.cells), splitByPlane(CellSet.filled(grid), axis as 0 | 1 | 2, at), splitByPlane(CellSet.filled(grid), axis as 0 | 1 | 2, at, { width: 2, depth: 3 })]) {
        const all = sets.reduce((a, b) => a.union(b), new CellSet({ min: [0, 0, 0], size: [0, 0, 0] }));
        expect(sets.map((c) => c.count).reduce((x, y) => x + y, 0)).toBe(grid.count);
        expect(all.count).toBe(grid.count);
      }
    }), { numRuns: 25 });
  });
  it('contacts, what hangs on what, plugs and mirrored pairs, worked out by hand', () => {
    const body = boxes([[0, 0, 0], [6, 4, 4]]), arm = boxes([[6, 1, 1], [3, 2, 2]]), hand = boxes([[9, 1, 1], [1, 1, 1]]), far = boxes([[20, 0, 0], [1, 1, 1]]);
    expect(contactOf(arm, body)).toEqual({ faces: 4, centre: [12, 4, 4] });
    expect(contactOf(far, body)).toBeNull();
    expect(hangingOn([body, arm, hand, far], 0).map((h) => h.parent)).toEqual([-1, 0, 1, -1]);
    const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [24, 8, 8] }).edit((d) => {
      d.fillSet(body, 2);
      d.fillSet(arm, 5);
    });
    const plug = plugOf(grid, arm, body, 2);
    expect([plug.length, new Set(plug.map(([, v]) => v)), Math.min(...plug.map(([c]) => c[0]))]).toEqual([8, new Set([5]), 4]);
    // The last cube of the body on the other side is seen, so the plug ends before it.
    expect(plugOf(grid, arm, body, 50)).toHaveLength(20);
    expect(mirrorShare(arm, boxes([[-9, 1, 1], [3, 2, 2]]), 0, 0)).toBe(1);
    expect(mirrorShare(arm, boxes([[-9, 1, 1], [3, 2, 1]]), 0, 0)).toBe(0.5);
  });
});
