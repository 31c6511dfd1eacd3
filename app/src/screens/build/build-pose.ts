import { REST_POSE, type Pose } from '@sphalerite/core/rig';
import { type Project, showingPart } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { useSession } from '../../stores/session';
import { useAnimate } from '../animate/animate-state';

/** How the figure stands while one of its parts is worked on: at rest, or at the moment of the clip that Animate shows. */
export const useBuildPose = defineStore('build-pose', () => {
  const session = useSession();
  const anim = useAnimate();
  const wanted = ref(false);
  const on = computed(() => wanted.value && session.clip !== null);
  const pose = computed<Pose>(() => (on.value ? anim.pose : REST_POSE));
  /** The project with the part in hand there, though its slot wears another. */
  const seen = (p: Project): Project => showingPart(p, session.view.part);
  const text = computed(() => (on.value ? `at the pose of ${session.clip!.name}, frame ${Math.round((anim.time * session.clip!.fps) / 1200)}` : ''));
  return { wanted, on, pose, seen, text };
});
