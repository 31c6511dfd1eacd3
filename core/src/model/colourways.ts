import { type Colourway, recoloured } from '../palette';
import type { Project } from './kinds';

const recolouredProjects = new WeakMap<Project, WeakMap<Colourway, Project>>();

/** The project as it looks in one of its colourways: the same parts and cubes, other palettes. Null is the palette's own look. */
export function inColourway(project: Project, id: string | null): Project {
  const way = id === null ? undefined : project.colourways.find((c) => c.id === id);
  if (!way) return project;
  let known = recolouredProjects.get(project);
  if (!known) recolouredProjects.set(project, (known = new WeakMap()));
  let out = known.get(way);
  if (!out) {
    const palettes = project.palettes.map((p) => recoloured(p, way));
    out = palettes.every((p, i) => p === project.palettes[i]) ? project : { ...project, palettes };
    known.set(way, out);
  }
  return out;
}
