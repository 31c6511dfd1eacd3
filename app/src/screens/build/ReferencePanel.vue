<script setup lang="ts">
import { IconEye, IconEyeOff, IconTrash } from '@tabler/icons-vue';
import { type Reference, REFERENCE_PLANES, partContent } from '@sphalerite/core/model';
import { addReferenceEdit, deleteReferenceEdit, setReferenceEdit } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';
import { PLANE_AXIS } from './tints';
import { outlineAxes } from '@sphalerite/core/sculpt';

const session = useSession();
const build = useBuild();
const notices = useNotices();
const input = ref<HTMLInputElement>();
const list = computed(() => (session.project?.references ?? []).filter((r) => r.part === session.part?.id));
/** Pictures larger than this are made smaller on the way in: a part is at most 256 cubes. */
const MOST_PIXELS = 1024;

async function take(e: Event): Promise<void> {
  const field = e.target as HTMLInputElement;
  const file = field.files?.[0];
  field.value = '';
  if (file) await add(file);
}
async function add(file: File): Promise<void> {
  const part = session.part;
  if (!part) return;
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    notices.say(`“${file.name}” cannot be read as a picture. Use a PNG, JPEG or WebP file.`, { kind: 'error' });
    return;
  }
  const k = Math.min(1, MOST_PIXELS / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(bitmap.width * k));
  canvas.height = Math.max(1, Math.round(bitmap.height * k));
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  const b = partContent(part) ?? part.bounds;
  // As high as what is there, standing on the floor, in the middle, in whole cubes.
  const height = Math.max(1, b.size[1]), width = Math.max(1, Math.round((height * bitmap.width) / bitmap.height));
  session.apply(addReferenceEdit, { name: file.name.slice(0, 60), part: part.id, plane: 'front', image: canvas.toDataURL('image/png'), at: [Math.round(b.min[0] + b.size[0] / 2 - width / 2), part.bounds.min[1]], size: [width, height] });
}
const change = (r: Reference, more: Partial<Reference>): unknown => session.apply(setReferenceEdit, { reference: r.id, change: more });
function plane(r: Reference, p: Reference['plane']): void {
  const part = session.part!;
  const [u, v] = outlineAxes(PLANE_AXIS[p]);
  change(r, { plane: p, at: [Math.round(part.bounds.min[u] + part.bounds.size[u] / 2 - r.size[0] / 2), p === 'top' ? Math.round(part.bounds.min[v] + part.bounds.size[v] / 2 - r.size[1] / 2) : part.bounds.min[v]] });
}
/** The height follows the width. */
const widen = (r: Reference, w: number): unknown => change(r, { size: [Math.round(w), Math.max(1, Math.round((w * r.size[1]) / r.size[0]))] });
defineExpose({ add });
</script>

<template>
  <div class="refs" aria-label="Reference pictures">
    <input ref="input" type="file" accept="image/png,image/jpeg,image/webp" class="visually-hidden" aria-label="Reference picture" @change="take" />
    <button type="button" class="btn" @click="input?.click()">Reference picture…</button>
    <div v-for="r in list" :key="r.id" class="ref">
      <div class="row"><img :src="r.image" alt="" /><b>{{ r.name }}</b>
        <button type="button" class="bare" :aria-label="`${r.hidden ? 'Show' : 'Hide'} ${r.name}`" @click="change(r, { hidden: !r.hidden })"><IconEyeOff v-if="r.hidden" aria-hidden="true" /><IconEye v-else aria-hidden="true" /></button>
        <button type="button" class="bare" :aria-label="`Remove ${r.name}`" @click="session.apply(deleteReferenceEdit, { reference: r.id })"><IconTrash aria-hidden="true" /></button></div>
      <div class="segments" role="group" aria-label="Plane of the picture"><button v-for="p in REFERENCE_PLANES" :key="p" type="button" :aria-pressed="r.plane === p" @click="plane(r, p)">{{ p }}</button></div>
      <div class="row"><NumberField label="wide" name="Width of the picture" :model-value="r.size[0]" :min="1" :max="1024" @change="(v) => widen(r, v)" /><NumberField label="high" name="Height of the picture" :model-value="r.size[1]" :min="1" :max="1024" @change="(v) => change(r, { size: [r.size[0], Math.round(v)] })" /></div>
      <div class="row"><NumberField label="at" name="Picture across" :model-value="r.at[0]" @change="(v) => change(r, { at: [Math.round(v), r.at[1]] })" /><NumberField label="up" name="Picture up" :model-value="r.at[1]" @change="(v) => change(r, { at: [r.at[0], Math.round(v)] })" /><NumberField label="clear" name="Opacity of the picture" :step="0.1" :min="0" :max="1" :model-value="r.opacity" @change="(v) => change(r, { opacity: v })" /></div>
      <button type="button" class="btn" :class="{ on: build.tint === 'silhouette' }" @click="build.tint = build.tint === 'silhouette' ? 'none' : 'silhouette'">Silhouette check</button>
    </div>
  </div>
</template>

<style scoped>
.refs, .ref { display: grid; gap: 7px; min-width: 0; }
.ref { padding-top: 8px; border-top: 1px solid var(--line); }
.ref img { width: 26px; height: 26px; object-fit: contain; background: var(--ground); border-radius: 4px; flex: none; }
.ref b { flex: 1; font-weight: 500; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.ref .bare { flex: none; }
</style>
