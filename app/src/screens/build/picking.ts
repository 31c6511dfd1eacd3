import { type Mat4, MAT4_IDENTITY } from '@sphalerite/core/math';
import { REST_POSE, placeParts } from '@sphalerite/core/rig';
import { computed } from 'vue';
import { useSession } from '../../stores/session';

/** Where the part on the bench stands in the world, hidden or not, at rest. */
export function usePartMatrix() {
  const session = useSession();
  return computed<Mat4>(() => {
    const p = session.project, part = session.part;
    if (!p || !part) return MAT4_IDENTITY;
    return placeParts({ ...p, parts: p.parts.map((o) => (o.id === part.id ? { ...o, hidden: false } : o)) }, REST_POSE).find((o) => o.part.id === part.id)?.matrix ?? MAT4_IDENTITY;
  });
}
