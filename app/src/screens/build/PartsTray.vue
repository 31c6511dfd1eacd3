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
import { composite, lying, partsInUse, sideSuffix } from '@sphalerite/core/model';
import {
  deletePartEdit,
  duplicatePartEdit,
  each,
  placePartsEdit,
  renamePartEdit,
  renamePartGroupEdit,
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
import { renamed } from '../shared/renamed';
import SideTag from '../../components/SideTag.vue';
import { groupOfRow, groupRow, landing, stepping, trayRows } from './tray-rows';

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
/** As they lie here: groups with their parts. */
const list = computed(() => lying(inUse.value));
const rows = computed(() => trayRows(list.value));
const named = (row: { readonly id: string; readonly name: string }): string =>
  `${row.name} ${parts.value.get(row.id)?.side ?? ''}`;
/** The parts that a row stands for. */
const partsOf = (row: string): readonly string[] =>
  groupOfRow(row) === null
    ? [row]
    : (list.value.find((l) => l.group === groupOfRow(row))?.parts.map((p) => p.id) ?? []);
const hidden = (row: string): boolean => partsOf(row).every((p) => parts.value.get(p)?.hidden);
function facts(id: string): string {
  const p = parts.value.get(id);
  return p ? `${p.bounds.size.join('×')} · ${composite(p).count.toLocaleString('en')}` : '';
}

const order = computed(() => list.value.flatMap((l) => l.parts.map((p) => p.id)));
const chosen = computed(() => session.view.chosen.part);
/** Rows of which all that they stand for is chosen. */
const also = computed(() => [
  ...chosen.value,
  ...list.value.flatMap((l) =>
    l.group !== null && l.parts.every((p) => chosen.value.includes(p.id)) ? groupRow(l.group) : [],
  ),
]);
function pick(row: string, e: MouseEvent | KeyboardEvent): void {
  if (groupOfRow(row) === null) session.pick('part', row, e, order.value);
  // What is chosen last is in hand: the first of them.
  else session.choose({ part: partsOf(row).toReversed(), layer: null });
}
function menuOf(e: MouseEvent, row: string): void {
  if (!partsOf(row).every((p) => chosen.value.includes(p))) session.choose({ part: partsOf(row), layer: null });
  dialogs.openMenu(e, [
    'part.hide',
    'part.duplicate',
    'part.alternate',
    'part.again',
    'part.shrink',
    'part.group',
    'part.ungroup',
    'view.isolate',
    'view.frame',
    'part.delete',
    'part.new',
  ]);
}
const rename = (row: string, name: string): void => {
  const group = groupOfRow(row);
  if (group === null) renamed(renamePartEdit, { part: row, name }, () => parts.value.get(row)?.name);
  else session.apply(renamePartGroupEdit, { group, name });
};
/** A group is dragged as its parts. */
function dragged(row: string): Dragged | null {
  const group = groupOfRow(row);
  if (group !== null) return { kind: 'part', ids: partsOf(row), label: group };
  // Rows of groups that are chosen with their parts are none.
  return chosen.value.includes(row) && chosen.value.length > 1
    ? { kind: 'part', ids: chosen.value, label: `${chosen.value.length} parts` }
    : null;
}
/** Rows of parts take nothing on themselves; those of groups do. */
const accepts = (what: Dragged, row: string | null, place: Place): boolean =>
  what.kind === 'part' && (place !== 'on' || row === null || groupOfRow(row) !== null);
function drop(what: Dragged, row: string | null, place: Place): void {
  const to = landing(list.value, row, place),
    whole = list.value.find(
      (l) => l.group !== null && l.parts.length === what.ids.length && l.parts.every((p) => what.ids.includes(p.id)),
    );
  // A group that is put elsewhere stays one, unless it is put into another.
  session.apply(placePartsEdit, { parts: what.ids, ...to, group: to.group ?? whole?.group ?? null });
}
function nudge(row: string, by: 'up' | 'down' | 'in' | 'out'): void {
  const to = stepping(list.value, row, by);
  if (to) session.apply(placePartsEdit, { parts: partsOf(row), ...to });
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
      <template v-for="l in list" :key="l.group === null ? l.parts[0]!.id : groupRow(l.group)">
        <list-row
          v-if="l.group !== null"
          class="group"
          :on="false"
          :also="also.includes(groupRow(l.group))"
          :tip="`${l.parts.length} parts`"
          @click="pick(groupRow(l.group), $event)"
          @contextmenu.prevent="menuOf($event, groupRow(l.group))"
          ><b>{{ l.group }}</b></list-row
        >
        <list-row
          v-for="p in l.parts"
          :key="p.id"
          v-drag="() => ({ kind: 'part', ids: [p.id], label: p.name })"
          :on="p.id === session.hand.part"
          :also="chosen.includes(p.id)"
          :tip="p.name + sideSuffix(p.side)"
          @click="session.pick('part', p.id, $event, order)"
          @contextmenu.prevent="menuOf($event, p.id)"
        >
          <template #picture><PartPicture :project="session.inActiveColourway!" :part="p" /></template>
          <b>{{ p.name }}</b>
        </list-row>
      </template>
    </div>
    <tree-view
      v-else
      :rows="rows"
      label="Parts"
      kind="part"
      :size="settings.partsAs === 'both' ? 50 : 29"
      :words="words"
      :hand="session.hand.part"
      :chosen="also"
      :can-rename="session.writable"
      :dragged="dragged"
      :accepts="accepts"
      ordered
      nests
      @pick="pick"
      @rename="rename"
      @menu="menuOf"
      @drop="drop"
      @nudge="nudge"
    >
      <template #picture="{ row }"
        ><PartPicture
          v-if="settings.partsAs === 'both' && !row.children"
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
          <small v-if="settings.partsAs === 'both'" class="figures quiet">{{
            row.children ? `${row.children.length} parts` : facts(row.id)
          }}</small></span
        >
      </template>
      <template #acts="{ row }">
        <icon-button
          :icon="IconCopy"
          v-if="!row.children"
          class="later"
          :label="`Duplicate ${named(row)}`"
          tip="Duplicate"
          @click="session.apply(duplicatePartEdit, { part: row.id })"
        />
        <icon-button
          :icon="IconTrash"
          v-if="!row.children"
          class="later"
          :label="`Delete ${named(row)}`"
          tip="To the bin"
          @click="session.apply(deletePartEdit, { part: row.id })"
        />
        <icon-button
          :icon="hidden(row.id) ? IconEyeOff : IconEye"
          :label="`${hidden(row.id) ? 'Show' : 'Hide'} ${named(row)}`"
          :tip="hidden(row.id) ? 'Show' : 'Hide'"
          @click="
            session.apply(
              each(setPartHiddenEdit),
              partsOf(row.id).map((part) => ({ part, hidden: !hidden(row.id) })),
            )
          "
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
.pictures .group {
  grid-column: 1 / -1;
}
.pictures .list-item:not(.group) :deep(.list-row) {
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
