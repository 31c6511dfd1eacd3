<script setup lang="ts">
import { computed } from 'vue';
import { findCommand, isEnabled, keysFor, runCommand, whyNot } from '../stores/commands';
import { useNotices } from '../stores/notices';
import ActionButton from './ActionButton.vue';

/** A button bound to a command: its name, icon, shortcut, whether it can be done now and, if not, why. */
const props = defineProps<{
  id: string;
  label?: boolean;
  text?: string;
  bare?: boolean;
  look?: 'plain' | 'primary' | 'dark';
  args?: unknown;
}>();
const notices = useNotices();
const command = computed(() => findCommand(props.id));
const enabled = computed(() => (command.value ? isEnabled(command.value) : false));
const tip = computed(() => {
  const c = command.value;
  if (!c) return undefined;
  const why = whyNot(c);
  return why ? `${c.title}: ${why}` : c.title;
});
const run = (): void => void runCommand(props.id, props.args).catch(notices.fail);
</script>

<template>
  <action-button
    v-if="command"
    :class="{ icon: !label && !text }"
    :look="bare ? 'bare' : (look ?? 'plain')"
    :tip="tip"
    :keys="keysFor(command)[0]"
    :on="command.on?.()"
    :disabled="!enabled"
    :aria-label="command.title"
    :data-command="id"
    @click="run"
  >
    <component :is="command.icon" v-if="command.icon" aria-hidden="true" />
    <span v-if="label || text">{{ text ?? command.title }}</span>
  </action-button>
</template>
