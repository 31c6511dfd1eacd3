import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Box, type Vec3, quatFromAxisAngle, transformPoint } from '../../math';
import { exportGlb } from '../../files/testing';
import { type Project, composite, idsFrom, keptAside, makeProject, partsInUse } from '../../model';
import { REST_POSE, placeParts } from '../../rig';
import { families, makeSwatch } from '../../palette';
import {
  awayFrom,
  boxStroke,
  contactOf,
  contactsOf,
  formOf,
  hangingOn,
  mirrorShare,
  plugOf,
  splitByColour,
  splitByPatches,
  splitByPieces,
  splitByPlane,
  swingGap,
  withSides,
  withUnder,
} from '../../sculpt';
import { CellSet, VoxelGrid } from '../../voxel';
import { type Edit, type PivotPlace, apply, checkProject, editContext, pivotAt } from '..';
import * as edits from '.';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`apart ${n++}`, 1000));
const boxes = (...list: [Vec3, Vec3][]): CellSet => CellSet.ofBoxes(list.map(([min, size]): Box => ({ min, size })));
/** Where every visible cube's corner stands in the world, with its colour. */
const places = (p: Project): string[] => {
  const out = new Set<string>();
  for (const { part, matrix } of placeParts(p, REST_POSE))
    composite(part).forEach((x, y, z, v) =>
      out.add(
        `${transformPoint(matrix, [x, y, z])
          .map((c) => Math.round(c * 1e6) / 1e6 || 0)
          .join()} ${v}`,
      ),
    );
  return [...out].sort();
};
/** A beast of one piece: body, neck with head, four legs; on a bone that is turned and shifted, unless told otherwise. */
function beast(turned = true): Project {
  let p = makeProject('p', 'Beast', idsFrom('beast'), 'creature', [20, 20, 24]);
  const body = p.parts[0]!;
  const add = (value: number, min: Vec3, size: Vec3): void => {
    p = run(p, edits.strokeEdit, {
      part: body.id,
      layer: body.layers[0]!.id,
      stroke: boxStroke('add', value, [{ min, size }]),
    });
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
const LEGS = [
  ['left', -7],
  ['left', 3],
  ['right', -7],
  ['right', 3],
] as const;
const pieces = [
  {
    name: 'Head',
    side: 'centre' as const,
    cells: boxes([
      [-3, 14, 7],
      [6, 5, 4],
    ]),
  },
  {
    name: 'Neck',
    side: 'centre' as const,
    cells: boxes([
      [-2, 12, 4],
      [4, 4, 3],
    ]),
  },
  ...LEGS.map(([side, z]) => ({
    name: z < 0 ? 'Hind leg' : 'Fore leg',
    side,
    cells: boxes([
      [side === 'left' ? 2 : -4, 0, z],
      [2, 6, 2],
    ]),
  })),
];
const args = { rest: 'Body', plug: 0, clearance: 0, socket: false, bones: true, keepWhole: true };
/** The beast with its pieces as regions. */
const named = (turned = true): Project => {
  const p = beast(turned);
  return run(p, edits.addRegionsEdit, { part: p.parts[0]!.id, pieces, half: 0 });
};

describe('cutting a region in two', () => {
  const leg = boxes([
    [2, 0, 3],
    [2, 6, 2],
  ]);
  const rest = CellSet.filled(composite(beast().parts[0]!)).minus(leg);
  it.each([2, 4])('at height %i the half away from the joint is the piece, be it the larger or the smaller', (at) => {
    const halves = splitByPlane(leg, 1, at);
    const { piece, stays } = awayFrom(rest, halves);
    expect([piece.tight!.min[1], piece.count]).toEqual([0, at * 4]);
    expect(stays.count).toBe((6 - at) * 4);
    // With nothing to hang on, the smaller one is.
    expect(awayFrom(boxes(), halves).piece.count).toBe(Math.min(at, 6 - at) * 4);
  });
  it('its halves can be swapped: names and sides stay, every cube is in one of them', () => {
    const p = named(),
      part = p.parts[0]!;
    const before = edits.cellsByRegion(part);
    const q = run(p, edits.swapRegionsEdit, { part: part.id, region: 1, other: 2 }).parts[0]!;
    expect(q.regions!.list).toEqual(part.regions!.list);
    const after = edits.cellsByRegion(q);
    expect([after.get(1)!.count, after.get(2)!.count]).toEqual([before.get(2)!.count, before.get(1)!.count]);
    expect(after.get(1)!.minus(before.get(2)!).isEmpty).toBe(true);
    const rest = run(p, edits.swapRegionsEdit, { part: part.id, region: 1, other: 0 }).parts[0]!;
    expect(edits.cellsByRegion(rest).get(0)!.count).toBe(before.get(1)!.count);
    expect(() => run(p, edits.swapRegionsEdit, { part: part.id, region: 99, other: 0 })).toThrow(/no such piece/);
  });
});

describe('a whole that is kept aside', () => {
  it('is neither counted nor checked, mirrored, proposed, deleted as unmounted nor told of in files, until it is worked on', async () => {
    const p = named(false);
    const q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id });
    const whole = q.parts.find((o) => o.hidden)!;
    expect([...keptAside(q.parts)]).toEqual([whole.id]);
    expect(partsInUse(q.parts)).toHaveLength(q.parts.length - 1);
    expect(checkProject(q).filter((f) => f.id === whole.id)).toEqual([]);
    const swept = run(q, edits.deleteUnmountedEdit, {});
    expect(swept.parts.some((o) => o.id === whole.id)).toBe(true);
    const sided = run(q, edits.mountPartEdit, { part: whole.id, bone: q.rig.bones.find((b) => b.side === 'left')!.id });
    expect(
      run(sided, edits.mirrorRigEdit, { from: 'left', plane: 0 }).parts.filter((o) => o.name === whole.name),
    ).toHaveLength(1);
    expect((await exportGlb(q)).notes.filter((o) => o.includes('hidden'))).toEqual([]);
    // Shown again it is a part like any other; so is a hidden part that nothing was taken from.
    const shown = run(q, edits.setPartHiddenEdit, { part: whole.id, hidden: false });
    expect(keptAside(shown.parts).size).toBe(0);
    const head = q.parts.find((o) => o.name === 'Head')!;
    expect(keptAside(run(q, edits.setPartHiddenEdit, { part: head.id, hidden: true }).parts).has(head.id)).toBe(false);
  });
});

