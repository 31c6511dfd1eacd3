<script setup lang="ts">
import { computed, watch } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import { extentOf, useShipCounts } from '../../stores/ship-counts';
import { runCommand } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';

/** What the project is, against its target sheet where that says something; a click opens the sheet. */
const session = useSession();
const ship = useShipCounts();
const view = useView();
/** Scenes are counted only where something is asked of them: large ones keep a worker busy. */
const limits = computed(() => session.project?.target);
watch(
  () => view.screen === 'stage' && !!limits.value && limits.value.faces + limits.value.draws > 0,
  (ofScene) => (ship.ofScene = ofScene),
  { immediate: true },
);
interface Figure {
  readonly name: string;
  readonly text: string;
  /** Share of what is allowed; null without a target. */
  readonly share: number | null;
}
const many = (n: number): string => n.toLocaleString('en');
const figures = computed((): Figure[] => {
  const p = session.project;
  if (!p) return [];
  const { target } = p,
    e = extentOf(p),
    cell = session.part?.cell ?? 1;
  const height = e ? (e.hi[1] - e.lo[1]) * p.metresPerUnit : 0;
  const limited = (name: string, now: number | undefined, most: number): Figure[] =>
    most > 0 && now !== undefined ? [{ name, text: `${many(now)} / ${many(most)}`, share: now / most }] : [];
  return [
    // A project of scenes alone has no figure to measure.
    ...(e
      ? [
          {
            name: 'height',
            text: `${height.toFixed(2)}${target.height > 0 ? ` / ${target.height.toFixed(2)}` : ''} m`,
            share: target.height > 0 ? height / target.height : null,
          },
        ]
      : []),
    ...limited('tris', ship.counts?.triangles, target.faces),
    ...limited('bones', p.rig.bones.length, target.bones),
    ...limited('draws', ship.counts?.draws, target.draws),
    { name: '1 cube =', text: `${(p.metresPerUnit * cell * 100).toFixed(1)} cm`, share: null },
  ];
});
const TIP = 'Target sheet: size and limits';
const tip = computed(() =>
  ship.counts && ship.roomier ? `${TIP}. Counted by the roomiest delivery: the chosen one cannot be made of this` : TIP,
);
/** A little more in height is no matter; more of the rest is. */
const over = (f: Figure): boolean => f.share !== null && f.share > (f.name === 'height' ? 1.02 : 1);
</script>

<template>
  <action-button
    v-if="figures.length > 0"
    look="bare"
    class="meter"
    aria-label="Target sheet"
    :tip="tip"
    @click="runCommand('project.target')"
    ><span v-for="f in figures" :key="f.name" class="figure" :class="{ over: over(f) }"
      >{{ f.name }} {{ f.text }}{{ over(f) ? ' over' : ''
      }}<i v-if="f.share !== null" class="bar" :style="{ width: `${Math.min(100, 100 * f.share)}%` }" /></span
  ></action-button>
</template>

<style scoped>
.meter.el-button {
  --el-button-text-color: var(--bar-ink);
  --el-button-hover-text-color: var(--bar-strong);
  height: 24px;
  min-height: 0;
  padding: 0 4px;
  border: 0;
  background: none;
  font: inherit;
}
.meter :deep(> span) {
  gap: 14px;
}
.figure {
  position: relative;
  line-height: 22px;
}
.bar {
  position: absolute;
  left: 0;
  bottom: 0;
  height: 2px;
  border-radius: 1px;
  background: var(--bar-ink);
}
.over {
  color: var(--bar-hot);
}
.over .bar {
  background: var(--bar-hot);
}
</style>
