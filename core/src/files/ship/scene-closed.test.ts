import { expect, it } from 'vitest';
import { type Vec3, quatFromAxisAngle } from '../../math';
import { type Project, idsFrom, makeProject } from '../../model';
import { type Edit, addSceneEdit, apply, editContext, placeEdit, strokeEdit } from '../../project';
import { boxStroke } from '../../sculpt';
import { gatherShipped } from '..';
import { wishing } from '../testing';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`closed ${n++}`));
/** Crates of two colours, with a handle, one of them turned freely and one half as large. */
function crates(): Project {
  let p = makeProject('crates', 'Crates', idsFrom('crates'), 'scene', [8, 8, 8]);
  const part = p.parts[0]!,
    [x, y, z] = part.bounds.min;
  for (const [value, min, size] of [
    [3, [x, y, z], [6, 4, 5]],
    [5, [x, y + 2, z], [6, 1, 5]],
    [4, [x + 2, y + 4, z + 2], [2, 2, 1]],
  ] as const) {
    const stroke = boxStroke('add', value, [{ min, size }]);
    p = run(p, strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke });
  }
  p = run(p, addSceneEdit, { name: 'Quay' });
  const shows = { kind: 'part', part: part.id } as const;
  const placements = [
    { shows },
    { shows, t: [20, 0, 0] as const, q: quatFromAxisAngle([0.6, 0.8, 0], 0.7) },
    { shows, t: [0, 0, 30] as const, s: [0.5, 0.5, 0.5] as const },
  ];
  return run(p, placeEdit, { scene: p.scenes[0]!.id, placements });
}

it('a scene shipped as one watertight object is closed body by body, and holds as much as its cubes', () => {
  const p = crates(),
    [scene] = p.scenes;
  const cubes = p.parts[0]!.layers[0]!.grid.count,
    held = cubes * (1 + 1 + 0.125) * p.metresPerUnit ** 3;
  for (const merge of ['colour', 'all'] as const) {
    const wishes = wishing({ mesh: { as: 'one', watertight: true, merge }, collider: { shape: 'none' } });
    const model = gatherShipped(p, { of: 'scene', scene: scene!.id }, wishes);
    const drawn = model.nodes.filter((o) => o.mesh !== null);
    expect(drawn).toHaveLength(1);
    const edges = new Map<string, number>();
    let volume = 0;
    for (const { shape } of model.meshes[drawn[0]!.mesh!]!.pieces) {
      const { positions, indices } = model.shapes[shape]!;
      const at = (i: number): Vec3 => [0, 1, 2].map((k) => positions[indices[i]! * 3 + k]!) as unknown as Vec3;
      const key = (v: Vec3): string => v.map((c) => Math.round(c * 1e4)).join();
      for (let t = 0; t < indices.length; t += 3) {
        const c = [at(t), at(t + 1), at(t + 2)] as const;
        volume +=
          (c[0][0] * (c[1][1] * c[2][2] - c[1][2] * c[2][1]) +
            c[0][1] * (c[1][2] * c[2][0] - c[1][0] * c[2][2]) +
            c[0][2] * (c[1][0] * c[2][1] - c[1][1] * c[2][0])) /
          6;
        for (const [a, b] of [
          [0, 1],
          [1, 2],
          [2, 0],
        ] as const) {
          const [from, to] = [key(c[a]), key(c[b])];
          edges.set(`${from} ${to}`, (edges.get(`${from} ${to}`) ?? 0) + 1);
          edges.set(`${to} ${from}`, (edges.get(`${to} ${from}`) ?? 0) - 1);
        }
      }
    }
    expect([...edges.values()].filter((k) => k !== 0)).toEqual([]);
    expect(volume / held).toBeCloseTo(1, 3);
  }
});
