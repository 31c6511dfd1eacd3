<script setup lang="ts">
import type { Project } from '@sphalerite/core/model';
import { onMounted, ref, shallowRef } from 'vue';
import { readProject } from './project-files';
import { type ReadyRig, listReadyRigs, readyRigFile } from '../../storage/ready-rigs';
import { listShelf, readFromShelf } from '../../storage/shelf';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import FileButton from '../../components/FileButton.vue';
import ActionButton from '../../components/ActionButton.vue';

/** Projects that something may be taken from: ready rigs, the shelf, a file. */
const emit = defineEmits<{ take: [project: Project] }>();
const session = useSession();
const notices = useNotices();
const ready = shallowRef<readonly ReadyRig[]>([]);
const shelf = ref<{ id: string; name: string }[]>([]);
const chosen = ref('');
const busy = ref(false);

onMounted(async () => {
  try {
    ready.value = await listReadyRigs();
    shelf.value = (await listShelf())
      .filter((r) => r.binned === null && r.id !== session.project?.id)
      .map((r) => ({ id: r.id, name: r.name }));
  } catch (e) {
    notices.fail(e);
  }
});
async function take(name: string, get: () => Promise<Project>): Promise<void> {
  busy.value = true;
  try {
    const p = await get();
    chosen.value = name;
    emit('take', p);
  } catch (e) {
    notices.fail(e);
  } finally {
    busy.value = false;
  }
}
function takeFile([f]: File[]): void {
  if (f) void take(f.name, async () => readProject(new Uint8Array(await f.arrayBuffer()), f.name));
}
</script>

<template>
  <section aria-label="From">
    <h3>From</h3>
    <div class="sources">
      <action-button
        v-for="r in ready"
        :key="r.name"
        :on="chosen === r.name"
        :disabled="busy"
        @click="take(r.name, async () => readProject(await readyRigFile(r)))"
      >
        {{ r.name }}
      </action-button>
      <action-button
        v-for="s in shelf"
        :key="s.id"
        :on="chosen === s.name"
        :disabled="busy"
        @click="take(s.name, () => readFromShelf(s.id))"
      >
        {{ s.name }}
      </action-button>
      <file-button accept=".sphal" :disabled="busy" @files="takeFile">A file…</file-button>
    </div>
    <p v-if="chosen === ''" class="quiet">
      {{ busy ? 'Reading…' : 'Choose a ready rig, a project of the shelf, or a project file.' }}
    </p>
  </section>
</template>

<style scoped>
h3 {
  margin-bottom: 6px;
}
.sources {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
p {
  padding-top: 8px;
}
</style>
