import { describe, expect, it } from 'vitest';
import { type Output, type Project, composite, find, idsFrom, makeGrade, makeOutput, makeProject } from '../../model';
import { boxStroke } from '../../sculpt';
import { apply, checkProject, checkRig, editContext, type Edit } from '..';
import * as edits from '.';

let n = 0;
/** A hand that applies edits one after the other, seeded. */
function hand(project: Project = makeProject('p', 'Cart', idsFrom('cart'), 'prop', [10, 10, 10])) {
  const h = {
    p: project,
    do<A>(edit: Edit<A>, args: A) {
      h.p = apply(h.p, edit, args, editContext(`edits test ${n++}`, 1000 + n));
      return h;
    },
    body: () => h.p.parts[0]!,
  };
  return h;
}
const box = (min: readonly [number, number, number], size: readonly [number, number, number]) => ({ min, size });
const fill = (h: ReturnType<typeof hand>, value = 3) =>
  h.do(edits.strokeEdit, {
    part: h.body().id,
    layer: h.body().layers[0]!.id,
    stroke: boxStroke('add', value, [box([-2, 0, -2], [4, 4, 4])]),
  });

describe('parts', () => {
  it('a duplicate has cubes of its own, stands beside the first and on the same bone', () => {
    const h = fill(hand()).do(edits.addBoneEdit, { name: 'Axle', parent: null, t: [0, 0, 0] });
    h.do(edits.mountPartEdit, { part: h.body().id, bone: h.p.rig.bones[0]!.id }).do(edits.duplicatePartEdit, {
      part: h.body().id,
    });
    const [a, b] = h.p.parts as [Project['parts'][number], Project['parts'][number]];
    expect(b.name).toBe('Body 2');
    expect(composite(b).equals(composite(a))).toBe(true);
    expect(h.p.rig.mounts.filter((m) => m.bone === h.p.rig.bones[0]!.id)).toHaveLength(2);
    h.do(edits.strokeEdit, {
      part: b.id,
      layer: b.layers[0]!.id,
      stroke: boxStroke('erase', 0, [box([-2, 0, -2], [4, 1, 4])]),
    });
    expect(composite(h.p.parts[0]!).count).toBe(64);
    expect(composite(h.p.parts[1]!).count).toBe(48);
  });

  it('order, names and hiding', () => {
    const h = hand()
      .do(edits.addPartEdit, { name: 'Wheel', bounds: box([0, 0, 0], [4, 4, 4]), side: 'left' })
      .do(edits.addPartEdit, { name: 'Wheel', bounds: box([0, 0, 0], [4, 4, 4]), side: 'right' });
    expect(h.p.parts.map((p) => `${p.name} ${p.side}`)).toEqual(['Body centre', 'Wheel left', 'Wheel right']);
    h.do(edits.placePartsEdit, { parts: [h.p.parts[2]!.id], before: h.p.parts[0]!.id, group: null });
    expect(h.p.parts[0]!.side).toBe('right');
    const same = h.p;
    h.do(edits.placePartsEdit, { parts: [h.p.parts[0]!.id], before: h.p.parts[0]!.id, group: null });
    expect(h.p).toBe(same);
    h.do(edits.renamePartEdit, { part: h.p.parts[1]!.id, name: '  Tray ' }).do(edits.setPartHiddenEdit, {
      part: h.p.parts[1]!.id,
      hidden: true,
    });
    expect(h.p.parts[1]).toMatchObject({ name: 'Tray', hidden: true });
    expect(() => h.do(edits.renamePartEdit, { part: h.p.parts[1]!.id, name: ' ' })).toThrow(/1 to 120 characters/);
  });

  it('a pivot stands on half cubes only, and mounting nowhere makes a part loose', () => {
    const h = fill(hand()).do(edits.addBoneEdit, { name: 'Axle', parent: null, t: [0, 2, 0] });
    h.do(edits.mountPartEdit, { part: h.body().id, bone: h.p.rig.bones[0]!.id });
    expect(() => h.do(edits.setPivotEdit, { part: h.body().id, pivot: [0.5, 0, 0] })).toThrow(/half cubes/);
    h.do(edits.mountPartEdit, { part: h.body().id, bone: null });
    expect(h.p.rig.mounts[0]!.bone).toBeNull();
    expect(() => h.do(edits.mountPartEdit, { part: h.body().id, bone: 'none' })).toThrow(/no bone “none”/);
    expect(() => hand().do(edits.shrinkPartEdit, { part: hand().body().id })).toThrow(
      /empty, so there is nothing to fit/,
    );
  });
});

