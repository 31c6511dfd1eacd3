import { ref } from 'vue';

export const historyOpen = ref(false);
export const renameOpen = ref(false);
export const coachOpen = ref(false);
