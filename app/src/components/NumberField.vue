<script setup lang="ts">
import { ElInputNumber } from 'element-plus';
import 'element-plus/theme-chalk/el-input-number.css';
import 'element-plus/theme-chalk/el-input.css';
import { ref, useTemplateRef } from 'vue';
import { readSum } from './sum';

/**
 * A number that is typed, as a sum if wanted, stepped with the arrow keys (Shift: ten times), or dragged by its letter.
 *
 * `change` comes once for each: with Enter or leaving, for each step, and when a drag ends. The field always shows what the
 * caller holds: a number that was refused does not stay. `null` stands for several that differ.
 */
const props = withDefaults(
  defineProps<{
    modelValue: number | null;
    /** The letter before it: what is dragged. */
    label: string;
    /** Its name in full, where the letter is short. */
    name?: string;
    step?: number;
    min?: number;
    max?: number;
    unit?: string;
    axis?: 'x' | 'y' | 'z';
    disabled?: boolean;
  }>(),
  { name: '', step: 1, min: -Infinity, max: Infinity, unit: '' },
);
const emit = defineEmits<{
  change: [value: number];
  'update:modelValue': [value: number];
  enter: [field: HTMLInputElement];
}>();

const field = useTemplateRef<InstanceType<typeof ElInputNumber>>('field');
/** What is typed and not yet told. */
let typed: string | null = null;
/** What a drag has come to. */
const dragging = ref<number | null>(null);

const show = (v: unknown): string => {
  const n = Number(v);
  return v === '' || v === null || !Number.isFinite(n) ? String(v ?? '') : String(Math.round(n * 100) / 100);
};
const within = (v: number): number => Math.min(props.max, Math.max(props.min, v));

function commit(value: number): void {
  if (!Number.isFinite(value)) return;
  const v = within(value);
  if (props.modelValue !== null && Math.abs(v - props.modelValue) <= 1e-9) return;
  emit('update:modelValue', v);
  emit('change', v);
}
function end(): void {
  if (typed === null) return;
  const text = typed;
  typed = null;
  commit(readSum(text, props.modelValue ?? 0));
}
// These stand before the library's own: it would read "3*4" as 3 and tell it at once.
function key(e: KeyboardEvent): void {
  const input = e.target as HTMLInputElement;
  if (!e.ctrlKey && !e.metaKey) e.stopPropagation();
  if (e.key === 'Enter') {
    // Committing gives the keys back to the bench; leaving the field commits. It must not send a form off.
    e.preventDefault();
    input.blur();
    emit('enter', input);
  } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
    e.preventDefault();
    end();
    commit((props.modelValue ?? 0) + (e.key === 'ArrowUp' ? 1 : -1) * props.step * (e.shiftKey ? 10 : 1));
  } else if (e.key === 'Escape') {
    typed = null;
    input.blur();
  }
}
function begin(e: FocusEvent): void {
  if (e.target instanceof HTMLInputElement) e.target.select();
}
function type(e: Event): void {
  typed = (e.target as HTMLInputElement).value;
}

/** Pixels a step takes while its letter is dragged. */
const PIXELS = 5;
let from = 0;
function grab(e: PointerEvent): void {
  if (props.disabled || e.button !== 0) return;
  e.preventDefault();
  from = e.clientX;
  dragging.value = props.modelValue ?? 0;
  (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
}
function pull(e: PointerEvent): void {
  if (dragging.value === null) return;
  const steps = Math.round((e.clientX - from) / PIXELS) * (e.shiftKey ? 10 : 1);
  dragging.value = within((props.modelValue ?? 0) + steps * props.step);
}
function drop(): void {
  const v = dragging.value;
  dragging.value = null;
  // Pressed and let go in place: one wants to type.
  if (v === null || v === (props.modelValue ?? 0)) field.value?.focus();
  else commit(v);
}
</script>

<template>
  <span
    class="number-field"
    :class="[axis, { dragging: dragging !== null, 'is-disabled': disabled }]"
    @keydown.capture="key"
    @input.capture="type"
    @focusin="begin"
    @focusout="end"
    ><el-input-number
      ref="field"
      size="small"
      :model-value="dragging ?? modelValue"
      :formatter="show"
      :placeholder="modelValue === null ? 'differ' : ''"
      :controls="false"
      :disabled="disabled ?? false"
      :aria-label="name || label"
      align="left"
      inputmode="decimal"
    >
      <template #prefix
        ><span
          class="letter"
          aria-hidden="true"
          @pointerdown="grab"
          @pointermove="pull"
          @pointerup="drop"
          @pointercancel="dragging = null"
          >{{ label }}</span
        ></template
      >
      <template v-if="unit" #suffix
        ><span class="unit">{{ unit }}</span></template
      >
    </el-input-number></span
  >
</template>

<style>
.number-field {
  display: flex;
  flex: 1;
  min-width: 0;
}
.number-field .el-input-number {
  --el-input-height: 28px;
  --el-input-inner-height: 26px;
  --el-input-focus-border-color: var(--resin);
  --el-input-bg-color: var(--raised);
  display: flex;
  flex: 1;
  width: auto;
  min-width: 0;
  height: 28px;
  line-height: 26px;
}
.number-field .el-input-number.is-without-controls .el-input__wrapper {
  padding: 0 7px;
}
.number-field .el-input__suffix-inner > :first-child {
  margin-left: 3px;
}
.number-field .el-input__inner {
  font: 12px var(--mono);
  font-variant-numeric: tabular-nums;
  color: var(--ink);
}
.number-field .el-input__prefix-inner > :first-child,
.number-field .el-input__prefix-inner > :last-child {
  margin-right: 5px;
}
.number-field .letter {
  font: 12px var(--mono);
  color: var(--quiet);
  white-space: nowrap;
  cursor: ew-resize;
  touch-action: none;
}
.number-field.x .letter {
  color: var(--axis-x);
}
.number-field.y .letter {
  color: var(--axis-y);
}
.number-field.z .letter {
  color: var(--axis-z);
}
.number-field.dragging .el-input__wrapper {
  box-shadow: 0 0 0 1px var(--honey) inset;
}
.number-field .unit {
  font: 12px var(--mono);
  color: var(--quiet);
}
.number-field.is-disabled {
  opacity: 0.55;
}
</style>
