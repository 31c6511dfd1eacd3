<script setup lang="ts">
import { type Vec3, withAxis } from '@sphalerite/core/math';
import { sideSuffix } from '@sphalerite/core/model';
import { COPIED_PARTS, type CopiedParts, branchOf, duplicateBonesEdit } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import DialogBox from '../../components/DialogBox.vue';
import FormRow from '../../components/FormRow.vue';
import NumberField from '../../components/NumberField.vue';
import TextField from '../../components/TextField.vue';
import VectorField from '../../components/VectorField.vue';
import { choices } from '../../components/choices';
import { useSession } from '../../stores/session';
import { say } from '../../words';
import { useRig } from './rig-state';

/** Copies of bones: what they are called, how many and how far apart, and whether they show the same parts. */
const session = useSession();
const rig = useRig();
const open = ref(true);
// Once: another bone may be in hand while the dialog fades.
const bones = session.view.chosen.bone,
  first = session.bone!,
  title = first.name + sideSuffix(first.side);
const PARTS: Readonly<Record<CopiedParts, string>> = { share: 'the same', copy: 'copies', none: 'none' };
const name = ref(first.name);
const count = ref(1);
const step = ref<Vec3>([0, 0, 0]);
const branch = ref(true);
const parts = ref<CopiedParts>('share');
const hangs = computed(() =>
  session.project ? new Set(bones.flatMap((b) => [...branchOf(session.project!, b)])).size - bones.length : 0,
);
function make(): void {
  const before = new Set(session.project!.rig.bones.map((b) => b.id));
  const args = {
    bones,
    name: name.value,
    count: count.value,
    step: step.value,
    branch: branch.value,
    parts: parts.value,
  };
  // The last copy is in hand, to be put in its place.
  const made = session.apply(duplicateBonesEdit, args, (p) => ({
    bone: p.rig.bones.findLast((b) => !before.has(b.id) && (b.parent === null || before.has(b.parent)))!.id,
  }));
  if (made) open.value = false;
}
</script>

<template>
  <dialog-box v-model="open" :title="`Duplicate ${title}`" width="420px" @closed="rig.dialog = null">
    <form class="copies" @submit.prevent="make">
      <form-row label="called"><text-field v-model="name" label="Name of the copies" /></form-row>
      <form-row label="how many"
        ><number-field v-model="count" label="" name="How many copies" :min="1" :max="64"
      /></form-row>
      <form-row label="a step apart" stacked
        ><vector-field name="Step" :model-value="step" :step="0.5" @change="(a, v) => (step = withAxis(step, a, v))"
      /></form-row>
      <form-row label="their parts"
        ><choice-field v-model="parts" label="Parts of the copies" :choices="choices(COPIED_PARTS, (p) => PARTS[p])"
      /></form-row>
      <p class="quiet">
        {{
          parts === 'share'
            ? 'An edit of the part changes all of them.'
            : parts === 'copy'
              ? 'Each has cubes of its own.'
              : 'Bones alone.'
        }}
      </p>
      <check-field v-if="hangs > 0" v-model="branch">{{ say('bones.along', { n: hangs }) }}</check-field>
      <div class="row">
        <action-button look="primary" submit>Duplicate</action-button
        ><action-button @click="open = false">Leave it</action-button>
      </div>
    </form>
  </dialog-box>
</template>

<style scoped>
.copies {
  display: grid;
  gap: 7px;
}
</style>
