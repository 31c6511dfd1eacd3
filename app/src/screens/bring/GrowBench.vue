<script setup lang="ts">
import { IconChevronLeft, IconChevronRight } from '@tabler/icons-vue';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import CardChoice from '../../components/CardChoice.vue';
import IconButton from '../../components/IconButton.vue';
import NumberField from '../../components/NumberField.vue';
import { grownPicture } from '../../workers/thumbnails';
import { JobCancelled } from '../../workers/protocol';
import { useNotices } from '../../stores/notices';
import { useBringing } from './bring-state';

/** Ten others by their seeds, to choose from. */
const bringing = useBringing();
const notices = useNotices();
const COUNT = 10;
const seed = computed(() => Number(bringing.options['seed'] ?? 1));
const first = ref(Math.max(0, seed.value - 1));
const seeds = computed(() => Array.from({ length: COUNT }, (_, i) => first.value + i));
/** By seed. */
const pictures = ref<Readonly<Record<number, string>>>({});
let timer: ReturnType<typeof setTimeout> | undefined,
  abort: AbortController | null = null;

/** Wishes but the seed: the ten are drawn anew when the hand rests. */
const wishes = computed(() => JSON.stringify({ ...bringing.options, seed: 0 }));
watch(
  () => [wishes.value, first.value, bringing.waiting?.importer] as const,
  (_now, before) => {
    clearTimeout(timer);
    timer = setTimeout(draw, before ? 250 : 0);
  },
  { immediate: true },
);
onBeforeUnmount(() => {
  clearTimeout(timer);
  abort?.abort();
});

function draw(): void {
  const importer = bringing.waiting?.importer;
  if (!importer) return;
  abort?.abort();
  const mine = new AbortController();
  abort = mine;
  for (const s of seeds.value)
    grownPicture(importer, { ...bringing.options, seed: s }, mine.signal).then(
      (address) => {
        if (abort === mine) pictures.value = { ...pictures.value, [s]: address };
      },
      (e: unknown) => {
        if (!(e instanceof JobCancelled)) notices.fail(e);
      },
    );
}
</script>

<template>
  <div class="another">
    <div class="panel-head">
      <h3>Another</h3>
      <span class="seed">
        <number-field
          label="seed"
          name="Seed"
          :model-value="seed"
          :min="0"
          :max="999999"
          @change="
            (v) => {
              bringing.wish({ seed: Math.round(v) });
              first = Math.max(0, Math.round(v) - 1);
            }
          "
        />
        <icon-button
          :icon="IconChevronLeft"
          label="The ten before"
          :disabled="first === 0"
          @click="first = Math.max(0, first - COUNT)"
        />
        <icon-button :icon="IconChevronRight" label="Ten others" @click="first += COUNT" />
      </span>
    </div>
    <card-choice
      class="others"
      label="Others, by their seeds"
      :model-value="seed"
      :choices="seeds.map((s) => ({ value: s, text: `Seed ${s}`, tip: `Seed ${s}` }))"
      @change="(s: number) => bringing.wish({ seed: s })"
    >
      <template #default="{ choice }"
        ><img v-if="pictures[choice.value]" :src="pictures[choice.value]" alt="" draggable="false"
      /></template>
    </card-choice>
  </div>
</template>

<style scoped>
.another {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 8px;
  height: 100%;
  padding: 8px 14px 12px;
}
.seed {
  display: flex;
  gap: 4px;
  align-items: center;
}
.seed :deep(.number-field) {
  width: 110px;
}
.others {
  grid-template-columns: repeat(10, minmax(0, 1fr));
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}
.others :deep(.el-radio-button__inner) {
  display: grid;
  min-height: 0;
  padding: 2px;
  background: linear-gradient(var(--view-top), var(--view-bottom));
}
.others :deep(.card-content) {
  display: grid;
  place-items: center;
  min-height: 0;
  overflow: hidden;
}
img {
  max-width: 100%;
  height: 100%;
  min-height: 0;
  object-fit: contain;
}
</style>
