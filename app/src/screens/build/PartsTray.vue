<script setup lang="ts">
import { IconCopy, IconEye, IconEyeOff, IconPlus, IconTrash } from '@tabler/icons-vue';
import { composite } from '@sphalerite/core/model';
import { addPartEdit, deletePartEdit, duplicatePartEdit, movePartEdit, setPartHiddenEdit } from '@sphalerite/core/project';
import { ref } from 'vue';
import BinList from '../../components/BinList.vue';
import PartPicture from '../../components/PartPicture.vue';
import { openMenu } from '../../shell/dialogs';
import { useSession } from '../../stores/session';

const session = useSession();
const dragged = ref<string | null>(null);

const addPart = (): void => {
  session.apply(addPartEdit, { name: 'Part', bounds: { min: [-8, 0, -8], size: [16, 16, 16] }, pivot: [0, 0, 0] }, (p) => ({ part: p.parts.at(-1)!.id, layer: null }));
};
function menuOf(e: MouseEvent, part: string): void {
  session.choose({ part, layer: null });
  openMenu(e, ['part.hide', 'part.duplicate', 'part.shrink', 'view.isolate', 'view.frame', 'part.delete', 'part.new']);
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
    <div class="panel-head tray-head"><h2>Parts <span class="figures quiet">{{ session.project.parts.length }}</span></h2><button type="button" class="bare" aria-label="New part" title="New part" @click="addPart"><IconPlus aria-hidden="true" /></button></div>
    <ul class="tray-list">
      <li
        v-for="(p, i) in session.project.parts" :key="p.id" draggable="true" class="item" :class="{ on: p.id === session.view.part }"
        @dragstart="take($event, p.id)" @dragover.prevent @drop.prevent="drop(i)"
      >
        <button type="button" class="list-row" :class="{ on: p.id === session.view.part }" :aria-pressed="p.id === session.view.part" @click="session.choose({ part: p.id, layer: null })" @contextmenu.prevent="menuOf($event, p.id)">
          <PartPicture :project="session.worn!" :part="p" />
          <span class="text"><b>{{ p.name }} <span v-if="p.side !== 'centre'" class="tag">{{ p.side }}</span></b>
            <small class="figures quiet">{{ p.bounds.size.join('×') }} · {{ composite(p).count.toLocaleString('en') }}</small></span>
        </button>
        <span class="acts">
          <button type="button" class="bare later" :aria-label="`Duplicate ${p.name} ${p.side}`" title="Duplicate" @click="session.apply(duplicatePartEdit, { part: p.id })"><IconCopy aria-hidden="true" /></button>
          <button type="button" class="bare later" :aria-label="`Delete ${p.name} ${p.side}`" title="To the bin" @click="session.apply(deletePartEdit, { part: p.id })"><IconTrash aria-hidden="true" /></button>
          <button type="button" class="bare" :aria-label="`${p.hidden ? 'Show' : 'Hide'} ${p.name} ${p.side}`" :title="p.hidden ? 'Show' : 'Hide'" @click="session.apply(setPartHiddenEdit, { part: p.id, hidden: !p.hidden })"><IconEyeOff v-if="p.hidden" aria-hidden="true" /><IconEye v-else aria-hidden="true" /></button>
        </span>
      </li>
    </ul>
    <BinList kind="part" />
  </div>
</template>

<style scoped>
.list-row { padding-right: 36px; gap: 9px; min-height: 50px; }
.text { display: grid; min-width: 0; }
.text small { font-size: 11px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; letter-spacing: -0.2px; }
.text b { font-weight: 500; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.acts { position: absolute; right: 6px; top: 50%; transform: translateY(-50%); display: flex; }
</style>
