<script setup lang="ts">
import { IconFile3d } from '@tabler/icons-vue';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import FileButton from '../../components/FileButton.vue';
import { useArrivals } from '../../stores/arrivals';
import { useBringing } from './bring-state';
import GrownList from './GrownList.vue';
import SourcePicture from './SourcePicture.vue';

/** What is brought in, the files that belong to it, and what else can be made of it. */
const bringing = useBringing();
const arrivals = useArrivals();
const NAMES: Readonly<Record<string, string>> = {
  picture: 'A picture of cubes',
  height: 'A relief of heights',
  mesh: 'A mesh in cubes',
  slices: 'A stack of slices',
};
const isPicture = computed(() => ['picture', 'height', 'slices'].includes(bringing.waiting?.importer ?? ''));
const size = computed(() => bringing.made?.facts['pixels'] ?? [0, 0]);
const figure = (n: number): string => n.toLocaleString('en');
const fact = computed(() =>
  isPicture.value
    ? `${figure(size.value[0] ?? 0)} × ${figure(size.value[1] ?? 0)}`
    : bringing.made?.facts['points']
      ? `${figure(bringing.made.facts['points'][0]!)} points`
      : `${figure(bringing.made?.facts['triangles']?.[0] ?? 0)} triangles`,
);
const beside = computed(() => bringing.waiting?.find.files.slice(1) ?? []);
const missing = computed(
  () => bringing.made?.notes.filter((n) => n.code === 'fileMissing').map((n) => n.about.split(/[\\/]/).at(-1)!) ?? [],
);
async function colours(files: readonly File[]): Promise<void> {
  const f = files[0]!;
  bringing.add({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) }, { colours: 'own' });
}
</script>

<template>
  <grown-list v-if="!bringing.file" />
  <div v-else-if="bringing.waiting" class="source">
    <div class="panel-head tray-head">
      <h2>Bring in</h2>
      <span v-if="arrivals.behind.length > 0" class="quiet figures">{{ arrivals.behind.length }} more after it</span>
    </div>
    <source-picture v-if="isPicture" />
    <div v-else class="mesh"><icon-file3d :size="34" :stroke-width="1.4" /></div>
    <p class="quiet facts">{{ bringing.file.name }} · {{ fact }}</p>
    <template v-if="!isPicture && (beside.length > 0 || missing.length > 0)">
      <h3 class="head">With it</h3>
      <ul class="files">
        <li v-for="f in beside" :key="f.name" class="quiet">{{ f.name }}</li>
        <li v-for="m in missing" :key="m" class="missing" data-tip="Drop it on the window, then it is used">
          {{ m }} is missing
        </li>
      </ul>
    </template>
    <template v-if="bringing.waiting.importer === 'height'">
      <h3 class="head">Colours from</h3>
      <p v-if="beside[0]" class="quiet facts">{{ beside[0].name }}</p>
      <file-button class="other" accept=".png,.jpg,.jpeg,.webp,.gif" @files="colours">{{
        beside[0] ? 'Another picture…' : 'A picture…'
      }}</file-button>
    </template>
    <template v-if="bringing.waiting.uses.length > 1">
      <h3 class="head">Bring it in as</h3>
      <action-button
        v-for="u in bringing.waiting.uses"
        :key="u.importer"
        class="use"
        :on="u.importer === bringing.waiting.importer"
        @click="bringing.use(u.importer)"
        >{{ NAMES[u.importer] ?? u.does }}</action-button
      >
    </template>
  </div>
</template>

<style scoped>
.source {
  display: grid;
  gap: 8px;
  padding-bottom: 12px;
}
.source > :not(.tray-head) {
  margin: 0 12px;
}
.mesh {
  display: grid;
  place-items: center;
  height: 92px;
  color: var(--quiet);
  border-radius: 6px;
  background: var(--ground);
}
.head {
  margin-top: 10px !important;
}
.use + .use {
  margin-top: 0;
}
.facts {
  overflow-wrap: anywhere;
}
.files {
  display: grid;
  gap: 3px;
  padding: 0;
  list-style: none;
  overflow-wrap: anywhere;
}
.missing {
  color: var(--danger);
}
</style>
