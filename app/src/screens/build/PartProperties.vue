<script setup lang="ts">
import { IconArrowsMinimize, IconFocus2, IconUsers } from '@tabler/icons-vue';
import { type Vec3 } from '@sphalerite/core/math';
import { renamePartEdit, resizePartEdit, setPivotEdit, shrinkPartEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import NameField from '../../components/NameField.vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { useBuild } from './build-state';

const session = useSession();
const build = useBuild();
const { settings } = useSettings();
const part = computed(() => session.part);
const AXES = ['x', 'y', 'z'] as const;
const bone = computed(() => {
  const m = session.project?.rig.mounts.find((o) => o.part === part.value?.id);
  return session.project?.rig.bones.find((b) => b.id === m?.bone)?.name ?? null;
});

/** Width and depth grow on both sides, so that a symmetric part stays centred; height grows upwards. */
function resize(axis: number, size: number): void {
  const p = part.value!;
  const by = Math.round(size) - p.bounds.size[axis]!;
  const min = p.bounds.min.map((v, i) => (i === axis && axis !== 1 ? v - Math.floor(by / 2) : v)) as unknown as Vec3;
  const next = p.bounds.size.map((v, i) => (i === axis ? v + by : v)) as unknown as Vec3;
  session.apply(resizePartEdit, { part: p.id, bounds: { min, size: next } });
}
function movePivot(axis: number, cubes: number): void {
  const p = part.value!;
  session.apply(setPivotEdit, { part: p.id, pivot: p.pivot.map((v, i) => (i === axis ? Math.round(cubes * 2) : v)) as unknown as Vec3 });
}
</script>

<template>
  <div v-if="part">
    <section class="panel-section">
      <div class="panel-head"><NameField :name="part.name" label="Name of the part" :disabled="!session.writable" @rename="(name) => session.apply(renamePartEdit, { part: part!.id, name })" /><span class="quiet">part</span></div>
      <div class="row"><NumberField v-for="(a, i) in AXES" :key="a" :axis="a" :label="['W', 'H', 'D'][i]!" :name="['Width', 'Height', 'Depth'][i]!" :model-value="part.bounds.size[i]!" :min="1" :max="256" @change="(v) => resize(i, v)" /></div>
      <button type="button" class="btn" @click="session.apply(shrinkPartEdit, { part: part!.id })"><IconArrowsMinimize aria-hidden="true" />Shrink to fit</button>
    </section>
    <section class="panel-section">
      <div class="panel-head"><h2>Pivot</h2><span class="quiet">half cubes</span></div>
      <div class="row"><NumberField v-for="(a, i) in AXES" :key="a" :axis="a" :label="a.toUpperCase()" :name="`Pivot ${a.toUpperCase()}`" :model-value="part.pivot[i]! / 2" :step="0.5" @change="(v) => movePivot(i, v)" /></div>
      <p class="quiet">{{ bone ? `Mounted on ${bone}. The cubes keep their place when the pivot moves.` : 'Not mounted on a bone.' }}</p>
    </section>
    <section class="panel-section">
      <div class="panel-head"><h2>Layers</h2></div>
      <button v-for="l in [...part.layers].reverse()" :key="l.id" type="button" class="layer" :class="{ on: l.id === session.layer?.id }" @click="session.choose({ layer: l.id })"><span>{{ l.name }}</span><span class="figures quiet">{{ l.grid.count.toLocaleString('en') }}</span></button>
    </section>
    <section class="panel-section">
      <h2>Beside it</h2>
      <div class="row two">
        <button type="button" class="btn" :class="{ on: settings.neighbours && !build.isolate }" :aria-pressed="settings.neighbours" @click="settings.neighbours = !settings.neighbours"><IconUsers aria-hidden="true" />Neighbours</button>
        <button type="button" class="btn" :class="{ on: build.isolate }" :aria-pressed="build.isolate" @click="build.isolate = !build.isolate"><IconFocus2 aria-hidden="true" />Isolate</button>
      </div>
    </section>
  </div>
  <p v-else class="none quiet">Choose a part on the left, or make a new one.</p>
</template>

<style scoped>
.two { flex-wrap: wrap; }
.two .btn { flex: 1 1 90px; min-width: 0; }
.layer { display: flex; justify-content: space-between; padding: 4px 8px; border-radius: 4px; }
.layer.on { background: var(--honey-soft); }
.none { padding: 16px; }
</style>
