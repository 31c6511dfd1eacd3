<script setup lang="ts">
import { IconLock, IconPlus, IconTrash } from '@tabler/icons-vue';
import { framesIn } from '@sphalerite/core/motion';
import { type Edit, deleteClipEdit, setClipEdit } from '@sphalerite/core/project';
import { computed, defineAsyncComponent, ref } from 'vue';
import { renamed } from '../shared/renamed';
import BinList from '../../components/BinList.vue';
import { runCommand } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import PoseShelf from './PoseShelf.vue';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import EmptyState from '../../components/EmptyState.vue';
import TreeView from '../../components/TreeView.vue';

const dialogs = useDialogs();
const FromProjectDialog = defineAsyncComponent(() => import('./FromProjectDialog.vue'));
const session = useSession();
const asking = ref(false);
const clips = computed(() => new Map(session.project?.clips.map((c) => [c.id, c])));
const rows = computed(() => [...clips.value.values()].map(({ id, name }) => ({ id, name })));
const sealed = computed(() => new Set(session.project?.seal?.clips));
const order = computed(() => [...clips.value.keys()]);
function facts(id: string): string {
  const c = clips.value.get(id);
  return c ? `${framesIn(c)} f · ${c.fps} fps` : '';
}
function how(id: string): string {
  const c = clips.value.get(id);
  return !c?.ships ? 'stays here' : c.loop ? 'loops' : 'once';
}
const notices = useNotices();
function menuOf(e: MouseEvent, clip: string): void {
  if (!session.view.chosen.clip.includes(clip)) session.choose({ clip });
  dialogs.openMenu(e, ['anim.play', 'anim.start', 'clip.new', 'clip.duplicate', 'clip.delete']);
}
</script>

<template>
  <div v-if="session.project">
    <div class="panel-head tray-head">
      <h2>
        Clips <span class="figures quiet">{{ session.project.clips.length }}</span>
      </h2>
      <icon-button :icon="IconPlus" label="New clip" @click="runCommand('clip.new').catch(notices.fail)" />
    </div>
    <tree-view
      :rows="rows"
      label="Clips"
      :size="48"
      :hand="session.hand.clip"
      :chosen="session.view.chosen.clip"
      :can-rename="session.writable"
      @pick="(id, e) => session.pick('clip', id, e, order)"
      @rename="
        (clip, name) =>
          renamed(setClipEdit as Edit<{ clip: string; name: string }>, { clip, name }, () => clips.get(clip)?.name)
      "
      @menu="menuOf"
    >
      <template #name="{ row }">
        <span class="text"
          ><span class="tree-name">{{ row.name }}</span
          ><small class="figures quiet">{{ facts(row.id) }}</small></span
        ><IconLock
          v-if="sealed.has(row.id)"
          class="lock"
          aria-label="sealed"
          :data-tip="`Sealed with ${session.project!.seal!.rig}: unseal the rig to change its keys`"
        /><small class="loop">{{ how(row.id) }}</small>
      </template>
      <template #acts="{ row }">
        <icon-button
          :icon="IconTrash"
          class="later"
          :label="`Delete ${row.name}`"
          tip="To the bin"
          @click="session.apply(deleteClipEdit, { clip: row.id })"
        />
      </template>
    </tree-view>
    <empty-state v-if="rows.length === 0" text="No clips yet. Make one, then turn a bone: that sets its first key." />
    <p class="from">
      <action-button look="link" :disabled="!session.writable" @click="asking = true">
        From another figure…
      </action-button>
    </p>
    <BinList kind="clip" />
    <PoseShelf />
    <FromProjectDialog v-if="asking" @close="asking = false" />
  </div>
</template>

<style scoped>
.text {
  flex: 1;
  display: grid;
}
.from {
  padding: 2px 12px 8px;
  font-size: 12px;
}
.lock {
  flex: none;
  align-self: start;
  width: 15px;
  height: 15px;
  margin-top: 7px;
  color: var(--quiet);
}
.loop {
  align-self: start;
  padding-top: 6px;
  color: var(--verdigris);
}
</style>
