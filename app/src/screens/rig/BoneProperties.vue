<script setup lang="ts">
import { IconAnchor, IconRotate2 } from '@tabler/icons-vue';
import { type Vec3, sub } from '@sphalerite/core/math';
import { type Part, composite, sideSuffix } from '@sphalerite/core/model';
import { branchOf, moveJointEdit, coincidingFaces, mountPartEdit, mountPartsEdit, renameBoneEdit, setRestEdit, shrinkSlightlyEdit } from '@sphalerite/core/project';
import { clipsTouching } from '@sphalerite/core/motion';
import { REST_POSE, restWorld } from '@sphalerite/core/rig';
import { computed } from 'vue';
import NameField from '../../components/NameField.vue';
import NumberField from '../../components/NumberField.vue';
import PartPicture from '../../components/PartPicture.vue';
import { useSession } from '../../stores/session';
import AttachmentList from './AttachmentList.vue';
import ConstraintList from './ConstraintList.vue';
import { runCommand } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';
import { shifted } from '../shared/pose-shift';
import { useRig } from './rig-state';

const session = useSession();
const rig = useRig();
const notices = useNotices();
const AXES = ['x', 'y', 'z'] as const;
const bone = computed(() => session.bone);
const joint = computed<Vec3>(() => (bone.value && session.shown ? restWorld(session.shown.rig).get(bone.value.id)!.t : [0, 0, 0]));
const shownBone = computed(() => session.shown?.rig.bones.find((b) => b.id === bone.value?.id) ?? bone.value);
const degrees = computed<Vec3>(() => (shownBone.value ? toDegrees(shownBone.value.rest.q) : [0, 0, 0]));
const mounted = computed(() => {
  const p = session.project;
  return p ? p.rig.mounts.filter((m) => m.bone === bone.value?.id).flatMap((m) => p.parts.filter((x) => x.id === m.part)) : [];
});
const turn = (axis: number, v: number): unknown => session.apply(setRestEdit, { bone: bone.value!.id, rest: { q: fromDegrees(withComponent(degrees.value, axis, v)) }, alone: rig.alone, keepLook: rig.keepLook });
const move = (axis: number, v: number): unknown => {
  const id = bone.value!.id, delta = sub(withComponent(joint.value, axis, Math.round(v * 2) / 2), joint.value);
  return rig.carry ? session.apply(setRestEdit, { bone: id, rest: { t: shifted(session.project!, REST_POSE, id, delta).t }, keepLook: rig.keepLook }) : session.apply(moveJointEdit, { bone: id, delta });
};
const clips = computed(() => (session.project && bone.value ? clipsTouching(session.project.clips, branchOf(session.project, bone.value.id)) : []));
/** Faces that lie in those of another part, for parts small enough to look at while one works. */
const flicker = computed(() => new Map(mounted.value.map((part: Part): [string, string] => {
  if (composite(part).count > 50_000) return [part.id, ''];
  const [most] = coincidingFaces(session.project!, part.id);
  return [part.id, most ? `${most.faces === 1 ? '1 face lies in that' : `${most.faces.toLocaleString('en')} faces lie in those`} of ${most.other.name}${sideSuffix(most.other.side)}.` : ''];
})));
const scaled = (part: string): boolean => session.project!.rig.mounts.some((m) => m.part === part && m.s[0] !== 1);
const onSeveral = (part: string): boolean => session.project!.rig.mounts.filter((m) => m.part === part && m.bone !== null).length > 1;
function play(clip: string): void {
  session.choose({ clip });
  void runCommand('go.animate').catch(notices.fail);
}
</script>

