import { WebIO } from '@gltf-transform/core';
import { describe, expect, it } from 'vitest';
import { quatFromAxisAngle, transformPoint, vec3Of } from '../../math';
import {
  EMPTY_RIG,
  type Project,
  composite,
  find,
  idsFrom,
  makeProject,
  migrateProject,
  projectToJson,
  showingPart,
} from '../../model';
import { exportGlb, planGlb } from '../../files/testing';
import { sampleClip } from '../../motion';
import { placeParts, restWorld, worldMatrices } from '../../rig';
import { boxStroke } from '../../sculpt';
import { type Edit, EditError, apply, editContext, heightOverFloor } from '..';
import * as edits from '.';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`ready ${n++}`, 1000));
const bone = (p: Project, name: string) => p.rig.bones.find((b) => b.name === name)!;
const part = (p: Project, name: string) => p.parts.find((o) => o.name === name)!;
const mount = (p: Project, name: string) => p.rig.mounts.find((m) => m.part === part(p, name).id)!;
const shown = (p: Project): string[] =>
  placeParts(p)
    .map((o) => o.part.name)
    .sort();

/** A part of so many cubes on a bone, or loose. */
function withPart(p: Project, name: string, on: string | null, cubes: number): Project {
  p = run(p, edits.addPartEdit, {
    name,
    bone: on === null ? null : bone(p, on).id,
    bounds: { min: [0, 0, 0], size: [8, 8, 8] },
    pivot: [2, 0, 2],
  });
  const made = p.parts.at(-1)!;
  return run(p, edits.strokeEdit, {
    part: made.id,
    layer: made.layers[0]!.id,
    stroke: boxStroke('add', 3, [{ min: [0, 0, 0], size: [cubes, 1, 1] }]),
  });
}
/** A post of three bones with a head on top, a clip, and two loose heads. */
function makePost(): Project {
  let p: Project = { ...makeProject('p', 'Post', idsFrom('post')), parts: [], rig: EMPTY_RIG };
  for (const [name, parent, t] of [
    ['Foot', null, [0, 0, 0]],
    ['Middle', 'Foot', [0, 4, 0]],
    ['Top', 'Middle', [0, 4, 0]],
  ] as const) {
    p = run(p, edits.addBoneEdit, { name, parent: parent && bone(p, parent).id, t: vec3Of(t) });
  }
  for (const [name, on, cubes] of [
    ['Stand', 'Foot', 2],
    ['Shaft', 'Middle', 3],
    ['Head', 'Top', 4],
    ['Second head', null, 5],
    ['Third head', null, 6],
  ] as const)
    p = withPart(p, name, on, cubes);
  p = run(p, edits.addClipEdit, { name: 'Sway', frames: 24, fps: 24, loop: true });
  return run(p, edits.setKeyEdit, {
    clip: p.clips[0]!.id,
    bone: bone(p, 'Middle').id,
    channel: 'turn',
    key: { time: 0, ease: 'linear', value: quatFromAxisAngle([0, 0, 1], 0.3) },
  });
}

const POST = makePost();

