<script setup lang="ts">
import { must, sideSuffix } from '@sphalerite/core/model';
import { type LimbEnd, limbChoice } from '@sphalerite/core/project';
import { ref } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import DialogBox from '../../components/DialogBox.vue';
import RadioField from '../../components/RadioField.vue';
import { useSession } from '../../stores/session';
import { makeLimb } from './limb';
import { useRig } from './rig-state';

/** Which joint a limb ends at, where more than one can be meant, and whether its goal goes along with the body. */
const session = useSession();
const rig = useRig();
const open = ref(true);
const bone = session.bone!;
const choice = limbChoice(session.project!, bone.id);
const end = ref(0);
const along = ref(choice.along);
function nameOf(e: LimbEnd): string {
  const b = must(session.project!.rig.bones, e.bone, 'bone'),
    name = b.name + sideSuffix(b.side);
  return e.far ? `the far end of ${name}, with a new bone there` : `the joint of ${name}`;
}
// Once: the bones may go while the dialog still fades.
const names = choice.ends.map(nameOf);
function make(): void {
  const e = choice.ends[end.value];
  open.value = false;
  if (e) makeLimb({ tip: e.bone, far: e.far, along: along.value });
}
</script>

<template>
  <dialog-box
    v-model="open"
    :title="`Where does the limb of ${bone.name} end?`"
    width="380px"
    @closed="rig.dialog = null"
  >
    <form class="limb" @submit.prevent="make">
      <p v-if="choice.ends.length === 0" class="quiet">
        A limb needs two bones above its end. Make them first, or choose a bone further out.
      </p>
      <div v-else role="radiogroup" aria-label="The end of the limb" class="ends">
        <radio-field v-for="(_, i) in choice.ends" :key="i" v-model="end" :value="i">{{ names[i] }}</radio-field>
      </div>
      <check-field v-model="along" tip="A hand moves with the body; a foot stays where it stands"
        >the goal goes along with the body</check-field
      >
      <div class="row">
        <action-button look="primary" submit :disabled="choice.ends.length === 0">Make the limb</action-button
        ><action-button @click="open = false">Leave it</action-button>
      </div>
    </form>
  </dialog-box>
</template>

<style scoped>
.limb,
.ends {
  display: grid;
  gap: 8px;
}
</style>
