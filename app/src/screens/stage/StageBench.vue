<script setup lang="ts">
import { computed } from 'vue';
import { later } from '../../components/later';
import EmptyState from '../../components/EmptyState.vue';
import { useSession } from '../../stores/session';
import HandlesForm from './HandlesForm.vue';
import PiecesPalette from './PiecesPalette.vue';
import { useMaking } from './making-state';

const MakingForm = later(() => import('./MakingForm.vue'));
const RepeatForm = later(() => import('./RepeatForm.vue'));
const StageCosts = later(() => import('./StageCosts.vue'));

/** Pieces to put down, how the one in hand is repeated, and what the scene costs. */
const session = useSession();
const making = useMaking();
const repeat = computed(() => session.scene?.repeats.find((r) => r.placement === session.placement?.id) ?? null);
</script>

<template>
  <div class="stage-bench">
    <PiecesPalette />
    <MakingForm v-if="making.kind" />
    <RepeatForm v-else-if="repeat" :key="repeat.id" :repeat="repeat" />
    <section v-else aria-label="Handles">
      <div class="head"><h3>Handles</h3></div>
      <HandlesForm />
    </section>
    <section aria-label="What it costs">
      <StageCosts v-if="session.scene" />
      <empty-state v-else text="A scene’s costs are told here." />
    </section>
  </div>
</template>

<style scoped>
.stage-bench {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr) minmax(0, 1.4fr);
  height: 100%;
}
.stage-bench > :deep(section) {
  min-width: 0;
  padding: 8px 14px;
  overflow: auto;
}
.stage-bench > :deep(section + section) {
  border-left: 1px solid var(--line);
}
.stage-bench :deep(.head) {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 6px;
}
</style>
