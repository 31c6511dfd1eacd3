import { describe, expect, it } from 'vitest';
import { type Vec3, quatFromAxisAngle } from '../../math';
import { type Project, idsFrom, makeProject, placementsOf } from '../../model';
import { gather, gatherRig, listExtent } from '../../scene';
import { boxStroke } from '../../sculpt';
import { type Edit, apply, editContext } from '../edit';
import { bringToSceneEdit } from './bring-to-scene';
import { addPartEdit } from './parts';
import { addSceneEdit } from './scenes';
import { strokeEdit } from './strokes';

let n = 0;
const step = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`site ${n++}`));
/** A project of plain blocks, each where it stands. */
function blocks(...boxes: readonly { readonly min: Vec3; readonly size: Vec3 }[]): Project {
  const [first, ...more] = boxes;
  const empty = makeProject('b', 'Crates', idsFrom('b'), 'prop', first!.size);
  let p = more.reduce((q, box) => step(q, addPartEdit, { name: 'Crate', bounds: box }), empty);
  p.parts.forEach((part) => {
    const stroke = boxStroke('add', 2, [part.bounds]);
    p = step(p, strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke });
  });
  return p;
}
const quay = (): Project => step(makeProject('q', 'Quay', idsFrom('q')), addSceneEdit, { name: 'Night' });
const extent = (p: Project) => listExtent(gather(p, { of: 'scene', scene: p.scenes[0]!.id }))!;
const dropped = (source: Project, t: Vec3, degrees = 0, against = false): Project => {
  const p = quay(),
    [scene] = p.scenes;
  const site = {
    ...{ scene: scene!.id, layer: scene!.layers[0]!.id, t, against },
    q: quatFromAxisAngle([0, 1, 0], (degrees * Math.PI) / 180),
  };
  return step(p, bringToSceneEdit, { source, into: null, site });
};

describe('bringing into a scene', () => {
  it('stands the middle of its foot where it was dropped, on no mount', () => {
    const p = dropped(blocks({ min: [3, 5, 7], size: [4, 6, 8] }), [20, 3, -10]);
    const { lo, hi } = extent(p);
    expect([(lo[0] + hi[0]) / 2, lo[1], (lo[2] + hi[2]) / 2].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
      20, 3, -10,
    ]);
    expect(p.rig.mounts).toEqual([]);
    expect(placementsOf(p.scenes[0]!)).toHaveLength(1);
  });

  it('stands several as they stand to one another, on a group, and against a wall with its back', () => {
    const source = blocks({ min: [0, 0, 0], size: [4, 4, 4] }, { min: [10, 0, 0], size: [4, 2, 6] });
    const alone = listExtent(gatherRig(source))!;
    const p = dropped(source, [0, 10, 30], 90, true);
    const { lo, hi } = extent(p);
    const size = (e: { lo: Vec3; hi: Vec3 }): number[] =>
      [0, 1, 2].map((k) => Math.round((e.hi[k]! - e.lo[k]!) * 1e6) / 1e6);
    // Turned by a quarter, so that what was wide is deep; its back is at the wall, and its middle at the height of the hand.
    expect(size({ lo, hi })).toEqual([size(alone)[2], size(alone)[1], size(alone)[0]]);
    expect(lo[0]).toBeCloseTo(0, 6);
    expect((lo[1] + hi[1]) / 2).toBeCloseTo(10, 6);
    const [group, ...hung] = placementsOf(p.scenes[0]!);
    expect(group).toMatchObject({ shows: { kind: 'group' }, name: 'Crates' });
    expect(hung.map((h) => h.parent)).toEqual([group!.id, group!.id]);
  });
});
