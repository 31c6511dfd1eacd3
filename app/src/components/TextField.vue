<script setup lang="ts">
import { ElInput, type InputInstance } from 'element-plus';
import 'element-plus/theme-chalk/el-input.css';
import { nextTick, onMounted, ref, watch } from 'vue';

/**
 * A line of text. `change` comes once, with Enter or when the field is left; Escape takes back what was typed. The field
 * then shows what the caller holds, so that a name which was refused does not stay.
 */
const props = withDefaults(
  defineProps<{
    modelValue: string;
    label: string;
    placeholder?: string;
    most?: number;
    /** Takes the keys and selects all when it appears. */
    eager?: boolean;
    disabled?: boolean;
  }>(),
  { placeholder: '', most: 120 },
);
const emit = defineEmits<{
  'update:modelValue': [text: string];
  change: [text: string];
  enter: [];
  leave: [];
  escape: [];
}>();
const input = ref<InputInstance>();
const text = ref(props.modelValue);
watch(
  () => props.modelValue,
  (v) => (text.value = v),
);
let cancelled = false;
async function end(): Promise<void> {
  if (!cancelled && text.value !== props.modelValue) emit('change', text.value);
  cancelled = false;
  await nextTick();
  text.value = props.modelValue;
}
function key(e: KeyboardEvent | Event): void {
  // Keys typed here are no shortcuts; those with Ctrl go on, so that the search for commands opens from anywhere.
  const k = e as KeyboardEvent;
  // Escape with nothing to take back is for the dialog around.
  const over = k.key === 'Escape' && text.value === props.modelValue;
  if (!k.ctrlKey && !k.metaKey && !over) k.stopPropagation();
  if (k.key === 'Enter') {
    input.value?.blur();
    emit('enter');
  } else if (k.key === 'Escape') {
    cancelled = true;
    input.value?.blur();
    emit('escape');
  }
}
const select = (): void => input.value?.select();
onMounted(() => {
  if (props.eager) select();
});
defineExpose({ select, focus: () => input.value?.focus() });
</script>

<template>
  <el-input
    ref="input"
    v-model="text"
    size="small"
    class="text-field"
    :aria-label="label"
    :placeholder="placeholder"
    :maxlength="most"
    :disabled="disabled ?? false"
    @update:model-value="(v: string) => emit('update:modelValue', v)"
    @keydown="key"
    @blur="(end(), emit('leave'))"
  >
    <template v-if="$slots['prefix']" #prefix><slot name="prefix" /></template>
  </el-input>
</template>

<style>
.text-field.el-input {
  --el-input-height: 28px;
  --el-input-inner-height: 26px;
  --el-input-border-radius: var(--radius);
  --el-input-focus-border-color: var(--resin);
  --el-input-bg-color: var(--raised);
  font-size: 13px;
}
</style>
