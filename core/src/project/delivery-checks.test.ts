import { describe, expect, it } from 'vitest';
import { QUIET_JOB, deliver } from '../files';
import { type Vec3, finish } from '../math';
import { type Project, deliveryOf, idsFrom, makeProject } from '../model';
import { boxStroke } from '../sculpt';
import { VoxelGrid } from '../voxel';
import {
  type DeliveryFinding,
  type Edit,
  addBoneEdit,
  addClipEdit,
  addPartEdit,
  apply,
  deliveryChecksSteps,
  deliveryFigures,
  editContext,
  mountPartEdit,
  printFlaws,
  setDeliveryEdit,
  setKeyEdit,
  setProjectEdit,
  setSideEdit,
  strokeEdit,
} from '.';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`check ${n++}`, 1000));
const fill = (p: Project, part: number, min: Vec3, size: Vec3): Project =>
  run(p, strokeEdit, {
    part: p.parts[part]!.id,
    layer: p.parts[part]!.layers[0]!.id,
    stroke: boxStroke('add', 5, [{ min, size }]),
  });
/** A post of 2 × 6 × 2 with a box of 2³ half inside it, both on bones. */
function post(): Project {
  let p = makeProject('post', 'Post', idsFrom('post'), 'prop', [8, 8, 8]);
  p = fill(p, 0, [-1, 0, -1], [2, 6, 2]);
  p = run(p, addPartEdit, { name: 'Knob', bounds: { min: [0, 0, 0], size: [4, 4, 4] }, pivot: [0, 0, 0] });
  p = fill(p, 1, [0, 0, 0], [2, 2, 2]);
  p = run(p, addBoneEdit, { name: 'Root', parent: null, t: [0, 0, 0] });
  const bone = p.rig.bones[0]!.id;
  for (const part of p.parts) p = run(p, mountPartEdit, { part: part.id, bone });
  return p;
}
async function checked(p: Project, delivery = 'phone'): Promise<readonly DeliveryFinding[]> {
  const profile = deliveryOf(p, delivery)!;
  const files = await deliver(p, { subject: { of: 'rig' }, profile, colourway: null }, QUIET_JOB);
  return finish(deliveryChecksSteps(p, { of: 'rig' }, profile, deliveryFigures(p, files)));
}
const found = async (p: Project, code: string, delivery?: string): Promise<DeliveryFinding[]> =>
  (await checked(p, delivery)).filter((f) => f.code === code);

