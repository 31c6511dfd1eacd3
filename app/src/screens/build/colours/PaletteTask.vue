<script setup lang="ts">
import { appended, colourDistance, nearestBytes } from '@sphalerite/core/palette';
import { appendSwatchesEdit, replacePaletteEdit } from '@sphalerite/core/project';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import SwatchChip from './SwatchChip.vue';
import { type Task, useColours } from './colours-state';
import ActionButton from '../../../components/ActionButton.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import { say } from '../../../words';

/** Another palette: appended, or put in this one's place with every cube going to its nearest colour, seen before and after. */
const props = defineProps<{ task: Extract<Task, { kind: 'palette' }> }>();
const session = useSession();
const build = useBuild();
const colours = useColours();
const how = ref<'append' | 'replace'>('replace');
const palette = computed(() => session.palette!);
const map = computed(() => nearestBytes(palette.value.swatches, props.task.swatches));
const plan = computed(() => appended(palette.value, props.task.swatches));
colours.count();
// Both sides are looked at in the palette's own look.
colours.activate(null);
/** How each used swatch would come out, those that change most first. */
const moves = computed(() =>
  palette.value.swatches
    .filter((s) => (colours.use?.total[s.byte] ?? 0) > 0)
    .map((from) => {
      const to = props.task.swatches.find((t) => t.byte === map.value[from.byte])!;
      return { from, to, off: colourDistance(from.colour, to.colour), cubes: colours.use!.total[from.byte]! };
    })
    .sort((a, b) => b.off - a.off),
);
const loses = computed(
  () => session.project!.colourways.filter((w) => w.changes.some((c) => c.palette === palette.value.id)).length,
);
watch(
  [how, map],
  () => {
    colours.compare =
      how.value === 'replace'
        ? palette.value.swatches.map((s) => ({
            ...props.task.swatches.find((t) => t.byte === map.value[s.byte])!,
            byte: s.byte,
          }))
        : null;
  },
  { immediate: true },
);
onBeforeUnmount(() => (colours.compare = null));
function run(): void {
  const done =
    how.value === 'append'
      ? session.apply(appendSwatchesEdit, {
          palette: palette.value.id,
          swatches: props.task.swatches,
          title: `Append ${props.task.name}`,
        })
      : session.apply(replacePaletteEdit, {
          palette: palette.value.id,
          name: props.task.name,
          swatches: props.task.swatches,
        });
  if (done && how.value === 'replace') build.byte = map.value[build.byte] || build.byte;
  if (done || how.value === 'append') colours.task = null;
}
</script>

<template>
  <section class="panel-section task" aria-label="Another palette">
    <div class="panel-head">
      <h2>{{ task.name }}</h2>
      <span class="figures quiet">{{ task.swatches.length }}</span>
    </div>
    <div class="strip" aria-hidden="true">
      <i v-for="s in task.swatches" :key="s.byte" :style="{ background: s.colour }" />
    </div>
    <choice-field
      label="What to do with it"
      v-model="how"
      :choices="[
        { value: 'replace', text: 'replace' },
        { value: 'append', text: 'append' },
      ]"
    />
    <template v-if="how === 'append'">
      <p data-testid="plan">
        {{ task.swatches.length - plan.united - plan.left }} new{{
          plan.united ? `, ${plan.united} united with equals` : ''
        }}{{ plan.left ? `; ${plan.left} find no place: a palette holds 255` : '' }}
      </p>
    </template>
    <template v-else>
      <p data-testid="plan">
        {{ palette.swatches.length }} → {{ task.swatches.length }}: every cube goes to the nearest colour. The view
        shows it before and after.
      </p>
      <ul class="moves">
        <li v-for="m in moves.slice(0, 8)" :key="m.from.byte">
          <SwatchChip :swatch="m.from" small named /><span aria-hidden="true">→</span
          ><SwatchChip :swatch="m.to" small named /><span class="figures quiet">{{
            m.off < 0.02 ? 'alike' : m.off < 0.08 ? 'near' : 'off'
          }}</span>
        </li>
      </ul>
      <p v-if="loses > 0" class="quiet">
        {{ say('palette.loses', { n: loses }) }}
      </p>
    </template>
    <div class="row">
      <action-button look="primary" @click="run">
        {{ how === 'append' ? 'Append' : 'Replace the palette' }}</action-button><action-button
        @click="colours.task = null"
      >
        Keep
      </action-button>
    </div>
  </section>
</template>

<style scoped>
.task {
  background: color-mix(in srgb, var(--honey-soft) 45%, transparent);
}
.strip {
  display: flex;
  height: 18px;
  border-radius: 4px;
  overflow: hidden;
  border: 1px solid rgb(0 0 0 / 20%);
}
.strip i {
  flex: 1;
}
.moves {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 12px;
}
.moves li {
  display: grid;
  grid-template-columns: 1fr 12px 1fr 32px;
  align-items: center;
  gap: 4px;
  padding: 2px 0;
}
.moves .figures {
  font-size: 10px;
  text-align: right;
}
</style>
