<script setup lang="ts">
import { IconPlus, IconTrash } from '@tabler/icons-vue';
import { framesIn } from '@sphalerite/core/motion';
import { deleteClipEdit } from '@sphalerite/core/project';
import { computed, defineAsyncComponent, ref } from 'vue';
import BinList from '../../components/BinList.vue';
import { runCommand } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import PoseShelf from './PoseShelf.vue';

const dialogs = useDialogs();
const FromProjectDialog = defineAsyncComponent(() => import('./FromProjectDialog.vue'));
const session = useSession();
const asking = ref(false);
const order = computed(() => session.project?.clips.map((c) => c.id) ?? []);
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
      <button
        type="button"
        class="bare"
        aria-label="New clip"
        title="New clip"
        @click="runCommand('clip.new').catch(notices.fail)"
      >
        <IconPlus aria-hidden="true" />
      </button>
    </div>
    <ul class="tray-list">
      <li v-for="c in session.project.clips" :key="c.id" class="item">
        <button
          type="button"
          class="list-row"
          :class="{ on: c.id === session.hand.clip, also: session.view.chosen.clip.includes(c.id) }"
          :aria-pressed="session.view.chosen.clip.includes(c.id)"
          @click="session.pick('clip', c.id, $event, order)"
          @contextmenu.prevent="menuOf($event, c.id)"
        >
          <span class="text"
            ><b>{{ c.name }}</b
            ><small class="figures quiet">{{ framesIn(c) }} f · {{ c.fps }} fps</small></span
          ><small class="loop">{{ c.ships ? (c.loop ? 'loops' : 'once') : 'stays here' }}</small>
        </button>
        <button
          type="button"
          class="bare later"
          :aria-label="`Delete ${c.name}`"
          title="To the bin"
          @click="session.apply(deleteClipEdit, { clip: c.id })"
        >
          <IconTrash aria-hidden="true" />
        </button>
      </li>
    </ul>
    <p v-if="session.project.clips.length === 0" class="quiet hint">
      No clips yet. Make one, then turn a bone: that sets its first key.
    </p>
    <p class="from">
      <button type="button" class="link" :disabled="!session.writable" @click="asking = true">
        From another figure…
      </button>
    </p>
    <BinList kind="clip" />
    <PoseShelf />
    <FromProjectDialog v-if="asking" @close="asking = false" />
  </div>
</template>

<style scoped>
.list-row {
  min-height: 50px;
}
.text {
  flex: 1;
  display: grid;
}
.text b {
  font-weight: 600;
}
.loop {
  color: var(--verdigris);
  align-self: start;
  padding-top: 4px;
}
.later {
  position: absolute;
  right: 8px;
  bottom: 2px;
}
.hint {
  padding: 4px 12px;
}
.from {
  padding: 2px 12px 8px;
  font-size: 12px;
}
.link {
  color: var(--resin);
  text-decoration: underline;
}
</style>
