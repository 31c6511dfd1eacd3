<script setup lang="ts">
import { IconPhoto, IconPlus, IconTrash } from '@tabler/icons-vue';
import { deleteShotEdit, editShotEdit, moveShotEdit } from '@sphalerite/core/project';
import BinList from '../../components/BinList.vue';
import { runCommand } from '../../stores/commands';
import type { Dragged, Place } from '../../components/drag';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { computed } from 'vue';
import IconButton from '../../components/IconButton.vue';
import CommandButton from '../../components/CommandButton.vue';
import { SET_UPS } from './set-ups';
import { shotPictures } from './shot-pictures';
import EmptyState from '../../components/EmptyState.vue';
import TreeView from '../../components/TreeView.vue';

const dialogs = useDialogs();
const session = useSession();
const notices = useNotices();
function menuOf(e: MouseEvent, shot: string): void {
  if (!session.view.chosen.shot.includes(shot)) session.choose({ shot });
  dialogs.openMenu(e, [
    'light.trace',
    'light.camera',
    'light.follow',
    'light.pose',
    'shot.new',
    'shot.double',
    'shot.delete',
  ]);
}
const shots = computed(() => new Map(session.project?.shots.map((s) => [s.id, s])));
const rows = computed(() => [...shots.value.values()].map(({ id, name }) => ({ id, name })));
const order = computed(() => [...shots.value.keys()]);
function facts(id: string): string {
  const s = shots.value.get(id);
  return s ? `${s.output.size.join('×')} · ${s.output.samples}` : '';
}
function moveTo(shot: string, index: number): void {
  if (index >= 0 && index < rows.value.length) session.apply(moveShotEdit, { shot, index });
}
function drop(what: Dragged, beside: string | null, place: Place): void {
  const list = order.value,
    shot = what.ids[0]!;
  const at = beside === null ? list.length : list.indexOf(beside) + (place === 'after' ? 1 : 0);
  moveTo(shot, list.indexOf(shot) < at ? at - 1 : at);
}
function nudge(shot: string, by: 'up' | 'down' | 'in' | 'out'): void {
  if (by === 'up' || by === 'down') moveTo(shot, order.value.indexOf(shot) + (by === 'up' ? -1 : 1));
}
const pictureOf = shotPictures();
</script>

<template>
  <div v-if="session.project">
    <div class="panel-head tray-head">
      <h2>
        Shots <span class="figures quiet">{{ session.project.shots.length }}</span>
      </h2>
      <icon-button
        :icon="IconPlus"
        label="New shot from this view"
        @click="runCommand('shot.new').catch(notices.fail)"
      />
    </div>
    <tree-view
      :rows="rows"
      label="Shots"
      :size="54"
      :hand="session.hand.shot"
      :chosen="session.view.chosen.shot"
      :can-rename="session.writable"
      kind="shot"
      :accepts="(what) => what.kind === 'shot'"
      ordered
      @drop="drop"
      @nudge="nudge"
      @pick="(id, e) => session.pick('shot', id, e, order)"
      @rename="(shot, name) => session.apply(editShotEdit, { shot, change: { name } })"
      @menu="menuOf"
    >
      <template #picture="{ row }">
        <span class="picture"
          ><img v-if="pictureOf(row.id)" :src="pictureOf(row.id)" alt="" /><IconPhoto v-else aria-hidden="true"
        /></span>
      </template>
      <template #name="{ row }">
        <span class="text"
          ><span class="tree-name">{{ row.name }}</span
          ><small class="figures quiet">{{ facts(row.id) }}</small></span
        >
      </template>
      <template #acts="{ row }">
        <icon-button
          :icon="IconTrash"
          class="later"
          :label="`Delete ${row.name}`"
          tip="To the bin"
          @click="session.apply(deleteShotEdit, { shot: row.id })"
        />
      </template>
    </tree-view>
    <empty-state v-if="rows.length === 0" text="No shots yet. Turn the view to what the picture shows, then add one." />
    <section v-if="rows.length > 0" class="panel-section set-ups">
      <h2>Set-ups</h2>
      <CommandButton v-for="s in SET_UPS" :id="s.id" :key="s.id" label />
    </section>
    <BinList kind="shot" />
  </div>
</template>

<style scoped>
.picture {
  display: grid;
  place-items: center;
  flex: none;
  width: 56px;
  height: 40px;
  border-radius: 4px;
  overflow: hidden;
  background: linear-gradient(var(--view-top), var(--view-bottom));
  color: var(--quiet);
}
.picture img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.picture svg {
  width: 20px;
  height: 20px;
  stroke-width: 1.4;
}
.set-ups {
  border-top: 1px solid var(--line);
  border-bottom: 0;
}
.set-ups :deep(.el-button) {
  width: 100%;
  margin: 0;
  justify-content: flex-start;
}
.text {
  display: grid;
  min-width: 0;
}
</style>
