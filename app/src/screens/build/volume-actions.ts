import { type Box, mapVec } from '@sphalerite/core/math';
import { type Id, must } from '@sphalerite/core/model';
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