describe('sets of alternates', () => {
  it('three heads are tried in turn on a sealed rig, each in the place of the first; nothing else is touched', () => {
    const sealed = run(POST, edits.sealRigEdit, { name: 'Post', range: 1 });
    // In one action a copy is its alternate: worn, the first hidden until it is worn again.
    const two = run(sealed, edits.duplicateAsAlternateEdit, { part: part(sealed, 'Head').id });
    const copy = two.parts[two.parts.indexOf(part(two, 'Head')) + 1]!;
    expect(copy.name).toBe('Head 2');
    expect(placeParts(two).map((o) => o.part.name)).toContain('Head 2');
    expect(placeParts(two).map((o) => o.part.name)).not.toContain('Head');
    expect(two.rig.alternateSets).toHaveLength(sealed.rig.alternateSets.length + 1);
    let p = run(sealed, edits.tryPartEdit, { part: part(sealed, 'Second head').id, instead: mount(sealed, 'Head').id });
    expect(shown(p)).toEqual(['Second head', 'Shaft', 'Stand', 'Third head']);
    p = run(p, edits.tryPartEdit, { part: part(p, 'Third head').id, instead: mount(p, 'Second head').id });
    expect(shown(p)).toEqual(['Shaft', 'Stand', 'Third head']);
    const [alternateSet] = p.rig.alternateSets;
    expect(p.rig.alternateSets).toHaveLength(1);
    expect(
      p.rig.mounts.filter((m) => m.alternateSet === alternateSet!.id).map((m) => find(p.parts, m.part)!.name),
    ).toEqual(['Head', 'Second head', 'Third head']);
    for (const name of ['Second head', 'Third head'])
      expect(mount(p, name)).toMatchObject({ bone: bone(p, 'Top').id, t: mount(p, 'Head').t, q: mount(p, 'Head').q });
    const back = run(p, edits.wearEdit, { alternateSet: alternateSet!.id, mount: mount(p, 'Head').id });
    expect(shown(back)).toEqual(['Head', 'Shaft', 'Stand']);
    expect([back.rig.bones, back.clips, back.seal]).toEqual([sealed.rig.bones, sealed.clips, sealed.seal]);
    expect(shown(showingPart(back, part(back, 'Third head').id))).toContain('Third head');
    expect(() => migrateProject(projectToJson(back))).not.toThrow();
  });
  it('one is worn in every clip: where what was worn is put on, other swaps stay; a swap key is moved within its clip', () => {
    let p = run(POST, edits.tryPartEdit, { part: part(POST, 'Second head').id, instead: mount(POST, 'Head').id });
    p = run(p, edits.tryPartEdit, { part: part(p, 'Third head').id, instead: mount(p, 'Head').id });
    const set = p.rig.alternateSets[0]!.id,
      [head, second, third] = ['Head', 'Second head', 'Third head'].map((name) => mount(p, name).id);
    const clip = p.clips[0]!.id;
    for (const [time, worn] of [
      [300, head!],
      [600, third!],
    ] as const)
      p = run(p, edits.swapKeyEdit, { clip, alternateSet: set, time, mount: worn });
    const keys = (o: Project) => o.clips[0]!.swaps[0]!.keys.map((k) => [k.time, k.mount]);
    expect(keys(p)).toEqual([
      [0, third],
      [300, head],
      [600, third],
    ]);
    const q = run(p, edits.wearEverywhereEdit, { alternateSet: set, mount: second! });
    expect(q.rig.alternateSets[0]!.worn).toBe(second);
    expect(keys(q)).toEqual([
      [0, second],
      [300, head],
      [600, second],
    ]);
    expect(run(q, edits.wearEverywhereEdit, { alternateSet: set, mount: second! })).toBe(q);
    const move = (to: number) => run(p, edits.moveSwapEdit, { clip, alternateSet: set, time: 300, to });
    expect(keys(move(450))).toEqual([
      [0, third],
      [450, head],
      [600, third],
    ]);
    // On another it takes its place; beyond the end it stops there.
    expect(keys(move(600))).toEqual([
      [0, third],
      [600, head],
    ]);
    expect(keys(move(99_999)).at(-1)).toEqual([p.clips[0]!.length, head]);
    expect(run(p, edits.moveSwapEdit, { clip, alternateSet: set, time: 301, to: 5 })).toBe(p);
  });
  it('what is worn and deleted gives way to the next; the last to leave takes the set of alternates along; a part on no bone is refused', () => {
    const q = POST,
      two = run(q, edits.tryPartEdit, { part: part(q, 'Second head').id, instead: mount(q, 'Head').id });
    const gone = run(two, edits.deletePartEdit, { part: part(two, 'Second head').id });
    expect(shown(gone)).toContain('Head');
    const again = run(gone, edits.restoreEdit, { item: gone.bin[0]!.id });
    expect(mount(again, 'Second head').alternateSet).toBe(two.rig.alternateSets[0]!.id);
    const left = run(gone, edits.leaveAlternateSetEdit, { mount: mount(gone, 'Head').id });
    expect([left.rig.alternateSets, mount(left, 'Head').alternateSet]).toEqual([[], null]);
    expect(() => run(q, edits.tryPartEdit, { part: part(q, 'Head').id, instead: mount(q, 'Third head').id })).toThrow(
      /hangs on no bone/,
    );
    expect(() =>
      run(two, edits.wearEdit, { alternateSet: two.rig.alternateSets[0]!.id, mount: mount(two, 'Shaft').id }),
    ).toThrow(/not one of/);
  });
  it('ship all of a set of alternates: what is not worn has no size; swaps are stepped sizes', async () => {
    let p = POST;
    p = run(p, edits.tryPartEdit, { part: part(p, 'Second head').id, instead: mount(p, 'Head').id });
    const [head, second] = [mount(p, 'Head').id, mount(p, 'Second head').id];
    p = {
      ...p,
      clips: p.clips.map((c) => ({
        ...c,
        swaps: [
          {
            alternateSet: p.rig.alternateSets[0]!.id,
            keys: [
              { time: 0, mount: second },
              { time: 600, mount: head },
              { time: 900, mount: null },
            ],
          },
        ],
      })),
    };
    const file = await exportGlb(p);
    expect(file.counts.nodes).toBe(planGlb(p).nodes);
    const doc = await new WebIO().registerExtensions([]).readBinary(file.result),
      root = doc.getRoot();
    const scale = (name: string) =>
      root
        .listNodes()
        .find((o) => o.getName() === name && o.getMesh())!
        .getScale();
    expect([scale('Head'), scale('Second head')]).toEqual([
      [0, 0, 0],
      [1, 1, 1],
    ]);
    const tracks = root
      .listAnimations()[0]!
      .listChannels()
      .filter((c) => c.getTargetPath() === 'scale');
    expect(
      tracks.map((c) => [
        c.getTargetNode()!.getName(),
        c.getSampler()!.getInterpolation(),
        [...c.getSampler()!.getInput()!.getArray()!],
        [...c.getSampler()!.getOutput()!.getArray()!],
      ]),
    ).toEqual([
      ['Head', 'STEP', [0, 0.5, 0.75], [0, 0, 0, 1, 1, 1, 0, 0, 0]],
      ['Second head', 'STEP', [0, 0.5, 0.75], [1, 1, 1, 0, 0, 0, 0, 0, 0]],
    ]);
  });
});

