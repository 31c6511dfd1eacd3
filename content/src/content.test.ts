import { readProjectFile, writeProjectFile } from '@sphalerite/core/files';
import {
  type Edit,
  apply,
  checkProject,
  editContext,
  makeAlternateSetEdit,
  swapKeyEdit,
} from '@sphalerite/core/project';
import { clipTime, loopGaps, sampleClip } from '@sphalerite/core/motion';
import { contactReport } from '@sphalerite/core/scene';
import { type Project, composite, inColourway } from '@sphalerite/core/model';
import { hexToLinear } from '@sphalerite/core/palette';
import { SET_UPS, developFilm, exposed, projectThumbnail, shotProject, traceSceneOf } from '@sphalerite/core/render';
import { traceFrameSteps } from '@sphalerite/core/takes';
import { placeParts, worldMatrices } from '@sphalerite/core/rig';
import { finish, transformPoint } from '@sphalerite/core/math';
import { byteCounts } from '@sphalerite/core/voxel';
import { describe, expect, it } from 'vitest';
import { DEMOS, READY_RIGS, buildTamsin } from '.';

/** The box of all cubes at rest, in project units. */
function extent(p: Project): { lo: number[]; hi: number[] } {
  const lo = [Infinity, Infinity, Infinity],
    hi = [-Infinity, -Infinity, -Infinity];
  for (const { part, matrix } of placeParts(p)) {
    const b = composite(part).contentBox()!;
    for (let k = 0; k < 8; k++) {
      const c = transformPoint(matrix, [
        b.min[0] + (k & 1 ? b.size[0] : 0),
        b.min[1] + (k & 2 ? b.size[1] : 0),
        b.min[2] + (k & 4 ? b.size[2] : 0),
      ]);
      c.forEach((v, a) => {
        lo[a] = Math.min(lo[a]!, v);
        hi[a] = Math.max(hi[a]!, v);
      });
    }
  }
  return { lo, hi };
}

describe.each(Object.entries({ ...DEMOS, ...READY_RIGS }))('%s', (_name, build) => {
  const p = build();
  it('is the same file every time, and reads back', () => {
    const bytes = writeProjectFile(p);
    expect(writeProjectFile(build())).toEqual(bytes);
    expect(readProjectFile(bytes).notes).toEqual([]);
  });
  it('leaves nothing to mend: all mounted, filled and keyed', () => {
    expect(checkProject(p)).toEqual([]);
  });
  it('stands on the floor', () => {
    // What stands in scenes alone has no floor of its own.
    if (p.rig.mounts.length === 0) expect(p.scenes.length).toBeGreaterThan(0);
    else expect(extent(p).lo[1]).toBeCloseTo(0, 9);
  });
  it('uses only swatches of its palette', () => {
    const known = new Set(p.palettes[0]!.swatches.map((s) => s.byte));
    for (const part of p.parts)
      byteCounts(composite(part)).forEach((n, byte) => expect(n === 0 || byte === 0 || known.has(byte)).toBe(true));
  });
  it('can be recognised small: its thumbnail fills the frame in more than a handful of colours', () => {
    const pixels = projectThumbnail(p, 64);
    const colours = new Set<number>();
    let covered = 0;
    for (let i = 0; i < pixels.length; i += 4) {
      if (pixels[i + 3]! === 0) continue;
      covered++;
      colours.add((pixels[i]! << 16) | (pixels[i + 1]! << 8) | pixels[i + 2]!);
    }
    expect(covered / (64 * 64)).toBeGreaterThan(0.06);
    // A figure to be filled is plain.
    expect(colours.size).toBeGreaterThan(p.seal ? 10 : 25);
  });
});

describe.each(Object.entries(DEMOS).map(([name, build]) => ({ name, p: build() })))('$name', ({ p }) => {
  it.each(SET_UPS.map((s) => ({ s, title: s.title })))(
    'in the light of “$title” less than 1 % is burnt out',
    ({ s }) => {
      const shot = p.shots[0]!,
        stage = shot.scene === null ? { ...shot.stage, ground: s.ground } : shot.stage;
      const output = { ...shot.output, size: [72, 48] as const, samples: 4, noise: 0 };
      const lit = { ...shot, ...s.settings, stage, output };
      const pixels = developFilm(finish(traceFrameSteps(p, lit)), { grade: lit.grade });
      expect(exposed(pixels).burnt).toBeLessThan(0.01);
      // And it is no night either.
      expect(pixels.reduce((sum, v, i) => sum + (i % 4 < 3 ? v : 0), 0) / (72 * 48 * 3)).toBeGreaterThan(25);
    },
  );
});

