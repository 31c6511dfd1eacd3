<script setup lang="ts">
import { sideSuffix } from '@sphalerite/core/model';
import { colourDistance } from '@sphalerite/core/palette';
import { deleteSwatchesEdit, replaceSwatchEdit } from '@sphalerite/core/project';
import { byteTable, CellSet } from '@sphalerite/core/voxel';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { useSelection } from '../selection/selection-state';
import SwatchChip from './SwatchChip.vue';
import { type Task, useColours } from './colours-state';
import ActionButton from '../../../components/ActionButton.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import SelectField from '../../../components/SelectField.vue';
import { swatchChoices } from '../../../components/choices';
import { counted } from '../../../words';

/** Deleting or replacing swatches: how many cubes it is about, what becomes of them, and a look at it before. */
const props = defineProps<{ task: Extract<Task, { bytes: readonly number[] }> }>();
const session = useSession();
const build = useBuild();
const colours = useColours();
const selection = useSelection();
const palette = computed(() => session.palette!);
const gone = computed(() => props.task.bytes.flatMap((b) => colours.swatchOf(b) ?? []));
const sum = (counts: Uint32Array | undefined): number => props.task.bytes.reduce((n, b) => n + (counts?.[b] ?? 0), 0);
const parts = computed(() =>
  (colours.use?.parts ?? [])
    .map((u) => ({ part: u.part, n: sum(u.counts) }))
    .filter((u) => u.n > 0)
    .sort((a, b) => b.n - a.n),
);
const total = computed(() => sum(colours.use?.total));
const kept = computed(() => sum(colours.use?.kept));
const others = computed(() => (build.palette?.swatches ?? []).filter((s) => !props.task.bytes.includes(s.byte)));
const nearest = computed(() => {
  const colour = gone.value[0]?.colour ?? '#808080';
  return (
    [...others.value].sort((a, b) => colourDistance(a.colour, colour) - colourDistance(b.colour, colour))[0]?.byte ?? 0
  );
});
const choicesOfOthers = computed(() =>
  swatchChoices(others.value).map((c) => (c.value === nearest.value ? { ...c, text: `${c.text} (nearest)` } : c)),
);
const to = ref(0);
const cubes = ref<'move' | 'remove'>('move');
const where = ref<'selection' | 'part' | 'project'>(selection.selected ? 'selection' : 'part');
// Counted now, not when the hand last rested: these numbers are what one decides by.
colours.count();
watch(
  () => props.task,
  () => (to.value = nearest.value),
  { immediate: true },
);

const table = computed(() => byteTable((i) => (props.task.bytes.includes(i) ? 1 : 0)));
const meantHere = computed(() => {
  if (where.value === 'project') return total.value;
  if (where.value === 'part') return sum(colours.inPart ?? undefined);
  return selection.selected && session.layer
    ? CellSet.matching(session.layer.grid, table.value).intersect(selection.selected).count
    : 0;
});
const deleting = computed(() => ({
  palette: palette.value.id,
  bytes: props.task.bytes,
  moveTo: cubes.value === 'move' ? to.value : null,
}));
const replacing = computed(() => ({
  palette: palette.value.id,
  from: props.task.bytes,
  to: to.value,
  ...(where.value === 'project' ? {} : { part: session.part!.id }),
  ...(where.value === 'selection' ? { layer: session.layer!.id, within: selection.selected } : {}),
}));
/** Shows it in the view while it is being decided. */
const show = (): void =>
  void (session.preview =
    props.task.kind === 'delete'
      ? session.tryEdit(deleteSwatchesEdit, deleting.value, true)
      : session.tryEdit(replaceSwatchEdit, replacing.value, true));
watch([deleting, replacing], show, { immediate: true });
onBeforeUnmount(() => (session.preview = null));
function run(): void {
  if (props.task.kind === 'delete') {
    const done = session.apply(deleteSwatchesEdit, deleting.value);
    if (done && deleting.value.moveTo) build.byte = deleting.value.moveTo;
  } else session.apply(replaceSwatchEdit, replacing.value);
  colours.task = null;
  colours.picked = [];
}
</script>

<template>
  <section class="panel-section task" :aria-label="task.kind === 'delete' ? 'Delete swatches' : 'Replace swatches'">
    <div class="panel-head">
      <h2>
        {{ task.kind === 'delete' ? 'Delete' : 'Replace' }}
        {{ gone.length === 1 ? gone[0]!.name : counted(gone.length, 'swatches') }}
      </h2>
    </div>
    <div class="gone"><SwatchChip v-for="s in gone.slice(0, 12)" :key="s.byte" :swatch="s" small /></div>
    <template v-if="task.kind === 'delete'">
      <p data-testid="uses">
        <b class="figures">{{ total.toLocaleString('en') }}</b> cubes in {{ counted(parts.length, 'parts')
        }}{{ kept > 0 ? `, ${kept.toLocaleString('en')} more in stamps and the bin` : '' }}
      </p>
      <ul v-if="parts.length > 0" class="parts figures">
        <li v-for="u in parts.slice(0, 7)" :key="u.part.id">
          <span>{{ u.part.name }}{{ sideSuffix(u.part.side) }}</span
          ><span>{{ u.n.toLocaleString('en') }}</span>
        </li>
        <li v-if="parts.length > 7">
          <span>and {{ parts.length - 7 }} more</span
          ><span>{{
            parts
              .slice(7)
              .reduce((n, u) => n + u.n, 0)
              .toLocaleString('en')
          }}</span>
        </li>
      </ul>
      <choice-field
        v-if="total + kept > 0"
        label="What becomes of the cubes"
        v-model="cubes"
        :choices="[
          { value: 'move', text: 'move cubes' },
          { value: 'remove', text: 'remove cubes' },
        ]"
      />
    </template>
    <template v-else>
      <choice-field
        label="Where"
        v-model="where"
        :choices="[
          { value: 'selection', text: 'selection', disabled: !selection.selected },
          { value: 'part', text: 'part' },
          { value: 'project', text: 'project' },
        ]"
      />
      <p data-testid="uses">
        <b class="figures">{{ meantHere.toLocaleString('en') }}</b> cubes
      </p>
    </template>
    <div v-if="task.kind === 'replace' || (cubes === 'move' && total + kept > 0)" class="row">
      <span class="quiet">to</span
      ><SwatchChip v-if="colours.swatchOf(to)" :swatch="colours.swatchOf(to)!" small /><SelectField
        v-model="to"
        class="grow"
        label="To swatch"
        :choices="choicesOfOthers"
      />
    </div>
    <div class="row">
      <action-button look="primary" @click="run">
        {{ task.kind === 'delete' ? 'Delete' : 'Replace' }}</action-button><action-button @click="colours.task = null">
        Keep
      </action-button>
    </div>
  </section>
</template>

<style scoped>
.task {
  background: color-mix(in srgb, var(--honey-soft) 45%, transparent);
}
.gone {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.parts {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 11px;
}
.parts li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 1px 0;
}
.grow {
  flex: 1;
}
</style>
