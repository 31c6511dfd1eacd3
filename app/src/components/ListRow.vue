<script setup lang="ts">
import ActionButton from './ActionButton.vue';

/**
 * A row of a list that can be chosen: a picture, a name, figures after it, and buttons (`acts`) that show when the hand or
 * the focus is there. `on` is the one in hand, `also` one of several that are chosen with it.
 */
defineProps<{ on?: boolean; also?: boolean; label?: string; tip?: string | undefined }>();
</script>

<template>
  <div class="list-item" :class="{ on, also }">
    <action-button look="row" class="list-row" :on="also || on" :tip="tip" :aria-label="label">
      <slot name="picture" /><slot />
    </action-button>
    <span v-if="$slots['acts']" class="acts"><slot name="acts" /></span>
  </div>
</template>

<style>
.list-item {
  position: relative;
  display: flex;
  align-items: center;
  border-left: 3px solid transparent;
}
.list-item:hover {
  background: color-mix(in srgb, var(--honey-soft) 55%, transparent);
}
.list-item.also,
.list-item.on {
  background: var(--honey-soft);
}
.list-item.on {
  border-left-color: var(--honey);
}
.list-item .action.el-button.list-row {
  --el-button-hover-bg-color: transparent;
  --el-button-bg-color: transparent;
  --el-button-border-color: transparent;
  border-radius: 0;
  padding: 5px 9px;
}
.list-item .acts {
  position: absolute;
  right: 4px;
  display: flex;
  border-radius: var(--radius);
  background: var(--honey-soft);
}
.list-item .acts > .later {
  width: 0;
  opacity: 0;
  overflow: hidden;
}
.list-item:hover .acts > .later,
.list-item:focus-within .acts > .later {
  width: 26px;
  opacity: 1;
}
</style>
