<script setup lang="ts">
import {
  IconArrowBackUp,
  IconCopy,
  IconCube,
  IconDownload,
  IconFileImport,
  IconFolderOpen,
  IconPencil,
  IconPlus,
  IconTrash,
} from '@tabler/icons-vue';
import { type Project, makeProject } from '@sphalerite/core/model';
import { READY_PALETTES } from '@sphalerite/core/palette';
import { computed, defineAsyncComponent, onMounted, onUnmounted, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { readProject, saveProjectFile } from '../../shell/files/project-files';
import {
  type ShelfRow,
  freshId,
  listShelf,
  putOnShelf,
  readFromShelf,
  removeFromShelf,
  setBinned,
} from '../../storage/shelf';
import { useArrivals } from '../../stores/arrivals';
import { useNotices } from '../../stores/notices';
import type { NewProject } from './new-project';
import { renameOnShelf } from './rename-on-shelf';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import FileButton from '../../components/FileButton.vue';
import TextField from '../../components/TextField.vue';
import { firstPictureStands } from '../../components/later';
import { counted, say } from '../../words';

const NewProjectDialog = defineAsyncComponent(() => import('./NewProjectDialog.vue'));
const router = useRouter();
const notices = useNotices();
const arrivals = useArrivals();
const rows = ref<ShelfRow[]>([]);
const pictures = ref<Record<string, string>>({});
const showBin = ref(false);
const busy = ref('');
const creating = ref(false);
const renaming = ref<string | null>(null);

const shown = computed(() => rows.value.filter((r) => (r.binned !== null) === showBin.value));
const binned = computed(() => rows.value.filter((r) => r.binned !== null).length);

async function refresh(): Promise<void> {
  rows.value = await listShelf();
  const next: Record<string, string> = {};
  for (const r of rows.value) if (r.thumbnail) next[r.id] = URL.createObjectURL(r.thumbnail);
  for (const url of Object.values(pictures.value)) URL.revokeObjectURL(url);
  pictures.value = next;
}
onUnmounted(() => Object.values(pictures.value).forEach((url) => URL.revokeObjectURL(url)));
async function work(what: string, f: () => Promise<void>): Promise<void> {
  busy.value = what;
  try {
    await f();
    await refresh();
  } catch (e) {
    notices.fail(e);
  } finally {
    busy.value = '';
  }
}
onMounted(async () => {
  document.title = 'Shelf · Sphalerite';
  await work('Opening the shelf', async () => firstPictureStands());
});
const open = (id: string): unknown => router.push({ name: 'bench', params: { id, step: 'build' } });

const create = ({ name, kind, size, palette, rig }: NewProject): Promise<void> =>
  work('Making the project', async () => {
    const project: Project = rig
      ? {
          ...(await readProject(await (await import('../../storage/ready-rigs')).readyRigFile(rig))),
          id: freshId(),
          name: name.trim() || rig.name,
          kind,
        }
      : makeProject(
          freshId(),
          name.trim() || 'Untitled',
          freshId,
          kind,
          size,
          READY_PALETTES.find((r) => r.name === palette),
        );
    await putOnShelf(project);
    creating.value = false;
    void router.push({ name: 'bench', params: { id: project.id, step: rig ? 'rig' : 'build' } });
  });
const duplicate = (r: ShelfRow): Promise<void> =>
  work('Duplicating', async () => {
    const p = await readFromShelf(r.id);
    await putOnShelf({ ...p, id: freshId(), name: `${p.name} copy` });
  });
const rename = (r: ShelfRow, name: string): Promise<void> =>
  work('Renaming', async () => {
    if (name.trim()) await renameOnShelf(r.id, name.trim());
  });
const toBin = (r: ShelfRow): Promise<void> =>
  work('To the bin', async () => {
    await setBinned(r.id, Date.now());
    notices.say(say('bin.in', { name: r.name }), { action: { label: 'Restore', run: () => void restore(r) } });
  });
const restore = (r: ShelfRow): Promise<void> => work('Restoring', () => setBinned(r.id, null));
const erase = (r: ShelfRow): Promise<void> => work('Deleting', () => removeFromShelf(r.id));
const save = (r: ShelfRow): Promise<void> => work('Saving', async () => saveProjectFile(await readFromShelf(r.id)));
const importFiles = (files: Iterable<File>): Promise<void> =>
  work('Reading the file', async () => (await import('../../shell/files/dispatcher')).takeFiles(files));
watch(() => arrivals.shelved, refresh);
const when = (t: number): string =>
  new Date(t).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
</script>

<template>
  <main class="shelf">
    <header>
      <img src="/icon.svg" alt="" width="34" height="34" />
      <div>
        <h1>{{ showBin ? 'The bin' : 'The shelf' }}</h1>
        <p class="quiet">
          {{
            showBin
              ? 'What was deleted waits here, with its whole history.'
              : 'Everything you are making. It is kept in this browser and saves itself.'
          }}
        </p>
      </div>
      <span class="gap" />
      <action-button :on="showBin" @click="showBin = !showBin">
        <IconTrash aria-hidden="true" />Bin<span class="figures">{{ binned }}</span>
      </action-button>
      <file-button accept=".sphal" multiple @files="importFiles"
        ><IconFileImport aria-hidden="true" />Open a file…</file-button
      >
      <action-button look="primary" @click="creating = true">
        <IconPlus aria-hidden="true" />New project
      </action-button>
    </header>
    <p v-if="busy" class="quiet" role="status">{{ busy }}…</p>
    <ul v-if="shown.length > 0" class="cards">
      <li v-for="r in shown" :key="r.id" class="card" :data-project="r.name">
        <action-button
          look="bare"
          class="picture"
          :aria-label="showBin ? `Restore ${r.name}` : `Open ${r.name}`"
          @click="showBin ? restore(r) : open(r.id)"
        >
          <img v-if="pictures[r.id]" :src="pictures[r.id]" :alt="`Picture of ${r.name}`" /><IconCube
            v-else
            aria-hidden="true"
          />
        </action-button>
        <div class="about">
          <text-field
            v-if="renaming === r.id"
            :model-value="r.name"
            label="Name"
            eager
            @change="(name) => rename(r, name)"
            @leave="renaming = null"
          />
          <action-button v-else look="bare" class="name" @click="showBin ? restore(r) : open(r.id)"
            ><b>{{ r.name }}</b></action-button
          >
          <small class="quiet">{{ r.kind }} · {{ counted(r.cubes, 'cubes') }} · {{ when(r.modified) }}</small>
        </div>
        <div class="acts">
          <template v-if="!showBin">
            <icon-button :icon="IconFolderOpen" :label="`Open ${r.name}`" tip="Open" @click="open(r.id)" />
            <icon-button :icon="IconPencil" :label="`Rename ${r.name}`" tip="Rename" @click="renaming = r.id" />
            <icon-button :icon="IconCopy" :label="`Duplicate ${r.name}`" tip="Duplicate" @click="duplicate(r)" />
            <icon-button
              :icon="IconDownload"
              :label="`Save ${r.name} as a file`"
              tip="Save a project file"
              @click="save(r)"
            />
            <icon-button :icon="IconTrash" :label="`Move ${r.name} to the bin`" tip="To the bin" @click="toBin(r)" />
          </template>
          <template v-else>
            <action-button @click="restore(r)"><IconArrowBackUp aria-hidden="true" />Restore</action-button>
            <action-button @click="erase(r)">Delete for good</action-button>
          </template>
        </div>
      </li>
    </ul>
    <div v-else-if="!busy" class="empty">
      <IconCube aria-hidden="true" />
      <p>
        {{
          showBin
            ? 'The bin is empty.'
            : 'The shelf is empty. Begin something new, or drop a project file anywhere here.'
        }}
      </p>
    </div>
    <NewProjectDialog v-if="creating" @close="creating = false" @create="create" />
  </main>
</template>

<style scoped>
.shelf {
  height: 100%;
  overflow: auto;
  padding: 26px max(28px, calc(50vw - 600px)) 40px;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 24px;
}
h1 {
  font-size: 20px;
}
.gap {
  flex: 1;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 18px;
  list-style: none;
  margin: 0;
  padding: 0;
}
.card {
  display: grid;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 10px;
  overflow: hidden;
  transition: border-color var(--quick);
}
.card:hover {
  border-color: var(--honey);
}
.picture.el-button {
  display: grid;
  place-items: center;
  height: 190px;
  border-radius: 0;
  background: linear-gradient(var(--view-top), var(--view-bottom));
}
.picture img {
  width: 170px;
  height: 170px;
  object-fit: contain;
}
.picture.el-button :deep(svg) {
  width: 60px;
  height: 60px;
  color: var(--quiet);
  stroke-width: 1;
}
.about {
  display: grid;
  gap: 2px;
  padding: 10px 12px 2px;
}
.name.el-button {
  justify-content: start;
  height: auto;
  padding: 0;
  text-align: left;
}
.name.el-button:hover b {
  text-decoration: underline;
}
.about b {
  font-size: 15px;
  font-weight: 600;
}
.acts {
  display: flex;
  gap: 2px;
  padding: 4px 8px 8px;
}
.empty {
  display: grid;
  justify-items: center;
  gap: 10px;
  padding: 12vh 0;
  color: var(--quiet);
}
.empty svg {
  width: 64px;
  height: 64px;
  stroke-width: 1;
}
</style>