describe('taking apart', () => {
  it.each([true, false])('keeps every cube in its place and colour, on a bone turned (%s) or on none', (turned) => {
    const p = named(turned),
      before = places(p);
    for (const [bones, keepWhole] of [
      [true, true],
      [true, false],
      [false, true],
    ] as const) {
      const q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id, bones, keepWhole });
      expect(places(q)).toEqual(before);
      expect(q.parts.filter((o) => !o.hidden).map((o) => `${o.name} ${o.side}`)).toEqual([
        'Body centre',
        'Head centre',
        'Neck centre',
        'Hind leg left',
        'Fore leg left',
        'Hind leg right',
        'Fore leg right',
      ]);
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
    expect([above('Head'), above('Neck'), above('Hind leg', 'left'), above('Fore leg', 'right')]).toEqual([
      'Neck',
      'Root',
      'Root',
      'Root',
    ]);
    const whole = q.parts.find((o) => o.hidden)!;
    expect([whole.name, composite(whole).count]).toEqual(['Body, whole', composite(p.parts[0]!).count]);
    for (const m of q.rig.mounts) if (m.part !== whole.id && m.part !== part('Body').id) expect(m.t).toEqual([0, 0, 0]);
  });
  it('an arm against the trunk turns at its shoulder, and the forearm at the upper arm', () => {
    const at = (min: Vec3, size: Vec3): CellSet => boxes([min, size]);
    const cubes = [at([-4, 12, -2], [8, 12, 4]), at([4, 17, -1], [3, 7, 3]), at([4, 9, -1], [3, 8, 3])] as const;
    const bare = makeProject('p', 'Figure', idsFrom('figure'), 'character', [16, 32, 16]),
      { id, layers } = bare.parts[0]!;
    const built = run(bare, edits.strokeEdit, {
      part: id,
      layer: layers[0]!.id,
      stroke: boxStroke(
        'add',
        2,
        cubes.map((c) => c.tight!),
      ),
    });
    const p = run(built, edits.addRegionsEdit, {
      part: id,
      half: 0,
      pieces: [
        { name: 'Upper arm', side: 'left', cells: cubes[1] },
        { name: 'Forearm', side: 'left', cells: cubes[2] },
      ],
    });
    const { parent, pivots } = edits.piecesOf(p.parts[0]!, 'Trunk');
    expect(parent).toEqual([-1, 0, 1]);
    // The shoulder at the trunk’s side, as far below the arm’s upper end as the arm is thick to its middle.
    expect(pivots.slice(1)).toEqual([
      [8, 45, 1],
      [11, 34, 1],
    ]);
  });
  it('plugs go into the body in the limb’s colours, no deeper than asked, and nothing shows at rest', () => {
    const p = named(),
      before = places(p);
    const q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id, plug: 2 });
    const leg = q.parts.find((o) => o.name === 'Hind leg' && o.side === 'left')!;
    expect(leg.bounds).toEqual({ min: [2, 0, -7], size: [2, 8, 2] });
    expect([6, 7].map((y) => composite(leg).get(2, y, -7))).toEqual([7, 7]);
    // What is new lies inside the body, where all six neighbours of a cube are filled: nothing of it is seen.
    const seen = composite(p.parts[0]!);
    const shows = q.parts
      .filter((o) => !o.hidden)
      .flatMap((o) => {
        const out: string[] = [];
        composite(o).forEach((x, y, z, v) => {
          const open = [
            [1, 0, 0],
            [-1, 0, 0],
            [0, 1, 0],
            [0, -1, 0],
            [0, 0, 1],
            [0, 0, -1],
          ].some(([a, b, c]) => seen.get(x + a!, y + b!, z + c!) === 0);
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
    const p = named(),
      before = places(p);
    const q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id, keepWhole: false, bones: false });
    const r = run(q, edits.joinPartsEdit, { parts: q.parts.map((o) => o.id) });
    expect([r.parts.length, r.parts[0]!.name]).toEqual([1, 'Body']);
    expect(places(r)).toEqual(before);
    const half = {
      ...q,
      rig: {
        ...q.rig,
        mounts: q.rig.mounts.map((m) =>
          m.part === q.parts[1]!.id ? { ...m, t: [m.t[0] + 0.25, m.t[1], m.t[2]] as Vec3 } : m,
        ),
      },
    };
    expect(() => run(half, edits.joinPartsEdit, { parts: q.parts.map((o) => o.id) })).toThrow(
      /between the cubes of “Body”/,
    );
    expect(() => run(q, edits.joinPartsEdit, { parts: [q.parts[0]!.id] })).toThrow(/two parts or more/);
  });
});

