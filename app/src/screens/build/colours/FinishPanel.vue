<script setup lang="ts">
import { AXES } from '@sphalerite/core/math';
import { MAX_EDGE } from '@sphalerite/core/voxel';
import { IconArrowsExchange, IconDice3 } from '@tabler/icons-vue';
import { BLENDS, FINISH_KINDS, SIDES_PAINTED } from '@sphalerite/core/paint';
import { computed, onBeforeUnmount, onMounted } from 'vue';
import NumberField from '../../../components/NumberField.vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { useSelection } from '../selection/selection-state';
import SwatchChip from './SwatchChip.vue';
import { useColours } from './colours-state';
import { SCOPES } from './finish-scope';
import { FIRST_OPTIONS, bricksFor } from './finish-options';
import { useFinish } from './finish-state';
import ActionButton from '../../../components/ActionButton.vue';
import IconButton from '../../../components/IconButton.vue';
import CardChoice from '../../../components/CardChoice.vue';
import CheckField from '../../../components/CheckField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import SelectField from '../../../components/SelectField.vue';
import { choices, swatchChoices } from '../../../components/choices';

const f = useFinish();
const build = useBuild();
const session = useSession();
const colours = useColours();
const selection = useSelection();
const o = f.options;
const ramp = computed(() => f.ramp.flatMap((b) => colours.swatchOf(b) ?? []));
const HINTS = {
  gradient: 'Drag in the view from where it begins to where it ends.',
  speckle: 'Strews tones over a share of the cubes.',
  dither: 'A mixture that is the same everywhere.',
  height: 'Dark below, light above.',
  occlusion: 'Dark in corners, light in the open.',
  bricks: 'Courses run on level from part to part.',
  planks: 'Boards side by side, each row begun elsewhere.',
} as const;
const LIES = { each: 'each face its way', walls: 'walls', floor: 'a floor', around: 'around an axis' } as const;
const WHOLE = { selection: 'selection', part: 'layer', project: 'all parts' } as const;
const blends = computed(() => (f.kind === 'dither' ? BLENDS.slice(1) : BLENDS));
const blended = computed(() => ['gradient', 'dither', 'height', 'occlusion'].includes(f.kind));
const laid = computed(() => f.kind === 'bricks' || f.kind === 'planks');
const kinds = choices(FINISH_KINDS);
const tones = [
  { value: 'picked', text: 'picked' },
  { value: 'own', text: 'each its own', tip: 'Each cube goes to the darker and lighter neighbours of its own colour' },
];
const scopes = computed(() =>
  SCOPES.map((value) => ({ value, text: WHOLE[value], disabled: value === 'selection' && !selection.selected })),
);
/** Bricks that nobody has measured yet are made for the wall. */
function choose(kind: (typeof FINISH_KINDS)[number]): void {
  const { long, high, gap } = FIRST_OPTIONS;
  const h = f.heights;
  if (kind === 'bricks' && h && o.long === long && o.high === high && o.gap === gap)
    Object.assign(o, bricksFor(h.high - h.low));
  f.kind = kind;
  f.shown = true;
}
onMounted(() => (f.shown = false));
// What was only tried out goes with the panel.
onBeforeUnmount(() => (session.preview = null));
</script>