describe('strokes', () => {
  it('write one layer, and what a higher layer shows is not painted through', () => {
    const h = hand();
    const part = h.body();
    const two: Project = {
      ...h.p,
      parts: [{ ...part, layers: [...part.layers, { ...part.layers[0]!, id: 'upper', name: 'Trim' }] }],
    };
    const g = hand(two)
      .do(edits.strokeEdit, { part: part.id, layer: 'upper', stroke: boxStroke('add', 7, [box([0, 0, 0], [2, 1, 1])]) })
      .do(edits.strokeEdit, {
        part: part.id,
        layer: part.layers[0]!.id,
        stroke: boxStroke('add', 3, [box([0, 0, 0], [4, 1, 1])]),
      });
    expect(g.p.parts[0]!.layers.map((l) => l.grid.count)).toEqual([2, 2]);
    expect(composite(g.p.parts[0]!).count).toBe(4);
    const hidden = hand({
      ...g.p,
      parts: [
        { ...g.p.parts[0]!, layers: g.p.parts[0]!.layers.map((l) => (l.id === 'upper' ? { ...l, hidden: true } : l)) },
      ],
    });
    expect(composite(hidden.body()).count).toBe(2);
    expect(() =>
      hidden.do(edits.strokeEdit, { part: part.id, layer: 'upper', stroke: boxStroke('erase', 0, []) }),
    ).toThrow(/is hidden/);
    expect(() =>
      hidden.do(edits.strokeEdit, { part: part.id, layer: part.layers[0]!.id, stroke: boxStroke('add', 300, []) }),
    ).toThrow(/bytes run from 1 to 255/);
  });
});

describe('swatches', () => {
  it('a new one takes the lowest free byte; bytes stay when the order changes', () => {
    const h = hand();
    const id = h.p.palettes[0]!.id;
    h.do(edits.setSwatchesEdit, {
      palette: id,
      swatches: [...h.p.palettes[0]!.swatches].reverse().filter((s) => s.byte !== 4),
    }).do(edits.addSwatchEdit, { palette: id, name: 'Plum', colour: '#553355', more: { emissive: 2 } });
    expect(h.p.palettes[0]!.swatches.at(-1)).toMatchObject({ byte: 4, name: 'Plum', emissive: 2 });
    expect(h.p.palettes[0]!.swatches[0]!.byte).toBe(16);
    h.do(edits.editSwatchEdit, { palette: id, byte: 4, change: { roughness: 0.1 } });
    expect(h.p.palettes[0]!.swatches.at(-1)!.roughness).toBe(0.1);
    expect(() => h.do(edits.editSwatchEdit, { palette: id, byte: 99, change: {} })).toThrow(/no swatch 99/);
  });
});

