import { describe, expect, it } from 'vitest';
import { MAX_BLOB, PLAIN_CLIP, type Project, find, idsFrom, makeProject } from '../model';
import { boxStroke } from '../sculpt';
import {
  EditError,
  addBoneEdit,
  addClipEdit,
  addPartEdit,
  addReferenceEdit,
  addSwatchEdit,
  apply,
  canRedo,
  current,
  deleteBoneEdit,
  deletePartEdit,
  deleteReferenceEdit,
  editContext,
  editShotEdit,
  editSwatchEdit,
  historyBytes,
  jump,
  record,
  redo,
  renameBoneEdit,
  renameProjectEdit,
  resizePartEdit,
  restoreEdit,
  setKeyEdit,
  setReferenceEdit,
  shrinkPartEdit,
  startHistory,
  strokeEdit,
  summarize,
  undo,
} from '.';

let n = 0;
const ctx = () => editContext(`project test ${n++}`);
const start = (): Project => makeProject('p', 'Lamp', idsFrom('lamp'), 'prop', [8, 8, 8]);
const paintAt = (p: Project, x: number, value = 3, y = 0): Project =>
  apply(
    p,
    strokeEdit,
    {
      part: p.parts[0]!.id,
      layer: p.parts[0]!.layers[0]!.id,
      stroke: boxStroke('add', value, [{ min: [x, y, 0], size: [1, 1, 1] }]),
    },
    ctx(),
  );

/** Bytes that begin as a PNG does. */
const pngOf = (length: number): Uint8Array<ArrayBuffer> => {
  const bytes = new Uint8Array(length);
  bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return bytes;
};

describe('edits', () => {
  it('give the same project for the same seed, and the same reference when nothing changes', () => {
    const p = start();
    const args = { name: 'Arm', bounds: { min: [0, 0, 0] as const, size: [4, 4, 4] as const } };
    expect(apply(p, addPartEdit, args, editContext('a')).parts[1]!.id).toBe(
      apply(p, addPartEdit, args, editContext('a')).parts[1]!.id,
    );
    expect(paintAt(paintAt(p, 1), 1)).not.toBe(p);
    const once = paintAt(p, 1);
    expect(paintAt(once, 1)).toBe(once);
    expect(apply(once, editSwatchEdit, { palette: p.palettes[0]!.id, byte: 1, change: {} }, ctx())).toBe(once);
  });

  it('refuse with a sentence and change nothing', () => {
    const p = paintAt(start(), 3);
    const part = p.parts[0]!;
    expect(() =>
      apply(p, resizePartEdit, { part: part.id, bounds: { min: [0, 0, 0], size: [2, 2, 2] } }, ctx()),
    ).toThrow(/cut off 1 cube of “Body”/);
    expect(() =>
      apply(p, resizePartEdit, { part: part.id, bounds: { min: [0, 0, 0], size: [999, 2, 2] } }, ctx()),
    ).toThrow(EditError);
    expect(() =>
      apply(p, strokeEdit, { part: 'nobody', layer: 'x', stroke: boxStroke('erase', 0, []) }, ctx()),
    ).toThrow(/no part “nobody”/);
    expect(() => apply(p, addSwatchEdit, { palette: p.palettes[0]!.id, name: 'x', colour: 'redish' }, ctx())).toThrow(
      /“redish” is not a colour/,
    );
    const locked: Project = { ...p, parts: [{ ...part, layers: [{ ...part.layers[0]!, locked: true }] }] };
    expect(() => paintAt(locked, 2)).toThrow(/locked/);
  });

  it('growing and shrinking leave cubes and pivot where they are', () => {
    const p = paintAt(start(), 3);
    const part = p.parts[0]!;
    const grown = apply(p, resizePartEdit, { part: part.id, bounds: { min: [-10, -2, -4], size: [40, 20, 8] } }, ctx());
    expect(grown.parts[0]!.layers[0]!.grid.get(3, 0, 0)).toBe(3);
    expect(grown.parts[0]!.pivot).toEqual(part.pivot);
    const fit = apply(grown, shrinkPartEdit, { part: part.id }, ctx());
    expect(fit.parts[0]!.bounds).toEqual({ min: [3, 0, 0], size: [1, 1, 1] });
    expect(fit.parts[0]!.layers[0]!.grid.get(3, 0, 0)).toBe(3);
  });

  it('names stay unique on a side, and a clash proposes a free one', () => {
    let p = apply(start(), addBoneEdit, { name: 'Arm', parent: null, t: [0, 0, 0], side: 'left' }, ctx());
    p = apply(p, addBoneEdit, { name: 'Arm', parent: null, t: [0, 0, 0], side: 'right' }, ctx());
    p = apply(p, addBoneEdit, { name: 'Arm', parent: null, t: [0, 0, 0], side: 'left' }, ctx());
    expect(p.rig.bones.map((b) => `${b.name} ${b.side}`)).toEqual(['Arm left', 'Arm right', 'Arm 2 left']);
    expect(apply(p, renameBoneEdit, { bone: p.rig.bones[2]!.id, name: 'Arm' }, ctx())).toBe(p);
  });

  it('the bin gives a part back on its bone and a bone back with its children, mounts and keys', () => {
    let p = apply(start(), addBoneEdit, { name: 'Root', parent: null, t: [0, 1, 0] }, ctx());
    const root = p.rig.bones[0]!.id;
    p = apply(p, addBoneEdit, { name: 'Tip', parent: root, t: [0, 2, 0] }, ctx());
    p = apply(p, addPartEdit, { name: 'Shade', bounds: { min: [0, 0, 0], size: [2, 2, 2] }, bone: root }, ctx());
    p = apply(p, addClipEdit, { name: 'Sway', frames: 10, fps: 24, loop: true }, ctx());
    p = apply(
      p,
      setKeyEdit,
      { clip: p.clips[0]!.id, bone: root, channel: 'turn', key: { time: 0, ease: 'ease', value: [0, 0, 0, 1] } },
      ctx(),
    );
    const shade = p.parts[1]!.id;
    const gone = apply(apply(p, deletePartEdit, { part: shade }, ctx()), deleteBoneEdit, { bone: root }, ctx());
    expect(gone.parts).toHaveLength(1);
    expect(gone.clips[0]!.lanes).toHaveLength(0);
    expect(gone.rig.bones[0]).toMatchObject({ name: 'Tip', parent: null, rest: { t: [0, 3, 0] } });
    let back = apply(gone, restoreEdit, { item: gone.bin[1]!.id }, ctx());
    back = apply(back, restoreEdit, { item: back.bin[0]!.id }, ctx());
    expect(back.bin).toHaveLength(0);
    expect(find(back.rig.bones, p.rig.bones[1]!.id)).toMatchObject({ parent: root, rest: { t: [0, 2, 0] } });
    expect(back.rig.mounts.find((m) => m.part === shade)!.bone).toBe(root);
    expect(back.clips).toEqual(p.clips);
  });
});

