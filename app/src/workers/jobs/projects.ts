import * as projects from '@sphalerite/core/project';
import { sceneCosts } from '@sphalerite/core/mesh';
import { must } from '@sphalerite/core/model';
import {
  type Clash,
  type ContactReport,
  clashes,
  clipFrames,
  contactReport,
  gather,
  readSceneSteps,
} from '@sphalerite/core/scene';
import { giveBack } from '../background-edit';
import { drive } from './drive';
import type { Handlers } from './kinds';

/** Every edit by name, as the folder of edits exports them: a registry filled on the side would be left out of the bundle. */
const EDITS = new Map(
  Object.values(projects)
    .filter((e): e is projects.Edit<never> => typeof e === 'object' && 'run' in e && 'touches' in e)
    .map((e) => [e.name, e as projects.Edit<unknown>]),
);

/** What is worked out of a whole project. */
export const projectJobs = {
  async edit({ project, edit, args, seed, now }, ctx) {
    const known = EDITS.get(edit);
    if (!known) throw new Error(`There is no edit "${edit}".`);
    const before = ctx.bricks.openProject(project);
    const after = projects.apply(before, known, args, projects.editContext(seed, now));
    return giveBack(before, after, ctx.bricks);
  },

  async motion({ project, clips, ground }, ctx) {
    const p = ctx.bricks.openProject(project),
      out: { contact: ContactReport; clashes: readonly Clash[] }[] = [];
    for (const [i, id] of clips.entries()) {
      const clip = must(p.clips, id, 'clip'),
        frames = clipFrames(p, clip);
      out.push({ contact: contactReport(p, clip, ground, frames), clashes: clashes(p, clip, frames) });
      ctx.report((i + 1) / clips.length);
      await ctx.breathe();
    }
    return out;
  },

  async scene({ project, scene }, ctx) {
    const p = ctx.bricks.openProject(project);
    const findings = await drive(readSceneSteps(p, scene), ctx);
    return { costs: sceneCosts(must(p.scenes, scene, 'scene'), gather(p, { of: 'scene', scene })), findings };
  },

  async deliveryChecks({ project, order, figures, standing }, ctx) {
    const p = ctx.bricks.openProject(project),
      { subject, profile } = order;
    const found =
      standing ?? (await drive(projects.standingFindingsSteps(p, subject, projects.showsSurfaces(profile)), ctx));
    return {
      findings: await drive(projects.deliveryChecksSteps(p, subject, profile, figures, found), ctx),
      standing: found,
    };
  },
} satisfies Partial<Handlers>;
