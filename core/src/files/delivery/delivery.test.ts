import { describe, expect, it } from 'vitest';
import { type Project, deliveriesOf, deliveryOf, idsFrom, makeProject } from '../../model';
import {
  type Edit,
  EditError,
  addColourwayEdit,
  addDeliveryEdit,
  apply,
  deleteDeliveryEdit,
  editContext,
  editSwatchEdit,
  flipRigEdit,
  restoreEdit,
  setDeliveryEdit,
  slotFacesEdit,
  strokeEdit,
  refinePartEdit,
} from '../../project';
import { boxStroke } from '../../sculpt';
import { finish } from '../../math';
import { composite } from '../../model';
import {
  EMPTY_LIST,
  FileError,
  QUIET_JOB,
  deliver,
  faceSharesSteps,
  gatherShipped,
  hashed,
  planFolder,
  readFolderList,
  readProfile,
  writeProfile,
} from '..';
import { wishing } from '../testing';

let n = 0;
const run = <A>(p: Project, edit: Edit<A>, args: A): Project =>
  apply(p, edit, args, editContext(`delivery ${n++}`, 1000));
function crate(): Project {
  let p = makeProject('crate', 'Crate', idsFrom('crate'), 'prop', [8, 8, 8]);
  const part = p.parts[0]!;
  for (const [value, min] of [
    [5, [-2, 0, -2]],
    [6, [-2, 2, -2]],
  ] as const)
    p = run(p, strokeEdit, {
      part: part.id,
      layer: part.layers[0]!.id,
      stroke: boxStroke('add', value, [{ min, size: [4, 2, 4] }]),
    });
  p = run(p, addColourwayEdit, { name: 'Night watch' });
  return run(p, editSwatchEdit, {
    palette: p.palettes[0]!.id,
    byte: 5,
    change: { colour: '#203060' },
    colourway: p.colourways[0]!.id,
  });
}
const make = (p: Project, id: string) =>
  deliver(p, { subject: { of: 'rig' }, profile: deliveryOf(p, id)!, colourway: null }, QUIET_JOB);
const names = async (p: Project, id: string): Promise<string[]> => (await make(p, id)).files.map((f) => f.name);

describe('deliveries of a project', () => {
  it('are four that come along, changed by an edit each, and one’s own', () => {
    let p = crate();
    expect(deliveriesOf(p).map((d) => d.name)).toEqual(['Phone', 'Desktop', 'Headset', 'Print']);
    p = run(p, setDeliveryEdit, { delivery: 'phone', change: { mesh: { as: 'skin' }, formats: ['glb', 'obj'] } });
    expect(deliveryOf(p, 'phone')).toMatchObject({ mesh: { as: 'skin', merge: 'all' }, formats: ['glb', 'obj'] });
    expect(deliveriesOf(p).map((d) => d.name)).toEqual(['Phone', 'Desktop', 'Headset', 'Print']);
    p = run(p, addDeliveryEdit, { name: 'Phone', from: 'phone' });
    expect(deliveriesOf(p).map((d) => [d.name, d.ready, d.mesh.as])).toEqual([
      ['Phone', 'phone', 'skin'],
      ['Desktop', 'desktop', 'parts'],
      ['Headset', 'headset', 'parts'],
      ['Print', 'print', 'parts'],
      ['Phone 2', null, 'skin'],
    ]);
    // A ready one goes back to what it was; one's own goes to the bin, and comes back from there.
    p = run(p, deleteDeliveryEdit, { delivery: deliveryOf(p, 'phone')!.id });
    expect(deliveryOf(p, 'phone')!.mesh.as).toBe('parts');
    const own = p.deliveryProfiles[0]!.id;
    p = run(p, deleteDeliveryEdit, { delivery: own });
    expect(deliveriesOf(p)).toHaveLength(4);
    p = run(p, restoreEdit, { item: p.bin[0]!.id });
    expect(deliveryOf(p, own)!.name).toBe('Phone 2');
  });
  it('say what they cannot be, and change nothing then', () => {
    const p = crate();
    const wrong = { mesh: { merge: 'everything' as never } };
    expect(() => run(p, setDeliveryEdit, { delivery: 'phone', change: wrong })).toThrow(EditError);
    expect(() => run(p, setDeliveryEdit, { delivery: 'nobody', change: {} })).toThrow('not there any more');
    expect(run(p, setDeliveryEdit, { delivery: 'phone', change: { mesh: { merge: 'all' } } })).toBe(p);
  });
  it('are shared as files, whose every field is checked', () => {
    let p = run(crate(), setDeliveryEdit, { delivery: 'desktop', change: { names: { prefix: 'sm_' } } });
    const file = writeProfile(deliveryOf(p, 'desktop')!);
    expect(file.name).toBe('desktop.delivery.json');
    const from = readProfile(file.name, file.bytes);
    p = run(p, addDeliveryEdit, { name: from.name, from });
    expect(deliveriesOf(p).at(-1)).toMatchObject({ name: 'Desktop 2', ready: null, names: { prefix: 'sm_' } });
    const text = (json: unknown) => new TextEncoder().encode(typeof json === 'string' ? json : JSON.stringify(json));
    // What is not said is plain.
    expect(readProfile('x', text({ delivery: 'Bare' }))).toMatchObject({ name: 'Bare', mesh: { merge: 'colour' } });
    for (const bad of ['{', 'null', {}, { delivery: 'A', mesh: { merge: 'x' } }, { delivery: 'A', more: 1 }, []])
      expect(() => readProfile('x.json', text(bad))).toThrow(FileError);
  });
});

