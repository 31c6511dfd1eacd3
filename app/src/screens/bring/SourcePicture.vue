<script setup lang="ts">
import { computed, onBeforeUnmount, ref, useTemplateRef } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useBringing } from './bring-state';

/** A picture that is brought in, with a frame over it that says what of it comes. */
const bringing = useBringing();
const image = useTemplateRef<HTMLImageElement>('image');
const address = computed(() => {
  const f = bringing.file;
  return f ? URL.createObjectURL(new Blob([f.bytes])) : '';
});
onBeforeUnmount(() => address.value && URL.revokeObjectURL(address.value));
const size = computed(() => (bringing.made?.facts['pixels'] ?? [0, 0]) as readonly [number, number]);
const SIDES = ['left', 'right', 'top', 'bottom'] as const;
type Side = (typeof SIDES)[number];
/** While an edge is dragged. */
const held = ref<{ readonly side: Side; readonly value: number } | null>(null);
const asked = (side: Side): number => Number(bringing.options[side] ?? 0);
const cut = (side: Side): number => (held.value?.side === side ? held.value.value : asked(side));
/** Whether what comes can be cut off. */
const cuts = computed(() => 'left' in bringing.options);
const percent = (side: Side): string => {
  const long = size.value[side === 'left' || side === 'right' ? 0 : 1];
  return `${long > 0 ? (100 * cut(side)) / long : 0}%`;
};
const frame = computed(() => Object.fromEntries(SIDES.map((s) => [s, percent(s)])));
/** How far an edge may come, in pixels: something has to be left. */
function most(side: Side): number {
  const [w, h] = size.value;
  const across = side === 'left' || side === 'right';
  const other = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' } as const;
  return Math.max(0, (across ? w : h) - asked(other[side]) - 1);
}
const within = (side: Side, v: number): number => Math.min(most(side), Math.max(0, Math.round(v)));
function down(side: Side, e: PointerEvent): void {
  const box = image.value!.getBoundingClientRect(),
    [w, h] = size.value;
  (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
  const at = (m: PointerEvent): number =>
    ({
      left: ((m.clientX - box.left) / box.width) * w,
      right: ((box.right - m.clientX) / box.width) * w,
      top: ((m.clientY - box.top) / box.height) * h,
      bottom: ((box.bottom - m.clientY) / box.height) * h,
    })[side];
  const target = e.currentTarget as HTMLElement;
  const move = (m: PointerEvent): void => void (held.value = { side, value: within(side, at(m)) });
  const up = (): void => {
    target.removeEventListener('pointermove', move);
    const h = held.value;
    held.value = null;
    if (h) bringing.wish({ [side]: h.value });
  };
  target.addEventListener('pointermove', move);
  target.addEventListener('pointerup', up, { once: true });
  target.addEventListener('pointercancel', up, { once: true });
}
function key(side: Side, e: KeyboardEvent): void {
  const inward = { left: 'ArrowRight', right: 'ArrowLeft', top: 'ArrowDown', bottom: 'ArrowUp' }[side],
    outward = { left: 'ArrowLeft', right: 'ArrowRight', top: 'ArrowUp', bottom: 'ArrowDown' }[side];
  if (e.key !== inward && e.key !== outward) return;
  e.preventDefault();
  e.stopPropagation();
  bringing.wish({ [side]: within(side, asked(side) + (e.key === inward ? 1 : -1)) });
}
</script>

<template>
  <div class="picture">
    <img ref="image" :src="address" alt="" draggable="false" />
    <div v-if="cuts" class="frame" :style="frame">
      <span
        v-for="s in SIDES"
        :key="s"
        class="edge"
        :class="s"
        role="slider"
        tabindex="0"
        :aria-label="`Cut off at the ${s}`"
        :aria-valuenow="cut(s)"
        :aria-valuemin="0"
        :aria-valuemax="most(s)"
        :data-tip="`${cut(s)} px cut off at the ${s}; drag it`"
        @pointerdown.prevent="down(s, $event)"
        @keydown="key(s, $event)"
      />
    </div>
  </div>
  <div v-if="cuts" class="cuts">
    <number-field
      v-for="s in SIDES"
      :key="s"
      :label="s"
      :name="`Pixels cut off at the ${s}`"
      :model-value="asked(s)"
      :min="0"
      :max="most(s)"
      @change="(v) => bringing.wish({ [s]: Math.round(v) })"
    />
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  line-height: 0;
  border-radius: 6px;
  overflow: hidden;
  background: repeating-conic-gradient(var(--line) 0 25%, var(--panel) 0 50%) 0 0 / 16px 16px;
}
img {
  width: 100%;
  height: auto;
  image-rendering: pixelated;
  user-select: none;
}
.frame {
  position: absolute;
  outline: 1.5px dashed var(--honey);
  outline-offset: -1.5px;
  box-shadow: 0 0 0 999px rgb(20 16 12 / 55%);
}
.edge {
  position: absolute;
  touch-action: none;
}
.edge.left,
.edge.right {
  top: 0;
  bottom: 0;
  width: 14px;
  cursor: ew-resize;
}
.edge.top,
.edge.bottom {
  left: 0;
  right: 0;
  height: 14px;
  cursor: ns-resize;
}
.edge.left {
  left: -4px;
}
.edge.right {
  right: -4px;
}
.edge.top {
  top: -4px;
}
.edge.bottom {
  bottom: -4px;
}
.edge:hover,
.edge:focus-visible {
  background: color-mix(in srgb, var(--honey) 45%, transparent);
  outline: none;
}
.cuts {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
}
</style>
