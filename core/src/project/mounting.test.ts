import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Quat,
  type Transform,
  type Vec3,
  composeTransform,
  quatFromAxisAngle,
  transformPoint,
  mapVec,
} from '../math';
import { EMPTY_RIG, type Project, idsFrom, makeProject } from '../model';
import { sampleClip } from '../motion';
import { placeParts, worldMatrices } from '../rig';
import { boxStroke } from '../sculpt';
import { type Edit, apply, checkRig, coplanarFaces, editContext, jointOf, proposeMounts, swungAt } from '.';
import * as edits from './edits';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project =>
  apply(p, edit, args, editContext(`mounting ${n++}`, 1000));
const bone = (p: Project, name: string) => p.rig.bones.find((b) => b.name === name)!;
/** Three bones up a post; a clip turns and moves the middle one. */
function post(): Project {
  let p: Project = { ...makeProject('p', 'Post', idsFrom('post')), parts: [], rig: EMPTY_RIG };
  for (const [name, parent, t] of [
    ['Foot', null, [0, 0, 0]],
    ['Middle', 'Foot', [0, 8, 0]],
    ['Lamp hook', 'Middle', [0, 8, 0]],
  ] as [string, string | null, Vec3][])
    p = run(p, edits.addBoneEdit, { name, parent: parent && bone(p, parent).id, t });
  p = run(p, edits.addClipEdit, { name: 'Sway', frames: 24, fps: 24, loop: true });
  for (const [time, q] of [
    [0, [0, 0, 0, 1]],
    [600, quatFromAxisAngle([0, 0, 1], 0.8)],
  ] as [number, Quat][])
    p = run(p, edits.setKeyEdit, {
      clip: p.clips[0]!.id,
      bone: bone(p, 'Middle').id,
      channel: 'turn',
      key: { time, ease: 'ease', value: q },
    });
  return p;
}
const close = (a: readonly number[], b: readonly number[]): void =>
  a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 6));
const part = (p: Project, name: string, at: Vec3): Project => {
  const q = run(p, edits.addPartEdit, { name, bounds: { min: at, size: [2, 2, 2] } }),
    made = q.parts.at(-1)!;
  return run(q, edits.strokeEdit, {
    part: made.id,
    layer: made.layers[0]!.id,
    stroke: boxStroke('add', 3, [made.bounds]),
  });
};

