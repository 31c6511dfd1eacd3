<script setup lang="ts">
import { buildRingEdit } from '@sphalerite/core/project';
import { type RingVariant, innerFor, outerSide, ringSide, ringVariants } from '@sphalerite/core/rig';
import { computed, ref } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useBuild } from '../build/build-state';
import { useSession } from '../../stores/session';
import { useRig } from './rig-state';
import CardChoice from '../../components/CardChoice.vue';
import FormRow from '../../components/FormRow.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import { choices } from '../../components/choices';
import TextField from '../../components/TextField.vue';
import ActionButton from '../../components/ActionButton.vue';
import DialogBox from '../../components/DialogBox.vue';
import { counted } from '../../words';

/** A ring of equal bars, drawn as it would stand, with what gapes and overlaps in each way of making it. */
const session = useSession();
const rig = useRig();
const build = useBuild();
const open = ref(true);
const PLACES = [
  { value: false, text: `on ${session.bone?.name ?? 'a bone'}` },
  { value: true, text: 'on the floor, on no bone' },
];
const name = ref('Rim');
const sides = ref(8);
/** Whether its size is given by the hole, or by the length of a bar. */
const by = ref<'radius' | 'length'>('radius');
const radius = ref(6);
const barLength = ref(5);
const inner = computed(() =>
  by.value === 'radius' ? radius.value : innerFor(sides.value, thick.value, barLength.value),
);
/** Where it goes: on the bone in hand, or on the floor and on no bone. */
const nowhere = ref(session.bone === null);
const thick = ref(2);
const deep = ref(2);
const plan = computed(() => ({ sides: sides.value, inner: inner.value, thick: thick.value }));
const variants = computed(() => ringVariants(plan.value));
const kind = ref<RingVariant['kind']>('bars');
const chosen = computed(() => variants.value.find((v) => v.kind === kind.value) ?? variants.value[0]!);
const ways = computed(() =>
  variants.value.map((v) => ({
    value: v.kind,
    text:
      v.kind === 'crossed'
        ? `one bar of ${v.width} by ${v.length}, crossed ${v.bones} times`
        : `${v.bones} bars of ${v.length}${v.kind === 'closed' ? ', closed outside' : ''}`,
  })),
);
function figures(kind: RingVariant['kind']): string[] {
  const v = variants.value.find((o) => o.kind === kind)!;
  return [
    v.notch < 0.005 ? 'no notch at the outside' : `notches of ${v.notch.toFixed(2)} at the outside`,
    `gap ${v.gap.toFixed(1)} · overlap ${v.overlap.toFixed(1)}`,
    `${counted(v.bones, 'bones')} · ${counted(v.triangles, 'triangles')}`,
  ];
}
/** The bars as rectangles turned about the middle, y up. */
const bars = computed(() =>
  Array.from({ length: chosen.value.bones }, (_, i) => ({
    turn: (i * 360) / sides.value,
    ...(chosen.value.kind !== 'crossed'
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
        parent: nowhere.value ? null : (session.bone?.id ?? null),
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
  <dialog-box v-model="open" title="Ring of equal bars" width="520px" @closed="rig.dialog = null">
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
        <form-row label="Name" stacked><text-field v-model="name" label="Name of the ring" :most="100" /></form-row>
        <div class="row">
          <NumberField
            label="sides"
            name="Sides"
            :model-value="sides"
            :min="3"
            :max="64"
            @change="(v) => (sides = whole(v, 3, 64))"
          /><choice-field v-model="by" label="Given by" :choices="choices(['radius', 'length'])" />
        </div>
        <div class="row">
          <NumberField
            v-if="by === 'radius'"
            label="inside"
            name="From the middle to the inside"
            :model-value="radius"
            :min="1"
            :max="128"
            @change="(v) => (radius = whole(v, 1, 128))"
          /><NumberField
            v-else
            label="bar"
            name="Length of a bar"
            :model-value="barLength"
            :min="1"
            :max="256"
            @change="(v) => (barLength = whole(v, 1, 256))"
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
        <p class="quiet">
          A side is {{ ringSide(plan).toFixed(2) }} cubes halfway through, {{ outerSide(plan).toFixed(2) }} at the
          outside; bars are whole cubes.
        </p>
        <card-choice v-model="kind" class="ways" label="Ways to make it" :choices="ways">
          <template #default="{ choice }">
            <b>{{ choice.text }}</b>
            <small v-for="line in figures(choice.value)" :key="line" class="figures">{{ line }}</small>
          </template>
        </card-choice>
        <choice-field v-if="session.bone" v-model="nowhere" label="Where it goes" :choices="PLACES" />
        <action-button look="primary" submit>Build it</action-button>
      </div>
    </form>
  </dialog-box>
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
.ways :deep(.el-radio-button__inner) {
  display: grid;
  gap: 1px;
  padding: 6px 9px;
  text-align: left;
}
small {
  color: var(--quiet);
}
</style>
