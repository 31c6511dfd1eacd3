<script setup lang="ts">
import { onClickOutside } from '@vueuse/core';
import { computed, nextTick, ref, watch } from 'vue';
import { useNotices } from '../stores/notices';
import { type Command, findCommand, isEnabled, runCommand } from '../stores/commands';
import { useDialogs } from '../stores/dialogs';

const dialogs = useDialogs();
const notices = useNotices();
const list = ref<HTMLElement>();
const items = computed(() =>
  (dialogs.menu?.commands ?? []).map(findCommand).filter((c): c is Command => c !== undefined),
);
const place = computed(() => ({
  left: `${Math.min(dialogs.menu?.x ?? 0, innerWidth - 270)}px`,
  top: `${Math.min(dialogs.menu?.y ?? 0, innerHeight - items.value.length * 30 - 16)}px`,
}));
onClickOutside(list, () => (dialogs.menu = null));
watch(
  () => dialogs.menu,
  async (m) => {
    if (!m) return;
    await nextTick();
    list.value?.querySelector('button')?.focus();
  },
  { immediate: true },
);
function pick(c: Command): void {
  dialogs.menu = null;
  void runCommand(c.id).catch(notices.fail);
}
function walk(e: KeyboardEvent): void {
  const all = [...list.value!.querySelectorAll('button')];
  const next =
    all[
      (all.indexOf(document.activeElement as HTMLButtonElement) + (e.key === 'ArrowDown' ? 1 : all.length - 1)) %
        all.length
    ];
  next?.focus();
}
</script>

<template>
  <div
    v-if="dialogs.menu && items.length > 0"
    ref="list"
    class="menu"
    role="menu"
    :style="place"
    @keydown.esc.stop="dialogs.menu = null"
    @keydown.down.prevent.stop="walk"
    @keydown.up.prevent.stop="walk"
    @contextmenu.prevent
  >
    <button v-for="c in items" :key="c.id" type="button" role="menuitem" :disabled="!isEnabled(c)" @click="pick(c)">
      <span>{{ c.title }}</span><kbd v-if="c.keys">{{ c.keys[0] }}</kbd>
    </button>
  </div>
</template>

<style scoped>
.menu {
  position: fixed;
  z-index: 3500;
  display: grid;
  min-width: 200px;
  padding: 5px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 8px;
  box-shadow: var(--shadow);
}
button {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  align-items: center;
  min-height: 29px;
  padding: 0 10px;
  border-radius: 4px;
  text-align: left;
}
button:hover:not(:disabled),
button:focus-visible {
  background: var(--honey-soft);
  outline: none;
}
</style>
