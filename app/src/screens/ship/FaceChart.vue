<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import ChoiceField from '../../components/ChoiceField.vue';
import type { ChartOption } from '../../components/chart/theme';
import { later } from '../../components/later';
import { tone } from '../../components/tone';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { useShip } from './ship-state';

const ChartView = later(() => import('../../components/chart/ChartView.vue'));
const session = useSession();
const ship = useShip();
const router = useRouter();
const { settings } = useSettings();
const by = ref<'part' | 'make'>('part');
/** From resin to verdigris, and on from there: told apart by their names first. */
const COLOURS = ['#9a4a12', '#c96f2a', '#2c7a70', '#4b3550', '#7a4d63', '#7d8a94', '#7c5a36', '#a9862f'];

const shares = computed(() => ship.made?.shares ?? null);
const rows = computed(() => {
  const s = shares.value;
  if (!s) return [];
  if (by.value === 'part')
    return s.parts.map((o) => ({ name: o.name, value: o.triangles, part: o.part as string | null }));
  return [
    { name: 'walls and floors', value: s.rest, part: null },
    { name: 'stairs and stripes', value: s.stairs, part: null },
    { name: 'spots of colour', value: s.spots, part: null },
  ];
});
const option = computed((): ChartOption => {
  void settings.theme;
  return {
    series: [
      {
        type: 'treemap',
        roam: false,
        nodeClick: false,
        breadcrumb: { show: false },
        width: '100%',
        height: '100%',
        top: 0,
        left: 0,
        label: { formatter: '{b} {c}', fontSize: 11, color: '#fff', position: [6, 5], overflow: 'truncate' },
        itemStyle: { borderColor: tone('--panel'), borderWidth: 2, gapWidth: 2 },
        data: rows.value.map((r, i) => ({ ...r, itemStyle: { color: COLOURS[i % COLOURS.length]! } })),
      },
    ],
  };
});
/** What would save most, in a sentence. */
const saving = computed(() => {
  const s = shares.value,
    now = s ? s.spots + s.stairs + s.rest : 0;
  if (!s || now === 0) return '';
  const less = (n: number): number => Math.round(100 * (1 - n / now));
  if (ship.profile?.mesh.merge === 'colour' && less(s.merged) >= 10)
    return `Merging all, with the colours in a picture, would save ${less(s.merged)} %.`;
  if (s.spots > now / 3) return `${Math.round((100 * s.spots) / now)} % are spots of colour one or two faces large.`;
  if (s.stairs > now / 2) return `${Math.round((100 * s.stairs) / now)} % are stairs, rims and stripes one cube wide.`;
  return `${s.parts[0]!.name} has most of them.`;
});
function pick(data: unknown): void {
  const { part } = (data ?? {}) as { part?: string | null };
  if (!part || !session.project) return;
  session.choose({ part });
  void router.push({ name: 'bench', params: { id: session.project.id, step: 'build' } });
}
</script>

<template>
  <div class="face-chart">
    <div class="panel-head">
      <h3>Where the faces are</h3>
      <choice-field
        v-model="by"
        label="Faces by"
        :choices="[
          { value: 'part', text: 'by part', tip: 'Click a part to go to it' },
          { value: 'make', text: 'by shape', tip: 'What makes them' },
        ]"
      />
    </div>
    <div v-if="rows.length > 0" class="chart">
      <ChartView
        :option="option"
        :label="`Triangles: ${rows.map((r) => `${r.name} ${r.value}`).join(', ')}`"
        @pick="pick"
      />
    </div>
    <p v-if="saving" class="quiet">{{ saving }}</p>
  </div>
</template>

<style scoped>
.face-chart {
  display: grid;
  grid-template-rows: auto minmax(60px, 1fr) auto;
  height: 100%;
  gap: 6px;
}
.chart {
  min-height: 0;
}
p {
  margin: 0;
}
</style>
