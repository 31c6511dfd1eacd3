import { finish } from '@sphalerite/core/math';
import {
  type TraceScene,
  addTraced,
  denoiseSteps,
  developFilm,
  guided,
  makeFilm,
  partOf,
  tileAreas,
  traceArea,
  traceSceneOf,
} from '@sphalerite/core/render';
import type { Grade } from '@sphalerite/core/model';
import { expect, it } from 'vitest';
import { DEMOS } from '.';

/** Longest edge of the pictures, in pixels. */
const EDGE = 96;
/** Sums of red, green and blue bytes that a dot is brighter by. */
const BRIGHTER = 24;

/** A picture without its noise, and what the eye met at each of its pixels. */
function made(scene: TraceScene, first: number, grade: Grade) {
  const { width, height } = scene,
    film = makeFilm(width, height);
  for (const area of tileAreas(width, height)) addTraced(film, traceArea(scene, area, first, 64));
  const light = guided(finish(denoiseSteps(film, scene.camera)), film);
  const { guides } = partOf(light, { x: 0, y: 0, width, height }, true);
  const rgba = developFilm(light, { grade: { ...grade, grain: 0, bloom: 0 } });
  const at = (p: number): number => rgba[p * 4]! + rgba[p * 4 + 1]! + rgba[p * 4 + 2]!;
  return { at, guides: guides! };
}

it.each(Object.entries(DEMOS))('%s has no lone bright dots at 64 samples in any of its shots', (_name, build) => {
  const project = build();
  for (const shot of project.shots) {
    const [w, h] = shot.output.size,
      k = EDGE / Math.max(w, h);
    const scene = traceSceneOf(project, shot, [Math.round(w * k), Math.round(h * k)]);
    // Twice, by other samples: what is bright both times is no dot.
    const [one, other] = [made(scene, 0, shot.grade), made(scene, 4096, shot.grade)];
    const { albedo, normal } = one.guides,
      { width, height } = scene;
    const same = (p: number, q: number): boolean =>
      [0, 1, 2].every(
        (c) =>
          Math.abs(albedo[p * 3 + c]! - albedo[q * 3 + c]!) < 0.05 &&
          Math.abs(normal[p * 3 + c]! - normal[q * 3 + c]!) < 0.02,
      );
    const dots: string[] = [];
    for (let y = 1; y < height - 1; y++)
      for (let x = 1; x < width - 1; x++) {
        const p = y * width + x;
        const around = [-1, 0, 1].flatMap((v) => [-1, 0, 1].map((u) => p + v * width + u)).filter((q) => q !== p);
        // Details smaller than a pixel shine too: only where one surface lies all about it does it stand alone.
        if (!around.every((q) => same(p, q))) continue;
        const most = Math.max(...around.map(one.at));
        if (one.at(p) - most > BRIGHTER && one.at(p) - other.at(p) > BRIGHTER) dots.push(`${x}, ${y}: ${one.at(p)}`);
      }
    expect(dots, shot.name).toEqual([]);
  }
});
