<script setup lang="ts">
import { type Axis, type Box, withAxis } from '@sphalerite/core/math';
import { resizedBox } from '@sphalerite/core/project';
import { MAX_EDGE } from '@sphalerite/core/voxel';
import ActionButton from '../../../components/ActionButton.vue';
import VectorField from '../../../components/VectorField.vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';

/** A shape that waits to be set: its size and place by numbers. */
const props = defineProps<{ box: Box }>();
const build = useBuild();
const session = useSession();
/** A size grows on both sides of its middle, a height upwards, as volumes do. */
function hold(what: 'min' | 'size', axis: Axis, v: number): void {
  const next = withAxis(props.box[what], axis, Math.round(v));
  build.waiting?.hold(what === 'size' ? resizedBox(props.box, next) : { ...props.box, min: next });
}
function fill(): void {
  const room = build.limit ?? session.part?.bounds;
  if (room) build.waiting?.hold(room);
}
</script>

<template>
  <div class="numbers" role="group" aria-label="The shape that waits">
    <vector-field
      size
      name="Shape"
      :model-value="box.size"
      :min="1"
      :max="MAX_EDGE"
      @change="(axis, v) => hold('size', axis, v)"
    /><vector-field name="Shape" :model-value="box.min" @change="(axis, v) => hold('min', axis, v)" />
  </div>
  <action-button look="primary" class="set" @click="build.waiting?.set()">Set it</action-button>
  <action-button tip="As large as the volume, or what the cutaway leaves of it" @click="fill"
    >Fill the volume</action-button
  >
</template>

<style scoped>
.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
  flex: 0 0 100%;
}
.numbers :deep(.row) {
  gap: 4px;
  min-width: 0;
}
.numbers :deep(.el-input__wrapper) {
  padding: 0 4px;
}
.numbers :deep(.el-input__prefix-inner > :last-child) {
  margin-right: 3px;
}
</style>
