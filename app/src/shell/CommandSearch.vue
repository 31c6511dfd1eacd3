<script setup lang="ts">
import { ElInput } from 'element-plus';
import 'element-plus/theme-chalk/el-input.css';
import { type Directive, computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue';
import ActionButton from '../components/ActionButton.vue';
import { type Command, allCommands, isEnabled, keysFor, runCommand, whyNot } from '../stores/commands';
import { useDialogs } from '../stores/dialogs';
import { useNotices } from '../stores/notices';
import { useSettings } from '../stores/settings';
import type { findCommands } from './find-command';
import DialogBox from '../components/DialogBox.vue';

const dialogs = useDialogs();
const notices = useNotices();
const { settings } = useSettings();
const query = ref('');
const at = ref(0);
const list = useTemplateRef<HTMLElement>('list');

/** The library keeps this role from its field. */
const vRole: Directive<HTMLElement, string> = {
  mounted: (el, { value }) => el.querySelector('input')?.setAttribute('role', value),
};
/** Fetched when it is first asked for; until then nothing is found, so that Enter cannot mean what happens to stand first. */
const find = shallowRef<typeof findCommands | null>(null);
const found = computed(() => find.value?.(allCommands.value, query.value, settings.recent) ?? []);
/** Commands that are remembered as used of late. */
const MOST_RECENT = 12;
watch(
  () => dialogs.search,
  async (open) => {
    if (!open) return;
    query.value = '';
    at.value = 0;
    find.value ??= (await import('./find-command')).findCommands;
  },
);
watch(query, () => (at.value = 0));

function move(by: number): void {
  at.value = Math.max(0, Math.min(found.value.length - 1, at.value + by));
  void nextTick(() => list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' }));
}
/** What was typed before all was fetched counts as well. */
async function enter(): Promise<void> {
  find.value ??= (await import('./find-command')).findCommands;
  pick(found.value[at.value]);
}
function pick(c: Command | undefined): void {
  if (!c || !isEnabled(c)) return;
  dialogs.search = false;
  settings.recent = [c.id, ...settings.recent.filter((id) => id !== c.id)].slice(0, MOST_RECENT);
  void runCommand(c.id).catch(notices.fail);
}
</script>

<template>
  <dialog-box v-model="dialogs.search" label="Find a command" width="min(560px, 92vw)" bare>
    <el-input
      v-role="'combobox'"
      v-model="query"
      class="search-field"
      placeholder="What would you like to do?"
      aria-label="Find a command"
      aria-expanded="true"
      aria-controls="command-list"
      :aria-activedescendant="found[at] ? `command-${at}` : undefined"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="enter"
    />
    <div id="command-list" ref="list" class="search-list" role="listbox" aria-label="Commands">
      <action-button
        v-for="(c, i) in found"
        :id="`command-${i}`"
        :key="c.id"
        look="row"
        class="hit"
        :class="{ on: i === at }"
        role="option"
        tabindex="-1"
        :aria-selected="i === at"
        :disabled="!isEnabled(c)"
        @mousemove="at = i"
        @click="pick(c)"
      >
        <component :is="c.icon" v-if="c.icon" aria-hidden="true" /><i v-else />
        <span class="title"
          >{{ c.title }}<small v-if="!isEnabled(c)" class="why">{{ whyNot(c) }}</small></span
        >
        <small>{{ c.group }}</small>
        <kbd v-for="k in keysFor(c).slice(0, 1)" :key="k">{{ k }}</kbd>
      </action-button>
      <p v-if="find && found.length === 0" class="none">Nothing is called that. Try a shorter word.</p>
    </div>
  </dialog-box>
</template>

<style>
.search-field.el-input {
  --el-input-height: 46px;
  --el-input-border-color: transparent;
  --el-input-hover-border-color: transparent;
  --el-input-focus-border-color: transparent;
  --el-input-bg-color: transparent;
  border-bottom: 1px solid var(--line);
  font-size: 15px;
}
.search-list {
  max-height: 46vh;
  overflow: auto;
  padding: 6px;
}
.search-list .hit.el-button > span {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) auto auto;
  gap: 10px;
}
.search-list .hit svg {
  color: var(--quiet);
}
.search-list .hit small {
  color: var(--quiet);
}
.search-list .hit .title {
  display: grid;
  white-space: normal;
}
.search-list .none {
  padding: 14px;
  color: var(--quiet);
}
</style>
