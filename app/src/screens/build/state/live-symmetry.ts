import { type Axis, type Vec3, mapVec } from '@sphalerite/core/math';
import type { Id } from '@sphalerite/core/model';
import type { MirrorPlanes, Radial, Symmetry } from '@sphalerite/core/sculpt';
import { middlePlane } from '@sphalerite/core/voxel';
import { computed, ref, shallowRef } from 'vue';
import { onOtherProject } from '../../../stores/project-settings';
import { useSession } from '../../../stores/session';
import { onOtherCubes } from './finer-lattice';

/** Mirror planes and the ring that strokes are repeated by. */
export function useLiveSymmetry() {
  const session = useSession();
  const mirrorOn = ref<[boolean, boolean, boolean]>([false, false, false]);
  /** Where a part's mirror planes stand; they keep their numbers when the volume changes. */
  const planes = shallowRef<Readonly<Record<Id, Vec3>>>({});
  const radialOn = ref(false);
  const radialAxis = ref<Axis>(1);
  const radialCount = ref(8);
  onOtherProject(() => {
    mirrorOn.value = [false, false, false];
    planes.value = {};
    radialOn.value = false;
  });
  onOtherCubes((part, by) => {
    const at = planes.value[part];
    if (at) planes.value = { ...planes.value, [part]: mapVec(at, (v) => Math.round(v * by)) };
  });
  const middles = computed<Vec3>(() => {
    const part = session.part;
    if (!part) return [0, 0, 0];
    const { min, size } = part.bounds;
    return planes.value[part.id] ?? mapVec(min, (m, i) => middlePlane(m, size[i]!));
  });
  /** Live planes in half cubes. */
  const mirror = computed<MirrorPlanes>(() => {
    const at = (a: Axis): number | null => (mirrorOn.value[a] && session.part ? middles.value[a] : null);
    return [at(0), at(1), at(2)];
  });
  const radial = computed<Radial | null>(() => {
    if (!radialOn.value || !session.part) return null;
    const axis = radialAxis.value;
    const centre = [middles.value[((axis + 1) % 3) as Axis], middles.value[((axis + 2) % 3) as Axis]] as const;
    return { axis, count: radialCount.value, centre };
  });
  const symmetry = computed<Symmetry>(() => ({ mirror: mirror.value, radial: radial.value }));

  function movePlane(axis: Axis, half: number): void {
    const id = session.part?.id;
    if (id) planes.value = { ...planes.value, [id]: mapVec(middles.value, (h, i) => (i === axis ? half : h)) };
  }
  function toggleMirror(axis: Axis): void {
    // The plane stays where it was first switched on, whatever becomes of the volume.
    movePlane(axis, middles.value[axis]);
    const [x, y, z] = mirrorOn.value;
    mirrorOn.value = [x !== (axis === 0), y !== (axis === 1), z !== (axis === 2)];
  }
  return {
    mirrorOn,
    planes,
    radialOn,
    radialAxis,
    radialCount,
    middles,
    mirror,
    radial,
    symmetry,
    movePlane,
    toggleMirror,
  };
}
