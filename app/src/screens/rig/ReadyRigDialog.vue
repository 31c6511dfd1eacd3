<script setup lang="ts">
import { find } from '@sphalerite/core/model';
import { apply, editContext, emptyRigEdit, sealRigEdit, sealedClips, unsealRigEdit } from '@sphalerite/core/project';
import { ElDialog } from 'element-plus';
import { computed, ref } from 'vue';
import NumberField from '../../components/NumberField.vue';
import { freshId } from '../../storage/shelf';
import { keepReadyRig } from '../../storage/ready-rigs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useRig } from './rig-state';

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
    notices.say(`“${p.name}” is a ready rig now: new projects can begin with it.`);
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
  <el-dialog
    v-model="open"
    :title="keeping ? 'Save as a ready rig' : 'Unseal the rig'"
    width="420px"
    align-center
    @closed="rig.dialog = null"
  >
    <form v-if="keeping" class="form" @submit.prevent="keep">
      <label class="field">Name<input v-model="name" class="text" maxlength="120" autofocus /></label>
      <label class="check"><input v-model="empty" type="checkbox" />without its parts, to be filled anew</label>
      <label class="check"
        ><input v-model="sealed" type="checkbox" />sealed: bones and clips cannot be broken by accident</label
      >
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
      <button type="submit" class="btn primary">Save it</button>
    </form>
    <div v-else class="form">
      <p>Bones, what steers them, and clips can be changed then. Parts always could.</p>
      <p v-if="clips.length > 0">
        Clips that may break by it: <b>{{ clips.join(', ') }}</b>.
      </p>
      <p class="quiet">One step back seals it again.</p>
      <div class="row">
        <button type="button" class="btn primary" @click="unseal">Unseal</button
        ><button type="button" class="btn" @click="open = false">Leave it sealed</button>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
.field {
  display: grid;
  gap: 4px;
}
.text {
  height: 28px;
  padding: 0 8px;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--raised);
}
.check {
  display: flex;
  gap: 7px;
  align-items: center;
}
.check input {
  accent-color: var(--resin);
  margin: 0;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