describe.each(
  Object.entries({ ...DEMOS, ...READY_RIGS }).flatMap(([name, build]) => {
    const p = build();
    return p.clips.map((clip) => ({ name: `${name}: ${clip.name}`, p, clip }));
  }),
)('$name', ({ p, clip }) => {
  it('closes when it loops, keeps every part out of the ground, and no standing sole slides', () => {
    if (clip.loop) expect(loopGaps(clip, p.rig)).toEqual([]);
    // A boat lies in the water, and what a hand carries is set down where it likes.
    const held = new Set(p.parts.filter((o) => o.name === 'Pole' || o.name === 'Hull').map((o) => o.id));
    for (const t of contactReport(p, clip).tracks.filter((o) => !held.has(o.part))) {
      expect(Math.min(...t.height)).toBeGreaterThan(-0.05);
      if (t.sole) expect(Math.max(...t.slide)).toBeLessThan(0.1);
    }
  });
});

describe('Tamsin', () => {
  const p = buildTamsin();
  it('has four sets of clothes over the same cubes, and a shot pictures the one it names', () => {
    expect(p.colourways.map((c) => c.name)).toEqual(['Night watch', 'Frost fair', 'Reedcutter', 'Fair queen']);
    const coat = p.palettes[0]!.swatches.find((s) => s.name === 'Resin')!;
    const pictured = (colourway: string | null): number[] => {
      const scene = traceSceneOf(p, { ...p.shots[0]!, colourway });
      return [...scene.instances[0]!.shape.surfaces.colour.slice(coat.byte * 3, coat.byte * 3 + 3)];
    };
    const linear = (hex: string): number[] => hexToLinear(hex).map(Math.fround);
    expect(pictured(null)).toEqual(linear(coat.colour));
    expect(pictured(p.colourways[0]!.id)).toEqual(linear('#2c3a6b'));
    // One that has gone is pictured in the palette's own look.
    expect(pictured('gone')).toEqual(linear(coat.colour));
    for (const way of p.colourways) expect(inColourway(p, way.id).parts).toBe(p.parts);
  });
  it('puts the satchel away in the pictures and on the screen from the moment that a swap key says', () => {
    const step = <A>(q: Project, edit: Edit<A>, args: A): Project => apply(q, edit, args, editContext('satchel', 1));
    const walk = p.clips.find((c) => c.name === 'Walk')!,
      satchel = p.parts.find((o) => o.name === 'Satchel')!;
    const mount = p.rig.mounts.find((m) => m.part === satchel.id)!,
      withSet = step(p, makeAlternateSetEdit, { mount: mount.id });
    const keyed = step(withSet, swapKeyEdit, {
      clip: walk.id,
      alternateSet: withSet.rig.alternateSets[0]!.id,
      time: 600,
      mount: null,
    });
    const shot = { ...p.shots[0]!, clip: walk.id };
    const pictured = (time: number): number => traceSceneOf(keyed, { ...shot, time }).instances.length;
    expect([pictured(300), pictured(600), pictured(900)]).toEqual([19, 18, 18]);
    expect(placeParts(shotProject(keyed, { ...shot, time: 700 })).some((o) => o.part.id === satchel.id)).toBe(false);
  });
  it('is as tall as a person beside her pole, and about as wide and deep as planned', () => {
    const { hi } = extent(p);
    expect(hi[1]! * p.metresPerUnit).toBeGreaterThan(1.6);
    expect(hi[1]! * p.metresPerUnit).toBeLessThan(2.1);
  });
  it('has both sides alike: arms and legs mirror cube for cube, but for the hand that holds the pole', () => {
    const grid = (name: string, side: string) => composite(p.parts.find((x) => x.name === name && x.side === side)!);
    for (const name of ['Upper arm', 'Thigh', 'Shin', 'Boot', 'Coat tail']) {
      const left = grid(name, 'left'),
        right = grid(name, 'right');
      expect(left.count, name).toBe(right.count);
      left.forEach((x, y, z) => expect(right.get(-1 - x, y, z) !== 0, `${name} ${x},${y},${z}`).toBe(true));
    }
  });
  it('walks in a loop that closes, each step the mirror of the other', () => {
    const walk = p.clips.find((c) => c.name === 'Walk')!;
    const joint = (bone: string, side: string, time: number) => {
      const b = p.rig.bones.find((o) => o.name === bone && o.side === side)!;
      const m = worldMatrices(p.rig, sampleClip(walk, p.rig, time)).get(b.id)!;
      return [m[12]!, m[13]!, m[14]!];
    };
    expect(clipTime(walk, walk.length)).toBe(0);
    for (const bone of ['Foot', 'Shin']) {
      joint(bone, 'left', 0).forEach((v, i) => expect(v).toBeCloseTo(joint(bone, 'left', walk.length)[i]!, 6));
      const [l, r] = [joint(bone, 'left', 0), joint(bone, 'right', walk.length / 2)];
      expect(l[1]).toBeCloseTo(r[1]!, 1);
      expect(l[2]).toBeCloseTo(r[2]!, 1);
    }
    // One foot is well before the other at contact.
    expect(Math.abs(joint('Foot', 'left', 0)[2]! - joint('Foot', 'right', 0)[2]!)).toBeGreaterThan(4);
  });
});
