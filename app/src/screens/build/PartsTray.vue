<script setup lang="ts">
import {
  IconCopy,
  IconEye,
  IconEyeOff,
  IconLayoutGrid,
  IconLayoutList,
  IconList,
  IconPlus,
  IconTree,
  IconTrash,
} from '@tabler/icons-vue';
import { composite, partsInUse, sideSuffix } from '@sphalerite/core/model';
import {
  deletePartEdit,
  duplicatePartEdit,
  movePartEdit,
  renamePartEdit,
  setPartHiddenEdit,
} from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import { later } from '../../components/later';
import PartPicture from '../../components/PartPicture.vue';
import { runCommand } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import EmptyState from '../../components/EmptyState.vue';
import ListRow from '../../components/ListRow.vue';
import TextField from '../../components/TextField.vue';
import TreeView from '../../components/TreeView.vue';
import { type Dragged, type Place, vDrag } from '../../components/drag';
import { type TreeRow } from '../../components/tree';
import { renamed } from '../shared/renamed';
import SideTag from '../../components/SideTag.vue';

const BinList = later(() => import('../../components/BinList.vue'));
const dialogs = useDialogs();
const session = useSession();
const { settings } = useSettings();
const LOOKS = {
  both: ['names', 'names alone', IconLayoutList],
  names: ['pictures', 'pictures alone', IconList],
  pictures: ['both', 'pictures and names', IconLayoutGrid],
} as const;
/** Above so many, a part is found by its name. */
const MANY = 24;
const words = ref('');
/** Wholes that are kept aside are reached from their pieces; one that is in hand is shown all the same. */
const inUse = computed(() => {
  const all = session.project?.parts ?? [],
    used = new Set(partsInUse(all));
  return all.filter((p) => used.has(p) || p.id === session.hand.part);
});
const parts = computed(() => new Map(inUse.value.map((p) => [p.id, p])));
const rows = computed((): TreeRow[] =>
  [...parts.value.values()].map((p) => ({ id: p.id, name: p.name, ...(p.side === 'centre' ? {} : { more: p.side }) })),
);
const named = (row: TreeRow): string => `${row.name} ${parts.value.get(row.id)?.side ?? ''}`;
function facts(id: string): string {
  const p = parts.value.get(id);
  return p ? `${p.bounds.size.join('×')} · ${composite(p).count.toLocaleString('en')}` : '';
}

const order = computed(() => session.project?.parts.map((p) => p.id) ?? []);
function menuOf(e: MouseEvent, part: string): void {
  if (!session.view.chosen.part.includes(part)) session.choose({ part, layer: null });
  dialogs.openMenu(e, [
    'part.hide',
    'part.duplicate',
    'part.alternate',
    'part.again',
    'part.shrink',
    'view.isolate',
    'view.frame',
    'part.delete',
    'part.new',
  ]);
}
/** A part can be put in another place of the list, or dropped on the layers of another part. */
function drop(what: Dragged, beside: string | null, place: Place): void {
  const at = beside === null ? order.value.length : order.value.indexOf(beside) + (place === 'after' ? 1 : 0);
  for (const [i, part] of what.ids.entries()) {
    const from = order.value.indexOf(part);
    session.apply(movePartEdit, { part, index: from < at ? at - 1 : at + i });
  }
}
function nudge(part: string, by: 'up' | 'down' | 'in' | 'out'): void {
  const index = order.value.indexOf(part) + (by === 'up' ? -1 : by === 'down' ? 1 : 0);
  if (index >= 0 && index < order.value.length) session.apply(movePartEdit, { part, index });
}
</script>