describe('seals', () => {
  const sealed = run(POST, edits.sealRigEdit, { name: 'Post', range: 1 });
  it.each([
    ['renaming a bone', edits.renameBoneEdit, { bone: bone(sealed, 'Top').id, name: 'Tip' }],
    ['deleting one', edits.deleteBoneEdit, { bone: bone(sealed, 'Top').id }],
    ['hanging it elsewhere', edits.reparentBoneEdit, { bone: bone(sealed, 'Top').id, parent: bone(sealed, 'Foot').id }],
    [
      'turning it at rest',
      edits.setRestEdit,
      { bone: bone(sealed, 'Top').id, rest: { q: quatFromAxisAngle([0, 0, 1], 0.1) } },
    ],
    [
      'renaming many',
      edits.renameManyEdit,
      {
        what: { of: 'bones', ids: sealed.rig.bones.map((b) => b.id) },
        rule: { ...edits.SAME_NAMES, find: 'Top', replace: 'Tip' },
      },
    ],
    ['flipping it', edits.flipRigEdit, { plane: 1 }],
    ['a joint too far', edits.moveJointEdit, { bone: bone(sealed, 'Top').id, delta: [0, 1.5, 0] }],
    [
      'a key',
      edits.setKeyEdit,
      {
        clip: sealed.clips[0]!.id,
        bone: bone(sealed, 'Top').id,
        channel: 'turn',
        key: { time: 0, ease: 'linear', value: [0, 0, 0, 1] },
      },
    ],
    ['deleting a clip', edits.deleteClipEdit, { clip: sealed.clips[0]!.id }],
    [
      'a limit',
      edits.addConstraintEdit,
      { constraint: { kind: 'upright', bone: bone(sealed, 'Top').id, on: true, amount: 1 } },
    ],
  ] as const)('refuse %s with a sentence, and say how to go on', (_what, edit, args) => {
    expect(() => run(sealed, edit as unknown as Edit<unknown>, args)).toThrow(EditError);
    expect(() => run(sealed, edit as unknown as Edit<unknown>, args)).toThrow(/sealed rig “Post”\. Unseal it in Rig/);
    expect(() => run(run(sealed, edits.unsealRigEdit, {}), edit as unknown as Edit<unknown>, args)).not.toThrow();
  });
  it('leave parts, new bones and new clips free, joints within their range, and the kind of the project as it is', () => {
    let p = run(sealed, edits.moveJointEdit, { bone: bone(sealed, 'Middle').id, delta: [0.5, 1, 0] });
    expect(() => run(p, edits.moveJointEdit, { bone: bone(p, 'Middle').id, delta: [0, 0.5, 0] })).toThrow(
      /may move by 1/,
    );
    p = run(p, edits.strokeEdit, {
      part: part(p, 'Head').id,
      layer: part(p, 'Head').layers[0]!.id,
      stroke: boxStroke('add', 2, [{ min: [0, 4, 0], size: [2, 2, 2] }]),
    });
    p = run(p, edits.mountPartEdit, { part: part(p, 'Head').id, bone: null });
    p = run(p, edits.addBoneEdit, { name: 'Vane', parent: bone(p, 'Top').id, t: [0, 2, 0] });
    p = run(p, edits.addClipEdit, { name: 'Spin', frames: 10, fps: 24, loop: true });
    p = run(p, edits.setKeyEdit, {
      clip: p.clips[1]!.id,
      bone: bone(p, 'Vane').id,
      channel: 'turn',
      key: { time: 0, ease: 'linear', value: [0, 0, 0, 1] },
    });
    p = run(p, edits.setProjectEdit, { kind: 'wearable' });
    expect(p).toMatchObject({ kind: 'wearable', seal: { rig: 'Post' } });
    const empty = run(p, edits.emptyRigEdit, {});
    expect([empty.parts.length, empty.rig.mounts.length, empty.bin.length, empty.rig.bones.length]).toEqual([
      0, 0, 5, 4,
    ]);
    expect(run(p, edits.deleteUnmountedEdit, {}).parts.map((o) => o.name)).toEqual(['Stand', 'Shaft']);
    expect(() => run(makeProject('q', 'Bare', idsFrom('q')), edits.sealRigEdit, { name: 'x', range: 1 })).toThrow(
      /no bones/,
    );
  });
});

