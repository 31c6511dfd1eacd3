import { encodePng } from '@sphalerite/core/files';
import { must } from '@sphalerite/core/model';
import {
  PART_THUMBNAIL,
  THUMBNAIL,
  partThumbnailSteps,
  projectThumbnailSteps,
  traceSceneOf,
  traceTiles,
  denoiseSteps,
  backed,
  developSteps,
  exposed,
} from '@sphalerite/core/render';
import { pictureSteps } from '@sphalerite/core/takes';
import { drive } from './drive';
import type { Handlers } from './kinds';

/** Pictures of parts, projects and shots. */
export const pictureJobs = {
  async trace({ project, shot, size, ...how }, ctx) {
    const scene = traceSceneOf(ctx.bricks.openProject(project), shot, size);
    const { samples, noise } = shot.output;
    for (const { traced, share } of traceTiles(scene, { ...how, samples, noise })) {
      ctx.report(share, traced);
      await ctx.breathe();
    }
    return null;
  },

  async frame({ project, shot, groundAlone }, ctx) {
    const [width, height] = shot.output.size;
    const rgba = await drive(pictureSteps(ctx.bricks.openProject(project), shot, groundAlone), ctx);
    return encodePng(width, height, rgba) as Uint8Array<ArrayBuffer>;
  },

  async drawnFrame({ project, shot, film }, ctx) {
    const scene = traceSceneOf(ctx.bricks.openProject(project), shot, [film.width, film.height]);
    const how = { grade: shot.grade, transparent: shot.output.transparent };
    const rgba = await drive(developSteps(backed(film, scene), how), ctx);
    return encodePng(film.width, film.height, rgba) as Uint8Array<ArrayBuffer>;
  },

  drawnFilm: ({ project, shot, film }, ctx) =>
    Promise.resolve(backed(film, traceSceneOf(ctx.bricks.openProject(project), shot, [film.width, film.height]))),

  async develop({ film, ...how }, ctx) {
    const pixels = await drive(developSteps(film, how), ctx);
    return { pixels, exposed: exposed(pixels) };
  },

  denoise: ({ film, camera, part }, ctx) => drive(denoiseSteps(film, camera, part), ctx),

  async thumbnail({ project, part }, ctx) {
    const p = ctx.bricks.openProject(project);
    const [edge, steps] =
      part === null
        ? [THUMBNAIL, projectThumbnailSteps(p)]
        : [PART_THUMBNAIL, partThumbnailSteps(p, must(p.parts, part, 'part'))];
    return encodePng(edge, edge, await drive(steps, ctx)) as Uint8Array<ArrayBuffer>;
  },
} satisfies Partial<Handlers>;
