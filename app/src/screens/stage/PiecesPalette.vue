<script setup lang="ts">
import { IconUser } from '@tabler/icons-vue';
import { type Placement, partsInUse } from '@sphalerite/core/model';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import ListRow from '../../components/ListRow.vue';
import PartPicture from '../../components/PartPicture.vue';
import TileGrid from '../../components/TileGrid.vue';
import { later } from '../../components/later';
import { vDrag } from '../../components/drag';
import { useSession } from '../../stores/session';
import type { ShelvedStamp } from '../../stores/stamp-shelf';
import { MAKINGS, MAKING_NAMES, type Making, useMaking } from './making-state';
import { useStage } from './stage-state';

const StampShelf = later(() => import('../shared/StampShelf.vue'));
const ProjectsPalette = later(() => import('./ProjectsPalette.vue'));

/** What can be put down: the parts of the project, its whole figure, and other projects. */
const session = useSession();
const stage = useStage();
const parts = computed(() => {
  const all = session.project?.parts ?? [],
    used = new Set(partsInUse(all));
  return all.filter((p) => used.has(p));
});
const making = useMaking();
const MAKE_TIPS: Readonly<Record<Making, string>> = {
  part: 'An empty part that is built where it stands',
  block: 'A plain block in metres, to be swapped for the real thing later',
  room: 'Walls and a floor, with doors and windows',
  ground: 'Ground by its layers',
};
function begin(kind: Making): void {
  stage.placing = stage.stamp = null;
  making.begin(kind);
}
const same = (shows: Placement['shows']): boolean => JSON.stringify(stage.placing) === JSON.stringify(shows);
function takeStamp(s: ShelvedStamp): void {
  making.end();
  stage.placing = null;
  stage.stamp = stage.stamp?.stamp.id === s.stamp.id ? null : s;
}
function take(shows: Placement['shows']): void {
  making.end();
  stage.stamp = null;
  stage.placing = same(shows) ? null : shows;
}
</script>

<template>
  <section aria-label="Place">
    <div class="head">
      <choice-field
        v-model="stage.palette"
        label="What can be put down"
        :choices="[
          { value: 'pieces', text: 'Pieces', name: 'Parts and projects' },
          { value: 'stamps', text: 'Stamps', name: 'Stamps' },
          { value: 'projects', text: 'Projects', name: 'Whole projects of the shelf' },
        ]"
      />
      <span class="quiet hint">click, or draw a stroke</span>
    </div>
    <div class="make" role="group" aria-label="Make something new here">
      <span class="quiet">new</span>
      <action-button
        v-for="kind in MAKINGS"
        :key="kind"
        :on="making.kind === kind"
        :disabled="!session.writable"
        :tip="MAKE_TIPS[kind]"
        @click="making.kind === kind ? making.end() : begin(kind)"
        >{{ MAKING_NAMES[kind] }}</action-button
      >
    </div>
    <StampShelf v-if="stage.palette === 'stamps'" :chosen="stage.stamp?.stamp.id ?? null" @take="takeStamp" />
    <ProjectsPalette v-else-if="stage.palette === 'projects'" />
    <TileGrid v-else label="Pieces">
      <list-row
        v-for="p in parts"
        :key="p.id"
        v-drag="() => ({ kind: 'part', ids: [p.id], label: p.name })"
        :on="same({ kind: 'part', part: p.id })"
        :label="`Place ${p.name}`"
        :tip="p.name"
        @click="take({ kind: 'part', part: p.id })"
      >
        <template #picture><PartPicture :project="session.inActiveColourway!" :part="p" /></template>
        <b>{{ p.name }}</b>
      </list-row>
      <list-row
        v-if="(session.project?.rig.bones.length ?? 0) > 0"
        :on="same({ kind: 'rig', clip: null, time: 0 })"
        label="Place the whole figure"
        tip="The whole figure, posed by its bones"
        @click="take({ kind: 'rig', clip: null, time: 0 })"
      >
        <template #picture
          ><span class="whole"><IconUser aria-hidden="true" /></span
        ></template>
        <b>{{ session.project!.name }}</b>
      </list-row>
      <list-row
        v-for="a in session.project?.assets ?? []"
        :key="a.id"
        v-drag="() => ({ kind: 'asset', ids: [a.id], label: a.name })"
        :on="same({ kind: 'asset', asset: a.id, clip: null, time: 0 })"
        :label="`Place ${a.name}`"
        :tip="a.name"
        @click="take({ kind: 'asset', asset: a.id, clip: null, time: 0 })"
      >
        <template #picture
          ><span class="whole"><IconUser aria-hidden="true" /></span
        ></template>
        <b>{{ a.name }}</b>
      </list-row>
    </TileGrid>
  </section>
</template>

<style scoped>
.hint {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  margin-left: 8px;
}
.make {
  display: flex;
  gap: 4px;
  margin-bottom: 6px;
}
.make > .quiet {
  align-self: center;
}
.make > .action {
  flex: 1;
  min-width: 0;
  padding: 0 4px;
}
.whole {
  display: grid;
  place-items: center;
  width: 40px;
  height: 40px;
  border-radius: var(--radius);
  background: linear-gradient(var(--view-top), var(--view-bottom));
  color: var(--quiet);
}
</style>