describe('the files of a delivery', () => {
  it('are those of all its formats, and once more in each colourway where those are files', async () => {
    let p = crate();
    expect(await names(p, 'desktop')).toEqual([
      'crate.glb',
      'crate.obj',
      'crate.mtl',
      'crate-colliders.obj',
      'crate-starter-colour.png',
      'crate-starter-glow.png',
    ]);
    p = run(p, setDeliveryEdit, {
      delivery: 'phone',
      change: { looks: { colourways: 'files' }, formats: ['glb', 'palette-hex', 'project'] },
    });
    expect(await names(p, 'phone')).toEqual([
      'crate.glb',
      'crate.sphal',
      'starter.hex.txt',
      'crate-night-watch.glb',
      'starter-night-watch.hex.txt',
    ]);
    const { files } = await make(p, 'phone');
    const text = (name: string) => new TextDecoder().decode(files.find((f) => f.name === name)!.bytes);
    expect(text('starter-night-watch.hex.txt')).toContain('#203060');
    expect(text('starter.hex.txt')).not.toContain('#203060');
    p = run(p, setDeliveryEdit, { delivery: 'phone', change: { formats: [] } });
    await expect(make(p, 'phone')).rejects.toThrow('Tick a format');
  });
  it('have names that every system takes, whatever the project is called', async () => {
    for (const name of ['a/b\\c: "d"', '../../up', '🪔🪔', 'x'.repeat(120), '.', 'CON']) {
      const files = await names({ ...crate(), name }, 'desktop');
      for (const f of files) expect(f).toMatch(/^[a-z0-9][a-z0-9-]{0,110}\.(glb|obj|mtl|png)$/);
    }
  });
  it('go into a folder over those of last time, never over anybody else’s', () => {
    const file = (name: string, text: string) => hashed({ name, bytes: new TextEncoder().encode(text) });
    const first = planFolder('crate phone', [file('a.glb', '1'), file('b.png', '2')], EMPTY_LIST, ['notes.txt']);
    expect([first.fresh.map((f) => f.name), first.foreign]).toEqual([['a.glb', 'b.png'], []]);
    const list = readFolderList(JSON.stringify(first.list));
    const there = ['notes.txt', 'a.glb', 'B.PNG', 'c.glb'];
    const next = planFolder('crate phone', [file('a.glb', '1'), file('c.glb', '4'), file('b.png', '3')], list, there);
    expect([next.same, next.changed.map((f) => f.name), next.foreign]).toEqual([['a.glb'], ['b.png'], ['c.glb']]);
    // Broken off on the way, what was written is ours, and is written again.
    const broken = planFolder('crate phone', [file('a.glb', '1'), file('b.png', '2')], first.claim, ['a.glb']);
    expect([broken.foreign, broken.changed.map((f) => f.name), broken.fresh.map((f) => f.name)]).toEqual([
      [],
      ['a.glb'],
      ['b.png'],
    ]);
    // What a part was called before it was renamed is told, and stays ours.
    const renamed = planFolder('crate phone', [file('crate.glb', '1')], list, there);
    expect(renamed.gone).toEqual(['a.glb', 'b.png']);
    expect(Object.keys(renamed.list.deliveries['crate phone']!)).toEqual(['a.glb', 'b.png', 'crate.glb']);
    // A list that cannot be read is nobody's: all that stands there is left alone.
    expect(planFolder('crate phone', [file('a.glb', '9')], readFolderList('{'), there).foreign).toEqual(['a.glb']);
    // Two deliveries may write one file.
    expect(planFolder('crate desktop', [file('a.glb', '1')], list, there).changed.map((f) => f.name)).toEqual([
      'a.glb',
    ]);
  });
  it('know where their triangles are', () => {
    const shares = finish(faceSharesSteps(crate(), { of: 'rig' }, wishing({})));
    // Two bands of four sides each, and two ends.
    expect(shares.parts.map((s) => [s.name, s.triangles])).toEqual([['Body', 20]]);
    expect([shares.spots, shares.stairs, shares.rest, shares.merged]).toEqual([0, 0, 20, 12]);
  });
});

