<script setup lang="ts">
import { facesByPlacement } from '@sphalerite/core/mesh';
import { gather } from '@sphalerite/core/scene';
import { computed, shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';
import { placementName } from './shown';

/** What of the scene has the most faces, told a little after the hand rests. */
const session = useSession();
const MOST = 6;
const rows = shallowRef<readonly { readonly id: string; readonly name: string; readonly faces: number }[]>([]);
let timer: ReturnType<typeof setTimeout> | undefined;
watch(
  () => [session.project, session.scene?.id] as const,
  () => {
    clearTimeout(timer);
    timer = setTimeout(count, rows.value.length > 0 ? 500 : 0);
  },
  { immediate: true },
);
function count(): void {
  const { project, scene } = session;
  if (!project || !scene) return void (rows.value = []);
  const byId = new Map(scene.placements.flat().map((p) => [p.id, p]));
  rows.value = facesByPlacement(scene, gather(project, { of: 'scene', scene: scene.id })).map((c) => ({
    id: c.placement,
    name: placementName(project, byId.get(c.placement)!),
    faces: c.faces,
  }));
}
const all = computed(() => rows.value.reduce((n, r) => n + r.faces, 0));
const top = computed(() => {
  const first = rows.value.slice(0, MOST),
    rest = rows.value.slice(MOST).reduce((n, r) => n + r.faces, 0);
  return rest > 0 ? [...first, { id: '', name: 'the rest', faces: rest }] : first;
});
const share = (faces: number): string => `${(100 * faces) / Math.max(1, ...top.value.map((t) => t.faces))}%`;
</script>

<template>
  <div>
    <div class="head">
      <h3>What it costs</h3>
      <span class="quiet figures">{{ all.toLocaleString('en') }} faces</span>
    </div>
    <p v-for="r in top" :key="r.id" class="cost">
      <span class="name">{{ r.name }}</span><span class="bar" aria-hidden="true"
        ><i :style="{ width: share(r.faces) }" /></span
      ><span class="figures">{{ r.faces.toLocaleString('en') }}</span>
    </p>
    <p v-if="top.length === 0" class="quiet">Nothing stands in the scene yet.</p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  margin-bottom: 4px;
}
.cost {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) 64px;
  gap: 10px;
  align-items: center;
  margin: 3px 0;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bar {
  height: 7px;
  border-radius: 4px;
  background: color-mix(in srgb, var(--honey) 16%, transparent);
}
.bar i {
  display: block;
  height: 100%;
  border-radius: 4px;
  background: var(--honey);
}
.figures {
  text-align: right;
}
</style>
