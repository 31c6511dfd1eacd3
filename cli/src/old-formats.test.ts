import { readFileSync } from 'node:fs';
import { readProjectFile, writeProjectFile } from '@sphalerite/core/files';
import {
  FORMAT_VERSION,
  PLAIN_DELIVERY,
  blobId,
  NO_VARIATION,
  groupsOfParts,
  projectToJson,
  NO_TARGET,
  composite,
} from '@sphalerite/core/model';
import { describe, expect, it } from 'vitest';

describe('project files of older formats', () => {
  it('a lamp post saved as format 1 opens with every cube, and is written as the format of today', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/lamp-post-format-1.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result).toMatchObject({ name: 'Lamp post', target: NO_TARGET, stamps: [], references: [] });
    expect(result.palettes[0]!.swatches.every((s) => s.helper === false)).toBe(true);
    expect(result.parts.map((p) => composite(p).count).reduce((a, b) => a + b)).toBe(724);
    expect(result.rig.constraints).toEqual([]);
    expect(FORMAT_VERSION).toBe(17);
    const again = readProjectFile(writeProjectFile(result)).result;
    expect(again.parts.map((p) => composite(p).count)).toEqual(result.parts.map((p) => composite(p).count));
  });
  it('so does one saved as format 2, with no colourways yet', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/lamp-post-format-2.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result).toMatchObject({ name: 'Lamp post', colourways: [], shots: [{ colourway: null }] });
    expect(result.parts.map((p) => composite(p).count).reduce((a, b) => a + b)).toBe(724);
  });
  it('and one saved as format 3, whose parts have neither regions nor twins', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/lamp-post-format-3.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    for (const p of result.parts) expect(p).toMatchObject({ regions: null, twin: null, origin: null });
    expect(result.parts.map((p) => composite(p).count).reduce((a, b) => a + b)).toBe(724);
  });
  it('and one saved as format 4, without sets of alternates, poses or a seal', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/lamp-post-format-4.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result).toMatchObject({ poses: [], seal: null, rig: { alternateSets: [] } });
    expect(result.rig.bones.every((b) => b.ships && b.colour === null)).toBe(true);
    expect(result.rig.mounts.every((m) => m.alternateSet === null)).toBe(true);
  });
  it('and one saved as format 5, whose linear keys were called even and whose alternates were slots', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/tamsin-format-5.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result.rig.mounts.every((m) => m.alternateSet === null)).toBe(true);
    expect(result.rig.alternateSets).toEqual([]);
    const keys = result.clips.flatMap((c) => c.lanes.flatMap((l) => [...l.move, ...l.turn, ...l.scale]));
    expect(result.clips.every((c) => c.lanes.every((l) => l.hinge.length === 0))).toBe(true);
    const eases = new Map<string, number>();
    for (const { ease } of keys) eases.set(ease, (eases.get(ease) ?? 0) + 1);
    expect([...eases.keys()].sort()).toEqual(['ease', 'linear']);
    expect(eases.get('linear')).toBeGreaterThan(10);
  });
  it('and one saved as format 6, with pictures inside the JSON and the bin in another form', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/row-boat-format-6.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result).toMatchObject({ scenes: [], terrainSets: [], assets: [], deliveryProfiles: [] });
    expect(result.references.map((r) => [r.name, r.plane])).toEqual([
      ['Sketch', 'front'],
      ['Sketch again', 'side'],
    ]);
    // Both show one picture; the third lies in the bin with its part.
    expect(result.blobs.map((b) => [b.type, b.id === blobId(b.bytes)])).toEqual([
      ['image/png', true],
      ['image/png', true],
    ]);
    expect(result.bin.map((b) => [b.kind, (b.record as { name?: string }).name])).toEqual([
      ['part', 'Crate'],
      ['clip', 'Rock'],
      ['bone', 'Mast'],
    ]);
    const again = readProjectFile(writeProjectFile(result)).result;
    expect(projectToJson(again)).toEqual(projectToJson(result));
  });
  it('and one saved as format 7, whose bones could not spin, those in the bin neither', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/row-boat-format-7.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    const kept = result.bin.flatMap((b) => (b.kind === 'bone' ? b.kept.lanes.map((l) => l.lane) : []));
    const lanes = [...kept, ...result.clips.flatMap((c) => c.lanes)];
    expect([kept.length, lanes.length]).toEqual([1, 4]);
    expect(lanes.every((l) => l.hinge.length === 0)).toBe(true);
  });
  it('and one saved as format 8, whose clips had level ground and which had no restore points', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/row-boat-format-8.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result.clips.map((c) => c.floor)).toEqual([null]);
    expect(result.restorePoints).toEqual([]);
  });
  it('and one saved as format 9, whose parts had no picked faces and whose profiles said axes and names alone', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/row-boat-format-9.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result.parts.every((p) => p.faceSlots === null)).toBe(true);
    expect(result.deliveryProfiles).toEqual([
      {
        ...PLAIN_DELIVERY,
        id: 'game',
        name: 'Game',
        ready: null,
        formats: ['glb'],
        options: { glb: { clips: false } },
        tiles: [],
        place: { up: '+z', forward: '-y', unitsPerMetre: 100, origin: 'base' },
        names: { ...PLAIN_DELIVERY.names, prefix: 'sm_', left: '_l', right: '_r' },
      },
    ]);
  });
  it('and one saved as format 10, whose parts did not say what they were made of', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/row-boat-format-10.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect([result.imports, [...new Set(result.parts.map((p) => p.made))]]).toEqual([[], [null]]);
  });
  it('and one saved as format 11, whose parts lay in no groups', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/row-boat-format-11.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result.parts.find((p) => p.made)).toMatchObject({ name: 'Rock', made: { as: 'Rock' } });
    expect(groupsOfParts(result.parts)).toEqual([]);
  });
  it('and one saved as format 12, whose scatters alone varied', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/row-boat-format-12.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    const [row, scatter] = result.scenes[0]!.repeats;
    expect(row).toMatchObject({ kind: 'line', second: null, vary: NO_VARIATION });
    expect(scatter).toMatchObject({ off: [], vary: { seed: 7, turn: 90, sizes: [0.8, 1.2], lean: 3 } });
    expect(result.shots.every((s) => s.scene === null)).toBe(true);
  });
  it('and one saved as format 13, whose shots had neither lens nor grading', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/lamp-post-format-13.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result.shots[0]).toMatchObject({
      name: 'Late evening',
      camera: { kind: 'perspective', eye: [34, 26, 62], fov: 34, aperture: 0, roll: 0 },
      light: {
        sun: { azimuth: -60, strength: 0.25 },
        sky: { kind: 'gradient', zenith: '#1f2b4f', strength: 0.35 },
        glow: { strength: 2, tint: '#ffffff' },
        fog: { density: 0 },
      },
      stage: { ground: { kind: 'colour', colour: '#6b6470' }, edges: 0 },
      grade: { exposure: 1, curve: 'soft', bloom: 0 },
      output: { size: [480, 480], samples: 64, transparent: false },
    });
  });
  it('and one saved as format 14, whose shots became pictures and nothing else', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/lamp-post-format-14.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result.shots[0]).toMatchObject({
      name: 'Late evening',
      grade: { curve: 'soft', outline: { width: 0, inside: false }, steps: 0 },
      output: {
        makes: 'picture',
        size: [480, 480],
        file: 'png',
        cut: false,
        series: 'gif',
        sprites: { directions: 8 },
      },
    });
  });
  it('and one saved as format 15, whose cameras went about in one way alone', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/lamp-post-format-15.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result.shots[0]).toMatchObject({
      camera: { locked: false },
      light: { sky: { kind: 'gradient', picture: null } },
      output: { makes: 'picture', noise: 0, drawn: false, path: { kind: 'turntable', reach: 360, eased: false } },
    });
  });
  it('and one saved as format 16, whose target said nothing of draw calls, and where time stood still on a path', () => {
    const { result, notes } = readProjectFile(
      readFileSync(new URL('../fixtures/lamp-post-format-16.sphal', import.meta.url)),
    );
    expect(notes).toEqual([]);
    expect(result.target).toEqual({ ...NO_TARGET, height: result.target.height, faces: result.target.faces });
    expect(result.shots[0]!.output.path).toEqual({ kind: 'turntable', reach: 360, eased: false, plays: false });
  });
});
