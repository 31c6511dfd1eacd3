import type { Steps } from '../math';
import type { Project, Shot } from '../model';
import {
  type FilmLight,
  addTraced,
  denoiseSteps,
  developSteps,
  guided,
  lightOf,
  makeFilm,
  tileAreas,
  traceArea,
  traceSceneOf,
} from '../render';

/** Traces one picture of a shot whole. @param groundAlone – only the ground with the shadows on it is seen */
export function* traceFrameSteps(project: Project, shot: Shot, groundAlone = false): Steps<FilmLight> {
  const { size, samples, denoise } = shot.output;
  const scene = traceSceneOf(project, shot, size, groundAlone);
  const film = makeFilm(...size);
  const areas = tileAreas(...size);
  for (const [i, area] of areas.entries()) {
    addTraced(film, traceArea(scene, area, 0, samples));
    yield (0.9 * (i + 1)) / areas.length;
  }
  return guided(denoise ? yield* denoiseSteps(film, scene.camera) : lightOf(film), film);
}

/** The same, developed: red, green, blue, alpha. */
export function* pictureSteps(project: Project, shot: Shot, groundAlone = false): Steps<Uint8Array<ArrayBuffer>> {
  const light = yield* traceFrameSteps(project, shot, groundAlone);
  return yield* developSteps(light, { grade: shot.grade, transparent: shot.output.transparent });
}