<template>
  <div v-if="session.project" class="tray">
    <div class="panel-head tray-head">
      <h2>
        Parts <span class="figures quiet">{{ inUse.length }}</span>
      </h2>
      <span class="heads"
        ><icon-button
          :icon="LOOKS[settings.partsAs][2]"
          :label="`Show parts as ${LOOKS[settings.partsAs][1]}`"
          :tip="`Show as ${LOOKS[settings.partsAs][1]}`"
          @click="settings.partsAs = LOOKS[settings.partsAs][0]" /><icon-button
          :icon="IconTree"
          label="Make something up"
          tip="Make up a tree, a rock, a wall…"
          @click="runCommand('project.makeUp')" /><icon-button
          :icon="IconPlus"
          label="New part"
          @click="runCommand('part.new')"
      /></span>
    </div>
    <text-field
      v-if="rows.length > MANY"
      v-model="words"
      class="filter"
      label="Parts whose name holds"
      placeholder="filter…"
    />
    <div v-if="settings.partsAs === 'pictures'" class="pictures" role="group" aria-label="Parts">
      <list-row
        v-for="p in inUse"
        :key="p.id"
        v-drag="() => ({ kind: 'part', ids: [p.id], label: p.name })"
        :on="p.id === session.hand.part"
        :also="session.view.chosen.part.includes(p.id)"
        :tip="p.name + sideSuffix(p.side)"
        @click="session.pick('part', p.id, $event, order)"
        @contextmenu.prevent="menuOf($event, p.id)"
      >
        <template #picture><PartPicture :project="session.inActiveColourway!" :part="p" /></template>
        <b>{{ p.name }}</b>
      </list-row>
    </div>
    <tree-view
      v-else
      :rows="rows"
      label="Parts"
      kind="part"
      :size="settings.partsAs === 'both' ? 50 : 29"
      :words="words"
      :hand="session.hand.part"
      :chosen="session.view.chosen.part"
      :can-rename="session.writable"
      :accepts="(what) => what.kind === 'part'"
      ordered
      @pick="(id, e) => session.pick('part', id, e, order)"
      @rename="(part, name) => renamed(renamePartEdit, { part, name }, () => parts.get(part)?.name)"
      @menu="menuOf"
      @drop="drop"
      @nudge="nudge"
    >
      <template #picture="{ row }"
        ><PartPicture
          v-if="settings.partsAs === 'both'"
          :project="session.inActiveColourway!"
          :part="parts.get(row.id)!"
      /></template>
      <template #name="{ row }">
        <span class="text"
          ><span class="tree-name"
            >{{ row.name }} <side-tag :side="parts.get(row.id)?.side" /><span
              v-if="parts.get(row.id)?.twin"
              class="tag"
              data-tip="Follows its other side"
              >twin</span
            ></span
          >
          <small v-if="settings.partsAs === 'both'" class="figures quiet">{{ facts(row.id) }}</small></span
        >
      </template>
      <template #acts="{ row }">
        <icon-button
          :icon="IconCopy"
          class="later"
          :label="`Duplicate ${named(row)}`"
          tip="Duplicate"
          @click="session.apply(duplicatePartEdit, { part: row.id })"
        />
        <icon-button
          :icon="IconTrash"
          class="later"
          :label="`Delete ${named(row)}`"
          tip="To the bin"
          @click="session.apply(deletePartEdit, { part: row.id })"
        />
        <icon-button
          :icon="parts.get(row.id)?.hidden ? IconEyeOff : IconEye"
          :label="`${parts.get(row.id)?.hidden ? 'Show' : 'Hide'} ${named(row)}`"
          :tip="parts.get(row.id)?.hidden ? 'Show' : 'Hide'"
          @click="session.apply(setPartHiddenEdit, { part: row.id, hidden: !parts.get(row.id)?.hidden })"
        />
      </template>
    </tree-view>
    <empty-state v-if="rows.length === 0" text="No parts yet. A part is one volume of cubes.">
      <action-button look="primary" @click="runCommand('part.new')">New part</action-button>
    </empty-state>
    <BinList kind="part" />
  </div>
</template>

<style scoped>
.heads {
  display: flex;
}
.filter {
  width: auto;
  margin: 0 12px 6px;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(66px, 1fr));
  gap: 4px;
}
.pictures .list-item :deep(.list-row) {
  padding: 4px 2px;
}
.pictures .list-item :deep(.list-row > span) {
  flex-direction: column;
  gap: 2px;
  max-width: 100%;
}
.pictures :deep(.picture) {
  width: 52px;
  height: 52px;
}
.pictures b {
  max-width: 100%;
  font-size: 10.5px;
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
}
.text {
  display: grid;
  flex: 1;
  min-width: 0;
}
.text small {
  font-size: 11px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  letter-spacing: -0.2px;
}
</style>
