<script setup lang="ts">
import { IconX } from '@tabler/icons-vue';
import { type Id, type Repeat, type Shown, partsInUse, placementName } from '@sphalerite/core/model';
import { computed } from 'vue';
import FormRow from '../../components/FormRow.vue';
import IconButton from '../../components/IconButton.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import { useSession } from '../../stores/session';

/** Where things are scattered, on what, off what, and what else comes with them. */
const props = defineProps<{ repeat: Extract<Repeat, { kind: 'scatter' }> }>();
const emit = defineEmits<{ wish: [change: Readonly<Record<string, unknown>>] }>();
const session = useSession();
const r = computed(() => props.repeat);
const wish = (change: Readonly<Record<string, unknown>>): void => emit('wish', change);
const others = computed(() =>
  (session.scene?.placements.flat() ?? [])
    .filter((p) => p.id !== session.placement?.id && p.shows.kind !== 'group')
    .map((p) => ({ id: p.id, name: placementName(session.project!, p) })),
);
const nameOf = (id: Id): string => others.value.find((o) => o.id === id)?.name ?? 'what is gone';
const parts = computed(() =>
  partsInUse(session.project?.parts ?? []).map((p) => ({ value: p.id as Id | null, text: p.name })),
);
const part = (id: Id): Shown => ({ kind: 'part', part: id });
const shownName = (shows: Shown): string => placementName(session.project!, { name: '', shows });
</script>

<template>
  <div>
    <div class="pair">
      <number-field
        v-for="(name, a) in ['wide', 'deep'] as const"
        :key="name"
        :label="name"
        :name="name === 'wide' ? 'Width of the area' : 'Depth of the area'"
        :model-value="r.area[a]!"
        :min="1"
        @change="(v) => wish({ area: r.area.map((o, i) => (i === a ? v : o)) })"
      />
    </div>
    <form-row label="on"
      ><select-field
        label="What they stand on"
        :model-value="r.on"
        :choices="[{ value: null, text: 'level' }, ...others.map((o) => ({ value: o.id, text: o.name }))]"
        @change="(on: Id | null) => wish({ on })"
    /></form-row>
    <form-row label="keep off"
      ><select-field
        label="What they keep off"
        :model-value="null"
        :choices="[
          { value: null, text: r.off.length > 0 ? `${r.off.length} kept off` : 'nothing' },
          ...others.filter((o) => !r.off.includes(o.id)).map((o) => ({ value: o.id, text: o.name })),
        ]"
        @change="(id: Id | null) => id && wish({ off: [...r.off, id] })"
    /></form-row>
    <div v-for="id in r.off" :key="id" class="line">
      <span>off {{ nameOf(id) }}</span
      ><icon-button
        :icon="IconX"
        :label="`Keep off ${nameOf(id)} no more`"
        tip="No more"
        @click="wish({ off: r.off.filter((o) => o !== id) })"
      />
    </div>
    <form-row label="also"
      ><select-field
        label="What else is scattered"
        :model-value="null"
        :choices="[
          { value: null, text: r.sources.length > 0 ? `${r.sources.length} others` : 'nothing else' },
          ...parts,
        ]"
        @change="(id: Id | null) => id && wish({ sources: [...r.sources, { shows: part(id), weight: 1 }] })"
    /></form-row>
    <div v-for="(s, i) in r.sources" :key="i" class="line">
      <span>{{ shownName(s.shows) }}</span>
      <number-field
        label="×"
        :name="`How often ${shownName(s.shows)} comes`"
        :model-value="s.weight"
        :min="0"
        :step="0.5"
        @change="(weight) => wish({ sources: r.sources.with(i, { ...s, weight }) })"
      /><icon-button
        :icon="IconX"
        :label="`Scatter ${shownName(s.shows)} no more`"
        tip="No more"
        @click="wish({ sources: r.sources.toSpliced(i, 1) })"
      />
    </div>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
  margin-bottom: 4px;
}
.line {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-bottom: 4px;
}
.line > :first-child {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
