<script setup lang="ts">
import {
  IconCopy,
  IconEye,
  IconEyeOff,
  IconLayoutGrid,
  IconLayoutList,
  IconList,
  IconPlus,
  IconTrash,
} from '@tabler/icons-vue';
import { composite, sideSuffix } from '@sphalerite/core/model';
import {
  addPartEdit,
  deletePartEdit,
  duplicatePartEdit,
  movePartEdit,
  setPartHiddenEdit,
} from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import BinList from '../../components/BinList.vue';
import PartPicture from '../../components/PartPicture.vue';
import { useDialogs } from '../../stores/dialogs';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';

const dialogs = useDialogs();
const session = useSession();
const { settings } = useSettings();
const LOOKS = {
  both: ['names', 'names alone', IconLayoutList],
  names: ['pictures', 'pictures alone', IconList],
  pictures: ['both', 'pictures and names', IconLayoutGrid],
} as const;
const dragged = ref<string | null>(null);

const addPart = (): void => {
  session.apply(
    addPartEdit,
    { name: 'Part', bounds: { min: [-8, 0, -8], size: [16, 16, 16] }, pivot: [0, 0, 0] },
    (p) => ({ part: p.parts.at(-1)!.id, layer: null }),
  );
};
const order = computed(() => session.project?.parts.map((p) => p.id) ?? []);
function menuOf(e: MouseEvent, part: string): void {
  if (!session.view.chosen.part.includes(part)) session.choose({ part, layer: null });
  dialogs.openMenu(e, [
    'part.hide',
    'part.duplicate',
    'part.shrink',
    'view.isolate',
    'view.frame',
    'part.delete',
    'part.new',
  ]);
}
/** A part can be put in another place of the list, or dropped on the layers of another part. */
function take(e: DragEvent, part: string): void {
  dragged.value = part;
  e.dataTransfer?.setData('text/part', part);
}
function drop(index: number): void {
  if (dragged.value) session.apply(movePartEdit, { part: dragged.value, index });
  dragged.value = null;
}
</script>

<template>
  <div v-if="session.project" class="tray">
    <div class="panel-head tray-head">
      <h2>
        Parts <span class="figures quiet">{{ session.project.parts.length }}</span>
      </h2>
      <span class="heads"
        ><button
          type="button"
          class="bare"
          :aria-label="`Show parts as ${LOOKS[settings.partsAs][1]}`"
          :title="`Show as ${LOOKS[settings.partsAs][1]}`"
          @click="settings.partsAs = LOOKS[settings.partsAs][0]"
        >
          <component :is="LOOKS[settings.partsAs][2]" aria-hidden="true" /></button
        ><button type="button" class="bare" aria-label="New part" title="New part" @click="addPart">
          <IconPlus aria-hidden="true" /></button
      ></span>
    </div>
    <ul class="tray-list" :class="settings.partsAs">
      <li
        v-for="(p, i) in session.project.parts"
        :key="p.id"
        draggable="true"
        class="item"
        :class="{ on: p.id === session.hand.part, also: session.view.chosen.part.includes(p.id) }"
        @dragstart="take($event, p.id)"
        @dragover.prevent
        @drop.prevent="drop(i)"
      >
        <button
          type="button"
          class="list-row"
          :class="{ on: p.id === session.hand.part, also: session.view.chosen.part.includes(p.id) }"
          :aria-pressed="session.view.chosen.part.includes(p.id)"
          :title="p.name + sideSuffix(p.side)"
          @click="session.pick('part', p.id, $event, order)"
          @contextmenu.prevent="menuOf($event, p.id)"
        >
          <PartPicture v-if="settings.partsAs !== 'names'" :project="session.inActiveColourway!" :part="p" />
          <span class="text"
            ><b
              >{{ p.name }} <span v-if="p.side !== 'centre'" class="tag">{{ p.side }}</span><span
                v-if="p.twin"
                class="tag"
                title="Follows its other side"
                >twin</span
              ></b
            >
            <small v-if="settings.partsAs === 'both'" class="figures quiet"
              >{{ p.bounds.size.join('×') }} · {{ composite(p).count.toLocaleString('en') }}</small
            ></span
          >
        </button>
        <span class="acts">
          <button
            type="button"
            class="bare later"
            :aria-label="`Duplicate ${p.name} ${p.side}`"
            title="Duplicate"
            @click="session.apply(duplicatePartEdit, { part: p.id })"
          >
            <IconCopy aria-hidden="true" />
          </button>
          <button
            type="button"
            class="bare later"
            :aria-label="`Delete ${p.name} ${p.side}`"
            title="To the bin"
            @click="session.apply(deletePartEdit, { part: p.id })"
          >
            <IconTrash aria-hidden="true" />
          </button>
          <button
            type="button"
            class="bare"
            :aria-label="`${p.hidden ? 'Show' : 'Hide'} ${p.name} ${p.side}`"
            :title="p.hidden ? 'Show' : 'Hide'"
            @click="session.apply(setPartHiddenEdit, { part: p.id, hidden: !p.hidden })"
          >
            <IconEyeOff v-if="p.hidden" aria-hidden="true" /><IconEye v-else aria-hidden="true" />
          </button>
        </span>
      </li>
    </ul>
    <BinList kind="part" />
  </div>
</template>

<style scoped>
.heads {
  display: flex;
}
.names .list-row {
  min-height: 28px;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(66px, 1fr));
  gap: 4px;
}
.pictures .list-row {
  flex-direction: column;
  gap: 2px;
  padding: 4px 2px;
  min-height: 0;
  justify-content: flex-start;
}
.pictures .list-row :deep(.picture) {
  width: 52px;
  height: 52px;
}
.pictures .text {
  width: 100%;
  text-align: center;
  font-size: 10.5px;
}
.pictures .tag {
  display: none;
}
.pictures .acts {
  top: 6px;
  transform: none;
  right: 2px;
}
.pictures .acts .bare:last-child {
  opacity: 0;
}
.pictures .item:hover .bare:last-child,
.pictures .bare:focus-visible {
  opacity: 1;
}
.list-row {
  padding-right: 36px;
  gap: 9px;
  min-height: 50px;
}
.text {
  display: grid;
  min-width: 0;
}
.text small {
  font-size: 11px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  letter-spacing: -0.2px;
}
.text b {
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.acts {
  position: absolute;
  right: 6px;
  top: 50%;
  transform: translateY(-50%);
  display: flex;
}
</style>
