import { type Mat4, MAT4_IDENTITY } from '@sphalerite/core/math';
import { gatherRig } from '@sphalerite/core/scene';
import { computed } from 'vue';
import { useSession } from '../../stores/session';
import { useInPlace } from '../../stores/in-place';
import { looseMatrix } from './loose-part';
import { useBuildPose } from './build-pose';

/** Where the part on the bench stands in the world, hidden or not. */
export function usePartMatrix() {
  const session = useSession();
  const posed = useBuildPose();
  const inPlace = useInPlace();
  return computed<Mat4>(() => {
    if (inPlace.matrix) return inPlace.matrix;
    const p = session.project,
      part = session.part;
    if (!p || !part) return MAT4_IDENTITY;
    return (
      gatherRig(posed.seen({ ...p, parts: p.parts.map((o) => (o.id === part.id ? { ...o, hidden: false } : o)) }), {
        pose: posed.pose,
      }).find((i) => i.source.part === part.id)?.matrix ?? looseMatrix(part)
    );
  });
}
