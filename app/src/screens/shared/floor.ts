import type { Project } from '@sphalerite/core/model';
import { heightOverFloor } from '@sphalerite/core/project';

/** Where the floor lies while something is built: under all of it, should it reach below. */
export const floorUnder = (project: Project): number => Math.min(0, heightOverFloor(project) ?? 0);
