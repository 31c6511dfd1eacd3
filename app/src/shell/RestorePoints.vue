<script setup lang="ts">
import { IconArrowBackUp, IconPencil, IconTrash } from '@tabler/icons-vue';
import type { RestorePoint } from '@sphalerite/core/model';
import {
  deletePointsEdit,
  goBackEdit,
  keepPointEdit,
  putPointsBackEdit,
  renamePointEdit,
} from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import ActionButton from '../components/ActionButton.vue';
import IconButton from '../components/IconButton.vue';
import TextField from '../components/TextField.vue';
import { useNotices } from '../stores/notices';
import { useSession } from '../stores/session';
import { counted, say } from '../words';

/** Moments worth going back to, kept apart from the history: those with a name of one's own, and those made by themselves before risky steps. */
const session = useSession();
const notices = useNotices();
const points = computed(() => [...(session.project?.restorePoints ?? [])].reverse());
const autos = computed(() => points.value.filter((p) => p.auto));
const name = ref('');
const renaming = ref<string | null>(null);
function keep(): void {
  if (!name.value.trim()) return;
  if (session.amend(keepPointEdit, { name: name.value })) name.value = '';
}
function rename(point: RestorePoint, to: string): void {
  renaming.value = null;
  session.amend(renamePointEdit, { point: point.id, name: to });
}
function remove(gone: readonly RestorePoint[]): void {
  if (!session.amend(deletePointsEdit, { points: gone.map((p) => p.id) })) return;
  notices.say(say('restore.deleted', { n: gone.length, name: gone[0]!.name }), {
    action: { label: 'Bring back', run: () => session.amend(putPointsBackEdit, { points: gone }) },
  });
}
const when = (at: number): string => {
  const d = new Date(at),
    today = d.toDateString() === new Date().toDateString();
  return `${today ? '' : `${d.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}, `}${d.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
};
const held = ({ project }: RestorePoint): string =>
  [
    counted(project.parts.length, 'parts'),
    counted(project.rig.bones.length, 'bones'),
    counted(project.clips.length, 'clips'),
  ].join(', ');
</script>

<template>
  <form class="keep" @submit.prevent="keep">
    <text-field v-model="name" label="Name of the restore point" placeholder="before the coat is cut…" @enter="keep" />
    <action-button look="primary" submit :disabled="!session.writable || !name.trim()">Keep this moment</action-button>
  </form>
  <p class="quiet">
    Kept with the project whatever becomes of its steps. Some are made by themselves before steps that are hard to take
    back; the newest twenty of those stay. Going back is a step like any other.
  </p>
  <p v-if="points.length === 0" class="quiet">None yet.</p>
  <ol v-else class="points">
    <li v-for="p in points" :key="p.id" :aria-label="p.name">
      <text-field
        v-if="renaming === p.id"
        :model-value="p.name"
        label="New name of the restore point"
        @change="(to) => rename(p, to)"
      />
      <span v-else class="name" :class="{ auto: p.auto }">{{ p.name }}</span>
      <span class="figures quiet">{{ when(p.at) }}</span>
      <span class="quiet held">{{ held(p) }}{{ p.auto ? ' · made by itself' : '' }}</span>
      <span class="acts">
        <action-button :disabled="!session.writable" @click="session.apply(goBackEdit, { point: p.id })"
          ><IconArrowBackUp aria-hidden="true" />Go back</action-button
        ><icon-button :icon="IconPencil" :label="`Rename ${p.name}`" @click="renaming = p.id" /><icon-button
          :icon="IconTrash"
          :label="`Delete ${p.name}`"
          @click="remove([p])"
        />
      </span>
    </li>
  </ol>
  <action-button v-if="autos.length > 1" look="link" @click="remove(autos)"
    >Delete the {{ autos.length }} made by themselves</action-button
  >
</template>

<style scoped>
.keep {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  margin: 12px 0 8px;
}
.points {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  max-height: 46vh;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 1px 10px;
  padding: 7px 4px;
  border-top: 1px solid var(--line);
  align-items: center;
}
.name {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.name.auto {
  font-weight: 500;
}
.held {
  font-size: 12px;
}
.acts {
  display: flex;
  gap: 4px;
  justify-content: flex-end;
}
</style>
