import { encodePng } from '@sphalerite/core/files';
import { must } from '@sphalerite/core/model';
import {
  THUMBNAIL,
  partThumbnailSteps,
  projectThumbnailSteps,
  traceSceneOf,
  tileAreas,
  traceArea,
  denoiseSteps,
  developSteps,
  exposed,
} from '@sphalerite/core/render';
import { pictureSteps } from '@sphalerite/core/takes';
import { drive } from './drive';
import type { Handlers } from './kinds';

/** Pictures of parts, projects and shots. */
export const pictureJobs = {
  async trace({ project, shot, size, lane, lanes }, ctx) {
    const scene = traceSceneOf(ctx.bricks.openProject(project), shot, size);
    const mine = tileAreas(scene.width, scene.height).filter((_, i) => i % lanes === lane);
    let done = 0;
    for (let sample = 0; sample < shot.output.samples;) {
      // The first passes are thin, so that a picture stands early; later ones carry more at a time.
      const samples = Math.min(shot.output.samples - sample, sample < 4 ? 1 : 4);
      for (const area of mine) {
        const traced = traceArea(scene, area, sample, samples);
        done += samples;
        ctx.report(done / (mine.length * shot.output.samples), traced);
        await ctx.breathe();
      }
      sample += samples;
    }
    return null;
  },

  async frame({ project, shot, groundAlone }, ctx) {
    const [width, height] = shot.output.size;
    const rgba = await drive(pictureSteps(ctx.bricks.openProject(project), shot, groundAlone), ctx);
    return encodePng(width, height, rgba) as Uint8Array<ArrayBuffer>;
  },

  async develop({ film, ...how }, ctx) {
    const pixels = await drive(developSteps(film, how), ctx);
    return { pixels, exposed: exposed(pixels) };
  },

  denoise: ({ film, camera }, ctx) => drive(denoiseSteps(film, camera), ctx),

  async thumbnail({ project, part }, ctx) {
    const p = ctx.bricks.openProject(project);
    const steps = part === null ? projectThumbnailSteps(p) : partThumbnailSteps(p, must(p.parts, part, 'part'));
    return encodePng(THUMBNAIL, THUMBNAIL, await drive(steps, ctx)) as Uint8Array<ArrayBuffer>;
  },
} satisfies Partial<Handlers>;
