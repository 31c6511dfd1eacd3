import { type Mat4, type Vec3, invertMat, mapVec, transformPoint } from '@sphalerite/core/math';
import type { Id, Part } from '@sphalerite/core/model';
import { each, setPivotEdit } from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { useSession } from '../../../stores/session';
import type { Snap } from '../../shared/joint-snap';

/** How pivots are moved in Build. */
export const usePivot = defineStore('pivot', () => {
  const session = useSession();
  /** What a pivot dragged by its dot comes to rest on. */
  const snap = ref<Snap>('any');
  /** Whether the joints that a pivot stands on go along with it. */
  const joint = ref(true);
  type Move = { readonly part: Id; readonly pivot: Vec3 };
  const args = (to: readonly Move[]): (Move & { joint: boolean })[] => to.map((m) => ({ ...m, joint: joint.value }));
  return {
    snap,
    joint,
    /** Moves pivots, in half cubes; not `done` it only shows what that gives. */
    move(to: readonly Move[], done: boolean): void {
      if (done) session.apply(each(setPivotEdit), args(to));
      else session.preview = session.tryEdit(each(setPivotEdit), args(to), true);
    },
  };
});

/** Whether a part is mounted right on a joint, which its pivot can take along. */
export function standsOnJoint(part: Part): boolean {
  const mounts = useSession().project?.rig.mounts ?? [];
  return mounts.some((m) => m.part === part.id && m.bone !== null && m.t.every((v) => v === 0));
}

/** The half cube of a part's lattice that is nearest to a point of the world. */
export const halfAt = (matrix: Mat4, at: Vec3): Vec3 =>
  mapVec(transformPoint(invertMat(matrix), at), (v) => Math.round(2 * v));
