import type { Id } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { onOtherProject } from './project-settings';

/** What is shipped by itself: a part, a scene, or a placement with what hangs on it; null is the whole. Stage sets it too. */
export const useShipSubject = defineStore('ship subject', () => {
  const only = ref<{ readonly of: 'part' | 'scene' | 'group'; readonly id: Id } | null>(null);
  onOtherProject(() => (only.value = null));
  return { only };
});
