<script setup lang="ts">
import { ElSplitter } from 'element-plus';
import 'element-plus/theme-chalk/el-splitter.css';
import 'element-plus/theme-chalk/el-splitter-panel.css';
import { nextTick, onMounted, useTemplateRef, watch } from 'vue';

/**
 * Panels side by side (or one above the other) with bars between them that are dragged, or moved by the arrows. The library's
 * bars know neither keys nor roles; they get both here.
 *
 * `bars` names each bar and says how far it stands, in percent.
 */
const props = defineProps<{
  upright?: boolean;
  bars: readonly { readonly label: string; readonly percent: number }[];
}>();
const emit = defineEmits<{
  /** Sizes of the panels in percent, once the hand lets go. */
  resized: [percent: number[]];
  /** A bar is to move by so many percent, to the right or downwards. */
  nudge: [bar: number, percent: number];
}>();
const host = useTemplateRef<HTMLElement>('host');
/** Percent a press of an arrow moves a bar by. */
const STEP = 2;

function resized(pixels: number[]): void {
  const whole = pixels.reduce((a, b) => a + b, 0);
  if (whole > 0)
    emit(
      'resized',
      pixels.map((p) => (100 * p) / whole),
    );
}
async function tell(): Promise<void> {
  await nextTick();
  const bars = host.value?.querySelectorAll<HTMLElement>(
    ':scope > .el-splitter > .el-splitter-bar > .el-splitter-bar__dragger',
  );
  for (const [i, bar] of [...(bars ?? [])].entries()) {
    const { label, percent } = props.bars[i] ?? { label: 'Size', percent: 50 };
    bar.tabIndex = 0;
    bar.setAttribute('role', 'separator');
    bar.setAttribute('aria-orientation', props.upright ? 'horizontal' : 'vertical');
    bar.setAttribute('aria-label', label);
    bar.setAttribute('aria-valuenow', String(Math.round(percent)));
    bar.onkeydown = (e) => {
      const by = { ArrowLeft: -STEP, ArrowUp: -STEP, ArrowRight: STEP, ArrowDown: STEP }[e.key];
      if (!by) return;
      e.preventDefault();
      e.stopPropagation();
      emit('nudge', i, by);
    };
  }
}
onMounted(tell);
watch(() => props.bars, tell, { flush: 'post' });
</script>

<template>
  <div ref="host" class="split">
    <el-splitter
      :layout="upright ? 'vertical' : 'horizontal'"
      @resize-end="(_i: number, sizes: number[]) => resized(sizes)"
      ><slot
    /></el-splitter>
  </div>
</template>

<style>
.split {
  min-width: 0;
  min-height: 0;
  width: 100%;
  height: 100%;
}
.split .el-splitter-bar__dragger::before {
  background: var(--line);
}
.split .el-splitter-bar__dragger:hover:not(.is-disabled)::before,
.split .el-splitter-bar__dragger-active::before {
  background: var(--honey);
}
.split .el-splitter-bar__dragger-horizontal::before {
  width: 1px;
}
.split .el-splitter-bar__dragger-vertical::before {
  height: 1px;
}
.split .el-splitter-bar__dragger-horizontal {
  width: 8px !important;
}
.split .el-splitter-bar__dragger-vertical {
  height: 8px !important;
}
.split .el-splitter-panel {
  overflow: hidden;
}
</style>
