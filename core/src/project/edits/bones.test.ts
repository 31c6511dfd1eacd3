import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Axis, type Quat, type Vec3, quatFromAxisAngle, transformPoint } from '../../math';
import { EMPTY_RIG, type Project, type Side, composite, idsFrom, makeProject } from '../../model';
import { sampleClip } from '../../motion';
import { REST_POSE, placeParts, restWorld } from '../../rig';
import { boxStroke } from '../../sculpt';
import { type Edit, apply, editContext } from '..';
import * as edits from '.';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`bones ${n++}`, 1000));
const bone = (p: Project, name: string, side: Side = 'centre') =>
  p.rig.bones.find((b) => b.name === name && b.side === side)!;
const names = (p: Project): string[] => p.rig.bones.map((b) => `${b.name} ${b.side}`);

/** A cart: a turned floor, on it an axle with a wheel of three colours, and a lamp; in a clip floor and axle move. */
function cart(): Project {
  let p: Project = { ...makeProject('p', 'Cart', idsFrom('cart')), parts: [], rig: EMPTY_RIG };
  for (const [name, parent, t, q] of [
    ['Floor', null, [0, 4, 0], quatFromAxisAngle([0, 0.6, 0.8], 0.5)],
    ['Axle', 'Floor', [3, -1, 5], quatFromAxisAngle([1, 0, 0], 0.3)],
    ['Lamp', 'Floor', [0, 6, -4], [0, 0, 0, 1]],
  ] as [string, string | null, Vec3, Quat][])
    p = run(p, edits.addBoneEdit, { name, parent: parent && bone(p, parent).id, t, q });
  for (const [name, on, cubes] of [
    [
      'Boards',
      'Floor',
      [
        [0, 0, 0],
        [5, 1, 7],
      ],
    ],
    [
      'Wheel',
      'Axle',
      [
        [0, -1, -1],
        [1, 4, 3],
      ],
    ],
  ] as [string, string, [Vec3, Vec3]][]) {
    p = run(p, edits.addPartEdit, { name, bone: bone(p, on).id, bounds: { min: [-6, -6, -8], size: [12, 12, 16] } });
    const { id, layers } = p.parts.at(-1)!;
    const stroke = (value: number, min: Vec3, size: Vec3): void => {
      p = run(p, edits.strokeEdit, {
        part: id,
        layer: layers[0]!.id,
        stroke: boxStroke(value === 0 ? 'erase' : 'add', value, [{ min, size }]),
      });
    };
    stroke(2, ...cubes);
    stroke(5, cubes[0], [1, 1, 2]);
  }
  p = run(p, edits.addAttachmentEdit, { bone: bone(p, 'Axle').id, name: 'Hub', t: [1, 0, 2] });
  p = run(p, edits.addConstraintEdit, {
    constraint: {
      kind: 'limit',
      bone: bone(p, 'Axle').id,
      on: true,
      amount: 1,
      min: [-40, -10, -20],
      max: [30, 15, 5],
    },
  });
  p = run(p, edits.addClipEdit, { name: 'Roll', frames: 24, fps: 24, loop: true });
  for (const [name, channel, value] of [
    ['Floor', 'move', [1, 0.5, -2]],
    ['Axle', 'turn', quatFromAxisAngle([0.6, 0.8, 0], 0.2)],
    ['Axle', 'move', [0.5, 1, 0.25]],
    ['Axle', 'hinge', [7, 0, 2]],
  ] as [string, 'turn', never][])
    p = run(p, edits.setKeyEdit, {
      clip: p.clips[0]!.id,
      bone: bone(p, name).id,
      channel,
      key: { time: 600, ease: 'linear', value },
    });
  return p;
}
/** Where every cube stands at a moment of the clip, or at rest, by part. */
function seen(p: Project, time: number | null, part: string, over: (v: Vec3) => Vec3 = (v) => v): string[] {
  const out: string[] = [];
  for (const o of placeParts(p, time === null ? REST_POSE : sampleClip(p.clips[0]!, p.rig, time)))
    if (o.part.name.startsWith(part))
      composite(o.part).forEach((x, y, z, v) => {
        const at = over(transformPoint(o.matrix, [x + 0.5, y + 0.5, z + 0.5]));
        out.push(`${at.map((c) => Math.round(c * 1e4) / 1e4 || 0).join()} ${v}`);
      });
  return out.sort();
}

