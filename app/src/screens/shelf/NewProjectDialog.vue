<script setup lang="ts">
import { type Kind, KINDS } from '@sphalerite/core/model';
import { READY_PALETTES } from '@sphalerite/core/palette';
import { ElDialog } from 'element-plus';
import { ref } from 'vue';
import NumberField from '../../components/NumberField.vue';
import type { NewProject } from './new-project';

const emit = defineEmits<{ close: []; create: [project: NewProject] }>();
const open = ref(true);
const name = ref('Untitled');
const kind = ref<Kind>('prop');
const size = ref<[number, number, number]>([16, 16, 16]);
// Terrain cubes get steps of their own and are begun there.
const kinds = KINDS.filter((k) => k !== 'terrain cube');
const palette = ref(READY_PALETTES[0]!.name);
const create = (): void => emit('create', { name: name.value, kind: kind.value, size: [size.value[0], size.value[1], size.value[2]], palette: palette.value });
</script>

<template>
  <el-dialog v-model="open" title="New project" width="480px" align-center @closed="$emit('close')">
    <form class="new" @submit.prevent="create">
      <label>Name<input v-model="name" class="text" maxlength="120" autofocus /></label>
      <fieldset><legend>Kind</legend><div class="segments"><button v-for="k in kinds" :key="k" type="button" :aria-pressed="kind === k" @click="kind = k">{{ k }}</button></div></fieldset>
      <fieldset><legend>First volume, in cubes (up to 256 along each axis; it can grow later)</legend>
        <div class="row">
          <NumberField v-for="(a, i) in (['x', 'y', 'z'] as const)" :key="a" :axis="a" :label="['W', 'H', 'D'][i]!" :name="['Width', 'Height', 'Depth'][i]!" :model-value="size[i]!" :min="1" :max="256" @change="(v) => (size[i] = Math.round(v))" />
        </div>
      </fieldset>
      <fieldset><legend>Palette</legend>
        <div class="palettes" role="radiogroup" aria-label="Palette">
          <button v-for="r in READY_PALETTES" :key="r.name" type="button" role="radio" :aria-checked="palette === r.name" :aria-label="r.name" @click="palette = r.name"><span class="name"><b>{{ r.name }}</b><small>{{ r.mood }}</small></span><span class="strip" aria-hidden="true"><i v-for="s in r.swatches" :key="s.byte" :style="{ background: s.colour }" /></span></button>
        </div>
      </fieldset>
      <button type="submit" class="btn primary">Put it on the bench</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.new { display: grid; gap: 14px; }
.new > label { display: grid; gap: 4px; }
.text { height: 28px; padding: 0 8px; border: 1px solid var(--line-strong); border-radius: var(--radius); background: var(--raised); }
.palettes { display: grid; grid-template-columns: 1fr 1fr; gap: 8px; }
.palettes button { display: grid; gap: 5px; padding: 7px 9px 8px; border: 1px solid var(--line); border-radius: var(--radius); background: var(--raised); text-align: left; }
.palettes button:hover { border-color: var(--line-strong); }
.palettes button[aria-checked='true'] { border-color: var(--honey); background: var(--honey-soft); }
.palettes .name { display: grid; }
.palettes b { font-weight: 600; }
.palettes small { color: var(--quiet); }
.strip { display: flex; height: 14px; border-radius: 3px; overflow: hidden; border: 1px solid rgb(0 0 0 / 20%); }
.strip i { flex: 1; }
fieldset { border: 0; margin: 0; padding: 0; display: grid; gap: 6px; }
legend { padding: 0 0 6px; color: var(--quiet); }
</style>