describe('faces picked for a slot', () => {
  const top = (x: number, z: number) => ({ cell: [x, 3, z] as const, direction: 2 });
  const slots = (p: Project): string[] =>
    gatherShipped(p, { of: 'rig' }, wishing({ mesh: { merge: 'slot' }, looks: { colourways: 'none' } })).materials.map(
      (m) => m.slot,
    );
  it('are a material of their own, whatever is painted over them, until they are given back', () => {
    let p = crate();
    const part = p.parts[0]!.id;
    p = run(p, slotFacesEdit, { part, slot: 'Lid', faces: [top(0, 0), top(1, 0)] });
    expect(slots(p)).toEqual(['', 'Lid']);
    const layer = p.parts[0]!.layers[0]!.id;
    const stroke = boxStroke('paint', 9, [{ min: [-2, 3, -2], size: [4, 1, 4] }]);
    p = run(p, strokeEdit, { part, layer, stroke });
    expect(slots(p)).toEqual(['', 'Lid']);
    const triangles = (q: Project): number => finish(faceSharesSteps(q, { of: 'rig' }, wishing({}))).rest;
    expect(triangles(p)).toBeGreaterThan(0);
    p = run(p, slotFacesEdit, { part, slot: '', faces: [top(0, 0), top(1, 0)] });
    expect([slots(p), p.parts[0]!.faceSlots]).toEqual([[''], null]);
  });
  it('go along when the part is refined or mirrored', () => {
    let p = run(crate(), slotFacesEdit, {
      part: crate().parts[0]!.id,
      slot: 'Side',
      faces: [{ cell: [1, 0, 0], direction: 0 }],
    });
    const part = p.parts[0]!.id;
    p = run(p, refinePartEdit, { part, by: 2 });
    const picked = p.parts[0]!.faceSlots!.faces[0]!.grid;
    expect(picked.count).toBe(8);
    expect(composite(p.parts[0]!).get(3, 1, 1)).not.toBe(0);
    expect(picked.get(3, 1, 1)).toBe(1);
    // Mirrored, what looked to one side looks to the other.
    p = run(p, flipRigEdit, { plane: 0, axis: 0 });
    expect(p.parts[0]!.faceSlots!.faces.map((f) => [f.direction, f.grid.count, f.grid.get(-4, 1, 1)])).toEqual([
      [1, 8, 1],
    ]);
  });
});