describe('sides', () => {
  it('are set for many at once; a name that is taken there gets a number, and nothing moves', () => {
    let p = cart();
    p = run(p, edits.duplicateBonesEdit, { ...plain, bones: [bone(p, 'Lamp').id] });
    const before = restWorld(p.rig);
    const q = run(p, edits.setSideEdit, { of: 'bones', ids: [bone(p, 'Axle').id, bone(p, 'Lamp').id], side: 'left' });
    expect(names(q)).toEqual(['Floor centre', 'Axle left', 'Lamp left', 'Lamp 2 centre']);
    expect(restWorld(q.rig)).toEqual(before);
    const again = run(run(q, edits.renameBoneEdit, { bone: bone(q, 'Lamp 2').id, name: 'Lamp' }), edits.setSideEdit, {
      of: 'bones',
      ids: [bone(p, 'Lamp 2').id],
      side: 'left',
    });
    expect(names(again).at(-1)).toBe('Lamp 2 left');
    const hub = q.rig.attachments[0]!;
    expect(
      run(q, edits.setSideEdit, { of: 'attachments', ids: [hub.id], side: 'right' }).rig.attachments[0]!.side,
    ).toBe('right');
    expect(run(q, edits.setSideEdit, { of: 'parts', ids: [], side: 'right' })).toBe(q);
    // Nothing was ever made on the left but by saying so, and it can be mirrored.
    expect(names(run(q, edits.mirrorRigEdit, { from: 'left', plane: 0 }))).toContain('Axle right');
  });
});

describe('a bone above others', () => {
  it('stands in the joint of the first, and nothing moves', () => {
    const p = cart(),
      ids = [bone(p, 'Axle').id, bone(p, 'Lamp').id];
    const q = run(p, edits.insertBoneEdit, { bones: ids, name: 'Carriage' });
    const made = bone(q, 'Carriage');
    expect([made.parent, bone(q, 'Axle').parent, bone(q, 'Lamp').parent]).toEqual([
      bone(q, 'Floor').id,
      made.id,
      made.id,
    ]);
    const stand = restWorld(q.rig).get(made.id)!;
    restWorld(p.rig)
      .get(ids[0]!)!
      .t.forEach((v, i) => expect(stand.t[i]).toBeCloseTo(v, 9));
    for (const time of [null, 600]) expect(seen(q, time, '')).toEqual(seen(p, time, ''));
    const roots = run(p, edits.insertBoneEdit, { bones: [bone(p, 'Floor').id], name: 'All' });
    expect([bone(roots, 'All').parent, bone(roots, 'Floor').parent]).toEqual([null, bone(roots, 'All').id]);
    expect(() => run(p, edits.insertBoneEdit, { bones: [bone(p, 'Floor').id, ids[0]!], name: 'X' })).toThrow(
      /“Floor” and “Axle” hang on different bones/,
    );
  });
});

const plain: edits.Duplicating = { bones: [], branch: true, parts: 'share', count: 1, step: [0, 0, 0], name: '' };
describe('duplicating bones', () => {
  it('makes four wheels of one part, a step apart, with keys, limits and points', () => {
    const p = cart();
    const q = run(p, edits.duplicateBonesEdit, {
      ...plain,
      bones: [bone(p, 'Axle').id],
      count: 3,
      step: [0, 0, -4],
      name: 'Axle',
    });
    expect(names(q)).toEqual([
      'Floor centre',
      'Axle centre',
      'Lamp centre',
      'Axle 2 centre',
      'Axle 3 centre',
      'Axle 4 centre',
    ]);
    expect(q.parts).toHaveLength(2);
    expect(q.rig.mounts.filter((m) => m.part === p.parts[1]!.id)).toHaveLength(4);
    // Every cube four times, the third copy twelve back; keyed as the first, also with the floor's move.
    const wheels = seen(q, 0, 'Wheel');
    expect(wheels).toHaveLength(4 * seen(p, 0, 'Wheel').length);
    expect(wheels).toEqual(expect.arrayContaining(seen(p, 0, 'Wheel', ([x, y, z]) => [x, y, z - 12])));
    expect(q.clips[0]!.lanes).toHaveLength(5);
    expect(q.rig.constraints.map((c) => c.bone)).toEqual(
      ['Axle', 'Axle 2', 'Axle 3', 'Axle 4'].map((name) => bone(q, name).id),
    );
    expect(q.rig.attachments.map((t) => t.name)).toEqual(['Hub', 'Hub 2', 'Hub 3', 'Hub 4']);
  });
  it('copies parts or leaves them out; a branch keeps its tree, and what steers within it steers the copies', () => {
    let p = cart();
    p = run(p, edits.addConstraintEdit, {
      constraint: {
        kind: 'match',
        bone: bone(p, 'Axle').id,
        on: true,
        amount: 1,
        target: bone(p, 'Lamp').id,
        axes: [true, true, true],
      },
    });
    const q = run(p, edits.duplicateBonesEdit, {
      ...plain,
      bones: [bone(p, 'Floor').id, bone(p, 'Lamp').id],
      parts: 'copy',
    });
    expect(q.parts.map((o) => o.name)).toEqual(['Boards', 'Boards 2', 'Wheel', 'Wheel 2']);
    expect([bone(q, 'Axle 2').parent, bone(q, 'Lamp 2').parent]).toEqual([
      bone(q, 'Floor 2').id,
      bone(q, 'Floor 2').id,
    ]);
    const match = q.rig.constraints.filter((c) => c.kind === 'match');
    expect(match.map((c) => [c.bone, c.target])).toEqual(
      [1, 2].map((i) => [bone(q, i === 1 ? 'Axle' : 'Axle 2').id, bone(q, i === 1 ? 'Lamp' : 'Lamp 2').id]),
    );
    const alone = run(p, edits.duplicateBonesEdit, {
      ...plain,
      bones: [bone(p, 'Floor').id],
      branch: false,
      parts: 'none',
    });
    expect([alone.rig.bones.length, alone.rig.mounts.length]).toEqual([4, 2]);
    expect(() => run(p, edits.duplicateBonesEdit, { ...plain, bones: [bone(p, 'Axle').id], count: 0.5 })).toThrow(
      /1 to 64/,
    );
  });
});

