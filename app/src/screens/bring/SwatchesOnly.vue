<script setup lang="ts">
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import { placeInHand } from '../../shell/files/place';

/** Swatches of the palette in hand that may be used: those that were pressed, or all while none is. */
const props = defineProps<{ modelValue: string }>();
const emit = defineEmits<{ change: [only: string] }>();
const swatches = computed(() => placeInHand()?.palette.swatches.filter((s) => !s.helper) ?? []);
const chosen = computed(() => new Set(props.modelValue === '' ? [] : props.modelValue.split(',').map(Number)));
function toggle(byte: number): void {
  const next = new Set(chosen.value);
  if (!next.delete(byte)) next.add(byte);
  emit('change', [...next].sort((a, b) => a - b).join(','));
}
</script>

<template>
  <div class="only">
    <div class="swatches" role="group" aria-label="Swatches that may be used">
      <action-button
        v-for="s in swatches"
        :key="s.byte"
        look="bare"
        :on="chosen.has(s.byte)"
        :tip="s.name"
        :aria-label="s.name"
        :style="{ '--colour': s.colour }"
        :class="{ out: chosen.size > 0 && !chosen.has(s.byte) }"
        @click="toggle(s.byte)"
      />
    </div>
    <p class="quiet">
      <template v-if="chosen.size === 0">all of them; press some to use only those</template>
      <template v-else
        >{{ chosen.size }} of {{ swatches.length }} ·
        <action-button look="link" @click="emit('change', '')">use all</action-button></template
      >
    </p>
  </div>
</template>

<style scoped>
.only {
  display: grid;
  gap: 5px;
}
.swatches {
  display: grid;
  grid-template-columns: repeat(auto-fill, 20px);
  gap: 4px;
}
.swatches :deep(.action.el-button) {
  width: 20px;
  min-height: 20px;
  height: 20px;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--colour);
}
.swatches :deep(.action.el-button.on) {
  outline: 2px solid var(--honey);
  outline-offset: 1px;
}
.swatches :deep(.action.el-button.out) {
  opacity: 0.35;
}
p {
  margin: 0;
}
</style>
