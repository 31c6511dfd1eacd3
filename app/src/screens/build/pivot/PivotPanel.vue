<script setup lang="ts">
import { type Axis, scale, withAxis } from '@sphalerite/core/math';
import type { Part } from '@sphalerite/core/model';
import { computed, defineAsyncComponent } from 'vue';
import CheckField from '../../../components/CheckField.vue';
import CommandButton from '../../../components/CommandButton.vue';
import VectorField from '../../../components/VectorField.vue';
import { commonOf } from '../../../components/mixed';
import { useSession } from '../../../stores/session';
import { useSettings } from '../../../stores/settings';
import { useBuild } from '../build-state';
import { standsOnJoint, usePivot } from './pivot-state';

const PivotSnap = defineAsyncComponent(() => import('./PivotSnap.vue'));
/** The pivots of the parts that are chosen: by numbers, by handles, or to a place that is found by itself. */
const props = defineProps<{ parts: readonly Part[] }>();
const session = useSession();
const build = useBuild();
const pivot = usePivot();
const { settings } = useSettings();
const bone = computed(() => {
  const m = session.project?.rig.mounts.find((o) => o.part === session.part?.id);
  return session.project?.rig.bones.find((b) => b.id === m?.bone)?.name ?? null;
});
const onJoint = computed(() => props.parts.some(standsOnJoint));
const move = (axis: Axis, cubes: number): void =>
  pivot.move(
    props.parts.map((p) => ({ part: p.id, pivot: withAxis(p.pivot, axis, Math.round(cubes * 2)) })),
    true,
  );
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h2>Pivot</h2>
      <span class="quiet">in cubes, by ½</span>
    </div>
    <vector-field
      name="Pivot"
      :model-value="commonOf(parts.map((p) => scale(p.pivot, 0.5)))"
      :step="0.5"
      @change="move"
    />
    <div class="places">
      <CommandButton id="pivot.centre" text="Centre" /><CommandButton id="pivot.base" text="Base" /><CommandButton
        id="pivot.floor"
        text="Floor"
      /><CommandButton id="pivot.neighbour" text="Neighbour" /><CommandButton id="pivot.cut" text="Cut" /><CommandButton
        id="pivot.handles"
        text="Handles"
      />
    </div>
    <PivotSnap v-if="build.handles === 'pivot'" />
    <check-field v-if="onJoint" v-model="pivot.joint" tip="Bones and other parts keep their place"
      >the joint of {{ bone }} goes along</check-field
    >
    <p v-else class="quiet">{{ bone ? `Mounted on ${bone}, off its joint.` : 'Not mounted on a bone.' }}</p>
    <check-field v-model="settings.pivot">shown in the view</check-field>
  </section>
</template>

<style scoped>
.places {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 5px;
}
.places :deep(.el-button) {
  min-width: 0;
  padding: 0 4px;
  font-size: 12px;
}
.places :deep(.el-button svg) {
  display: none;
}
</style>
