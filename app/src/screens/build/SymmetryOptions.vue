<script setup lang="ts">
import { IconAsterisk } from '@tabler/icons-vue';
import { computed } from 'vue';
import { AXES } from '@sphalerite/core/math';
import CommandButton from '../../components/CommandButton.vue';
import NumberField from '../../components/NumberField.vue';
import { useBuild } from './build-state';
import ActionButton from '../../components/ActionButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import { choices } from '../../components/choices';

const build = useBuild();
const NAMES = ['X', 'Y', 'Z'] as const;
/** The axis that a half would go over: the first live one. */
const live = computed(() => NAMES[Math.max(0, build.mirrorOn.indexOf(true))]);
</script>

<template>
  <section aria-label="Symmetry">
    <div class="panel-head"><h3>Mirror</h3></div>
    <div class="row">
      <action-button
        v-for="a in AXES"
        :key="a"
        class="axis"
        :class="`axis-${NAMES[a]}`"
        :on="build.mirrorOn[a]"
        :aria-label="`Mirror ${NAMES[a]}`"
        @click="build.toggleMirror(a)"
      >
        {{ NAMES[a] }}
      </action-button>
      <action-button
        class="axis star"
        :on="build.radialOn"
        aria-label="Radial symmetry"
        tip="Radial symmetry"
        keys="Alt+R"
        @click="build.radialOn = !build.radialOn"
      >
        <IconAsterisk aria-hidden="true" />
      </action-button>
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
      <choice-field
        label="Radial about"
        class="field"
        v-model="build.radialAxis"
        :choices="choices(AXES, (a) => NAMES[a])"
      />
    </template>
    <template v-if="build.mirrorOn.some(Boolean)">
      <div class="row field"><CommandButton id="mirror.low" :text="`−${live} onto +${live}`" /></div>
      <div class="row field"><CommandButton id="mirror.high" :text="`+${live} onto −${live}`" /></div>
    </template>
  </section>
</template>

<style scoped>
.row {
  gap: 4px;
  margin-top: 5px;
}
.axis.el-button {
  width: 23px;
  padding: 0;
  min-height: 26px;
  font-weight: 600;
}
.axis svg {
  width: 15px;
  height: 15px;
}
.axis-X.el-button {
  --el-button-text-color: var(--axis-x);
  --el-button-hover-text-color: var(--axis-x);
}
.axis-Y.el-button {
  --el-button-text-color: var(--axis-y);
  --el-button-hover-text-color: var(--axis-y);
}
.axis-Z.el-button {
  --el-button-text-color: var(--axis-z);
  --el-button-hover-text-color: var(--axis-z);
}
.axis.on {
  --axis: var(--bar);
  --el-button-text-color: #ffffff;
  --el-button-hover-text-color: #ffffff;
  --el-button-bg-color: var(--axis);
  --el-button-hover-bg-color: var(--axis);
  --el-button-border-color: transparent;
}
.axis-X.on {
  --axis: #a32a22;
}
.axis-Y.on {
  --axis: #2c6b2a;
}
.axis-Z.on {
  --axis: #1f4f8f;
}
.star.on {
  --el-button-text-color: var(--bar-honey);
}
.field {
  margin-top: 5px;
}
.row.field :deep(.el-button) {
  min-height: 24px;
  font-size: 11.5px;
  padding: 0 7px;
}
</style>
