<script setup lang="ts">
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
import { useFinish } from './finish-state';

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
const WHOLE = { selection: 'selection', part: 'layer', project: 'all parts' } as const;
const blends = computed(() => (f.kind === 'dither' ? BLENDS.slice(1) : BLENDS));
const blended = computed(() => ['gradient', 'dither', 'height', 'occlusion'].includes(f.kind));
const laid = computed(() => f.kind === 'bricks' || f.kind === 'planks');
onMounted(() => (f.shown = false));
// What was only tried out goes with the panel.
onBeforeUnmount(() => (session.preview = null));
</script>

<template>
  <div>
    <section class="panel-section" aria-label="Finish">
      <div class="kinds" role="radiogroup" aria-label="Kind of finish">
        <button
          v-for="k in FINISH_KINDS"
          :key="k"
          type="button"
          role="radio"
          :aria-checked="f.kind === k"
          @click="((f.kind = k), (f.shown = true))"
        >
          <i class="sample" :class="k" aria-hidden="true" />{{ k }}
        </button>
      </div>
      <p class="quiet">{{ HINTS[f.kind] }}</p>
    </section>
    <section class="panel-section" aria-label="Tones">
      <div class="panel-head">
        <h2>Tones</h2>
        <button
          type="button"
          class="bare"
          aria-label="Turn the tones round"
          title="Turn the tones round"
          :disabled="colours.picked.length < 2"
          @click="colours.picked = [...colours.picked].reverse()"
        >
          <IconArrowsExchange aria-hidden="true" />
        </button>
      </div>
      <div class="segments" role="group" aria-label="Which tones">
        <button type="button" :aria-pressed="!f.ownTones" @click="f.ownTones = false">picked swatches</button
        ><button
          type="button"
          :aria-pressed="f.ownTones"
          title="Each cube goes to the darker and lighter neighbours of its own colour"
          @click="f.ownTones = true"
        >
          each its own
        </button>
      </div>
      <div v-if="!f.ownTones" class="ramp see-colours" data-testid="ramp">
        <SwatchChip v-for="s in ramp" :key="s.byte" :swatch="s" :title="s.name" /><span
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
        <div class="segments grow" role="group" aria-label="Between tones">
          <button v-for="b in blends" :key="b" type="button" :aria-pressed="o.blend === b" @click="o.blend = b">
            {{ b }}
          </button>
        </div>
      </div>
      <template v-if="f.kind === 'gradient'"
        ><label class="check"><input v-model="o.round" type="checkbox" />round, spreading from its beginning</label
        ><button v-if="f.ends" type="button" class="btn" @click="f.ends = null">From bottom to top</button></template
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
          ><select v-model.number="o.joint" class="pick" aria-label="Swatch of the joints">
            <option :value="0">as they are</option>
            <option v-for="s in build.palette?.swatches ?? []" :key="s.byte" :value="s.byte">{{ s.name }}</option>
          </select>
        </div>
        <div class="row">
          <span class="quiet label">Lie on</span>
          <div class="segments grow" role="group" aria-label="Lie on">
            <button
              v-for="s in SIDES_PAINTED"
              :key="s"
              type="button"
              :aria-pressed="o.sides === s"
              @click="o.sides = s"
            >
              {{ s }}
            </button>
          </div>
        </div>
        <label class="check"><input v-model="o.upright" type="checkbox" />upright on walls, along Z on floors</label>
      </template>
      <div class="row">
        <NumberField
          label="seed"
          name="Seed"
          :model-value="o.seed"
          :min="0"
          :max="999999"
          @change="(v) => (o.seed = Math.round(v))"
        /><button
          type="button"
          class="bare"
          aria-label="Another seed"
          title="Another seed"
          @click="o.seed = (o.seed * 7 + 13) % 9973"
        >
          <IconDice3 aria-hidden="true" />
        </button>
      </div>
    </section>
    <section class="panel-section where" aria-label="Where it is painted">
      <div class="segments grow" role="group" aria-label="Where">
        <button
          v-for="s in SCOPES"
          :key="s"
          type="button"
          :disabled="s === 'selection' && !selection.selected"
          :aria-pressed="f.scope === s"
          @click="f.scope = s"
        >
          {{ WHOLE[s] }}
        </button>
      </div>
      <label class="check"><input v-model="f.onlyHand" type="checkbox" />only cubes of {{ build.swatch?.name }}</label>
      <div class="row">
        <button type="button" class="btn primary grow" :disabled="!f.args" @click="f.paint()">Paint it</button
        ><button
          type="button"
          class="btn"
          :aria-pressed="!f.shown"
          :title="f.shown ? 'Look without it' : 'Try it out'"
          @click="f.shown = !f.shown"
        >
          {{ f.shown ? 'Without' : 'Try it' }}
        </button>
      </div>
      <p v-if="f.busy" class="quiet" role="status">Trying it out…</p>
    </section>
  </div>
</template>

<style scoped>
.where {
  position: sticky;
  bottom: 0;
  background: var(--panel);
  border-top: 1px solid var(--line);
  box-shadow: 0 -6px 10px -8px rgb(0 0 0 / 25%);
}
.kinds {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
}
.kinds button {
  display: grid;
  justify-items: center;
  gap: 3px;
  padding: 5px 0 4px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  font-size: 10.5px;
  letter-spacing: -0.1px;
}
.kinds button:hover {
  border-color: var(--line-strong);
}
.kinds button[aria-checked='true'] {
  background: #2a2521;
  border-color: var(--honey);
  color: #ffffff;
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
.segments.grow,
.segments {
  display: flex;
}
.segments button {
  flex: 1;
  padding: 0 4px;
}
.pick {
  flex: 1;
  min-width: 0;
  height: 27px;
  padding: 0 4px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
}
.check {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.check input {
  accent-color: var(--resin);
  margin: 0;
}
</style>
