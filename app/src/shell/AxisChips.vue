<script setup lang="ts">
import { AXES } from '@sphalerite/core/math';
import ActionButton from '../components/ActionButton.vue';
import type { DragAxes } from '../stores/view';
import { AXIS_NAMES } from '../tools/gizmo';

/** Axes that a drag goes along, beside the pointer: each is switched by its letter or, while a thing is carried without a button, by a click. */
defineProps<{ axes: DragAxes }>();
</script>

<template>
  <div class="axis-chips" role="group" aria-label="Axes of the drag" :class="{ free: axes.carried }">
    <action-button
      v-for="a in AXES"
      :key="a"
      look="bare"
      class="axis"
      :class="AXIS_NAMES[a]!.toLowerCase()"
      :on="axes.on[a]"
      :aria-label="`Along ${AXIS_NAMES[a]}`"
      @click="axes.toggle(a)"
      >{{ AXIS_NAMES[a] }}</action-button><span v-if="axes.carried" class="say">click sets down, Esc restores</span>
  </div>
</template>

<style scoped>
.axis-chips {
  position: absolute;
  z-index: 4;
  display: flex;
  gap: 3px;
  align-items: center;
  pointer-events: none;
}
.free .axis {
  pointer-events: auto;
}
.axis.el-button {
  width: 22px;
  height: 20px;
  margin: 0;
  padding: 0;
  border: 1px solid currentcolor;
  border-radius: 5px;
  background: var(--panel);
  color: var(--axis);
  font-weight: 600;
  opacity: 0.75;
}
.axis.el-button.on {
  border-color: var(--axis);
  background: var(--axis);
  color: var(--panel);
  opacity: 1;
}
.x {
  --axis: var(--axis-x);
}
.y {
  --axis: var(--axis-y);
}
.z {
  --axis: var(--axis-z);
}
.say {
  margin-left: 3px;
  padding: 0 6px;
  border-radius: 4px;
  background: var(--bar);
  color: var(--bar-strong);
  font-size: 11px;
  line-height: 18px;
}
</style>
