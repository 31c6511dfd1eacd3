<script setup lang="ts">
import type { OptionField } from '@sphalerite/core/files';
import { ElCheckbox, ElOption, ElSelect } from 'element-plus';
import 'element-plus/theme-chalk/el-select.css';
import 'element-plus/theme-chalk/el-option.css';
import 'element-plus/theme-chalk/el-scrollbar.css';
import 'element-plus/theme-chalk/el-checkbox.css';
import NumberField from '../../components/NumberField.vue';

/** A form for options, made of what their schema says. */
defineProps<{ fields: readonly OptionField[]; values: Record<string, unknown> }>();
const emit = defineEmits<{ change: [key: string, value: unknown] }>();
</script>

<template>
  <div v-for="f in fields" :key="f.key" class="option">
    <el-checkbox
      v-if="f.kind === 'switch'"
      :model-value="values[f.key] === true"
      size="small"
      @change="(v) => emit('change', f.key, v === true)"
      >{{ f.title }}</el-checkbox
    >
    <number-field
      v-else-if="f.kind === 'number'"
      :label="f.title"
      :name="f.title"
      :model-value="Number(values[f.key])"
      :min="f.least ?? -1e9"
      :max="f.most ?? 1e9"
      @change="(v) => emit('change', f.key, v)"
    />
    <label v-else class="choice"
      >{{ f.title
      }}<el-select
        :model-value="String(values[f.key])"
        :aria-label="f.title"
        size="small"
        @change="(v: unknown) => emit('change', f.key, v)"
        ><el-option v-for="c in f.choices" :key="c" :value="c" :label="c" /></el-select
    ></label>
    <small v-if="f.about" class="quiet">{{ f.about }}</small>
  </div>
</template>

<style scoped>
.option {
  display: grid;
  gap: 1px;
}
.option small {
  padding-left: 22px;
}
.option :deep(.el-checkbox) {
  height: 24px;
}
.choice {
  display: grid;
  gap: 3px;
}
</style>
