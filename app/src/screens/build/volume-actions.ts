import { AXES, type Axis, type Box, type Extent, type Vec3, mapVec, withAxis } from '@sphalerite/core/math';
import { type Id, type Part, type Project, must } from '@sphalerite/core/model';
import { each, resizePartEdit, resizedBox, restVolumes, shiftPartEdit } from '@sphalerite/core/project';
import { MAX_EDGE } from '@sphalerite/core/voxel';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { say } from '../../words';

/** Gives a part another box; when cubes would be cut off it says how many and asks. */
export function resizePart(part: Id, bounds: Box): void {
  const session = useSession();
  const notices = useNotices();
  if (!session.project) return;
  if (bounds.size.some((s) => s < 1 || s > MAX_EDGE)) {
    notices.say(say('volume.size', { most: MAX_EDGE, size: bounds.size.join(' × ') }), {
      kind: 'error',
    });
    return;
  }
  const p = must(session.project.parts, part, 'part');
  const lost = p.layers.reduce((n, l) => n + l.grid.countOutside(bounds), 0);
  session.preview = null;
  if (lost === 0) {
    session.apply(resizePartEdit, { part, bounds });
    return;
  }
  notices.say(say('volume.wouldCut', { size: bounds.size.join(' × '), n: lost, part: p.name }), {
    kind: 'error',
    action: { label: 'Cut them off', run: () => session.apply(resizePartEdit, { part, bounds, cut: true }) },
  });
}

/** Width and depth grow on both sides, so that a symmetric part stays centred; height grows upwards. */
export function resizeAxis(axis: Axis, size: number): void {
  const part = useSession().part;
  if (part) resizePart(part.id, resizedBox(part.bounds, withAxis(part.bounds.size, axis, Math.round(size))));
}

/** All three sides times a factor. */
export function scaleVolume(k: number): void {
  const part = useSession().part;
  if (part)
    resizePart(
      part.id,
      resizedBox(
        part.bounds,
        mapVec(part.bounds.size, (s) => Math.max(1, Math.round(s * k))),
      ),
    );
}

/** Puts parts so that the low side of their volumes stands at a place along an axis of the world. */
export function standAt(parts: readonly Part[], axis: Axis, at: number): void {
  const session = useSession();
  const volumes = restVolumes(session.project!);
  session.apply(
    each(shiftPartEdit),
    parts.flatMap(({ id }) => {
      const lo = volumes.get(id)?.lo;
      return lo ? { part: id, by: withAxis([0, 0, 0], axis, at - lo[axis]) } : [];
    }),
  );
}

/** A volume on the floor that stands in the volume of no other part: in the middle, else beside what is there, to the right. */
export function freeVolume(project: Project, size: Vec3): Box {
  const standing = [...restVolumes(project).values()];
  let min: Vec3 = [-(size[0] >> 1), 0, -(size[2] >> 1)];
  const inTheWay = (): Extent | undefined =>
    standing.find((e) => AXES.every((a) => e.lo[a] < min[a] + size[a] && e.hi[a] > min[a]));
  for (let e = inTheWay(); e; e = inTheWay()) min = [Math.ceil(e.hi[0]) + 1, min[1], min[2]];
  return { min, size };
}
