import { type Clip, type Id, type Placement, type Project, find } from '../model';

/** The clip that a placement plays; null where it stands still. */
function clipOf(project: Project, { shows }: Placement): Clip | null {
  if (shows.kind === 'rig') return find(project.clips, shows.clip) ?? null;
  if (shows.kind !== 'asset') return null;
  return find(find(project.assets, shows.asset)?.project.clips ?? [], shows.clip) ?? null;
}

/** How long the longest clip that plays in a scene is, in ticks; 0 where nothing moves. */
export function sceneLength(project: Project, scene: Id): number {
  const placements = find(project.scenes, scene)?.placements.flat() ?? [];
  return placements.reduce((most, p) => Math.max(most, clipOf(project, p)?.length ?? 0), 0);
}

/** The project with all clips that play in a scene gone on by so many ticks. */
export function movedScene(project: Project, scene: Id, ticks: number): Project {
  if (ticks === 0) return project;
  const moved = (p: Placement): Placement => {
    const { shows } = p;
    if ((shows.kind !== 'rig' && shows.kind !== 'asset') || shows.clip === null) return p;
    return { ...p, shows: { ...shows, time: shows.time + ticks } };
  };
  return {
    ...project,
    scenes: project.scenes.map((s) =>
      s.id === scene ? { ...s, placements: s.placements.map((group) => group.map(moved)) } : s,
    ),
  };
}
