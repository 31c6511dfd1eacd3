<script setup lang="ts">
import { IconEye, IconEyeOff, IconLock, IconLockOpen, IconPlus, IconTrash } from '@tabler/icons-vue';
import type { Layer } from '@sphalerite/core/model';
import { deleteLayerEdit, layPartOverEdit, moveLayerEdit, setLayerEdit } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import NameField from '../../components/NameField.vue';
import { useDialogs } from '../../stores/dialogs';
import { runCommand } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useBuild } from './build-state';
import { commonByte } from './layer-colour';

const dialogs = useDialogs();
const session = useSession();
const build = useBuild();
const part = computed(() => session.part!);
const dragged = ref<string | null>(null);
const top = computed(() => [...part.value.layers].reverse());
const on = (l: Layer) => ({ part: part.value.id, layer: l.id });

const colourOf = (l: Layer): string =>
  session.palette?.swatches.find((s) => s.byte === commonByte(l.grid))?.colour ?? 'transparent';
function drop(e: DragEvent, index: number): void {
  const other = e.dataTransfer?.getData('text/part');
  if (other && other !== part.value.id) session.apply(layPartOverEdit, { part: part.value.id, other });
  else if (dragged.value)
    session.apply(moveLayerEdit, {
      part: part.value.id,
      layer: dragged.value,
      index: part.value.layers.length - 1 - index,
    });
  dragged.value = null;
}
function menuOf(e: MouseEvent, l: Layer): void {
  session.choose({ layer: l.id });
  dialogs.openMenu(e, ['layer.new', 'layer.merge', 'tint.layer', 'select.toLayer']);
}
</script>

<template>
  <section class="panel-section" aria-label="Layers" @dragover.prevent @drop.prevent="drop($event, 0)">
    <div class="panel-head">
      <h2>Layers</h2>
      <button
        type="button"
        class="bare"
        aria-label="New layer"
        title="New layer · Ctrl+Shift+L"
        @click="runCommand('layer.new')"
      >
        <IconPlus aria-hidden="true" />
      </button>
    </div>
    <ul class="list">
      <li
        v-for="(l, i) in top"
        :key="l.id"
        class="layer"
        :class="{ on: l.id === session.layer?.id, off: l.hidden }"
        draggable="true"
        @dragstart="dragged = l.id"
        @dragover.prevent
        @drop.prevent.stop="drop($event, i)"
        @contextmenu.prevent="menuOf($event, l)"
      >
        <i class="dot" :style="{ background: colourOf(l) }" aria-hidden="true" />
        <NameField
          v-if="l.id === session.layer?.id"
          :name="l.name"
          label="Name of the layer"
          @rename="(name) => session.apply(setLayerEdit, { ...on(l), name })"
        />
        <button
          v-else
          type="button"
          class="pick"
          :aria-label="`Work on layer ${l.name}`"
          @click="session.choose({ layer: l.id })"
        >
          {{ l.name }}
        </button>
        <span class="figures quiet">{{ l.grid.count.toLocaleString('en') }}</span>
        <span class="acts">
          <button
            v-if="part.layers.length > 1"
            type="button"
            class="bare later"
            :aria-label="`Delete layer ${l.name}`"
            title="To the bin"
            @click="session.apply(deleteLayerEdit, on(l))"
          >
            <IconTrash aria-hidden="true" />
          </button>
          <button
            type="button"
            class="bare"
            :class="{ later: !l.locked }"
            :aria-label="`${l.locked ? 'Unlock' : 'Lock'} layer ${l.name}`"
            :title="l.locked ? 'Unlock' : 'Lock'"
            @click="session.apply(setLayerEdit, { ...on(l), locked: !l.locked })"
          >
            <IconLock v-if="l.locked" aria-hidden="true" /><IconLockOpen v-else aria-hidden="true" />
          </button>
          <button
            type="button"
            class="bare"
            :aria-label="`${l.hidden ? 'Show' : 'Hide'} layer ${l.name}`"
            :title="l.hidden ? 'Show' : 'Hide'"
            @click="session.apply(setLayerEdit, { ...on(l), hidden: !l.hidden })"
          >
            <IconEyeOff v-if="l.hidden" aria-hidden="true" /><IconEye v-else aria-hidden="true" />
          </button>
        </span>
      </li>
    </ul>
    <p v-if="build.tint === 'layer'" class="quiet">The layer in hand is tinted in the view (Shift+Y).</p>
  </section>
</template>

<style scoped>
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.layer {
  display: flex;
  align-items: center;
  gap: 7px;
  min-height: 29px;
  padding: 0 2px 0 8px;
  border-radius: 4px;
}
.layer.on {
  background: var(--honey-soft);
}
.layer.off .pick,
.layer.off .figures {
  opacity: 0.6;
}
.layer .figures {
  margin-left: auto;
}
.pick {
  flex: 1;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
.dot {
  width: 9px;
  height: 9px;
  border-radius: 3px;
  flex: none;
  box-shadow: 0 0 0 1px rgb(0 0 0 / 18%);
}
.acts {
  display: flex;
}
.acts .bare {
  width: 22px;
}
.acts .bare svg {
  width: 16px;
  height: 16px;
}
.later {
  opacity: 0;
  width: 0 !important;
  overflow: hidden;
}
.layer:hover .later,
.layer.on .later,
.later:focus-visible {
  opacity: 1;
  width: 22px !important;
}
</style>
