import { describe, expect, it } from 'vitest';
import { makeMount, makePart, makeProject, idsFrom, type Project } from '../../model';
import { makeSwatch } from '../../palette';
import { VoxelGrid } from '../../voxel';
import { apply, editContext } from '../edit';
import { gather } from '../../scene';
import { takeablePieces } from '../pieces';
import { bringPiecesEdit, type TakenPieces } from './bring-pieces';
import { addSceneEdit, placeEdit } from './scenes';

const bounds = { min: [0, 0, 0], size: [2, 2, 2] } as const;
/** A bone with a post and a rope on it, a loose crate, and a stamp. */
function project(id: string, colour: string): Project {
  const newId = idsFrom(id);
  const p = makeProject(id, 'Pier', newId);
  const part = (name: string, byte: number) => {
    const made = makePart(`${id}-${name}`, newId(), name, 'wood', bounds);
    return {
      ...made,
      layers: [{ ...made.layers[0]!, grid: VoxelGrid.empty(bounds).edit((d) => d.fillBox(bounds, byte)) }],
    };
  };
  const parts = ['Post', 'Rope', 'Crate'].map((n, i) => part(n, i + 1));
  const swatches = ['#112233', '#445566', colour].map((c, i) => makeSwatch(i + 1, `tone ${i}`, c));
  const bone = { id: 'pier', name: 'Pier', side: 'centre', parent: null, colour: null, ships: true } as const;
  return {
    ...p,
    palettes: [{ id: 'wood', name: 'Wood', swatches }],
    parts,
    stamps: [part('Nail', 1)],
    rig: {
      ...p.rig,
      bones: [{ ...bone, rest: { t: [0, 0, 0], q: [0, 0, 0, 1], s: [1, 1, 1] } }],
      mounts: parts.map((o, i) => makeMount(`${id}-m${i}`, o.id, i < 2 ? 'pier' : null)),
    },
  };
}
const here = project('here', '#aa0000'),
  there = project('there', '#00aa00');
const NOTHING: TakenPieces = { source: there, pieces: [], inPlace: [], bones: false, at: null, whole: false };
const take = (wish: Partial<TakenPieces>): Project =>
  apply(here, bringPiecesEdit, { ...NOTHING, ...wish }, editContext('take'));
const part = (name: string) => ({ kind: 'part', id: `there-${name}` });

describe('taking pieces of another project', () => {
  it('tells what clashes before', () => {
    const told = takeablePieces(here, there).map((p) => [p.kind, p.record.name, p.clash]);
    expect(told).toEqual([
      ['part', 'Post', { as: 'Post 2', over: 'here-Post' }],
      ['part', 'Rope', { as: 'Rope 2', over: 'here-Rope' }],
      ['part', 'Crate', { as: 'Crate 2', over: 'here-Crate' }],
      ['palette', 'Wood', { as: 'Wood 2' }],
      ['stamp', 'Nail', { as: 'Nail 2' }],
    ]);
    expect(takeablePieces(there, there).find((p) => p.kind === 'palette')!.clash).toEqual({ shared: true });
  });
  it('brings one part beside and another into the one of its name, with the palette once', () => {
    const p = take({ pieces: [part('Crate'), part('Post')], inPlace: ['there-Post'] });
    expect(p.parts.map((o) => o.name)).toEqual(['Post', 'Rope', 'Crate', 'Crate 2']);
    expect(p.palettes.map((o) => o.name)).toEqual(['Wood', 'Wood 2']);
    expect(p.parts.map((o) => o.palette === 'wood')).toEqual([false, true, true, false]);
    expect([p.rig.bones, p.rig.mounts.find((m) => m.part === 'here-Post')]).toEqual([
      here.rig.bones,
      here.rig.mounts.find((m) => m.part === 'here-Post'),
    ]);
    expect(p.bin.map((b) => (b.record as { name: string }).name)).toEqual(['Post']);
  });
  it('brings bones with the ticked parts alone, and stamps and palettes by themselves', () => {
    const p = take({ pieces: [part('Rope'), { kind: 'stamp', id: 'there-Nail' }], bones: true, at: { bone: 'pier' } });
    expect(p.rig.bones.map((b) => [b.name, b.parent])).toEqual([
      ['Pier', null],
      ['Pier 2', 'pier'],
    ]);
    const rope = p.parts.find((o) => o.name === 'Rope 2')!;
    expect(p.rig.mounts.find((m) => m.part === rope.id)!.bone).toBe(p.rig.bones[1]!.id);
    expect(p.stamps.map((s) => s.name)).toEqual(['Nail', 'Nail 2']);
    expect(p.palettes).toHaveLength(2);
  });
  it('keeps all of a project as one asset, without its bin', () => {
    const p = take({ whole: true });
    expect(p.assets.map((a) => [a.name, a.source.project, a.project.parts])).toEqual([['Pier', 'there', there.parts]]);
    expect(p.parts).toBe(here.parts);
  });
  it('brings a scene with all that stands in it, the figure as the project that it is', () => {
    const wood = { ...there, parts: there.parts.map((o) => ({ ...o, name: `${o.name} of oak` })) };
    const empty = apply(wood, addSceneEdit, { name: 'Night' }, editContext('scene'));
    const scene = empty.scenes[0]!.id;
    const placements = [
      { shows: { kind: 'rig', clip: null, time: 0 }, t: [8, 0, 0] },
      { shows: { kind: 'part', part: 'there-Crate' }, t: [0, 0, 5] },
    ] as const;
    const source = apply(empty, placeEdit, { scene, placements }, editContext('placed'));
    const p = take({ source, pieces: [{ kind: 'scene', id: scene }] });
    const seen = (q: Project) =>
      gather(q, { of: 'scene', scene: q.scenes[0]!.id }).map(({ geometry, matrix }) => [geometry, matrix]);
    expect(seen(p)).toEqual(seen(source));
    expect(seen(p)).toHaveLength(4);
    expect(p.parts.map((o) => o.name)).toEqual(['Post', 'Rope', 'Crate', 'Crate of oak']);
    expect(p.rig).toBe(here.rig);
    expect(p.scenes[0]!.placements.flat().map((o) => o.shows.kind)).toEqual(['asset', 'part']);
    expect(p.assets.map((a) => a.name)).toEqual(['Pier']);
  });
  it('refuses clips without bones, and nothing at all', () => {
    expect(() => take({ pieces: [{ kind: 'clip', id: 'x' }] })).toThrow(/Clips move bones/);
    expect(() => take({})).toThrow(/Nothing came of “Pier”/);
  });
});