describe('plugs', () => {
  it('with a socket and clearance nothing of the two stands in the same place or touches, and nothing shows', () => {
    // A post of 4 × 4 on a block; with clearance 1 its plug is 2 × 2.
    const blank = makeProject('p', 'Bollard', idsFrom('bollard'), 'prop', [16, 20, 16]),
      id = blank.parts[0]!.id;
    const built = run(blank, edits.strokeEdit, {
      part: id,
      layer: blank.parts[0]!.layers[0]!.id,
      stroke: boxStroke('add', 4, [
        { min: [-5, 0, -5], size: [10, 12, 10] },
        { min: [-2, 12, -2], size: [4, 6, 4] },
      ]),
    });
    const p = run(built, edits.addRegionsEdit, {
        part: id,
        half: 0,
        pieces: [
          {
            name: 'Post',
            side: 'centre',
            cells: boxes([
              [-2, 12, -2],
              [4, 6, 4],
            ]),
          },
        ],
      }),
      seen = composite(p.parts[0]!);
    const q = run(p, edits.takeApartEdit, { ...args, part: id, plug: 2, clearance: 1, socket: true });
    const body = composite(q.parts.find((o) => o.name === 'Body')!),
      post = composite(q.parts.find((o) => o.name === 'Post')!);
    const plug: Vec3[] = [];
    post.forEach((x, y, z) => y < 12 && plug.push([x, y, z]));
    expect(plug).toHaveLength(8);
    expect(CellSet.ofCells(plug).tight).toEqual({ min: [-1, 10, -1], size: [2, 2, 2] });
    for (const [x, y, z] of plug)
      for (const [dx, dy, dz] of [
        [0, 0, 0],
        [1, 0, 0],
        [-1, 0, 0],
        [0, -1, 0],
        [0, 0, 1],
        [0, 0, -1],
      ])
        expect(body.get(x + dx!, y + dy!, z + dz!)).toBe(0);
    // Of the body only what nobody saw is gone; a socket is one deeper than its plug.
    seen.forEach((x, y, z) => {
      if (y >= 12 || body.get(x, y, z) !== 0) return;
      for (const [dx, dy, dz] of [
        [1, 0, 0],
        [-1, 0, 0],
        [0, 1, 0],
        [0, -1, 0],
        [0, 0, 1],
        [0, 0, -1],
      ])
        expect(seen.get(x + dx!, y + dy!, z + dz!)).not.toBe(0);
    });
    expect([9, 8].map((y) => body.get(0, y, 0))).toEqual([0, 4]);
    expect(() => run(p, edits.takeApartEdit, { ...args, part: id, clearance: -1 })).toThrow(/Clearance is 0 to 32/);
  });
  it('close the gap of a swing: by the sector’s own area without one, wholly with one deep enough', () => {
    const body = boxes([
        [-6, 10, -3],
        [12, 8, 6],
      ]),
      limb = boxes([
        [-2, 0, -2],
        [4, 10, 4],
      ]);
    const plugged = (depth: number): CellSet =>
      limb.union(
        boxes([
          [-2, 10, -2],
          [4, depth, 4],
        ]),
      );
    const pivot: Vec3 = [0, 20, 0];
    // Of the points that the cut sweeps over, one half lies on the side that opens; no cube covers any of them.
    expect(swingGap(limb, limb, body, pivot, 0, 40)).toBeCloseTo(0.5, 1);
    const open = [1, 2, 3].map((d) => swingGap(limb, plugged(d), body, pivot, 0, 40));
    expect(open[0]).toBeLessThan(0.1);
    // The cut is two cubes from its pivot to its rim: 2 · sin 40° = 1.29.
    expect(open.slice(1)).toEqual([0, 0]);
    expect(
      swingGap(
        limb,
        limb,
        boxes([
          [40, 0, 0],
          [1, 1, 1],
        ]),
        pivot,
        0,
        40,
      ),
    ).toBe(0);
  });
});

