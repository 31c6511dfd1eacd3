<script setup lang="ts">
import { IconArrowBackUp } from '@tabler/icons-vue';
import type { BinItem } from '@sphalerite/core/model';
import { binName, restoreEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import { useSession } from '../stores/session';
import IconButton from './IconButton.vue';

/** What was deleted of one kind, each with the way back. Nothing is shown while there is none. */
const props = defineProps<{ kind: BinItem['kind'] }>();
const session = useSession();
const items = computed(() => session.project?.bin.filter((b) => b.kind === props.kind) ?? []);
</script>

<template>
  <section v-if="items.length > 0" class="bin" aria-label="Bin">
    <h2>
      Bin <span class="figures quiet">{{ items.length }}</span>
    </h2>
    <div v-for="b in items" :key="b.id" class="item">
      <span>{{ binName(session.project!, b.id) }}</span><icon-button
        :icon="IconArrowBackUp"
        :label="`Restore ${binName(session.project!, b.id)}`"
        tip="Restore"
        @click="session.apply(restoreEdit, { item: b.id })"
      />
    </div>
  </section>
</template>

<style scoped>
.bin {
  padding: 10px 8px 6px 12px;
  border-top: 1px solid var(--line);
  margin-top: 8px;
  /* In reach however long the list above it is. */
  position: sticky;
  bottom: 0;
  max-height: 112px;
  overflow-y: auto;
  background: var(--panel);
}
.item {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding-left: 3px;
}
</style>
