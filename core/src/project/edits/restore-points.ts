import { type Id, type Project, type RestorePoint, freeName, must, replaceRecord } from '../../model';
import { type EditContext, EditError, defineEdit } from '../edit';

/** How many of the points that are made by themselves are kept; those with a name of one's own stay. */
export const AUTO_POINTS = 20;

const without = (project: Project): Project =>
  project.restorePoints.length === 0 ? project : { ...project, restorePoints: [] };

/** The same work, whatever restore points there are. */
function sameWork(a: Project, b: Project): boolean {
  const same = (x: unknown, y: unknown): boolean =>
    x === y || (Array.isArray(x) && Array.isArray(y) && x.length === y.length && x.every((v, i) => v === y[i]));
  return (Object.keys(a) as (keyof Project)[]).every((k) => k === 'restorePoints' || same(a[k], b[k]));
}

function pointOf(of: Project, name: string, auto: boolean, ctx: EditContext): RestorePoint {
  const names = of.restorePoints.map((p) => p.name);
  return { id: ctx.newId(), name: freeName(name, names), at: ctx.now, auto, project: without(of) };
}

/** Keeps the project as it is now under a name, apart from the history. */
export const keepPointEdit = defineEdit<{ name: string }>({
  name: 'keepPoint',
  label: (a) => `Keep the restore point ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    if (!a.name.trim()) throw new EditError('restore.name');
    const point = pointOf(project, a.name.trim(), false, ctx);
    return { ...project, restorePoints: [...project.restorePoints, point] };
  },
});

export const renamePointEdit = defineEdit<{ point: Id; name: string }>({
  name: 'renamePoint',
  label: (a) => `Rename a restore point to ${a.name}`,
  touches: (a) => [a.point],
  run(project, a) {
    const point = must(project.restorePoints, a.point, 'restore point');
    if (!a.name.trim() || a.name === point.name) return project;
    const names = project.restorePoints.filter((p) => p !== point).map((p) => p.name);
    // One that bears a name of one's own is one's own.
    const next = { ...point, name: freeName(a.name.trim(), names), auto: false };
    return { ...project, restorePoints: replaceRecord(project.restorePoints, next) };
  },
});

export const deletePointsEdit = defineEdit<{ points: readonly Id[] }>({
  name: 'deletePoints',
  label: (a, p) =>
    a.points.length === 1
      ? `Delete the restore point ${must(p.restorePoints, a.points[0]!, 'restore point').name}`
      : `Delete ${a.points.length} restore points`,
  touches: (a) => a.points,
  run: (project, a) => ({
    ...project,
    restorePoints: project.restorePoints.filter((p) => !a.points.includes(p.id)),
  }),
});

/** Points that were deleted, back where their time puts them. */
export const putPointsBackEdit = defineEdit<{ points: readonly RestorePoint[] }>({
  name: 'putPointsBack',
  label: () => 'Bring restore points back',
  touches: (a) => a.points.map((p) => p.id),
  run(project, a) {
    const had = new Set(project.restorePoints.map((p) => p.id));
    const all = [...project.restorePoints, ...a.points.filter((p) => !had.has(p.id))];
    return { ...project, restorePoints: all.sort((x, y) => x.at - y.at) };
  },
});

/** The project as it was at a restore point; all points stay, and what is now becomes one. It keeps the name that it has on the shelf. */
export const goBackEdit = defineEdit<{ point: Id }>({
  name: 'goBack',
  label: (a, p) => `Go back to ${must(p.restorePoints, a.point, 'restore point').name}`,
  touches: (a) => [a.point],
  run(project, a, ctx) {
    const point = must(project.restorePoints, a.point, 'restore point');
    if (sameWork(without(project), point.project)) return project;
    const there: Project = {
      ...point.project,
      id: project.id,
      name: project.name,
      restorePoints: project.restorePoints,
    };
    return withPointBefore(project, there, `Before going back to ${point.name}`, ctx);
  },
});

/**
 * `after` with the project before as a restore point, made by itself: of such only the newest stay. Unchanged where the newest point
 * has this very work.
 */
export function withPointBefore(before: Project, after: Project, name: string, ctx: EditContext): Project {
  const last = before.restorePoints.at(-1);
  if (last && sameWork(last.project, without(before))) return after;
  const points = [...after.restorePoints, pointOf(before, name, true, ctx)];
  const autos = points.filter((p) => p.auto);
  const gone = new Set(autos.slice(0, Math.max(0, autos.length - AUTO_POINTS)));
  return { ...after, restorePoints: gone.size > 0 ? points.filter((p) => !gone.has(p)) : points };
}