describe('regions', () => {
  const regions = (p: Project) =>
    p.parts[0]!.regions!.list.map((r) => [r.name, r.side, edits.cellsByRegion(p.parts[0]!).get(r.byte)!.count]);
  it('an interlocking cut fits: every cube on one side, teeth by turns, and what one side loses the other gains', () => {
    const all = boxes([
      [0, 0, 0],
      [8, 10, 8],
    ]);
    const [low, high] = splitByPlane(all, 1, 5, { width: 2, depth: 2 });
    expect([low.count + high.count, low.union(high).count, low.intersect(high).count]).toEqual([640, 640, 0]);
    // A chequerboard of 2 × 2 teeth, two deep, half of the field.
    expect([low.count, low.has(0, 6, 0), low.has(2, 6, 0), low.has(2, 6, 2), low.has(0, 7, 0)]).toEqual([
      8 * 8 * 5 + 64,
      true,
      false,
      true,
      false,
    ]);
    let p = beast(false);
    const id = p.parts[0]!.id;
    p = run(p, edits.addRegionsEdit, {
      part: id,
      half: 0,
      pieces: splitByPlane(
        boxes([
          [-4, 6, -8],
          [8, 6, 14],
        ]),
        2,
        0,
        { width: 1, depth: 1 },
      ).map((cells, i) => ({ name: i ? 'Fore' : 'Hind', side: 'centre' as const, cells })),
    });
    const at = regions(p).map((r) => r[2] as number),
      one = p.parts[0]!.regions!.list[0]!.byte;
    const edge = edits
      .cellsByRegion(p.parts[0]!)
      .get(one)!
      .intersect(
        boxes([
          [-4, 6, -1],
          [8, 6, 2],
        ]),
      );
    let first: Vec3 | null = null;
    edge.forEach((x, y, z) => {
      if (z === 0) first ??= [x, y, z];
    });
    const q = run(p, edits.assignRegionEdit, {
      part: id,
      shares: [{ cells: CellSet.ofCells([first!]), region: 'other' }],
    });
    expect(regions(q).map((r) => r[2])).toEqual([at[0]! - 1, at[1]! + 1]);
  });
  it('mirror images become left and right of one name, which both keep; taken cubes leave where they were; bytes are not used again', () => {
    let p = beast(false);
    const id = p.parts[0]!.id;
    p = run(p, edits.addRegionsEdit, {
      part: id,
      half: 0,
      pieces: [-7, 3].flatMap((z) =>
        [2, -4].map((x) => ({
          name: `Piece ${x} ${z}`,
          side: 'centre' as const,
          cells: boxes([
            [x, 0, z],
            [2, 6, 2],
          ]),
        })),
      ),
    });
    expect(regions(p)).toEqual([
      ['Piece 2 -7', 'left', 24],
      ['Piece 2 -7', 'right', 24],
      ['Piece 2 3', 'left', 24],
      ['Piece 2 3', 'right', 24],
    ]);
    const [first] = p.parts[0]!.regions!.list;
    p = run(p, edits.changeRegionEdit, { part: id, region: first!.byte, name: 'Hind leg' });
    p = run(p, edits.addRegionsEdit, {
      part: id,
      half: 0,
      taken: true,
      pieces: [
        {
          name: 'Hoof',
          side: 'centre',
          cells: boxes([
            [2, 0, -7],
            [2, 2, 2],
          ]),
        },
      ],
    });
    expect(regions(p)).toEqual([
      ['Hind leg', 'left', 16],
      ['Hind leg', 'right', 24],
      ['Piece 2 3', 'left', 24],
      ['Piece 2 3', 'right', 24],
      ['Hoof', 'centre', 8],
    ]);
    expect(() =>
      run(p, edits.addRegionsEdit, {
        part: id,
        half: 0,
        pieces: [
          {
            name: 'Hoof',
            side: 'centre',
            cells: boxes([
              [2, 0, -7],
              [2, 2, 2],
            ]),
          },
        ],
      }),
    ).toThrow(/belong to a piece already/);
    const q = run(run(p, edits.takeApartEdit, { ...args, part: id }), edits.dropRegionEdit, { part: id, region: 5 });
    const r = run(q, edits.addRegionsEdit, {
      part: id,
      half: 0,
      pieces: [
        {
          name: 'Toe',
          side: 'centre',
          cells: boxes([
            [2, 0, -7],
            [1, 1, 1],
          ]),
        },
      ],
    });
    expect(r.parts.find((o) => o.id === id)!.regions!.list.at(-1)).toMatchObject({ name: 'Toe', byte: 6 });
    expect(() => run(p, edits.changeRegionEdit, { part: id, region: 99, name: 'X' })).toThrow(/no such piece/);
    expect(
      withSides(
        [
          {
            name: 'A',
            side: 'centre',
            cells: boxes([
              [1, 0, 0],
              [2, 2, 2],
            ]),
          },
          {
            name: 'B',
            side: 'centre',
            cells: boxes([
              [-3, 0, 0],
              [2, 2, 2],
            ]),
          },
        ],
        0,
      ).map((c) => [c.name, c.side]),
    ).toEqual([
      ['A', 'left'],
      ['A', 'right'],
    ]);
  });
  it('whoever has a surface has what lies under it: every buried cube under exactly one side', () => {
    const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [12, 9, 9] }).edit((d) =>
      d.fillBox({ min: [0, 0, 0], size: [12, 9, 9] }, 3),
    );
    const top = withUnder(
        grid,
        boxes([
          [0, 8, 0],
          [12, 1, 9],
        ]),
      ),
      rest = withUnder(
        grid,
        CellSet.filled(grid)
          .minus(
            boxes([
              [1, 1, 1],
              [10, 7, 7],
            ]),
          )
          .minus(
            boxes([
              [0, 8, 0],
              [12, 1, 9],
            ]),
          ),
      );
    expect([top.intersect(rest).count, top.union(rest).count]).toEqual([0, 12 * 81]);
    // Below the middle of the top, four layers are nearer to it than to any other side.
    expect([7, 6, 5, 3, 1].map((y) => top.has(6, y, 4))).toEqual([true, true, true, false, false]);
  });
  it('patches take ramps as one colour and keep specks with what they touch', () => {
    const swatches = ['Moss', 'Moss, shade', 'Ink', 'Oak 1', 'Oak 2'].map((name, i) =>
      makeSwatch(i + 1, name, `#10${i}0${i}0`),
    );
    const family = families({ id: 'p', name: 'P', swatches });
    expect([...family.slice(0, 6)]).toEqual([0, 1, 1, 3, 4, 4]);
    const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [20, 8, 8] }).edit((d) => {
      d.fillBox({ min: [0, 0, 0], size: [10, 8, 8] }, 1);
      d.fillBox({ min: [0, 0, 0], size: [10, 2, 8] }, 2);
      d.fillBox({ min: [10, 0, 0], size: [8, 8, 8] }, 4);
      d.set(9, 4, 4, 5);
      d.set(3, 7, 7, 3);
    });
    expect(splitByPatches(grid, family).map((c) => [c.byte, c.cells.count])).toEqual([
      [1, 638],
      [4, 513],
      [3, 1],
    ]);
    expect(splitByPatches(grid, family, 4).map((c) => [c.byte, c.cells.count])).toEqual([
      [1, 639],
      [4, 513],
    ]);
    expect(splitByColour(grid, family).map((c) => c.byte)).toEqual([1, 4, 3]);
  });
});

