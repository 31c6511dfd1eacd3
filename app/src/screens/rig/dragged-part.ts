import { ref } from 'vue';

/** The part on its way from the tray to a bone, to a mounted part, or onto the view. */
export const draggedPart = ref<string | null>(null);
