<script setup lang="ts">
import { IconEye, IconEyeOff, IconLock, IconLockOpen, IconPlus, IconTrash } from '@tabler/icons-vue';
import type { Layer } from '@sphalerite/core/model';
import { deleteLayerEdit, layPartOverEdit, moveLayerEdit, setLayerEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import { useDialogs } from '../../stores/dialogs';
import { runCommand } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';
import { commonByte } from './layer-colour';
import IconButton from '../../components/IconButton.vue';
import TreeView from '../../components/TreeView.vue';
import { type Dragged, type DropTarget, type Place, vDrop } from '../../components/drag';

const dialogs = useDialogs();
const session = useSession();
const build = useBuild();
const part = computed(() => session.part!);
/** As they lie: the topmost first. */
const layers = computed(() => new Map([...part.value.layers].reverse().map((l) => [l.id, l])));
const rows = computed(() => [...layers.value.values()].map(({ id, name }) => ({ id, name })));
const on = (layer: string) => ({ part: part.value.id, layer });

const colourOf = (l: Layer): string =>
  session.palette?.swatches.find((s) => s.byte === commonByte(l.grid))?.colour ?? 'transparent';
/** To a place of the list, which is counted from above; layers are counted from below. */
function moveTo(layer: string, place: number): void {
  const index = part.value.layers.length - 1 - place;
  if (index >= 0 && index < part.value.layers.length) session.apply(moveLayerEdit, { ...on(layer), index });
}
function drop(what: Dragged, beside: string | null, place: Place): void {
  const order = rows.value.map((r) => r.id),
    layer = what.ids[0]!;
  const at = beside === null ? order.length : order.indexOf(beside) + (place === 'after' ? 1 : 0);
  moveTo(layer, order.indexOf(layer) < at ? at - 1 : at);
}
function nudge(layer: string, by: 'up' | 'down' | 'in' | 'out'): void {
  if (by === 'up' || by === 'down') moveTo(layer, rows.value.findIndex((r) => r.id === layer) + (by === 'up' ? -1 : 1));
}
/** A part that is dropped here becomes a layer of this one. */
const parts: DropTarget = {
  accepts: (what) => what.kind === 'part' && !what.ids.includes(part.value.id),
  drop: (what) => what.ids.forEach((other) => session.apply(layPartOverEdit, { part: part.value.id, other })),
};
function menuOf(e: MouseEvent, layer: string): void {
  session.choose({ layer });
  dialogs.openMenu(e, ['layer.new', 'layer.merge', 'tint.layer', 'select.toLayer']);
}
</script>

<template>
  <section v-drop="parts" class="panel-section" aria-label="Layers">
    <div class="panel-head">
      <h2>Layers</h2>
      <icon-button :icon="IconPlus" label="New layer" keys="Ctrl+Shift+L" @click="runCommand('layer.new')" />
    </div>
    <tree-view
      :rows="rows"
      label="Layers"
      kind="layer"
      :most="232"
      :size="29"
      :hand="session.layer?.id ?? null"
      :chosen="session.layer ? [session.layer.id] : []"
      :can-rename="session.writable"
      :accepts="(what) => what.kind === 'layer'"
      ordered
      @pick="(layer) => session.choose({ layer })"
      @rename="(layer, name) => session.apply(setLayerEdit, { part: part.id, layer, name })"
      @menu="menuOf"
      @drop="drop"
      @nudge="nudge"
    >
      <template #picture="{ row }"
        ><i class="dot" :style="{ background: colourOf(layers.get(row.id)!) }" aria-hidden="true"
      /></template>
      <template #after="{ row }"
        ><span class="figures quiet" :class="{ off: layers.get(row.id)?.hidden }">{{
          layers.get(row.id)?.grid.count.toLocaleString('en')
        }}</span></template
      >
      <template #acts="{ row }">
        <icon-button
          v-if="part.layers.length > 1"
          :icon="IconTrash"
          class="small later"
          :label="`Delete layer ${row.name}`"
          tip="To the bin"
          @click="session.apply(deleteLayerEdit, on(row.id))"
        />
        <icon-button
          :icon="layers.get(row.id)?.locked ? IconLock : IconLockOpen"
          class="small"
          :class="{ later: !layers.get(row.id)?.locked }"
          :label="`${layers.get(row.id)?.locked ? 'Unlock' : 'Lock'} layer ${row.name}`"
          :tip="layers.get(row.id)?.locked ? 'Unlock' : 'Lock'"
          @click="session.apply(setLayerEdit, { ...on(row.id), locked: !layers.get(row.id)?.locked })"
        />
        <icon-button
          :icon="layers.get(row.id)?.hidden ? IconEyeOff : IconEye"
          class="small"
          :label="`${layers.get(row.id)?.hidden ? 'Show' : 'Hide'} layer ${row.name}`"
          :tip="layers.get(row.id)?.hidden ? 'Show' : 'Hide'"
          @click="session.apply(setLayerEdit, { ...on(row.id), hidden: !layers.get(row.id)?.hidden })"
        />
      </template>
    </tree-view>
    <p v-if="build.tint === 'layer'" class="quiet">The layer in hand is tinted in the view (Shift+Y).</p>
  </section>
</template>

<style scoped>
.off {
  opacity: 0.6;
}
.dot {
  width: 9px;
  height: 9px;
  border-radius: 3px;
  flex: none;
  box-shadow: 0 0 0 1px rgb(0 0 0 / 18%);
}
</style>
