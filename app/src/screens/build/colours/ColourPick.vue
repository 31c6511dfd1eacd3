<script setup lang="ts">
import { bytesHex, fromHsv, fromOklch, hexBytes, readHex, toHsv, toOklch } from '@sphalerite/core/palette';
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import { useNotices } from '../../../stores/notices';
import SliderField from '../../../components/SliderField.vue';
import TextField from '../../../components/TextField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import { choices } from '../../../components/choices';
import { say } from '../../../words';

/** A colour by a wheel, by sliders in three ways of counting, or typed. `try` shows while dragging, `change` is meant. */
const props = defineProps<{ modelValue: string }>();
const emit = defineEmits<{ try: [colour: string]; change: [colour: string] }>();
const notices = useNotices();
const WAYS = ['OKLCH', 'HSV', 'RGB'] as const;
const way = ref<(typeof WAYS)[number]>('OKLCH');
const now = ref(props.modelValue);
/** Numbers as they were set: going through bytes would move them under the hand. */
const numbers = ref<number[]>([]);
const MOST_CHROMA = 0.34;

const read = (hex: string): number[] => {
  if (way.value === 'RGB') return [...hexBytes(hex)];
  if (way.value === 'HSV') {
    const { h, s, v } = toHsv(hex);
    return [h, s * 100, v * 100];
  }
  const { l, c, h } = toOklch(hex);
  return [l * 100, c * 100, h];
};
const write = (n: readonly number[]): string =>
  way.value === 'RGB'
    ? bytesHex(Math.round(n[0]!), Math.round(n[1]!), Math.round(n[2]!))
    : way.value === 'HSV'
      ? fromHsv({ h: n[0]!, s: n[1]! / 100, v: n[2]! / 100 })
      : fromOklch({ l: n[0]! / 100, c: n[1]! / 100, h: n[2]! });
const ROWS = {
  OKLCH: [
    ['Lightness', 100, '%'],
    ['Chroma', MOST_CHROMA * 100, ''],
    ['Hue', 360, '°'],
  ],
  HSV: [
    ['Hue', 360, '°'],
    ['Saturation', 100, '%'],
    ['Value', 100, '%'],
  ],
  RGB: [
    ['Red', 255, ''],
    ['Green', 255, ''],
    ['Blue', 255, ''],
  ],
} as const;
const rows = computed(() =>
  ROWS[way.value].map(([name, most, unit], i) => ({
    name,
    most,
    unit,
    value: numbers.value[i] ?? 0,
    track: `linear-gradient(90deg, ${Array.from({ length: 13 }, (_, k) => write(numbers.value.map((v, j) => (j === i ? (most * k) / 12 : v)))).join(', ')})`,
  })),
);

function take(hex: string, done: boolean): void {
  now.value = hex;
  if (done) emit('change', hex);
  else emit('try', hex);
}
function slide(i: number, v: number, done: boolean): void {
  numbers.value = numbers.value.map((o, k) => (k === i ? v : o));
  take(write(numbers.value), done);
}
function type(text: string): void {
  const hex = readHex(text);
  if (!hex) {
    notices.say(say('colour.none', { text }), { kind: 'error' });
    return;
  }
  numbers.value = read(hex);
  take(hex, true);
}
watch(
  () => props.modelValue,
  (hex) => {
    if (hex === now.value && numbers.value.length > 0) return;
    now.value = hex;
    numbers.value = read(hex);
  },
  { immediate: true },
);
watch(way, () => (numbers.value = read(now.value)));

// The wheel: hue around, chroma outwards, at the colour's own lightness.
const SIZE = 116;
const wheel = ref<HTMLCanvasElement>();
const lch = computed(() => toOklch(now.value));
const knob = computed(() => {
  const r = (Math.min(1, lch.value.c / MOST_CHROMA) * SIZE) / 2,
    a = (lch.value.h * Math.PI) / 180;
  return { left: `${SIZE / 2 + Math.cos(a) * r}px`, top: `${SIZE / 2 - Math.sin(a) * r}px`, background: now.value };
});
const RINGS = 18,
  WEDGES = 60;