describe('clips and shots', () => {
  it('length in frames, speed, loop and name; keys beyond a shorter end stay', () => {
    const h = hand()
      .do(edits.addBoneEdit, { name: 'Axle', parent: null, t: [0, 0, 0] })
      .do(edits.addClipEdit, { name: 'Roll', frames: 24, fps: 24, loop: true });
    const clip = h.p.clips[0]!.id,
      bone = h.p.rig.bones[0]!.id;
    for (const time of [0, 600, 1200])
      h.do(edits.setKeyEdit, { clip, bone, channel: 'move', key: { time, ease: 'linear', value: [time, 0, 0] } });
    h.do(edits.setClipEdit, { clip, frames: 12, loop: false, name: 'Half roll' });
    expect(h.p.clips[0]).toMatchObject({ length: 600, loop: false, name: 'Half roll' });
    expect(h.p.clips[0]!.lanes[0]!.move).toHaveLength(3);
    h.do(edits.easeKeysEdit, { clip, keys: [{ bone, channel: 'move', time: 600 }], ease: 'step' }).do(
      edits.removeKeysEdit,
      { clip, keys: [{ bone, channel: 'move', time: 0 }] },
    );
    expect(h.p.clips[0]!.lanes[0]!.move.map((k) => k.ease)).toEqual(['step', 'linear']);
    expect(() =>
      h.do(edits.setKeyEdit, { clip, bone, channel: 'move', key: { time: 900, ease: 'linear', value: [0, 0, 0] } }),
    ).toThrow(/between its start and its end/);
    expect(() => h.do(edits.setClipEdit, { clip, fps: 0 })).toThrow(/1 to 240/);
    expect(() => h.do(edits.addClipEdit, { name: 'x', frames: 0, fps: 24, loop: true })).toThrow(/at least one frame/);
    h.do(edits.deleteClipEdit, { clip })
      .do(edits.addClipEdit, { name: 'Half roll', frames: 1, fps: 1, loop: false })
      .do(edits.restoreEdit, { item: h.p.bin[0]!.id });
    expect(h.p.clips.map((c) => c.name)).toEqual(['Half roll', 'Half roll 2']);
  });

  it('shots are made from others, changed, deleted and restored', () => {
    const h = hand();
    const first = h.p.shots[0]!;
    h.do(edits.addShotEdit, { name: first.name, shot: { grade: makeGrade({ exposure: 1 }) } });
    expect(h.p.shots[1]).toMatchObject({ name: `${first.name} 2`, grade: { exposure: 1 }, light: first.light });
    h.do(edits.editShotEdit, { shot: first.id, change: { output: makeOutput({ samples: 8 }) } });
    expect(find(h.p.shots, first.id)!.output.samples).toBe(8);
    const output = (more: Partial<Output>): void =>
      h.do(edits.editShotEdit, { shot: first.id, change: { output: makeOutput(more) } }) as never;
    expect(() => output({ size: [9000, 10] })).toThrow(/8,192 pixels/);
    expect(() => output({ samples: 0 })).toThrow(/1 to 65,536 samples/);
    h.do(edits.deleteShotEdit, { shot: first.id });
    expect(h.p.shots).toHaveLength(1);
    h.do(edits.restoreEdit, { item: h.p.bin[0]!.id });
    expect(h.p.shots).toHaveLength(2);
    expect(() => h.do(edits.restoreEdit, { item: 'gone' })).toThrow(/no thing in the bin “gone”/);
  });
});

describe('the project itself', () => {
  it('has a name, a kind and a scale', () => {
    const h = hand()
      .do(edits.renameProjectEdit, { name: ' Tea cart ' })
      .do(edits.setProjectEdit, { kind: 'wearable', metresPerUnit: 0.1 });
    expect(h.p).toMatchObject({ name: 'Tea cart', kind: 'wearable', metresPerUnit: 0.1 });
    expect(() => h.do(edits.setProjectEdit, { metresPerUnit: 0 })).toThrow(/above zero/);
    expect(() => h.do(edits.renameProjectEdit, { name: '' })).toThrow(/1 to 120/);
  });
});

describe('checks', () => {
  it('find loose and doubled parts, idle bones, empty parts and clips, and nothing else', () => {
    const h = fill(hand());
    expect(checkProject(h.p)).toEqual([]);
    h.do(edits.addBoneEdit, { name: 'Axle', parent: null, t: [0, 0, 0] });
    expect(checkRig(h.p).map((f) => f.text)).toEqual([
      '“Body” hangs on no bone, so no clip moves it.',
      '“Axle” carries nothing.',
    ]);
    const bone = h.p.rig.bones[0]!.id;
    h.do(edits.mountPartEdit, { part: h.body().id, bone })
      .do(edits.addPartEdit, { name: 'Lid', bounds: box([0, 0, 0], [2, 2, 2]), bone, side: 'left' })
      .do(edits.addClipEdit, { name: 'Roll', frames: 2, fps: 12, loop: true });
    expect(checkProject(h.p).map((f) => [f.step, f.text])).toEqual([
      ['build', '“Lid left” is empty and stays out of the file.'],
      ['animate', 'Clip “Roll” has no keys and stays out of the file.'],
    ]);
    const twice: Project = {
      ...h.p,
      rig: { ...h.p.rig, mounts: [...h.p.rig.mounts, { ...h.p.rig.mounts[0]!, id: 'again' }] },
    };
    expect(checkRig(twice)[0]!.text).toBe('“Body” hangs on 2 bones.');
  });
});
