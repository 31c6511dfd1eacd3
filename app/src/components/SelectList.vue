<script setup lang="ts" generic="T extends string | number | null">
import { ElOption, ElOptionGroup, ElSelect } from 'element-plus';
import 'element-plus/theme-chalk/el-select.css';
import 'element-plus/theme-chalk/el-option.css';
import 'element-plus/theme-chalk/el-option-group.css';
import 'element-plus/theme-chalk/el-scrollbar.css';
import 'element-plus/theme-chalk/el-tag.css';
import 'element-plus/theme-chalk/el-input.css';
import { computed, ref, useTemplateRef } from 'vue';
import type { Choice } from './choices';

/** The list itself of a `SelectField`. */
const props = defineProps<{
  modelValue: T | undefined;
  choices: readonly Choice<T>[];
  label: string;
  /** Stands there while nothing is chosen. */
  placeholder?: string;
  disabled?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: T]; change: [value: T] }>();
/** Above so many, one types rather than looks. */
const MANY = 10;
/** The library makes an option of each at once; until the list opens, only what is chosen is needed, for its name. */
const wanted = ref(false);
const groups = computed(() => {
  const out: { name: string | undefined; options: Choice<T>[] }[] = [];
  // A list that is closed looks for names among its own options, and not in groups.
  if (!wanted.value) return [{ name: undefined, options: props.choices.filter((c) => c.value === props.modelValue) }];
  for (const o of props.choices) {
    const last = out.at(-1);
    if (last && last.name === o.group) last.options.push(o);
    else out.push({ name: o.group, options: [o] });
  }
  return out;
});
/** A list that has closed gives the keys back to the bench. */
const select = useTemplateRef<InstanceType<typeof ElSelect>>('select');
function opened(open: boolean): void {
  wanted.value = open;
  if (!open) select.value?.blur();
}
function choose(v: unknown): void {
  emit('update:modelValue', v as T);
  emit('change', v as T);
}
</script>

<template>
  <el-select
    ref="select"
    size="small"
    class="select-field"
    :model-value="modelValue as string"
    :aria-label="label"
    :filterable="choices.length > MANY"
    :placeholder="placeholder ?? ''"
    :disabled="disabled ?? false"
    :empty-values="[undefined]"
    :persistent="false"
    @visible-change="opened"
    :fit-input-width="false"
    no-match-text="Nothing is called that."
    no-data-text="There is none yet."
    @update:model-value="choose"
  >
    <template v-for="(g, i) in groups" :key="i">
      <el-option-group v-if="g.name" :label="g.name">
        <el-option
          v-for="o in g.options"
          :key="String(o.value)"
          :value="o.value as string"
          :label="o.text"
          :disabled="o.disabled ?? false"
          ><i v-if="o.colour" class="select-colour" :style="{ background: o.colour }" />{{ o.text }}</el-option
        >
      </el-option-group>
      <template v-else>
        <el-option
          v-for="o in g.options"
          :key="String(o.value)"
          :value="o.value as string"
          :label="o.text"
          :disabled="o.disabled ?? false"
          ><i v-if="o.colour" class="select-colour" :style="{ background: o.colour }" />{{ o.text }}</el-option
        >
      </template>
    </template>
  </el-select>
</template>

<style>
.el-select-dropdown__item {
  font-size: 13px;
  height: 28px;
  line-height: 28px;
  padding: 0 28px 0 12px;
}
.el-select-dropdown__item.is-hovering {
  background: var(--honey-soft);
}
.el-select-dropdown__item.is-selected {
  color: var(--resin);
  font-weight: 600;
}
.select-colour {
  display: inline-block;
  width: 13px;
  height: 13px;
  margin-right: 7px;
  vertical-align: -2px;
  border: 1px solid rgb(0 0 0 / 24%);
  border-radius: 3px;
}
.el-select-group__title {
  font-size: 11px;
  line-height: 22px;
  color: var(--quiet);
  padding: 0 12px;
}
.el-select-group .el-select-dropdown__item {
  padding-left: 12px;
}
</style>