describe('what a delivery is found to be', () => {
  it('over its budget, with the figure and the limit; in order where nothing is over', async () => {
    expect((await found(post(), 'budget')).map((f) => f.level)).toEqual(['fine']);
    const p = run(post(), setDeliveryEdit, { delivery: 'phone', change: { budget: { triangles: 10, draws: 1 } } });
    const over = (await checked(p)).filter((f) => f.level === 'over');
    expect(over.map((f) => f.code)).toEqual(['budget.triangles', 'budget.draws']);
    expect(over[0]!.text).toMatch(/^\d+ triangles are more than the 10 of the budget/);
  });
  it('with cubes that hang on nothing and faces that flicker, and where they are', async () => {
    const p = fill(post(), 0, [3, 7, 3], [1, 1, 1]);
    expect(await found(p, 'loose')).toMatchObject([{ at: { step: 'build', id: p.parts[0]!.id } }]);
    // The knob's foot lies in that of the post: a cube of each.
    expect((await found(post(), 'coplanar')).map((f) => f.text)).toEqual([
      '1 face lies in one of another part and will flicker (“Body” and “Knob”)',
    ]);
    expect(await found(post(), 'loose')).toEqual([]);
  });
  it('with faces that nobody sees, those of closed hollows too, and drops them when it is asked to', async () => {
    let p = makeProject('safe', 'Safe', idsFrom('safe'), 'prop', [8, 8, 8]);
    p = fill(p, 0, [-2, 0, -2], [4, 4, 4]);
    const part = p.parts[0]!;
    const hole = boxStroke('erase', 0, [{ min: [-1, 1, -1], size: [2, 2, 2] }]);
    p = run(p, strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke: hole });
    expect(await found(p, 'hidden')).toMatchObject([
      { does: 'drop hidden', text: '24 faces that nobody sees in any clip (most of “Body”)' },
    ]);
    p = run(p, setDeliveryEdit, { delivery: 'phone', change: { mesh: { dropHidden: true } } });
    expect(await found(p, 'hidden')).toEqual([]);
    const { formats } = await deliver(
      p,
      { subject: { of: 'rig' }, profile: deliveryOf(p, 'phone')!, colourway: null },
      QUIET_JOB,
    );
    expect(formats[0]!.counts).toMatchObject({ faces: 6 * 16, triangles: 12 });
  });
  it('with loops that do not close and feet below the ground, at their frame', async () => {
    let p = run(post(), addClipEdit, { name: 'Sink', frames: 24, fps: 24, loop: true });
    const [clip, bone] = [p.clips[0]!.id, p.rig.bones[0]!.id];
    for (const [time, y] of [
      [0, 0],
      [1200, -3],
    ] as const)
      p = run(p, setKeyEdit, { clip, bone, channel: 'move', key: { time, value: [0, y, 0], ease: 'linear' } as never });
    expect(await found(p, 'loop')).toMatchObject([{ at: { step: 'animate', id: clip } }]);
    expect(await found(p, 'floor')).toMatchObject([{ at: { step: 'animate', id: clip, frame: 24 } }]);
    expect(await found(p, 'clips')).toEqual([]);
  });
  it('with names that are one name there', async () => {
    let p = post();
    for (const side of ['left', 'right'] as const) {
      p = run(p, addBoneEdit, { name: 'Arm', parent: p.rig.bones[0]!.id, t: [side === 'left' ? 4 : -4, 2, 0] });
      p = run(p, setSideEdit, { of: 'bones', ids: [p.rig.bones.at(-1)!.id], side });
    }
    expect(await found(p, 'names')).toEqual([]);
    p = run(p, setDeliveryEdit, { delivery: 'phone', change: { names: { left: '', right: '' } } });
    expect((await found(p, 'names')).map((f) => f.text)).toEqual([
      '“Arm left” and “Arm right” are both called “Arm” in the file',
    ]);
  });
  it('without a collider, beside its target, off its origin', async () => {
    let p = run(post(), setProjectEdit, { target: { height: 9, faces: 0, bones: 0, texture: 0 } });
    expect((await found(p, 'scale'))[0]!.text).toContain('the target sheet says 9.00 m');
    p = run(p, setDeliveryEdit, {
      delivery: 'phone',
      change: { collider: { shape: 'none' }, place: { origin: 'pivot' } },
    });
    expect(await found(p, 'collider')).toMatchObject([{ does: 'collider' }]);
    expect(await found(p, 'origin')).toEqual([]);
    expect(await found(fill(p, 0, [3, 0, 3], [1, 8, 1]), 'origin')).toMatchObject([{ does: 'base' }]);
  });
});

describe('what would break in a print', () => {
  const grid = (cells: readonly Vec3[]): VoxelGrid =>
    VoxelGrid.empty({ min: [0, 0, 0], size: [6, 6, 6] }).edit((d) => cells.forEach((c) => d.set(...c, 1)));
  const block: Vec3[] = [0, 1, 2].flatMap((x) => [0, 1, 2].flatMap((y) => [0, 1, 2].map((z): Vec3 => [x, y, z])));
  it('is a wall of fewer cubes than asked, and cubes that meet in an edge and nowhere else', () => {
    expect(printFlaws(grid(block), 3)).toEqual({ thin: 0, edges: 0 });
    expect(printFlaws(grid(block), 4).thin).toBe(27);
    expect(printFlaws(grid([...block, [3, 1, 1], [4, 1, 1]]), 2)).toEqual({ thin: 2, edges: 0 });
    expect(
      printFlaws(
        grid([
          [0, 0, 0],
          [1, 1, 0],
        ]),
        1,
      ),
    ).toEqual({ thin: 0, edges: 1 });
    expect(
      printFlaws(
        grid([
          [0, 0, 0],
          [1, 1, 0],
          [1, 0, 0],
        ]),
        1,
      ).edges,
    ).toBe(0);
    expect(
      printFlaws(
        grid([
          [1, 0, 1],
          [0, 0, 2],
          [0, 1, 1],
        ]),
        1,
      ).edges,
    ).toBe(3);
  });
  it('is told of a figure at its printed size', async () => {
    let p = makeProject('flag', 'Flag', idsFrom('flag'), 'prop', [8, 16, 8]);
    p = fill(p, 0, [-2, 0, -2], [4, 10, 4]);
    p = fill(p, 0, [2, 9, 0], [2, 1, 1]);
    const thin = (q: Project): Promise<DeliveryFinding[]> => found(q, 'wall', 'print');
    // A cube is 12 mm at 120 mm, and 0.8 mm at 8.
    expect(await thin(p)).toEqual([]);
    p = run(p, setDeliveryEdit, { delivery: 'print', change: { print: { height: 8 } } });
    expect((await thin(p))[0]!.text).toBe('2 cubes of “Flag” are in walls thinner than 1.2 mm');
  });
});
