<script setup lang="ts">
import { IconAsterisk } from '@tabler/icons-vue';
import { AXES, type Axis } from '@sphalerite/core/math';
import CommandButton from '../../components/CommandButton.vue';
import NumberField from '../../components/NumberField.vue';
import { useBuild } from './build-state';

const build = useBuild();
const NAMES = ['X', 'Y', 'Z'] as const;
</script>

<template>
  <section aria-label="Symmetry">
    <div class="panel-head"><h3>Mirror</h3></div>
    <div class="row">
      <button
        v-for="a in AXES"
        :key="a"
        type="button"
        class="btn axis"
        :class="[`axis-${NAMES[a]}`, { on: build.mirrorOn[a] }]"
        :aria-pressed="build.mirrorOn[a]"
        :aria-label="`Mirror ${NAMES[a]}`"
        @click="build.toggleMirror(a)"
      >
        {{ NAMES[a] }}
      </button>
      <button
        type="button"
        class="btn axis"
        :class="{ on: build.radialOn, star: build.radialOn }"
        :aria-pressed="build.radialOn"
        aria-label="Radial symmetry"
        title="Radial symmetry · Alt+R"
        @click="build.radialOn = !build.radialOn"
      >
        <IconAsterisk aria-hidden="true" />
      </button>
    </div>
    <template v-for="a in AXES" :key="a"
      ><NumberField
        v-if="build.mirrorOn[a] || (build.radialOn && build.radialAxis !== a)"
        class="field"
        :label="`${NAMES[a]} at`"
        :name="`Mirror ${NAMES[a]} at`"
        :axis="(['x', 'y', 'z'] as const)[a]"
        :step="0.5"
        :model-value="build.middles[a] / 2"
        @change="(v) => build.movePlane(a, Math.round(v * 2))"
    /></template>
    <template v-if="build.radialOn">
      <NumberField
        class="field"
        label="copies"
        name="Radial copies"
        :model-value="build.radialCount"
        :min="3"
        :max="16"
        @change="(v) => (build.radialCount = Math.round(v))"
      />
      <div class="segments field" role="group" aria-label="Radial about">
        <button
          v-for="a in AXES"
          :key="a"
          type="button"
          :aria-pressed="build.radialAxis === a"
          @click="build.radialAxis = a as Axis"
        >
          {{ NAMES[a] }}
        </button>
      </div>
    </template>
    <div v-if="build.mirrorOn.some(Boolean)" class="row field"><CommandButton id="mirror.low" text="low over" /></div>
    <div v-if="build.mirrorOn.some(Boolean)" class="row field"><CommandButton id="mirror.high" text="high over" /></div>
  </section>
</template>

<style scoped>
.row {
  gap: 4px;
  margin-top: 5px;
}
.axis {
  width: 23px;
  padding: 0;
  min-height: 26px;
  font-weight: 600;
}
.axis svg {
  width: 15px;
  height: 15px;
}
.axis-X {
  color: var(--axis-x);
}
.axis-Y {
  color: var(--axis-y);
}
.axis-Z {
  color: var(--axis-z);
}
.axis.on {
  color: #ffffff;
  border-color: transparent;
}
.axis-X.on {
  background: #a32a22;
}
.axis-Y.on {
  background: #2c6b2a;
}
.axis-Z.on {
  background: #1f4f8f;
}
.star.on {
  background: var(--bar);
  color: var(--bar-honey);
}
.field {
  margin-top: 5px;
  height: 26px;
  padding: 0 6px;
}
.segments.field {
  padding: 0;
  height: auto;
}
.row.field {
  padding: 0;
}
.row.field :deep(.btn) {
  min-height: 24px;
  font-size: 11.5px;
  padding: 0 7px;
}
</style>