<template>
  <div>
    <section class="panel-section" aria-label="Finish">
      <card-choice class="kinds" label="Kind of finish" :model-value="f.kind" :choices="kinds" @change="choose">
        <template #default="{ choice }"
          ><i class="sample" :class="choice.value" aria-hidden="true" />{{ choice.text }}</template
        >
      </card-choice>
      <p class="quiet">{{ HINTS[f.kind] }}</p>
    </section>
    <section class="panel-section" aria-label="Tones">
      <div class="panel-head">
        <h2>Tones</h2>
        <icon-button
          :icon="IconArrowsExchange"
          label="Turn the tones round"
          :disabled="colours.picked.length < 2"
          @click="colours.picked = [...colours.picked].reverse()"
        />
      </div>
      <choice-field
        label="Which tones"
        wide
        :model-value="f.ownTones ? 'own' : 'picked'"
        :choices="tones"
        @change="(v) => (f.ownTones = v === 'own')"
      />
      <div v-if="!f.ownTones" class="ramp see-colours" data-testid="ramp">
        <SwatchChip v-for="s in ramp" :key="s.byte" :swatch="s" :data-tip="s.name" /><span
          v-if="ramp.length < 2"
          class="quiet"
          >Ctrl-click swatches on the bench, dark to light.</span
        >
      </div>
      <p v-else class="quiet">
        Darker and lighter neighbours of each cube’s own colour, by name (Skin; Skin, shade) or by hue.
      </p>
    </section>
    <section class="panel-section" aria-label="Options of the finish">
      <div v-if="blended" class="row">
        <span class="quiet label">Between</span>
        <choice-field label="Between tones" class="grow" wide v-model="o.blend" :choices="choices(blends)" />
      </div>
      <template v-if="f.kind === 'gradient'"
        ><check-field v-model="o.round">round, spreading from its beginning</check-field
        ><action-button v-if="f.ends" @click="f.ends = null">From bottom to top</action-button></template
      >
      <div v-if="f.kind === 'speckle'" class="two">
        <NumberField
          label="amount"
          name="Amount"
          unit="%"
          :model-value="o.amount * 100"
          :min="0"
          :max="100"
          @change="(v) => (o.amount = v / 100)"
        /><NumberField
          label="size"
          name="Size of a clump"
          :model-value="o.size"
          :min="0.5"
          :max="32"
          :step="0.5"
          @change="(v) => (o.size = v)"
        />
      </div>
      <NumberField
        v-if="f.kind === 'dither'"
        label="share"
        name="Share"
        unit="%"
        :model-value="o.share * 100"
        :min="0"
        :max="100"
        :step="5"
        @change="(v) => (o.share = v / 100)"
      />
      <div v-if="f.kind === 'occlusion'" class="two">
        <NumberField
          label="reach"
          name="Reach"
          :model-value="o.reach"
          :min="1"
          :max="16"
          @change="(v) => (o.reach = Math.round(v))"
        /><NumberField
          label="strength"
          name="Strength"
          :model-value="o.strength"
          :min="0.1"
          :max="3"
          :step="0.1"
          @change="(v) => (o.strength = v)"
        />
      </div>
      <template v-if="laid">
        <div v-if="f.kind === 'bricks'" class="two">
          <NumberField
            label="long"
            name="Length of a brick"
            :model-value="o.long"
            :min="1"
            :max="64"
            @change="(v) => (o.long = v)"
          /><NumberField
            label="high"
            name="Height of a brick"
            :model-value="o.high"
            :min="1"
            :max="64"
            @change="(v) => (o.high = v)"
          /><NumberField
            label="joint"
            name="Joint"
            :model-value="o.gap"
            :min="0"
            :max="8"
            @change="(v) => (o.gap = v)"
          /><NumberField
            label="bond"
            name="Bond"
            :model-value="o.bond"
            :min="0"
            :max="1"
            :step="0.25"
            @change="(v) => (o.bond = v)"
          />
        </div>
        <div v-else class="two">
          <NumberField
            label="long"
            name="Length of a plank"
            :model-value="o.plankLong"
            :min="1"
            :max="MAX_EDGE"
            @change="(v) => (o.plankLong = v)"
          /><NumberField
            label="wide"
            name="Width of a plank"
            :model-value="o.wide"
            :min="1"
            :max="64"
            @change="(v) => (o.wide = v)"
          /><NumberField
            label="joint"
            name="Joint"
            :model-value="o.plankGap"
            :min="0"
            :max="8"
            @change="(v) => (o.plankGap = v)"
          /><NumberField
            label="grain"
            name="Grain"
            unit="%"
            :model-value="o.grain * 100"
            :min="0"
            :max="100"
            :step="5"
            @change="(v) => (o.grain = v / 100)"
          />
        </div>
        <div v-if="(f.kind === 'bricks' ? o.gap : o.plankGap) > 0" class="row">
          <span class="quiet label">Joints</span
          ><SelectField
            v-model="o.joint"
            label="Swatch of the joints"
            class="grow"
            :choices="[
              { value: 0, text: f.ownTones ? 'a shade darker' : 'as they are' },
              ...swatchChoices(build.palette?.swatches ?? []),
            ]"
          />
        </div>
        <div class="row">
          <span class="quiet label">Lie on</span>
          <SelectField
            label="Lie on"
            class="grow"
            v-model="o.sides"
            :choices="choices(SIDES_PAINTED, (s) => LIES[s])"
          />
        </div>
        <choice-field
          v-if="o.sides === 'around'"
          label="Around the axis"
          v-model="o.about"
          :choices="choices(AXES, (a) => `around ${'XYZ'[a]}`)"
        />
        <check-field v-model="o.upright">upright on walls, along Z on floors</check-field>
      </template>
      <div class="row">
        <NumberField
          label="seed"
          name="Seed"
          :model-value="o.seed"
          :min="0"
          :max="999999"
          @change="(v) => (o.seed = Math.round(v))"
        /><icon-button :icon="IconDice3" label="Another seed" @click="o.seed = (o.seed * 7 + 13) % 9973" />
      </div>
    </section>
    <section class="panel-section where" aria-label="Where it is painted">
      <choice-field label="Where" wide v-model="f.scope" :choices="scopes" />
      <check-field v-model="f.onlyHand">only cubes of {{ build.swatch?.name }}</check-field>
      <div class="row">
        <action-button look="primary" class="grow" :disabled="!f.args" @click="f.paint()">Paint it</action-button
        ><action-button :on="!f.shown" :tip="f.shown ? 'Look without it' : 'Try it out'" @click="f.shown = !f.shown">
          {{ f.shown ? 'Hide the try' : 'Try it' }}
        </action-button>
      </div>
      <p v-if="f.busy" class="quiet" role="status">Trying it out…</p>
    </section>
  </div>
