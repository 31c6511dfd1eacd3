<script setup lang="ts">
import { IconEye, IconEyeOff, IconTrash } from '@tabler/icons-vue';
import { type Reference, REFERENCE_PLANES, find } from '@sphalerite/core/model';
import { deleteReferenceEdit, setReferenceEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';
import { blobAddress } from '../../components/blob-address';
import { useBuild } from './build-state';
import { PLANE_AXIS } from './reference-outline';
import { outlineAxes } from '@sphalerite/core/sculpt';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import { choices } from '../../components/choices';

const session = useSession();
const build = useBuild();
const list = computed(() => (session.project?.references ?? []).filter((r) => r.part === session.part?.id));
const change = (r: Reference, more: Partial<Reference>): unknown =>
  session.apply(setReferenceEdit, { reference: r.id, change: more });
function plane(r: Reference, p: Reference['plane']): void {
  const part = session.part!;
  const [u, v] = outlineAxes(PLANE_AXIS[p]);
  change(r, {
    plane: p,
    at: [
      Math.round(part.bounds.min[u] + part.bounds.size[u] / 2 - r.size[0] / 2),
      p === 'top' ? Math.round(part.bounds.min[v] + part.bounds.size[v] / 2 - r.size[1] / 2) : part.bounds.min[v],
    ],
  });
}
const addressOf = (r: Reference): string | undefined => blobAddress(find(session.project!.blobs, r.blob));
/** The height follows the width. */
const widen = (r: Reference, w: number): unknown =>
  change(r, { size: [Math.round(w), Math.max(1, Math.round((w * r.size[1]) / r.size[0]))] });
</script>

<template>
  <div class="refs" aria-label="Reference pictures">
    <div v-for="r in list" :key="r.id" class="ref">
      <div class="row">
        <img :src="addressOf(r)" alt="" /><b>{{ r.name }}</b>
        <icon-button
          :icon="r.hidden ? IconEyeOff : IconEye"
          :label="`${r.hidden ? 'Show' : 'Hide'} ${r.name}`"
          @click="change(r, { hidden: !r.hidden })"
        />
        <icon-button
          :icon="IconTrash"
          :label="`Remove ${r.name}`"
          @click="session.apply(deleteReferenceEdit, { reference: r.id })"
        />
      </div>
      <choice-field
        label="Plane of the picture"
        :model-value="r.plane"
        @change="(p) => plane(r, p)"
        :choices="choices(REFERENCE_PLANES)"
      />
      <div class="row">
        <NumberField
          label="wide"
          name="Width of the picture"
          :model-value="r.size[0]"
          :min="1"
          :max="1024"
          @change="(v) => widen(r, v)"
        /><NumberField
          label="high"
          name="Height of the picture"
          :model-value="r.size[1]"
          :min="1"
          :max="1024"
          @change="(v) => change(r, { size: [r.size[0], Math.round(v)] })"
        />
      </div>
      <div class="row">
        <NumberField
          label="at"
          name="Picture across"
          :model-value="r.at[0]"
          @change="(v) => change(r, { at: [Math.round(v), r.at[1]] })"
        /><NumberField
          label="up"
          name="Picture up"
          :model-value="r.at[1]"
          @change="(v) => change(r, { at: [r.at[0], Math.round(v)] })"
        />
      </div>
      <div class="row">
        <NumberField
          label="opacity"
          name="Opacity of the picture"
          :step="0.1"
          :min="0"
          :max="1"
          :model-value="r.opacity"
          @change="(v) => change(r, { opacity: v })"
        />
      </div>
      <action-button
        :on="build.tint === 'silhouette'"
        @click="build.tint = build.tint === 'silhouette' ? 'none' : 'silhouette'"
      >
        Silhouette check
      </action-button>
    </div>
  </div>
</template>

<style scoped>
.refs,
.ref {
  display: grid;
  gap: 7px;
  min-width: 0;
}
.ref {
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
.ref img {
  width: 26px;
  height: 26px;
  object-fit: contain;
  background: var(--ground);
  border-radius: 4px;
  flex: none;
}
.ref b {
  flex: 1;
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
