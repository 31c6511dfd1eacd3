import { defineStore } from 'pinia';
import { ref } from 'vue';

/** What the handle of the selected bone does. */
export const useRig = defineStore('rig', () => ({ handle: ref<'turn' | 'joint'>('turn') }));