</template>

<style scoped>
.where {
  z-index: 3;
  position: sticky;
  bottom: 0;
  background: var(--panel);
  border-top: 1px solid var(--line);
  box-shadow: 0 -6px 10px -8px rgb(0 0 0 / 25%);
}
.kinds.card-choice {
  grid-template-columns: repeat(4, 1fr);
}
.kinds :deep(.el-radio-button__inner) {
  display: grid;
  justify-items: center;
  gap: 3px;
  padding: 5px 0 4px;
  font-size: 10.5px;
  letter-spacing: -0.1px;
}
.sample {
  width: 26px;
  height: 22px;
  border-radius: 3px;
}
.gradient {
  background: linear-gradient(0deg, #7d3312, #f6cc69);
}
.speckle {
  background:
    radial-gradient(circle at 20% 30%, #f6cc69 0 2px, transparent 2.5px),
    radial-gradient(circle at 70% 20%, #7d3312 0 2px, transparent 2.5px),
    radial-gradient(circle at 50% 70%, #f6cc69 0 2px, transparent 2.5px),
    radial-gradient(circle at 85% 75%, #7d3312 0 2px, transparent 2.5px), #a34e18;
}
.dither {
  background: conic-gradient(#a34e18 25%, #e3a127 0 50%, #a34e18 0 75%, #e3a127 0) 0 0 / 6px 6px;
}
.height {
  background: linear-gradient(0deg, #561f10 33%, #a34e18 33% 66%, #c66f2a 66%);
}
.occlusion {
  background:
    linear-gradient(90deg, #561f10, transparent 55%), linear-gradient(0deg, #561f10, transparent 55%), #c66f2a;
}
.bricks {
  background:
    linear-gradient(#cfc8bb 2px, transparent 2px) 0 0 / 100% 7px,
    linear-gradient(90deg, #cfc8bb 2px, transparent 2px) 0 0 / 12px 14px,
    linear-gradient(90deg, transparent 6px, #a34e18 6px) 0 0 / 12px 7px,
    #a34e18;
}
.planks {
  background:
    linear-gradient(90deg, transparent 14px, #4a2f1e 14px 15px, transparent 15px),
    repeating-linear-gradient(0deg, #94602f 0 6px, #6b4122 6px 7px, #bd8a50 7px 13px, #6b4122 13px 14px);
}
.ramp {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  align-items: center;
  font-size: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.label {
  width: 56px;
  font-size: 12px;
}
.grow {
  flex: 1;
}
</style>
