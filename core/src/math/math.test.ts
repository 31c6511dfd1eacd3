import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  boxContains,
  boxFromCells,
  boxVolume,
  composeTransform,
  eulerFromQuat,
  heaviestTree,
  intersectBoxes,
  mirrorQuat,
  quatFromAxisAngle,
  quatFromEuler,
  relativeTransform,
  rotate,
  seededRandom,
  uniteBoxes,
  type Arc,
  type Vec3,
} from '.';

const unit = fc.double({ min: -1.5, max: 1.5, noNaN: true });
const cell = fc.tuple(
  fc.integer({ min: -9, max: 9 }),
  fc.integer({ min: -9, max: 9 }),
  fc.integer({ min: -9, max: 9 }),
) as fc.Arbitrary<[number, number, number]>;
const close = (a: readonly number[], b: readonly number[], digits = 9): void =>
  a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, digits));

describe('rotations', () => {
  it('Euler angles (YXZ) come back as the same rotation', () => {
    fc.assert(
      fc.property(unit, fc.double({ min: -3, max: 3, noNaN: true }), unit, (x, y, z) => {
        const q = quatFromEuler([x, y, z]);
        const again = quatFromEuler(eulerFromQuat(q));
        for (const v of [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ] as const)
          close(rotate(q, v), rotate(again, v), 6);
      }),
    );
  });
  it('a mirrored rotation turns the mirrored point to the mirrored place', () => {
    fc.assert(
      fc.property(unit, unit, unit, cell, (x, y, z, v) => {
        const q = quatFromEuler([x, y, z]);
        const flip = (p: Vec3): Vec3 => [-p[0], p[1], p[2]];
        close(rotate(mirrorQuat(q, 0), flip(v)), flip(rotate(q, v)), 8);
      }),
    );
  });
  it('a quarter turn about Y takes +Z to +X', () => {
    close(rotate(quatFromAxisAngle([0, 1, 0], Math.PI / 2), [0, 0, 1]), [1, 0, 0]);
  });
});

describe('transforms', () => {
  it('relative undoes compose', () => {
    fc.assert(
      fc.property(unit, unit, cell, cell, fc.double({ min: 0.2, max: 4, noNaN: true }), (a, b, t, u, s) => {
        const parent = { t, q: quatFromEuler([a, b, 0]), s: [s, s, s] as Vec3 },
          local = { t: u, q: quatFromEuler([b, 0, a]), s: [1, 1, 1] as Vec3 };
        const back = relativeTransform(parent, composeTransform(parent, local));
        close(back.t, local.t, 7);
        close(rotate(back.q, [1, 2, 3]), rotate(local.q, [1, 2, 3]), 7);
        close(back.s, local.s, 7);
      }),
    );
  });
});

describe('boxes', () => {
  it('the union holds both, the common part lies in both', () => {
    fc.assert(
      fc.property(cell, cell, cell, cell, (a, b, c, d) => {
        const p = boxFromCells(a, b),
          q = boxFromCells(c, d);
        const both = intersectBoxes(p, q),
          all = uniteBoxes(p, q);
        expect(boxContains(all, p) && boxContains(all, q)).toBe(true);
        expect(boxContains(p, both) && boxContains(q, both)).toBe(true);
        expect(boxVolume(all)).toBeGreaterThanOrEqual(boxVolume(p) + boxVolume(q) - boxVolume(both));
      }),
    );
  });
});

describe('seededRandom', () => {
  it('gives the same numbers for the same seed, spread evenly', () => {
    const a = seededRandom(7),
      b = seededRandom(7);
    const list = Array.from({ length: 10_000 }, () => a());
    expect(list.slice(0, 50)).toEqual(Array.from({ length: 50 }, () => b()));
    expect(list.reduce((n, v) => n + v, 0) / list.length).toBeCloseTo(0.5, 1);
    expect(Math.min(...list)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...list)).toBeLessThan(1);
  });
});

describe('trees', () => {
  /** The most that a tree over all that is reached can weigh, by trying every arc for every node. */
  function heaviest(nodes: number, arcs: readonly Arc[]): number {
    const hangs = (parents: readonly number[], node: number): boolean => {
      let at = node;
      for (let i = 0; i <= nodes && at > 0; i++) at = parents[at]!;
      return at === 0;
    };
    const choices = (node: number): (Arc | null)[] => [null, ...arcs.filter((a) => a.child === node)];
    let most = { over: 0, weight: 0 };
    const go = (node: number, parents: number[], weight: number): void => {
      if (node === nodes) {
        const over = parents.filter((_p, i) => i > 0 && hangs(parents, i)).length;
        const all = parents.every((p, i) => p === -1 || hangs(parents, i));
        if (all && (over > most.over || (over === most.over && weight > most.weight))) most = { over, weight };
        return;
      }
      for (const a of choices(node)) go(node + 1, [...parents, a ? a.parent : -1], weight + (a?.weight ?? 0));
    };
    go(1, [-1], 0);
    return most.weight;
  }
  it('no other tree over the same nodes weighs more', () => {
    const arc = fc.record({ parent: fc.nat(4), child: fc.nat(4), weight: fc.integer({ min: 1, max: 20 }) });
    fc.assert(
      fc.property(fc.array(arc, { maxLength: 11 }), (any) => {
        const arcs = any.filter((a) => a.parent !== a.child);
        const tree = heaviestTree(5, 0, arcs);
        expect(new Set(tree.map((a) => a.child)).size).toBe(tree.length);
        expect(tree.every((a) => arcs.includes(a))).toBe(true);
        expect(tree.reduce((sum, a) => sum + a.weight, 0)).toBe(heaviest(5, arcs));
      }),
    );
  });
});
