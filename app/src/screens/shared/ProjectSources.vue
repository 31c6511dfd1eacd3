<script setup lang="ts">
import type { Project } from '@sphalerite/core/model';
import { onMounted, ref, shallowRef } from 'vue';
import { readProject } from '../../shell/files/project-files';
import { type ReadyRig, listReadyRigs, readyRigFile } from '../../storage/ready-rigs';
import { listShelf, readFromShelf } from '../../storage/shelf';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';

/** Projects that something may be taken from: ready rigs, the shelf, a file. */
const emit = defineEmits<{ take: [project: Project] }>();
const session = useSession();
const notices = useNotices();
const ready = shallowRef<readonly ReadyRig[]>([]);
const shelf = ref<{ id: string; name: string }[]>([]);
const chosen = ref('');
const busy = ref(false);
const picker = ref<HTMLInputElement>();

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
function takeFile(files: FileList | null): void {
  const f = files?.[0];
  if (f) void take(f.name, async () => readProject(new Uint8Array(await f.arrayBuffer()), f.name));
}
</script>

<template>
  <section aria-label="From">
    <h3>From</h3>
    <div class="sources">
      <button
        v-for="r in ready"
        :key="r.name"
        type="button"
        class="btn"
        :class="{ on: chosen === r.name }"
        :disabled="busy"
        @click="take(r.name, async () => readProject(await readyRigFile(r)))"
      >
        {{ r.name }}
      </button>
      <button
        v-for="s in shelf"
        :key="s.id"
        type="button"
        class="btn"
        :class="{ on: chosen === s.name }"
        :disabled="busy"
        @click="take(s.name, () => readFromShelf(s.id))"
      >
        {{ s.name }}
      </button>
      <button type="button" class="btn" :disabled="busy" @click="picker?.click()">A file…</button>
      <input
        ref="picker"
        class="visually-hidden"
        type="file"
        accept=".sphal"
        aria-label="Project file to take from"
        tabindex="-1"
        @change="takeFile(($event.target as HTMLInputElement).files)"
      />
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