describe('set back', () => {
  it('takes what stands in the other part or too near, on shifted lattices, and refuses what makes no sense', () => {
    const p = named(),
      q = run(p, edits.takeApartEdit, { ...args, part: p.parts[0]!.id });
    const part = (name: string) => q.parts.find((o) => o.name === name)!;
    const by = (k: number) =>
      composite(
        run(q, edits.setBackEdit, { part: part('Head').id, from: part('Neck').id, by: k }).parts.find(
          (o) => o.name === 'Head',
        )!,
      ).count;
    // The head's back lies against the neck's front, which is four wide and ends two cubes above the head's foot.
    expect([by(1), by(2)]).toEqual([120 - 6 * 3 * 1, 120 - 6 * 4 * 2]);
    expect(() => by(0)).toThrow(/stands clear of “Neck” already/);
    expect(() => by(16)).toThrow(/Nothing would be left of “Head”/);
    const whole = q.parts.find((o) => o.hidden)!;
    expect(
      composite(
        run(q, edits.setBackEdit, { part: whole.id, from: part('Head').id, by: 0 }).parts.find(
          (o) => o.id === whole.id,
        )!,
      ).count,
    ).toBe(composite(whole).count - 120);
  });
});

describe('equal parts', () => {
  it('have one form wherever they stand; another colour or cube is another form', () => {
    const at = (x: number, value = 3, more = 0) =>
      VoxelGrid.empty({ min: [-20, 0, 0], size: [60, 20, 20] }).edit((d) => {
        d.fillBox({ min: [x, 2, 3], size: [4, 5, 6] }, 3);
        d.set(x + 1, 2, 3, value);
        if (more) d.set(x + 4, 2, 3, more);
      });
    expect(formOf(at(0))).toBe(formOf(at(-17)));
    expect(
      new Set([
        formOf(at(0)),
        formOf(at(0, 4)),
        formOf(at(0, 3, 3)),
        formOf(VoxelGrid.empty({ min: [0, 0, 0], size: [4, 4, 4] })),
      ]).size,
    ).toBe(4);
  });
});

