import { describe, expect, it } from 'vitest';
import { idsFrom, makeCamera, makeGrade, makeProject, makeStage, type Project } from '../model';
import { hexToLinear } from '../palette';
import { addBoneEdit, apply, editContext, mountPartEdit, strokeEdit } from '../project';
import { boxStroke } from '../sculpt';
import {
  type Area,
  PART_THUMBNAIL,
  TILE,
  type Traced,
  addTraced,
  developFilm,
  isExposed,
  lightOf,
  makeFilm,
  makeTraced,
  partThumbnail,
  projectThumbnail,
  tileAreas,
  traceArea,
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

/** Samples of a tile in which every pixel has this light. */
const exposed = (area: Area, samples: number, light: readonly [number, number, number]): Traced => {
  const traced = makeTraced(area, samples);
  traced.light.forEach((_, i) => (traced.light[i] = light[i % 3]! * samples));
  return traced;
};
const plain = { grade: makeGrade({}) };
const one = { x: 0, y: 0, width: 1, height: 1 };

describe('film', () => {
  it('averages what each tile has, so tiles may be ahead of others', () => {
    const film = makeFilm(TILE + 1, 1);
    const left = { x: 0, y: 0, width: TILE, height: 1 },
      right = { ...one, x: TILE };
    addTraced(film, exposed(left, 3, [0.5, 0.25, 0]));
    addTraced(film, exposed(left, 1, [0.5, 0.25, 0]));
    addTraced(film, exposed(right, 1, [0.5, 0.25, 0]));
    expect(film.tiles.map((t) => t!.samples)).toEqual([4, 1]);
    const px = developFilm(film, plain);
    expect([...px.slice(0, 4)]).toEqual([...px.slice(-4)]);
    // 0.5 of linear light is 188 in sRGB.
    expect([px[0], px[2]]).toEqual([188, 0]);
    expect(() => addTraced(film, exposed(one, 1, [1, 1, 1]))).toThrow(RangeError);
    expect(() => addTraced(film, exposed({ ...one, x: 9 }, 1, [1, 1, 1]))).toThrow(RangeError);
  });
  it('a stop doubles the light, and bright light rolls off below white instead of clipping at once', () => {
    const film = makeFilm(1, 1);
    addTraced(film, exposed(one, 1, [0.25, 0.9, 50]));
    expect(developFilm(film, { grade: makeGrade({ exposure: 1 }) })[0]).toBe(188);
    const [, bright, blown] = developFilm(film, plain);
    expect(bright).toBeGreaterThan(225);
    expect(bright).toBeLessThan(250);
    expect(blown).toBe(255);
    expect([...developFilm(makeFilm(1, 1), plain)]).toEqual([0, 0, 0, 255]);
    expect([isExposed(film), isExposed(makeFilm(1, 1))]).toEqual([true, false]);
  });
  it('is cut into tiles that cover it once, the middle first; a quick look takes every n-th pixel across them', () => {
    const [width, height] = [TILE * 2 + 5, TILE + 3];
    const areas = tileAreas(width, height);
    expect(areas.reduce((n, a) => n + a.width * a.height, 0)).toBe(width * height);
    expect(areas[0]).toMatchObject({ x: TILE, y: 0 });
    const film = makeFilm(width, height);
    for (const a of areas) {
      const traced = makeTraced(a, 1);
      for (let y = 0; y < a.height; y++)
        for (let x = 0; x < a.width; x++) traced.light[(y * a.width + x) * 3] = ((a.x + x) * 7 + (a.y + y) * 3) / 2000;
      addTraced(film, traced);
    }
    const whole = developFilm(film, plain);
    for (const n of [2, 3]) {
      const quick = developFilm(lightOf(film), { ...plain, step: n });
      const [w, h] = [Math.ceil(width / n), Math.ceil(height / n)];
      expect(quick).toHaveLength(w * h * 4);
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++) expect(quick[(y * w + x) * 4]).toBe(whole[(y * n * width + x * n) * 4]);
    }
  });
  it('says what the eye met first: colour, normal, distance and whether anything', () => {
    const p = lamp();
    const shot = { ...p.shots[0]!, stage: makeStage({ ground: { kind: 'none', colour: '#000000' } }) };
    // Straight from the front, six cubes wide: the lamp's face lies at z = 3.
    const camera = makeCamera({ kind: 'orthographic', eye: [0, 8, 53], target: [0, 8, 0], height: 24 });
    const scene = traceSceneOf(p, { ...shot, camera }, [24, 24]);
    const t = traceArea(scene, { x: 0, y: 0, width: 24, height: 24 }, 0, 4);
    const at = (x: number, y: number) => {
      const i = y * 24 + x;
      const three = (a: Float32Array): number[] => [...a.slice(i * 3, i * 3 + 3)].map((v) => v / 4);
      return { cover: t.cover[i]! / 4, albedo: three(t.albedo), normal: three(t.normal), depth: t.depth[i]! / 4 };
    };
    const swatch = p.palettes[0]!.swatches.find((s) => s.byte === 9)!;
    expect(at(12, 12)).toMatchObject({ cover: 1, normal: [0, 0, 1] });
    expect(at(12, 12).depth).toBeCloseTo(50, 4);
    at(12, 12).albedo.forEach((v, c) => expect(v).toBeCloseTo(hexToLinear(swatch.colour)[c]!, 5));
    expect(at(1, 1)).toEqual({ cover: 0, albedo: [0, 0, 0], normal: [0, 0, 0], depth: 0 });
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
    expect(scene.floor!.y).toBe(-3);
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
    expect(px).toHaveLength(PART_THUMBNAIL * PART_THUMBNAIL * 4);
    const clear = (x: number, y: number) => px[(y * PART_THUMBNAIL + x) * 4 + 3] === 0;
    expect(clear(1, 1)).toBe(true);
    expect(clear(PART_THUMBNAIL / 2, PART_THUMBNAIL / 2)).toBe(false);
    const rows = Array.from({ length: PART_THUMBNAIL }, (_, y) => y).filter(
      (y) => !Array.from({ length: PART_THUMBNAIL }, (_, x) => clear(x, y)).every(Boolean),
    );
    expect(rows.length).toBeGreaterThan(PART_THUMBNAIL * 0.85);
  });
  it('of nothing are wholly clear, and the same twice', () => {
    const empty = makeProject('e', 'Empty', idsFrom('e'));
    expect(projectThumbnail(empty, 32).every((v) => v === 0)).toBe(true);
    expect(projectThumbnail(p, 48)).toEqual(projectThumbnail(p, 48));
  });
});
