<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus';
import 'element-plus/theme-chalk/el-button.css';
import { useArrivals } from '../../stores/arrivals';

/** What is to be done with a file that has more than one use. */
const arrivals = useArrivals();
</script>

<template>
  <el-dialog
    :model-value="arrivals.question !== null"
    :title="`What is “${arrivals.question?.title ?? ''}” for?`"
    width="420px"
    align-center
    @update:model-value="arrivals.question?.answer(null)"
  >
    <div class="uses">
      <el-button
        v-for="o in arrivals.question?.offers ?? []"
        :key="o.importer"
        @click="arrivals.question?.answer(o.importer)"
        >{{ o.does }}</el-button
      >
    </div>
  </el-dialog>
</template>

<style scoped>
.uses {
  display: grid;
  gap: 8px;
}
.uses :deep(.el-button) {
  margin: 0;
}
</style>
