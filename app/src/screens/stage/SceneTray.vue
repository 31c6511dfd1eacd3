<script setup lang="ts">
import {
  IconEye,
  IconEyeOff,
  IconPlus,
  IconCube,
  IconFolder,
  IconPackage,
  IconUser,
  IconTrash,
} from '@tabler/icons-vue';
import {
  type Id,
  type Part,
  type Placement,
  lookUp,
  placementsOf,
  usersOfParts,
  placementName,
} from '@sphalerite/core/model';
import {
  changePlacementsEdit,
  hangPlacementsEdit,
  removePlacementsEdit,
  renameSceneEdit,
} from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import BinList from '../../components/BinList.vue';
import EmptyState from '../../components/EmptyState.vue';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import PartPicture from '../../components/PartPicture.vue';
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
import LayerList from './LayerList.vue';
import { repeatText, repeatsOf } from './shown';

const dialogs = useDialogs();
const session = useSession();
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
  for (const p of placements.value.values()) {
    const siblings = below.get(p.parent);
    if (siblings) siblings.push(p);
    else below.set(p.parent, [p]);
  }
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
const partOf = (id: Id): Part | null => {
  const shows = placements.value.get(id)?.shows;
  return shows?.kind === 'part' ? (lookUp(session.project!.parts, shows.part) ?? null) : null;
};
const ICONS = { group: IconFolder, rig: IconUser, asset: IconPackage, cube: IconCube, part: IconCube } as const;
const iconOf = (id: Id) => ICONS[placements.value.get(id)?.shows.kind ?? 'group'];
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
    'stage.ship',
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
            aria-hidden="true" /><PartPicture
            v-if="partOf(row.id)"
            class="small"
            :project="session.inActiveColourway!"
            :part="partOf(row.id)!" /><component
            :is="iconOf(row.id)"
            v-else
            class="kind quiet"
            :size="16"
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
      <LayerList :scene="scene" />
      <LampList />
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
  width: 4px;
  height: 18px;
  border-radius: 2px;
}
.kind {
  flex: none;
  width: 22px;
}
.small {
  width: 22px;
  height: 22px;
}
.told {
  font-size: 11px;
}
</style>
