<script setup lang="ts">
import { IconPhoto, IconPlus, IconTrash } from '@tabler/icons-vue';
import { deleteShotEdit } from '@sphalerite/core/project';
import BinList from '../../components/BinList.vue';
import { runCommand } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { computed } from 'vue';
import { useLight } from './light-state';

const dialogs = useDialogs();
const session = useSession();
const light = useLight();
const notices = useNotices();
function menuOf(e: MouseEvent, shot: string): void {
  if (!session.view.chosen.shot.includes(shot)) session.choose({ shot });
  dialogs.openMenu(e, ['light.trace', 'light.camera', 'light.follow', 'light.pose', 'shot.new', 'shot.delete']);
}
const order = computed(() => session.project?.shots.map((s) => s.id) ?? []);
const last = (id: string): string | undefined => light.pictures.find((p) => p.shot.id === id)?.url;
</script>

<template>
  <div v-if="session.project">
    <div class="panel-head tray-head">
      <h2>
        Shots <span class="figures quiet">{{ session.project.shots.length }}</span>
      </h2>
      <button
        type="button"
        class="bare"
        aria-label="New shot from this view"
        title="New shot from this view"
        @click="runCommand('shot.new').catch(notices.fail)"
      >
        <IconPlus aria-hidden="true" />
      </button>
    </div>
    <ul class="tray-list">
      <li v-for="s in session.project.shots" :key="s.id" class="item">
        <button
          type="button"
          class="list-row"
          :class="{ on: s.id === session.hand.shot, also: session.view.chosen.shot.includes(s.id) }"
          :aria-pressed="session.view.chosen.shot.includes(s.id)"
          @click="session.pick('shot', s.id, $event, order)"
          @contextmenu.prevent="menuOf($event, s.id)"
        >
          <span class="picture"
            ><img v-if="last(s.id)" :src="last(s.id)" alt="" /><IconPhoto v-else aria-hidden="true"
          /></span>
          <span class="text"
            ><b>{{ s.name }}</b
            ><small class="figures quiet">{{ s.size.join('×') }} · {{ s.samples }}</small></span
          >
        </button>
        <button
          type="button"
          class="bare later"
          :aria-label="`Delete ${s.name}`"
          title="To the bin"
          @click="session.apply(deleteShotEdit, { shot: s.id })"
        >
          <IconTrash aria-hidden="true" />
        </button>
      </li>
    </ul>
    <BinList kind="shot" />
  </div>
</template>

<style scoped>
.list-row {
  min-height: 54px;
}
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
.text {
  display: grid;
  min-width: 0;
}
.text b {
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.later {
  position: absolute;
  right: 6px;
  top: 14px;
}
</style>
