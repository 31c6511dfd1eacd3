import type { Transform } from '@sphalerite/core/math';
import { type Pose, REST_POSE } from '@sphalerite/core/rig';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

/** What the handle of the selected bone does: turns it at rest, moves its joint, or poses it for a try that nothing keeps. */
export const useRig = defineStore('rig', () => {
  const handle = ref<'turn' | 'joint' | 'try'>('turn');
  const trial = shallowRef<Pose>(REST_POSE);
  const pose = (bone: string, local: Transform): void => {
    trial.value = new Map(trial.value).set(bone, local);
  };
  /** Whether a turn, a move or a scale of the bone leaves what hangs on it where it is. */
  const alone = ref(false);
  /** Whether a joint is moved with its parts and bones, or under them. */
  const carry = ref(false);
  /** Whether clips look as before when the rest changes, or keep their numbers. */
  const keepLook = ref(false);
  /** Counts up when a study is asked for by key or menu. */
  const studies = ref(0);
  return { handle, trial, pose, alone, carry, keepLook, studies };
});
