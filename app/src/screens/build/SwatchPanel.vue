<script setup lang="ts">
import { IconPlus } from '@tabler/icons-vue';
import { addSwatchEdit } from '@sphalerite/core/project';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';

const session = useSession();
const build = useBuild();
const palette = computed(() => build.palette);
const swatch = computed(() => build.swatch);
const editing = ref(false);
const inHand = ref<HTMLElement>();
// The editor comes when it is first opened.
const SwatchEditor = defineAsyncComponent(() => import('./SwatchEditor.vue'));
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
      <button ref="inHand" type="button" class="inhand" :aria-expanded="editing" @click="editing = !editing" :aria-label="`Edit swatch ${swatch?.name}`" title="Edit this swatch">
            <span class="fill" :style="{ background: swatch?.colour }" /><b>{{ swatch?.name }}</b><small class="figures">{{ surface }}</small>
          </button>
      <SwatchEditor v-if="editing && swatch && inHand" :anchor="inHand" :palette="palette.id" :swatch="swatch" @close="editing = false" />
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
.swatch.plus { display: grid; place-items: center; border-style: dashed; border-color: var(--line-strong); color: var(--quiet); background: none; }
.swatch.plus svg { width: 15px; height: 15px; }
</style>
