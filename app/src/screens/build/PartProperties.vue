<script setup lang="ts">
import { MAX_EDGE } from '@sphalerite/core/voxel';
import {
  IconArrowsMaximize,
  IconArrowsMinimize,
  IconBoxMultiple,
  IconFocus2,
  IconManFilled,
  IconUsers,
} from '@tabler/icons-vue';
import { type Vec3, boxVolume, mapVec } from '@sphalerite/core/math';
import { partContent } from '@sphalerite/core/model';
import { type Edit, coarsenPartEdit, fitPartEdit, renamePartEdit, setPivotEdit } from '@sphalerite/core/project';
import { rowPlan } from '@sphalerite/core/sculpt';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import NameField from '../../components/NameField.vue';
import NumberField from '../../components/NumberField.vue';
import { runCommand } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { useBuild } from './build-state';
import { applyToPart } from './heavy';
import LayersPanel from './LayersPanel.vue';
import { FIGURES, FIGURE_NAMES } from './scale-figure';
import { useSelection } from './selection/selection-state';
import { resizeAxis } from './volume-actions';

// Fetched when there is something to show in them.
const SelectionPanel = defineAsyncComponent(() => import('./selection/SelectionPanel.vue'));
const ReferencePanel = defineAsyncComponent(() => import('./ReferencePanel.vue'));
const TargetPanel = defineAsyncComponent(() => import('./TargetPanel.vue'));
const session = useSession();
const selection = useSelection();
const build = useBuild();
const { settings } = useSettings();
const part = computed(() => session.part);
const AXES = ['x', 'y', 'z'] as const;
const bone = computed(() => {
  const m = session.project?.rig.mounts.find((o) => o.part === part.value?.id);
  return session.project?.rig.bones.find((b) => b.id === m?.bone)?.name ?? null;
});
function movePivot(axis: number, cubes: number): void {
  const p = part.value!;
  session.apply(setPivotEdit, {
    part: p.id,
    pivot: mapVec(p.pivot, (v, i) => (i === axis ? Math.round(cubes * 2) : v)),
  });
}
const picture = ref<HTMLInputElement>();
async function takePicture(): Promise<void> {
  const files = [...(picture.value?.files ?? [])];
  picture.value!.value = '';
  await (await import('../../shell/files/dispatcher')).takeFiles(files, 'reference');
}
const sheet = ref(false);
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
    <SelectionPanel v-if="selection.active || selection.repeat" />
    <section class="panel-section">
      <div class="panel-head">
        <NameField
          :name="part.name"
          label="Name of the part"
          :disabled="!session.writable"
          @rename="(name) => session.apply(renamePartEdit, { part: part!.id, name })"
        /><span class="quiet">part</span>
      </div>
      <div class="row">
        <NumberField
          v-for="(a, i) in AXES"
          :key="a"
          :axis="a"
          :label="['W', 'H', 'D'][i]!"
          :name="['Width', 'Height', 'Depth'][i]!"
          :model-value="part.bounds.size[i]!"
          :min="1"
          :max="MAX_EDGE"
          @change="(v) => resizeAxis(i, v)"
        />
      </div>
      <div class="row two">
        <button type="button" class="btn" @click="runCommand('part.shrink')">
          <IconArrowsMinimize aria-hidden="true" />Shrink to fit</button
        ><button
          type="button"
          class="btn"
          :class="{ on: build.handles === 'volume' }"
          title="Handles on the volume · V"
          @click="runCommand('volume.handles')"
        >
          <IconBoxMultiple aria-hidden="true" />Handles
        </button>
      </div>
      <div class="row two">
        <button type="button" class="btn" @click="runCommand('part.refine2')">
          <IconArrowsMaximize aria-hidden="true" />Refine ×2</button
        ><button
          type="button"
          class="btn"
          title="Hover shows what it would be"
          @mouseenter="show(coarsenPartEdit, { part: part!.id, by: 2 })"
          @mouseleave="show(null)"
          @click="runCommand('part.coarsen2')"
        >
          Coarsen ÷2
        </button>
      </div>
      <details>
        <summary>More of the volume</summary>
        <div class="grid">
          <CommandButton id="volume.double" text="Double" /><CommandButton
            id="volume.halve"
            text="Halve"
          /><CommandButton id="part.centre" text="Centre" />
          <CommandButton id="part.refine3" text="Refine ×3" /><CommandButton
            id="part.coarsen3"
            text="Coarsen ÷3"
          /><CommandButton id="part.clear" text="Clear" />
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
        <template v-if="content">
          <h3>Fit the cubes to a size</h3>
          <div class="row">
            <NumberField
              v-for="(a, i) in AXES"
              :key="a"
              :axis="a"
              :label="['W', 'H', 'D'][i]!"
              :name="`Fit ${['width', 'height', 'depth'][i]}`"
              :model-value="(fit ?? content.size)[i]!"
              :min="1"
              :max="MAX_EDGE"
              @change="
                (v) => (fit = (fit ?? content!.size).map((o, k) => (k === i ? Math.round(v) : o)) as unknown as Vec3)
              "
            />
          </div>
          <p v-if="fitText" class="quiet">{{ fitText }}</p>
          <button
            v-if="fit"
            type="button"
            class="btn primary"
            title="Hover shows what it would be"
            @mouseenter="show(fitPartEdit, { part: part!.id, size: fit! })"
            @mouseleave="show(null)"
            @click="applyToPart(fitPartEdit, { part: part!.id, size: fit! })"
          >
            Fit
          </button>
        </template>
      </details>
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h2>Pivot</h2>
        <span class="quiet">half cubes</span>
      </div>
      <div class="row">
        <NumberField
          v-for="(a, i) in AXES"
          :key="a"
          :axis="a"
          :label="a.toUpperCase()"
          :name="`Pivot ${a.toUpperCase()}`"
          :model-value="part.pivot[i]! / 2"
          :step="0.5"
          @change="(v) => movePivot(i, v)"
        />
      </div>
      <p class="quiet">
        {{ bone ? `Mounted on ${bone}. The cubes keep their place when the pivot moves.` : 'Not mounted on a bone.' }}
      </p>
    </section>
    <LayersPanel />
    <section class="panel-section">
      <h2>Beside it</h2>
      <div class="row two">
        <button
          type="button"
          class="btn"
          :class="{ on: settings.neighbours && !build.isolate }"
          :aria-pressed="settings.neighbours"
          @click="settings.neighbours = !settings.neighbours"
        >
          <IconUsers aria-hidden="true" />Neighbours
        </button>
        <button
          type="button"
          class="btn"
          :class="{ on: build.isolate }"
          :aria-pressed="build.isolate"
          @click="build.isolate = !build.isolate"
        >
          <IconFocus2 aria-hidden="true" />Isolate
        </button>
      </div>
      <label class="figure"
        ><IconManFilled aria-hidden="true" />Scale figure<select v-model="settings.figure" aria-label="Scale figure">
          <option v-for="f in FIGURES" :key="f" :value="f">{{ FIGURE_NAMES[f] }}</option>
        </select></label
      >
      <input
        ref="picture"
        type="file"
        accept="image/png,image/jpeg,image/webp"
        class="visually-hidden"
        aria-label="Reference picture"
        @change="takePicture"
      />
      <button type="button" class="btn" @click="picture?.click()">Reference picture…</button>
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
          /><CommandButton id="tidy.hollow" text="Hollow" />
        </div>
        <NumberField
          label="hollowing leaves walls of"
          name="Walls that hollowing leaves"
          :model-value="build.keepWall"
          :min="1"
          :max="32"
          @change="(v) => (build.keepWall = Math.round(v))" />
        <div class="row two">
          <CommandButton id="tidy.colours" text="Unite hues" /><CommandButton id="tidy.helpers" text="− helpers" /></div
      ></template>
      <div v-if="build.tint === 'unpaired'" class="row two">
        <CommandButton id="mirror.low" text="Low half over" /><CommandButton id="mirror.high" text="High half over" />
      </div>
    </section>
    <section class="panel-section">
      <details @toggle="sheet = sheet || ($event.target as HTMLDetailsElement).open">
        <summary class="sheet">Target sheet</summary>
        <TargetPanel v-if="sheet" />
      </details>
    </section>
  </div>
  <p v-else class="none quiet">Choose a part on the left, or make a new one.</p>
</template>

<style scoped>
.two {
  flex-wrap: wrap;
}
.two .btn,
.two :deep(.btn) {
  flex: 1 1 90px;
  min-width: 0;
  padding: 0 6px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 5px;
}
.grid :deep(.btn) {
  padding: 0 4px;
  font-size: 12px;
  min-width: 0;
}
.grid :deep(svg) {
  display: none;
}
details {
  display: grid;
  gap: 8px;
}
details[open] {
  display: grid;
}
details > * + * {
  margin-top: 8px;
}
summary.sheet {
  color: var(--ink);
  font-weight: 600;
  font-size: 13px;
}
summary {
  color: var(--quiet);
  cursor: pointer;
  font-size: 12px;
}
.figure {
  display: flex;
  align-items: center;
  gap: 6px;
}
.figure svg {
  width: 17px;
  height: 17px;
  color: var(--quiet);
}
.figure select {
  flex: 1;
  min-width: 0;
  height: 27px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
}
.none {
  padding: 16px;
}
</style>
