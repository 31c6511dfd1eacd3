<script setup lang="ts">
import { ref, watch } from 'vue';

/** A number that is typed, stepped with the arrow keys, or dragged by its letter. */
const props = withDefaults(
  defineProps<{
    modelValue: number;
    label: string;
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
const emit = defineEmits<{ change: [value: number]; enter: [field: HTMLInputElement] }>();

const show = (v: number): string => String(Math.round(v * 100) / 100);
const text = ref(show(props.modelValue));
watch(
  () => props.modelValue,
  (v) => (text.value = show(v)),
);

function commit(value: number): void {
  if (!Number.isFinite(value)) {
    text.value = show(props.modelValue);
    return;
  }
  const v = Math.min(props.max, Math.max(props.min, value));
  text.value = show(v);
  if (Math.abs(v - props.modelValue) > 1e-9) emit('change', v);
}
/** Simple sums are understood: 12*1.5, 7+3. */
const read = (t: string): number => {
  const m = /^\s*(-?[\d.]+)\s*(?:([-+*/])\s*(-?[\d.]+))?\s*$/.exec(t.replace(',', '.'));
  if (!m) return NaN;
  const a = Number(m[1]),
    b = Number(m[3]);
  switch (m[2]) {
    case '+':
      return a + b;
    case '-':
      return a - b;
    case '*':
      return a * b;
    case '/':
      return a / b;
    default:
      return a;
  }
};
function key(e: KeyboardEvent): void {
  if (e.key === 'Enter') {
    // Committing gives the keys back to the bench; leaving the field commits. It must not send a form off.
    e.preventDefault();
    const field = e.target as HTMLInputElement;
    field.blur();
    emit('enter', field);
  } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
    e.preventDefault();
    commit(props.modelValue + (e.key === 'ArrowUp' ? 1 : -1) * props.step * (e.shiftKey ? 10 : 1));
  } else if (e.key === 'Escape') text.value = show(props.modelValue);
}
</script>

<template>
  <label class="number" :class="[axis, { off: disabled }]">
    <span class="letter" aria-hidden="true">{{ label }}</span>
    <input
      v-model="text"
      type="text"
      inputmode="decimal"
      :aria-label="name || label"
      :disabled="disabled"
      @keydown.stop="key"
      @blur="commit(read(text))"
      @focus="($event.target as HTMLInputElement).select()"
    />
    <span v-if="unit" class="unit">{{ unit }}</span>
  </label>
</template>

<style scoped>
.number {
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  flex: 1;
  height: 28px;
  padding: 0 8px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  font: 12px var(--mono);
  cursor: text;
}
.number:focus-within {
  border-color: var(--resin);
}
.number input {
  width: 100%;
  min-width: 0;
  border: 0;
  background: none;
  outline: none;
  font-variant-numeric: tabular-nums;
}
.letter {
  color: var(--quiet);
  white-space: nowrap;
}
.x .letter {
  color: var(--axis-x);
}
.y .letter {
  color: var(--axis-y);
}
.z .letter {
  color: var(--axis-z);
}
.unit {
  color: var(--quiet);
}
.off {
  opacity: 0.55;
}
</style>