describe('flipping a branch', () => {
  it.each([0, 1, 2] as const)(
    'across axis %i is its mirror image at every moment, all else stays; twice is it again',
    (axis: Axis) => {
      const p = cart(),
        axle = bone(p, 'Axle').id;
      const q = run(p, edits.flipRigEdit, { plane: 1.5, axis, bone: axle });
      const over = (v: Vec3): Vec3 => v.map((c, i) => (i === axis ? 3 - c : c)) as unknown as Vec3;
      expect(seen(q, null, 'Wheel')).toEqual(seen(p, null, 'Wheel', over));
      expect(seen(q, 600, 'Boards')).toEqual(seen(p, 600, 'Boards'));
      const again = run(q, edits.flipRigEdit, { plane: 1.5, axis, bone: axle });
      for (const time of [null, 300, 600]) expect(seen(again, time, '')).toEqual(seen(p, time, ''));
      // The whole, with its keys.
      const whole = run(p, edits.flipRigEdit, { plane: 1.5, axis });
      expect(seen(whole, 600, '')).toEqual(seen(p, 600, '', over));
      const limit = whole.rig.constraints[0]!;
      if (limit.kind === 'limit') expect(limit.min[axis]).toBe([-40, -10, -20][axis]);
      expect(limit.kind === 'limit' && limit.max[axis === 1 ? 2 : 1]).toBe(axis === 1 ? 20 : 10);
    },
  );
  it('leaves a part that hangs elsewhere too as it is: the branch gets one of its own', () => {
    let p = cart();
    p = run(p, edits.duplicateBonesEdit, { ...plain, bones: [bone(p, 'Axle').id] });
    const q = run(p, edits.flipRigEdit, { plane: 0, axis: 2, bone: bone(p, 'Axle 2').id });
    expect(q.parts.map((o) => o.name)).toEqual(['Boards', 'Wheel', 'Wheel 2']);
    expect(q.parts[1]).toBe(p.parts[1]);
    expect(q.rig.mounts.map((m) => q.parts.findIndex((o) => o.id === m.part))).toEqual([0, 1, 2]);
  });
});

describe('a mount by numbers', () => {
  it('moves, turns and scales the part about its pivot; nonsense is refused', () => {
    const p = cart(),
      mount = p.rig.mounts[1]!.id;
    const q = run(p, edits.setMountEdit, { mount, place: { s: [2, 2, 2] } });
    const at = restWorld(p.rig).get(bone(p, 'Axle').id)!.t;
    // The pivot lies in the joint: from there everything is twice as far away.
    expect(seen(q, null, 'Wheel')).toEqual(
      seen(p, null, 'Wheel', (v) => v.map((c, i) => at[i]! + 2 * (c - at[i]!)) as unknown as Vec3),
    );
    expect(run(p, edits.setMountEdit, { mount, place: { s: [1, 1, 1] } })).toBe(p);
    expect(() => run(p, edits.setMountEdit, { mount, place: { s: [1, 0, 1] } })).toThrow(/must be above zero/);
    expect(() => run(p, edits.setMountEdit, { mount, place: { t: [NaN, 0, 0] } })).toThrow(/whole or decimal numbers/);
  });
});

