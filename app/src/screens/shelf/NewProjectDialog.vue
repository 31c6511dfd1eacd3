<script setup lang="ts">
import { MAX_EDGE } from '@sphalerite/core/voxel';
import { IconX } from '@tabler/icons-vue';
import { type Kind, KINDS } from '@sphalerite/core/model';
import { READY_PALETTES } from '@sphalerite/core/palette';
import { ElDialog } from 'element-plus';
import { onMounted, ref, shallowRef } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { type ReadyRig, listReadyRigs, removeReadyRig } from '../../storage/ready-rigs';
import { useNotices } from '../../stores/notices';
import type { NewProject } from './new-project';

const emit = defineEmits<{ close: []; create: [project: NewProject] }>();
const open = ref(true);
const name = ref('Untitled');
const kind = ref<Kind>('prop');
const size = ref<[number, number, number]>([16, 16, 16]);
// Terrain cubes get steps of their own and are begun there.
const kinds = KINDS.filter((k) => k !== 'terrain cube');
const palette = ref(READY_PALETTES[0]!.name);
const notices = useNotices();
const rigs = shallowRef<readonly ReadyRig[]>([]);
/** What it begins with: null for an empty volume. */
const rig = shallowRef<ReadyRig | null>(null);
const load = (): Promise<void> =>
  listReadyRigs()
    .then((list) => void (rigs.value = list))
    .catch(notices.fail);
onMounted(load);
function begin(with_: ReadyRig | null): void {
  rig.value = with_;
  if (with_) kind.value = with_.kind as Kind;
  if (with_ && /^Untitled|^New /.test(name.value)) name.value = `New ${with_.name.toLowerCase()}`;
}
async function forget(own: string): Promise<void> {
  await removeReadyRig(own);
  begin(null);
  await load();
}
const facts = (r: ReadyRig): string =>
  [`${r.bones} bones`, r.parts === 0 ? 'no parts' : `${r.parts} parts`, r.clips.join(', ').toLowerCase()]
    .filter(Boolean)
    .join(' · ');
const create = (): void =>
  emit('create', {
    name: name.value,
    kind: kind.value,
    size: [size.value[0], size.value[1], size.value[2]],
    palette: palette.value,
    rig: rig.value,
  });
</script>

<template>
  <el-dialog v-model="open" title="New project" width="480px" align-center @closed="$emit('close')">
    <form class="new" @submit.prevent="create">
      <label>Name<input v-model="name" class="text" maxlength="120" autofocus /></label>
      <fieldset>
        <legend>Kind</legend>
        <div class="segments">
          <button v-for="k in kinds" :key="k" type="button" :aria-pressed="kind === k" @click="kind = k">
            {{ k }}
          </button>
        </div>
      </fieldset>
      <fieldset>
        <legend>Begin with</legend>
        <div class="rigs" role="radiogroup" aria-label="Begin with">
          <button type="button" role="radio" :aria-checked="rig === null" @click="begin(null)">
            <b>An empty volume</b><small>cubes first, bones later</small>
          </button>
          <span v-for="r in rigs" :key="r.name" class="rig"
            ><button type="button" role="radio" :aria-checked="rig === r" :aria-label="r.name" @click="begin(r)">
              <b>{{ r.name }}</b><small>{{ facts(r) }}</small></button
            ><button
              v-if="'own' in r.from"
              type="button"
              class="bare forget"
              :aria-label="`Forget the ready rig ${r.name}`"
              title="Forget this ready rig"
              @click="forget(r.from.own)"
            >
              <IconX aria-hidden="true" /></button
          ></span>
        </div>
      </fieldset>
      <fieldset v-if="!rig">
        <legend>First volume, in cubes (up to {{ MAX_EDGE }} along each axis; it can grow later)</legend>
        <div class="row">
          <NumberField
            v-for="(a, i) in ['x', 'y', 'z'] as const"
            :key="a"
            :axis="a"
            :label="['W', 'H', 'D'][i]!"
            :name="['Width', 'Height', 'Depth'][i]!"
            :model-value="size[i]!"
            :min="1"
            :max="MAX_EDGE"
            @change="(v) => (size[i] = Math.round(v))"
          />
        </div>
      </fieldset>
      <fieldset v-if="!rig">
        <legend>Palette</legend>
        <div class="palettes" role="radiogroup" aria-label="Palette">
          <button
            v-for="r in READY_PALETTES"
            :key="r.name"
            type="button"
            role="radio"
            :aria-checked="palette === r.name"
            :aria-label="r.name"
            @click="palette = r.name"
          >
            <span class="name"
              ><b>{{ r.name }}</b
              ><small>{{ r.mood }}</small></span
            ><span class="strip" aria-hidden="true"
              ><i v-for="s in r.swatches" :key="s.byte" :style="{ background: s.colour }"
            /></span>
          </button>
        </div>
      </fieldset>
      <button type="submit" class="btn primary">Put it on the bench</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.new {
  display: grid;
  gap: 14px;
}
.new > label {
  display: grid;
  gap: 4px;
}
.text {
  height: 28px;
  padding: 0 8px;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--raised);
}
.rigs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  max-height: 200px;
  overflow-y: auto;
}
.rig {
  position: relative;
  display: grid;
}
.rigs button[role='radio'] {
  display: grid;
  gap: 1px;
  align-content: start;
  padding: 7px 9px 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  text-align: left;
}
.rigs button[role='radio']:hover {
  border-color: var(--line-strong);
}
.rigs button[aria-checked='true'] {
  border-color: var(--honey);
  background: var(--honey-soft);
}
.rigs b {
  font-weight: 600;
}
.rigs small {
  color: var(--quiet);
}
.forget {
  position: absolute;
  right: 4px;
  top: 4px;
  width: 20px;
  height: 20px;
}
.forget svg {
  width: 14px;
  height: 14px;
}
.palettes {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.palettes button {
  display: grid;
  gap: 5px;
  padding: 7px 9px 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  text-align: left;
}
.palettes button:hover {
  border-color: var(--line-strong);
}
.palettes button[aria-checked='true'] {
  border-color: var(--honey);
  background: var(--honey-soft);
}
.palettes .name {
  display: grid;
}
.palettes b {
  font-weight: 600;
}
.palettes small {
  color: var(--quiet);
}
.strip {
  display: flex;
  height: 14px;
  border-radius: 3px;
  overflow: hidden;
  border: 1px solid rgb(0 0 0 / 20%);
}
.strip i {
  flex: 1;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
legend {
  padding: 0 0 6px;
  color: var(--quiet);
}
</style>
