<script setup lang="ts">
import { ElProgress } from 'element-plus';
import 'element-plus/theme-chalk/el-progress.css';
import ActionButton from './ActionButton.vue';

/** How far a task is, from 0 to 1, and the way out of it. */
defineProps<{ label: string; done: number }>();
defineEmits<{ stop: [] }>();
</script>

<template>
  <div class="task" role="status">
    <span>{{ label }}</span>
    <el-progress
      :percentage="Math.round(done * 100)"
      :stroke-width="5"
      :show-text="false"
      color="var(--honey)"
      :aria-label="label"
    />
    <action-button @click="$emit('stop')">Stop</action-button>
  </div>
</template>

<style scoped>
.task {
  display: flex;
  align-items: center;
  gap: 10px;
}
.task > :nth-child(2) {
  flex: 1;
  min-width: 60px;
}
</style>
