import { type Box, type Extent, type Vec3, mapVec, placedExtent } from '@sphalerite/core/math';
import { type Id, type Project, must } from '@sphalerite/core/model';
import { gather, instanceExtent } from '@sphalerite/core/scene';
import { resizePartEdit, resizedBox } from '@sphalerite/core/project';
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
export function resizeAxis(axis: number, size: number): void {
  const part = useSession().part;
  if (part)
    resizePart(
      part.id,
      resizedBox(
        part.bounds,
        mapVec(part.bounds.size, (s, i) => (i === axis ? Math.round(size) : s)),
      ),
    );
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

/** A volume on the floor that stands in no other part: in the middle, else beside what is there, to the right. */
export function freeVolume(project: Project, size: Vec3): Box {
  const standing = gather(
    { ...project, parts: project.parts.map((p) => ({ ...p, hidden: false })) },
    { of: 'rig' },
  ).map(
    (i) => instanceExtent(i) ?? (i.geometry.kind === 'grid' ? placedExtent(i.matrix, i.geometry.grid.bounds) : null),
  );
  let min: Vec3 = [-(size[0] >> 1), 0, -(size[2] >> 1)];
  const inTheWay = (): Extent | null =>
    standing.find((e) => e && [0, 1, 2].every((a) => e.lo[a]! < min[a]! + size[a]! && e.hi[a]! > min[a]!)) ?? null;
  for (let e = inTheWay(); e; e = inTheWay()) min = [Math.ceil(e.hi[0]) + 1, min[1], min[2]];
  return { min, size };
}
