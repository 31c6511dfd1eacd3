<script setup lang="ts">
import { IconColumns3, IconCopy, IconPlus, IconTrash } from '@tabler/icons-vue';
import { inColourway } from '@sphalerite/core/model';
import { deleteColourwayEdit, moveColourwayEdit, renameColourwayEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import BinList from '../../../components/BinList.vue';
import NameField from '../../../components/NameField.vue';
import { runCommand } from '../../../stores/commands';
import { useSession } from '../../../stores/session';
import { useColours } from './colours-state';
import ActionButton from '../../../components/ActionButton.vue';
import IconButton from '../../../components/IconButton.vue';
import { type DropTarget, vDrag, vDrop } from '../../../components/drag';

const session = useSession();
const colours = useColours();
const ways = computed(() => session.project!.colourways);
const palette = computed(() => session.palette!);
/** The looks that differ, as they are in each; with the palette itself first. */
const rows = computed(() =>
  [null, ...ways.value].map((w) => {
    const recoloured = inColourway(session.project!, w?.id ?? null).palettes.find((p) => p.id === palette.value.id)!;
    const changed = new Set(
      ways.value.flatMap((o) => o.changes.filter((c) => c.palette === palette.value.id).map((c) => c.byte)),
    );
    const shown = changed.size > 0 ? recoloured.swatches.filter((s) => changed.has(s.byte)) : recoloured.swatches;
    return {
      id: w?.id ?? null,
      name: w?.name ?? 'Palette',
      own: w?.changes.length ?? 0,
      colours: shown.slice(0, 14).map((s) => s.colour),
    };
  }),
);
const place = (index: number): DropTarget => ({
  accepts: (what) => what.kind === 'colourway',
  drop: (what) => session.apply(moveColourwayEdit, { colourway: what.ids[0]!, index }),
});
</script>

<template>
  <section class="panel-section" aria-label="Colourways">
    <div class="panel-head">
      <h2>
        Colourways <span class="figures quiet">{{ ways.length }}</span>
      </h2>
      <span class="row"
        ><icon-button
          :icon="IconColumns3"
          label="Side by side"
          :on="colours.sideBySide"
          tip="Side by side in the view"
          keys="Alt+D"
          :disabled="ways.length === 0"
          @click="runCommand('colourway.sideBySide')" /><icon-button
          :icon="IconPlus"
          label="New colourway"
          keys="Ctrl+Alt+N"
          @click="runCommand('colourway.new')"
      /></span>
    </div>
    <ul class="list">
      <li
        v-for="(r, i) in rows"
        :key="r.id ?? ''"
        class="way"
        :class="{ on: r.id === session.view.colourway }"
        v-drag="() => (r.id ? { kind: 'colourway', ids: [r.id], label: r.name } : null)"
        v-drop="place(Math.max(0, i - 1))"
      >
        <div class="head">
          <NameField
            v-if="r.id !== null && r.id === session.view.colourway"
            :name="r.name"
            label="Name of the colourway"
            @rename="(name) => session.apply(renameColourwayEdit, { colourway: r.id!, name })"
          />
          <action-button
            v-else
            look="row"
            class="name"
            :aria-label="`Use ${r.name}`"
            :on="r.id === session.view.colourway"
            @click="colours.activate(r.id)"
            >{{ r.name }}</action-button
          >
          <span class="figures quiet">{{
            r.id === null ? 'as it is' : r.own === 0 ? 'no change' : `${r.own} own`
          }}</span>
          <template v-if="r.id !== null"
            ><icon-button
              :icon="IconCopy"
              class="small"
              :label="`Duplicate ${r.name}`"
              tip="Duplicate"
              @click="runCommand('colourway.new', r.id)" /><icon-button
              :icon="IconTrash"
              class="small"
              :label="`Delete ${r.name}`"
              tip="To the bin"
              @click="session.apply(deleteColourwayEdit, { colourway: r.id })"
          /></template>
        </div>
        <div class="strip" aria-hidden="true" @click="colours.activate(r.id)">
          <i v-for="(c, k) in r.colours" :key="k" :style="{ background: c }" />
        </div>
      </li>
    </ul>
    <p v-if="ways.length === 0" class="quiet">
      A colourway is another look of the whole project over the same cubes. Only what you change in it differs.
    </p>
    <BinList kind="colourway" />
  </section>
</template>

<style scoped>
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.way {
  padding: 4px 6px 6px;
  border: 1px solid transparent;
  border-left: 3px solid transparent;
  border-radius: var(--radius);
}
.way:hover {
  background: color-mix(in srgb, var(--honey-soft) 45%, transparent);
}
.way.on {
  background: var(--honey-soft);
  border-left-color: var(--honey);
}
.head {
  display: flex;
  align-items: center;
  gap: 4px;
}
.head .name.el-button {
  --el-button-hover-bg-color: transparent;
  --el-button-bg-color: transparent;
  min-height: 22px;
  padding: 0;
  font-weight: 500;
}
.head > :first-child {
  flex: 1;
  min-width: 0;
}
.head .figures {
  font-size: 11px;
}
.strip {
  display: flex;
  width: 100%;
  height: 14px;
  border-radius: 4px;
  overflow: hidden;
  border: 1px solid rgb(0 0 0 / 20%);
}
.strip i {
  flex: 1;
}
</style>
