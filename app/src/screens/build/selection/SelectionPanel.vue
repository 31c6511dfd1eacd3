<script setup lang="ts">
import { AXES, type Axis, withAxis } from '@sphalerite/core/math';
import { computed, nextTick, ref, watch } from 'vue';
import CommandButton from '../../../components/CommandButton.vue';
import NumberField from '../../../components/NumberField.vue';
import VectorField from '../../../components/VectorField.vue';
import { useSelection } from './selection-state';
import ActionButton from '../../../components/ActionButton.vue';
import CheckField from '../../../components/CheckField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import { choices } from '../../../components/choices';

const s = useSelection();
const NAMES = ['X', 'Y', 'Z'] as const;
const HOW = choices(['row', 'ring']);
function about(ring: Axis | null): void {
  if (s.repeat) s.repeat = { ...s.repeat, ring };
}
/** Fields that Enter goes through. */
const FIELD = '.number-field input';
const fields = ref<HTMLElement>();
const compare = computed(() => {
  const a = s.kept,
    b = s.box;
  if (!a || !b) return '';
  const d = b.size.map((v, i) => v - a.size[i]!);
  const kept = `kept ${a.size.join('×')}`;
  if (d.every((v) => v === 0)) return `same size as the ${kept}`;
  const differ = d.flatMap((v, i) => (v === 0 ? [] : [`${NAMES[i]} ${v > 0 ? '+' : ''}${v}`]));
  return `${kept}: ${differ.join(', ')}`;
});
// One comes here to type how many.
watch(
  () => s.repeat !== null,
  async (on) => {
    if (!on) return;
    await nextTick();
    fields.value?.querySelector<HTMLInputElement>(FIELD)?.focus();
  },
);
function step(axis: Axis, v: number): void {
  if (s.repeat) s.repeat = { ...s.repeat, step: withAxis(s.repeat.step, axis, Math.round(v)) };
}
/** Enter goes on to the next field; in the last it sets the copies. */
function enter(field: HTMLInputElement): void {
  const all = [...fields.value!.querySelectorAll<HTMLInputElement>(FIELD)];
  const next = all[all.indexOf(field) + 1];
  if (next) next.focus();
  else s.setRepeat();
}
</script>

<template>
  <section v-if="s.active || s.repeat" class="panel-section selection" aria-label="Selection">
    <div class="panel-head">
      <h2>{{ s.floating ? 'Floating' : 'Selection' }}</h2>
      <span v-if="s.box" class="figures quiet">{{ s.box.size.join('×') }} = {{ s.count.toLocaleString('en') }}</span>
    </div>
    <div v-if="s.repeat" ref="fields" class="repeat">
      <div class="row">
        <NumberField
          label="copies"
          name="Copies in all"
          @enter="enter"
          :model-value="s.repeat.count"
          :min="2"
          :max="128"
          @change="(v) => s.repeat && (s.repeat = { ...s.repeat, count: Math.round(v) })"
        />
        <choice-field
          label="In a row or ring"
          :model-value="s.repeat.ring === null ? 'row' : 'ring'"
          :choices="HOW"
          @change="(v) => about(v === 'row' ? null : 1)"
        />
      </div>
      <vector-field
        v-if="s.repeat.ring === null"
        name="Step"
        :model-value="s.repeat.step"
        @change="step"
        @enter="enter"
      />
      <choice-field
        v-else
        label="Ring about"
        :model-value="s.repeat.ring"
        @change="about"
        :choices="choices(AXES, (a) => NAMES[a])"
      />
      <check-field
        tip="Empty cells within the piece, such as the recess of a window, are emptied at each copy too"
        :model-value="s.repeat.hollows"
        @change="(hollows) => s.repeat && (s.repeat = { ...s.repeat, hollows })"
        >empty cells too</check-field
      >
      <div class="row">
        <action-button look="primary" @click="s.setRepeat()">Set the copies</action-button
        ><action-button @click="s.cancel()">Let go</action-button>
      </div>
    </div>
    <template v-else>
      <div v-if="s.floating" class="row">
        <action-button look="primary" @click="s.settle()">Set down</action-button
        ><action-button @click="s.cancel()">Put back</action-button>
      </div>
      <vector-field
        v-if="s.box"
        name="Piece at"
        role="group"
        aria-label="Where it stands"
        :model-value="s.box.min"
        @change="(a, v) => s.place(a, Math.round(v))"
      />
      <p class="quiet">
        {{
          s.floating
            ? 'Arrows in the view or on the keys move it; Enter sets it down.'
            : 'Drag an arrow in the view, or use the arrow keys, to move it.'
        }}
      </p>
      <div class="buttons">
        <CommandButton id="select.turnY" text="Turn Y" /><CommandButton id="select.turnX" text="Turn X" /><CommandButton
          id="select.turnZ"
          text="Turn Z"
        />
        <CommandButton id="select.flipX" text="Flip X" /><CommandButton id="select.flipY" text="Flip Y" /><CommandButton
          id="select.flipZ"
          text="Flip Z"
        />
        <CommandButton id="select.repeat" text="Repeat" /><CommandButton
          id="select.duplicate"
          text="Copy"
        /><CommandButton id="select.recolour" text="Recolour" />
        <CommandButton id="select.toLayer" text="To layer" /><CommandButton
          id="select.toPart"
          text="To part"
        /><CommandButton id="select.toStamp" text="Stamp" />
        <CommandButton id="select.grow" text="Grow" /><CommandButton id="select.shrink" text="Shrink" /><CommandButton
          id="select.delete"
          text="Delete"
        />
      </div>
      <div class="row">
        <CommandButton id="select.keepSize" text="Same size?" /><CommandButton
          v-if="s.kept && compare.startsWith('kept')"
          id="select.makeAlike"
          text="Make alike"
        />
      </div>
      <p v-if="compare" class="quiet" data-testid="same-size">{{ compare }}</p>
    </template>
  </section>
</template>

<style scoped>
.selection {
  background: color-mix(in srgb, var(--honey-soft) 45%, transparent);
}
.buttons {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 5px;
}
.buttons :deep(.el-button) {
  padding: 0 4px;
  min-width: 0;
  font-size: 12px;
  min-height: 26px;
}
.buttons :deep(.el-button svg) {
  display: none;
}
.repeat {
  display: grid;
  gap: 8px;
}
</style>
