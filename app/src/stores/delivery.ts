import { defineStore } from 'pinia';
import { ref } from 'vue';
import * as z from 'zod';
import { projectSetting } from './project-settings';

const FIRST = 'phone';

/** Which delivery a project is made ready for, by its id; figures of what ships are by it, wherever they stand. */
export const useDelivery = defineStore('delivery', () => {
  const chosen = ref<string>(FIRST);
  const keep = projectSetting('delivery', z.string().max(64).catch(FIRST), (stored) => (chosen.value = stored));
  function choose(id: string): void {
    chosen.value = id;
    keep(id);
  }
  return { chosen, choose };
});
