import type { Mat4, Transform, Vec3 } from '@sphalerite/core/math';
import { type Pose, REST_POSE } from '@sphalerite/core/rig';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { onOtherProject } from '../../stores/project-settings';
import type { Snap } from '../shared/joint-snap';

/** What the handle of the selected bone does: turns it at rest, moves its joint, scales it, or poses it for a try that nothing keeps. */
export const useRig = defineStore('rig', () => {
  const handle = ref<'turn' | 'joint' | 'scale' | 'try'>('turn');
  /** Whether the gizmo is on the bone in hand, or on how the part in hand is mounted. */
  const of = ref<'bone' | 'part'>('bone');
  const trial = shallowRef<Pose>(REST_POSE);
  /** The trial as it was when the hand went down, so that a drag can be let go. */
  const held = shallowRef<Pose>(REST_POSE);
  const endTry = (): void => void (trial.value = held.value = REST_POSE);
  const pose = (bone: string, local: Transform): void => {
    trial.value = new Map(trial.value).set(bone, local);
  };
  /** Whether a turn, a move or a scale of the bone leaves what hangs on it where it is. */
  const alone = ref(false);
  /** Whether a joint is moved with its parts and bones, or under them. */
  const carry = ref(false);
  /** Whether clips look as before when the rest changes, or keep their numbers. */
  const keepLook = ref(false);
  /** What the arrows of a joint move by, in cubes; 0 for any length. */
  const step = ref<0.5 | 1 | 0>(0.5);
  /** What a joint dragged by its dot comes to rest on. */
  const snap = ref<Snap>('any');
  /** Whether clicks in the view set new bones, each below the last. */
  const extruding = ref(false);
  /** A joint swung for its study: the pose, and where light comes through, in a lattice. */
  const swung = shallowRef<{ readonly pose: Pose; readonly matrix: Mat4; readonly open: readonly Vec3[] } | null>(null);
  /** What the next bone that is set by a click is called: as typed, or as proposed for the place under the pointer. */
  const nextName = ref('');
  const proposed = ref('');
  onOtherProject(() => {
    endTry();
    handle.value = 'turn';
    of.value = 'bone';
    swung.value = null;
  });
  const dialog = ref<'keep' | 'unseal' | 'ring' | 'limb' | 'duplicate' | null>(null);
  /** Counts up when a study is asked for by key or menu. */
  const studies = ref(0);
  return {
    handle,
    of,
    trial,
    held,
    endTry,
    pose,
    alone,
    carry,
    keepLook,
    step,
    snap,
    extruding,
    nextName,
    proposed,
    swung,
    dialog,
    studies,
  };
});
