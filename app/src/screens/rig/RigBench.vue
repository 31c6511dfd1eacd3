<script setup lang="ts">
import { checkRig } from '@sphalerite/core/project';
import { computed } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import { useSession } from '../../stores/session';
import JointStudy from './JointStudy.vue';

const session = useSession();
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
      <div class="row wrap"><CommandButton id="rig.turn" text="Turn" /><CommandButton id="rig.joint" text="Move joint" /><CommandButton id="rig.try" text="Try a pose" /><CommandButton id="rig.reset" text="Reset turn" /></div>
    </section>
    <section aria-label="Bones">
      <h3>Bones</h3>
      <div class="row wrap"><CommandButton id="bone.new" text="New below" /><CommandButton id="bone.delete" text="Delete" /><CommandButton id="rig.limb" text="Make a limb" /></div>
      <h3>The other side</h3>
      <div class="row wrap"><CommandButton id="rig.mirrorLeft" text="Left to right" /><CommandButton id="rig.mirrorRight" text="Right to left" /><CommandButton id="rig.flip" text="Flip" /></div>
    </section>
    <JointStudy />
    <section aria-label="Checks">
      <h3>Checks</h3>
      <p v-if="findings.length === 0" class="good">{{ session.project?.rig.bones.length }} bones, {{ session.project?.parts.length }} parts, all mounted</p>
      <ul v-else><li v-for="f in findings" :key="f.text">{{ f.text }} <button type="button" class="go" @click="show(f.id)">Show</button></li></ul>
    </section>
  </div>
</template>

<style scoped>
.rig-bench { display: grid; grid-template-columns: minmax(130px, 0.8fr) minmax(130px, 1.05fr) minmax(0, 2fr) minmax(110px, 0.8fr); height: 100%; overflow: auto; }
section { padding: 8px 14px 6px; border-right: 1px solid var(--line); display: grid; gap: 5px; align-content: start; }
.wrap { flex-wrap: wrap; }
.row { gap: 6px; }
.row :deep(.btn) { height: 28px; }
.good { color: var(--ok); }
ul { margin: 0; padding-left: 18px; }
.go { text-decoration: underline; color: var(--resin); }
</style>
