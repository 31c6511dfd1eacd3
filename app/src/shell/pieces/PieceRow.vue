<script setup lang="ts">
import { type Clip, TICKS, composite, sideSuffix } from '@sphalerite/core/model';
import type { Palette } from '@sphalerite/core/palette';
import type { Piece } from '@sphalerite/core/project';
import { computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import PartPicture from '../../components/PartPicture.vue';
import SelectField from '../../components/SelectField.vue';
import SideTag from '../../components/SideTag.vue';
import { keyOf, usePieces } from './pieces-state';

/** A thing that can be taken: what it looks like, how large it is, and what becomes of its name here. */
const props = defineProps<{ piece: Piece }>();
const state = usePieces();
const on = computed(() => state.ticked.includes(keyOf(props.piece)));
const isShape = computed(() => props.piece.kind === 'part' || props.piece.kind === 'stamp');
const swatches = computed(() =>
  props.piece.kind === 'palette' ? (props.piece.record as unknown as Palette).swatches : [],
);
const fact = computed(() => {
  if (isShape.value) {
    const p = state.partOf(props.piece);
    return `${p.bounds.size.join('×')} · ${composite(p).count.toLocaleString('en')}`;
  }
  if (props.piece.kind === 'palette') return `${swatches.value.length}`;
  if (props.piece.kind !== 'clip') return '';
  const c = props.piece.record as unknown as Clip;
  return `${Math.round((c.length * c.fps) / TICKS)} f`;
});
const name = computed(() => props.piece.record.name + sideSuffix((props.piece.record.side ?? 'centre') as never));
const ways = computed(() => [
  { value: 'beside', text: `as “${props.piece.clash.as}”` },
  { value: 'over', text: 'in place of the one here' },
]);
</script>

<template>
  <li class="piece">
    <check-field
      :model-value="on"
      :disabled="piece.clash.shared"
      @update:model-value="(v: boolean) => state.tick([piece], v)"
      ><span class="visually-hidden">{{ name }}</span></check-field
    >
    <part-picture v-if="isShape" :project="state.source!" :part="state.partOf(piece)" />
    <span v-else-if="piece.kind === 'palette'" class="strip"
      ><i v-for="s in swatches.slice(0, 16)" :key="s.byte" :style="{ background: s.colour }"
    /></span>
    <span class="name"
      >{{ piece.record.name }}<side-tag :side="piece.record.side as never" /><small class="quiet figures">{{
        fact
      }}</small></span
    >
    <select-field
      v-if="piece.clash.over && on"
      class="way"
      :label="`How ${name} comes`"
      :model-value="state.inPlace.includes(piece.id) ? 'over' : 'beside'"
      :choices="ways"
      @change="(v: string) => state.place(piece.id, v === 'over')"
    />
    <span v-else-if="piece.clash.shared" class="quiet">is here already</span>
    <span v-else-if="piece.clash.as" class="quiet">{{ `as “${piece.clash.as}”` }}</span>
  </li>
</template>

<style scoped>
.piece {
  display: grid;
  grid-template-columns: 20px 40px minmax(0, 1fr) auto;
  gap: 9px;
  align-items: center;
  min-height: 30px;
  padding: 2px 0;
}
.piece > .name:nth-child(2) {
  grid-column: 2 / 4;
}
.name {
  display: flex;
  flex-wrap: wrap;
  gap: 0 7px;
  align-items: baseline;
  min-width: 0;
}
small {
  font-size: 11.5px;
}
.strip {
  display: grid;
  grid-template-columns: repeat(8, 5px);
  width: 40px;
  border-radius: 3px;
  overflow: hidden;
}
.strip i {
  height: 10px;
}
.way {
  width: 190px;
}
</style>
