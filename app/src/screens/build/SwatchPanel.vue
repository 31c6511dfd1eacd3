<script setup lang="ts">
import { IconPlus } from '@tabler/icons-vue';
import { readHex } from '@sphalerite/core/palette';
import { addSwatchEdit, editSwatchEdit } from '@sphalerite/core/project';
import { ElPopover } from 'element-plus';
import { computed, ref, watch } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';

const session = useSession();
const build = useBuild();
const notices = useNotices();
const palette = computed(() => build.palette);
const swatch = computed(() => build.swatch);
const hex = ref('');
const name = ref('');
watch(swatch, (s) => {
  hex.value = s?.colour ?? '';
  name.value = s?.name ?? '';
}, { immediate: true });

const change = (more: Parameters<typeof editSwatchEdit.run>[1]['change']): unknown => palette.value && swatch.value && session.apply(editSwatchEdit, { palette: palette.value.id, byte: swatch.value.byte, change: more });
function setHex(text: string): void {
  const colour = readHex(text);
  if (colour) change({ colour });
  else {
    notices.say(`“${text}” is not a colour. Write it as #rrggbb, or by a name such as teal.`, { kind: 'error' });
    hex.value = swatch.value?.colour ?? '';
  }
}
function add(): void {
  if (!palette.value) return;
  session.apply(addSwatchEdit, { palette: palette.value.id, name: `${swatch.value?.name ?? 'Swatch'} copy`, colour: swatch.value?.colour ?? '#888888' });
  build.byte = session.palette?.swatches.at(-1)?.byte ?? build.byte;
}
const surface = computed(() => {
  const s = swatch.value;
  if (!s) return '';
  return [s.emissive > 0 ? `glow ${s.emissive}` : '', s.metalness > 0 ? `metal ${s.metalness}` : '', s.opacity < 1 ? `clear ${(1 - s.opacity).toFixed(1)}` : '', `rough ${s.roughness}`].filter(Boolean).join(' · ');
});
</script>

<template>
  <section v-if="palette" class="swatches" aria-label="Swatches">
    <div class="panel-head"><h3>{{ palette.name }} palette</h3><span class="figures quiet">{{ palette.swatches.length }} of 255</span></div>
    <div class="body">
      <el-popover placement="top-start" :width="262" trigger="click">
        <template #reference>
          <button type="button" class="inhand" :aria-label="`Edit swatch ${swatch?.name}`" title="Edit this swatch">
            <span class="fill" :style="{ background: swatch?.colour }" /><b>{{ swatch?.name }}</b><small class="figures">{{ surface }}</small>
          </button>
        </template>
        <div v-if="swatch" class="edit" @keydown.stop>
          <label>Name<input v-model="name" class="text" maxlength="120" @change="change({ name })" /></label>
          <div class="row"><input type="color" :value="swatch.colour" aria-label="Colour" @change="(e) => setHex((e.target as HTMLInputElement).value)" /><input v-model="hex" class="text figures" aria-label="Colour as hex" @change="setHex(hex)" /></div>
          <div class="row"><NumberField label="glow" :model-value="swatch.emissive" :min="0" :max="100" :step="0.5" @change="(v) => change({ emissive: v })" /><NumberField label="rough" :model-value="swatch.roughness" :min="0" :max="1" :step="0.1" @change="(v) => change({ roughness: v })" /></div>
          <div class="row"><NumberField label="metal" :model-value="swatch.metalness" :min="0" :max="1" :step="0.1" @change="(v) => change({ metalness: v })" /><NumberField label="solid" name="Opacity" :model-value="swatch.opacity" :min="0" :max="1" :step="0.1" @change="(v) => change({ opacity: v })" /></div>
          <label class="helper"><input type="checkbox" :checked="swatch.helper" @change="change({ helper: !swatch.helper })" />helper: a spacer or mark, never counted or shipped</label>
        </div>
      </el-popover>
      <div class="grid" role="radiogroup" aria-label="Swatch in hand">
        <button
          v-for="s in palette.swatches" :key="s.byte" type="button" role="radio" class="swatch" :class="{ on: s.byte === swatch?.byte, glow: s.emissive > 0, hatched: s.helper }" :style="{ background: s.colour }"
          :aria-checked="s.byte === swatch?.byte" :aria-label="s.name" :title="`${s.name} · ${s.colour}`" @click="build.byte = s.byte"
        />
        <button type="button" class="swatch plus" aria-label="New swatch" title="New swatch" @click="add"><IconPlus aria-hidden="true" /></button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.body { display: flex; gap: 12px; margin-top: 5px; align-items: flex-start; }
.inhand { display: grid; justify-items: start; align-content: start; flex: none; width: 96px; border: 1px solid var(--line); border-radius: var(--radius); overflow: hidden; text-align: left; background: var(--raised); }
.inhand:hover { border-color: var(--line-strong); }
.fill { width: 100%; height: 46px; }
.inhand b { padding: 3px 8px 0; font-size: 12px; font-weight: 600; max-width: 100%; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.inhand small { padding: 0 8px 5px; font-size: 10px; color: var(--quiet); }
.grid { display: flex; flex-wrap: wrap; gap: 5px; }
.swatch { position: relative; width: 24px; height: 24px; border-radius: 5px; border: 1px solid rgb(0 0 0 / 22%); }
.swatch.on { outline: 2px solid var(--honey); outline-offset: 2px; border-color: var(--ink); }
.swatch.glow::after { content: ''; position: absolute; right: 3px; top: 3px; width: 7px; height: 7px; border-radius: 50%; background: #ffffff; border: 1px solid #6b4122; }
.swatch.hatched { background-image: repeating-linear-gradient(45deg, #23201e 0 3px, transparent 3px 7px) !important; }
.edit .helper { display: flex; gap: 6px; align-items: center; }
.swatch.plus { display: grid; place-items: center; border-style: dashed; border-color: var(--line-strong); color: var(--quiet); background: none; }
.swatch.plus svg { width: 15px; height: 15px; }
.edit { display: grid; gap: 8px; }
.edit label { display: grid; gap: 3px; }
.text { height: 28px; width: 100%; padding: 0 8px; border: 1px solid var(--line); border-radius: var(--radius); background: var(--raised); }
input[type='color'] { width: 44px; height: 28px; padding: 0; border: 1px solid var(--line); border-radius: var(--radius); background: none; flex: none; }
</style>
