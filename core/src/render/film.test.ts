import { describe, expect, it } from 'vitest';
import { idsFrom, makeProject, type Project } from '../model';
import { addBoneEdit, apply, editContext, mountPartEdit, strokeEdit } from '../project';
import { boxStroke } from '../sculpt';
import {
  THUMBNAIL,
  addStrip,
  developFilm,
  makeFilm,
  partThumbnail,
  projectThumbnail,
  traceCamera,
  traceSceneOf,
} from '.';

function lamp(): Project {
  const p = makeProject('p', 'Lamp', idsFrom('lamp'), 'prop', [12, 20, 12]);
  return apply(
    p,
    strokeEdit,
    {
      part: p.parts[0]!.id,
      layer: p.parts[0]!.layers[0]!.id,
      stroke: boxStroke('add', 9, [{ min: [-3, 2, -3], size: [6, 12, 6] }]),
    },
    editContext('film'),
  );
}

describe('film', () => {
  it('averages what each row has, so rows may be ahead of others', () => {
    const film = makeFilm(1, 2);
    addStrip(film, { y: 0, rows: 1, samples: 4, sum: Float32Array.from([2, 1, 0, 4]) });
    addStrip(film, { y: 1, rows: 1, samples: 1, sum: Float32Array.from([0.5, 0.25, 0, 1]) });
    const px = developFilm(film);
    expect([...px.slice(0, 4)]).toEqual([...px.slice(4, 8)]);
    // 0.5 of linear light is 188 in sRGB.
    expect(px[0]).toBe(188);
    expect(px[2]).toBe(0);
  });
  it('a stop doubles the light, and bright light rolls off below white instead of clipping at once', () => {
    const film = makeFilm(1, 1);
    addStrip(film, { y: 0, rows: 1, samples: 1, sum: Float32Array.from([0.25, 0.9, 50, 1]) });
    expect(developFilm(film, 1)[0]).toBe(188);
    const [, bright, blown] = developFilm(film);
    expect(bright).toBeGreaterThan(225);
    expect(bright).toBeLessThan(250);
    expect(blown).toBe(255);
    expect([...developFilm(makeFilm(1, 1))]).toEqual([0, 0, 0, 255]);
  });
  it('a quick look takes every n-th pixel', () => {
    const film = makeFilm(5, 3);
    film.sum.forEach((_, i) => (film.sum[i] = i % 4 === 0 ? (i / 4) * 0.02 : 0));
    film.samples.fill(1);
    const whole = developFilm(film),
      quick = developFilm(film, 0, 2);
    expect(quick).toHaveLength(3 * 2 * 4);
    expect([0, 4, 8, 12].map((i) => quick[i])).toEqual([0, 2, 4, 10].map((i) => whole[i * 4]));
  });
});

describe('camera', () => {
  it('spans the field of view upright, and as much more across as the picture is wide', () => {
    const c = traceCamera({ kind: 'perspective', eye: [0, 0, 10], target: [0, 0, 0], fov: 90, height: 1 }, 200, 100);
    expect(c.up.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 1, 0]);
    expect(Math.hypot(...c.right)).toBeCloseTo(2, 9);
    const flat = traceCamera(
      { kind: 'orthographic', eye: [0, 10, 0], target: [0, 0, 0], fov: 90, height: 8 },
      100,
      100,
    );
    expect(Math.hypot(...flat.up)).toBeCloseTo(4, 9);
    expect(flat.ahead).toEqual([0, -1, 0]);
  });
});

describe('scene of a shot', () => {
  it('lays the floor under the lowest cube at rest, and carries the clip’s pose', () => {
    let p = lamp();
    p = apply(p, addBoneEdit, { name: 'Root', parent: null, t: [0, -5, 0] }, editContext('bone'));
    p = apply(p, mountPartEdit, { part: p.parts[0]!.id, bone: p.rig.bones[0]!.id }, editContext('mount'));
    const scene = traceSceneOf(p, p.shots[0]!);
    expect(scene.light.groundY).toBe(-3);
    expect(scene.instances).toHaveLength(1);
    expect(
      traceSceneOf({ ...p, parts: p.parts.map((x) => ({ ...x, hidden: true })) }, p.shots[0]!).instances,
    ).toHaveLength(0);
  });
});

describe('thumbnails', () => {
  const p = lamp();
  it('fill the frame and leave the rest clear', () => {
    const px = partThumbnail(p, p.parts[0]!);
    expect(px).toHaveLength(THUMBNAIL * THUMBNAIL * 4);
    const clear = (x: number, y: number) => px[(y * THUMBNAIL + x) * 4 + 3] === 0;
    expect(clear(1, 1)).toBe(true);
    expect(clear(THUMBNAIL / 2, THUMBNAIL / 2)).toBe(false);
    const rows = Array.from({ length: THUMBNAIL }, (_, y) => y).filter(
      (y) => !Array.from({ length: THUMBNAIL }, (_, x) => clear(x, y)).every(Boolean),
    );
    expect(rows.length).toBeGreaterThan(THUMBNAIL * 0.85);
  });
  it('of nothing are wholly clear, and the same twice', () => {
    const empty = makeProject('e', 'Empty', idsFrom('e'));
    expect(projectThumbnail(empty, 32).every((v) => v === 0)).toBe(true);
    expect(projectThumbnail(p, 48)).toEqual(projectThumbnail(p, 48));
  });
});
