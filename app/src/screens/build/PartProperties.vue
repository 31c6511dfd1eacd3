<script setup lang="ts">
import { MAX_EDGE } from '@sphalerite/core/voxel';
import { IconArrowsMaximize, IconArrowsMinimize, IconBoxMultiple, IconFocus2 } from '@tabler/icons-vue';
import { type Vec3, boxVolume, withAxis } from '@sphalerite/core/math';
import { find, partContent } from '@sphalerite/core/model';
import {
  type Edit,
  coarsenPartEdit,
  fitPartEdit,
  renamePartEdit,
  restVolumes,
  setSideEdit,
} from '@sphalerite/core/project';
import { rowPlan } from '@sphalerite/core/sculpt';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import NameField from '../../components/NameField.vue';
import VectorField from '../../components/VectorField.vue';
import { runCommand } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { NEIGHBOURS, useSettings } from '../../stores/settings';
import { useBuild } from './build-state';
import { applyToPart } from './heavy';
import { useHollow } from './hollow/hollow-state';
import { FIGURES, FIGURE_NAMES } from '../shared/scale-figure';
import { useSelection } from './selection/selection-state';
import { resizeAxis, standAt } from './volume-actions';
import ActionButton from '../../components/ActionButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import SelectField from '../../components/SelectField.vue';
import { choices } from '../../components/choices';
import EmptyState from '../../components/EmptyState.vue';
import FileButton from '../../components/FileButton.vue';
import FoldSection from '../../components/FoldSection.vue';
import CheckField from '../../components/CheckField.vue';
import FormRow from '../../components/FormRow.vue';
import SideField from '../../components/SideField.vue';
import { renamed } from '../shared/renamed';
import { commonOf } from '../../components/mixed';
import LayersPanel from './LayersPanel.vue';
import PivotPanel from './pivot/PivotPanel.vue';

// Fetched when there is something to show in them.
const SelectionPanel = defineAsyncComponent(() => import('./selection/SelectionPanel.vue'));
const HollowPanel = defineAsyncComponent(() => import('./hollow/HollowPanel.vue'));
const ReferencePanel = defineAsyncComponent(() => import('./ReferencePanel.vue'));
const CombineParts = defineAsyncComponent(() => import('./CombineParts.vue'));
const TargetPanel = defineAsyncComponent(() => import('../../shell/target/TargetPanel.vue'));
const session = useSession();
const selection = useSelection();
const build = useBuild();
const hollow = useHollow();
const { settings } = useSettings();
const part = computed(() => session.part);
/** All that are chosen, the one in hand among them. */
const chosen = computed(() => session.project!.parts.filter((p) => session.view.chosen.part.includes(p.id)));
/** The low corner of each chosen part's volume in the world, at rest. */
const corners = computed(() => {
  const volumes = restVolumes(session.project!);
  return chosen.value.flatMap((p) => (volumes.has(p.id) ? [volumes.get(p.id)!.lo] : []));
});
async function takePictures(files: File[]): Promise<void> {
  await (await import('../../shell/files/dispatcher')).takeFiles(files, 'reference');
}
/** What the part was made of: a file, or what makes such things up. */
const madeOf = computed(() => {
  const kept = part.value?.made && find(session.project!.imports, part.value.made.import);
  return kept ? (kept.files[0]?.name ?? kept.importer) : null;
});
// A size to fit to is tried out here before anything changes.
const fit = ref<Vec3 | null>(null);
/** Shows what an edit would give while the pointer rests on its button. */
function show<A>(edit: Edit<A> | null, args?: A): void {
  // A preview must not hold the hand up; large parts show their change when it is done.
  session.preview =
    edit && args && part.value && boxVolume(part.value.bounds) < 600_000 ? session.tryEdit(edit, args, true) : null;
}
const content = computed(() => (part.value ? partContent(part.value) : null));
watch([() => part.value?.id, content], () => (fit.value = null));
const fitText = computed(() => {
  const b = content.value,
    f = fit.value;
  if (!b || !f) return '';
  return ['X', 'Y', 'Z']
    .map((a, i) => {
      const plan = rowPlan(b.size[i]!, f[i]!);
      const k = f[i]! / b.size[i]!;
      if (k === 1) return '';
      if (Number.isInteger(k)) return `${a} ×${k}`;
      return plan.lost.length > 0 ? `${a} loses rows ${few(plan.lost)}` : `${a} doubles rows ${few(plan.doubled)}`;
    })
    .filter(Boolean)
    .join('; ');
});
const few = (rows: readonly number[]): string =>
  rows
    .slice(0, 6)
    .map((r) => r + 1)
    .join(', ') + (rows.length > 6 ? '…' : '');
</script>