describe('alternates on the other side', () => {
  it('are a set of their own, which wears the same', () => {
    let p = cart();
    p = run(p, edits.setSideEdit, { of: 'bones', ids: [bone(p, 'Axle').id], side: 'left' });
    p = run(p, edits.duplicateAsAlternateEdit, { part: p.parts[1]!.id });
    const q = run(p, edits.mirrorRigEdit, { from: 'left', plane: 0 });
    const [first, second] = q.rig.alternateSets;
    expect(q.rig.alternateSets.map((s) => s.name)).toEqual(['Wheel', 'Wheel 2']);
    const worn = (set: typeof first): string => {
      const m = q.rig.mounts.find((o) => o.id === set!.worn)!;
      const part = q.parts.find((o) => o.id === m.part)!;
      return `${part.name} ${part.side} ${q.rig.bones.find((b) => b.id === m.bone)!.side}`;
    };
    expect([worn(first), worn(second)]).toEqual(['Wheel 2 left left', 'Wheel 2 right right']);
    // Mirrored again, the same two.
    expect(run(q, edits.mirrorRigEdit, { from: 'left', plane: 0 }).rig.alternateSets).toEqual(q.rig.alternateSets);
  });
});

describe('many names at once', () => {
  const rule = (r: Partial<edits.NameRule>): edits.NameRule => ({ ...edits.SAME_NAMES, ...r });
  it('change by what they hold, before, behind and by number; twins share a number', () => {
    let p = cart();
    p = run(p, edits.setSideEdit, { of: 'bones', ids: [bone(p, 'Axle').id], side: 'left' });
    p = run(p, edits.mirrorRigEdit, { from: 'left', plane: 0 });
    const all = { of: 'bones', ids: p.rig.bones.map((b) => b.id) } as const;
    const after = (r: Partial<edits.NameRule>): string[] =>
      run(p, edits.renameManyEdit, { what: all, rule: rule(r) }).rig.bones.map((b) => b.name);
    expect(after({ find: 'l', replace: 'L' })).toEqual(['FLoor', 'AxLe', 'AxLe', 'Lamp']);
    expect(after({ before: 'Cart ', after: '!' })).toEqual(['Cart Floor!', 'Cart Axle!', 'Cart Axle!', 'Cart Lamp!']);
    expect(after({ called: 'Bone', from: 7 })).toEqual(['Bone 7', 'Bone 8', 'Bone 8', 'Bone 9']);
    expect(run(p, edits.renameManyEdit, { what: all, rule: edits.SAME_NAMES })).toBe(p);
    expect(() => edits.renamings(p, all, rule({ find: 'Lamp' }))).toThrow(/1 to 120/);
    expect(edits.renamings(p, { of: 'bones', ids: [bone(p, 'Lamp').id] }, rule({ called: 'Floor' }))).toEqual([
      { id: bone(p, 'Lamp').id, side: 'centre', was: 'Lamp', is: 'Floor 2', apart: true },
    ]);
    const clips = run(p, edits.renameManyEdit, {
      what: { of: 'clips', ids: [p.clips[0]!.id] },
      rule: rule({ before: 'Slow ' }),
    });
    expect(clips.clips[0]!.name).toBe('Slow Roll');
    const [palette] = p.palettes;
    const bytes = palette!.swatches.slice(0, 2).map((s) => s.byte);
    const named = run(p, edits.renameManyEdit, {
      what: { of: 'swatches', palette: palette!.id, bytes },
      rule: rule({ called: 'Brass' }),
    });
    expect(named.palettes[0]!.swatches.slice(0, 2).map((s) => s.name)).toEqual(['Brass', 'Brass']);
  });
  it('never give two on one side the same', () => {
    const p = cart();
    const word = fc.constantFrom('', 'a', 'Axle', 'Lamp', 'l', ' ', 'Floor 2');
    fc.assert(
      fc.property(
        word,
        word,
        word,
        word,
        fc.subarray(p.rig.bones.map((b) => b.id)),
        (called, find, replace, before, ids) => {
          let q: Project;
          try {
            q = run(p, edits.renameManyEdit, {
              what: { of: 'bones', ids },
              rule: rule({ called, find, replace, before }),
            });
          } catch (e) {
            expect(String(e)).toMatch(/1 to 120/);
            return;
          }
          expect(new Set(names(q)).size).toBe(3);
          expect(q.rig.bones.filter((b) => !ids.includes(b.id)).map((b) => b.name)).toEqual(
            p.rig.bones.filter((b) => !ids.includes(b.id)).map((b) => b.name),
          );
        },
      ),
    );
  });
});
