<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ElTooltip } from 'element-plus';
import { ref, shallowRef } from 'vue';

/** The one tooltip of the application: it stands by whatever bears `data-tip`, with its shortcut (`data-keys`). */
const at = shallowRef<HTMLElement>();
const shown = ref(false);
const tip = ref('');
const keys = ref('');
/** Milliseconds a pointer rests before it is told. */
const REST = 450;
let timer: ReturnType<typeof setTimeout> | undefined;

/** What bears a tip here; of a choice, what stands beside its radio button. */
const bearer = (e: Event): HTMLElement | null => {
  if (!(e.target instanceof Element)) return null;
  const near = e.target.closest<HTMLElement>('[data-tip]');
  return near ?? e.target.closest('label')?.querySelector<HTMLElement>('[data-tip]') ?? null;
};
function hide(): void {
  clearTimeout(timer);
  shown.value = false;
}
function come(e: Event): void {
  const el = bearer(e);
  if (el === at.value && shown.value) return;
  hide();
  if (!el) return;
  timer = setTimeout(
    () => {
      if (!el.isConnected) return;
      at.value = el;
      tip.value = el.dataset['tip'] ?? '';
      keys.value = el.dataset['keys'] ?? '';
      shown.value = tip.value !== '';
    },
    e.type === 'focusin' ? 0 : REST,
  );
}
useEventListener(document, 'pointerover', (e) => e.pointerType !== 'touch' && come(e));
// What is reached by keys tells itself at once; what was pressed has been understood.
useEventListener(document, 'focusin', (e) => (e.target as Element).matches(':focus-visible') && come(e));
useEventListener(document, ['pointerdown', 'focusout', 'keydown', 'wheel'], hide, { passive: true });
</script>

<template>
  <el-tooltip
    v-if="at"
    :visible="shown"
    :virtual-ref="at"
    virtual-triggering
    placement="top"
    :show-arrow="false"
    :offset="6"
    :enterable="false"
    :hide-after="0"
    popper-class="tip"
  >
    <template #content
      >{{ tip }} <kbd v-if="keys">{{ keys }}</kbd></template
    >
  </el-tooltip>
</template>

<style>
.tip.el-popper {
  max-width: 280px;
  padding: 4px 9px;
  font-size: 12px;
  line-height: 18px;
  color: var(--bar-strong);
  background: var(--bar);
  border: 0;
  pointer-events: none;
}
.tip kbd {
  margin-left: 4px;
  color: var(--bar-honey);
  background: none;
  border-color: currentcolor;
}
</style>
