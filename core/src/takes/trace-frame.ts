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
  traceSceneOf,
  traceTiles,
} from '../render';

/** Traces one picture of a shot whole. @param groundAlone – only the ground with the shadows on it is seen */
export function* traceFrameSteps(project: Project, shot: Shot, groundAlone = false): Steps<FilmLight> {
  const { size, samples, noise, denoise } = shot.output;
  const scene = traceSceneOf(project, shot, size, groundAlone);
  const film = makeFilm(...size);
  for (const { traced, share } of traceTiles(scene, { samples, noise, lane: 0, lanes: 1 })) {
    addTraced(film, traced);
    yield 0.9 * share;
  }
  return guided(denoise ? yield* denoiseSteps(film, scene.camera) : lightOf(film), film);
}

/** The same, developed: red, green, blue, alpha. */
export function* pictureSteps(project: Project, shot: Shot, groundAlone = false): Steps<Uint8Array<ArrayBuffer>> {
  const light = yield* traceFrameSteps(project, shot, groundAlone);
  return yield* developSteps(light, { grade: shot.grade, transparent: shot.output.transparent });
}