describe('bringing in', () => {
  it('hangs a rig at an attachment point with the parts and clips that are wanted; names are freed, equal palettes shared', () => {
    const p = run(POST, edits.addAttachmentEdit, {
      bone: bone(POST, 'Top').id,
      name: 'Hook',
      t: [0, 0, 3],
      q: quatFromAxisAngle([0, 1, 0], Math.PI / 2),
    });
    const steered = run(POST, edits.addConstraintEdit, {
      constraint: { kind: 'upright', bone: bone(POST, 'Top').id, on: true, amount: 1 },
    });
    const q = run(p, edits.bringRigEdit, {
      source: steered,
      at: { attachment: p.rig.attachments[0]!.id },
      parts: [part(steered, 'Stand').id, part(steered, 'Head').id],
      clips: [steered.clips[0]!.id],
    });
    expect(q.rig.bones.map((b) => b.name)).toEqual(['Foot', 'Middle', 'Top', 'Foot 2', 'Middle 2', 'Top 2']);
    expect(q.parts.slice(5).map((o) => o.name)).toEqual(['Stand 2', 'Head 2']);
    expect(q.palettes).toBe(p.palettes);
    expect(q.clips.map((c) => [c.name, c.lanes.length])).toEqual([
      ['Sway', 1],
      ['Sway 2', 1],
    ]);
    expect(q.clips[1]!.lanes[0]!.bone).toBe(bone(q, 'Middle 2').id);
    expect(q.rig.constraints.map((c) => c.bone)).toEqual([bone(q, 'Top 2').id]);
    // The source's (1, 8, 0) goes by a quarter turn about Y to (0, 8, −1), from the hook at (0, 8, 3).
    const top = worldMatrices(q.rig).get(bone(q, 'Top 2').id)!;
    transformPoint(top, [1, 0, 0]).forEach((v, i) => expect(v).toBeCloseTo([0, 16, 2][i]!, 9));
    expect(() => migrateProject(projectToJson(q))).not.toThrow();
    expect(p.parts.every((o, i) => q.parts[i] === o)).toBe(true);
    expect(() =>
      run(p, edits.bringRigEdit, { source: makeProject('x', 'Bare', idsFrom('x')), at: null, parts: [], clips: [] }),
    ).toThrow(/no bones/);
  });
  it('replaces parts by those of the same name, which keep their bone; what was there waits in the bin', () => {
    const p = POST,
      other = withPart({ ...POST, parts: [], rig: { ...POST.rig, mounts: [] } }, 'Head', null, 7);
    const odd: Project = {
      ...other,
      palettes: other.palettes.map((o) => ({ ...o, swatches: o.swatches.slice(0, 5) })),
    };
    const pairs = edits.partsOfSameName(p, odd);
    expect(pairs.map((o) => o.part.name)).toEqual(['Head']);
    const q = run(p, edits.replacePartsEdit, {
      source: odd,
      pairs: pairs.map((o) => ({ part: o.part.id, by: o.by.id })),
    });
    expect([composite(part(q, 'Head')).count, mount(q, 'Head')]).toEqual([7, mount(p, 'Head')]);
    expect(q.palettes).toHaveLength(2);
    expect(part(q, 'Head').palette).toBe(q.palettes[1]!.id);
    const back = run(q, edits.restoreEdit, { item: q.bin[0]!.id });
    expect([composite(back.parts.at(-1)!).count, back.rig.mounts.at(-1)!.bone]).toEqual([4, bone(p, 'Top').id]);
    expect(() => run(p, edits.replacePartsEdit, { source: odd, pairs: [] })).toThrow(/bears the name/);
  });
});

