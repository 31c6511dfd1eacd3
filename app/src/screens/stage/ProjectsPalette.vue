<script setup lang="ts">
import { onMounted, onUnmounted, ref, watch } from 'vue';
import EmptyState from '../../components/EmptyState.vue';
import ListRow from '../../components/ListRow.vue';
import TileGrid from '../../components/TileGrid.vue';
import { vDrag } from '../../components/drag';
import { useSession } from '../../stores/session';
import { useAssetShelf } from './asset-shelf';
import { useStage } from './stage-state';

/** Projects of the shelf, to stand in the scene whole. */
const session = useSession();
const stage = useStage();
const shelf = useAssetShelf();
const pictures = ref<ReadonlyMap<string, string>>(new Map());
const letGo = (): void => pictures.value.forEach((url) => URL.revokeObjectURL(url));
watch(
  () => shelf.rows,
  (rows) => {
    letGo();
    pictures.value = new Map(
      rows.flatMap((r) => (r.thumbnail ? [[r.id, URL.createObjectURL(r.thumbnail)] as const] : [])),
    );
  },
  { immediate: true },
);
onMounted(() => void shelf.look());
onUnmounted(letGo);
const isOn = (id: string): boolean => {
  const { placing } = stage;
  return (
    placing?.kind === 'asset' && session.project?.assets.find((a) => a.id === placing.asset)?.source.project === id
  );
};
</script>

<template>
  <TileGrid label="Projects">
    <list-row
      v-for="r in shelf.rows"
      :key="r.id"
      v-drag="() => ({ kind: 'project', ids: [r.id], label: r.name })"
      :on="isOn(r.id)"
      :label="`Place ${r.name}`"
      :tip="shelf.reading === r.id ? 'reading…' : r.name"
      @click="shelf.take(r)"
    >
      <template #picture><img v-if="pictures.get(r.id)" :src="pictures.get(r.id)" alt="" /></template>
      <b>{{ r.name }}</b>
    </list-row>
    <empty-state v-if="shelf.rows.length === 0" text="No other project on the shelf." />
  </TileGrid>
</template>

<style scoped>
img {
  width: 44px;
  height: 44px;
  border-radius: var(--radius);
  object-fit: cover;
}
</style>
