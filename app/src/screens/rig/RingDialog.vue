<script setup lang="ts">
import { buildRingEdit } from '@sphalerite/core/project';
import { type RingVariant, ringSide, ringVariants } from '@sphalerite/core/rig';
import { ElDialog } from 'element-plus';
import { computed, ref } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useBuild } from '../build/build-state';
import { useSession } from '../../stores/session';
import { useRig } from './rig-state';

/** A ring of equal bars, drawn as it would stand, with what gapes and overlaps in each way of making it. */
const session = useSession();
const rig = useRig();
const build = useBuild();
const open = ref(true);
const name = ref('Rim');
const sides = ref(8);
const inner = ref(6);
const thick = ref(2);
const deep = ref(2);
const plan = computed(() => ({ sides: sides.value, inner: inner.value, thick: thick.value }));
const variants = computed(() => ringVariants(plan.value));
const kind = ref<RingVariant['kind']>('bars');
const chosen = computed(() => variants.value.find((v) => v.kind === kind.value) ?? variants.value[0]!);
/** The bars as rectangles turned about the middle, y up. */
const bars = computed(() =>
  Array.from({ length: chosen.value.bones }, (_, i) => ({
    turn: (i * 360) / sides.value,
    ...(chosen.value.kind === 'bars'
      ? { x: -chosen.value.length / 2, y: inner.value, w: chosen.value.length, h: thick.value }
      : { x: -chosen.value.width / 2, y: -chosen.value.length / 2, w: chosen.value.width, h: chosen.value.length }),
  })),
);
const reach = computed(() => (inner.value + thick.value) / Math.cos(Math.PI / sides.value) + 1);
const whole = (v: number, lo: number, hi: number): number => Math.max(lo, Math.min(hi, Math.round(v)));
function make(): void {
  const palette = session.palette;
  if (!palette) return;
  if (
    session.apply(
      buildRingEdit,
      {
        ...plan.value,
        kind: chosen.value.kind,
        deep: deep.value,
        name: name.value.trim() || 'Rim',
        parent: session.bone?.id ?? null,
        value: build.swatch?.byte ?? palette.swatches[0]!.byte,
        palette: palette.id,
      },
      (p) => ({ bone: p.rig.bones[session.project!.rig.bones.length]!.id }),
    )
  )
    open.value = false;
}
</script>

<template>
  <el-dialog v-model="open" title="Ring of equal bars" width="520px" align-center @closed="rig.dialog = null">
    <form class="ring" @submit.prevent="make">
      <svg :viewBox="`${-reach} ${-reach} ${2 * reach} ${2 * reach}`" role="img" :aria-label="`${sides} sides`">
        <rect
          v-for="b in bars"
          :key="b.turn"
          :x="b.x"
          :y="b.y"
          :width="b.w"
          :height="b.h"
          :transform="`rotate(${b.turn})`"
        />
      </svg>
      <div class="fields">
        <label class="field">Name<input v-model="name" class="text" maxlength="100" /></label>
        <div class="row">
          <NumberField
            label="sides"
            name="Sides"
            :model-value="sides"
            :min="3"
            :max="64"
            @change="(v) => (sides = whole(v, 3, 64))"
          /><NumberField
            label="inside"
            name="From the middle to the inside"
            :model-value="inner"
            :min="1"
            :max="128"
            @change="(v) => (inner = whole(v, 1, 128))"
          />
        </div>
        <div class="row">
          <NumberField
            label="thick"
            name="Thickness"
            :model-value="thick"
            :min="1"
            :max="128"
            @change="(v) => (thick = whole(v, 1, 128))"
          /><NumberField
            label="deep"
            name="Depth"
            :model-value="deep"
            :min="1"
            :max="128"
            @change="(v) => (deep = whole(v, 1, 128))"
          />
        </div>
        <p class="quiet">A side is {{ ringSide(plan).toFixed(2) }} cubes halfway through; bars are whole cubes.</p>
        <div class="ways" role="radiogroup" aria-label="Ways to make it">
          <button
            v-for="v in variants"
            :key="v.kind"
            type="button"
            role="radio"
            :aria-checked="chosen === v"
            @click="kind = v.kind"
          >
            <b>{{
              v.kind === 'bars' ? `${v.bones} bars of ${v.length}` : `${v.bones} crossed, ${v.width} by ${v.length}`
            }}</b>
            <small class="figures">gap {{ v.gap.toFixed(1) }} · overlap {{ v.overlap.toFixed(1) }}</small
            ><small class="figures">{{ v.bones }} bones · {{ v.triangles }} triangles</small>
          </button>
        </div>
        <button type="submit" class="btn primary">Build it {{ session.bone ? `on ${session.bone.name}` : '' }}</button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
.ring {
  display: grid;
  grid-template-columns: 190px 1fr;
  gap: 16px;
  align-items: start;
}
svg {
  width: 190px;
  height: 190px;
  background: var(--ground);
  border-radius: var(--radius);
}
rect {
  fill: var(--honey);
  fill-opacity: 0.55;
  stroke: var(--resin);
  stroke-width: 0.14;
}
.fields {
  display: grid;
  gap: 9px;
  min-width: 0;
}
.field {
  display: grid;
  gap: 4px;
}
.text {
  height: 28px;
  padding: 0 8px;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--raised);
}
.ways {
  display: grid;
  gap: 6px;
}
.ways button {
  display: grid;
  gap: 1px;
  padding: 6px 9px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  text-align: left;
}
.ways button[aria-checked='true'] {
  border-color: var(--honey);
  background: var(--honey-soft);
}
small {
  color: var(--quiet);
}
</style>
