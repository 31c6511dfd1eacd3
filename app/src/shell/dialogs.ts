import { ref, shallowRef } from 'vue';

export const historyOpen = ref(false);
export const renameOpen = ref(false);
export const coachOpen = ref(false);

/** The open right-click menu: where, and the commands in it. */
export const menu = shallowRef<{ x: number; y: number; commands: readonly string[] } | null>(null);
export function openMenu(e: { clientX: number; clientY: number }, commands: readonly string[]): void {
  menu.value = { x: e.clientX, y: e.clientY, commands };
}
