<script setup lang="ts">
import { computed } from 'vue';
import { findCommand, isEnabled, runCommand } from '../stores/commands';
import { useNotices } from '../stores/notices';

const props = defineProps<{ id: string; label?: boolean; text?: string; bare?: boolean; args?: unknown }>();
const notices = useNotices();
const command = computed(() => findCommand(props.id));
const tip = computed(() =>
  command.value ? command.value.title + (command.value.keys?.[0] ? `  ·  ${command.value.keys[0]}` : '') : '',
);
const enabled = computed(() => (command.value ? isEnabled(command.value) : false));
const on = computed(() => command.value?.on?.());
const run = (): void => void runCommand(props.id, props.args).catch(notices.fail);
</script>

<template>
  <button
    v-if="command"
    type="button"
    :title="tip"
    :class="bare ? 'bare' : ['btn', { icon: !label && !text, on }]"
    :disabled="!enabled"
    :aria-label="command.title"
    :aria-pressed="on"
    :data-command="id"
    @click="run"
  >
    <component :is="command.icon" v-if="command.icon" aria-hidden="true" />
    <span v-if="label || text">{{ text ?? command.title }}</span>
  </button>
</template>