describe('ways to find pieces', () => {
  const random = fc
    .array(
      fc.tuple(
        fc.integer({ min: 0, max: 9 }),
        fc.integer({ min: 0, max: 9 }),
        fc.integer({ min: 0, max: 9 }),
        fc.integer({ min: 1, max: 4 }),
      ),
      { minLength: 1, maxLength: 30 },
    )
    .map((l) =>
      VoxelGrid.empty({ min: [0, 0, 0], size: [14, 14, 14] }).edit((d) =>
        l.forEach(([x, y, z, v]) => d.fillBox({ min: [x, y, z], size: [3, 2, 2] }, v)),
      ),
    );
  it('every cube belongs to exactly one piece, whichever way', () => {
    fc.assert(
      fc.property(random, fc.integer({ min: 0, max: 14 }), fc.constantFrom(0, 1, 2), (grid, at, axis) => {
        for (const sets of [
          splitByPieces(grid),
          splitByColour(grid).map((c) => c.cells),
          splitByPatches(grid).map((c) => c.cells),
          splitByPlane(CellSet.filled(grid), axis as 0 | 1 | 2, at),
          splitByPlane(CellSet.filled(grid), axis as 0 | 1 | 2, at, { width: 2, depth: 3 }),
        ]) {
          const all = sets.reduce((a, b) => a.union(b), new CellSet({ min: [0, 0, 0], size: [0, 0, 0] }));
          expect(sets.map((c) => c.count).reduce((x, y) => x + y, 0)).toBe(grid.count);
          expect(all.count).toBe(grid.count);
        }
      }),
      { numRuns: 25 },
    );
  });
  it('contacts, what hangs on what, plugs and mirrored pairs, worked out by hand', () => {
    const body = boxes([
        [0, 0, 0],
        [6, 4, 4],
      ]),
      arm = boxes([
        [6, 1, 1],
        [3, 2, 2],
      ]),
      hand = boxes([
        [9, 1, 1],
        [1, 1, 1],
      ]),
      far = boxes([
        [20, 0, 0],
        [1, 1, 1],
      ]);
    expect(contactOf(arm, body)).toEqual({ faces: 4, along: [4, 0, 0], centre: [12, 4, 4] });
    expect(contactOf(far, body)).toBeNull();
    expect([...contactsOf([body, arm, hand, far])]).toEqual([
      [1, contactOf(arm, body)],
      [6, contactOf(hand, arm)],
    ]);
    expect(hangingOn([body, arm, hand, far], 0).map((h) => h.parent)).toEqual([-1, 0, 1, -1]);
    // An arm that lies against the trunk, and a tail of the coat against a leg, hang where they end.
    const figure: [Vec3, Vec3][] = [
      [
        [-4, 12, -2],
        [8, 12, 4],
      ],
      [
        [4, 18, -2],
        [3, 6, 3],
      ],
      [
        [4, 12, -2],
        [3, 6, 3],
      ],
      [
        [4, 9, -2],
        [3, 3, 3],
      ],
      [
        [-4, 0, -2],
        [4, 12, 4],
      ],
      [
        [-4, 2, 2],
        [4, 9, 1],
      ],
      [
        [-4, 11, 2],
        [8, 3, 1],
      ],
    ];
    expect(
      hangingOn(
        figure.map((b) => boxes(b)),
        0,
      ).map((h) => h.parent),
    ).toEqual([-1, 0, 1, 2, 0, 6, 0]);
    const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [24, 8, 8] }).edit((d) => {
      d.fillSet(body, 2);
      d.fillSet(arm, 5);
    });
    const plug = plugOf(grid, arm, body, 2);
    expect([plug.length, new Set(plug.map(([, v]) => v)), Math.min(...plug.map(([c]) => c[0]))]).toEqual([
      8,
      new Set([5]),
      4,
    ]);
    // The last cube of the body on the other side is seen, so the plug ends before it.
    expect(plugOf(grid, arm, body, 50)).toHaveLength(20);
    expect(
      mirrorShare(
        arm,
        boxes([
          [-9, 1, 1],
          [3, 2, 2],
        ]),
        0,
        0,
      ),
    ).toBe(1);
    expect(
      mirrorShare(
        arm,
        boxes([
          [-9, 1, 1],
          [3, 2, 1],
        ]),
        0,
        0,
      ),
    ).toBe(0.5);
  });
});

