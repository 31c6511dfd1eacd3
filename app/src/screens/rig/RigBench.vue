<script setup lang="ts">
import { checkRig } from '@sphalerite/core/project';
import { computed, defineAsyncComponent } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import { useSession } from '../../stores/session';
import JointStudy from './JointStudy.vue';
import { SNAPS, SNAP_NAMES } from './joint-snap';
import { useRig } from './rig-state';

// Dialogs are fetched when they are first opened.
const BringInDialog = defineAsyncComponent(() => import('./BringInDialog.vue'));
const ReadyRigDialog = defineAsyncComponent(() => import('./ReadyRigDialog.vue'));
const RingDialog = defineAsyncComponent(() => import('./RingDialog.vue'));
const STEPS = [
  { v: 0.5, t: '½', name: 'Half cubes' },
  { v: 1, t: '1', name: 'Whole cubes' },
  { v: 0, t: 'free', name: 'Any length' },
] as const;

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
      <h3>Handle</h3>
      <div class="row wrap">
        <CommandButton id="rig.turn" text="Turn" /><CommandButton id="rig.joint" text="Move joint" /><CommandButton
          id="rig.try"
          text="Try a pose"
        /><CommandButton id="rig.reset" text="Reset turn" />
      </div>
      <div class="row snap">
        <div class="segments figures" role="group" aria-label="Steps of joints">
          <button
            v-for="s in STEPS"
            :key="s.v"
            type="button"
            :aria-pressed="rig.step === s.v"
            :aria-label="s.name"
            :title="s.name"
            @click="rig.step = s.v"
          >
            {{ s.t }}
          </button>
        </div>
        <select
          v-model="rig.snap"
          class="pick"
          aria-label="A dragged joint snaps to"
          title="A joint dragged by its dot snaps to"
        >
          <option v-for="n in SNAPS" :key="n" :value="n">{{ SNAP_NAMES[n] }}</option>
        </select>
      </div>
    </section>
    <section aria-label="Bones">
      <h3>Bones</h3>
      <div class="row wrap">
        <CommandButton id="bone.new" text="New below" /><CommandButton
          id="bone.extrude"
          text="By clicks"
        /><CommandButton id="bone.delete" text="Delete" /><CommandButton id="rig.limb" text="Make a limb" />
      </div>
      <div class="row">
        <span class="quiet">Straighten below</span
        ><CommandButton v-for="a in ['X', 'Y', 'Z']" :id="`rig.align${a}`" :key="a" :text="a" />
      </div>
      <h3>The other side</h3>
      <div class="row wrap">
        <CommandButton id="rig.mirrorLeft" text="Left to right" /><CommandButton
          id="rig.mirrorRight"
          text="Right to left"
        /><CommandButton id="rig.flip" text="Flip" />
      </div>
    </section>
    <JointStudy />
    <section aria-label="Checks">
      <h3>Checks</h3>
      <div class="row wrap">
        <CommandButton id="rig.reel" text="Pose-test reel" /><CommandButton id="rig.ring" text="Ring…" />
      </div>
      <p v-if="findings.length === 0" class="good">
        {{ session.project?.rig.bones.length }} bones, {{ session.project?.parts.length }} parts, all mounted
      </p>
      <ul v-else>
        <li v-for="f in findings" :key="f.text">
          {{ f.text }} <button type="button" class="go" @click="show(f.id)">Show</button>
        </li>
      </ul>
    </section>
    <BringInDialog v-if="rig.dialog === 'bring'" /><ReadyRigDialog
      v-if="rig.dialog === 'keep' || rig.dialog === 'unseal'"
    /><RingDialog v-if="rig.dialog === 'ring'" />
  </div>
</template>

<style scoped>
.rig-bench {
  display: grid;
  grid-template-columns: minmax(130px, 0.8fr) minmax(130px, 1.05fr) minmax(0, 2fr) minmax(110px, 0.8fr);
  height: 100%;
  overflow: auto;
}
section {
  padding: 8px 14px 6px;
  border-right: 1px solid var(--line);
  display: grid;
  gap: 5px;
  align-content: start;
}
.wrap {
  flex-wrap: wrap;
}
.snap .segments {
  flex: none;
}
.snap {
  flex-wrap: nowrap;
}
.row {
  gap: 6px;
}
.row :deep(.btn) {
  height: 28px;
}
.snap .pick {
  min-width: 0;
  width: 100%;
  height: 26px;
  padding: 0 4px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 12px;
}
.good {
  color: var(--ok);
}
ul {
  margin: 0;
  padding-left: 18px;
}
.go {
  text-decoration: underline;
  color: var(--resin);
}
</style>
