<script setup lang="ts">
import {
  IconEye,
  IconEyeOff,
  IconFocus2,
  IconLock,
  IconLockOpen,
  IconPlus,
  IconStack2,
  IconTrash,
} from '@tabler/icons-vue';
import { type Id, type Placement, placementsOf, usersOfParts } from '@sphalerite/core/model';
import {
  addSceneLayerEdit,
  changePlacementsEdit,
  changeSceneLayerEdit,
  hangPlacementsEdit,
  removePlacementsEdit,
  removeSceneLayerEdit,
  renameSceneEdit,
} from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import BinList from '../../components/BinList.vue';
import ColourField from '../../components/ColourField.vue';
import EmptyState from '../../components/EmptyState.vue';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import NameField from '../../components/NameField.vue';
import SelectField from '../../components/SelectField.vue';
import TextField from '../../components/TextField.vue';
import TreeView from '../../components/TreeView.vue';
import { records } from '../../components/choices';
import type { Dragged } from '../../components/drag';
import { type TreeRow, seenRows } from '../../components/tree';
import { runCommand } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useSession } from '../../stores/session';
import LampList from './LampList.vue';
import { placementName, repeatText, repeatsOf } from './shown';
import { useStage } from './stage-state';

const dialogs = useDialogs();
const session = useSession();
const stage = useStage();
const words = ref('');
/** Above so many, something is found by its name. */
const MANY = 12;

const scene = computed(() => session.scene);
const placements = computed(() => new Map(scene.value ? placementsOf(scene.value).map((p) => [p.id, p]) : []));
const layers = computed(() => new Map(scene.value?.layers.map((l) => [l.id, l])));
const users = computed(() => (session.project ? usersOfParts(session.project.scenes) : new Map<Id, number>()));
const repeats = computed(() => (scene.value ? repeatsOf(scene.value) : new Map<Id, never>()));
const rows = computed((): readonly TreeRow[] => {
  const below = new Map<Id | null, Placement[]>();
  for (const p of placements.value.values()) below.set(p.parent, [...(below.get(p.parent) ?? []), p]);
  const of = (parent: Id | null): TreeRow[] =>
    (below.get(parent) ?? []).map((p): TreeRow => {
      const children = of(p.id);
      return {
        id: p.id,
        name: placementName(session.project!, p),
        ...(children.length > 0 ? { children } : {}),
      };
    });
  return of(null);
});
const order = computed(() => seenRows(rows.value, new Set()).map((s) => s.row.id));
/** As "×5" beside what shows a part that stands elsewhere too. */
function told(id: Id): string {
  const p = placements.value.get(id);
  if (!p) return '';
  const r = repeats.value.get(id);
  if (r) return repeatText(r);
  const n = p.shows.kind === 'part' ? (users.value.get(p.shows.part) ?? 0) : 0;
  return n > 1 ? `×${n}` : '';
}
const change = (id: Id, to: Partial<Placement>): boolean =>
  session.apply(changePlacementsEdit, { scene: scene.value!.id, changes: [{ id, change: to }] });
function menuOf(e: MouseEvent, placement: Id): void {
  if (!session.view.chosen.placement.includes(placement)) session.choose({ placement });
  dialogs.openMenu(e, [
    'stage.duplicate',
    'stage.own',
    'stage.group',
    'stage.stamp',
    'stage.drop',
    'stage.quarter',
    'stage.open',
    'view.frame',
    'stage.remove',
  ]);
}
const drop = (what: Dragged, id: Id | null): void =>
  void session.apply(hangPlacementsEdit, { scene: scene.value!.id, placements: what.ids, parent: id });
function nudge(id: Id, by: 'up' | 'down' | 'in' | 'out'): void {
  const p = placements.value.get(id)!;
  const siblings = [...placements.value.values()].filter((o) => o.parent === p.parent);
  const parent =
    by === 'out'
      ? (placements.value.get(p.parent ?? '')?.parent ?? null)
      : (siblings[siblings.indexOf(p) - 1]?.id ?? null);
  if ((by === 'out' && p.parent !== null) || (by === 'in' && parent !== null))
    drop({ kind: 'placement', ids: [id], label: '' }, parent);
}
</script>

