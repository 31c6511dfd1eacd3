import { type DeliveryProfile, type Project, deliveriesOf, deliveryOf } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import * as z from 'zod';
import { projectSetting } from './project-settings';
import { useSession } from './session';

const FIRST = 'phone';

/** Which delivery a project is made ready for; figures of what ships are by it, wherever they stand. */
export const useDelivery = defineStore('delivery', () => {
  const session = useSession();
  const chosen = ref<string>(FIRST);
  const keep = projectSetting('delivery', z.string().max(64).catch(FIRST), (stored) => (chosen.value = stored));
  const profileIn = (p: Project): DeliveryProfile => deliveryOf(p, chosen.value) ?? deliveriesOf(p)[0]!;
  const profile = computed(() => (session.project ? profileIn(session.project) : null));
  function choose(id: string): void {
    chosen.value = id;
    keep(id);
  }
  return { chosen, profile, profileIn, choose };
});
