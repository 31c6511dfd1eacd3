<script setup lang="ts">
import { sideSuffix } from '@sphalerite/core/model';
import { computed } from 'vue';
import CommandButton from '../../components/CommandButton.vue';
import { useSession } from '../../stores/session';

const session = useSession();
/** What would trouble an artist later, in plain words, with the way there. */
const findings = computed(() => {
  const p = session.project;
  if (!p) return [];
  const out: { text: string; go?: () => void }[] = [];
  for (const part of p.parts) {
    const mounts = p.rig.mounts.filter((m) => m.part === part.id);
    const name = `“${part.name}${sideSuffix(part.side)}”`;
    if (mounts.every((m) => m.bone === null)) out.push({ text: `${name} is not mounted on a bone.` });
    if (mounts.filter((m) => m.bone !== null).length > 1) out.push({ text: `${name} is mounted on two bones.` });
  }
  for (const b of p.rig.bones) {
    const used = p.rig.mounts.some((m) => m.bone === b.id) || p.rig.bones.some((o) => o.parent === b.id);
    if (!used) out.push({ text: `“${b.name}${sideSuffix(b.side)}” carries nothing.`, go: () => session.choose({ bone: b.id }) });
  }
  return out;
});
</script>

<template>
  <div class="rig-bench">
    <section aria-label="Handles">
      <h3>Handle</h3>
      <div class="row"><CommandButton id="rig.turn" label /><CommandButton id="rig.joint" label /></div>
      <div class="row"><CommandButton id="rig.reset" label /><CommandButton id="bone.new" label /><CommandButton id="bone.delete" label /></div>
    </section>
    <section aria-label="Checks">
      <h3>Checks</h3>
      <p v-if="findings.length === 0" class="good">{{ session.project?.rig.bones.length }} bones, {{ session.project?.parts.length }} parts, all mounted</p>
      <ul v-else><li v-for="f in findings" :key="f.text">{{ f.text }} <button v-if="f.go" type="button" class="go" @click="f.go">Show</button></li></ul>
    </section>
  </div>
</template>

<style scoped>
.rig-bench { display: grid; grid-template-columns: auto 1fr; height: 100%; overflow: auto; }
section { padding: 10px 14px; border-right: 1px solid var(--line); display: grid; gap: 8px; align-content: start; }
.good { color: var(--ok); }
ul { margin: 0; padding-left: 18px; }
.go { text-decoration: underline; color: var(--resin); }
</style>