<template>
  <div v-if="session.project">
    <div class="panel-head tray-head">
      <h2>
        Scene <span class="figures quiet">{{ placements.size }}</span>
      </h2>
      <icon-button :icon="IconPlus" label="New scene" @click="runCommand('scene.new')" />
    </div>
    <empty-state v-if="!scene" text="No scene yet. Pieces become a place here.">
      <action-button look="primary" @click="runCommand('scene.new')">New scene</action-button>
    </empty-state>
    <template v-else>
      <div class="which">
        <select-field
          v-if="session.project.scenes.length > 1"
          label="The scene in hand"
          :model-value="scene.id"
          :choices="records(session.project.scenes, (o) => o.name)"
          @change="(id: string) => session.choose({ scene: id, placement: null })"
        />
        <name-field
          v-else
          label="Name of the scene"
          :name="scene.name"
          @rename="(name) => session.apply(renameSceneEdit, { scene: scene!.id, name })"
        />
        <icon-button :icon="IconTrash" label="Delete the scene" tip="To the bin" @click="runCommand('scene.delete')" />
      </div>
      <text-field
        v-if="placements.size > MANY"
        v-model="words"
        class="filter"
        label="Placements whose name holds"
        placeholder="filter…"
      />
      <tree-view
        :rows="rows"
        label="What stands in the scene"
        kind="placement"
        :words="words"
        :hand="session.hand.placement"
        :chosen="session.view.chosen.placement"
        :can-rename="session.writable"
        :accepts="(what, id, place) => what.kind === 'placement' && place === 'on' && !what.ids.includes(id ?? '')"
        nests
        @pick="(id, e) => session.pick('placement', id, e, order)"
        @rename="(id, name) => change(id, { name })"
        @menu="menuOf"
        @drop="drop"
        @nudge="nudge"
      >
        <template #picture="{ row }"
          ><span
            class="dot"
            :style="{ background: layers.get(placements.get(row.id)?.layer ?? '')?.colour }"
            aria-hidden="true"
        /></template>
        <template #after="{ row }"
          ><span v-if="told(row.id)" class="figures quiet told">{{ told(row.id) }}</span></template
        >
        <template #acts="{ row }">
          <icon-button
            :icon="IconTrash"
            class="later"
            :label="`Take ${row.name} out`"
            tip="Out of the scene"
            @click="session.apply(removePlacementsEdit, { scene: scene!.id, placements: [row.id] })"
          />
          <icon-button
            :icon="placements.get(row.id)?.hidden ? IconEyeOff : IconEye"
            :class="{ later: !placements.get(row.id)?.hidden }"
            :label="`${placements.get(row.id)?.hidden ? 'Show' : 'Hide'} ${row.name}`"
            :tip="placements.get(row.id)?.hidden ? 'Show' : 'Hide'"
            @click="change(row.id, { hidden: !placements.get(row.id)?.hidden })"
          />
        </template>
      </tree-view>
      <empty-state
        v-if="placements.size === 0"
        text="Nothing stands here yet. Take a piece below and click the floor."
      />
      <div class="panel-head tray-head layers">
        <h2>
          Layers <span class="figures quiet">{{ scene.layers.length }}</span>
        </h2>
        <icon-button
          :icon="IconPlus"
          label="New layer"
          @click="session.apply(addSceneLayerEdit, { scene: scene.id, name: 'Layer' })"
        />
      </div>
      <div v-for="l in scene.layers" :key="l.id" class="layer">
        <colour-field
          :label="`Colour of the layer ${l.name}`"
          :model-value="l.colour"
          @change="
            (colour) => session.apply(changeSceneLayerEdit, { scene: scene!.id, layer: l.id, change: { colour } })
          "
        />
        <name-field
          :label="`Name of the layer ${l.name}`"
          :name="l.name"
          @rename="(name) => session.apply(changeSceneLayerEdit, { scene: scene!.id, layer: l.id, change: { name } })"
        />
        <span class="acts"
          ><icon-button
            :icon="IconFocus2"
            :on="stage.alone === l.id"
            :label="`${l.name} alone`"
            tip="This layer alone; the others turn faint"
            @click="stage.alone = stage.alone === l.id ? null : l.id" /><icon-button
            :icon="l.locked ? IconLock : IconLockOpen"
            :label="`${l.locked ? 'Unlock' : 'Lock'} the layer ${l.name}`"
            :tip="l.locked ? 'Unlock' : 'Lock'"
            @click="
              session.apply(changeSceneLayerEdit, { scene: scene!.id, layer: l.id, change: { locked: !l.locked } })
            " /><icon-button
            :icon="l.hidden ? IconEyeOff : IconEye"
            :label="`${l.hidden ? 'Show' : 'Hide'} the layer ${l.name}`"
            :tip="l.hidden ? 'Show' : 'Hide'"
            @click="
              session.apply(changeSceneLayerEdit, { scene: scene!.id, layer: l.id, change: { hidden: !l.hidden } })
            " /><icon-button
            v-if="scene.layers.length > 1"
            :icon="IconTrash"
            :label="`Remove the layer ${l.name}`"
            tip="What lies on it comes to the first"
            @click="session.apply(removeSceneLayerEdit, { scene: scene.id, layer: l.id })"
        /></span>
      </div>
      <LampList />
      <p v-if="session.view.chosen.placement.length > 0" class="onto">
        <IconStack2 aria-hidden="true" :size="15" />
        <select-field
          label="Layer of what is chosen"
          :model-value="session.placement?.layer ?? null"
          :choices="records(scene.layers, (o) => o.name)"
          @change="
            (layer: string | null) =>
              layer &&
              session.apply(changePlacementsEdit, {
                scene: scene!.id,
                changes: session.view.chosen.placement.map((id) => ({ id, change: { layer } })),
              })
          "
        />
      </p>
    </template>
    <BinList kind="scene" />
  </div>
</template>

<style scoped>
.which {
  display: flex;
  gap: 4px;
  align-items: center;
  padding: 0 8px 6px 12px;
}
.which > :first-child {
  flex: 1;
  min-width: 0;
}
.filter {
  width: auto;
  margin: 0 12px 6px;
}
.dot {
  flex: none;
  width: 10px;
  height: 10px;
  border-radius: 3px;
}
.told {
  font-size: 11px;
}
.layers {
  margin-top: 10px;
  border-top: 1px solid var(--line);
}
.layer {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 1px 6px 1px 12px;
}
.layer > :nth-child(2) {
  flex: 1;
  min-width: 0;
}
.acts {
  display: flex;
}
.onto {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 6px 12px;
  color: var(--quiet);
}
.onto > :last-child {
  flex: 1;
}
</style>
