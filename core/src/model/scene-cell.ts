import type { Id } from './ids';
import type { Project } from './kinds';
import { lookUp } from './records';

/** The edge of most cubes that stand in a scene, in project units; of the first part where nothing stands yet. */
export function cellOfScene(project: Project, scene: Id | null): number {
  const votes = new Map<number, number>();
  for (const group of project.scenes.find((s) => s.id === scene)?.placements ?? [])
    for (const { shows } of group) {
      const part = shows.kind === 'part' ? lookUp(project.parts, shows.part) : undefined;
      if (part) votes.set(part.cell, (votes.get(part.cell) ?? 0) + 1);
    }
  const most = [...votes].sort((a, b) => b[1] - a[1])[0];
  return most?.[0] ?? project.parts[0]?.cell ?? 1;
}