describe('handing over', () => {
  it('gives erased cubes to the part beside, in place and colour, from the seam inwards; the two always make the whole', () => {
    let p = beast();
    const id = p.parts[0]!.id;
    p = run(p, edits.addRegionsEdit, {
      part: id,
      half: 0,
      pieces: splitByPlane(
        boxes([
          [-4, 6, -8],
          [8, 6, 14],
        ]),
        2,
        0,
        { width: 2, depth: 2 },
      )
        .slice(0, 1)
        .map((cells) => ({ name: 'Rump', side: 'centre' as const, cells })),
    });
    p = run(p, edits.takeApartEdit, { ...args, part: id });
    const before = places(p),
      rump = p.parts.find((o) => o.name === 'Rump')!,
      body = (q: Project) => q.parts.find((o) => o.name === 'Body')!;
    const full = composite(rump).count;
    // A row of four that reaches two cubes in from the seam.
    const q = run(p, edits.handOverEdit, {
      part: rump.id,
      cells: boxes([
        [-4, 6, -3],
        [1, 1, 5],
      ]),
    });
    const lost = full - composite(q.parts.find((o) => o.id === rump.id)!).count;
    expect([lost, composite(body(q)).count - composite(body(p)).count]).toEqual([lost, lost]);
    expect(lost).toBeGreaterThan(2);
    expect(places(q)).toEqual(before);
    // And back again from the other side.
    const r = run(q, edits.handOverEdit, {
      part: body(q).id,
      cells: boxes([
        [-4, 6, -3],
        [1, 1, 5],
      ]),
    });
    expect(places(r)).toEqual(before);
    expect(() =>
      run(p, edits.handOverEdit, {
        part: rump.id,
        cells: boxes([
          [0, 8, -8],
          [1, 1, 1],
        ]),
      }),
    ).toThrow(/touch no other part/);
    expect(() =>
      run(p, edits.handOverEdit, {
        part: id,
        cells: boxes([
          [0, 8, -8],
          [1, 1, 1],
        ]),
      }),
    ).toThrow(/not taken from a whole/);
  });
});

