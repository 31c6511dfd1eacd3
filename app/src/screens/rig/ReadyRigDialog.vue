<script setup lang="ts">
import { find } from '@sphalerite/core/model';
import { apply, editContext, emptyRigEdit, sealRigEdit, sealedClips, unsealRigEdit } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { freshId } from '../../storage/shelf';
import { keepReadyRig } from '../../storage/ready-rigs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useRig } from './rig-state';
import ActionButton from '../../components/ActionButton.vue';
import FormRow from '../../components/FormRow.vue';
import TextField from '../../components/TextField.vue';
import CheckField from '../../components/CheckField.vue';
import DialogBox from '../../components/DialogBox.vue';
import { say } from '../../words';

/** Keeps this rig to begin other projects from, or unseals it. */
const session = useSession();
const rig = useRig();
const notices = useNotices();
const open = ref(true);
const keeping = rig.dialog === 'keep';
const name = ref(session.project!.name);
const sealed = ref(true);
const empty = ref(false);
const range = ref(2);
const clips = computed(() => sealedClips(session.project!).map((id) => find(session.project!.clips, id)!.name));

async function keep(): Promise<void> {
  try {
    const ctx = editContext(freshId(), Date.now());
    let p = { ...session.project!, name: name.value.trim() || session.project!.name, bin: [], seal: null };
    if (empty.value) p = { ...apply(p, emptyRigEdit, {}, ctx), bin: [], seal: null };
    await keepReadyRig(freshId(), sealed.value ? apply(p, sealRigEdit, { name: p.name, range: range.value }, ctx) : p);
    notices.say(say('readyRig.saved', { name: p.name }));
    open.value = false;
  } catch (e) {
    notices.fail(e);
  }
}
function unseal(): void {
  if (session.apply(unsealRigEdit, {})) open.value = false;
}
</script>

<template>
  <dialog-box
    v-model="open"
    :title="keeping ? 'Save as a ready rig' : 'Unseal the rig'"
    width="420px"
    @closed="rig.dialog = null"
  >
    <form v-if="keeping" class="form" @submit.prevent="keep">
      <form-row label="Name" stacked><text-field v-model="name" label="Name of the ready rig" eager /></form-row>
      <check-field v-model="empty">without its parts, to be filled anew</check-field>
      <check-field v-model="sealed">sealed: bones and clips cannot be broken by accident</check-field>
      <div v-if="sealed" class="row">
        <NumberField
          label="±"
          name="How far joints may move"
          :model-value="range"
          :min="0"
          :max="64"
          :step="0.5"
          @change="(v) => (range = v)"
        /><span class="quiet">cubes that joints may still move</span>
      </div>
      <action-button look="primary" submit>Save it</action-button>
    </form>
    <div v-else class="form">
      <p>Bones, what steers them, and clips can be changed then. Parts always could.</p>
      <p v-if="clips.length > 0">
        Clips that may break by it: <b>{{ clips.join(', ') }}</b>.
      </p>
      <p class="quiet">One step back seals it again.</p>
      <div class="row">
        <action-button look="primary" @click="unseal">Unseal</action-button
        ><action-button @click="open = false">Leave it sealed</action-button>
      </div>
    </div>
  </dialog-box>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