<template>
  <div v-if="part">
    <HollowPanel v-if="hollow.on" />
    <SelectionPanel v-if="selection.active || selection.repeat" />
    <section class="panel-section">
      <div class="panel-head">
        <NameField
          :name="part.name"
          label="Name of the part"
          :disabled="!session.writable"
          @rename="(name) => renamed(renamePartEdit, { part: part!.id, name }, () => session.part?.name)"
        /><span v-if="chosen.length > 1" class="quiet">and {{ chosen.length - 1 }} more</span
        ><side-field
          label="Side of the part"
          :model-value="chosen.every((p) => p.side === part!.side) ? part.side : null"
          @change="(side) => session.apply(setSideEdit, { of: 'parts', ids: chosen.map((p) => p.id), side })"
        />
      </div>
      <vector-field size :model-value="part.bounds.size" :min="1" :max="MAX_EDGE" @change="resizeAxis" />
      <div class="row two">
        <action-button @click="runCommand('part.shrink')">
          <IconArrowsMinimize aria-hidden="true" />Shrink to fit</action-button
        ><action-button
          :on="build.handles === 'volume'"
          tip="Handles on the volume"
          keys="V"
          @click="runCommand('volume.handles')"
        >
          <IconBoxMultiple aria-hidden="true" />Handles
        </action-button>
      </div>
      <div class="row two">
        <action-button @click="runCommand('part.refine2')">
          <IconArrowsMaximize aria-hidden="true" />Refine ×2</action-button
        ><action-button
          tip="Hover shows what it would be"
          @mouseenter="show(coarsenPartEdit, { part: part!.id, by: 2 })"
          @mouseleave="show(null)"
          @click="runCommand('part.coarsen2')"
        >
          Coarsen ÷2
        </action-button>
      </div>
      <div v-if="madeOf" class="row made">
        <span class="quiet">made of {{ madeOf }}</span
        ><CommandButton id="part.again" text="Make again…" />
      </div>
      <check-field v-model="build.growVolume" tip="What is drawn beyond the volume makes it larger" data-keys="W"
        >strokes grow the volume</check-field
      >
      <fold-section id="part-volume" title="More of the volume">
        <div class="grid">
          <CommandButton id="volume.double" text="Double" /><CommandButton
            id="volume.halve"
            text="Halve"
          /><CommandButton id="part.centre" text="Centre" />
          <CommandButton id="part.refine3" text="Refine ×3" /><CommandButton
            id="part.coarsen3"
            text="Coarsen ÷3"
          /><CommandButton id="part.clear" text="Clear" /><CommandButton id="tidy.hollow" text="Hollow…" />
          <CommandButton id="part.rowAddX" text="+ row X" /><CommandButton
            id="part.rowAddY"
            text="+ row Y"
          /><CommandButton id="part.rowAddZ" text="+ row Z" />
          <CommandButton id="part.rowRemoveX" text="− row X" /><CommandButton
            id="part.rowRemoveY"
            text="− row Y"
          /><CommandButton id="part.rowRemoveZ" text="− row Z" />
        </div>
        <CommandButton id="part.shrinkAll" text="Shrink all parts to fit" />
        <h3>Where it stands</h3>
        <vector-field
          name="Part at"
          role="group"
          aria-label="Low corner of the volume, in the world"
          :model-value="commonOf(corners)"
          @change="(axis, at) => standAt(chosen, axis, at)"
        />
        <template v-if="content">
          <h3>Fit the cubes to a size</h3>
          <vector-field
            size
            name="Fit"
            :model-value="fit ?? content.size"
            :min="1"
            :max="MAX_EDGE"
            @change="(axis, v) => (fit = withAxis(fit ?? content!.size, axis, Math.round(v)))"
          />
          <p v-if="fitText" class="quiet">{{ fitText }}</p>
          <action-button
            v-if="fit"
            look="primary"
            tip="Hover shows what it would be"
            @mouseenter="show(fitPartEdit, { part: part!.id, size: fit! })"
            @mouseleave="show(null)"
            @click="applyToPart(fitPartEdit, { part: part!.id, size: fit! })"
          >
            Fit
          </action-button>
        </template>
      </fold-section>
    </section>
    <CombineParts v-if="chosen.length > 1" />
    <PivotPanel :parts="chosen" />
    <LayersPanel />
    <section class="panel-section">
      <h2>Beside it</h2>
      <choice-field v-model="settings.neighbours" label="Neighbours" wide :choices="choices(NEIGHBOURS)" />
      <div class="row two">
        <action-button :on="build.isolate" @click="build.isolate = !build.isolate">
          <IconFocus2 aria-hidden="true" />Isolate
        </action-button>
      </div>
      <form-row label="Scale figure"
        ><SelectField
          v-model="settings.figure"
          label="Scale figure"
          :choices="choices(FIGURES, (f) => FIGURE_NAMES[f])"
      /></form-row>
      <file-button accept="image/png,image/jpeg,image/webp" multiple @files="takePictures"
        >Reference picture…</file-button
      >
      <ReferencePanel v-if="session.project?.references.some((r) => r.part === part!.id)" />
    </section>
    <section class="panel-section">
      <div class="panel-head"><h2>Look over it</h2></div>
      <div class="grid">
        <CommandButton id="tint.unpaired" text="Twins" /><CommandButton id="tint.grain" text="Grain" /><CommandButton
          id="tint.tidy"
          text="Tidy"
        />
      </div>
      <template v-if="build.tint === 'tidy'"
        ><div class="grid">
          <CommandButton id="tidy.loose" text="− loose" /><CommandButton
            id="tidy.holes"
            text="Fill holes"
          /><CommandButton id="tidy.hollow" text="Hollow…" />
        </div>
        <div class="row two">
          <CommandButton id="tidy.colours" text="Unite colours" /><CommandButton
            id="tidy.helpers"
            text="− helpers"
          /></div
      ></template>
      <div v-if="build.tint === 'unpaired'" class="row two">
        <CommandButton id="mirror.low" text="− side onto +" /><CommandButton id="mirror.high" text="+ side onto −" />
      </div>
    </section>
    <section class="panel-section">
      <fold-section id="part-target" title="Target sheet"><TargetPanel /></fold-section>
    </section>
  </div>
  <empty-state v-else text="Choose a part on the left, or make a new one." />
</template>

<style scoped>
.two {
  flex-wrap: wrap;
}
.two :deep(.el-button) {
  flex: 1 1 90px;
  min-width: 0;
  padding: 0 6px;
}
.made {
  justify-content: space-between;
}
.made .quiet {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 5px;
}
.grid :deep(.el-button) {
  padding: 0 4px;
  font-size: 12px;
  min-width: 0;
}
.grid :deep(.el-button svg) {
  display: none;
}
@media (max-width: 1180px) {
  .two :deep(.el-button svg) {
    display: none;
  }
}
</style>