describe('history', () => {
  const step = (h: ReturnType<typeof startHistory<null>>, project: Project) =>
    record(h, { label: 'x', at: 0, where: '', project, viewBefore: null, viewAfter: null });

  it('goes back, forth and anywhere; a new step drops what could be redone', () => {
    const p0 = start();
    let h = startHistory(p0, null, 0);
    const versions = [p0];
    for (let i = 0; i < 4; i++) {
      versions.push(paintAt(versions.at(-1)!, i));
      h = step(h, versions.at(-1)!);
    }
    expect(current(undo(undo(h)))).toBe(versions[2]);
    expect(current(redo(undo(h)))).toBe(versions[4]);
    expect(current(jump(h, 0))).toBe(p0);
    const forked = step(undo(h), paintAt(versions[3]!, -3));
    expect(forked.entries).toHaveLength(5);
    expect(canRedo(forked)).toBe(false);
    expect(step(h, current(h))).toBe(h);
  });

  it('keeps under its budget by dropping the oldest, never the present or the step before it', () => {
    let h = startHistory(start(), null, 0, 40_000);
    for (let i = 0; i < 60; i++) h = step(h, paintAt(current(h), (i % 8) - 4, 1 + (i % 15), i >> 3));
    expect(h.entries.length).toBeLessThan(12);
    expect(historyBytes(h)).toBeLessThanOrEqual(40_000);
    const tight = step({ ...h, budget: 1 }, paintAt(current(h), 3, 16, 7));
    expect(tight.entries.length).toBeGreaterThanOrEqual(2);
    expect(current(undo(tight))).toBe(current(h));
  });

  it('counts keys and pictures too, once each', () => {
    const bytesOf = (a: Project, b: Project): number => step(startHistory(a, null, 0), b).entries[1]!.bytes;
    const p = start();
    const bytes = pngOf(50_000);
    const sketch = { name: 'Sketch', part: p.parts[0]!.id, plane: 'front', bytes, at: [0, 0], size: [9, 9] } as const;
    const shown = apply(p, addReferenceEdit, sketch, ctx());
    expect(bytesOf(p, shown)).toBeGreaterThan(50_000);
    const moved = apply(shown, setReferenceEdit, { reference: shown.references[0]!.id, change: { at: [1, 0] } }, ctx());
    expect(bytesOf(shown, moved)).toBeLessThan(1000);
    const key = (time: number) => ({ time, ease: 'linear', value: [time, 0, 0] }) as const;
    const lane = { bone: 'b', move: Array.from({ length: 2000 }, (_, i) => key(i)), turn: [], hinge: [], scale: [] };
    const clip = { ...PLAIN_CLIP, id: 'c', name: 'Nod', length: 2400, fps: 24, loop: true, lanes: [lane] };
    const swung = { ...p, clips: [clip] };
    expect(bytesOf(p, swung)).toBeGreaterThan(200_000);
    expect(bytesOf(swung, { ...p, clips: [{ ...clip, name: 'Nod twice' }] })).toBeLessThan(1000);
  });
});

