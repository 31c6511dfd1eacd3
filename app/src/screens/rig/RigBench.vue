<script setup lang="ts">
import { partsInUse } from '@sphalerite/core/model';
import { checkRig } from '@sphalerite/core/project';
import { computed, defineAsyncComponent } from 'vue';
import { IconDots } from '@tabler/icons-vue';
import IconButton from '../../components/IconButton.vue';
import { useDialogs } from '../../stores/dialogs';
import CommandButton from '../../components/CommandButton.vue';
import { useSession } from '../../stores/session';
import JointStudy from './JointStudy.vue';
import { SNAPS, SNAP_NAMES } from '../shared/joint-snap';
import { useRig } from './rig-state';
import ActionButton from '../../components/ActionButton.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import SelectField from '../../components/SelectField.vue';
import { choices } from '../../components/choices';
import { counted, say } from '../../words';

// Dialogs are fetched when they are first opened.
const ReadyRigDialog = defineAsyncComponent(() => import('./ReadyRigDialog.vue'));
const LimbDialog = defineAsyncComponent(() => import('./LimbDialog.vue'));
const DuplicateBonesDialog = defineAsyncComponent(() => import('./DuplicateBonesDialog.vue'));
const RingDialog = defineAsyncComponent(() => import('./RingDialog.vue'));
const STEPS = [
  { v: 0.5, t: '½', name: 'Half cubes' },
  { v: 1, t: '1', name: 'Whole cubes' },
  { v: 0, t: 'free', name: 'Any length' },
] as const;

const FLIPS = ['rig.flipY', 'rig.flipZ', 'bone.flipX', 'bone.flipY', 'bone.flipZ'];
const dialogs = useDialogs();
const session = useSession();
const rig = useRig();
const findings = computed(() => (session.project ? checkRig(session.project) : []));
/** A finding about a part leads to the bone it hangs on, if any. */
const show = (id: string): void => {
  const rig = session.project!.rig;
  const bone = rig.bones.find((b) => b.id === id)?.id ?? rig.mounts.find((m) => m.part === id)?.bone;
  if (bone) session.choose({ bone });
  else session.choose({ part: id });
};
</script>

<template>
  <div class="rig-bench">
    <section aria-label="Handles">
      <div class="head">
        <h3>Handle</h3>
        <choice-field
          v-model="rig.of"
          label="The handle is on"
          :choices="[
            { value: 'bone', name: 'The bone in hand', text: 'bone' },
            { value: 'part', name: 'The part in hand, as it is mounted', text: 'part' },
          ]"
        />
      </div>
      <div class="three">
        <CommandButton id="rig.turn" text="Turn" /><CommandButton
          id="rig.joint"
          :text="rig.of === 'bone' ? 'Joint' : 'Move'"
        /><CommandButton id="rig.scale" text="Scale" />
      </div>
      <div class="two">
        <CommandButton id="rig.try" text="Try a pose" /><CommandButton id="rig.reset" text="Reset turn" />
      </div>
      <div class="row snap">
        <choice-field
          label="Steps of joints"
          class="figures"
          v-model="rig.step"
          :choices="STEPS.map((s) => ({ value: s.v, name: s.name, text: s.t }))"
        />
        <SelectField
          v-model="rig.snap"
          label="A dragged joint snaps to"
          data-tip="A joint dragged by its dot snaps to"
          :choices="choices(SNAPS, (n) => SNAP_NAMES[n])"
        />
      </div>
    </section>
    <section aria-label="Bones">
      <h3>Bones</h3>
      <div class="two">
        <CommandButton id="bone.new" text="New below" /><CommandButton
          id="bone.extrude"
          text="By clicks"
        /><CommandButton id="bone.above" text="New above" /><CommandButton
          id="bone.duplicate"
          text="Duplicate…"
        /><CommandButton id="rig.limb" text="Limb" /><CommandButton id="bone.delete" text="Delete" />
      </div>
      <div class="row">
        <span class="quiet">Straighten</span
        ><CommandButton v-for="a in ['X', 'Y', 'Z']" :id="`rig.align${a}`" :key="a" :text="a" />
      </div>
    </section>
    <section aria-label="The other side">
      <h3>The other side</h3>
      <CommandButton id="rig.mirrorLeft" text="Left to right" /><CommandButton
        id="rig.mirrorRight"
        text="Right to left"
      />
      <div class="flips">
        <CommandButton id="rig.flip" text="Flip" /><icon-button
          :icon="IconDots"
          label="Flip otherwise"
          @click="(e: MouseEvent) => dialogs.openMenu(e, FLIPS)"
        />
      </div>
    </section>
    <JointStudy />
    <section aria-label="Checks">
      <h3>Checks</h3>
      <div class="row wrap">
        <CommandButton id="rig.reel" text="Test reel" /><CommandButton id="rig.ring" text="Ring…" />
      </div>
      <p v-if="(session.project?.rig.bones.length ?? 0) === 0" class="quiet">No bones yet.</p>
      <p v-else-if="findings.length === 0" class="good">
        {{
          say('rig.allMounted', {
            bones: counted(session.project?.rig.bones.length ?? 0, 'bones'),
            parts: counted(partsInUse(session.project?.parts ?? []).length, 'parts'),
          })
        }}
      </p>
      <ul v-else>
        <li v-for="f in findings" :key="f.text">
          {{ f.text }} <action-button look="link" @click="show(f.id)">Show</action-button>
        </li>
      </ul>
    </section>
    <ReadyRigDialog v-if="rig.dialog === 'keep' || rig.dialog === 'unseal'" /><RingDialog
      v-if="rig.dialog === 'ring'"
    /><LimbDialog v-if="rig.dialog === 'limb'" /><DuplicateBonesDialog v-if="rig.dialog === 'duplicate'" />
  </div>
</template>

<style scoped>
.rig-bench {
  display: grid;
  grid-template-columns: 236px 226px 124px minmax(0, 1fr) 150px;
  height: 100%;
  overflow: auto;
}
section {
  padding: 8px 14px 6px;
  border-right: 1px solid var(--line);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 5px;
  align-content: start;
}
.flips {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px;
}
.wrap {
  flex-wrap: wrap;
}
.head {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 5px;
}
.three :deep(.el-button) {
  padding: 0 4px;
}
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 5px;
}
.two :deep(.el-button) {
  padding: 0 6px;
}
.snap {
  flex-wrap: nowrap;
}
.snap :deep(.el-select) {
  min-width: 0;
}
@media (max-width: 1180px) {
  .rig-bench {
    grid-template-columns: 208px 190px 108px minmax(340px, 1fr) 132px;
  }
  .rig-bench :is(.two, .three) :deep(.el-button svg) {
    display: none;
  }
  section {
    padding-inline: 10px;
  }
}
.row {
  gap: 6px;
}
.good {
  color: var(--ok);
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