let drawnFor = -1;
function draw(): void {
  const g = wheel.value?.getContext('2d');
  const l = Math.min(0.93, Math.max(0.25, lch.value.l));
  if (!g || Math.abs(l - drawnFor) < 0.004) return;
  drawnFor = l;
  const s = SIZE * 2;
  g.clearRect(0, 0, s, s);
  for (let r = RINGS; r >= 1; r--) {
    for (let w = 0; w < WEDGES; w++) {
      const from = ((w - 0.02) / WEDGES) * 2 * Math.PI,
        to = ((w + 1.04) / WEDGES) * 2 * Math.PI;
      g.fillStyle = fromOklch({ l, c: ((r - 0.5) / RINGS) * MOST_CHROMA, h: ((w + 0.5) / WEDGES) * 360 });
      g.beginPath();
      g.moveTo(s / 2, s / 2);
      g.arc(s / 2, s / 2, (r / RINGS) * (s / 2), -to, -from);
      g.fill();
    }
  }
}
onMounted(draw);
watch(
  () => lch.value.l,
  () => void nextTick(draw),
);
function spin(e: PointerEvent, done: boolean): void {
  const box = wheel.value!.getBoundingClientRect();
  const x = ((e.clientX - box.left) / box.width) * 2 - 1,
    y = 1 - ((e.clientY - box.top) / box.height) * 2;
  const hex = fromOklch({
    l: lch.value.l,
    c: Math.min(1, Math.hypot(x, y)) * MOST_CHROMA,
    h: (Math.atan2(y, x) * 180) / Math.PI,
  });
  numbers.value = read(hex);
  take(hex, done);
}
let held = false;
function down(e: PointerEvent): void {
  held = true;
  (e.target as HTMLElement).setPointerCapture(e.pointerId);
  spin(e, false);
}
/** By the keys: around and outwards. */
function wheelKey(e: KeyboardEvent): void {
  const turn = e.key === 'ArrowRight' ? 4 : e.key === 'ArrowLeft' ? -4 : 0,
    out = e.key === 'ArrowUp' ? 0.01 : e.key === 'ArrowDown' ? -0.01 : 0;
  if (turn === 0 && out === 0) return;
  e.preventDefault();
  const hex = fromOklch({ l: lch.value.l, c: Math.max(0, lch.value.c + out), h: lch.value.h + turn });
  numbers.value = read(hex);
  take(hex, true);
}
</script>

<template>
  <div class="pick">
    <div class="top">
      <div
        class="wheel"
        role="slider"
        tabindex="0"
        aria-label="Hue and chroma"
        :aria-valuenow="Math.round(lch.h)"
        :aria-valuetext="`hue ${Math.round(lch.h)} degrees, chroma ${(lch.c * 100).toFixed(0)}`"
        @keydown.stop="wheelKey"
        @pointerdown="down"
        @pointermove="held && spin($event, false)"
        @pointerup="held && ((held = false), spin($event, true))"
      >
        <canvas ref="wheel" :width="SIZE * 2" :height="SIZE * 2" /><i class="knob" :style="knob" />
      </div>
      <div class="side">
        <choice-field label="Colour by" class="ways" upright v-model="way" :choices="choices(WAYS)" />
        <span class="fill" :style="{ background: now }" aria-hidden="true" />
        <text-field :model-value="now" label="Colour as hex" class="figures" :most="24" @change="type" />
      </div>
    </div>
    <div v-for="(r, i) in rows" :key="r.name" class="slide">
      <span aria-hidden="true">{{ r.name }}</span>
      <slider-field
        :min="0"
        :max="r.most"
        :step="way === 'RGB' ? 1 : 0.1"
        :model-value="r.value"
        :label="r.name"
        :track="r.track"
        @input="(v) => slide(i, v, false)"
        @change="(v) => slide(i, v, true)"
      />
      <output class="figures">{{ Math.round(r.value) }}{{ r.unit }}</output>
    </div>
  </div>
</template>

<style scoped>
.pick {
  display: grid;
  gap: 6px;
}
.top {
  display: flex;
  gap: 10px;
}
.wheel {
  position: relative;
  flex: none;
  width: 116px;
  height: 116px;
  cursor: crosshair;
  touch-action: none;
  border-radius: 50%;
}
.wheel canvas {
  width: 116px;
  height: 116px;
  display: block;
  border-radius: 50%;
}
.knob {
  position: absolute;
  width: 14px;
  height: 14px;
  margin: -7px;
  border-radius: 50%;
  border: 2px solid #ffffff;
  box-shadow: 0 0 0 1px #2a2521;
  pointer-events: none;
}
.side {
  display: grid;
  grid-template-rows: auto 1fr auto;
  gap: 6px;
  flex: 1;
  min-width: 0;
}
.fill {
  border-radius: var(--radius);
  min-height: 14px;
  border: 1px solid rgb(0 0 0 / 18%);
}
.slide {
  display: grid;
  grid-template-columns: 66px 1fr 40px;
  align-items: center;
  gap: 6px;
  font-size: 12px;
  color: var(--quiet);
}
.slide output {
  text-align: right;
  color: var(--ink);
  font-size: 11px;
}
</style>