describe('whatever an edit leaves', () => {
  it('can be read again: what could not is refused with a sentence, and changes nothing', () => {
    const p = start();
    const shot = p.shots[0]!;
    const light = { ...shot.light, sun: { ...shot.light.sun, strength: 5000 } };
    expect(() => apply(p, editShotEdit, { shot: shot.id, change: { light } }, ctx())).toThrow(
      /“Change shot First picture” cannot be done.*shot › light › sun › strength/,
    );
    expect(() => apply(p, renameProjectEdit, { name: 'x'.repeat(121) }, ctx())).toThrow(EditError);
    const sound = { ...light, sun: { ...light.sun, strength: 900 } };
    expect(apply(p, editShotEdit, { shot: shot.id, change: { light: sound } }, ctx()).shots[0]!.light).toEqual(sound);
  });
});

describe('blobs', () => {
  it('are kept once however many name them, and go with the last of them, the bin counted', () => {
    const p = start();
    const part = p.parts[0]!.id;
    const sketch = { name: 'Sketch', part, plane: 'front', bytes: pngOf(40), at: [0, 0], size: [9, 9] } as const;
    const one = apply(p, addReferenceEdit, sketch, ctx());
    const two = apply(one, addReferenceEdit, { ...sketch, bytes: pngOf(40), plane: 'side' }, ctx());
    expect([two.blobs.length, two.references.map((r) => r.blob)]).toEqual([1, Array(2).fill(two.blobs[0]!.id)]);
    const [first, second] = two.references.map((r) => ({ reference: r.id }));
    const left = apply(two, deleteReferenceEdit, first!, ctx());
    expect(left.blobs).toBe(two.blobs);
    expect(apply(left, deleteReferenceEdit, second!, ctx()).blobs).toEqual([]);
    const gone = apply(left, deletePartEdit, { part }, ctx());
    expect([gone.references.length, gone.blobs.length]).toEqual([0, 1]);
    const back = apply(gone, restoreEdit, { item: gone.bin[0]!.id }, ctx());
    expect(back.references).toEqual(left.references);
  });
  it('refuse what is no picture, and what is too large', () => {
    const sketch = { name: 'Sketch', part: start().parts[0]!.id, plane: 'top', at: [0, 0], size: [9, 9] } as const;
    const adding = (bytes: Uint8Array<ArrayBuffer>) => () =>
      apply(start(), addReferenceEdit, { ...sketch, bytes }, ctx());
    expect(adding(Uint8Array.from([60, 104, 116, 109, 108]))).toThrow(/“Sketch” is not a PNG, JPEG or WebP picture/);
    expect(adding(pngOf(MAX_BLOB + 1))).toThrow(/64 MB is the most/);
  });
});

describe('summarize', () => {
  it('counts and names', () => {
    expect(summarize(paintAt(start(), 1))).toMatchObject({
      name: 'Lamp',
      cubes: 1,
      parts: [{ name: 'Body', cubes: 1, bone: null }],
      swatches: 16,
    });
  });
});