describe('a joint swung for its study', () => {
  it('turns about the pivot that is tried, which stays where it is, and takes the limb along', () => {
    let p = part(part(post(), 'Base', [0, 2, 0]), 'Limb', [0, 8, 0]);
    p = run(p, edits.mountPartsEdit, {
      pairs: [
        { part: p.parts[0]!.id, bone: bone(p, 'Foot').id },
        { part: p.parts[1]!.id, bone: bone(p, 'Middle').id },
      ],
    });
    const id = bone(p, 'Middle').id,
      joint = jointOf(p, id);
    for (const [shift, degrees] of [
      [[0, 0, 0], 40],
      [[3, -2, 1], -70],
      [[-4, 0, 5], 115],
    ] as [Vec3, number][]) {
      const pivot = mapVec(joint.now, (v, i) => v + shift[i]!),
        where = transformPoint(
          joint.matrix,
          mapVec(pivot, (v) => v / 2),
        );
      const swung = placeParts(p, new Map([[id, swungAt(p, id, joint, pivot, 0, degrees)]])).find(
        (o) => o.part.name === 'Limb',
      )!.matrix;
      close(
        transformPoint(
          swung,
          mapVec(pivot, (v) => v / 2),
        ),
        where,
      );
      // A point two off the axis goes round it by the angle.
      const a = transformPoint(swung, [pivot[0] / 2, pivot[1] / 2 + 2, pivot[2] / 2]),
        r = (degrees * Math.PI) / 180;
      close(a, [where[0], where[1] + 2 * Math.cos(r), where[2] + 2 * Math.sin(r)]);
    }
  });
});
describe('mounting by proposal', () => {
  it('goes by name, then by a word, then by the nearest bone; what hangs already is not asked about, and nothing moves', () => {
    const p = part(part(part(post(), 'Middle', [5, 20, 0]), 'Old lamp', [0, 0, 9]), 'Bird', [1, 3, 0]);
    expect(proposeMounts(p).map((m) => [m.part.name, m.bone.name, m.why])).toEqual([
      ['Middle', 'Middle', 'same name'],
      ['Old lamp', 'Lamp hook', 'like name'],
      ['Bird', 'Foot', 'nearest'],
    ]);
    const before = placeParts(p).map((o) => transformPoint(o.matrix, [0, 0, 0]));
    const q = run(p, edits.mountPartsEdit, {
      pairs: proposeMounts(p)
        .slice(0, 2)
        .map((m) => ({ part: m.part.id, bone: m.bone.id })),
    });
    expect(
      placeParts(q)
        .map((o) => transformPoint(o.matrix, [0, 0, 0]))
        .sort(),
    ).toEqual(before.sort());
    // A late part is mounted without touching the others.
    const late = part(q, 'Chain', [0, 17, 0]),
      rest = proposeMounts(late);
    expect(rest.map((m) => m.part.name)).toEqual(['Bird', 'Chain']);
    const r = run(late, edits.mountPartsEdit, { pairs: [{ part: rest[1]!.part.id, bone: rest[1]!.bone.id }] });
    for (const m of q.rig.mounts.filter((o) => o.part !== rest[1]!.part.id)) expect(r.rig.mounts).toContainEqual(m);
  });
  it('a part on two bones is caught, and mended by saying which', () => {
    const p = part(post(), 'Sign', [0, 9, 0]),
      m = p.rig.mounts[0]!;
    const twice: Project = {
      ...p,
      rig: {
        ...p.rig,
        mounts: [
          { ...m, bone: bone(p, 'Foot').id },
          { ...m, id: 'second', bone: bone(p, 'Middle').id },
        ],
      },
    };
    expect(checkRig(twice).map((f) => f.text)).toContain('“Sign” hangs on 2 bones.');
    const mended = run(twice, edits.mountPartsEdit, { pairs: [{ part: m.part, bone: bone(p, 'Middle').id }] });
    expect(mended.rig.mounts).toHaveLength(1);
    expect(checkRig(mended).map((f) => f.text)).not.toContain('“Sign” hangs on 2 bones.');
  });
  it('checks tell of sides swapped, parts far away and more bones than wanted', () => {
    let p = run(post(), edits.addBoneEdit, { name: 'Arm', side: 'left', parent: null, t: [-6, 4, 0] });
    p = part(p, 'Flag', [60, 0, 0]);
    p = run(p, edits.mountPartsEdit, { pairs: [{ part: p.parts[0]!.id, bone: bone(p, 'Lamp hook').id }] });
    p = { ...p, target: { ...p.target, bones: 3 } };
    const found = checkRig(p)
      .map((f) => f.text)
      .join('\n');
    expect(found).toContain('“Arm left” stands on the other side');
    expect(found).toContain('“Flag” stands far from the joint of “Lamp hook”');
    expect(found).toContain('4 bones; the target sheet allows 3.');
  });
  it('taken off its bone, or with the bone deleted, a part stays where it is; put back, it has the numbers it had', () => {
    let p = part(post(), 'Sign', [3, 9, 0]);
    p = run(p, edits.setRestEdit, { bone: bone(p, 'Middle').id, rest: { q: quatFromAxisAngle([0, 1, 0], 0.5) } });
    p = run(p, edits.mountPartsEdit, { pairs: [{ part: p.parts[0]!.id, bone: bone(p, 'Middle').id }] });
    const at = (q: Project): readonly number[] => transformPoint(placeParts(q)[0]!.matrix, [3, 9, 0]);
    const off = run(p, edits.mountPartEdit, { part: p.parts[0]!.id, bone: null });
    close(at(off), at(p));
    const gone = run(p, edits.deleteBoneEdit, { bone: bone(p, 'Middle').id });
    close(at(gone), at(p));
    const back = run(gone, edits.restoreEdit, { item: gone.bin[0]!.id });
    close([...back.rig.mounts[0]!.t, ...back.rig.mounts[0]!.q], [...p.rig.mounts[0]!.t, ...p.rig.mounts[0]!.q]);
    // One that was never placed comes onto the joint.
    const cap = part(post(), 'Cap', [-1, 0, -1]);
    expect(
      run(cap, edits.mountPartEdit, { part: cap.parts[0]!.id, bone: bone(cap, 'Middle').id }).rig.mounts[0]!.t,
    ).toEqual([0, 0, 0]);
  });
  it('a bone below another is of its side, unless told otherwise', () => {
    let p = run(post(), edits.addBoneEdit, { name: 'Arm', side: 'left', parent: null, t: [-6, 4, 0] });
    p = run(p, edits.addBoneEdit, { name: 'Hand', parent: bone(p, 'Arm').id, t: [0, -4, 0] });
    p = run(p, edits.addBoneEdit, { name: 'Charm', side: 'centre', parent: bone(p, 'Hand').id, t: [0, -1, 0] });
    expect([bone(p, 'Hand').side, bone(p, 'Charm').side]).toEqual(['left', 'centre']);
  });
});

