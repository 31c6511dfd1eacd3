import { type Pose, REST_POSE } from '@sphalerite/core/rig';
import { type Project, showingPart, TICKS } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { useSession } from '../../stores/session';
import type { useAnimate } from '../animate/animate-state';

/** How the figure stands while one of its parts is worked on: at rest, or at the moment of the clip that Animate shows. */
export const useBuildPose = defineStore('build-pose', () => {
  const session = useSession();
  /** Fetched when it is first asked for: most parts are built at rest. */
  const anim = shallowRef<ReturnType<typeof useAnimate> | null>(null);
  const wanted = ref(false);
  async function toggle(): Promise<void> {
    anim.value ??= (await import('../animate/animate-state')).useAnimate();
    wanted.value = !wanted.value;
  }
  const on = computed(() => wanted.value && session.clip !== null && anim.value !== null);
  const pose = computed<Pose>(() => (on.value ? anim.value!.pose : REST_POSE));
  /** The project with the part in hand there, though its set of alternates wears another. */
  const seen = (p: Project): Project => showingPart(p, session.hand.part);
  const text = computed(() =>
    on.value
      ? `at the pose of ${session.clip!.name}, frame ${Math.round((anim.value!.time * session.clip!.fps) / TICKS)}`
      : '',
  );
  return { wanted, on, pose, seen, text, toggle };
});
