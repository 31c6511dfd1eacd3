<script setup lang="ts">
import { KINDS, type Kind } from '@sphalerite/core/model';
import { setProjectEdit } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import ActionButton from '../../components/ActionButton.vue';
import FormRow from '../../components/FormRow.vue';
import SelectField from '../../components/SelectField.vue';
import { choices } from '../../components/choices';
import { say } from '../../words';

const session = useSession();
const notices = useNotices();
const p = computed(() => session.project!);
/** A kind that was chosen and is not set yet: what follows from it is told first. */
const wanted = ref<Kind | null>(null);
function setKind(): void {
  const kind = wanted.value;
  wanted.value = null;
  if (!kind || !session.apply(setProjectEdit, { kind })) return;
  notices.say(say('project.kind', { kind }), { action: { label: 'Undo', run: () => session.undo() } });
}
/** Parts whose cubes are of another size than most. */
const mixed = computed(() => {
  const sizes = new Map<number, number>();
  for (const part of p.value.parts) sizes.set(part.cell, (sizes.get(part.cell) ?? 0) + 1);
  const most = [...sizes].sort((a, b) => b[1] - a[1])[0]?.[0];
  return p.value.parts.filter((part) => part.cell !== most).map((part) => part.name);
});
</script>

<template>
  <div class="sheet" role="group" aria-label="Target sheet">
    <form-row label="Kind"
      ><SelectField
        label="Kind of the project"
        :model-value="wanted ?? p.kind"
        :choices="choices(KINDS.filter((k) => k !== 'terrain cube'))"
        @change="(kind) => (wanted = kind === p.kind ? null : kind)"
    /></form-row>
    <div v-if="wanted" class="follows" role="group" aria-label="What follows">
      <p>{{ say(`kind.${wanted}`) }}</p>
      <p class="quiet">{{ say('kind.stays') }}</p>
      <div class="row">
        <action-button look="primary" @click="setKind">{{
          say('kind.make', { kind: wanted })
        }}</action-button><action-button @click="wanted = null">Leave it</action-button>
      </div>
    </div>
    <p class="quiet">What the finished thing keeps to; 0 is no limit.</p>
    <div class="row">
      <NumberField
        label="cube"
        name="Edge of a cube in centimetres"
        unit="cm"
        :model-value="p.metresPerUnit * 100"
        :min="0.01"
        @change="(v) => session.apply(setProjectEdit, { metresPerUnit: v / 100 })"
      /><NumberField
        label="high"
        name="Target height in metres"
        unit="m"
        :step="0.05"
        :min="0"
        :model-value="p.target.height"
        @change="(v) => session.apply(setProjectEdit, { target: { height: v } })"
      />
    </div>
    <div class="row">
      <NumberField
        label="tris"
        name="Target triangles"
        :min="0"
        :step="100"
        :model-value="p.target.faces"
        @change="(v) => session.apply(setProjectEdit, { target: { faces: Math.round(v) } })"
      /><NumberField
        label="bones"
        name="Target bones"
        :min="0"
        :model-value="p.target.bones"
        @change="(v) => session.apply(setProjectEdit, { target: { bones: Math.round(v) } })"
      />
    </div>
    <div class="row">
      <NumberField
        label="draws"
        name="Target draw calls"
        :min="0"
        :model-value="p.target.draws"
        @change="(v) => session.apply(setProjectEdit, { target: { draws: Math.round(v) } })"
      /><NumberField
        label="texture"
        name="Target texture"
        unit="px"
        :min="0"
        :step="64"
        :model-value="p.target.texture"
        @change="(v) => session.apply(setProjectEdit, { target: { texture: Math.round(v) } })"
      />
    </div>
    <p v-if="mixed.length > 0" class="quiet">Other cube size: {{ mixed.join(', ') }}.</p>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 8px;
}
.follows {
  display: grid;
  gap: 6px;
  padding: 8px 10px;
  border: 1px solid var(--honey);
  border-radius: var(--radius);
  background: var(--honey-soft);
}
.follows p {
  margin: 0;
}
</style>
