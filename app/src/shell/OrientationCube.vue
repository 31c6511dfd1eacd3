<script setup lang="ts">
import { computed } from 'vue';
import { VIEWS, type ViewName } from '../viewport/orbit-camera';

const props = defineProps<{ yaw: number; pitch: number }>();
defineEmits<{ look: [name: ViewName] }>();
const names = Object.keys(VIEWS) as ViewName[];
const deg = (r: number): number => (r * 180) / Math.PI;
const style = computed(() => ({ transform: `rotateX(${-deg(props.pitch)}deg) rotateY(${-deg(props.yaw)}deg)` }));
</script>

<template>
  <div class="frame" role="group" aria-label="Look from">
    <div class="cube" :style="style">
      <!-- eslint-disable-next-line vue/no-restricted-html-elements -- a handle in the view: turned in space with the cube -->
      <button
        v-for="n in names"
        :key="n"
        type="button"
        :class="n"
        :aria-label="`Look from ${n}`"
        @click="$emit('look', n)"
      >
        {{ n }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.frame {
  width: 64px;
  height: 64px;
  perspective: 340px;
  display: grid;
  place-items: center;
}
.cube {
  position: relative;
  width: 38px;
  height: 38px;
  transform-style: preserve-3d;
}
button {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  font-size: 10px;
  font-weight: 600;
  text-transform: capitalize;
  background: color-mix(in srgb, var(--raised) 92%, var(--honey));
  border: 1px solid var(--line-strong);
  color: var(--ink);
  backface-visibility: hidden;
}
button:hover {
  background: var(--honey);
  color: #2a2521;
}
.front {
  transform: translateZ(19px);
}
.back {
  transform: rotateY(180deg) translateZ(19px);
}
.left {
  transform: rotateY(90deg) translateZ(19px);
}
.right {
  transform: rotateY(-90deg) translateZ(19px);
}
.top {
  transform: rotateX(90deg) translateZ(19px);
}
.bottom {
  transform: rotateX(-90deg) translateZ(19px);
}
</style>