describe('places that a pivot goes to by itself', () => {
  const at = (p: Project, name: string, place: PivotPlace): Vec3 =>
    pivotAt(p, p.parts.find((o) => o.name === name && !o.hidden)!.id, place);

  it('are the centre, the base, the cut, and where it touches what it touches most, however it is turned', () => {
    const p = run(named(), edits.takeApartEdit, { ...args, part: named().parts[0]!.id });
    expect(at(p, 'Neck', 'centre')).toEqual([0, 28, 11]);
    expect(at(p, 'Neck', 'base')).toEqual([0, 24, 11]);
    expect(at(p, 'Neck', 'cut')).toEqual(p.parts.find((o) => o.name === 'Neck')!.pivot);
    expect(at(p, 'Head', 'neighbour')).toEqual([0, 30, 14]);
    // As an edit it goes for several at once, each cube staying where it is.
    const ids = p.parts.filter((o) => ['Neck', 'Head'].includes(o.name)).map((o) => o.id);
    const placed = run(p, edits.placePivotsEdit, { parts: ids, place: 'centre', joint: true });
    expect(placed.parts.filter((o) => ids.includes(o.id)).map((o) => o.pivot)).toEqual(
      ids.map((id) => pivotAt(p, id, 'centre')),
    );
    expect(places(placed)).toEqual(places(p));
    // Turned about its joint by a sixth, the leg still meets the body there.
    const leg = p.parts.find((o) => o.name === 'Fore leg' && o.side === 'left')!;
    const bone = p.rig.mounts.find((m) => m.part === leg.id)!.bone!;
    const turned = run(p, edits.setRestEdit, { bone, rest: { q: quatFromAxisAngle([0, 1, 0], Math.PI / 3) } });
    const [x, y, z] = pivotAt(turned, leg.id, 'neighbour');
    expect([y, Math.abs(x - 6) <= 1, Math.abs(z - 8) <= 1]).toEqual([12, true, true]);
  });
  it('the floor lies under it, and what touches nothing or was cut from nothing says so', () => {
    let p = beast(false);
    const body = p.parts[0]!;
    p = run(p, edits.setPivotEdit, { part: body.id, pivot: [3, 17, -5] });
    p = run(p, edits.setMountEdit, { mount: p.rig.mounts[0]!.id, place: { t: [0, 4, 0] } });
    const [x, y, z] = pivotAt(p, body.id, 'floor');
    expect([x, z]).toEqual([3, -5]);
    const q = run(p, edits.setPivotEdit, { part: body.id, pivot: [x, y, z] });
    expect(placeParts(q)[0]!.matrix).toEqual(placeParts(p)[0]!.matrix);
    expect(transformPoint(placeParts(q)[0]!.matrix, [x / 2, y / 2, z / 2])[1]).toBeCloseTo(0, 9);
    expect(() => pivotAt(p, body.id, 'neighbour')).toThrow(/“.*” touches no other part/);
    expect(() => pivotAt(p, body.id, 'cut')).toThrow(/was not taken off a whole/);
    const empty = run(p, edits.clearPartEdit, { part: body.id });
    expect(() => pivotAt(empty, body.id, 'centre')).toThrow(/is empty/);
  });
});
