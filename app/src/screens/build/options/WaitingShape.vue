<script setup lang="ts">
import { type Box, mapVec } from '@sphalerite/core/math';
import { resizedBox } from '@sphalerite/core/project';
import { MAX_EDGE } from '@sphalerite/core/voxel';
import ActionButton from '../../../components/ActionButton.vue';
import NumberField from '../../../components/NumberField.vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';

/** A shape that waits to be set: its size and place by numbers. */
const props = defineProps<{ box: Box }>();
const build = useBuild();
const session = useSession();
const SIZES = [
  ['W', 'width'],
  ['H', 'height'],
  ['D', 'depth'],
] as const;
const PLACES = ['x', 'y', 'z'] as const;
/** A size grows on both sides of its middle, a height upwards, as volumes do. */
function hold(what: 'min' | 'size', axis: number, v: number): void {
  const next = mapVec(props.box[what], (o, i) => (i === axis ? Math.round(v) : o));
  build.waiting?.hold(what === 'size' ? resizedBox(props.box, next) : { ...props.box, min: next });
}
function fill(): void {
  const room = build.limit ?? session.part?.bounds;
  if (room) build.waiting?.hold(room);
}
</script>

<template>
  <div class="numbers" role="group" aria-label="The shape that waits">
    <number-field
      v-for="([letter, name], i) in SIZES"
      :key="letter"
      :label="letter"
      :name="`Shape ${name}`"
      :model-value="box.size[i]!"
      :min="1"
      :max="MAX_EDGE"
      @change="(v) => hold('size', i, v)"
    />
    <number-field
      v-for="(a, i) in PLACES"
      :key="a"
      :label="a"
      :axis="a"
      :name="`Shape ${a}`"
      :model-value="box.min[i]!"
      @change="(v) => hold('min', i, v)"
    />
  </div>
  <action-button look="primary" class="set" @click="build.waiting?.set()">Set it</action-button>
  <action-button tip="As large as the volume, or what the cutaway leaves of it" @click="fill"
    >Fill the volume</action-button
  >
</template>

<style scoped>
.numbers {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 4px;
  flex: 0 0 100%;
}
.numbers :deep(.el-input__wrapper) {
  padding: 0 4px;
}
.numbers :deep(.el-input__prefix-inner > :last-child) {
  margin-right: 3px;
}
</style>