describe('another rest, with clips there', () => {
  const angle = fc.double({ min: -3, max: 3, noNaN: true }),
    shift = fc.tuple(angle, angle, angle) as fc.Arbitrary<Vec3>;
  const rest = (a: number, t: Vec3): Partial<Transform> => ({
    q: quatFromAxisAngle([0.6, 0, 0.8], a),
    t: [t[0], 8 + t[1], t[2]],
  });
  const poses = (p: Project): number[] =>
    [0, 137, 300, 600, 1000].flatMap((t) =>
      [...worldMatrices(p.rig, sampleClip(p.clips[0]!, p.rig, t)).values()].flat(),
    );
  it('keeping the look, every moment of every clip is as before; keeping the numbers, no key has changed', () => {
    fc.assert(
      fc.property(angle, shift, fc.constantFrom('Middle', 'Lamp hook'), fc.boolean(), (a, t, name, alone) => {
        const p = post(),
          b = bone(p, name);
        const looks = run(p, edits.setRestEdit, { bone: b.id, rest: rest(a, t), alone, keepLook: true });
        close(poses(looks), poses(p));
        const numbers = run(p, edits.setRestEdit, { bone: b.id, rest: rest(a, t), alone });
        expect(numbers.clips).toBe(p.clips);
        // By hand: rest · Δ.
        const key = p.clips[0]!.lanes[0]!.turn[1]!.value,
          local = sampleClip(numbers.clips[0]!, numbers.rig, 600).get(bone(p, 'Middle').id)!;
        close(
          local.q,
          composeTransform(
            { ...bone(numbers, 'Middle').rest, t: [0, 0, 0], s: [1, 1, 1] },
            { t: [0, 0, 0], q: key, s: [1, 1, 1] },
          ).q,
        );
      }),
      { numRuns: 40 },
    );
  });
  it('alone, a bone turns under what hangs on it: children and their joints stay', () => {
    const p = post(),
      q = run(p, edits.setRestEdit, {
        bone: bone(p, 'Middle').id,
        rest: { q: quatFromAxisAngle([1, 0, 0], 1) },
        alone: true,
      });
    close(worldMatrices(q.rig).get(bone(q, 'Lamp hook').id)!, worldMatrices(p.rig).get(bone(p, 'Lamp hook').id)!);
    close(worldMatrices(q.rig).get(bone(q, 'Middle').id)!.slice(12), [0, 8, 0, 1]);
  });
});

describe('coplanar faces', () => {
  it('are counted where two parts lie in one another with faces in one plane, and shrinking slightly keeps the middle', () => {
    let p = part(part(post(), 'Sleeve', [0, 0, 0]), 'Arm', [1, 0, 0]);
    const [sleeve, arm] = p.parts as [(typeof p.parts)[0], (typeof p.parts)[0]];
    p = run(p, edits.setPivotEdit, { part: arm!.id, pivot: [0, 0, 0] });
    p = run(p, edits.setPivotEdit, { part: sleeve!.id, pivot: [0, 0, 0] });
    const shift = p.rig.mounts.map((m) => ({ ...m, t: [0, 0, 0] as Vec3 }));
    p = { ...p, rig: { ...p.rig, mounts: shift } };
    // A slab of 1 × 2 × 2 in common: faces up, down, front and back, two each; its ends are inside one of the two.
    expect(coplanarFaces(p, sleeve!.id).map((c) => [c.other.name, c.faces])).toEqual([['Arm', 8]]);
    const q = run(p, edits.shrinkSlightlyEdit, { part: arm!.id, by: 0.98 });
    const place = (o: Project, c: Vec3): readonly number[] =>
      transformPoint(placeParts(o).find((m) => m.part.id === arm!.id)!.matrix, c);
    close(place(q, [2, 1, 1]), place(p, [2, 1, 1]));
    close(place(q, [3, 1, 1]), [2.98, 1, 1]);
    expect(coplanarFaces(q, sleeve!.id)).toEqual([]);
    close(place(run(q, edits.shrinkSlightlyEdit, { part: arm!.id, by: 1 }), [3, 1, 1]), [3, 1, 1]);
    expect(() => run(p, edits.shrinkSlightlyEdit, { part: arm!.id, by: 3 })).toThrow(/50 to 150/);
  });
});
