<script setup lang="ts">
import { useDialogs } from '../stores/dialogs';
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { useNotices } from '../stores/notices';
import { useSettings } from '../stores/settings';
import type { findCommands } from './find-command';
import { type Command, allCommands, isEnabled, runCommand } from '../stores/commands';

const dialogs = useDialogs();
const notices = useNotices();
const { settings } = useSettings();
const query = ref('');
const at = ref(0);
const field = ref<HTMLInputElement>();
const list = ref<HTMLElement>();

/** Fetched when it is first asked for. */
const find = shallowRef<typeof findCommands>((commands) => [...commands]);
const found = computed(() => find.value(allCommands.value, query.value, settings.recent));
/** Commands that are remembered as used of late. */
const MOST_RECENT = 12;
watch(
  () => dialogs.search,
  async (open) => {
    if (!open) return;
    void import('./find-command').then((m) => (find.value = m.findCommands));
    query.value = '';
    at.value = 0;
    await nextTick();
    field.value?.focus();
  },
);
watch(query, () => (at.value = 0));

function move(by: number): void {
  at.value = Math.max(0, Math.min(found.value.length - 1, at.value + by));
  void nextTick(() => list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' }));
}
function pick(c: Command | undefined): void {
  if (!c || !isEnabled(c)) return;
  dialogs.search = false;
  settings.recent = [c.id, ...settings.recent.filter((id) => id !== c.id)].slice(0, MOST_RECENT);
  void runCommand(c.id).catch(notices.fail);
}
</script>

<template>
  <div v-if="dialogs.search" class="veil" @mousedown.self="dialogs.search = false">
    <div
      class="search"
      role="dialog"
      aria-modal="true"
      aria-label="Find a command"
      @keydown.esc.stop="dialogs.search = false"
    >
      <input
        ref="field"
        v-model="query"
        placeholder="What would you like to do?"
        aria-label="Find a command"
        role="combobox"
        aria-expanded="true"
        aria-controls="command-list"
        @keydown.down.prevent="move(1)"
        @keydown.up.prevent="move(-1)"
        @keydown.enter.prevent="pick(found[at])"
      />
      <div id="command-list" ref="list" class="list" role="listbox" aria-label="Commands">
        <button
          v-for="(c, i) in found"
          :key="c.id"
          type="button"
          class="hit"
          :class="{ on: i === at }"
          role="option"
          :aria-selected="i === at"
          :disabled="!isEnabled(c)"
          @mousemove="at = i"
          @click="pick(c)"
        >
          <component :is="c.icon" v-if="c.icon" aria-hidden="true" /><i v-else /> <span>{{ c.title }}</span><small>{{
            c.group
          }}</small>
          <kbd v-for="k in c.keys?.slice(0, 1)" :key="k">{{ k }}</kbd>
        </button>
        <p v-if="found.length === 0" class="none">Nothing is called that. Try a shorter word.</p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  z-index: 3000;
  display: grid;
  justify-items: center;
  align-items: start;
  padding-top: 12vh;
  background: rgb(30 25 20 / 28%);
}
.search {
  width: min(560px, 92vw);
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 8px;
  box-shadow: var(--shadow);
  overflow: hidden;
}
.search input {
  width: 100%;
  height: 46px;
  padding: 0 16px;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  font-size: 15px;
  outline: none;
}
.list {
  max-height: 46vh;
  overflow: auto;
  padding: 6px;
}
.hit {
  display: grid;
  grid-template-columns: 22px 1fr auto auto;
  align-items: center;
  gap: 10px;
  width: 100%;
  padding: 6px 10px;
  border-radius: var(--radius);
  text-align: left;
}
.hit svg {
  width: 18px;
  height: 18px;
  color: var(--quiet);
  stroke-width: 1.6;
}
.hit small {
  color: var(--quiet);
}
.hit.on {
  background: var(--honey-soft);
}
.none {
  padding: 14px;
  color: var(--quiet);
}
</style>