describe('bones', () => {
  it('hang at an attachment point, and not on what hangs on them', () => {
    let p = POST;
    p = run(p, edits.addAttachmentEdit, { bone: bone(p, 'Middle').id, name: 'Grip', t: [2, 1, 0] });
    p = run(p, edits.addBoneEdit, { name: 'Pole', parent: null, t: [9, 9, 9] });
    const q = run(p, edits.hangAtEdit, { bone: bone(p, 'Pole').id, attachment: p.rig.attachments[0]!.id });
    expect([bone(q, 'Pole').parent, restWorld(q.rig).get(bone(q, 'Pole').id)!.t]).toEqual([
      bone(q, 'Middle').id,
      [2, 5, 0],
    ]);
    expect(() => run(p, edits.hangAtEdit, { bone: bone(p, 'Foot').id, attachment: p.rig.attachments[0]!.id })).toThrow(
      /below it/,
    );
  });
  it('hang at no point that would make what they steer steer them', () => {
    let p = POST;
    p = run(p, edits.addBoneEdit, { name: 'Pole', parent: null, t: [9, 9, 9] });
    const [pole, top] = [bone(p, 'Pole').id, bone(p, 'Top').id];
    const match = { kind: 'match', bone: top, target: pole, axes: [true, true, true], on: true, amount: 1 } as const;
    p = run(p, edits.addConstraintEdit, { constraint: match });
    p = run(p, edits.addAttachmentEdit, { bone: top, name: 'Hook' });
    expect(() => run(p, edits.hangAtEdit, { bone: pole, attachment: p.rig.attachments[0]!.id })).toThrow(
      /steer itself in a circle/,
    );
  });
  it('of a branch are aligned in one plane while every part keeps its place', () => {
    let p = POST;
    p = run(p, edits.moveJointEdit, { bone: bone(p, 'Top').id, delta: [1.5, 0, -1] });
    const before = placeParts(p).map((o) => transformPoint(o.matrix, [1, 2, 3]));
    const q = run(p, edits.alignJointsEdit, { bone: bone(p, 'Foot').id, axis: 0 });
    expect(q.rig.bones.map((b) => restWorld(q.rig).get(b.id)!.t)).toEqual([
      [0, 0, 0],
      [0, 4, 0],
      [0, 8, -1],
    ]);
    placeParts(q).forEach((o, i) =>
      transformPoint(o.matrix, [1, 2, 3]).forEach((v, k) => expect(v).toBeCloseTo(before[i]![k]!, 9)),
    );
    expect(run(q, edits.alignJointsEdit, { bone: bone(q, 'Foot').id, axis: 0 })).toBe(q);
  });
  it('that only steer can stay out of files, those that carry parts cannot; lanes take colours', async () => {
    let p = run(POST, edits.addBoneEdit, { name: 'Wish', parent: null, t: [0, 0, 5] });
    p = run(p, edits.markBoneEdit, { bone: bone(p, 'Wish').id, ships: false, colour: '#aa3355' });
    expect(bone(p, 'Wish')).toMatchObject({ ships: false, colour: '#aa3355' });
    const file = await exportGlb(p);
    const names = (await new WebIO().readBinary(file.result))
      .getRoot()
      .listNodes()
      .map((o) => o.getName());
    expect([names.includes('Wish'), names.includes('Top'), file.counts.nodes]).toEqual([false, true, planGlb(p).nodes]);
    expect(file.notes.join()).toMatch(/1 bone that only steers/);
    expect(() => run(p, edits.markBoneEdit, { bone: bone(p, 'Top').id, ships: false })).toThrow(/carries parts/);
    expect(() => run(p, edits.markBoneEdit, { bone: bone(p, 'Top').id, colour: 'red' })).toThrow(/#rrggbb/);
  });
  it('swing one after another in a pose test, both ways about each axis, which stays at home', async () => {
    const p = run(POST, edits.addPoseTestEdit, { degrees: 40 }),
      reel = p.clips[1]!;
    expect(reel).toMatchObject({ name: 'Pose test', ships: false, loop: true, length: 3 * 3 * 1200 });
    const turned = (time: number) =>
      [...sampleClip(reel, p.rig, time)]
        .filter(([, t]) => Math.abs(t.q[3]) < 1 - 1e-9)
        .map(([id, t]) => [
          find(p.rig.bones, id)!.name,
          Math.round((2 * Math.acos(t.q[3]) * 180) / Math.PI),
          t.q.slice(0, 3).map((v) => Math.sign(Math.round(v * 1e6))),
        ]);
    expect(turned(300)).toEqual([['Foot', 40, [1, 0, 0]]]);
    expect(turned(900)).toEqual([['Foot', 40, [-1, 0, 0]]]);
    expect(turned(3600 + 1200 + 300)).toEqual([['Middle', 40, [0, 1, 0]]]);
    expect([0, 1200, 3600, 7200].flatMap(turned)).toEqual([]);
    expect((await exportGlb(p)).counts.clips).toBe(1);
  });
  it.each([
    ['bars', 8],
    ['crossed', 4],
  ] as const)('of a ring (%s) close it: the last ends where the first begins', (kind, count) => {
    const q = POST,
      ring = run(q, edits.buildRingEdit, {
        kind,
        sides: 8,
        inner: 6,
        thick: 2,
        deep: 3,
        name: 'Rim',
        parent: bone(q, 'Top').id,
        value: 2,
        palette: q.palettes[0]!.id,
      });
    const bars = ring.parts.slice(5),
      middle = restWorld(ring.rig).get(bone(ring, 'Top').id)!.t;
    const placed = placeParts(ring).filter((o) => bars.includes(o.part));
    expect(placed).toHaveLength(count);
    // The middles of all bars stand in a circle around the joint, evenly (bars) or all on it (crossed).
    const at = placed.map((o) =>
      transformPoint(o.matrix, [o.part.pivot[0] / 2, o.part.pivot[1] / 2, o.part.pivot[2] / 2]),
    );
    for (const v of at) expect(Math.hypot(v[0] - middle[0], v[1] - middle[1])).toBeCloseTo(kind === 'bars' ? 7 : 0, 9);
    if (kind === 'bars')
      expect(Math.hypot(...[0, 1].map((i) => at[0]![i]! - at.at(-1)![i]!))).toBeCloseTo(
        2 * 7 * Math.sin(Math.PI / 8),
        9,
      );
    // Crossed it is one part, there four times; nowhere it stands on the floor.
    expect(bars).toHaveLength(kind === 'bars' ? count : 1);
    const free = run(q, edits.buildRingEdit, {
      kind,
      sides: 8,
      inner: 6,
      thick: 2,
      deep: 3,
      name: 'Hoop',
      parent: null,
      value: 2,
      palette: q.palettes[0]!.id,
    });
    const hoop = {
      ...free,
      parts: free.parts.slice(5),
      rig: { ...free.rig, mounts: free.rig.mounts.slice(q.rig.mounts.length) },
    };
    expect(heightOverFloor(hoop)).toBeCloseTo(0, 9);
    expect(() =>
      run(q, edits.buildRingEdit, {
        kind: 'crossed',
        sides: 7,
        inner: 6,
        thick: 2,
        deep: 3,
        name: 'Rim',
        parent: null,
        value: 2,
        palette: q.palettes[0]!.id,
      }),
    ).toThrow(/even number/);
  });
});
