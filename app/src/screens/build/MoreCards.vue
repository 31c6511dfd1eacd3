<script setup lang="ts">
import { IconDots } from '@tabler/icons-vue';
import { onClickOutside } from '@vueuse/core';
import { ElPopover } from 'element-plus';
import { type Component, computed, ref } from 'vue';
import type { ToolCard } from '../../tools/card';
import { MORE_CARDS } from '../../tools/more-cards';

const props = defineProps<{ anchor: HTMLElement; icon: (c: ToolCard) => Component; again: ToolCard }>();
const emit = defineEmits<{ take: [card: ToolCard]; close: [] }>();
const root = ref<HTMLElement>();
onClickOutside(root, () => emit('close'), { ignore: [computed(() => props.anchor)] });
</script>

<template>
  <el-popover :visible="true" virtual-triggering :virtual-ref="anchor" placement="top-start" :width="404">
    <div ref="root" class="more" role="menu" aria-label="Tools to add" @keydown.esc.stop="emit('close')">
      <button type="button" role="menuitem" class="btn" @click="emit('take', { ...again, name: `${again.name} 2` })">
        <IconDots aria-hidden="true" />this one again
      </button>
      <button v-for="c in MORE_CARDS" :key="c.name" type="button" role="menuitem" class="btn" @click="emit('take', c)">
        <component :is="icon(c)" aria-hidden="true" />{{ c.name }}
      </button>
    </div>
  </el-popover>
</template>

<style scoped>
.more {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 5px;
  max-height: 320px;
  overflow: auto;
}
.more .btn {
  justify-content: flex-start;
  font-size: 12px;
  padding: 0 7px;
  min-width: 0;
}
.more svg {
  width: 16px;
  height: 16px;
}
</style>
