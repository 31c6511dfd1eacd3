import type { ToRename } from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

/** What lies over the bench: dialogs, the search for commands, the welcome, and the right-click menu. */
export const useDialogs = defineStore('dialogs', () => {
  const history = ref(false);
  /** What the history shows: its steps, or the restore points that are kept apart from it. */
  const pastOf = ref<'steps' | 'points'>('steps');
  const rename = ref(false);
  /** The record whose name is to be written anew in its tray. */
  const renaming = ref<string | null>(null);
  /** What is renamed by one rule. */
  const renameMany = shallowRef<ToRename | null>(null);
  /** What is taken from another project: anything, or its bones before all. */
  const pieces = ref<'any' | 'bones' | null>(null);
  const target = ref(false);
  const coach = ref(false);
  const search = ref(false);
  const shortcuts = ref(false);
  /** The open right-click menu: where, and the commands in it. */
  const menu = shallowRef<{ x: number; y: number; commands: readonly string[] } | null>(null);
  function openMenu(e: { clientX: number; clientY: number }, commands: readonly string[]): void {
    menu.value = { x: e.clientX, y: e.clientY, commands };
  }
  return { history, pastOf, rename, renaming, renameMany, pieces, target, coach, search, shortcuts, menu, openMenu };
});
