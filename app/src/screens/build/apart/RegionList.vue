<script setup lang="ts">
import { IconBrush, IconX } from '@tabler/icons-vue';
import { SIDES } from '@sphalerite/core/model';
import { useApart } from './apart-state';

/** The pieces that the part is to become: numbered, named, counted; the brush takes one in hand to paint it. */
const apart = useApart();
const value = (e: Event): string => (e.target as HTMLInputElement).value;
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
      <button
        type="button"
        class="bare small"
        :class="{ held: apart.hand === r.byte }"
        :aria-pressed="apart.hand === r.byte"
        :aria-label="`Paint piece ${i + 1}`"
        title="Paint this piece; the guide plane cuts it"
        @click="apart.paint(r.byte)"
      >
        <IconBrush aria-hidden="true" />
      </button>
      <input
        class="text"
        :value="r.name"
        :aria-label="`Name of piece ${i + 1}`"
        maxlength="120"
        @keydown.stop
        @keydown.enter="($event.target as HTMLElement).blur()"
        @focus="apart.hovered = r.byte"
        @blur="apart.hovered = null"
        @change="apart.change(r.byte, { name: value($event).trim() || r.name })"
      />
      <select
        class="pick"
        :value="r.side"
        :aria-label="`Side of piece ${i + 1}`"
        @change="apart.change(r.byte, { side: value($event) as typeof r.side })"
      >
        <option v-for="s in SIDES" :key="s" :value="s">{{ s === 'centre' ? '–' : s }}</option>
      </select>
      <span class="figures quiet">{{ (apart.cells.get(r.byte)?.count ?? 0).toLocaleString('en') }}</span>
      <button
        type="button"
        class="bare small"
        :aria-label="`Not piece ${i + 1}`"
        title="Give its cubes back"
        @click="apart.drop(r.byte)"
      >
        <IconX aria-hidden="true" />
      </button>
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
  grid-template-columns: 22px minmax(0, 1fr) 52px 34px 20px;
  align-items: center;
  gap: 4px;
  padding: 1px 3px;
  border-radius: var(--radius);
  font-size: 12px;
}
.pieces li.on {
  background: var(--honey-soft);
}
.text {
  min-width: 0;
  height: 24px;
  padding: 0 6px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--raised);
}
.pick {
  min-width: 0;
  height: 24px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 11px;
}
.figures {
  font-size: 10.5px;
  text-align: right;
}
.small {
  width: 22px;
  height: 22px;
}
.small svg {
  width: 14px;
  height: 14px;
}
.held {
  background: var(--honey);
  color: var(--on-honey, #2a1a05);
}
</style>
