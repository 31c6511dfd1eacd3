<script setup lang="ts">
import { IconArrowBarToRight, IconSortAscendingLetters, IconTrash } from '@tabler/icons-vue';
import { sortStampsEdit } from '@sphalerite/core/project';
import { computed, onMounted, ref } from 'vue';
import EmptyState from '../../components/EmptyState.vue';
import IconButton from '../../components/IconButton.vue';
import ListRow from '../../components/ListRow.vue';
import NameField from '../../components/NameField.vue';
import PartPicture from '../../components/PartPicture.vue';
import TextField from '../../components/TextField.vue';
import TileGrid from '../../components/TileGrid.vue';
import { vDrag } from '../../components/drag';
import { useSession } from '../../stores/session';
import { type Shelf, type ShelvedStamp, useStampShelf } from '../../stores/stamp-shelf';

/** Stamps of the project, of one's own shelf and of the one that comes along; the one in hand can be named, kept and let go. */
const props = defineProps<{ chosen: string | null }>();
const emit = defineEmits<{ take: [stamp: ShelvedStamp] }>();
const session = useSession();
const shelf = useStampShelf();
onMounted(() => void shelf.open());
const words = ref('');
const TITLES: Readonly<Record<Shelf, string>> = { project: 'of this project', own: 'my shelf', ready: 'ready-made' };
const groups = computed(() => {
  const wanted = words.value.trim().toLowerCase();
  const found = shelf.all.filter((s) => s.name.toLowerCase().includes(wanted));
  return (['project', 'own', 'ready'] as const)
    .map((id) => ({ id, list: found.filter((s) => s.shelf === id) }))
    .filter((g) => g.list.length > 0);
});
const inHand = computed(() => shelf.all.find((s) => s.stamp.id === props.chosen) ?? null);
</script>

<template>
  <div class="shelf">
    <text-field v-model="words" label="Stamps whose name holds" placeholder="filter…" />
    <div v-if="inHand" class="hand">
      <name-field
        v-if="inHand.shelf !== 'ready'"
        :name="inHand.name"
        label="Name of the stamp"
        @rename="(name) => shelf.rename(inHand!, name)"
      />
      <b v-else>{{ inHand.name }}</b>
      <span class="acts">
        <icon-button
          v-if="inHand.shelf !== 'own'"
          :icon="IconArrowBarToRight"
          :label="`Keep ${inHand.name} on my shelf`"
          tip="On my shelf, for every project"
          @click="shelf.keep(inHand!)"
        />
        <icon-button
          v-if="inHand.shelf !== 'ready'"
          :icon="IconTrash"
          :label="`Delete the stamp ${inHand.name}`"
          :tip="inHand.shelf === 'project' ? 'To the bin' : 'Off my shelf'"
          @click="shelf.remove(inHand!)"
        />
      </span>
    </div>
    <section v-for="g in groups" :key="g.id" :aria-label="`Stamps, ${TITLES[g.id]}`">
      <div class="title">
        <span class="quiet">{{ TITLES[g.id] }}</span>
        <icon-button
          v-if="g.id === 'project' && g.list.length > 1"
          :icon="IconSortAscendingLetters"
          label="Sort the stamps by name"
          tip="By name"
          @click="session.apply(sortStampsEdit, { by: 'name' })"
        />
      </div>
      <TileGrid>
        <list-row
          v-for="s in g.list"
          :key="s.stamp.id"
          v-drag="() => ({ kind: 'stamp', ids: [`${s.shelf} ${s.stamp.id}`], label: s.name })"
          :on="s.stamp.id === chosen"
          :label="`Stamp ${s.name}`"
          :tip="s.pieces > 1 ? `${s.name}: ${s.pieces} pieces` : s.name"
          @click="emit('take', s)"
        >
          <template #picture><PartPicture :project="s.source" :part="s.stamp" /></template>
          <b>{{ s.name }}</b>
        </list-row>
      </TileGrid>
    </section>
    <empty-state v-if="groups.length === 0" text="No stamp of that name." />
  </div>
</template>

<style scoped>
.shelf {
  display: grid;
  gap: 6px;
}
.hand,
.title {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.acts {
  display: flex;
}
</style>
