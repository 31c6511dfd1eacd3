<script setup lang="ts">
import type { Part, Project } from '@sphalerite/core/model';
import { onBeforeUnmount, ref, watch } from 'vue';
import { partPicture } from '../workers/thumbnails';

const props = defineProps<{ project: Project; part: Part }>();
const url = ref('');
let timer: ReturnType<typeof setTimeout> | undefined;
// A picture is drawn when the hand rests, not after every stroke.
watch(
  () => [props.part.layers, props.project.palettes] as const,
  () => {
    clearTimeout(timer);
    timer = setTimeout(
      () => {
        const part = props.part;
        void partPicture(props.project, part).then(
          (u) => {
            if (part === props.part) url.value = u;
          },
          () => undefined,
        );
      },
      url.value ? 500 : 0,
    );
  },
  { immediate: true },
);
onBeforeUnmount(() => clearTimeout(timer));
</script>

<template>
  <span class="picture"><img v-if="url" :src="url" alt="" /></span>
</template>

<style scoped>
.picture {
  flex: none;
  width: 40px;
  height: 40px;
  border-radius: var(--radius);
  background: linear-gradient(var(--view-top), var(--view-bottom));
}
img {
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
}
</style>