<template>
  <div v-if="bone && session.project">
    <section class="panel-section">
      <div class="panel-head"><NameField :name="bone.name" label="Name of the bone" :disabled="!session.writable" @rename="(name) => session.apply(renameBoneEdit, { bone: bone!.id, name })" /><span v-if="bone.side !== 'centre'" class="tag">{{ bone.side }}</span><span class="quiet">bone</span></div>
    </section>
    <section class="panel-section">
      <div class="panel-head"><h2>Turn</h2><button type="button" class="bare" aria-label="Reset the turn" title="Reset the turn · Shift+R" @click="session.apply(setRestEdit, { bone: bone!.id, rest: { q: [0, 0, 0, 1] } })"><IconRotate2 aria-hidden="true" /></button></div>
      <div class="row"><NumberField v-for="(a, i) in AXES" :key="a" :axis="a" :label="a.toUpperCase()" :name="`Turn ${a.toUpperCase()}`" :model-value="degrees[i]!" :step="5" unit="°" @change="(v) => turn(i, v)" /></div>
      <label class="check"><input v-model="rig.alone" type="checkbox" />alone: what hangs on it stays</label>
    </section>
    <section class="panel-section">
      <div class="panel-head"><h2>Joint</h2><span class="quiet">half cubes</span></div>
      <div class="row"><NumberField v-for="(a, i) in AXES" :key="a" :axis="a" :label="a.toUpperCase()" :name="`Joint ${a.toUpperCase()}`" :model-value="joint[i]!" :step="0.5" @change="(v) => move(i, v)" /></div>
      <label class="check"><input v-model="rig.carry" type="checkbox" />carry parts and bones along</label>
      <p v-if="!rig.carry" class="quiet keep"><IconAnchor aria-hidden="true" />Parts and bones below keep their place.</p>
    </section>
    <section class="panel-section">
      <div class="panel-head"><h2>Mounted</h2><span class="quiet figures">{{ mounted.length }}</span></div>
      <div v-for="p in mounted" :key="p.id" class="mounted"><PartPicture :project="session.project" :part="p" /><span>{{ p.name }}</span><button type="button" class="btn" @click="session.apply(mountPartEdit, { part: p.id, bone: null })">Unmount</button><button v-if="onSeveral(p.id)" type="button" class="btn only" @click="session.apply(mountPartsEdit, { pairs: [{ part: p.id, bone: bone!.id }] })">Only on this bone</button><p v-if="flicker.get(p.id) && !scaled(p.id)" class="quiet only">{{ flicker.get(p.id) }} <button type="button" class="link" @click="session.apply(shrinkSlightlyEdit, { part: p.id, by: 0.98 })">Shrink slightly</button></p><p v-else-if="scaled(p.id)" class="quiet only">Scaled a little. <button type="button" class="link" @click="session.apply(shrinkSlightlyEdit, { part: p.id, by: 1 })">Full size</button></p></div>
      <p v-if="mounted.length === 0" class="quiet">Nothing is mounted here; it steers what hangs below.</p>
    </section>
    <ConstraintList :bone="bone" />
    <AttachmentList :bone="bone" />
    <section v-if="clips.length > 0" class="panel-section" aria-label="Clips it moves in">
      <div class="panel-head"><h2>Moves in</h2><span class="quiet figures">{{ clips.length }}</span></div>
      <p class="clips"><button v-for="c in clips" :key="c.id" type="button" class="link" title="Show it in Animate" @click="play(c.id)">{{ c.name }}</button></p>
      <label class="check" title="Else keys keep their numbers, which are offsets from rest"><input v-model="rig.keepLook" type="checkbox" />when the rest changes, clips keep their look</label>
    </section>
  </div>
  <p v-else class="none quiet">Click a joint in the view, or a bone on the left.</p>
</template>

<style scoped>
.none { padding: 16px; }
.keep { display: flex; gap: 6px; align-items: center; }
.keep svg { width: 16px; height: 16px; flex: none; }
.check { display: flex; gap: 6px; align-items: center; font-size: 12px; }
.check input { accent-color: var(--resin); margin: 0; }
.clips { display: flex; flex-wrap: wrap; gap: 4px 10px; font-size: 12px; }
.link { color: var(--resin); text-decoration: underline; }
.only { grid-column: 2 / 4; }
.mounted { display: grid; grid-template-columns: 40px 1fr auto; gap: 8px; align-items: center; }
</style>
