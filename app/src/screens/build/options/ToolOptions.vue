<script setup lang="ts">
import { IconBrush, IconEraser, IconPlus, IconSelectAll } from '@tabler/icons-vue';
import { computed } from 'vue';
import ActionButton from '../../../components/ActionButton.vue';
import CheckField from '../../../components/CheckField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import SelectField from '../../../components/SelectField.vue';
import { choices } from '../../../components/choices';
import { runCommand } from '../../../stores/commands';
import { useSession } from '../../../stores/session';
import { FACE_REACHES, REACHES, REGION_KINDS, VERBS, type CardOptions } from '../../../tools/card';
import { useBuild } from '../build-state';
import { SELECT_MODES } from '../selection/chosen-cells';
import { useSelection } from '../selection/selection-state';
import SolidOptions from './SolidOptions.vue';
import { later } from '../../../components/later';

// Fetched when a tool of that kind is first taken up.
const LineOptions = later(() => import('./LineOptions.vue'));
const OpeningOptions = later(() => import('./OpeningOptions.vue'));
const StampOptions = later(() => import('./StampOptions.vue'));
const BrushOptions = later(() => import('./BrushOptions.vue'));
const WaitingShape = later(() => import('./WaitingShape.vue'));
const TaskProgress = later(() => import('../../../components/TaskProgress.vue'));
/** What the tool in hand can be told: its verb, its reach, and what that reach has of its own. */
const build = useBuild();
const session = useSession();
const selection = useSelection();
const HINTS: Record<(typeof REACHES)[number], string> = {
  point: 'click, or drag a trail',
  brush: 'drag a trail',
  line: 'drag from end to end',
  box: 'footprint, then height',
  ellipsoid: 'footprint, then height',
  cylinder: 'footprint, then height',
  extrude: 'drag a face out or in',
  fill: 'click',
  stamp: 'click to place',
  opening: 'drag over a wall, or click',
};
const ICONS = { add: IconPlus, erase: IconEraser, paint: IconBrush, select: IconSelectAll } as const;
/** The one in hand is named, the others are known by their icons. */
const verbs = computed(() =>
  VERBS.map((value) => ({
    value,
    name: value,
    icon: ICONS[value],
    text: value === build.card.verb ? value : undefined,
  })),
);
const FACES = { face: 'whole face', colour: 'one colour', plane: 'whole plane' } as const;
const REGIONS = {
  connected: 'piece',
  colour: 'colour',
  'all of colour': 'all of it',
  face: 'face',
  space: 'space',
} as const;
const faces = choices(FACE_REACHES, (f) => FACES[f]);
const regions = choices(REGION_KINDS, (r) => REGIONS[r]);
const c = computed(() => build.card);
const set = (more: Partial<CardOptions>): void => build.setOption(more);
const solid = computed(() => ['box', 'ellipsoid', 'cylinder'].includes(c.value.reach));
const grows = computed(() => c.value.verb === 'add' && !['fill', 'stamp', 'opening'].includes(c.value.reach));
const fixed = computed(() => c.value.reach === 'extrude' || c.value.reach === 'opening');
const waiting = computed(() => build.waiting?.box ?? null);
</script>

<template>
  <section class="tool-options" aria-label="Options of the tool">
    <div class="panel-head">
      <h3>{{ c.name }}</h3>
      <span v-if="build.changed" class="row kept"
        ><action-button look="link" tip="The card stays as it was unless the change is kept" @click="build.keepAsNew()"
          >keep as new tool</action-button
        ><action-button look="link" @click="build.take(build.index)">put back</action-button></span
      ><span v-else class="quiet">{{ HINTS[c.reach] }}</span
      ><action-button
        v-if="!waiting && solid && session.part"
        look="link"
        tip="Give size and place by numbers"
        @click="build.holdByNumbers()"
        >by numbers</action-button
      >
    </div>
    <waiting-shape v-if="waiting && (solid || c.reach === 'opening')" :box="waiting" />
    <div v-if="!waiting" class="line">
      <choice-field
        v-if="!fixed"
        label="Verb"
        :model-value="c.verb"
        :choices="verbs"
        @change="(v) => build.setVerb(v)"
      />
      <SelectField
        label="Reach"
        :model-value="c.reach"
        :choices="choices(REACHES)"
        @change="(r) => build.setReach(r)"
      />
    </div>
    <div v-if="c.verb === 'select'" class="line">
      <span class="quiet">Takes</span>
      <choice-field v-model="selection.mode" label="What becomes of the selection" :choices="choices(SELECT_MODES)" />
    </div>
    <div v-if="c.reach === 'extrude'" class="line">
      <span class="quiet">Takes</span>
      <choice-field label="What is extruded" :model-value="c.face" :choices="faces" @change="(face) => set({ face })" />
    </div>
    <div v-if="c.reach === 'fill'" class="line">
      <choice-field
        label="What it fills"
        :model-value="c.region"
        :choices="regions"
        @change="(region) => set({ region })"
      />
    </div>
    <check-field
      v-if="c.reach === 'fill' && c.region !== 'face'"
      :model-value="c.diagonals"
      @change="(diagonals) => set({ diagonals })"
      >corners and edges connect</check-field
    >
    <brush-options v-if="c.reach === 'brush'" />
    <line-options v-if="c.reach === 'line'" />
    <solid-options v-if="solid" :grows="grows" />
    <opening-options v-if="c.reach === 'opening'" />
    <stamp-options v-if="c.reach === 'stamp'" />
    <check-field
      v-if="c.reach === 'extrude' || (grows && !solid)"
      :model-value="c.grow"
      @change="(grow) => set({ grow })"
      >{{ c.reach === 'extrude' ? 'grow colour: each cube keeps that of the one below' : 'grow colour' }}</check-field
    >
    <task-progress
      v-if="build.job"
      class="job"
      :label="build.job.label"
      :done="build.job.progress"
      @stop="runCommand('tool.cancel')"
    />
  </section>
</template>

<style>
/* What there is flows into as few lines as it needs. */
.tool-options {
  display: flex;
  flex-wrap: wrap;
  align-content: flex-start;
  align-items: center;
  gap: 6px;
}
.tool-options > .panel-head,
.tool-options > .job,
.tool-options > p {
  flex: 0 0 100%;
}
.tool-options .line {
  display: contents;
}
.tool-options .choice-field .el-segmented__item {
  padding: 0 7px;
}
.tool-options .select-field {
  flex: 0 1 104px;
}
.tool-options .select-field.wide {
  flex: 1;
}
.tool-options .number-field {
  flex: 0 1 84px;
}
.tool-options .number-field.wall {
  flex: 0 0 70px;
}
.tool-options .panel-head > * {
  white-space: nowrap;
}
@media (max-width: 1180px) {
  .tool-options .panel-head .quiet {
    display: none;
  }
}
</style>
