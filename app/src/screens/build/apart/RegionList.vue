<script setup lang="ts">
import { IconBrush, IconX } from '@tabler/icons-vue';
import { useApart } from './apart-state';
import IconButton from '../../../components/IconButton.vue';
import SideField from '../../../components/SideField.vue';
import TextField from '../../../components/TextField.vue';

/** The pieces that the part is to become: numbered, named, counted; the brush takes one in hand to paint it. */
const apart = useApart();
</script>

<template>
  <ul v-if="apart.regions.length > 0" class="pieces" aria-label="Pieces">
    <li
      v-for="(r, i) in apart.regions"
      :key="r.byte"
      :class="{ on: r.byte === (apart.hovered ?? apart.hand) }"
      @mouseenter="apart.hovered = r.byte"
      @mouseleave="apart.hovered = null"
    >
      <icon-button
        :icon="IconBrush"
        class="small"
        :on="apart.hand === r.byte"
        :label="`Paint piece ${i + 1}`"
        tip="Paint this piece; the guide plane cuts it"
        @click="apart.paint(r.byte)"
      />
      <text-field
        :model-value="r.name"
        :label="`Name of piece ${i + 1}`"
        @focusin="apart.hovered = r.byte"
        @leave="apart.hovered = null"
        @change="(name) => apart.change(r.byte, { name: name.trim() || r.name })"
      />
      <side-field
        :model-value="r.side"
        :label="`Side of piece ${i + 1}`"
        @change="(side) => apart.change(r.byte, { side })"
      />
      <span class="figures quiet">{{ (apart.cells.get(r.byte)?.count ?? 0).toLocaleString('en') }}</span>
      <icon-button
        :icon="IconX"
        class="small"
        :label="`Not piece ${i + 1}`"
        tip="Give its cubes back"
        @click="apart.drop(r.byte)"
      />
    </li>
  </ul>
</template>

<style scoped>
.pieces {
  list-style: none;
  margin: 0 -4px;
  padding: 0 4px;
  display: grid;
  gap: 2px;
  max-height: 214px;
  overflow-y: auto;
}
.pieces li {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) auto auto 20px;
  align-items: center;
  gap: 3px;
  padding: 1px 0;
  border-radius: var(--radius);
  font-size: 12px;
}
.pieces li.on {
  background: var(--honey-soft);
}
.figures {
  font-size: 10.5px;
  text-align: right;
}
.pieces .figures {
  min-width: 20px;
}
.pieces :deep(.el-segmented__item) {
  padding: 0 4px;
}
.pieces :deep(.el-input__wrapper) {
  padding: 0 5px;
}
</style>
